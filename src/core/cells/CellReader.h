// CellReader: reads cells that lie near one another without looking up their chunk each time.
//
// Keeps a view of the chunk it read last, so the grid must outlive it and must not be edited meanwhile. Cost: a
// comparison and a load inside one chunk; the grid's look-up when the chunk changes.
#pragma once

#include "core/cells/CellGrid.h"

namespace uq {

class CellReader {
 public:
  explicit CellReader(const CellGrid& cells) : cells_(&cells), chunk_(cells.chunk({0, 0})) {}

  // The chunk that holds `pos`.
  const CellGrid::ChunkView& chunkAt(CellPos pos) {
    const ChunkPos at = ChunkPos::of(pos);
    if (!(at == chunk_.at)) chunk_ = cells_->chunk(at);
    return chunk_;
  }

  Cell at(CellPos pos) {
    const CellGrid::ChunkView& chunk = chunkAt(pos);
    return chunk.cell(pos.x - chunk.at.cx * kChunkSide, pos.y - chunk.at.cy * kChunkSide);
  }

 private:
  const CellGrid* cells_;
  CellGrid::ChunkView chunk_;
};

}  // namespace uq
