#include "raster/ChunkReach.h"

#include <algorithm>

namespace uq {

namespace {
constexpr std::size_t kMostKnown = 200'000;
}

Reach Reach::united(const Reach& other) const {
  return {std::max(left, other.left), std::max(up, other.up), std::max(right, other.right), std::max(down, other.down)};
}

Reach reachOf(PixelSize size, const Stance& stance, const Grid& grid) {
  const PixelRect box = grid.cellBox({0, 0});
  const PixelRect seat = standing(grid, {0, 0}, size, stance);
  return {std::max(0, box.x - seat.x), std::max(0, box.y - seat.y), std::max(0, seat.right() - box.right()),
          std::max(0, seat.bottom() - box.bottom())};
}

Reach ChunkReach::farthest(const TileArt& art, const Grid& grid) {
  Reach reach;
  art.forEachStanding([&](const TileArt::Standing& one) {
    for (const bool mirror : {false, true}) {
      const PixelSize size = one.size;
      reach = reach.united(reachOf(size, turnedStance(grid, one.stance, {mirror, 0}), grid));
      reach = reach.united(reachOf({size.h, size.w}, turnedStance(grid, one.stance, {mirror, 1}), grid));
    }
  });
  return reach;
}

int ChunkReach::mostLift(const CellGrid::ChunkView& lifts) {
  if (lifts.isUniform()) return NumberGrid::numberOf(lifts.uniform());
  if (lifts_.size() >= kMostKnown) lifts_.clear();
  const auto [found, isNew] = lifts_.try_emplace(lifts.key());
  int& most = found->second;
  if (isNew) lifts.forEachOccurring([&](Cell cell) { most = std::max(most, NumberGrid::numberOf(cell)); });
  return most;
}

Reach ChunkReach::of(const CellGrid::ChunkView& chunk, TileArt& art, const Grid& grid) {
  if (chunk.blank()) return {};
  if (const auto found = known_.find(chunk.key()); found != known_.end()) return found->second;
  if (known_.size() >= kMostKnown) known_.clear();
  // Of tiles that stand alike only the largest matters.
  Reach reach;
  PixelSize largest;
  Stance stance;
  const auto finish = [&] {
    if (largest.w > 0) reach = reach.united(reachOf(largest, stance, grid));
    largest = {};
  };
  Cell last;
  const auto include = [&](Cell cell) {
    if (cell.empty() || cell == last) return;
    last = cell;
    const TileArt::Tile& tile = art.tile(asDrawn(cell, grid));
    if (!(tile.stance() == stance)) {
      finish();
      stance = tile.stance();
    }
    largest = {std::max(largest.w, tile.size().w), std::max(largest.h, tile.size().h)};
  };
  chunk.forEachOccurring(include);
  finish();
  return known_.emplace(chunk.key(), reach).first->second;
}

}  // namespace uq
