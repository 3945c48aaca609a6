#include "raster/NearChunks.h"

namespace uq {

NearChunks::NearChunks(const Layer& layer, CellRect bounds, const PixelRect& pixels, const Reach& most,
                       ChunkReach* reach, TileArt& art, const Grid& grid) {
  Reach farthest = most;
  if (!layer.lifts.empty()) farthest.up += kMostLift;
  const CellRect within = grid.cellsMeeting(farthest.around(pixels)).intersected(bounds);
  if (within.empty()) return;
  first_ = ChunkPos::of({within.x0, within.y0});
  const CellRect inner = grid.cellsMeeting(pixels);
  const ChunkPos last = ChunkPos::of({within.x1 - 1, within.y1 - 1});
  columns_ = last.cx - first_.cx + 1;
  chunks_.reserve(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(last.cy - first_.cy + 1));
  for (int cy = first_.cy; cy <= last.cy; ++cy) {
    for (int cx = first_.cx; cx <= last.cx; ++cx) {
      Near near{layer.cells.chunk({cx, cy}), layer.lifts.cells().chunk({cx, cy}), {}};
      if (!near.chunk.blank()) {
        const CellRect all = near.chunk.at.cells();
        near.cells = within.intersected(all);
        // Where nothing reaches anywhere, or the whole chunk lies inside, its reach need not be known.
        if (reach && !farthest.isNone() && !(inner.intersected(all) == all)) {
          Reach own = reach->of(near.chunk, art, grid);
          own.up += reach->mostLift(near.lifts);
          near.cells = near.cells.intersected(grid.cellsMeeting(own.around(pixels)));
        }
        cells_ = cells_.united(near.cells);
      }
      chunks_.push_back(near);
    }
  }
}

}  // namespace uq
