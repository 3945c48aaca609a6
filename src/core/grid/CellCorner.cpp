#include "core/grid/CellCorner.h"

#include <algorithm>
#include <cstdlib>

namespace uq {

PixelPos placeOf(const Grid& grid, const CellCorner& corner) {
  const auto outline = grid.outline(corner.cell);
  return outline[static_cast<std::size_t>(corner.corner) % outline.size()];
}

CellCorner cornerNear(const Grid& grid, PixelPos at) {
  const CellPos cell = grid.cellAt(at);
  const auto outline = grid.outline(cell);
  const auto far = [at](const PixelPos& one) { return std::int64_t{one.x - at.x} * (one.x - at.x) + std::int64_t{one.y - at.y} * (one.y - at.y); };
  const auto nearest = std::min_element(outline.begin(), outline.end(), [&](const PixelPos& a, const PixelPos& b) { return far(a) < far(b); });
  return {cell, static_cast<int>(nearest - outline.begin())};
}

std::vector<CellCorner> cornersBetween(const Grid& grid, const CellCorner& from, const CellCorner& to) {
  const PixelPos a = placeOf(grid, from);
  const PixelPos b = placeOf(grid, to);
  const int stride = std::max(1, std::min(grid.shape().cell.w, grid.shape().cell.h) / 4);
  const int steps = std::max(std::abs(b.x - a.x), std::abs(b.y - a.y)) / stride + 1;
  std::vector<CellCorner> way{from};
  const auto add = [&](const CellCorner& next) {
    if (placeOf(grid, way.back()) != placeOf(grid, next)) way.push_back(next);
  };
  for (int i = 1; i < steps; ++i) {
    const auto between = [&](int p, int q) { return static_cast<int>(p + std::int64_t{q - p} * i / steps); };
    add(cornerNear(grid, {between(a.x, b.x), between(a.y, b.y)}));
  }
  add(to);
  return way;
}

}  // namespace uq
