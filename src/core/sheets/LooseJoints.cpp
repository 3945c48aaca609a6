#include "core/sheets/LooseJoints.h"

#include <algorithm>

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

}  // namespace

bool JointBook::carriesOn(Cell cell, int side, Cell beyond) {
  const TileSide* one = sides_.of(cell, side);
  const TileSide* other = sides_.of(beyond, sides_.facing(side));
  return one && other && other->solid > kHardlyAnything && differenceOf(*one, *other) <= kMostDifference;
}

std::optional<TileRef> JointBook::lookedUp(Cell cell, int side, Cell beyond) {
  const TileSide* one = sides_.of(cell, side);
  const TileSide* other = sides_.of(beyond, sides_.facing(side));
  if (!one || !other || one->goesOn || other->goesOn) return std::nullopt;
  if (one->solid <= kHardlyAnything && other->solid <= kHardlyAnything) return std::nullopt;
  if (differenceOf(*one, *other) < kLeastDifference) return std::nullopt;
  const TileSide here = *one;
  const TileSide there = *other;
  std::vector<Turn> turns = {Turn{}};
  std::vector<SheetSlot> slots;
  // Pictures of different sheets were not drawn for one another.
  if (!cell.empty() && !beyond.empty() && cell.tile().slot != beyond.tile().slot) return std::nullopt;
  for (const Cell known : {cell, beyond}) {
    if (known.empty()) continue;
    if (std::find(turns.begin(), turns.end(), known.turn()) == turns.end()) turns.push_back(known.turn());
    if (std::find(slots.begin(), slots.end(), known.tile().slot) == slots.end()) slots.push_back(known.tile().slot);
  }
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
        if (near && far && isMadeFor(here, *near) && isMadeFor(*far, there)) {
          return TileRef{slot, number};
        }
      }
    }
  }
  return std::nullopt;
}

const std::optional<TileRef>& JointBook::between(Cell cell, int side, Cell beyond) {
  const Pair pair{std::uint64_t{cell.bits()} << 32 | beyond.bits(), side};
  const auto known = known_.find(pair);
  if (known != known_.end()) return known->second;
  return known_.emplace(pair, lookedUp(cell, side, beyond)).first->second;
}

std::vector<LooseJoint> looseJoints(JointBook& book, const Map& map, std::size_t index, CellRect part, std::size_t most,
                                    Progress* progress) {
  std::vector<LooseJoint> found;
  const Layer& layer = map.layers[index].read();
  const PixelPos plane = map.planeOf(layer);
  part = part.intersected(map.bounds);
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
        found.push_back({at, side, *tile});
      }
    });
    if (found.size() >= most) break;
  }
  return found;
}

}  // namespace uq
