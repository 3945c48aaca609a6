// TileLooks: what is known of tiles by their pixels, asked of whoever decodes pictures.
#pragma once

#include <functional>

#include "core/document/Quilt.h"

namespace uq {

// Whether something holds of a tile on a grid, as it stands in its sheet. Empty: nobody knows.
using LooksOn = std::function<bool(const Quilt&, const GridShape&, TileRef)>;

// See Hiding (core/edit/Covered.h) for what each says.
struct TileLooks {
  LooksOn covers;
  LooksOn hides;
  LooksOn keepsIn;
  LooksOn fills;
};

}  // namespace uq
