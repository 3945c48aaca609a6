#include <rapidcheck/gtest.h>

#include <algorithm>
#include <cstdlib>
#include <limits>
#include <set>

#include "core/AnyGrid.h"
#include "core/cells/Block.h"
#include "core/grid/Grid.h"

namespace uq {

namespace {

GridShape anyShape() {
  return {GridKind::orthogonal,
          {*rc::gen::inRange(kSmallestCell, kLargestCell + 1), *rc::gen::inRange(kSmallestCell, kLargestCell + 1)}};
}
CellPos anyCell() { return {*rc::gen::inRange(-500, 500), *rc::gen::inRange(-500, 500)}; }
Turn anyTurn() { return {*rc::gen::arbitrary<bool>(), *rc::gen::inRange<std::uint8_t>(0, 4)}; }

using test::anyGrid;
using test::anyShapeOf;
CellPos farCell() { return {*rc::gen::inRange(-10'000, 10'000), *rc::gen::inRange(-10'000, 10'000)}; }

}  // namespace

RC_GTEST_PROP(OrthogonalGrid, EveryPixelHasOneCellWhoseBoxHoldsIt, ()) {
  const auto grid = makeGrid(anyShape());
  const PixelPos at{*rc::gen::inRange(-60'000, 60'000), *rc::gen::inRange(-60'000, 60'000)};
  RC_ASSERT(grid->cellBox(grid->cellAt(at)).contains(at));
}

RC_GTEST_PROP(OrthogonalGrid, CellsMeetingHoldsExactlyTheCellsThatTouch, ()) {
  const auto grid = makeGrid(anyShape());
  const PixelRect pixels{*rc::gen::inRange(-3000, 3000), *rc::gen::inRange(-3000, 3000), *rc::gen::inRange(1, 900),
                         *rc::gen::inRange(1, 900)};
  const CellRect cells = grid->cellsMeeting(pixels);
  const auto meets = [&](CellPos at) { return !grid->cellBox(at).intersected(pixels).empty(); };
  RC_ASSERT(meets({cells.x0, cells.y0}));
  RC_ASSERT(meets({cells.x1 - 1, cells.y1 - 1}));
  RC_ASSERT(!meets({cells.x0 - 1, cells.y0}));
  RC_ASSERT(!meets({cells.x1, cells.y1 - 1}));
}

RC_GTEST_PROP(OrthogonalGrid, LinesJoinTheirEndsWithoutGapsAndKeepTheirShape, ()) {
  const auto grid = makeGrid(anyShape());
  const CellPos from = anyCell();
  const CellPos to{from.x + *rc::gen::inRange(-40, 41), from.y + *rc::gen::inRange(-40, 41)};
  const auto line = grid->line(from, to);
  RC_ASSERT(line.front() == from);
  RC_ASSERT(line.back() == to);
  RC_ASSERT(line.size() == static_cast<std::size_t>(std::max(std::abs(to.x - from.x), std::abs(to.y - from.y)) + 1));
  for (std::size_t i = 1; i < line.size(); ++i) {
    RC_ASSERT(std::max(std::abs(line[i].x - line[i - 1].x), std::abs(line[i].y - line[i - 1].y)) == 1);
  }
  const CellPos by = anyCell();
  const auto moved = grid->line({from.x + by.x, from.y + by.y}, {to.x + by.x, to.y + by.y});
  for (std::size_t i = 0; i < line.size(); ++i) {
    RC_ASSERT((moved[i] == CellPos{line[i].x + by.x, line[i].y + by.y}));
  }
}

TEST(OrthogonalGrid, LargePicturesStandOnTheBottomLeftOfTheirCell) {
  const auto grid = makeGrid({GridKind::orthogonal, {32, 32}});
  EXPECT_EQ(grid->seat({2, 3}, {48, 80}), (PixelRect{64, 48, 48, 80}));
}

// Which pixels a cell owns, by asking the grid for each pixel of its box.
std::int64_t ownedPixels(const Grid& grid, CellPos cell) {
  const PixelRect box = grid.cellBox(cell);
  std::int64_t owned = 0;
  for (int y = box.y; y < box.bottom(); ++y) {
    for (int x = box.x; x < box.right(); ++x) owned += grid.cellAt({x, y}) == cell ? 1 : 0;
  }
  return owned;
}

RC_GTEST_PROP(Grid, EveryPixelHasOneCellWhoseBoxHoldsIt, ()) {
  const GridShape shape = anyGrid();
  RC_ASSERT(whyNoGrid(shape) == "");
  const auto grid = makeGrid(shape);
  const PixelPos at{*rc::gen::inRange(-60'000, 60'000), *rc::gen::inRange(-60'000, 60'000)};
  const CellPos cell = grid->cellAt(at);
  RC_ASSERT(grid->cellBox(cell).contains(at));
  const CellRect near = grid->cellsMeeting({at.x, at.y, 1, 1});
  RC_ASSERT(near.contains(cell));
}

// All cells own as many pixels as their lattice has room for: none is lost, none counted twice.
RC_GTEST_PROP(Grid, CellsOfOneGridAreAllOfOneArea, ()) {
  const GridShape shape =
      anyShapeOf(*rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds))));
  RC_PRE(shape.cell.w <= 70 && shape.cell.h <= 70);
  const auto grid = makeGrid(shape);
  const Grid::Lattice lattice = grid->lattice();
  const double area = std::abs(lattice.columnX * lattice.rowY - lattice.columnY * lattice.rowX);
  RC_ASSERT(ownedPixels(*grid, {0, 0}) + ownedPixels(*grid, {1, 1}) + ownedPixels(*grid, {0, 1}) +
                ownedPixels(*grid, {1, 0}) ==
            static_cast<std::int64_t>(4 * area));
}

