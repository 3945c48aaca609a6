#include "core/cells/CellShapes.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>
#include <limits>
#include <map>
#include <tuple>

namespace uq {

namespace {

bool isHexagonal(const Grid& grid) { return grid.turnOrder() == 6; }

// Twice the middle of a cell, in map pixels.
PixelPos middleOf(const Grid& grid, CellPos cell) {
  const PixelRect box = grid.cellBox(cell);
  return {2 * box.x + box.w, 2 * box.y + box.h};
}

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

// Columns from `first` to `end` - 1.
struct Span {
  int first = 0;
  int end = 0;
  bool empty() const { return first >= end; }
  friend bool operator==(const Span&, const Span&) = default;
};

// The cells of a row: of the even columns and of the odd ones, which lie on rows of their own where columns are
// shifted. Each span counts columns of the other kind at its ends as it likes.
using RowSpans = std::array<Span, 2>;

// The set of rows of cells from row `y0` on. Put together chunk by chunk; chunks that are covered whole cost nothing.
CellSet setOfRows(int y0, const std::vector<RowSpans>& rows) {
  constexpr std::uint64_t kEven = 0x5555555555555555;
  std::map<PagePos, CellSet::PageRows> pages;
  const int y1 = y0 + static_cast<int>(rows.size());
  for (int cy = y0 >> kChunkBits; cy <= (y1 - 1) >> kChunkBits && y1 > y0; ++cy) {
    const int from = std::max(y0, cy * kChunkSide);
    const int to = std::min(y1, (cy + 1) * kChunkSide);
    const auto rowAt = [&](int y) -> const RowSpans& { return rows[static_cast<std::size_t>(y - y0)]; };
    Span any{std::numeric_limits<int>::max(), std::numeric_limits<int>::min()};
    Span all{any.end, any.first};
    for (int y = from; y < to; ++y) {
      const RowSpans& row = rowAt(y);
      for (const Span& span : std::span(row).first(row[0] == row[1] ? 1 : 2)) {
        all = {std::max(all.first, span.first), std::min(all.end, span.end)};
        if (!span.empty()) any = {std::min(any.first, span.first), std::max(any.end, span.end)};
      }
    }
    const bool wholeRows = to - from == kChunkSide;
    CellSet::PageRows* put = nullptr;
    for (int cx = any.first >> kChunkBits; !any.empty() && cx <= (any.end - 1) >> kChunkBits; ++cx) {
      const ChunkPos at{cx, cy};
      const PagePos page = PagePos::of(at);
      if (!put || !(put->at == page)) put = &pages.try_emplace(page, CellSet::PageRows{page, 0, {}}).first->second;
      const int left = cx * kChunkSide;
      if (wholeRows && all.first <= left && all.end >= left + kChunkSide) {
        put->full |= std::uint64_t{1} << page.indexOf(at);
        continue;
      }
      const auto below = [left](int column) {
        const int bits = std::clamp(column - left, 0, kChunkSide);
        return bits == kChunkSide ? ~std::uint64_t{0} : (std::uint64_t{1} << bits) - 1;
      };
      const auto bits = [below](const Span& span) { return below(span.end) & ~below(span.first); };
      put->some.reserve(kPageSide * 2);
      ChunkRows& some = put->some.emplace_back(page.indexOf(at), ChunkRows{}).second;
      for (int y = from; y < to; ++y) {
        const auto& [even, odd] = rowAt(y);
        const std::uint64_t row = even == odd ? bits(even) : (bits(even) & kEven) | (bits(odd) & ~kEven);
        some[static_cast<std::size_t>(y - cy * kChunkSide)] = row;
      }
    }
  }
  std::vector<CellSet::PageRows> all;
  for (auto& [at, page] : pages) all.push_back(std::move(page));
  return CellSet::ofPages(std::move(all));
}

// Where a cell lies, in two measures that grow evenly along a row of cells of one kind: its middle in map pixels,
// twice, or its side coordinates.
struct Measures {
  int a = 0;
  int b = 0;
};
Measures middleMeasures(const Grid& grid, CellPos cell) {
  const PixelPos middle = middleOf(grid, cell);
  return {middle.x, middle.y};
}
Measures sideMeasures(const Grid& grid, CellPos cell) {
  const SidePos side = grid.toSide(cell);
  return {side.u, side.v};
}
Measures thirdMeasures(const Grid& grid, CellPos cell) {
  const SidePos side = grid.toSide(cell);
  return {side.u, -side.u - side.v};
}
using MeasuresOf = Measures (*)(const Grid&, CellPos);

// Those steps from `start` on that end between two limits.
Span within(Span steps, int start, int step, int limit, int otherLimit) {
  std::int64_t least = std::int64_t{std::min(limit, otherLimit)} - start;
  std::int64_t most = std::int64_t{std::max(limit, otherLimit)} - start;
  if (step == 0) return least <= 0 && most >= 0 ? steps : Span{};
  if (step < 0) std::tie(least, most, step) = std::tuple(-most, -least, -step);
  const auto inside = [&](std::int64_t to) {
    return static_cast<int>(std::clamp<std::int64_t>(to, steps.first, steps.end));
  };
  if (step == 1) return {inside(least), inside(most + 1)};
  // Rows are many, and to divide by 64 bits takes several times as long.
  const auto span = [&](auto from, auto to) {
    const auto first = from <= 0 ? -(-from / step) : (from + step - 1) / step;
    const auto end = (to < 0 ? -((-to + step - 1) / step) : to / step) + 1;
    return Span{inside(first), inside(end)};
  };
  constexpr std::int64_t kShort = 1 << 30;
  const bool isShort = -least < kShort && least < kShort && -most < kShort && most < kShort && step < kShort;
  return isShort ? span(static_cast<int>(least), static_cast<int>(most)) : span(least, most);
}

// An ellipse over two measures that fills a box of them, counted in halves, so that its rim is exact in whole numbers.
class Ellipse {
 public:
  // `each` is how much of a measure one cell takes up.
  Ellipse(Measures from, Measures to, Measures each)
      : sumA_(double(from.a) + to.a),
        sumB_(double(from.b) + to.b),
        wideA_(std::pow(std::abs(double(to.a) - from.a) + each.a, 2)),
        wideB_(std::pow(std::abs(double(to.b) - from.b) + each.b, 2)) {}

