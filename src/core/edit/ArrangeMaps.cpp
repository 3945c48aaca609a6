#include "core/edit/ResizeMap.h"
#include "core/edit/ArrangeMaps.h"

#include <algorithm>

#include "core/edit/ArrangeLayers.h"

namespace uq {

namespace {

std::string freeName(const Quilt& quilt, const std::string& wanted) {
  std::string name = wanted;
  for (int n = 2; quilt.mapNamed(name); ++n) name = wanted + " " + std::to_string(n);
  return name;
}

std::string freeFolder(const Quilt& quilt, const std::string& name, Id besides = {}) {
  std::vector<std::string> taken = quilt.taken().names<Map>();
  for (const auto& map : quilt.maps()) {
    if (map->id != besides) taken.push_back(map->folder);
  }
  return slugFor(name, taken);
}

std::int64_t floorDiv64(std::int64_t a, std::int64_t b) { return a / b - (a % b < 0 ? 1 : 0); }

Map withOtherCells(Map map, PixelSize cell, CellsKeep keeps) {
  const PixelSize before = cellsPitch(map.grid);
  const bool firstShift = map.grid.firstShift;
  map.grid = nearestShape(map.grid.kind, cell);
  map.grid.firstShift = firstShift;
  if (keeps == CellsKeep::cells) return map;
  const PixelSize after = cellsPitch(map.grid);
  // Each edge goes to the cell in which it lies then; in 64 bits, since cells lie far out.
  const auto begin = [](int at, int was, int is) { return static_cast<int>(floorDiv64(std::int64_t{at} * was, is)); };
  const auto end = [&](int at, int was, int is) { return -begin(-at, was, is); };
  map.bounds = {begin(map.bounds.x0, before.w, after.w), begin(map.bounds.y0, before.h, after.h),
                end(map.bounds.x1, before.w, after.w), end(map.bounds.y1, before.h, after.h)};
  return map;
}

}  // namespace

MapPlan proposedMap(const Quilt& quilt, const Map* like, const Sheet* sheet) {
  MapPlan plan;
  plan.name = freeName(quilt, "Map");
  plan.grid = like ? like->grid : GridShape{GridKind::orthogonal, {32, 32}};
  if (like) plan.seen = like->seen;
  plan.width = like ? like->bounds.width() : 48;
  plan.height = like ? like->bounds.height() : 32;
  if (sheet) {
    const bool firstShift = plan.grid.firstShift;
    plan.grid = nearestShape(plan.grid.kind, sheet->cut.cell);
    plan.grid.firstShift = firstShift;
  }
  return plan;
}

std::string whyNoMap(const MapPlan& plan) {
  if (plan.name.empty()) return "The map needs a name";
  if (plan.name.size() > 200) return "The name is longer than 200 characters";
  if (const std::string why = whyNoGrid(plan.grid); !why.empty()) return why;
  if (plan.width < 1 || plan.height < 1) return "The map needs at least one cell each way";
  if (plan.width > kFarthestCell || plan.height > kFarthestCell) return "A map has at most 1,048,576 cells each way";
  const PixelRect pixels = makeGrid(plan.grid)->pixelBounds({0, 0, plan.width, plan.height});
  if (std::max({-pixels.x, pixels.right(), pixels.bottom()}) > kFarthestPixel) {
    return "A map is at most 16,777,216 pixels wide and high";
  }
  return {};
}

MapAdded addMap(const Quilt& quilt, const MapPlan& plan, IdSource& ids) {
  if (!whyNoMap(plan).empty()) return {quilt, {}};
  Map map;
  map.id = freshId(quilt, ids);
  map.name = plan.name;
  map.folder = freeFolder(quilt, plan.name);
  map.grid = plan.grid;
  map.seen = plan.seen;
  map.bounds = {0, 0, plan.width, plan.height};
  const Id id = map.id;
  Quilt next = quilt.with(std::move(map));
  next = addLayer(next, id, 0, ids).quilt;
  const LayerAdded things = addLayer(next, id, 1, ids);
  Layer layer = *things.quilt.layer({id, things.layer});
  layer.name = "Things";
  layer.role = "things";
  layer.file = "things";
  return {things.quilt.with({id, things.layer}, std::move(layer)), id};
}

namespace {

// A seam of copies, as that of what they were copied from.
Quilt withSeamOf(const Quilt& quilt, Seam seam, Id map, Id other, IdSource& ids) {
  seam.id = freshId(quilt, ids);
  seam.map = map;
  seam.other = other;
  return quilt.with(std::move(seam));
}

// New ids for all pins of a layer; what they were is a key of `copies`.
void renewPins(Layer& layer, const Quilt& quilt, IdSource& ids, std::map<Id, Id>& copies) {
  if (layer.pins->empty()) return;
  layer.pins.edit([&](Pins& pins) {
    for (Pin& pin : pins) pin.id = copies[pin.id] = freshId(quilt, ids);
    std::sort(pins.begin(), pins.end(), [](const Pin& a, const Pin& b) { return a.id < b.id; });
  });
}

// A doorway of copies, as that of what they were copied from; `copyOf` gives a copied end, or an empty one.
template <class CopyOf>
Quilt withDoorwayOf(const Quilt& quilt, Doorway doorway, CopyOf&& copyOf, IdSource& ids) {
  doorway.from = copyOf(doorway.from);
  doorway.to = copyOf(doorway.to);
  if (doorway.from.empty() || doorway.to.empty()) return quilt;
  doorway.id = freshId(quilt, ids);
  return quilt.with(std::move(doorway));
}

}  // namespace

MapAdded duplicateMap(const Quilt& quilt, Id id, IdSource& ids) {
  const Map* map = quilt.map(id);
  if (!map) return {quilt, {}};
  Map copy = *map;
  copy.id = freshId(quilt, ids);
  copy.name = freeName(quilt, map->name + " copy");
  copy.folder = freeFolder(quilt, copy.name);
  // What refers to a layer or folder of the map refers to that of the copy.
  std::map<Id, Id> copies;
  std::map<Id, Id> pins;
  for (LayerFolder& folder : copy.folders) folder.id = copies[folder.id] = freshId(quilt, ids);
  const auto copyOf = [&](Id old) { return copies.contains(old) ? copies[old] : Id(); };
  for (LayerFolder& folder : copy.folders) folder.in = copyOf(folder.in);
  for (Shared<Layer>& layer : copy.layers) {
    layer.edit([&](Layer& one) {
      one.id = copies[one.id] = freshId(quilt, ids);
      one.folder = copyOf(one.folder);
      renewPins(one, quilt, ids, pins);
      one.revision = Revision::next();
    });
  }
  copy.walker = copyOf(copy.walker);
  copy.onBoard.reset();
  const Id copied = copy.id;
  Quilt next = quilt.with(std::move(copy));
  for (const Shared<Seam>& seam : quilt.seams()) {
    if (seam->map == id && seam->wraps()) next = withSeamOf(next, seam.read(), copied, copied, ids);
  }
  const auto pinOf = [&](PinAt at) { return pins.contains(at.pin) ? PinAt{copied, pins[at.pin]} : PinAt{}; };
  for (const Shared<Doorway>& doorway : quilt.doorways()) {
    if (doorway->from.map == id && doorway->to.map == id) next = withDoorwayOf(next, doorway.read(), pinOf, ids);
  }
  return {std::move(next), copied, std::move(pins)};
}

MapsAdded duplicateMaps(const Quilt& quilt, const std::set<Id>& maps, IdSource& ids) {
  MapsAdded added{quilt, {}};
  std::map<Id, PinAt> pins;  // the copies, by what was copied
  for (const Id map : maps) {
    MapAdded one = duplicateMap(added.quilt, map, ids);
    if (one.map.empty()) continue;
    added.quilt = std::move(one.quilt);
    added.copies[map] = one.map;
    for (const auto& [pin, copy] : one.pins) pins[pin] = {one.map, copy};
  }
  for (const Shared<Seam>& seam : quilt.seams()) {
    const auto map = added.copies.find(seam->map);
    const auto other = added.copies.find(seam->other);
    if (seam->wraps() || map == added.copies.end() || other == added.copies.end()) continue;
    added.quilt = withSeamOf(added.quilt, seam.read(), map->second, other->second, ids);
  }
  const auto pinOf = [&](PinAt at) { return pins.contains(at.pin) && maps.contains(at.map) ? pins[at.pin] : PinAt{}; };
  for (const Shared<Doorway>& doorway : quilt.doorways()) {
    if (doorway->from.map != doorway->to.map) added.quilt = withDoorwayOf(added.quilt, doorway.read(), pinOf, ids);
  }
  return added;
}

Quilt renameMap(const Quilt& quilt, Id id, const std::string& name) {
  const Map* map = quilt.map(id);
  if (!map || name.empty() || name == map->name) return quilt;
  Map renamed = *map;
  renamed.name = name;
  renamed.folder = freeFolder(quilt, name, id);
  return quilt.with(std::move(renamed));
}

Quilt withCell(const Quilt& quilt, Id id, PixelSize cell, CellsKeep keeps) {
  const Map* map = quilt.map(id);
  if (!map || !whyNoCell(*map, cell, keeps).empty()) return quilt;
  Map next = withOtherCells(*map, cell, keeps);
  return next == *map ? quilt : quilt.with(std::move(next));
}

std::string whyNoCell(const Map& map, PixelSize cell, CellsKeep keeps) {
  if (std::min(cell.w, cell.h) < kSmallestCell || std::max(cell.w, cell.h) > kLargestCell) {
    return "Cells are 2 to 512 pixels each way";
  }
  const Map next = withOtherCells(map, cell, keeps);
  return whyNoBounds(next, next.bounds);
}

Quilt deleteMap(const Quilt& quilt, Id map) { return quilt.without<Map>(map); }

Quilt withOpeningMap(const Quilt& quilt, Id map) {
  if (!quilt.map(map)) return quilt;
  QuiltFacts facts = quilt.facts();
  facts.opensWith = facts.opensWith == map ? Id() : map;
  return quilt.with(std::move(facts));
}

}  // namespace uq
