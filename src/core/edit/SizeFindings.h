// SizeFindings: sizes on a map that do not agree with one another, in words, each with what mends it by one press.
//
// The map and the screen: a gap that is left beside it, a last row that the screen cuts. Backdrops and the map: one
// that ends before the edge, or is some pixels off the map's height. Tiles and cells: a sheet whose tiles are no whole
// cells. Values: what is mended is there already, sharing all that stays. Cost: a look at some chunks of each layer.
// Threads: any.
#pragma once

#include <string>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

struct SizeFinding {
  std::string text;  // "The map is 8 px lower than the screen"
  std::string mend;  // "Lay the last row again"
  Quilt mended;
};
std::vector<SizeFinding> sizeFindings(const Quilt& quilt, const Map& map);

}  // namespace uq
