// ChunkReach: how far the pictures on a chunk's cells reach beyond those cells.
//
// To draw a rectangle, every cell must be drawn whose picture meets it. Kept per chunk, so that one giant picture in
// one corner of a map costs nothing anywhere else. Cost: one look at a dense chunk's cells, then a look-up by its
// revision.
#pragma once

#include <unordered_map>

#include "core/cells/CellGrid.h"
#include "core/grid/Grid.h"
#include "raster/TileArt.h"

namespace uq {

// Map pixels beyond the box of the cell; never negative.
struct Reach {
  int left = 0;
  int up = 0;
  int right = 0;
  int down = 0;

  bool isNone() const { return left == 0 && up == 0 && right == 0 && down == 0; }
  Reach united(const Reach& other) const;
  // What a rectangle must be grown by to hold the boxes of all cells whose pictures meet it.
  PixelRect around(const PixelRect& rect) const {
    return {rect.x - right, rect.y - down, rect.w + left + right, rect.h + up + down};
  }
  // What the pictures of cells with these boxes may cover.
  PixelRect covered(const PixelRect& boxes) const {
    return {boxes.x - left, boxes.y - up, boxes.w + left + right, boxes.h + up + down};
  }
};

class ChunkReach {
 public:
  // Forgets everything: sheets or the map's grid changed.
  void clear() { known_.clear(); }

  // `art` follows the quilt that the chunk belongs to.
  Reach of(const CellGrid::ChunkView& chunk, TileArt& art, const Grid& grid);

  // The most by which a cell of the chunk is lifted, of a layer's NumberGrid.
  int mostLift(const CellGrid::ChunkView& lifts);

  // The farthest that any tile of the quilt that `art` follows could reach on this grid.
  static Reach farthest(const TileArt& art, const Grid& grid);

 private:
  std::unordered_map<std::uint64_t, Reach> known_;  // by ChunkView::key()
  std::unordered_map<std::uint64_t, int> lifts_;
};

// Where a picture of `size` that stands so reaches beyond the box of its cell.
Reach reachOf(PixelSize size, const Stance& stance, const Grid& grid);

}  // namespace uq
