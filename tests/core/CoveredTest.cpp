// Cells that nobody can see, and cells where nothing can be seen.
#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include "core/Support.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/Covered.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Levels.h"
#include "core/edit/Stroke.h"

namespace uq::test {
namespace {

// Paving, Sheds and Awnings of the Yard, all empty. Tiles below 10 hide their cell, those below 20 keep to it.
class Covered : public testing::Test {
 protected:
  Covered() {
    for (const LayerAt at : {paving, sheds, awnings}) quilt = quilt.with(at, LayerCells());
  }
  Cell tile(std::uint32_t number) const { return tileOf(quilt, "street", number); }
  void lay(LayerAt at, std::uint32_t number, CellPos from, CellPos to) {
    StrokePlan plan = layingOn(at, Block::of(tile(number)));
    plan.tool = Tool::box;
    quilt = stroked(quilt, plan, {from, to});
  }
  CellSet covered(LayerAt at) const { return coveredCells(quilt, at, quilt.map(at.map)->bounds, hiding); }

  Quilt quilt = smallQuilt();
  LayerAt paving = layerOf(quilt, "Yard", "Paving");
  LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  LayerAt awnings = layerOf(quilt, "Yard", "Awnings");
  Hiding hiding{[](TileRef one) { return one.number < 10; }, [](TileRef one) { return one.number < 20; },
                [](TileRef one) { return one.number < 15; },
                [](TileRef) { return true; }};
};

TEST_F(Covered, ACellIsHiddenWhereANearerLayerIsOpaque) {
  lay(paving, 12, {0, 0}, {9, 5});
  lay(sheds, 3, {2, 1}, {4, 2});
  lay(awnings, 11, {0, 0}, {9, 5});  // see-through
  EXPECT_EQ(covered(paving), CellSet({2, 1, 5, 3}));
  EXPECT_TRUE(covered(sheds).empty());
  EXPECT_TRUE(covered(awnings).empty());
  EXPECT_EQ(coveredCells(quilt, paving, {4, 0, 9, 9}, hiding), CellSet({4, 1, 5, 3}));
}

TEST_F(Covered, WhatReachesBeyondItsCellIsNot) {
  lay(paving, 25, {0, 0}, {3, 3});
  lay(sheds, 3, {0, 0}, {3, 3});
  EXPECT_TRUE(covered(paving).empty());
}

TEST_F(Covered, OnlyWhatLiesAndMovesTogetherAndIsDrawnWholeHides) {
  lay(paving, 12, {0, 0}, {3, 3});
  lay(sheds, 3, {0, 0}, {3, 3});
  const Quilt before = quilt;
  ASSERT_FALSE(covered(paving).empty());
  for (const Quilt& other : {withOpacity(before, sheds, 99), withOffset(before, sheds, {1, 0}),
                             withParallax(before, sheds, {50, 100}), withBlend(before, sheds, Blend::screen),
                             withInGame(before, sheds, false)}) {
    quilt = other;
    EXPECT_TRUE(covered(paving).empty());
  }
}

TEST_F(Covered, NothingLiftedHidesOrIsHidden) {
  lay(paving, 12, {0, 0}, {1, 0});
  StrokePlan plan = layingOn(sheds, Block::of(tile(3)));
  plan.lift = 8;
  quilt = stroked(quilt, plan, {{0, 0}});
  lay(sheds, 3, {1, 0}, {1, 0});
  EXPECT_EQ(covered(paving), CellSet({1, 0, 2, 1}));
}

TEST_F(Covered, HolesAreCellsThatNothingCovers) {
  const CellRect all = quilt.map(paving.map)->bounds;
  lay(paving, 12, {all.x0, all.y0}, {all.x1 - 1, all.y1 - 1});
  EXPECT_TRUE(holes(quilt, paving.map, all, {}, hiding).empty());
  LayerCells cells{quilt.layer(paving)->cells, {}, {}};
  cells.lay(CellPos{3, 2}, Laid{});
  cells.lay(CellPos{4, 2}, {tile(18), 0});  // a bush covers nothing
  quilt = quilt.with(paving, cells);
  EXPECT_EQ(holes(quilt, paving.map, all, {}, hiding), CellSet({3, 2, 5, 3}));
  lay(sheds, 3, {3, 2}, {3, 2});
  EXPECT_EQ(holes(quilt, paving.map, all, {}, hiding), CellSet({4, 2, 5, 3}));
  EXPECT_EQ(holes(quilt, paving.map, all, {sheds.layer}, hiding), CellSet({3, 2, 5, 3}));
}

TEST_F(Covered, OnAMapWithLevelsHolesAreTheGapsBelowRaisedTiles) {
  const CellRect all = quilt.map(paving.map)->bounds;
  lay(paving, 12, {all.x0, 4}, {all.x1 - 1, 7});  // ground below row 4 only
  IdSource ids(3);
  const LayerAdded level = addLevel(quilt, paving, ids);
  quilt = level.quilt;
  // A floor a cell high: it is drawn on row 1, and row 2 and 3 below it show the cloth.
  lay({paving.map, level.layer}, 12, {0, 2}, {2, 2});
  const CellSet open = holes(quilt, paving.map, all, {}, hiding);
  EXPECT_TRUE(open.contains({0, 2}));
  EXPECT_FALSE(open.contains({0, 1})) << "the floor is drawn here";
  EXPECT_FALSE(open.contains({0, 4}));
  EXPECT_FALSE(open.contains({9, 2})) << "no level is above";
}

RC_GTEST_FIXTURE_PROP(Covered, StrippedCellsAreThoseUnderAnOpaqueOneAndNoOthers, ()) {
  const auto number = rc::gen::inRange(0u, 30u);
  for (const LayerAt at : {paving, sheds, awnings}) {
    for (int i = 0; i < 6; ++i) {
      const CellPos from{*rc::gen::inRange(-4, 16), *rc::gen::inRange(-4, 8)};
      lay(at, *number, from, {*rc::gen::inRange(-4, 16), *rc::gen::inRange(-4, 8)});
    }
  }
  const CellSet found = covered(paving);
  const auto there = [&](LayerAt at, CellPos cell) { return quilt.layer(at)->cells.at(cell); };
  for (int y = -4; y < 8; ++y) {
    for (int x = -4; x < 16; ++x) {
      const Cell own = there(paving, {x, y});
      const auto hides = [&](LayerAt at) { return !there(at, {x, y}).empty() && hiding.hides(there(at, {x, y}).tile()); };
      const bool is = !own.empty() && hiding.keepsIn(own.tile()) && (hides(sheds) || hides(awnings));
      RC_ASSERT(found.contains({x, y}) == is);
    }
  }
}

}  // namespace
}  // namespace uq::test
