#include <rapidcheck/gtest.h>

#include <cmath>
#include <cstdlib>
#include <set>

#include "core/AnyGrid.h"
#include "core/cells/CellShapes.h"
#include "core/cells/FloodFill.h"

namespace uq {

namespace {

std::set<CellPos> cellsOf(const CellSet& cells) {
  std::set<CellPos> all;
  cells.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) all.insert({first.x + i, first.y});
  });
  return all;
}

CellPos nearTo(CellPos at, int far) {
  return {at.x + *rc::gen::inRange(-far, far + 1), at.y + *rc::gen::inRange(-far, far + 1)};
}

// The set moved so that `from` comes to lie on `to`, in side coordinates.
CellSet moved(const Grid& grid, const CellSet& cells, CellPos from, CellPos to) {
  CellSet there;
  for (const CellPos at : cellsOf(cells)) {
    there.insert(grid.fromSide(grid.toSide(at) + (grid.toSide(to) - grid.toSide(from))));
  }
  return there;
}

// All cells of the set can be reached from `start` inside it, across sides.
bool isJoined(const Grid& grid, const CellSet& cells, CellPos start) {
  const ChunkTest inside = [&](ChunkPos at, ChunkRows& rows) {
    rows = {};
    const CellRect all = at.cells();
    for (int y = 0; y < kChunkSide; ++y) {
      for (int x = 0; x < kChunkSide; ++x) {
        if (cells.contains({all.x0 + x, all.y0 + y})) rows[static_cast<std::size_t>(y)] |= std::uint64_t{1} << x;
      }
    }
    return Holds::some;
  };
  return floodFill(grid, cells.bounds(), start, inside) == cells;
}

}  // namespace

RC_GTEST_PROP(CellShapes, KeepTheirShapeWhereverTheyAreDrawn, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const CellPos a = test::anyCell();
  const CellPos b = nearTo(a, 12);
  const CellPos there = test::anyCell();
  const CellPos end = grid->fromSide(grid->toSide(b) + (grid->toSide(there) - grid->toSide(a)));
  const auto same = [&](const CellSet& here, const CellSet& other) {
    RC_ASSERT(moved(*grid, here, a, there) == other);
  };
  for (const BoxShape shape : {BoxShape::asSeen, BoxShape::alongTheGrid}) {
    same(boxOf(*grid, a, b, shape), boxOf(*grid, there, end, shape));
  }
  same(ovalOf(*grid, a, b), ovalOf(*grid, there, end));
  same(roundOf(*grid, a, b), roundOf(*grid, there, end));
  same(discOf(*grid, a, 4), discOf(*grid, there, 4));
}

RC_GTEST_PROP(CellShapes, ABoxHoldsBothItsEndsAndAnOvalLiesInside, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const CellPos a = test::anyCell();
  const CellPos b = nearTo(a, 15);
  for (const BoxShape shape : {BoxShape::asSeen, BoxShape::alongTheGrid}) {
    const CellSet box = boxOf(*grid, a, b, shape);
    RC_ASSERT(box.contains(a) && box.contains(b));
    RC_ASSERT(box == boxOf(*grid, b, a, shape));
  }
  const CellSet oval = ovalOf(*grid, a, b);
  const bool along = grid->turnOrder() == 4;
  RC_ASSERT(!oval.empty());
  RC_ASSERT(oval.without(boxOf(*grid, a, b, along ? BoxShape::alongTheGrid : BoxShape::asSeen)).empty());
  RC_ASSERT(oval == ovalOf(*grid, b, a));
}

RC_GTEST_PROP(CellShapes, ABoxAsSeenIsTheCellsWhoseMiddlesLieBetween, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const CellPos a = test::anyCell(60);
  const CellPos b = nearTo(a, 8);
  const auto middle = [&](CellPos cell) {
    const PixelRect box = grid->cellBox(cell);
    return PixelPos{2 * box.x + box.w, 2 * box.y + box.h};
  };
  const auto between = [](int x, int p, int q) { return x >= std::min(p, q) && x <= std::max(p, q); };
  std::set<CellPos> wanted;
  const CellRect near = CellRect::around(a, b).grown(20);
  for (int y = near.y0; y < near.y1; ++y) {
    for (int x = near.x0; x < near.x1; ++x) {
      const PixelPos at = middle({x, y});
      if (between(at.x, middle(a).x, middle(b).x) && between(at.y, middle(a).y, middle(b).y)) wanted.insert({x, y});
    }
  }
  RC_ASSERT(cellsOf(boxOf(*grid, a, b, BoxShape::asSeen)) == wanted);
}

