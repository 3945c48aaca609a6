#include "core/sheets/LooseJoints.h"

#include <algorithm>
#include <limits>

#include "core/cells/CellReader.h"

namespace uq {

namespace {

constexpr int kHardlyAnything = 1;                     // solid patches at a side that are no picture being cut off
constexpr int kLeastDifference = 2 * kMostDifference;  // what is cut off is seen at a glance
constexpr int kMadeFor = kMostDifference / 2;          // a tile that belongs there fits better than most

// Whether the picture of the one goes over into that of the other, or neither shows anything but a shadow there.
bool isMadeFor(const TileSide& one, const TileSide& other) {
  if (one.goesOn || other.goesOn) return false;
  const bool nothing = one.solid <= kHardlyAnything && other.solid <= kHardlyAnything;
  return nothing || differenceOf(one, other) <= kMadeFor;
}

// Whether a solid tile that is lifted, on this layer or a nearer one, is drawn over the place where two cells meet.
bool isHidden(JointBook& book, const Map& map, std::size_t index, CellPos at, CellPos to) {
  const Grid& grid = book.sides().grid();
  const PixelPos plane = map.planeOf(map.layers[index].read());
  const auto middle = [](PixelRect box) { return PixelPos{box.x + box.w / 2, box.y + box.h / 2}; };
  const PixelPos a = middle(grid.cellBox(at));
  const PixelPos b = middle(grid.cellBox(to));
  const int step = std::max(1, grid.shape().cell.h / 2);
  for (std::size_t i = index; i < map.layers.size(); ++i) {
    const Layer& layer = map.layers[i].read();
    if (layer.lifts.empty() || !(layer.parallax == map.layers[index]->parallax)) continue;
    const PixelPos own = map.planeOf(layer);
    // Just on this side of the joint, and just beyond it.
    for (const int share : {3, 5}) {
      const PixelPos seen{a.x + (b.x - a.x) * share / 8 + plane.x - own.x, a.y + (b.y - a.y) * share / 8 + plane.y - own.y};
      for (int down = step; down <= kMostLift + step; down += step) {
        const CellPos from = grid.cellAt({seen.x, seen.y + down});
        const Laid laid = layer.laidAt(from);
        const bool covers = laid.lift > 0 && grid.cellAt({seen.x, seen.y + laid.lift}) == from;
        if (covers && book.isSolid(laid.cell)) return true;
      }
    }
  }
  return false;
}

}  // namespace

bool JointBook::carriesOn(Cell cell, int side, Cell beyond) {
  const TileSide* one = sides_.of(cell, side);
  const TileSide* other = sides_.of(beyond, sides_.facing(side));
  return one && other && other->solid > kHardlyAnything && differenceOf(*one, *other) <= kMostDifference;
}

bool JointBook::isSolid(Cell cell) {
  if (cell.empty()) return false;
  for (int side = 0; side < sides_.count(); ++side) {
    const TileSide* shown = sides_.of(cell, side);
    if (!shown || shown->solid < kSideSamples) return false;
  }
  return true;
}

std::vector<Cell> JointBook::lookedUp(Cell cell, int side, Cell beyond, std::size_t most) {
  const TileSide* one = sides_.of(cell, side);
  const TileSide* other = sides_.of(beyond, sides_.facing(side));
  if (!one || !other || one->goesOn || other->goesOn) return {};
  if (one->solid <= kHardlyAnything && other->solid <= kHardlyAnything) return {};
  if (differenceOf(*one, *other) < kLeastDifference) return {};
  const TileSide here = *one;
  const TileSide there = *other;
  std::vector<Turn> turns = {Turn{}};
  std::vector<SheetSlot> slots;
  // Pictures of different sheets were not drawn for one another.
  if (!cell.empty() && !beyond.empty() && cell.tile().slot != beyond.tile().slot) return {};
  for (const Cell known : {cell, beyond}) {
    if (known.empty()) continue;
    if (std::find(turns.begin(), turns.end(), known.turn()) == turns.end()) turns.push_back(known.turn());
    if (std::find(slots.begin(), slots.end(), known.tile().slot) == slots.end()) slots.push_back(known.tile().slot);
  }
  std::vector<Cell> made;
  for (const SheetSlot slot : slots) {
    const Sheet* sheet = sides_.quilt().sheetAt(slot);
    if (!sheet) continue;
    const auto count = static_cast<std::uint32_t>(sheet->tileCount());
    for (std::uint32_t i = 0; i < count; ++i) {
      const std::uint32_t number = sheet->numberAt(i);
      if (!sheet->offers(number)) continue;
      for (const Turn turn : turns) {
        const Cell middle({slot, number}, turn);
        const TileSide* near = sides_.of(middle, sides_.facing(side));
        const TileSide* far = sides_.of(middle, side);
        if (!near || !far || !isMadeFor(here, *near) || !isMadeFor(*far, there)) continue;
        made.push_back(middle);
        if (made.size() == most) return made;
      }
    }
  }
  return made;
}

const std::vector<Cell>& JointBook::madeFor(Cell cell, int side, Cell beyond) {
  const Pair pair{std::uint64_t{cell.bits()} << 32 | beyond.bits(), side};
  const auto known = made_.find(pair);
  if (known != made_.end()) return known->second;
  return made_.emplace(pair, lookedUp(cell, side, beyond, std::numeric_limits<std::size_t>::max())).first->second;
}

const std::optional<TileRef>& JointBook::between(Cell cell, int side, Cell beyond) {
  const Pair pair{std::uint64_t{cell.bits()} << 32 | beyond.bits(), side};
  const auto known = known_.find(pair);
  if (known != known_.end()) return known->second;
  const std::vector<Cell> made = lookedUp(cell, side, beyond, 1);
  return known_.emplace(pair, made.empty() ? std::nullopt : std::optional(made.front().tile())).first->second;
}

std::vector<LooseJoint> looseJoints(JointBook& book, const Map& map, std::size_t index, CellRect part, std::size_t most,
                                    Progress* progress) {
  std::vector<LooseJoint> found;
  const Layer& layer = map.layers[index].read();
  const PixelPos plane = map.planeOf(layer);
  // Joints are looked for from painted cells; a map may be two million rows high and hold ten.
  part = part.intersected(map.bounds).intersected(layer.cells.usedBounds());
  if (part.empty()) return found;
  if (progress) progress->expect(part.height());
  const Grid& grid = book.sides().grid();
  const int sides = book.sides().count();
  CellReader reader(layer.cells);
  // Which cell lies beyond a side depends only on whether x and y are odd.
  std::vector<CellPos> beyond;
  for (const CellPos from : {CellPos{0, 0}, CellPos{1, 0}, CellPos{0, 1}, CellPos{1, 1}}) {
    for (int side = 0; side < sides; ++side) {
      const CellPos to = grid.across(from, side);
      beyond.push_back({to.x - from.x, to.y - from.y});
    }
  }
  const auto isCarriedOn = [&](CellPos at, Cell cell, int side, CellPos to) {
    for (std::size_t i = 0; i < map.layers.size(); ++i) {
      if (i == index || !(map.planeOf(map.layers[i].read()) == plane)) continue;
      const CellGrid& others = map.layers[i]->cells;
      if (!cell.empty() && book.carriesOn(cell, side, others.at(to))) return true;
      const Cell across = layer.cells.at(to);
      if (!across.empty() && book.carriesOn(across, book.sides().facing(side), others.at(at))) return true;
    }
    return false;
  };
  for (int y = part.y0; y < part.y1; ++y) {
    if (progress) {
      if (progress->isCancelled()) break;
      progress->step(1);
    }
    layer.cells.forEachPainted({part.x0, y, part.x1, y + 1}, [&](CellPos at, Cell cell) {
      const std::size_t parity =
          static_cast<std::size_t>((at.x & 1) + 2 * (at.y & 1)) * static_cast<std::size_t>(sides);
      for (int side = 0; side < sides; ++side) {
        const CellPos step = beyond[parity + static_cast<std::size_t>(side)];
        const CellPos to{at.x + step.x, at.y + step.y};
        if (!map.bounds.contains(to)) continue;
        const Cell across = reader.at(to);
        // A joint of two tiles is looked at once, from the first of them.
        const bool seenFromThere = !across.empty() && side >= sides / 2 && part.contains(to);
        if (seenFromThere) continue;
        const std::optional<TileRef>& tile = book.between(cell, side, across);
        if (!tile || found.size() >= most || isCarriedOn(at, cell, side, to)) continue;
        const bool apart = !across.empty() && !layer.lifts.empty() && layer.lifts.at(at) != layer.lifts.at(to);
        if (apart || isHidden(book, map, index, at, to)) continue;
        found.push_back({at, side, *tile});
      }
    });
    if (found.size() >= most) break;
  }
  return found;
}

}  // namespace uq
