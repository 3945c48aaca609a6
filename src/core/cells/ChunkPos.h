// Chunks and pages: how endless grids and sets of cells are cut up.
//
// A chunk is 64 × 64 cells, a page 8 × 8 chunks, both at absolute places, so a row of a chunk is one machine word. The
// side of a chunk is even: whether a cell's column and row are odd can be told inside its chunk.
#pragma once

#include <array>
#include <cstdint>

#include "core/grid/CellPos.h"

namespace uq {

inline constexpr int kChunkBits = 6;
inline constexpr int kPageBits = 3;
inline constexpr int kChunkSide = 1 << kChunkBits;  // cells
inline constexpr int kPageSide = 1 << kPageBits;    // chunks

// A chunk's place, counted in chunks: chunk (cx, cy) holds cells from (64 cx, 64 cy).
struct ChunkPos {
  int cx = 0;
  int cy = 0;
  friend constexpr bool operator==(const ChunkPos&, const ChunkPos&) = default;

  static constexpr ChunkPos of(CellPos at) { return {at.x >> kChunkBits, at.y >> kChunkBits}; }
  constexpr CellRect cells() const {
    return {cx * kChunkSide, cy * kChunkSide, (cx + 1) * kChunkSide, (cy + 1) * kChunkSide};
  }
};

// A page's place, counted in pages, and where a chunk lies in it: 0 .. 63, row by row.
struct PagePos {
  int px = 0;
  int py = 0;
  friend constexpr auto operator<=>(const PagePos&, const PagePos&) = default;

  static constexpr PagePos of(ChunkPos at) { return {at.cx >> kPageBits, at.cy >> kPageBits}; }
  constexpr int indexOf(ChunkPos at) const { return (at.cy & (kPageSide - 1)) << kPageBits | (at.cx & (kPageSide - 1)); }
  constexpr ChunkPos chunk(int index) const {
    return {px * kPageSide + index % kPageSide, py * kPageSide + index / kPageSide};
  }
};

// One bit a cell of a chunk: bit x of row y.
using ChunkRows = std::array<std::uint64_t, kChunkSide>;

// Bits from .. to - 1, both 0 .. 64.
constexpr std::uint64_t bitsOf(int from, int to) {
  if (from >= to) return 0;
  const std::uint64_t upTo = to == 64 ? ~std::uint64_t{0} : (std::uint64_t{1} << to) - 1;
  return upTo & ~((std::uint64_t{1} << from) - 1);
}

}  // namespace uq
