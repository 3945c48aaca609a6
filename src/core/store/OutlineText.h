// OutlineText: the cells of a map as a drawing of lines (SVG 1.1): for each layer one group, named after it, with the outline of every
// painted cell, in map pixels. For plotting, and for programs that want shapes instead of tiles.
//
// Cells of one tile that follow one another in a row on squares are one rectangle. Cost: the painted cells. Threads: any.
#pragma once

#include <string>

#include "core/base/Error.h"
#include "core/document/Map.h"

namespace uq {

inline constexpr std::int64_t kMostDrawnCells = 4'000'000;  // cells of a map

// An Error where more cells are painted.
Result<std::string> outlineText(const Map& map);

}  // namespace uq
