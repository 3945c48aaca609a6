#include "core/cells/CellShapes.h"

#include <cmath>
#include <cstdlib>
#include <limits>
#include <map>

namespace uq {

namespace {

bool isHexagonal(const Grid& grid) { return grid.turnOrder() == 6; }

// Twice the middle of a cell, in map pixels.
PixelPos middleOf(const Grid& grid, CellPos cell) {
  const PixelRect box = grid.cellBox(cell);
  return {2 * box.x + box.w, 2 * box.y + box.h};
}

bool between(int x, int a, int b) { return x >= std::min(a, b) && x <= std::max(a, b); }

CellSet setOf(const CellRect& near, const auto& holds) {
  CellSet cells;
  for (int y = near.y0; y < near.y1; ++y) {
    for (int x = near.x0; x < near.x1; ++x) {
      if (!holds(CellPos{x, y})) continue;
      const int first = x;
      while (x + 1 < near.x1 && holds(CellPos{x + 1, y})) ++x;
      cells.insert({first, y}, x - first + 1);
    }
  }
  return cells;
}

// The set of rows of cells, one stretch a row from row `y0` on: first column, and one after the last. Put together chunk
// by chunk; chunks that are covered whole cost nothing.
CellSet setOfRows(int y0, const std::vector<std::pair<int, int>>& rows) {
  std::map<PagePos, CellSet::PageRows> pages;
  const int y1 = y0 + static_cast<int>(rows.size());
  for (int cy = y0 >> kChunkBits; cy <= (y1 - 1) >> kChunkBits && y1 > y0; ++cy) {
    const int from = std::max(y0, cy * kChunkSide);
    const int to = std::min(y1, (cy + 1) * kChunkSide);
    int least = std::numeric_limits<int>::max();
    int most = std::numeric_limits<int>::min();
    int allFrom = std::numeric_limits<int>::min();
    int allTo = std::numeric_limits<int>::max();
    for (int y = from; y < to; ++y) {
      const auto& [first, end] = rows[static_cast<std::size_t>(y - y0)];
      allFrom = std::max(allFrom, first);
      allTo = std::min(allTo, end);
      if (first >= end) continue;
      least = std::min(least, first);
      most = std::max(most, end);
    }
    const bool wholeRows = to - from == kChunkSide;
    for (int cx = least >> kChunkBits; least < most && cx <= (most - 1) >> kChunkBits; ++cx) {
      const ChunkPos at{cx, cy};
      const PagePos page = PagePos::of(at);
      CellSet::PageRows& put = pages.try_emplace(page, CellSet::PageRows{page, 0, {}}).first->second;
      const int left = cx * kChunkSide;
      if (wholeRows && allFrom <= left && allTo >= left + kChunkSide) {
        put.full |= std::uint64_t{1} << page.indexOf(at);
        continue;
      }
      ChunkRows some{};
      for (int y = from; y < to; ++y) {
        const auto& [first, end] = rows[static_cast<std::size_t>(y - y0)];
        some[static_cast<std::size_t>(y - cy * kChunkSide)] =
            bitsOf(std::clamp(first - left, 0, kChunkSide), std::clamp(end - left, 0, kChunkSide));
      }
      put.some.emplace_back(page.indexOf(at), some);
    }
  }
  std::vector<CellSet::PageRows> all;
  for (auto& [at, page] : pages) all.push_back(std::move(page));
  return CellSet::ofPages(std::move(all));
}

// The cells whose side coordinates are a rectangle, and of those the ones of which `holds` is true.
CellSet alongTheGrid(const Grid& grid, SidePos a, SidePos b, const auto& holds) {
  CellSet cells;
  for (int v = std::min(a.v, b.v); v <= std::max(a.v, b.v); ++v) {
    for (int u = std::min(a.u, b.u); u <= std::max(a.u, b.u); ++u) {
      if (holds(u, v)) cells.insert(grid.fromSide({u, v}));
    }
  }
  return cells;
}

// Whether place `at` of `from` .. `to` lies inside an oval that fills it, as its share of the radius, squared.
double share(int at, int from, int to) {
  const int wide = std::abs(to - from) + 1;
  const double off = 2.0 * at - from - to;
  return off * off / (double(wide) * wide);
}

int hexagonDistance(SidePos way) { return std::max({std::abs(way.u), std::abs(way.v), std::abs(way.u + way.v)}); }

// The stretches of a disc, relative to its middle, row by row: first column, row, cells.
struct DiscRow {
  CellPos first;
  int count;
};
std::vector<DiscRow> discRows(const Grid& grid, CellPos middle, int distance) {
  const SidePos at = grid.toSide(middle);
  std::map<int, std::pair<int, int>> rows;  // first and last column
  for (int v = -distance; v <= distance; ++v) {
    for (int u = -distance; u <= distance; ++u) {
      if (isHexagonal(grid) && hexagonDistance({u, v}) > distance) continue;
      const CellPos cell = grid.fromSide(at + SidePos{u, v});
      const auto [row, isNew] = rows.try_emplace(cell.y, cell.x, cell.x);
      row->second = {std::min(row->second.first, cell.x), std::max(row->second.second, cell.x)};
    }
  }
  std::vector<DiscRow> disc;
  for (const auto& [y, columns] : rows) {
    disc.push_back({{columns.first - middle.x, y - middle.y}, columns.second - columns.first + 1});
  }
  return disc;
}

}  // namespace

BoxShape usualBox(GridKind kind) {
  return kind == GridKind::orthogonal || kind == GridKind::diamond ? BoxShape::alongTheGrid : BoxShape::asSeen;
}

CellSet boxOf(const Grid& grid, CellPos a, CellPos b, BoxShape shape) {
  const GridKind kind = grid.shape().kind;
  const bool storedAlong = kind == GridKind::orthogonal || kind == GridKind::diamond;
  if (kind == GridKind::orthogonal || (storedAlong && shape == BoxShape::alongTheGrid)) {
    return CellSet(CellRect::around(a, b));
  }
  if (shape == BoxShape::alongTheGrid) {
    return alongTheGrid(grid, grid.toSide(a), grid.toSide(b), [](int, int) { return true; });
  }
  const PixelPos from = middleOf(grid, a);
  const PixelPos to = middleOf(grid, b);
  const int x = std::min(from.x, to.x);
  const int y = std::min(from.y, to.y);
  const CellRect near =
      grid.cellsMeeting({x / 2 - 1, y / 2 - 1, std::abs(to.x - from.x) / 2 + 3, std::abs(to.y - from.y) / 2 + 3});
  return setOf(near, [&](CellPos cell) {
    const PixelPos middle = middleOf(grid, cell);
    return between(middle.x, from.x, to.x) && between(middle.y, from.y, to.y);
  });
}

CellSet ovalOf(const Grid& grid, CellPos a, CellPos b) {
  if (!isHexagonal(grid)) {
    const SidePos from = grid.toSide(a);
    const SidePos to = grid.toSide(b);
    const auto inside = [&](int u, int v) { return share(u, from.u, to.u) + share(v, from.v, to.v) <= 1; };
    const GridKind kind = grid.shape().kind;
    if (kind == GridKind::staggered) return alongTheGrid(grid, from, to, inside);
    // Each row of an oval is one stretch, and as far left of the middle as right of it.
    const CellRect box = CellRect::around(a, b);
    std::vector<std::pair<int, int>> rows;
    for (int y = box.y0; y < box.y1; ++y) {
      int out = box.x0 - 1;
      int in = box.x0 + (box.width() - 1) / 2;
      if (!inside(in, y)) {
        rows.emplace_back(0, 0);
        continue;
      }
      while (in - out > 1) {
        const int middle = out + (in - out) / 2;
        (inside(middle, y) ? in : out) = middle;
      }
      rows.emplace_back(in, box.x1 - (in - box.x0));
    }
    return setOfRows(box.y0, rows);
  }
  // Middles in halves of a cell across the shift, and in rows down it; so wide that both ends' cells are filled.
  const PixelPos from = middleOf(grid, a);
  const PixelPos to = middleOf(grid, b);
  const PixelRect next = grid.cellBox({2, 2});
  const PixelRect origin = grid.cellBox({0, 0});
  // The way from column to column and from row to row, as twice the middles count.
  const double column = next.x - origin.x;
  const double row = next.y - origin.y;
  const auto radius = [](int way, double step) { return std::abs(way) / 2.0 + step / 2; };
  const double rx = radius(to.x - from.x, column);
  const double ry = radius(to.y - from.y, row);
  return boxOf(grid, a, b, BoxShape::asSeen).intersected(setOf(CellRect::around(a, b).grown(1), [&](CellPos cell) {
    const PixelPos at = middleOf(grid, cell);
    const double dx = (at.x - (from.x + to.x) / 2.0) / rx;
    const double dy = (at.y - (from.y + to.y) / 2.0) / ry;
    return dx * dx + dy * dy <= 1;
  }));
}

CellSet roundOf(const Grid& grid, CellPos a, CellPos b) {
  if (isHexagonal(grid)) return discOf(grid, a, distanceOf(grid, a, b));
  const SidePos from = grid.toSide(a);
  const SidePos way = grid.toSide(b) - from;
  const int far = std::max(std::abs(way.u), std::abs(way.v));
  const SidePos to{way.u < 0 ? -far : far, way.v < 0 ? -far : far};
  return ovalOf(grid, a, grid.fromSide(from + to));
}

CellPos equalBoxEnd(const Grid& grid, CellPos a, CellPos b, BoxShape shape) {
  if (shape == BoxShape::alongTheGrid) {
    const SidePos from = grid.toSide(a);
    const SidePos way = grid.toSide(b) - from;
    const int far = std::max(std::abs(way.u), std::abs(way.v));
    return grid.fromSide(from + SidePos{way.u < 0 ? -far : far, way.v < 0 ? -far : far});
  }
  const PixelPos from = middleOf(grid, a);
  const PixelPos to = middleOf(grid, b);
  const int far = std::max(std::abs(to.x - from.x), std::abs(to.y - from.y));
  return grid.cellAt({(from.x + (to.x < from.x ? -far : far)) / 2, (from.y + (to.y < from.y ? -far : far)) / 2});
}

CellPos snappedLineEnd(const Grid& grid, CellPos a, CellPos b) {
  static constexpr SidePos kSquare[] = {{1, 0}, {0, 1}, {1, 1}, {1, -1}};
  static constexpr SidePos kHexagon[] = {{1, 0}, {0, 1}, {1, -1}, {1, 1}, {2, -1}, {1, -2}};
  const std::span<const SidePos> ways = isHexagonal(grid) ? std::span<const SidePos>(kHexagon) : kSquare;
  const SidePos from = grid.toSide(a);
  const PixelPos start = middleOf(grid, a);
  const PixelPos wanted = middleOf(grid, b);
  CellPos best = a;
  double bestFar = -1;
  for (const SidePos way : ways) {
    // Two steps, so that shifted rows do not count.
    const PixelPos two = middleOf(grid, grid.fromSide(from + way + way));
    const double dx = (two.x - start.x) / 2.0;
    const double dy = (two.y - start.y) / 2.0;
    const double along = ((wanted.x - start.x) * dx + (wanted.y - start.y) * dy) / (dx * dx + dy * dy);
    const int steps = static_cast<int>(std::lround(along));
    const double offX = wanted.x - start.x - steps * dx;
    const double offY = wanted.y - start.y - steps * dy;
    const double far = offX * offX + offY * offY;
    if (bestFar >= 0 && far >= bestFar) continue;
    bestFar = far;
    best = grid.fromSide(from + SidePos{way.u * steps, way.v * steps});
  }
  return best;
}

CellSet insideOutline(const Grid& grid, CellRect bounds, std::span<const PixelPos> way) {
  if (way.size() < 3) return {};
  PixelPos least = way.front();
  PixelPos most = way.front();
  for (const PixelPos at : way) {
    least = {std::min(least.x, at.x), std::min(least.y, at.y)};
    most = {std::max(most.x, at.x), std::max(most.y, at.y)};
  }
  const CellRect near =
      grid.cellsMeeting({least.x, least.y, most.x - least.x + 1, most.y - least.y + 1}).intersected(bounds);
  // Where rows of middles cross the way: by twice the height, as middles count.
  std::map<int, std::vector<double>> crossings;
  const auto crossingsAt = [&](int y) -> const std::vector<double>& {
    const auto [row, isNew] = crossings.try_emplace(y);
    for (std::size_t i = 0; isNew && i < way.size(); ++i) {
      const PixelPos a = way[i];
      const PixelPos b = way[(i + 1) % way.size()];
      if ((2 * a.y <= y) == (2 * b.y <= y)) continue;
      row->second.push_back(2.0 * a.x + (y - 2.0 * a.y) * (2.0 * b.x - 2.0 * a.x) / (2.0 * b.y - 2.0 * a.y));
    }
    std::sort(row->second.begin(), row->second.end());
    return row->second;
  };
  return setOf(near, [&](CellPos cell) {
    const PixelPos middle = middleOf(grid, cell);
    const auto& row = crossingsAt(middle.y);
    return (std::lower_bound(row.begin(), row.end(), middle.x) - row.begin()) % 2 == 1;
  });
}

namespace {

// The ways to the neighbours of a cell: across its sides and, on four-sided cells, its corners.
std::vector<CellPos> neighboursOf(const Grid& grid, CellPos cell) {
  std::vector<CellPos> all;
  const int sides = grid.turnOrder();
  for (int side = 0; side < sides; ++side) {
    const CellPos beside = grid.across(cell, side);
    all.push_back(beside);
    if (!isHexagonal(grid)) all.push_back(grid.across(beside, (side + 1) % sides));
  }
  return all;
}

}  // namespace

CellSet grown(const Grid& grid, const CellSet& cells) {
  CellSet more;
  outlineOf(grid, cells).forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      for (const CellPos beside : neighboursOf(grid, {first.x + i, first.y})) more.insert(beside);
    }
  });
  return cells.united(more);
}

