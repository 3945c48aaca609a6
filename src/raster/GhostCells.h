// GhostCells: a stroke that is shown but not laid, drawn in its layer and in draw order at kGhostOpacity. Where a run is
// drawn by depth, what stands in front of the ghost and reaches over it is drawn at kInFrontOpacity,
// unless it is the ground.
#pragma once

#include <vector>

#include "core/base/Id.h"
#include "core/cells/Cell.h"
#include "core/grid/CellPos.h"

namespace uq {

inline constexpr unsigned kGhostOpacity = 204;   // of 255
inline constexpr unsigned kInFrontOpacity = 76;  // of 255

struct GhostCells {
  Id layer;
  struct Laid {
    CellPos at;
    Cell cell;
    int lift = 0;  // map pixels
  };
  std::vector<Laid> cells;
};

}  // namespace uq
