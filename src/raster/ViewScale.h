// ViewScale: between map pixels and device pixels.
//
// Device coordinates are absolute, like map pixels: device pixel 0, 0 is the upper left of map pixel 0, 0 at every
// zoom. Edges are rounded down one by one, so neighbouring cells meet without seam or overlap at any zoom, and any part
// of a picture equals the same part of the whole.
#pragma once

#include <QPoint>
#include <QRect>

#include "core/grid/Pixels.h"

namespace uq {

inline constexpr double kSmallestZoom = 0.002;  // a map of 131,072 pixels in one sight
inline constexpr double kLargestZoom = 32.0;

struct ViewScale {
  double zoom = 1;  // device pixels a map pixel, kSmallestZoom .. kLargestZoom

  // Where a rectangle of map pixels lies; never narrower than one device pixel each way.
  QRect toDevice(const PixelRect& map) const;
  // The map pixel under the middle of a device pixel.
  PixelPos toMap(QPoint device) const;
  // The smallest rectangle of map pixels that covers a device rectangle.
  PixelRect covering(const QRect& device) const;
};

}  // namespace uq
