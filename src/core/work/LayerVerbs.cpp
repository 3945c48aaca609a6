#include "core/work/LayerVerbs.h"

#include <algorithm>

#include "core/base/Counted.h"
#include "core/edit/Landing.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/MapFacts.h"
#include "core/edit/Selected.h"
#include "core/work/StepNames.h"
#include "core/work/Strokes.h"

namespace uq {

void LayerVerbs::choose(Id layer) {
  Desk desk = withChosenLayer(work_.desk(), {work_.desk().map, layer});
  desk.alsoChosen.clear();
  work_.setDesk(std::move(desk));
}

void LayerVerbs::alsoChoose(Id layer) {
  Desk desk = work_.desk();
  if (layer == desk.activeAt().layer) return;
  if (!desk.alsoChosen.erase(layer)) desk.alsoChosen.insert(layer);
  work_.setDesk(std::move(desk));
}

std::vector<LayerAt> LayerVerbs::chosen() const {
  std::vector<LayerAt> chosen;
  const Desk& desk = work_.desk();
  if (!work_.map()) return chosen;
  for (const Shared<Layer>& layer : work_.map()->layers) {
    const bool is = layer->id == desk.activeAt().layer || desk.alsoChosen.contains(layer->id);
    if (is) chosen.push_back({desk.map, layer->id});
  }
  return chosen;
}

void LayerVerbs::add(StackPlace place, BesideWalker beside) {
  const Map* before = work_.map();
  if (!before) return;
  const Id map = before->id;
  LayerAdded added = addLayer(work_.quilt(), map, place.index, work_.ids(), {}, place.folder);
  const Layer* layer = added.quilt.layer({map, added.layer});
  if (!layer) return;
  if (place.index == before->walkerPlace() && beside != BesideWalker::asUsual) {
    const bool behind = beside == BesideWalker::behind;
    const Id under = behind ? added.layer : place.index > 0 ? before->layers[place.index - 1]->id : Id();
    if (!under.empty()) added.quilt = withWalker(added.quilt, map, under);
  }
  if (work_.make({"Add " + layer->name, added.quilt, {map, added.layer}})) choose(added.layer);
}

void LayerVerbs::hangBackdrops(const std::vector<Id>& sheets, std::size_t index) {
  if (!work_.map()) return;
  const Id map = work_.desk().map;
  Quilt after = work_.quilt();
  Id hung;
  std::string names;
  for (const Id id : sheets) {
    LayerAdded added = addBackdrop(after, map, index, id, work_.ids());
    if (added.layer.empty()) continue;
    after = std::move(added.quilt);
    hung = added.layer;
    names += (names.empty() ? "" : ", ") + work_.quilt().sheet(id)->name;
  }
  if (names.empty()) return;
  if (work_.make({"Hang " + names, std::move(after), {map, hung}})) choose(hung);
}

void LayerVerbs::addPins(std::size_t index) {
  const Id map = work_.desk().map;
  LayerAdded added = addPinsLayer(work_.quilt(), map, index, work_.ids());
  if (work_.make({"Add a layer for pins", std::move(added.quilt), {map, added.layer}})) choose(added.layer);
}

void LayerVerbs::duplicate() {
  const Layer* layer = active();
  if (!layer) return;
  const LayerAdded added = duplicateLayer(work_.quilt(), work_.desk().activeAt(), work_.ids());
  work_.step("Duplicate " + layer->name, added.quilt, {work_.desk().map, added.layer});
}

void LayerVerbs::remove() {
  const Layer* layer = active();
  if (!layer) return;
  // The next one behind it, else the one in front, is active then.
  const std::vector<Shared<Layer>>& layers = work_.map()->layers;
  const std::size_t index = *work_.map()->layerIndex(layer->id);
  const Id next = layers.size() == 1 ? Id() : layers[index == 0 ? 1 : index - 1]->id;
  work_.step("Delete " + layer->name, deleteLayer(work_.quilt(), work_.desk().activeAt()), {work_.desk().map, next});
}

void LayerVerbs::rename(Id layer, const std::string& name) {
  const Layer* old = here(layer);
  if (old) work_.step("Rename " + old->name, renameLayer(work_.quilt(), {work_.desk().map, layer}, name));
}

void LayerVerbs::move(Id layer, int by) {
  const Map* map = work_.map();
  const auto index = map ? map->layerIndex(layer) : std::nullopt;
  if (!index) return;
  const int to = std::clamp(static_cast<int>(*index) + by, 0, static_cast<int>(map->layers.size()) - 1);
  if (to == static_cast<int>(*index)) return;
  work_.step("Move " + map->layer(layer)->name + " in the Stack",
             moveLayer(work_.quilt(), {map->id, layer}, static_cast<std::size_t>(to)));
}

void LayerVerbs::move(Id layer, StackPlace to) {
  const Layer* moved = here(layer);
  if (!moved) return;
  work_.step("Move " + moved->name + " in the Stack", moveLayer(work_.quilt(), {work_.desk().map, layer}, to));
}

void LayerVerbs::mergeDown() {
  const Layer* layer = active();
  if (!layer) return;
  const Map& map = *work_.map();
  const std::size_t index = *map.layerIndex(layer->id);
  const Id behind = index > 0 ? map.layers[index - 1]->id : Id();
  work_.step("Merge " + layer->name + " down", uq::mergeDown(work_.quilt(), work_.desk().activeAt()), {map.id, behind});
}

void LayerVerbs::change(const std::string& what, const Edit& edit) {
  const std::vector<LayerAt> all = chosen();
  const auto onAll = [&](const Quilt& before) {
    Quilt after = before;
    for (const LayerAt at : all) after = edit(after, at);
    return after;
  };
  if (bar_.takes(onAll)) return;
  const auto count = static_cast<std::int64_t>(all.size());
  const std::string name =
      count > 1 ? what + " of " + counted(count, "layer") : verbName(work_.desk(), work_.quilt(), what);
  work_.step(name, onAll(work_.quilt()));
}

void LayerVerbs::setNote(LayerAt at, const std::string& note) {
  const Layer* layer = work_.quilt().layer(at);
  if (layer) work_.step("Note on " + layer->name, withNote(work_.quilt(), at, note));
}

void LayerVerbs::setWalker(Id behind) {
  const Layer* layer = here(behind);
  if (!layer) return;
  work_.step("Walker in front of " + layer->name, withWalker(work_.quilt(), work_.desk().map, behind));
}

Hiding LayerVerbs::hiding() const {
  const auto ask = [this](const LooksOn& what) {
    return [this, &what, shape = work_.map()->grid](TileRef tile) { return what && what(work_.quilt(), shape, tile); };
  };
  const TileLooks& looks = work_.looks();
  return {ask(looks.hides), ask(looks.keepsIn), ask(looks.covers), ask(looks.fills)};
}

void LayerVerbs::stripCovered() {
  const LayerAt at = work_.desk().activeAt();
  const Layer* layer = active();
  const std::vector<LayerAt> layers{at};
  if (!layer || !takesChange(work_, layers)) return;
  const CellSet covered = coveredCells(work_.quilt(), at, work_.map()->bounds, hiding());
  if (covered.empty()) return work_.refuse("Nothing on " + layer->name + " is hidden whole");
  work_.step("Strip " + counted(covered.count(), "covered cell") + " of " + layer->name,
             clearCells(work_.quilt(), layers, covered));
}

void LayerVerbs::takeCells(const std::string& name, const std::vector<LayerAt>& layers, Quilt after) {
  if (takesChange(work_, layers)) work_.step(name, std::move(after));
}

}  // namespace uq