RC_GTEST_PROP(Grid, ACellIsFoundAtItsOwnMiddle, ()) {
  const GridShape shape = anyGrid();
  // Smaller diamonds have no pixel in their middle.
  RC_PRE(shape.cell.w >= 4 && shape.cell.h >= 4);
  const auto grid = makeGrid(shape);
  const CellPos cell = farCell();
  const PixelRect box = grid->cellBox(cell);
  RC_ASSERT(grid->cellAt({box.x + box.w / 2, box.y + box.h / 2}) == cell);
  RC_ASSERT(grid->fromSide(grid->toSide(cell)) == cell);
}

// A shape that is moved by the same step in side coordinates, by odd rows too, keeps every pixel of its shape.
RC_GTEST_PROP(Grid, MovingBySideCoordinatesNeverShears, ()) {
  const auto grid = makeGrid(anyGrid());
  const SidePos step{*rc::gen::inRange(-40, 41), *rc::gen::inRange(-40, 41)};
  const auto way = [&](CellPos at) {
    const PixelRect from = grid->cellBox(at);
    const PixelRect to = grid->cellBox(grid->fromSide(grid->toSide(at) + step));
    return PixelPos{to.x - from.x, to.y - from.y};
  };
  const CellPos first = anyCell();
  const CellPos other{first.x + *rc::gen::inRange(-9, 10), first.y + *rc::gen::inRange(-9, 10)};
  RC_ASSERT(way(first) == way(other));
}

RC_GTEST_PROP(Grid, NeighboursAreSymmetricAndShareASide, ()) {
  const auto grid = makeGrid(anyGrid());
  const CellPos cell = farCell();
  const auto corners = grid->outline(cell);
  const int count = static_cast<int>(corners.size());
  RC_ASSERT(count == grid->turnOrder());
  for (int side = 0; side < count; ++side) {
    const CellPos other = grid->across(cell, side);
    const int opposite = (side + count / 2) % count;
    RC_ASSERT(!(other == cell));
    RC_ASSERT(grid->across(other, opposite) == cell);
    const auto theirs = grid->outline(other);
    const auto at = [count](const std::vector<PixelPos>& points, int i) {
      return points[static_cast<std::size_t>(i % count)];
    };
    RC_ASSERT(at(corners, side) == at(theirs, opposite + 1));
    RC_ASSERT(at(corners, side + 1) == at(theirs, opposite));
    // In side coordinates the way across a side is always the same.
    RC_ASSERT(grid->toSide(other) - grid->toSide(cell) ==
              grid->toSide(grid->across({0, 0}, side)) - grid->toSide({0, 0}));
  }
}

