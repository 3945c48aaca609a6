// ChunkWrites: laying many cells of one chunk at once.
//
// Few cells are laid one by one; more make the chunk anew, once. Cost: the cells of the set, and one copy of the chunk.
#pragma once

#include <bit>
#include <optional>

#include "core/cells/LayerCells.h"

namespace uq {

inline constexpr int kFewCells = 48;  // of a chunk: laid one by one

// The rows of a chunk all of whose cells are meant.
inline constexpr ChunkRows kWholeChunk = [] {
  ChunkRows all{};
  all.fill(~std::uint64_t{0});
  return all;
}();

// Calls visit for each cell of a set inside one chunk.
template <class Visit>
void forEachBit(ChunkPos at, const ChunkRows& rows, Visit&& visit) {
  for (int y = 0; y < kChunkSide; ++y) {
    for (std::uint64_t row = rows[static_cast<std::size_t>(y)]; row != 0; row &= row - 1) {
      const int x = std::countr_zero(row);
      visit(CellPos{at.cx * kChunkSide + x, at.cy * kChunkSide + y}, static_cast<std::size_t>(y * kChunkSide + x));
    }
  }
}

// Calls `what` for each cell of a chunk's rows, and lays what it says.
template <class What>
void writeChunk(LayerCells& layer, ChunkPos at, const ChunkRows& rows, What&& what) {
  int count = 0;
  for (const std::uint64_t row : rows) count += std::popcount(row);
  if (count <= kFewCells) {
    forEachBit(at, rows, [&](CellPos cell, std::size_t) {
      if (const auto laid = what(cell)) layer.lay(cell, *laid);
    });
    return;
  }
  ChunkCells cells = layer.cells.chunk(at).cells();
  const bool hadLifts = !layer.lifts.empty();
  const bool hadMeant = !layer.meant.empty();
  forEachBit(at, rows, [&](CellPos cell, std::size_t index) {
    const std::optional<Laid> laid = what(cell);
    if (!laid) return;
    cells[index] = laid->cell;
    if (laid->lift != 0 || hadLifts) layer.lifts.set(cell, laid->lift);
    if (hadMeant) layer.meant.set(cell, 0);
  });
  layer.cells.setChunk(at, cells);
}

}  // namespace uq
