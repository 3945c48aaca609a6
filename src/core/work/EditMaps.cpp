#include "core/work/EditMaps.h"

#include "core/edit/ArrangeLayers.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Doorways.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Pins.h"
#include "core/edit/ResizeMap.h"
#include "core/edit/Seams.h"

namespace uq {

bool EditMaps::ofMaps(const Json& step, const std::string& what, EditDone& done) {
  if (what == "newMap") newMap(step, done);
  else if (what == "addLayer") addLayer(step, done);
  else if (what == "resize") resize(step, done);
  else if (what == "sew" || what == "wrap" || what == "rip") sew(step, what, done);
  else if (what == "pin") pin(step, done);
  else if (what == "movePin" || what == "removePin" || what == "begin") changePin(step, what, done);
  else if (what == "lead") lead(step, done);
  else return false;
  return true;
}

IdSource EditMaps::idsOf(const Json& step) {
  return IdSource(static_cast<std::uint64_t>(integer(step, "ids", static_cast<std::int64_t>(seed_ + step_ + 1))));
}

const Map* EditMaps::mapCalled(const std::string& name) const {
  const Map* map = quilt_.mapNamed(name);
  const auto id = Id::parse(name);
  return map || !id ? map : quilt_.map(*id);
}

void EditMaps::goTo(const Json& step) {
  if (const std::string name = text(step, "map"); !name.empty()) {
    const Map* map = mapCalled(name);
    if (!map) return lacks("there is no map “" + name + "”", step);
    if (map->id != at_.map) at_ = {map->id, {}};
  }
  const Map* map = quilt_.map(at_.map);
  if (const std::string name = text(step, "layer"); !name.empty() && map) {
    const Layer* layer = map->layerNamed(name);
    if (const auto id = Id::parse(name); !layer && id) layer = map->layer(*id);
    if (!layer) return lacks("there is no layer “" + name + "” on “" + map->name + "”, or there are several", step);
    at_.layer = layer->id;
  }
  if (!quilt_.layer(at_)) refuse("it says no map and layer, and no step before it did", step);
}

void EditMaps::newMap(const Json& step, EditDone& done) {
  MapPlan plan;
  plan.name = text(step, "name");
  const std::string gridText = text(step, "grid");
  const auto kind = gridKindFromName(gridText.empty() ? "orthogonal" : gridText);
  if (!kind) return refuse(kind.error(), step);
  const Json* cellSize = step.find("cell");
  const auto size = cellSize ? numbers(*cellSize, 2) : std::optional(std::vector{32, 32});
  const auto extent = cell(step, "size");
  if (!size || !extent) return;
  const std::string seenText = text(step, "seen");
  const std::optional<Seen> seen = seenText.empty() ? Seen::fromAbove : seenFromName(seenText);
  if (!seen) return refuse("“seen” is neither “from-above” nor “side-on”", step);
  plan.grid = nearestShape(*kind, {(*size)[0], (*size)[1]});
  plan.seen = *seen;
  plan.width = extent->x;
  plan.height = extent->y;
  if (const std::string why = whyNoMap(plan); !why.empty()) return refuse(why, step);
  IdSource ids = idsOf(step);
  MapAdded added = addMap(quilt_, plan, ids);
  quilt_ = std::move(added.quilt);
  at_ = {added.map, quilt_.map(added.map)->layers.front()->id};
  done.what = "new map " + plan.name;
}

void EditMaps::sew(const Json& step, const std::string& what, EditDone& done) {
  const Map* map = mapOf(step);
  if (!map) return;
  const Map* other = what == "sew" ? mapCalled(text(step, "other")) : map;
  const auto at = what == "sew" ? cell(step, "at") : CellPos();
  if (!other) return lacks("there is no map “" + text(step, "other") + "”", step);
  if (!at) return;
  const std::string way = text(step, "way");
  if (what == "wrap" && way != "across" && way != "down") return refuse("“way” is neither “across” nor “down”", step);
  IdSource ids = idsOf(step);
  Sewing sewing{ripped(quilt_, seamsOf(quilt_, map->id)), {}};
  if (what != "rip") sewing = what == "sew" ? sewn(quilt_, map->id, other->id, *at, ids) : wrapped(quilt_, map->id, way == "down", ids);
  if (!sewing.why.empty()) return refuse(sewing.why, step);
  done.what = what + " " + map->name;
  quilt_ = std::move(sewing.quilt);
}

const Map* EditMaps::mapOf(const Json& step) {
  if (const std::string name = text(step, "map"); !name.empty()) {
    const Map* map = mapCalled(name);
    if (!map) return lacks("there is no map “" + name + "”", step), nullptr;
    if (!(at_.map == map->id)) at_ = {map->id, {}};
  }
  const Map* map = quilt_.map(at_.map);
  if (!map) refuse("it says no map, and no step before it did", step);
  return map;
}

void EditMaps::resize(const Json& step, EditDone& done) {
  const Map* map = mapOf(step);
  if (!map) return;
  ResizeAsk ask;
  const auto cells = [&](const char* name) { return bounded(step, name, -kFarthestCell, kFarthestCell, 0); };
  ask.by = {cells("left"), cells("top"), cells("right"), cells("bottom")};
  if (step.find("width")) ask.width = bounded(step, "width", 1, kFarthestCell, 1);
  if (step.find("height")) ask.height = bounded(step, "height", 1, kFarthestCell, 1);
  ask.toUsed = flag(step, "toUsed");
  ask.lines = lines(step);
  if (const std::string name = text(step, "layer"); !name.empty()) {
    const Layer* layer = map->layerNamed(name);
    if (!layer) return lacks("there is no layer “" + name + "” on “" + map->name + "”, or there are several", step);
    if (ask.lines.empty()) return refuse("“layer” means nothing in “resize” without rows or columns", step);
    ask.linesOf = layer->id;
  }
  ask.dropsAllowance = flag(step, "dropsAllowance");
  const std::string room = text(step, "room");
  const auto named = newRoomFromName(room.empty() ? newRoomName(NewRoom::empty) : room);
  if (!named) return refuse("\"room\" is empty, lastRow or ground", step);
  ask.room = *named;
  if (error_) return;
  Resized sized = resized(quilt_, map->id, ask);
  if (!sized.why.empty()) return refuse(sized.why, step);
  done.what = "resize " + map->name;
  done.cells = sized.cut + sized.broughtBack + sized.dropped + sized.gone;
  quilt_ = std::move(sized.quilt);
}

void EditMaps::addLayer(const Json& step, EditDone& done) {
  const Map* map = mapOf(step);
  if (!map) return;
  const int count = static_cast<int>(map->layers.size());
  const auto index = static_cast<std::size_t>(bounded(step, "index", 0, count, count));
  if (error_) return;
  IdSource ids = idsOf(step);
  LayerAdded added = uq::addLayer(quilt_, at_.map, index, ids, text(step, "role"));
  at_.layer = added.layer;
  quilt_ = std::move(added.quilt);
  if (const std::string name = text(step, "name"); !name.empty()) quilt_ = renameLayer(quilt_, at_, name);
  done.what = "add layer " + quilt_.layer(at_)->name;
}

std::optional<PinAt> EditMaps::pinCalled(const Json& step, const char* field, const Map& map) {
  const std::string called = text(step, field);
  std::vector<Id> found;
  for (const Shared<Layer>& layer : map.layers) {
    for (const Pin& pin : layer->pins.read()) {
      if (pin.name == called || std::to_string(pin.number) == called || pin.id.text() == called) found.push_back(pin.id);
    }
  }
  if (found.size() == 1 && !called.empty()) return PinAt{map.id, found.front()};
  const std::string why = called.empty() ? "“" + std::string(field) + "” names no pin"
                          : found.empty() ? "there is no pin “" + called + "” on “" + map.name + "”"
                                          : "there are several pins “" + called + "” on “" + map.name + "”";
  lacks(why, step);
  return std::nullopt;
}

void EditMaps::pin(const Json& step, EditDone& done) {
  const Map* map = mapOf(step);
  if (!map) return;
  Pin made;
  made.name = text(step, "name");
  if (const std::string edge = text(step, "edge"); !edge.empty()) {
    made.edge = edgeFromName(edge);
    if (!made.edge) return refuse("“edge” is left, top, right or bottom", step);
    if (made.name.empty()) made.name = edgeText(map->grid.kind, *made.edge);
  } else {
    const auto at = cell(step, "at");
    const Json* over = step.find("over");
    const auto size = over ? numbers(*over, 2) : std::optional(std::vector{1, 1});
    if (!at || !size) return;
    if ((*size)[0] < 1 || (*size)[1] < 1) return refuse("“over” is how many cells, at least 1 each way", *over);
    made.cell = *at;
    made.over = {(*size)[0], (*size)[1]};
  }
  IdSource ids = idsOf(step);
  PinAdded added = addPin(quilt_, {map->id, at_.layer}, std::move(made), ids);
  if (added.pin.empty()) return refuse("no pin can lie there", step);
  done.what = "pin " + pinText(*added.quilt.pin(added.pin)) + " on " + map->name;
  quilt_ = std::move(added.quilt);
}

void EditMaps::changePin(const Json& step, const std::string& what, EditDone& done) {
  const Map* map = mapOf(step);
  const auto at = map ? pinCalled(step, "pin", *map) : std::nullopt;
  if (!at) return;
  done.what = what + " " + pinText(*quilt_.pin(*at)) + " of " + map->name;
  if (what == "begin") {
    quilt_ = withStart(quilt_, *at);
  } else if (what == "removePin") {
    quilt_ = withoutPins(quilt_, map->id, {at->pin});
  } else if (const auto to = cell(step, "at")) {
    Pin moved = *quilt_.pin(*at);
    moved.cell = *to;
    moved.edge.reset();
    moved.beside = {};
    quilt_ = withPin(quilt_, map->id, std::move(moved));
  }
}

void EditMaps::lead(const Json& step, EditDone& done) {
  const Map* map = mapOf(step);
  const auto from = map ? pinCalled(step, "from", *map) : std::nullopt;
  if (!from) return;
  const std::string otherName = text(step, "other");
  const Map* other = otherName.empty() ? map : mapCalled(otherName);
  if (!other) return lacks("there is no map “" + otherName + "”", step);
  WayTo to;
  to.map = other->id;
  to.back = !flag(step, "oneWay");
  if (step.find("to")) {
    const auto pin = pinCalled(step, "to", *other);
    if (!pin) return;
    to.pin = pin->pin;
  } else {
    const auto at = cell(step, "at");
    if (!at) return;
    to.cell = *at;
  }
  if (const std::string facing = text(step, "facing"); !facing.empty()) {
    to.arriving = headingFromName(facing);
    if (!to.arriving || !sideOf(other->grid.kind, *to.arriving)) return refuse("“" + other->name + "” has no heading “" + facing + "”", step);
  }
  IdSource ids = idsOf(step);
  DoorwayAdded added = addDoorway(quilt_, *from, to, ids);
  if (added.doorway.empty()) return refuse("a way cannot lead to where it begins", step);
  Doorway way = *added.quilt.listed<Doorway>(added.doorway);
  way.needs = text(step, "needs");
  way.meantSo = to.back ? false : flag(step, "meantSo");
  quilt_ = added.quilt.with(way);
  done.what = doorwayText(quilt_, way);
}

}  // namespace uq