RC_GTEST_PROP(Grid, TheCellsAroundACornerAllMeetThere, ()) {
  const auto grid = makeGrid(anyGrid());
  const CellPos cell = farCell();
  const int corners = grid->turnOrder();
  const int corner = *rc::gen::inRange(0, corners);
  const std::vector<CellPos> around = grid->aroundCorner(cell, corner);
  RC_ASSERT(around.size() == (corners == 4 ? 4u : 3u));
  RC_ASSERT(around.front() == cell);
  RC_ASSERT((around.size() == 4) == grid->acrossCorner(cell, corner).has_value());
  // Seen from each of them it is one corner with the same cells, in the same order around.
  for (std::size_t i = 0; i < around.size(); ++i) {
    std::vector<CellPos> turned = around;
    std::rotate(turned.begin(), turned.begin() + static_cast<std::ptrdiff_t>(i), turned.end());
    bool found = false;
    for (int other = 0; other < corners; ++other) found = found || grid->aroundCorner(around[i], other) == turned;
    RC_ASSERT(found);
  }
}

RC_GTEST_PROP(Grid, CellsMeetingMissesNone, ()) {
  const auto grid = makeGrid(anyGrid());
  const PixelRect pixels{*rc::gen::inRange(-3000, 3000), *rc::gen::inRange(-3000, 3000), *rc::gen::inRange(1, 300),
                         *rc::gen::inRange(1, 300)};
  const CellRect cells = grid->cellsMeeting(pixels);
  const CellRect wider = cells.grown(2);
  for (int i = 0; i < 200; ++i) {
    const CellPos at{*rc::gen::inRange(wider.x0, wider.x1), *rc::gen::inRange(wider.y0, wider.y1)};
    if (!grid->cellBox(at).intersected(pixels).empty()) RC_ASSERT(cells.contains(at));
  }
}

RC_GTEST_PROP(Grid, BoundsHoldTheBoxesOfAllCellsAndNoMore, ()) {
  const auto grid = makeGrid(anyGrid());
  const CellPos first = anyCell();
  const CellRect cells{first.x, first.y, first.x + *rc::gen::inRange(1, 7), first.y + *rc::gen::inRange(1, 7)};
  PixelRect boxes;
  for (int y = cells.y0; y < cells.y1; ++y) {
    for (int x = cells.x0; x < cells.x1; ++x) boxes = boxes.united(grid->cellBox({x, y}));
  }
  RC_ASSERT(grid->pixelBounds(cells) == boxes);
  // The outline of the rectangle touches the same bounds.
  const auto points = grid->perimeter(cells);
  const auto [left, right] =
      std::minmax_element(points.begin(), points.end(), [](auto a, auto b) { return a.x < b.x; });
  const auto [top, bottom] =
      std::minmax_element(points.begin(), points.end(), [](auto a, auto b) { return a.y < b.y; });
  RC_ASSERT(left->x == boxes.x && right->x == boxes.right() && top->y == boxes.y && bottom->y == boxes.bottom());
}

RC_GTEST_PROP(Grid, TheDrawOrderVisitsEachCellOnceFromTheTop, ()) {
  const auto grid = makeGrid(anyGrid());
  const CellPos first = anyCell();
  const CellRect cells{first.x, first.y, first.x + *rc::gen::inRange(1, 9), first.y + *rc::gen::inRange(1, 9)};
  std::set<CellPos> seen;
  int foot = std::numeric_limits<int>::min();
  int left = 0;
  grid->inDrawOrder(cells, [&](const DrawRow& row) {
    for (int i = 0; i < row.count; ++i) {
      RC_ASSERT(cells.contains(row.at(i)));
      RC_ASSERT(seen.insert(row.at(i)).second);
      const PixelRect box = grid->cellBox(row.at(i));
      RC_ASSERT(grid->shape().plan || box.bottom() > foot || (box.bottom() == foot && box.x > left));
      foot = box.bottom();
      left = box.x;
    }
  });
  RC_ASSERT(static_cast<std::int64_t>(seen.size()) == cells.count());
}