RC_GTEST_PROP(CellShapes, ABoxAlongTheGridIsARectangleOfSideCoordinates, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const CellPos a = test::anyCell(60);
  const CellPos b = nearTo(a, 12);
  const SidePos from = grid->toSide(a);
  const SidePos to = grid->toSide(b);
  std::set<CellPos> wanted;
  for (int v = std::min(from.v, to.v); v <= std::max(from.v, to.v); ++v) {
    for (int u = std::min(from.u, to.u); u <= std::max(from.u, to.u); ++u) wanted.insert(grid->fromSide({u, v}));
  }
  RC_ASSERT(cellsOf(boxOf(*grid, a, b, BoxShape::alongTheGrid)) == wanted);
}

// The cells of the box of whose middles the ellipse holds, by the plain formula.
RC_GTEST_PROP(CellShapes, AnOvalIsTheCellsOfItsBoxInsideTheEllipse, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const bool hexagons = grid->turnOrder() == 6;
  const CellPos a = test::anyCell(60);
  const CellPos b = nearTo(a, *rc::gen::element(3, 15, 90));
  const auto place = [&](CellPos cell) {
    if (!hexagons) {
      const SidePos side = grid->toSide(cell);
      return std::pair<double, double>(2 * side.u, 2 * side.v);
    }
    const PixelRect box = grid->cellBox(cell);
    return std::pair<double, double>(2 * box.x + box.w, 2 * box.y + box.h);
  };
  const auto [ax, ay] = place(a);
  const auto [bx, by] = place(b);
  const PixelPos step{grid->cellBox({2, 2}).x - grid->cellBox({0, 0}).x,
                      grid->cellBox({2, 2}).y - grid->cellBox({0, 0}).y};
  const double rx = std::abs(bx - ax) / 2 + (hexagons ? step.x / 2.0 : 1);
  const double ry = std::abs(by - ay) / 2 + (hexagons ? step.y / 2.0 : 1);
  std::set<CellPos> wanted;
  std::set<CellPos> near;  // so close to the rim that rounding tells
  for (const CellPos cell : cellsOf(boxOf(*grid, a, b, hexagons ? BoxShape::asSeen : BoxShape::alongTheGrid))) {
    const auto [x, y] = place(cell);
    const double far = std::pow((x - (ax + bx) / 2) / rx, 2) + std::pow((y - (ay + by) / 2) / ry, 2);
    if (far <= 1) wanted.insert(cell);
    if (std::abs(far - 1) < 1e-9) near.insert(cell);
  }
  std::set<CellPos> found = cellsOf(ovalOf(*grid, a, b));
  for (const CellPos cell : near) {
    found.erase(cell);
    wanted.erase(cell);
  }
  RC_ASSERT(found == wanted);
}

RC_GTEST_PROP(CellShapes, ADiscIsAllCellsWithinItsDistance, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const CellPos middle = test::anyCell();
  const int distance = *rc::gen::inRange(0, 6);
  std::set<CellPos> wanted;
  const CellRect near = CellRect::around(middle, middle).grown(2 * distance + 1);
  for (int y = near.y0; y < near.y1; ++y) {
    for (int x = near.x0; x < near.x1; ++x) {
      if (distanceOf(*grid, middle, {x, y}) <= distance) wanted.insert({x, y});
    }
  }
  RC_ASSERT(cellsOf(discOf(*grid, middle, distance)) == wanted);
}

RC_GTEST_PROP(CellShapes, DistanceCountsTheSidesThatMustBeCrossed, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const CellPos at = test::anyCell();
  const int sides = grid->turnOrder();
  for (int side = 0; side < sides; ++side) {
    const CellPos beside = grid->across(at, side);
    RC_ASSERT(distanceOf(*grid, at, beside) == 1);
    RC_ASSERT(distanceOf(*grid, at, grid->across(beside, side)) == 2);
  }
}

RC_GTEST_PROP(CellShapes, ABroadStrokeIsTheDiscsOfItsCells, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const CellPos a = test::anyCell();
  const auto stroke = grid->line(a, nearTo(a, 20));
  const int width = *rc::gen::element(1, 3, 5, 7, 9);
  CellSet wanted;
  for (const CellPos at : stroke) wanted = wanted.united(discOf(*grid, at, (width - 1) / 2));
  RC_ASSERT(brushed(*grid, stroke, width) == wanted);
}