CellSet shrunk(const Grid& grid, const CellSet& cells) { return cells.without(outlineOf(grid, cells)); }

int distanceOf(const Grid& grid, CellPos a, CellPos b) {
  const SidePos way = grid.toSide(b) - grid.toSide(a);
  return isHexagonal(grid) ? hexagonDistance(way) : std::max(std::abs(way.u), std::abs(way.v));
}

CellSet discOf(const Grid& grid, CellPos middle, int distance) { return brushed(grid, {&middle, 1}, 2 * distance + 1); }

CellSet brushed(const Grid& grid, std::span<const CellPos> stroke, int width) {
  CellSet cells;
  std::vector<DiscRow> discs[2][2];  // by whether column and row of the middle are odd
  for (const CellPos middle : stroke) {
    auto& disc = discs[middle.y & 1][middle.x & 1];
    if (disc.empty()) disc = discRows(grid, middle, (width - 1) / 2);
    for (const DiscRow& row : disc) cells.insert({middle.x + row.first.x, middle.y + row.first.y}, row.count);
  }
  return cells;
}

CellSet outlineOf(const Grid& grid, const CellSet& cells) {
  CellSet outline;
  const CellRect all = cells.bounds();
  const int sides = grid.turnOrder();
  for (int side = 0; side < sides; ++side) {
    for (const bool corner : {false, true}) {
      if (corner && isHexagonal(grid)) continue;
      const auto step = [&](bool oddColumn, bool oddRow) {
        const CellPos from{oddColumn, oddRow};
        const CellPos beside = grid.across(from, side);
        const CellPos to = corner ? grid.across(beside, (side + 1) % sides) : beside;
        return CellPos{to.x - from.x, to.y - from.y};
      };
      cells.forEachWithoutNeighbour(step, all, [&](CellPos at) { outline.insert(at); });
    }
  }
  return outline;
}

}  // namespace uq
