// Positions, sizes and rectangles in map pixels: the pixels of the tiles at 100 %, absolute like cells, so a map that
// grows to the left keeps the pixels of its cells. Screen pixels never appear in the core.
#pragma once

#include <algorithm>

namespace uq {

// No pixel of any map lies farther from 0, 0 than this, in either direction; so positions fit an int at every zoom.
inline constexpr int kFarthestPixel = 1 << 24;

struct PixelPos {
  int x = 0;
  int y = 0;
  friend constexpr bool operator==(const PixelPos&, const PixelPos&) = default;
};

struct PixelSize {
  int w = 0;
  int h = 0;
  friend constexpr bool operator==(const PixelSize&, const PixelSize&) = default;
};

// From (x, y), w pixels to the right and h down. Empty when w or h is 0 or less.
struct PixelRect {
  int x = 0;
  int y = 0;
  int w = 0;
  int h = 0;

  constexpr int right() const { return x + w; }
  constexpr int bottom() const { return y + h; }
  constexpr bool empty() const { return w <= 0 || h <= 0; }
  constexpr bool contains(PixelPos p) const { return p.x >= x && p.x < right() && p.y >= y && p.y < bottom(); }
  constexpr PixelRect intersected(const PixelRect& o) const {
    const int left = std::max(x, o.x);
    const int top = std::max(y, o.y);
    return {left, top, std::min(right(), o.right()) - left, std::min(bottom(), o.bottom()) - top};
  }
  constexpr PixelRect united(const PixelRect& o) const {
    if (empty()) return o;
    if (o.empty()) return *this;
    const int left = std::min(x, o.x);
    const int top = std::min(y, o.y);
    return {left, top, std::max(right(), o.right()) - left, std::max(bottom(), o.bottom()) - top};
  }
  friend constexpr bool operator==(const PixelRect&, const PixelRect&) = default;
};

}  // namespace uq