  // Those steps from `start` on, of `grows` each, that lie inside. From row to row the rim moves by few steps, so that
  // those of a row nearby (`near`; may be empty) lead to it; else it is the roots of a quadratic and, where they come
  // close to a whole step, its sign there.
  Span within(Span steps, Measures start, Measures grows, Span near) const {
    if (steps.empty()) return {};
    const double u = 2.0 * start.a - sumA_;
    const double v = 2.0 * start.b - sumB_;
    const double du = 2.0 * grows.a;
    const double dv = 2.0 * grows.b;
    const auto excess = [&](double u1, double v1) { return u1 * u1 * wideB_ + v1 * v1 * wideA_ - wideA_ * wideB_; };
    const auto isOut = [&](int step) { return excess(u + step * du, v + step * dv) > 0; };
    near = {std::max(near.first, steps.first), std::min(near.end, steps.end)};
    if (!near.empty()) {
      const int most = near.first + kNear;
      while (near.first < most && near.first < near.end && isOut(near.first)) ++near.first;
      const int least = near.first - kNear;
      while (near.first > least && near.first > steps.first && !isOut(near.first - 1)) --near.first;
      const int fewest = near.end - kNear;
      while (near.end > fewest && near.end > near.first && isOut(near.end - 1)) --near.end;
      const int farthest = near.end + kNear;
      while (near.end < farthest && near.end < steps.end && !isOut(near.end)) ++near.end;
      const bool found = !near.empty() && !isOut(near.first) && !isOut(near.end - 1) &&
                         (near.first == steps.first || isOut(near.first - 1)) &&
                         (near.end == steps.end || isOut(near.end));
      if (found) return near;
    }
    const double square = du * du * wideB_ + dv * dv * wideA_;
    const double middle = -(u * du * wideB_ + v * dv * wideA_) / square;
    const double reach = std::sqrt(std::max(0.0, middle * middle - excess(u, v) / square));
    const double close = 1e-6 * (1 + std::abs(middle));
    const auto floored = [&](double at) { return static_cast<int>(std::clamp(at, 0.0, double(steps.end))); };

    Span found{floored(middle - reach - close), floored(middle + reach + close + 1)};
    if (found.first < middle - reach - close) ++found.first;
    found.first = std::max(found.first, steps.first);
    while (found.first < middle - reach + close && !found.empty() && isOut(found.first)) ++found.first;
    while (found.end - 1 > middle + reach - close && !found.empty() && isOut(found.end - 1)) --found.end;
    return found;
  }

