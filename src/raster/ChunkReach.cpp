#include "raster/ChunkReach.h"

#include <algorithm>

namespace uq {

namespace {
constexpr std::size_t kMostKnown = 200'000;
}

Reach Reach::united(const Reach& other) const {
  return {std::max(left, other.left), std::max(up, other.up), std::max(right, other.right), std::max(down, other.down)};
}

Reach reachOf(PixelSize size, const Grid& grid) {
  const PixelRect box = grid.cellBox({0, 0});
  const PixelRect seat = grid.seat({0, 0}, size);
  return {std::max(0, box.x - seat.x), std::max(0, box.y - seat.y), std::max(0, seat.right() - box.right()),
          std::max(0, seat.bottom() - box.bottom())};
}

Reach ChunkReach::farthest(const Quilt& quilt, const Grid& grid) {
  Reach reach;
  for (const Shared<Sheet>& sheet : quilt.sheets()) {
    const PixelSize size = sheet->cut.cell;
    reach = reach.united(reachOf(size, grid)).united(reachOf({size.h, size.w}, grid));
  }
  return reach;
}

Reach ChunkReach::of(const CellGrid::ChunkView& chunk, TileArt& art, const Grid& grid) {
  if (!chunk.dense && chunk.uniform.empty()) return {};
  if (const auto found = known_.find(chunk.key()); found != known_.end()) return found->second;
  if (known_.size() >= kMostKnown) known_.clear();
  PixelSize largest;
  Cell last;
  const auto include = [&](Cell cell) {
    if (cell.empty() || cell == last) return;
    last = cell;
    const PixelSize size = art.tile(asDrawn(cell, grid)).size();
    largest = {std::max(largest.w, size.w), std::max(largest.h, size.h)};
  };
  if (chunk.dense) {
    for (const Cell cell : chunk.dense->cells) include(cell);
  } else {
    include(chunk.uniform);
  }
  const Reach reach = largest.w > 0 ? reachOf(largest, grid) : Reach{};
  return known_.emplace(chunk.key(), reach).first->second;
}

}  // namespace uq
