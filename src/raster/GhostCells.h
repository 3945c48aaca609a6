// GhostCells: a stroke that is shown but not laid, drawn in its layer and in draw order at kGhostOpacity. Where a run is
// drawn by depth, what stands in front of the ghost and reaches over it is drawn at kInFrontOpacity.
#pragma once

#include <utility>
#include <vector>

#include "core/base/Id.h"
#include "core/cells/Cell.h"
#include "core/grid/CellPos.h"

namespace uq {

inline constexpr unsigned kGhostOpacity = 204;   // of 255
inline constexpr unsigned kInFrontOpacity = 76;  // of 255

struct GhostCells {
  Id layer;
  std::vector<std::pair<CellPos, Cell>> cells;
};

}  // namespace uq
