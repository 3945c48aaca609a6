#include "raster/ViewScale.h"

#include <algorithm>
#include <cmath>

namespace uq {

namespace {
int down(double value) { return static_cast<int>(std::floor(value)); }
}  // namespace

QRect ViewScale::toDevice(const PixelRect& map) const {
  const int left = down(map.x * zoom);
  const int top = down(map.y * zoom);
  return {left, top, std::max(1, down(map.right() * zoom) - left), std::max(1, down(map.bottom() * zoom) - top)};
}

PixelPos ViewScale::toMap(QPoint device) const {
  return {down((device.x() + 0.5) / zoom), down((device.y() + 0.5) / zoom)};
}

PixelRect ViewScale::covering(const QRect& device) const {
  if (device.isEmpty()) return {};
  const PixelPos first{down(device.left() / zoom), down(device.top() / zoom)};
  const int right = static_cast<int>(std::ceil((device.right() + 1) / zoom)) + 1;
  const int bottom = static_cast<int>(std::ceil((device.bottom() + 1) / zoom)) + 1;
  return {first.x, first.y, right - first.x, bottom - first.y};
}

}  // namespace uq
