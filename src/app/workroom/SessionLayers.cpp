// What of Session concerns the layers of the desk's map, and what is said of the map itself.
#include "app/workroom/Session.h"

#include <algorithm>

#include "core/edit/ArrangeLayers.h"
#include "core/edit/Covered.h"
#include "core/edit/Selected.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Levels.h"
#include "core/edit/MapFacts.h"

namespace uq {

std::vector<LayerAt> Session::chosenLayers() const {
  std::vector<LayerAt> chosen;
  if (!map()) return chosen;
  for (const Shared<Layer>& layer : map()->layers) {
    const bool is = layer->id == desk().landing().layer || desk().alsoChosen.contains(layer->id);
    if (is) chosen.push_back({desk().map, layer->id});
  }
  return chosen;
}

void Session::changeLayers(const QString& what, const LayerEdit& edit) {
  if (changes_ && !work_.gesture()) return;  // the drag was ended by something else
  const std::vector<LayerAt> chosen = chosenLayers();
  Quilt after = changes_ ? work_.gesture()->before() : quilt();
  for (const LayerAt at : chosen) after = edit(after, at);
  if (changes_) return changeTo(std::move(after));
  const QString name =
      chosen.size() > 1 ? tr("%1 of %n layer(s)", nullptr, static_cast<int>(chosen.size())).arg(what) : onLayer(what);
  mapStep(name, std::move(after), desk().landing().layer);
}

void Session::changeTo(Quilt now) {
  work_.gesture()->become(std::move(now));
  showGesture();
}

void Session::beginChange(const QString& what) {
  if (!map()) return;
  changes_ = true;
  (void)begin(onLayer(what), Gesture::changing(quilt()));  // where it may not, nothing is changed until the hand lets go
}

void Session::endChange() {
  const bool isOurs = work_.gesture() && work_.gesture()->kind() == Gesture::Kind::change;
  if (std::exchange(changes_, false) && isOurs) endStroke();
}

void Session::alsoChoose(Id layer) {
  Desk desk = this->desk();
  if (layer == desk.landing().layer) return;
  if (!desk.alsoChosen.erase(layer)) desk.alsoChosen.insert(layer);
  setDesk(std::move(desk));
}

void Session::hangBackdrops(const std::vector<Id>& sheets, std::size_t index) {
  if (!map()) return;
  Quilt after = quilt();
  Id hung;
  QStringList names;
  for (const Id id : sheets) {
    LayerAdded added = addBackdrop(after, desk().map, index, id, ids_);
    if (added.layer.empty()) continue;
    after = std::move(added.quilt);
    hung = added.layer;
    names << QString::fromStdString(quilt().sheet(id)->name);
  }
  if (names.empty()) return;
  if (madeStep(tr("Hang %1").arg(names.join(tr(", "))), std::move(after), {desk().map, hung})) chooseLayer(hung);
}

void Session::addPins(std::size_t index) {
  LayerAdded added = addPinsLayer(quilt(), desk().map, index, ids_);
  if (madeStep(tr("Add a layer for pins"), std::move(added.quilt), {desk().map, added.layer})) chooseLayer(added.layer);
}

void Session::mergeDown() {
  const LayerAt at = desk().landing();
  const Layer* layer = quilt().layer(at);
  if (!layer) return;
  const Id behind = *map()->layerIndex(at.layer) > 0 ? map()->layers[*map()->layerIndex(at.layer) - 1]->id : Id();
  mapStep(tr("Merge %1 down").arg(QString::fromStdString(layer->name)), uq::mergeDown(quilt(), at), behind);
}

void Session::changeMap(const QString& what, Quilt after) {
  if (map())
    mapStep(tr("%1 of %2").arg(what, QString::fromStdString(map()->name)), std::move(after), desk().landing().layer);
}

void Session::setCamera(PixelPos at) {
  if (!map()) return;
  Desk desk = this->desk();
  desk.cameras[desk.map] = cameraNear(quilt(), *map(), at);
  setDesk(std::move(desk));
}

void Session::setNote(LayerAt at, const QString& note) {
  const Layer* layer = quilt().layer(at);
  if (!layer) return;
  mapStep(tr("Note on %1").arg(QString::fromStdString(layer->name)), withNote(quilt(), at, note.toStdString()),
          desk().landing().layer);
}

const LayerFolder* Session::level() const {
  const Layer* layer = quilt().layer(desk().landing());
  return layer ? map()->layerFolder(layer->folder) : nullptr;
}

void Session::addLevel() {
  const LayerAdded added = uq::addLevel(quilt(), desk().landing(), ids_);
  const Layer* layer = added.quilt.layer({desk().map, added.layer});
  if (!layer) return;
  const std::string name = added.quilt.map(desk().map)->layerFolder(layer->folder)->name;
  mapStep(tr("Add %1").arg(QString::fromStdString(name)), added.quilt, added.layer);
}

void Session::deleteLevel() {
  const LayerFolder* gone = level();
  if (!gone) return;
  // The nearest layer behind it, else any other, is active then.
  Id next;
  bool passed = false;
  for (const Shared<Layer>& layer : map()->layers) {
    const bool stays = !map()->isWithin(layer->folder, gone->id);
    passed = passed || !stays;
    if (stays && (!passed || next.empty())) next = Id(layer->id);
  }
  mapStep(tr("Delete %1").arg(QString::fromStdString(gone->name)), uq::deleteLevel(quilt(), desk().map, gone->id), next);
}

void Session::renameLevel(Id id, const QString& name) {
  const LayerFolder* old = map() ? map()->layerFolder(id) : nullptr;
  if (!old) return;
  mapStep(tr("Rename %1").arg(QString::fromStdString(old->name)),
          uq::renameLevel(quilt(), desk().map, id, name.toStdString()), desk().landing().layer);
}

void Session::setRise(int rise) {
  const LayerFolder* risen = level();
  if (!risen) return;
  if (changes_ && !work_.gesture()) return;
  if (changes_) return changeTo(withRise(work_.gesture()->before(), desk().map, risen->id, rise));
  mapStep(tr("Rise of %1").arg(QString::fromStdString(risen->name)), withRise(quilt(), desk().map, risen->id, rise),
          desk().landing().layer);
}

void Session::setDrawOrder(DrawOrder order) {
  if (!map()) return;
  const LayerFolder* in = level();
  const std::string name = in ? in->name : map()->name;
  mapStep(tr("Order of %1").arg(QString::fromStdString(name)),
          withDrawOrder(quilt(), desk().map, in ? in->id : Id(), order), desk().landing().layer);
}

void Session::addLayer(StackPlace place) {
  LayerAdded added = uq::addLayer(quilt(), desk().map, place.index, ids_, {}, place.folder);
  const Layer* layer = added.quilt.layer({desk().map, added.layer});
  if (!layer) return;
  if (madeStep(tr("Add %1").arg(QString::fromStdString(layer->name)), added.quilt, {desk().map, added.layer}))
    chooseLayer(added.layer);
}

void Session::duplicateLayer() {
  const Layer* layer = quilt().layer(desk().landing());
  if (!layer) return;
  LayerAdded added = uq::duplicateLayer(quilt(), desk().landing(), ids_);
  mapStep(tr("Duplicate %1").arg(QString::fromStdString(layer->name)), std::move(added.quilt), added.layer);
}

void Session::deleteLayer() {
  const Layer* layer = quilt().layer(desk().landing());
  if (!layer) return;
  // The next one behind it, else the one in front, is active then.
  const std::vector<Shared<Layer>>& layers = map()->layers;
  const std::size_t index = *map()->layerIndex(layer->id);
  const Id next = layers.size() == 1 ? Id() : layers[index == 0 ? 1 : index - 1]->id;
  mapStep(tr("Delete %1").arg(QString::fromStdString(layer->name)), uq::deleteLayer(quilt(), desk().landing()), next);
}

void Session::renameLayer(Id layer, const QString& name) {
  const Layer* old = quilt().layer({desk().map, layer});
  if (!old) return;
  mapStep(tr("Rename %1").arg(QString::fromStdString(old->name)),
          uq::renameLayer(quilt(), {desk().map, layer}, name.toStdString()), desk().landing().layer);
}

void Session::moveLayer(Id layer, int by) {
  const auto index = map() ? map()->layerIndex(layer) : std::nullopt;
  if (!index) return;
  const int to = std::clamp(static_cast<int>(*index) + by, 0, static_cast<int>(map()->layers.size()) - 1);
  if (to == static_cast<int>(*index)) return;
  mapStep(tr("Move %1 in the Stack").arg(QString::fromStdString(map()->layer(layer)->name)),
          uq::moveLayer(quilt(), {desk().map, layer}, static_cast<std::size_t>(to)), desk().landing().layer);
}

void Session::moveLayer(Id layer, StackPlace to) {
  const Layer* moved = quilt().layer({desk().map, layer});
  if (!moved) return;
  mapStep(tr("Move %1 in the Stack").arg(QString::fromStdString(moved->name)),
          uq::moveLayer(quilt(), {desk().map, layer}, to), desk().landing().layer);
}

void Session::foldLayers() {
  if (!map()) return;
  std::vector<Id> chosen;
  for (const LayerAt at : chosenLayers()) chosen.push_back(at.layer);
  FolderAdded added = uq::foldLayers(quilt(), desk().map, chosen, ids_);
  mapStep(tr("Put %n layer(s) in a folder", nullptr, static_cast<int>(chosen.size())), std::move(added.quilt),
          desk().landing().layer);
}

void Session::moveFolder(Id folder, StackPlace to) {
  const LayerFolder* moved = map() ? map()->layerFolder(folder) : nullptr;
  if (!moved) return;
  mapStep(tr("Move %1 in the Stack").arg(QString::fromStdString(moved->name)),
          uq::moveFolder(quilt(), desk().map, folder, to), desk().landing().layer);
}

void Session::unfold() {
  const LayerFolder* gone = level();
  if (!gone) return;
  mapStep(tr("Take %1 away, not its layers").arg(QString::fromStdString(gone->name)),
          uq::unfold(quilt(), desk().map, gone->id), desk().landing().layer);
}

void Session::foldUp(Id folder) {
  Desk desk = this->desk();
  if (!desk.foldedUp.erase(folder)) desk.foldedUp.insert(folder);
  setDesk(std::move(desk));
}

void Session::toggleFolderEye(Id folder) {
  if (!map()) return;
  Desk desk = this->desk();
  std::vector<Id> inside;
  for (const Shared<Layer>& layer : map()->layers) {
    if (map()->isWithin(layer->folder, folder)) inside.push_back(layer->id);
  }
  const bool allShut =
      std::all_of(inside.begin(), inside.end(), [&](Id layer) { return desk.hidden.contains(layer); });
  for (const Id layer : inside) {
    if (allShut) {
      desk.hidden.erase(layer);
    } else {
      desk.hidden.insert(layer);
    }
  }
  setDesk(std::move(desk));
}

void Session::setWalker(Id behind) {
  const Layer* layer = quilt().layer({desk().map, behind});
  if (!layer) return;
  mapStep(tr("Walker in front of %1").arg(QString::fromStdString(layer->name)),
          withWalker(quilt(), desk().map, behind), desk().landing().layer);
}

Hiding Session::hiding() {
  const auto ask = [this](bool (CellCover::*what)(const Quilt&, const GridShape&, TileRef)) {
    return [this, what, shape = map()->grid](TileRef tile) { return (cover_.*what)(quilt(), shape, tile); };
  };
  return {ask(&CellCover::hides), ask(&CellCover::keepsIn), ask(&CellCover::covers), ask(&CellCover::fills)};
}

void Session::stripCovered() {
  const LayerAt at = desk().landing();
  const Layer* layer = quilt().layer(at);
  const std::vector<LayerAt> layers{at};
  if (!layer || !takesChange(layers)) return;
  const CellSet covered = coveredCells(quilt(), at, map()->bounds, hiding());
  if (covered.empty()) {
    Q_EMIT refused(tr("Nothing on %1 is hidden whole").arg(QString::fromStdString(layer->name)));
    return;
  }
  mapStep(tr("Strip %n covered cell(s) of %1", nullptr, static_cast<int>(covered.count()))
              .arg(QString::fromStdString(layer->name)),
          clearCells(quilt(), layers, covered), at.layer);
}

}  // namespace uq
