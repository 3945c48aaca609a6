// Saying which tiles of a sheet show the same thing from its other sides.
#pragma once

#include <optional>

#include "core/document/Quilt.h"

namespace uq {

// Makes `partner` the tile that shows the thing of `tile` turned by `side` steps to the right, of `order` (4 or 6) in a
// full turn; nothing takes the partner of that side away. A partner that stood in another facing leaves it; a facing in
// which one tile is left goes. Nothing changes where `side` is 0 or not below `order`, where a tile would be its own
// partner, or where both are not of one sheet of the quilt.
Quilt withPartner(const Quilt& quilt, TileRef tile, int order, int side, std::optional<TileRef> partner);

// The partner of a tile on that side; nothing when it has none.
std::optional<TileRef> partnerOf(const Quilt& quilt, TileRef tile, int order, int side);

}  // namespace uq
