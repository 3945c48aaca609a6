#include "core/edit/Doorways.h"

#include <algorithm>

#include "core/base/Shortened.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Pins.h"
#include "core/edit/Standing.h"

namespace uq {

namespace {

std::string endText(const Quilt& quilt, PinAt at) {
  const Pin* pin = quilt.pin(at);
  return pin ? shortened(pinText(*pin)) : "a spot that is gone";
}

std::string capital(std::string text) {
  if (!text.empty() && text.front() >= 'a' && text.front() <= 'z') text.front() = static_cast<char>(text.front() - 'a' + 'A');
  return text;
}

// Which way somebody goes who leaves by a pin.
Heading travelFrom(const Quilt& quilt, PinAt from) {
  const Map* map = quilt.map(from.map);
  const Pin* pin = quilt.pin(from);
  if (!map || !pin) return Heading::south;
  if (pin->edge) return nearestHeading(map->grid.kind, outOver(map->grid.kind, *pin->edge));
  return Standing(quilt, *map).leaving(middleOf(*pin, map->bounds));
}

}  // namespace

Heading proposedArrival(const Quilt& quilt, PinAt from, Id id, CellPos cell) {
  const Map* map = quilt.map(id);
  return map ? Standing(quilt, *map).facing(cell, travelFrom(quilt, from)) : Heading::south;
}

Heading proposedReturn(const Quilt& quilt, PinAt from) {
  const Map* map = quilt.map(from.map);
  const Pin* pin = quilt.pin(from);
  if (!map || !pin) return Heading::south;
  return Standing(quilt, *map).facing(middleOf(*pin, map->bounds), opposite(travelFrom(quilt, from)));
}

DoorwayAdded addDoorway(const Quilt& quilt, PinAt from, const WayTo& to, IdSource& ids) {
  const Map* map = quilt.map(to.map);
  if (!quilt.pin(from) || !map || (!to.pin.empty() && !map->pin(to.pin))) return {quilt, {}};
  Quilt after = quilt;
  Doorway doorway;
  doorway.from = from;
  doorway.to = {to.map, to.pin};
  if (to.pin.empty()) {
    Pin pin;
    pin.cell = to.cell;
    PinAdded added = addPin(after, {to.map, {}}, std::move(pin), ids);
    if (added.pin.empty()) return {quilt, {}};
    after = std::move(added.quilt);
    doorway.to = added.pin;
  }
  if (doorway.from == doorway.to) return {quilt, {}};
  const CellPos arrives = middleOf(*after.pin(doorway.to), after.map(to.map)->bounds);
  doorway.arriving = to.arriving.value_or(proposedArrival(after, from, to.map, arrives));
  if (to.back) doorway.back = proposedReturn(after, from);
  doorway.id = freshId(after, ids);
  const Id id = doorway.id;
  return {after.with(std::move(doorway)), id};
}

DoorwayAdded withEndMoved(const Quilt& quilt, Id id, PinAt end, const WayTo& to, IdSource& ids) {
  const Doorway* found = quilt.listed<Doorway>(id);
  const Map* map = quilt.map(to.map);
  if (!found || !found->joins(end) || !map || (!to.pin.empty() && !map->pin(to.pin))) return {quilt, {}};
  const PinAt fixed = found->beyond(end);
  Quilt after = quilt;
  PinAt next{to.map, to.pin};
  if (to.pin.empty()) {
    const Pin* was = quilt.pin(end);
    const bool goesAlong = was && !was->edge && doorwaysOf(quilt, end).size() == 1 && !(quilt.facts().start == end);
    Pin pin = goesAlong ? *was : Pin();
    pin.cell = to.cell;
    pin.over = {1, 1};
    pin.beside = {};
    if (goesAlong && end.map == to.map) {
      next.pin = pin.id;
      after = withPin(after, to.map, std::move(pin));
    } else {
      if (goesAlong) after = withoutPins(after, end.map, {end.pin});
      PinAdded added = addPin(after, {to.map, {}}, std::move(pin), ids);
      if (added.pin.empty()) return {quilt, {}};
      after = std::move(added.quilt);
      next = added.pin;
    }
  }
  if (next == fixed) return {quilt, {}};
  Doorway moved = *found;
  const Heading facing = to.arriving.value_or(proposedArrival(after, fixed, to.map, middleOf(*after.pin(next), map->bounds)));
  if (found->to == end) {
    moved.to = next;
    moved.arriving = facing;
  } else {
    moved.from = next;
    if (moved.back) moved.back = facing;
  }
  return {after.with(std::move(moved)), id};
}

std::vector<Id> doorwaysOf(const Quilt& quilt, PinAt pin) {
  std::vector<Id> leading;
  std::vector<Id> others;
  for (const Shared<Doorway>& doorway : quilt.doorways()) {
    if (doorway->joins(pin)) (doorway->leadsFrom(pin) ? leading : others).push_back(doorway->id);
  }
  leading.insert(leading.end(), others.begin(), others.end());
  return leading;
}

std::vector<Id> doorwaysOf(const Quilt& quilt, Id map) {
  std::vector<Id> all;
  for (const Shared<Doorway>& doorway : quilt.doorways()) {
    if (doorway->joins(map)) all.push_back(doorway->id);
  }
  return all;
}

std::optional<Arrival> arrivalFrom(const Quilt& quilt, PinAt pin) {
  for (const Shared<Doorway>& doorway : quilt.doorways()) {
    if (doorway->from == pin) return Arrival{doorway->id, doorway->to, doorway->arriving};
  }
  for (const Shared<Doorway>& doorway : quilt.doorways()) {
    if (doorway->to == pin && doorway->back) return Arrival{doorway->id, doorway->from, *doorway->back};
  }
  return std::nullopt;
}

Quilt withStart(const Quilt& quilt, PinAt pin) {
  QuiltFacts facts = quilt.facts();
  facts.start = pin;
  return quilt.with(std::move(facts));
}

std::string doorwayText(const Quilt& quilt, const Doorway& doorway) {
  const Map* to = quilt.map(doorway.to.map);
  std::string text = capital(endText(quilt, doorway.from)) + " leads to " + (to ? shortened(to->name) : "a map that is gone") +
                     ", arriving at “" + endText(quilt, doorway.to) + "”, facing " + std::string(headingName(doorway.arriving));
  text += doorway.back ? ", and back." : ", one way.";
  if (!doorway.needs.empty()) text += " Needs " + shortened(doorway.needs) + ".";
  return text;
}

std::vector<std::string> needsSaid(const Quilt& quilt) {
  std::set<std::string> needs;
  for (const Shared<Doorway>& doorway : quilt.doorways()) {
    if (!doorway->needs.empty()) needs.insert(doorway->needs);
  }
  return {needs.begin(), needs.end()};
}

RoomAdded addRoom(const Quilt& quilt, PinAt from, const RoomAsk& ask, IdSource& ids) {
  const Map* parent = quilt.map(from.map);
  const Pin* pin = quilt.pin(from);
  if (!parent || !pin) return {quilt, {}, {}};
  MapPlan plan = proposedMap(quilt, parent, nullptr);
  if (!ask.name.empty()) plan.name = ask.name;
  plan.width = ask.cells.w;
  plan.height = ask.cells.h;
  MapAdded added = addMap(quilt, plan, ids);
  if (added.map.empty()) return {quilt, {}, {}};
  Quilt after = std::move(added.quilt);
  // The parent's roles, each once, in its order; ground and things are there.
  for (const Shared<Layer>& layer : parent->layers) {
    const Map& made = *after.map(added.map);
    const bool isThere = std::any_of(made.layers.begin(), made.layers.end(), [&](const auto& one) { return one->role == layer->role; });
    if (layer->holdsTiles() && !isThere) after = addLayer(after, added.map, made.layers.size(), ids, layer->role).quilt;
  }
  if (ask.onBoard) {
    Map placed = *after.map(added.map);
    placed.onBoard = ask.onBoard;
    after = after.with(std::move(placed));
  }
  const Map room = *after.map(added.map);
  if (!ask.floor.empty()) {
    const auto ground = std::find_if(room.layers.begin(), room.layers.end(), [](const auto& one) { return one->role == kGroundRole; });
    if (ground != room.layers.end()) {
      LayerCells cells = ground->read();
      for (int y = room.bounds.y0; y < room.bounds.y1; ++y) {
        for (int x = room.bounds.x0; x < room.bounds.x1; ++x) cells.cells.set({x, y}, ask.floor);
      }
      after = after.with({room.id, (*ground)->id}, std::move(cells));
    }
  }
  WayTo way{room.id, {}, {room.bounds.x0 + room.bounds.width() / 2, room.bounds.y1 - 1}, true, {}};
  DoorwayAdded through = addDoorway(after, from, way, ids);
  return {std::move(through.quilt), added.map, through.doorway};
}

}  // namespace uq
