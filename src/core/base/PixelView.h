// PixelView: read-only pixels of somebody else's picture, which must outlive it.
//
// Premultiplied 0xAARRGGBB, row by row from the top. Empty when `pixels` is null.
#pragma once

#include <cstddef>
#include <cstdint>

namespace uq {

struct PixelView {
  const std::uint32_t* pixels = nullptr;
  std::ptrdiff_t stride = 0;  // pixels from one row to the next
  int w = 0;
  int h = 0;
  bool opaque = false;  // no pixel is see-through

  const std::uint32_t* row(int y) const { return pixels + y * stride; }
  std::uint32_t at(int x, int y) const { return row(y)[x]; }
};

inline constexpr unsigned alphaOf(std::uint32_t pixel) { return pixel >> 24; }

}  // namespace uq