RC_GTEST_PROP(Grid, FullTurnsAndTwoMirrorsAreNothingAndTurnsFollowOneLaw, ()) {
  const auto grid = makeGrid(anyGrid());
  const int order = grid->turnOrder();
  const SidePos at{*rc::gen::inRange(-9, 10), *rc::gen::inRange(-9, 10)};
  const auto anyOf = [order] {
    return Turn{*rc::gen::arbitrary<bool>(), *rc::gen::inRange<std::uint8_t>(0, static_cast<std::uint8_t>(order))};
  };
  const Turn a = anyOf();
  const Turn b = anyOf();
  RC_ASSERT(grid->turned(grid->turned(at, a), b) == grid->turned(at, combined(a, b, order)));
  SidePos now = at;
  for (int i = 0; i < order; ++i) now = grid->turned(now, turnOf(Turning::right, order));
  RC_ASSERT(now == at);
  // A turn to the right goes clockwise on the screen: the way across one side becomes the way across the next.
  const int sides = order;
  const auto way = [&](int side) { return grid->toSide(grid->across({0, 0}, side)) - grid->toSide({0, 0}); };
  for (int side = 0; side < sides; ++side) {
    RC_ASSERT(grid->turned(way(side), turnOf(Turning::right, order)) == way((side + 1) % sides));
  }
}

RC_GTEST_PROP(Grid, LinesJoinTheirEndsStepByStepAndKeepTheirShape, ()) {
  const auto grid = makeGrid(anyGrid());
  const CellPos from = farCell();
  const CellPos to{from.x + *rc::gen::inRange(-40, 41), from.y + *rc::gen::inRange(-40, 41)};
  const auto line = grid->line(from, to);
  RC_ASSERT(line.front() == from);
  RC_ASSERT(line.back() == to);
  const bool hexagons = grid->turnOrder() == 6;
  for (std::size_t i = 1; i < line.size(); ++i) {
    const SidePos step = grid->toSide(line[i]) - grid->toSide(line[i - 1]);
    const int far = hexagons ? std::max({std::abs(step.u), std::abs(step.v), std::abs(step.u + step.v)})
                             : std::max(std::abs(step.u), std::abs(step.v));
    RC_ASSERT(far == 1);
  }
  const SidePos by{*rc::gen::inRange(-99, 100), *rc::gen::inRange(-99, 100)};
  const auto moved = grid->line(grid->fromSide(grid->toSide(from) + by), grid->fromSide(grid->toSide(to) + by));
  RC_ASSERT(moved.size() == line.size());
  for (std::size_t i = 0; i < line.size(); ++i) RC_ASSERT(grid->toSide(moved[i]) - grid->toSide(line[i]) == by);
}

TEST(Grid, SizesAreThoseOfTheTrade) {
  const auto bounds = [](GridKind kind, PixelSize cell, int side, CellRect cells) {
    GridShape shape{kind, cell, side, false};
    EXPECT_EQ(whyNoGrid(shape), "");
    const PixelRect pixels = makeGrid(shape)->pixelBounds(cells);
    return PixelSize{pixels.w, pixels.h};
  };
  EXPECT_EQ(bounds(GridKind::diamond, {64, 32}, 0, {0, 0, 28, 28}), (PixelSize{28 * 64, 28 * 32}));
  EXPECT_EQ(bounds(GridKind::staggered, {64, 32}, 0, {0, 0, 20, 40}), (PixelSize{20 * 64 + 32, 41 * 16}));
  EXPECT_EQ(bounds(GridKind::hexagonalPointy, {56, 64}, 32, {0, 0, 24, 20}), (PixelSize{24 * 56 + 28, 19 * 48 + 64}));
  EXPECT_EQ(bounds(GridKind::hexagonalFlat, {64, 56}, 32, {0, 0, 12, 12}), (PixelSize{11 * 48 + 64, 12 * 56 + 28}));
}

TEST(Grid, ShapesThatCannotBeAreRefusedAndTheNearestOffered) {
  EXPECT_NE(whyNoGrid({GridKind::diamond, {63, 32}}), "");
  EXPECT_NE(whyNoGrid({GridKind::hexagonalPointy, {56, 64}, 31}), "");
  EXPECT_NE(whyNoGrid({GridKind::hexagonalPointy, {56, 64}, 64}), "");
  EXPECT_NE(whyNoGrid({GridKind::hexagonalFlat, {64, 55}, 32}), "");
  EXPECT_NE(whyNoGrid({GridKind::orthogonal, {1, 32}}), "");
  EXPECT_EQ(nearestShape(GridKind::staggered, {63, 31}).cell, (PixelSize{64, 32}));
  for (const GridKind kind : kGridKinds) {
    for (int size = kSmallestCell; size <= kLargestCell; ++size) {
      EXPECT_EQ(whyNoGrid(nearestShape(kind, {size, size})), "") << gridName(kind) << " " << size;
    }
  }
}

