#include <rapidcheck/gtest.h>

#include <cstdlib>

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

TEST(Grid, NamesOnlyWhatItKnows) {
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

TEST(Block, TurnsRightAboutItsGrip) {
  const auto grid = makeGrid({});
  const Cell left({1, 1}, {});
  const Cell right({1, 2}, {});
  const Block pair({{{0, 0}, left}, {{1, 0}, right}});
  const Block turned = pair.turned(*grid, Turning::right);
  EXPECT_EQ(turned, Block({{{0, 0}, Cell({1, 1}, {false, 1})}, {{0, 1}, Cell({1, 2}, {false, 1})}}));
  EXPECT_EQ(turned.straightened().extent(), (CellRect{0, 0, 1, 2}));
}

RC_GTEST_PROP(Block, FourTurnsOrTwoMirrorsGiveItBack, ()) {
  const auto grid = makeGrid({});
  std::vector<Block::Part> parts;
  for (std::uint32_t i = 0, n = *rc::gen::inRange(1u, 9u); i < n; ++i) {
    parts.push_back({{*rc::gen::inRange(-4, 5), *rc::gen::inRange(-4, 5)}, Cell({1, i}, anyTurn())});
  }
  const Block block(parts);
  Block now = block;
  for (int i = 0; i < 4; ++i) now = now.turned(*grid, Turning::left);
  RC_ASSERT(now == block);
  RC_ASSERT(block.turned(*grid, Turning::mirrorDown).turned(*grid, Turning::mirrorDown) == block);
}

TEST(Block, KeepsTheLastPartOfAPlaceAndNoEmptyOnes) {
  const Cell tile({1, 7}, {});
  EXPECT_TRUE(Block({{{0, 0}, tile}, {{0, 0}, Cell{}}}).empty());
  EXPECT_EQ(Block({{{0, 0}, Cell{}}, {{0, 0}, tile}}), Block::of(tile));
}

}  // namespace uq
