// Sizes that do not agree are named in words, and what is offered mends them.
#include "core/edit/SizeFindings.h"

#include <gmock/gmock.h>

#include "core/Support.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/MapFacts.h"
#include "core/edit/ResizeMap.h"

namespace uq::test {

namespace {

using testing::HasSubstr;

// The Yard, of squares of 32 pixels, so many cells large, on a screen of so many pixels.
Quilt yardOf(PixelSize screen, CellRect bounds, PixelSize cell = {32, 32}) {
  Quilt quilt = withScreen(smallQuilt(), screen);
  Map yard = *quilt.mapNamed("Yard");
  yard.grid = nearestShape(GridKind::orthogonal, cell);
  yard.bounds = bounds;
  return quilt.with(yard);
}

// What is found first; then nothing of the kind is found in what mends it.
SizeFinding mendedOf(const Quilt& quilt) {
  const auto found = sizeFindings(quilt, *quilt.mapNamed("Yard"));
  if (found.empty()) return {};
  for (const SizeFinding& still : sizeFindings(found.front().mended, *found.front().mended.mapNamed("Yard"))) {
    EXPECT_NE(still.text, found.front().text);
  }
  return found.front();
}

}  // namespace

TEST(SizeFindings, AGapUnderTheLastRowIsMendedByThatRowAgain) {
  const Quilt quilt = yardOf({640, 392}, {0, 0, 20, 12});
  const SizeFinding gap = mendedOf(quilt);
  EXPECT_EQ(gap.text, "The map is 8 px lower than the screen");
  EXPECT_EQ(gap.mend, "Lay the last row again");
  const Map& mended = *gap.mended.mapNamed("Yard");
  EXPECT_EQ(mended.bounds, (CellRect{0, 0, 20, 13}));
  EXPECT_EQ(mended.layers.front()->cells.at({3, 12}), mended.layers.front()->cells.at({3, 11}));
}

TEST(SizeFindings, ALastRowThatTheScreenCutsIsTakenOff) {
  const SizeFinding cut = mendedOf(yardOf({640, 380}, {0, 0, 20, 12}));
  EXPECT_EQ(cut.text, "The screen cuts the last row: 4 px of it do not fit");
  EXPECT_EQ(cut.mended.mapNamed("Yard")->bounds, (CellRect{0, 0, 20, 11}));
  const SizeFinding small = mendedOf(yardOf({740, 384}, {0, 0, 20, 12}));
  EXPECT_EQ(small.mend, "Add 4 columns");
}

TEST(SizeFindings, WhatAgreesIsNotNamed) {
  const Quilt quilt = yardOf({320, 192}, {0, 0, 20, 12});
  const PixelSize tile = quilt.sheets().front()->cut.cell;
  for (const SizeFinding& one : sizeFindings(yardOf({320, 192}, {0, 0, 20, 12}, tile), *quilt.mapNamed("Yard"))) {
    EXPECT_THAT(one.text, HasSubstr("screen"));
  }
}

TEST(SizeFindings, TilesThatAreNoWholeCellsAreNamed) {
  const Quilt quilt = yardOf({320, 192}, {0, 0, 20, 12}, {24, 24});
  std::vector<std::string> texts;
  Quilt mended = quilt;
  for (const SizeFinding& one : sizeFindings(quilt, *quilt.mapNamed("Yard"))) {
    texts.push_back(one.text);
    if (one.text.starts_with("The tiles of")) mended = one.mended;
  }
  const PixelSize tile = quilt.sheets().front()->cut.cell;
  EXPECT_THAT(texts, testing::Contains(HasSubstr("The tiles of street are " + std::to_string(tile.w))));
  EXPECT_EQ(mended.mapNamed("Yard")->grid.cell, tile);
}

}  // namespace uq::test
