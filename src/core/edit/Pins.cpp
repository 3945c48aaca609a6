#include "core/edit/Pins.h"

#include <algorithm>
#include <array>
#include <map>
#include <utility>

#include "core/edit/ArrangeLayers.h"

namespace uq {

namespace {

// The lowest number that no pin of the map has.
class FreeNumbers {
 public:
  explicit FreeNumbers(const Map& map) {
    std::size_t count = 0;
    for (const Shared<Layer>& layer : map.layers) count += layer->pins->size();
    // Among one more numbers than there are pins one is free.
    taken_.resize(count + 2);
    for (const Shared<Layer>& layer : map.layers) {
      for (const Pin& pin : layer->pins.read()) {
        if (static_cast<std::size_t>(pin.number) < taken_.size()) taken_[static_cast<std::size_t>(pin.number)] = true;
      }
    }
  }
  int next() {
    while (next_ < taken_.size() && taken_[next_]) ++next_;
    return static_cast<int>(next_++);
  }

 private:
  std::vector<bool> taken_;  // by number
  std::size_t next_ = 1;
};

// Calls change(Pins&) for the layer, and puts it back.
template <class Change>
Quilt changedPins(const Quilt& quilt, LayerAt at, Change&& change) {
  const Layer* layer = quilt.layer(at);
  if (!layer || !layer->holdsPins()) return quilt;
  Layer next = *layer;
  next.pins.edit(change);
  return quilt.with(at, std::move(next));
}

void put(Pins& pins, Pin pin) {
  const auto at = std::lower_bound(pins.begin(), pins.end(), pin.id, [](const Pin& one, Id id) { return one.id < id; });
  if (at != pins.end() && at->id == pin.id) *at = std::move(pin);
  else pins.insert(at, std::move(pin));
}

// The layer for pins on which something that was meant for `on` comes to lie, made where there is none.
std::pair<Quilt, LayerAt> layerFor(const Quilt& quilt, LayerAt on, IdSource& ids) {
  const Map* map = quilt.map(on.map);
  if (!map) return {quilt, {}};
  const Layer* wanted = map->layer(on.layer);
  if (wanted && wanted->holdsPins()) return {quilt, on};
  // On the level of that layer, so that a pin lies where it was placed.
  const int rise = wanted ? map->riseOf(*wanted) : 0;
  for (auto one = map->layers.rbegin(); one != map->layers.rend(); ++one) {
    if ((*one)->holdsPins() && map->riseOf(one->read()) == rise) return {quilt, {on.map, (*one)->id}};
  }
  const Id folder = wanted ? wanted->folder : Id();
  std::size_t index = map->layers.size();
  while (!folder.empty() && index > 0 && !map->isWithin(map->layers[index - 1]->folder, folder)) --index;
  LayerAdded added = addPinsLayer(quilt, on.map, index, ids, folder);
  return {std::move(added.quilt), {on.map, added.layer}};
}

bool lies(CellPos cell) {
  return std::abs(cell.x) <= kFarthestCell && std::abs(cell.y) <= kFarthestCell;
}

}  // namespace

PinAdded addPin(const Quilt& quilt, LayerAt on, Pin pin, IdSource& ids) {
  auto [made, at] = layerFor(quilt, on, ids);
  if (at.layer.empty() || !lies(pin.cell)) return {quilt, {}};
  pin.id = freshId(made, ids);
  pin.number = FreeNumbers(*made.map(at.map)).next();
  const Id id = pin.id;
  return {changedPins(made, at, [&](Pins& pins) { put(pins, std::move(pin)); }), {at.map, id}};
}

Quilt withPin(const Quilt& quilt, Id map, Pin pin) {
  const Map* found = quilt.map(map);
  const Layer* layer = found ? found->layerOfPin(pin.id) : nullptr;
  if (!layer) return quilt;
  return changedPins(quilt, {map, layer->id}, [&](Pins& pins) { put(pins, std::move(pin)); });
}

Quilt withPinRenumbered(const Quilt& quilt, PinAt at) {
  const Pin* found = quilt.pin(at);
  if (!found) return quilt;
  Pin pin = *found;
  pin.number = FreeNumbers(*quilt.map(at.map)).next();
  return withPin(quilt, at.map, std::move(pin));
}

Quilt withoutPins(const Quilt& quilt, Id id, const std::set<Id>& gone) {
  const Map* map = quilt.map(id);
  if (!map) return quilt;
  Map next = *map;
  for (Shared<Layer>& layer : next.layers) {
    const auto goes = [&](const Pin& pin) { return gone.contains(pin.id); };
    if (!layer->holdsPins() || std::none_of(layer->pins->begin(), layer->pins->end(), goes)) continue;
    layer.edit([&](Layer& one) { one.pins.edit([&](Pins& pins) { std::erase_if(pins, goes); }); });
  }
  return quilt.with(std::move(next));
}

Quilt withPinsMoved(const Quilt& quilt, Id id, const std::set<Id>& moved, SidePos by) {
  const Map* map = quilt.map(id);
  if (!map || by == SidePos{}) return quilt;
  const auto grid = makeGrid(map->grid);
  Map next = *map;
  for (Shared<Layer>& layer : next.layers) {
    const auto goes = [&](const Pin& pin) { return moved.contains(pin.id) && !pin.edge; };
    if (!layer->holdsPins() || std::none_of(layer->pins->begin(), layer->pins->end(), goes)) continue;
    layer.edit([&](Layer& one) {
      one.pins.edit([&](Pins& pins) {
        for (Pin& pin : pins) {
          const CellPos to = grid->fromSide(grid->toSide(pin.cell) + by);
          if (goes(pin) && lies(to)) pin.cell = to;
        }
      });
    });
  }
  return quilt.with(std::move(next));
}

std::vector<Id> pinsOn(const Map& map, CellPos cell, const std::set<Id>& hidden) {
  struct Found {
    std::int64_t cells;
    Id pin;
  };
  std::vector<Found> found;
  for (auto nearest = map.layers.rbegin(); nearest != map.layers.rend(); ++nearest) {
    if (!(*nearest)->holdsPins() || hidden.contains((*nearest)->id)) continue;
    for (const Pin& pin : (*nearest)->pins.read()) {
      const CellRect cells = cellsOf(pin, map.bounds);
      if (cells.contains(cell)) found.push_back({std::int64_t{cells.width()} * cells.height(), pin.id});
    }
  }
  std::stable_sort(found.begin(), found.end(), [](const Found& a, const Found& b) { return a.cells < b.cells; });
  std::vector<Id> pins;
  for (const Found& one : found) pins.push_back(one.pin);
  return pins;
}

std::set<Id> pinsWithin(const Map& map, CellRect cells, const std::set<Id>& hidden) {
  std::set<Id> within;
  for (const Shared<Layer>& layer : map.layers) {
    if (!layer->holdsPins() || hidden.contains(layer->id)) continue;
    for (const Pin& pin : layer->pins.read()) {
      if (!pin.edge && pin.box().intersected(cells) == pin.box()) within.insert(pin.id);
    }
  }
  return within;
}

std::string pinText(const Pin& pin) {
  if (!pin.name.empty()) return pin.name;
  return (pin.edge ? "edge " : "spot ") + std::to_string(pin.number);
}

Heading outOver(GridKind kind, MapEdge edge) {
  static constexpr std::array kStraight = {Heading::west, Heading::north, Heading::east, Heading::south};
  static constexpr std::array kDiamond = {Heading::northWest, Heading::northEast, Heading::southEast, Heading::southWest};
  return (kind == GridKind::diamond ? kDiamond : kStraight)[static_cast<std::size_t>(edge)];
}

std::string edgeText(GridKind kind, MapEdge edge) { return std::string(headingName(outOver(kind, edge))) + " edge"; }

PinsHeld heldPins(const Quilt& quilt, Id id, const std::set<Id>& chosen) {
  PinsHeld held;
  const Map* map = quilt.map(id);
  if (!map) return held;
  for (const Shared<Layer>& layer : map->layers) {
    if (!layer->holdsPins()) continue;
    for (const Pin& pin : layer->pins.read()) {
      if (chosen.contains(pin.id)) held.pins.push_back({pin, {}});
    }
  }
  if (held.empty()) return held;
  // By number, so that the first one is the one that was placed first.
  std::stable_sort(held.pins.begin(), held.pins.end(), [](const auto& a, const auto& b) { return a.pin.number < b.pin.number; });
  const auto grid = makeGrid(map->grid);
  const SidePos first = grid->toSide(held.pins.front().pin.cell);
  for (PinsHeld::One& one : held.pins) one.from = grid->toSide(one.pin.cell) - first;
  for (const Shared<Doorway>& doorway : quilt.doorways()) {
    const bool isWithin = doorway->from.map == id && doorway->to.map == id;
    if (isWithin && chosen.contains(doorway->from.pin) && chosen.contains(doorway->to.pin)) held.doorways.push_back(doorway.read());
  }
  return held;
}

PinsAdded withPinsLaid(const Quilt& quilt, LayerAt on, const PinsHeld& held, CellPos cell, IdSource& ids) {
  if (held.empty()) return {quilt, {}};
  auto [made, at] = layerFor(quilt, on, ids);
  if (at.layer.empty()) return {quilt, {}};
  const Map& map = *made.map(at.map);
  const auto grid = makeGrid(map.grid);
  FreeNumbers numbers(map);
  std::map<Id, Id> copies;
  std::set<Id> laid;
  std::set<Id> moved;
  const SidePos first = grid->toSide(cell);
  Quilt after = changedPins(made, at, [&](Pins& pins) {
    for (const PinsHeld::One& one : held.pins) {
      Pin pin = one.pin;
      pin.cell = grid->fromSide(first + one.from);
      if (!lies(pin.cell)) continue;
      // What was cut is laid itself, so that ways to it live; what is still there is laid as a copy.
      if (made.knows(pin.id) || laid.contains(pin.id)) pin.id = freshId(made, ids);
      else moved.insert(pin.id);
      pin.number = numbers.next();
      copies[one.pin.id] = pin.id;
      laid.insert(pin.id);
      put(pins, std::move(pin));
    }
  });
  const auto follows = [&](PinAt& end) { return moved.contains(end.pin) && std::exchange(end.map, at.map) != at.map; };
  for (const Shared<Doorway>& shared : quilt.doorways()) {
    Doorway doorway = shared.read();
    const bool from = follows(doorway.from);
    const bool to = follows(doorway.to);
    if (from || to) after = after.with(std::move(doorway));
  }
  if (PinAt start = after.facts().start; follows(start)) {
    QuiltFacts facts = after.facts();
    facts.start = start;
    after = after.with(std::move(facts));
  }
  for (Doorway doorway : held.doorways) {
    // Among pins that were cut the ways are there still.
    if (moved.contains(doorway.from.pin) && moved.contains(doorway.to.pin)) continue;
    const auto from = copies.find(doorway.from.pin);
    const auto to = copies.find(doorway.to.pin);
    if (from == copies.end() || to == copies.end()) continue;
    doorway.id = freshId(after, ids);
    doorway.from = {at.map, from->second};
    doorway.to = {at.map, to->second};
    after = after.with(std::move(doorway));
  }
  return {std::move(after), std::move(laid)};
}

}  // namespace uq
