// TileId: a tile by the id of its sheet and its number there, for values that live longer than a quilt is open.
//
// Cells say the same in 32 bits, by slots, which never reach a file (Cell.h).
#pragma once

#include <compare>
#include <cstdint>

#include "core/base/Id.h"

namespace uq {

struct TileId {
  Id sheet;
  std::uint32_t tile = 0;  // its number in the sheet
  friend constexpr auto operator<=>(const TileId&, const TileId&) = default;
};

}  // namespace uq
