// CellCorner: a corner of a cell's outline, which it shares with the cells around it.
//
// Each corner has as many spellings as cells meet there; any of them will do. Cost: constant, and of a way its length.
#pragma once

#include <vector>

#include "core/grid/Grid.h"

namespace uq {

struct CellCorner {
  CellPos cell;
  int corner = 0;  // as Grid::outline counts them
  friend constexpr auto operator<=>(const CellCorner&, const CellCorner&) = default;
};

// Where it lies, in map pixels.
PixelPos placeOf(const Grid& grid, const CellCorner& corner);
// The corner of the cell at a map pixel that lies nearest to it.
CellCorner cornerNear(const Grid& grid, PixelPos at);
// The corners nearest to the straight way between two, in order, both included.
std::vector<CellCorner> cornersBetween(const Grid& grid, const CellCorner& from, const CellCorner& to);

}  // namespace uq
