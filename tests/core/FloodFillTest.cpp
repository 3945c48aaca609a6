#include <rapidcheck/gtest.h>

#include <deque>
#include <set>

#include "core/AnyGrid.h"
#include "core/cells/FloodFill.h"

namespace uq {

namespace {

// From cell to cell, as anybody would write it.
CellSet plainFill(const Grid& grid, CellRect bounds, CellPos start, const CellGrid& cells, TileRef tile,
                  Through through) {
  const auto holds = [&](CellPos at) { return bounds.contains(at) && cells.at(at).tile() == tile; };
  CellSet filled;
  std::deque<CellPos> open;
  const auto reach = [&](CellPos at) {
    if (!holds(at) || filled.contains(at)) return;
    filled.insert(at);
    open.push_back(at);
  };
  reach(start);
  const int sides = grid.turnOrder();
  for (; !open.empty(); open.pop_front()) {
    for (int side = 0; side < sides; ++side) {
      const CellPos beside = grid.across(open.front(), side);
      reach(beside);
      if (through == Through::corners) reach(grid.across(beside, (side + 1) % sides));
    }
  }
  return filled;
}

// Cells of two tiles, turned anyhow, and empty ones: scattered, or in stripes and whole rectangles.
CellGrid anyCells(CellRect bounds) {
  CellGrid cells;
  for (int i = 0, n = *rc::gen::inRange(0, 5); i < n; ++i) {
    const int x = *rc::gen::inRange(bounds.x0 - 10, bounds.x1);
    const int y = *rc::gen::inRange(bounds.y0 - 10, bounds.y1);
    const CellRect rect{x, y, x + *rc::gen::inRange(1, 150), y + *rc::gen::inRange(1, 150)};
    const auto number = *rc::gen::inRange<std::uint32_t>(0, 3);
    cells.fill(rect, number == 2 ? Cell{} : Cell({1, number}, {}));
  }
  const int share = *rc::gen::element(0, 10, 30, 55);
  std::uint64_t seed = *rc::gen::arbitrary<std::uint64_t>();
  for (int y = bounds.y0; y < bounds.y1; ++y) {
    for (int x = bounds.x0; x < bounds.x1; ++x) {
      seed = seed * 6364136223846793005u + 1442695040888963407u;
      if (static_cast<int>(seed >> 33) % 100 < share) {
        cells.set({x, y}, Cell({1, static_cast<std::uint32_t>(seed >> 60) & 1}, Turn::fromCode(seed >> 50 & 3)));
      }
    }
  }
  return cells;
}

}  // namespace

RC_GTEST_PROP(FloodFill, IsThePlainFillOnEveryGrid, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const int x0 = *rc::gen::inRange(-100, 100);
  const int y0 = *rc::gen::inRange(-100, 100);
  const CellRect bounds{x0, y0, x0 + *rc::gen::inRange(1, 180), y0 + *rc::gen::inRange(1, 180)};
  const CellGrid cells = anyCells(bounds);
  const CellPos start{*rc::gen::inRange(bounds.x0, bounds.x1), *rc::gen::inRange(bounds.y0, bounds.y1)};
  const TileRef tile = cells.at(start).tile();
  const bool corners = (grid->shape().kind == GridKind::orthogonal || grid->shape().kind == GridKind::diamond) &&
                       *rc::gen::arbitrary<bool>();
  const Through through = corners ? Through::corners : Through::sides;
  RC_ASSERT(floodFill(*grid, bounds, start, holdsOneOf(cells, {tile}), through) ==
            plainFill(*grid, bounds, start, cells, tile, through));
}

TEST(FloodFill, FillsAnEmptyMapAndNothingBeyondIt) {
  const CellRect bounds{-70, -3, 200, 90};
  const CellGrid cells;
  for (const GridKind kind : kGridKinds) {
    const auto grid = makeGrid(nearestShape(kind, {32, 32}));
    EXPECT_EQ(floodFill(*grid, bounds, {0, 0}, holdsOneOf(cells, {{}})), CellSet(bounds)) << gridName(kind);
  }
}

TEST(FloodFill, DoesNotSlipThroughCornersUnlessAsked) {
  CellGrid cells;
  cells.fill({0, 0, 8, 8}, Cell({1, 1}, {}));
  for (int i = 0; i < 8; ++i) cells.set({i, i}, Cell({1, 2}, {}));
  const auto grid = makeGrid({GridKind::orthogonal, {32, 32}});
  const auto ones = holdsOneOf(cells, {{1, 1}});
  EXPECT_EQ(floodFill(*grid, {0, 0, 8, 8}, {7, 0}, ones).count(), 28);
  EXPECT_EQ(floodFill(*grid, {0, 0, 8, 8}, {7, 0}, ones, Through::corners).count(), 56);
  EXPECT_TRUE(floodFill(*grid, {0, 0, 8, 8}, {3, 3}, ones).empty()) << "the start holds another tile";
  EXPECT_TRUE(floodFill(*grid, {0, 0, 8, 8}, {9, 0}, ones).empty()) << "the start lies outside the map";
}

TEST(FloodFill, TakesAllMembersOfAMixHoweverTurned) {
  CellGrid cells;
  for (int i = 0; i < 9; ++i) {
    cells.set({i, 0}, Cell({1, static_cast<std::uint32_t>(i % 3)}, Turn{i % 2 == 0, static_cast<std::uint8_t>(i % 4)}));
  }
  const auto grid = makeGrid({GridKind::orthogonal, {32, 32}});
  EXPECT_EQ(floodFill(*grid, {0, 0, 20, 20}, {0, 0}, holdsOneOf(cells, {{1, 0}, {1, 1}, {1, 2}})).count(), 9);
  EXPECT_EQ(cellsPassing({0, 0, 20, 20}, holdsOneOf(cells, {{1, 1}})).count(), 3);
}

TEST(FloodFill, SeesAllLayersWhereTheyAllCount) {
  CellGrid ground;
  ground.fill({0, 0, 100, 100}, Cell({1, 1}, {}));
  CellGrid walls;
  walls.fill({50, 0, 51, 100}, Cell({1, 2}, {}));
  const auto grid = makeGrid({GridKind::diamond, {64, 32}});
  const auto seen = passesAll({holdsOneOf(ground, {{1, 1}}), holdsOneOf(walls, {{}})});
  EXPECT_EQ(floodFill(*grid, {0, 0, 100, 100}, {3, 3}, seen), CellSet({0, 0, 50, 100}));
}

}  // namespace uq
