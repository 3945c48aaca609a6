// NearChunks: the chunks of one layer that matter for drawing one rectangle, and which of their cells do.
//
// A cell matters when its picture may meet the rectangle: its box, grown by the reach of its chunk, does. Cost: the
// chunks within the farthest reach of the quilt's sheets; afterwards a cell is found without a search.
#pragma once

#include <vector>

#include "raster/ChunkReach.h"

namespace uq {

class NearChunks {
 public:
  struct Near {
    CellGrid::ChunkView chunk;
    CellGrid::ChunkView lifts;  // by how much its cells are lifted; see NumberGrid
    CellRect cells;  // those that matter; empty where none do
  };

  // `farthest` is ChunkReach::farthest; cells outside `bounds` never matter. Without `reach` every chunk counts as
  // reaching the farthest, for whom a few cells too many cost less than a first look at all cells of a chunk.
  NearChunks(const Layer& layer, CellRect bounds, const PixelRect& pixels, const Reach& farthest, ChunkReach* reach,
             TileArt& art, const Grid& grid);

  // All cells that matter lie in here; empty when there are none.
  CellRect cells() const { return cells_; }

  // The chunk of a cell inside cells().
  const Near& of(CellPos pos) const {
    const ChunkPos at = ChunkPos::of(pos);
    return chunks_[static_cast<std::size_t>((at.cy - first_.cy) * columns_ + at.cx - first_.cx)];
  }

  // Calls visit(CellPos, Cell, lift) for each painted cell that matters, in no particular order.
  template <class Visit>
  void forEachCell(Visit&& visit) const {
    for (const Near& one : chunks_) {
      const CellRect all = one.chunk.at.cells();
      for (int y = one.cells.y0; y < one.cells.y1; ++y) {
        for (int x = one.cells.x0; x < one.cells.x1; ++x) {
          const Cell cell = one.chunk.cell(x - all.x0, y - all.y0);
          if (!cell.empty()) visit(CellPos{x, y}, cell, NumberGrid::numberOf(one.lifts.cell(x - all.x0, y - all.y0)));
        }
      }
    }
  }

 private:
  ChunkPos first_;
  int columns_ = 0;
  std::vector<Near> chunks_;  // row by row from first_
  CellRect cells_;
};

}  // namespace uq
