// Sets of cells by their shape on the screen.
#pragma once

#include "core/cells/CellSet.h"
#include "core/grid/Grid.h"

namespace uq {

// The box between two cells. On squares and diamonds along the grid; where rows or columns are shifted as it is seen:
// the cells whose middle lies in the rectangle of pixels between both middles. Cost: the cells of its bounds.
CellSet boxOf(const Grid& grid, CellPos a, CellPos b);

}  // namespace uq
