// MapPainterParts: what the files of MapPainter share.
#pragma once

#include "raster/MapPainter.h"

namespace uq {

inline constexpr std::size_t kMostFadedFor = 1024;  // cells of a ghost: in front of a larger one nothing is faded

inline PixelRect moved(const PixelRect& rect, PixelPos by) { return {rect.x + by.x, rect.y + by.y, rect.w, rect.h}; }

// Whether something whose picture is at `place` stands out of its cell and over the ghost.
inline bool reachesOver(const PixelRect& place, const PixelRect& cellBox, const PixelRect& ghost) {
  return place.y < cellBox.y && !place.intersected(ghost).empty();
}

}  // namespace uq
