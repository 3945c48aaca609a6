// Stance: how a tile's picture stands on the cells of a map.
//
// A picture stands on the lowest point of its cell, or of all cells of its footprint: its bottom edge there, and in the
// middle across them (on squares at their left edge). The cell that holds the tile is the nearest one of its footprint;
// the others lie behind it along the grid, on squares behind it and to its right. A seat shifts the picture by pixels.
// What stands on several cells is drawn in strips, so that things between its front and its back are neither all before
// nor all behind it.
#pragma once

#include <vector>

#include "core/grid/Grid.h"

namespace uq {

inline constexpr int kFarthestSeat = 4096;    // map pixels, each way
inline constexpr int kLargestFootprint = 64;  // cells, each way

struct Stance {
  PixelPos seat;
  PixelSize footprint{1, 1};  // cells along both ways of the grid
  bool isWide() const { return footprint.w > 1 || footprint.h > 1; }
  friend constexpr bool operator==(const Stance&, const Stance&) = default;
};

// The stance of a picture that is drawn turned, as Grid::pictureTurn gives it.
Stance turnedStance(const Grid& grid, Stance stance, Turn drawn);

// The cells on which a tile on `at` stands.
std::vector<CellPos> footprintOf(const Grid& grid, CellPos at, PixelSize footprint);

// Where a picture of `size` map pixels is drawn for a tile on `at`, on the ground.
PixelRect standing(const Grid& grid, CellPos at, PixelSize size, const Stance& stance);

// A part of a picture, from one map pixel up to but without another across, and the cell with which it is drawn: the
// nearest of the footprint in those columns. What lies beside all cells belongs to the first or the last strip.
struct Strip {
  int left;
  int right;
  CellPos front;
  friend constexpr bool operator==(const Strip&, const Strip&) = default;
};
// The strips of a picture that is drawn at `place`, from the left.
std::vector<Strip> stripsOf(const Grid& grid, CellPos at, PixelSize footprint, const PixelRect& place);

}  // namespace uq