TEST(Grid, NamesOnlyWhatItKnows) {
  for (const GridKind kind : kGridKinds) EXPECT_EQ(*gridKindFromName(gridName(kind)), kind);
  EXPECT_EQ(*gridKindFromName("orthogonal"), GridKind::orthogonal);
  EXPECT_EQ(gridKindFromName("triangular").error().cause, Error::Cause::newer);
}

RC_GTEST_PROP(Turn, EachPlacementHasOneCodeAndFourQuartersAreNothing, ()) {
  const Turn turn = anyTurn();
  RC_ASSERT(Turn::fromCode(turn.code()) == turn);
  Turn now = turn;
  for (int i = 0; i < 4; ++i) now = combined(now, turnOf(Turning::right, 4), 4);
  RC_ASSERT(now == turn);
  RC_ASSERT(combined(combined(turn, turnOf(Turning::left, 4), 4), turnOf(Turning::right, 4), 4) == turn);
  for (Turning mirror : {Turning::mirrorAcross, Turning::mirrorDown}) {
    RC_ASSERT(combined(combined(turn, turnOf(mirror, 4), 4), turnOf(mirror, 4), 4) == turn);
  }
}

RC_GTEST_PROP(Turn, CombiningIsAssociative, ()) {
  const Turn a = anyTurn();
  const Turn b = anyTurn();
  const Turn c = anyTurn();
  RC_ASSERT(combined(combined(a, b, 4), c, 4) == combined(a, combined(b, c, 4), 4));
}

// Pictures and arrangements turn alike: what a turn does to the places of a block is what it does inside a picture.
RC_GTEST_PROP(Turn, TurningPlacesFollowsTheSameLaw, ()) {
  const auto grid = makeGrid({});
  const SidePos at{*rc::gen::inRange(-9, 9), *rc::gen::inRange(-9, 9)};
  const Turn a = anyTurn();
  const Turn b = anyTurn();
  RC_ASSERT(grid->turned(grid->turned(at, a), b) == grid->turned(at, combined(a, b, 4)));
}

TEST(Block, KeepsTheLastPartOfAPlaceAndNoEmptyOnes) {
  const Cell tile({1, 7}, {});
  EXPECT_TRUE(Block({{{0, 0}, tile}, {{0, 0}, Cell{}}}).empty());
  EXPECT_EQ(Block({{{0, 0}, Cell{}}, {{0, 0}, tile}}), Block::of(tile));
}

TEST(ShapeOffers, SuitTheTilesAndSayWhy) {
  const auto offers = [](GridKind kind, PixelSize tile) {
    std::vector<std::string> texts;
    for (const ShapeOffer& one : offeredShapes(kind, tile)) {
      EXPECT_EQ(whyNoGrid(one.shape), "");
      texts.push_back(std::to_string(one.shape.cell.w) + "x" + std::to_string(one.shape.cell.h) + ": " + one.reason);
    }
    return texts;
  };
  using Texts = std::vector<std::string>;
  EXPECT_EQ(offers(GridKind::orthogonal, {32, 32}), (Texts{"32x32: as large as the tiles"}));
  EXPECT_EQ(offers(GridKind::diamond, {64, 96}),
            (Texts{"64x32: half as high as wide, for tiles that stand up from their cells", "64x96: as large as the tiles"}));
  EXPECT_EQ(offers(GridKind::staggered, {63, 31}),
            (Texts{"64x32: nearest to 63 × 31 that fits together"}));
  EXPECT_EQ(offers(GridKind::hexagonalPointy, {56, 64}),
            (Texts{"56x65: six sides of nearly one length", "56x64: as large as the tiles"}));
  EXPECT_EQ(offers(GridKind::hexagonalFlat, {64, 55}),
            (Texts{"65x56: six sides of nearly one length", "64x56: nearest to 64 × 55 that fits together"}));
}

RC_GTEST_PROP(ShapeOffers, AreAlwaysGridsThatCanBe, ()) {
  const PixelSize tile{*rc::gen::inRange(1, 900), *rc::gen::inRange(1, 900)};
  for (const GridKind kind : kGridKinds) {
    for (const ShapeOffer& one : offeredShapes(kind, tile)) RC_ASSERT(whyNoGrid(one.shape).empty());
  }
}

}  // namespace uq
