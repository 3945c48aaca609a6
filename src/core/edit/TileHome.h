// TileHome: for which layers a tile is meant: as is said of it on its sheet, else learnt from where it was laid.
//
// Learnt is the role of the layers on which nearly all of its cells lie, on the map that is worked on, else on the others;
// a single cell may be a slip and teaches nothing. Cost: a look at each of the first kMostLookedAt chunks.
#pragma once

#include <optional>
#include <string>

#include "core/document/Quilt.h"

namespace uq {

inline constexpr int kMostLookedAt = 1024;  // chunks

struct TileHome {
  std::string role;
  bool isSaid = false;
  std::int64_t laid = 0;  // cells from which it was learnt
};
// Nothing for Chalk, and where nobody knows.
std::optional<TileHome> homeOf(const Quilt& quilt, Id map, TileRef tile);

}  // namespace uq
