// Places in a grid, counted in cells.
//
// CellPos is a stored position: column x, row y of an endless grid. Coordinates are absolute and may be negative; a map
// is only a rectangle of them, so growing or cropping a map renumbers nothing. SidePos is the same place in side
// coordinates, in which stepping across a side is always the same vector; blocks are kept in them (see Grid.h).
// All are plain values; every operation is constant time.
#pragma once

#include <algorithm>
#include <compare>
#include <cstdint>

namespace uq {

// No cell of any map lies farther from 0, 0 than this, in either direction.
inline constexpr int kFarthestCell = 1 << 20;

struct CellPos {
  int x = 0;
  int y = 0;
  friend constexpr auto operator<=>(const CellPos&, const CellPos&) = default;
};

struct SidePos {
  int u = 0;
  int v = 0;
  friend constexpr auto operator<=>(const SidePos&, const SidePos&) = default;
  friend constexpr SidePos operator+(SidePos a, SidePos b) { return {a.u + b.u, a.v + b.v}; }
  friend constexpr SidePos operator-(SidePos a, SidePos b) { return {a.u - b.u, a.v - b.v}; }
};

// Cells from (x0, y0) up to but without (x1, y1). Empty when x1 <= x0 or y1 <= y0.
struct CellRect {
  int x0 = 0;
  int y0 = 0;
  int x1 = 0;
  int y1 = 0;

  constexpr int width() const { return std::max(0, x1 - x0); }
  constexpr int height() const { return std::max(0, y1 - y0); }
  constexpr std::int64_t count() const { return std::int64_t{width()} * height(); }
  constexpr bool empty() const { return x1 <= x0 || y1 <= y0; }
  constexpr bool contains(CellPos at) const { return at.x >= x0 && at.x < x1 && at.y >= y0 && at.y < y1; }
  constexpr CellRect intersected(const CellRect& o) const {
    return {std::max(x0, o.x0), std::max(y0, o.y0), std::min(x1, o.x1), std::min(y1, o.y1)};
  }
  // The smallest rectangle that holds both; an empty one adds nothing.
  constexpr CellRect united(const CellRect& o) const {
    if (empty()) return o;
    if (o.empty()) return *this;
    return {std::min(x0, o.x0), std::min(y0, o.y0), std::max(x1, o.x1), std::max(y1, o.y1)};
  }
  constexpr CellRect grown(int cells) const { return {x0 - cells, y0 - cells, x1 + cells, y1 + cells}; }
  friend constexpr bool operator==(const CellRect&, const CellRect&) = default;

  static constexpr CellRect around(CellPos a, CellPos b) {
    return {std::min(a.x, b.x), std::min(a.y, b.y), std::max(a.x, b.x) + 1, std::max(a.y, b.y) + 1};
  }
};

// ⌊a / b⌋ for b > 0, also for negative a.
constexpr int floorDiv(int a, int b) { return a / b - (a % b < 0 ? 1 : 0); }
// ⌈a / b⌉ for b > 0, also for negative a.
constexpr int ceilDiv(int a, int b) { return -floorDiv(-a, b); }

}  // namespace uq
