#include <rapidcheck/gtest.h>

#include <algorithm>

#include "core/AnyGrid.h"
#include "core/grid/Stance.h"

namespace uq {

RC_GTEST_PROP(Stance, StripsCoverThePictureOnceFromLeftToRight, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const CellPos at = test::anyCell();
  const Stance stance{{*rc::gen::inRange(-40, 40), *rc::gen::inRange(-40, 40)},
                      {*rc::gen::inRange(1, 5), *rc::gen::inRange(1, 5)}};
  const PixelRect place = standing(*grid, at, {*rc::gen::inRange(1, 400), *rc::gen::inRange(1, 400)}, stance);
  int x = place.x;
  const auto cells = footprintOf(*grid, at, stance.footprint);
  for (const Strip& strip : stripsOf(*grid, at, stance.footprint, place)) {
    RC_ASSERT(strip.left == x);
    RC_ASSERT(strip.right > strip.left);
    RC_ASSERT(std::find(cells.begin(), cells.end(), strip.front) != cells.end());
    x = strip.right;
  }
  RC_ASSERT(x == place.right());
}

RC_GTEST_PROP(Stance, TheCellOfATileIsTheNearestOfItsFootprint, ()) {
  const auto grid = makeGrid(test::anyGrid());
  const CellPos at = test::anyCell();
  const PixelSize footprint{*rc::gen::inRange(1, 6), *rc::gen::inRange(1, 6)};
  const auto cells = footprintOf(*grid, at, footprint);
  RC_ASSERT(cells.size() == static_cast<std::size_t>(footprint.w * footprint.h));
  for (const CellPos cell : cells) RC_ASSERT(grid->cellBox(cell).bottom() <= grid->cellBox(at).bottom());
}

// A wall three cells long on diamonds of 64 × 32, from the upper left to its nearest cell.
TEST(Stance, AWallOfThreeCellsStandsInThreeStrips) {
  const auto grid = makeGrid(nearestShape(GridKind::diamond, {64, 32}));
  const CellPos at{5, 5};
  const PixelRect box = grid->cellBox(at);
  const PixelRect place = standing(*grid, at, {128, 90}, {{0, 0}, {3, 1}});
  EXPECT_EQ(place, (PixelRect{box.x - 64, box.bottom() - 90, 128, 90}))
      << "it spans its cells and stands on their foot";
  EXPECT_EQ(
      stripsOf(*grid, at, {3, 1}, place),
      (std::vector<Strip>{{box.x - 64, box.x - 32, {3, 5}}, {box.x - 32, box.x, {4, 5}}, {box.x, box.x + 64, at}}));
}

TEST(Stance, ASeatShiftsAndMirrorsWithThePicture) {
  const auto grid = makeGrid(nearestShape(GridKind::diamond, {64, 32}));
  const PixelRect plain = grid->seat({2, 3}, {40, 80});
  const Stance stance{{6, -3}, {2, 1}};
  const PixelRect seated = standing(*grid, {2, 3}, {40, 80}, {{6, -3}, {1, 1}});
  EXPECT_EQ(seated, (PixelRect{plain.x + 6, plain.y - 3, 40, 80}));
  EXPECT_EQ(turnedStance(*grid, stance, {true, 0}), (Stance{{-6, -3}, {1, 2}}));
}

TEST(Stance, OnSquaresItStandsAtTheLeftOfItsCells) {
  const auto grid = makeGrid({GridKind::orthogonal, {32, 32}});
  EXPECT_EQ(standing(*grid, {2, 3}, {96, 80}, {{0, 0}, {3, 2}}), (PixelRect{64, 48, 96, 80}));
  EXPECT_EQ(stripsOf(*grid, {2, 3}, {3, 2}, {64, 48, 96, 80}),
            (std::vector<Strip>{{64, 96, {2, 3}}, {96, 128, {3, 3}}, {128, 160, {4, 3}}}));
}

}  // namespace uq