 private:
  static constexpr int kNear = 8;  // steps that are walked; a root costs as much

  double sumA_;  // of both ends
  double sumB_;
  double wideA_;  // of the whole ellipse, squared
  double wideB_;
};

// The cells near by whose measures lie between those of two cells and, where there is one, in an ellipse. Cost: a few
// steps a row, and the chunks of the rim.
CellSet convexSet(const Grid& grid, CellRect around, CellRect inside, MeasuresOf measuresOf, CellPos from, CellPos to,
                  const Ellipse* ellipse = nullptr) {
  const CellRect near = around.intersected(inside);
  if (near.empty()) return {};
  const auto growth = [&](CellPos way) {
    const Measures here = measuresOf(grid, {0, 0});
    const Measures there = measuresOf(grid, way);
    return Measures{there.a - here.a, there.b - here.b};
  };
  const auto growsEvenly = [&](CellPos way) {
    const Measures one = growth(way);
    const Measures two = growth({2 * way.x, 2 * way.y});
    return 2 * one.a == two.a && 2 * one.b == two.b;
  };
  // Whether each column goes on where the one before it ends, or only every second one.
  const bool evenly = growsEvenly({1, 0});
  // Where rows do, too, the shape is its own image about the middle between both cells.
  const bool mirrored = near == around && evenly && growsEvenly({0, 1});
  const CellPos ends{from.x + to.x, from.y + to.y};
  const int columns = evenly ? 1 : 2;
  const Measures grows = growth({columns, 0});
  const Measures first = measuresOf(grid, from);
  const Measures last = measuresOf(grid, to);
  const int x0 = near.x0 & ~1;
  std::vector<RowSpans> rows(static_cast<std::size_t>(near.height()));
  Span rim[2];  // of the row before, by columns
  for (int y = near.y0; y < near.y1; ++y) {
    RowSpans& row = rows[static_cast<std::size_t>(y - near.y0)];
    if (const int twin = ends.y - y; mirrored && twin >= near.y0 && twin < y) {
      const Span span = rows[static_cast<std::size_t>(twin - near.y0)].front();
      if (!span.empty()) row.fill({ends.x - span.end + 1, ends.x - span.first + 1});
      continue;
    }
    for (int odd = 0; odd < columns; ++odd) {
      const Measures start = measuresOf(grid, {x0 + odd, y});
      Span steps{0, (near.x1 - x0 - odd + columns - 1) / columns};
      steps = within(steps, start.a, grows.a, first.a, last.a);
      steps = within(steps, start.b, grows.b, first.b, last.b);
      if (ellipse) steps = rim[odd] = ellipse->within(steps, start, grows, rim[odd]);
      // Up to the next column of its kind each way.
      if (steps.empty()) continue;
      row[static_cast<std::size_t>(odd)] = {std::max(near.x0, x0 + columns * steps.first),
                                            std::min(near.x1, x0 + columns * steps.end)};
    }
    if (evenly) row[1] = row[0];
  }
  return setOfRows(near.y0, rows);
}

// The rectangle of cells around a box in side coordinates.
CellRect aroundSides(const Grid& grid, CellPos a, CellPos b) {
  const SidePos from = grid.toSide(a);
  const SidePos to = grid.toSide(b);
  CellRect all;
  for (const SidePos corner : {from, to, SidePos{from.u, to.v}, SidePos{to.u, from.v}}) {
    const CellPos cell = grid.fromSide(corner);
    all = all.united({cell.x, cell.y, cell.x + 1, cell.y + 1});
  }
  return all.grown(1);
}

// The same around a box as seen.
CellRect aroundMiddles(const Grid& grid, CellPos a, CellPos b) {
  const PixelPos from = middleOf(grid, a);
  const PixelPos to = middleOf(grid, b);
  const int x = std::min(from.x, to.x);
  const int y = std::min(from.y, to.y);
  const auto wide = [](int one, int other) { return static_cast<int>(std::abs(std::int64_t{other} - one) / 2 + 3); };
  return grid.cellsMeeting({x / 2 - 1, y / 2 - 1, wide(from.x, to.x), wide(from.y, to.y)});
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

bool isTooWide(CellRect cells) {
  if (cells.empty()) return false;
  const ChunkPos first = ChunkPos::of({cells.x0, cells.y0});
  const ChunkPos last = ChunkPos::of({cells.x1 - 1, cells.y1 - 1});
  return (std::int64_t{last.cx} - first.cx + 1) * (std::int64_t{last.cy} - first.cy + 1) > kMostChunks;
}

CellSet boxOf(const Grid& grid, CellPos a, CellPos b, BoxShape shape, CellRect within) {
  const GridKind kind = grid.shape().kind;
  const bool storedAlong = kind == GridKind::orthogonal || kind == GridKind::diamond;
  if (kind == GridKind::orthogonal || (storedAlong && shape == BoxShape::alongTheGrid)) {
    return CellSet(CellRect::around(a, b).intersected(within));
  }
  if (shape == BoxShape::alongTheGrid) {
    return convexSet(grid, aroundSides(grid, a, b), within, sideMeasures, a, b);
  }
  return convexSet(grid, aroundMiddles(grid, a, b), within, middleMeasures, a, b);
}

CellSet ovalIn(const Grid& grid, CellPos a, CellPos b, BoxShape shape, CellRect within) {
  if (shape == BoxShape::alongTheGrid) {
    const Ellipse ellipse(sideMeasures(grid, a), sideMeasures(grid, b), {1, 1});
    return convexSet(grid, aroundSides(grid, a, b), within, sideMeasures, a, b, &ellipse);
  }
  // So wide that both ends' cells are filled.
  const PixelPos origin = middleOf(grid, {0, 0});
  const PixelPos next = middleOf(grid, {2, 2});
  const Ellipse ellipse(middleMeasures(grid, a), middleMeasures(grid, b),
                        {(next.x - origin.x) / 2, (next.y - origin.y) / 2});
  return convexSet(grid, aroundMiddles(grid, a, b).grown(1), within, middleMeasures, a, b, &ellipse);
}

CellSet ovalOf(const Grid& grid, CellPos a, CellPos b, CellRect within) {
  return ovalIn(grid, a, b, isHexagonal(grid) ? BoxShape::asSeen : BoxShape::alongTheGrid, within);
}

CellSet roundOf(const Grid& grid, CellPos a, CellPos b, CellRect within) {
  if (isHexagonal(grid)) {
    // No farther than `far` by any of the three measures of a hexagon, two of them at a time.
    const int far = distanceOf(grid, a, b);
    const SidePos at = grid.toSide(a);
    const CellRect around = CellRect{a.x, a.y, a.x + 1, a.y + 1}.grown(2 * far + 2);
    const auto cell = [&](int u, int v) { return grid.fromSide(at + SidePos{u, v}); };
    return convexSet(grid, around, within, sideMeasures, cell(-far, -far), cell(far, far))
        .intersected(convexSet(grid, around, within, thirdMeasures, cell(-far, 2 * far), cell(far, -2 * far)));
  }
  const SidePos from = grid.toSide(a);
  const SidePos way = grid.toSide(b) - from;
  const int far = std::max(std::abs(way.u), std::abs(way.v));
  const SidePos to{way.u < 0 ? -far : far, way.v < 0 ? -far : far};
  return ovalOf(grid, a, grid.fromSide(from + to), within);
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
  if (near.count() > kMostOutlined) return {};
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
    all.push_back(grid.across(cell, side));
    if (const auto opposite = grid.acrossCorner(cell, side)) all.push_back(*opposite);
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

CellRect sideBoundsOf(const Grid& grid, const CellSet& cells) {
  CellRect box;
  cells.forEachStretch([&](CellPos first, int count) {
    for (const int i : {0, count - 1}) {
      const SidePos at = grid.toSide({first.x + i, first.y});
      box = box.united({at.u, at.v, at.u + 1, at.v + 1});
    }
  });
  return box;
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
        const CellPos to = corner ? *grid.acrossCorner(from, side) : grid.across(from, side);
        return CellPos{to.x - from.x, to.y - from.y};
      };
      cells.forEachWithoutNeighbour(step, all, [&](CellPos at) { outline.insert(at); });
    }
  }
  return outline;
}

}  // namespace uq
