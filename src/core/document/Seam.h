// Seam: two edges of maps that are sewn together, so that cells lie beside one another across them.
//
// Where the other map lies is said in cells, never in pixels, so it cannot be off by half a cell: cell (x, y) of the
// other lies at (x, y) + by on the cells of the first. A map that is sewn to itself wraps: its right edge to its left one,
// or its lower one to its upper one, wherever these are, so `by` only says which, kWrapsAcross or kWrapsDown. Whether a
// seam is right — both maps there, of one grid, edge at edge, one map a cell — is no part of the value: SewnMaps tells.
#pragma once

#include <string>

#include "core/base/Id.h"
#include "core/base/Json.h"
#include "core/base/Revision.h"
#include "core/grid/CellPos.h"

namespace uq {

inline constexpr CellPos kWrapsAcross{1, 0};
inline constexpr CellPos kWrapsDown{0, 1};
inline constexpr std::size_t kMostSeams = 20'000;  // of a quilt

struct Seam {
  inline static const std::string name;  // seams have none: they are listed by id

  Id id;
  Id map;
  Id other;
  CellPos by;
  Json::Object extra;  // fields that this version does not know
  Revision revision;

  bool wraps() const { return map == other; }
  bool joins(Id one) const { return map == one || other == one; }
  friend bool operator==(const Seam&, const Seam&) = default;
};

}  // namespace uq