RC_GTEST_PROP(CellShapes, AnOutlineKeepsAFillInside, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const CellPos a = test::anyCell(80);
  const CellSet shape = *rc::gen::arbitrary<bool>() ? ovalOf(*grid, a, nearTo(a, 14)) : discOf(*grid, a, 5);
  const CellSet outline = outlineOf(*grid, shape);
  RC_ASSERT(outline.without(shape).empty());
  // Whoever starts inside and does not cross the outline stays inside.
  const CellSet inner = shape.without(outline);
  const int sides = grid->turnOrder();
  for (const CellPos at : cellsOf(inner)) {
    for (int side = 0; side < sides; ++side) RC_ASSERT(shape.contains(grid->across(at, side)));
  }
}

RC_GTEST_PROP(CellShapes, TheOutlineOfADiscIsJoinedThroughSides, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const CellPos middle = test::anyCell();
  const int distance = *rc::gen::inRange(1, 7);
  const CellSet outline = outlineOf(*grid, discOf(*grid, middle, distance));
  RC_ASSERT(isJoined(*grid, outline, *cellsOf(outline).begin()));
}

RC_GTEST_PROP(CellShapes, LinesThroughSidesCrossASideAtEachStep, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const CellPos from = test::anyCell();
  const CellPos to = nearTo(from, 25);
  const auto line = grid->sideLine(from, to);
  RC_ASSERT(line.front() == from);
  RC_ASSERT(line.back() == to);
  const int sides = grid->turnOrder();
  for (std::size_t i = 1; i < line.size(); ++i) {
    bool crosses = false;
    for (int side = 0; side < sides; ++side) crosses = crosses || grid->across(line[i - 1], side) == line[i];
    RC_ASSERT(crosses);
  }
}

TEST(CellShapes, AnOvalOfSquaresIsRound) {
  const auto grid = makeGrid({GridKind::orthogonal, {32, 32}});
  const CellSet oval = ovalOf(*grid, {0, 0}, {4, 4});
  EXPECT_EQ(oval.count(), 21) << "five by five without its corners";
  EXPECT_FALSE(oval.contains({0, 0}));
  EXPECT_EQ(outlineOf(*grid, oval).count(), 16);
  EXPECT_EQ(roundOf(*grid, {0, 0}, {4, 2}), oval);
}

TEST(CellShapes, AHexagonOfHexagonsHasThreeSquaredPlusThreePlusOneCells) {
  for (const GridKind kind : {GridKind::hexagonalPointy, GridKind::hexagonalFlat}) {
    const auto grid = makeGrid(nearestShape(kind, {56, 64}));
    for (int n = 0; n < 6; ++n) EXPECT_EQ(discOf(*grid, {3, 4}, n).count(), 3 * n * n + 3 * n + 1);
  }
}

// A shape asked for inside a rectangle is the whole shape without what lies outside.
RC_GTEST_PROP(CellShapes, ClippedTheyAreWhatLiesInside, ()) {
  const auto grid = makeGrid(
      test::anyShapeOf(*rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds)))));
  const auto any = [] { return CellPos{*rc::gen::inRange(-40, 40), *rc::gen::inRange(-40, 40)}; };
  const CellPos a = any();
  const CellPos b = any();
  const CellRect inside = CellRect::around(any(), any());
  const CellSet room(inside);
  for (const BoxShape shape : {BoxShape::asSeen, BoxShape::alongTheGrid}) {
    RC_ASSERT(boxOf(*grid, a, b, shape, inside) == boxOf(*grid, a, b, shape).intersected(room));
    RC_ASSERT(ovalIn(*grid, a, b, shape, inside) == ovalIn(*grid, a, b, shape).intersected(room));
  }
  RC_ASSERT(roundOf(*grid, a, b, inside) == roundOf(*grid, a, b).intersected(room));
  if (grid->turnOrder() == 6) RC_ASSERT(roundOf(*grid, a, b) == discOf(*grid, a, distanceOf(*grid, a, b)));
}

TEST(CellShapes, WhatSpansAnythingIsCutToTheRoomAtOnce) {
  const CellRect room{-3, -3, 4, 4};
  const int far = kFarthestCell;
  for (const GridKind kind : kGridKinds) {
    const auto grid = makeGrid(nearestShape(kind, {512, 512}));
    for (const BoxShape shape : {BoxShape::asSeen, BoxShape::alongTheGrid}) {
      const CellSet box = boxOf(*grid, {-far, -far}, {far, far}, shape, room);
      if (usualBox(kind) == shape) {
        EXPECT_FALSE(box.empty()) << gridName(kind);
      }
      (void)ovalIn(*grid, {-far, -far}, {far, far}, shape, room);
    }
    // On hexagons it lies about the first cell, elsewhere beside it.
    const CellSet round = roundOf(*grid, {0, 0}, {far / 2, 0}, room);
    EXPECT_EQ(round.empty(), grid->turnOrder() == 4) << gridName(kind);
  }
}

}  // namespace uq
