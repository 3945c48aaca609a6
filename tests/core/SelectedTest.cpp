#include <rapidcheck/gtest.h>

#include "core/Support.h"
#include "core/document/Desk.h"
#include "core/edit/LayCells.h"
#include "core/edit/Selected.h"
#include "core/edit/Stroke.h"

namespace uq::test {

namespace {

// The yard with a few tiles on Paving, and what lies where.
struct Yard {
  Quilt quilt = smallQuilt();
  LayerAt paving = layerOf(quilt, "Yard", "Paving");

  const Map& map() const { return *quilt.map(paving.map); }
  Cell at(const Quilt& q, CellPos place) const { return q.layer(paving)->cells.at(place); }
  void layAtRandom() {
    std::vector<CellChange> changes;
    for (int i = 0, n = *rc::gen::inRange(0, 40); i < n; ++i) {
      changes.push_back(
          {place(), *rc::gen::arbitrary<bool>() ? Cell() : tileOf(quilt, "rails", *rc::gen::inRange(0u, 3u))});
    }
    quilt = layCells(quilt, paving, changes);
  }
  CellPos place() const {
    const CellRect all = map().bounds;
    return {*rc::gen::inRange(all.x0, all.x1), *rc::gen::inRange(all.y0, all.y1)};
  }
  CellSet selectAtRandom() const {
    CellSet cells;
    for (int i = 0, n = *rc::gen::inRange(1, 4); i < n; ++i)
      cells = cells.united(CellSet(CellRect::around(place(), place())));
    return cells;
  }
};

}  // namespace

RC_GTEST_PROP(Selected, ClearingEmptiesTheSelectionAndNothingElse, ()) {
  Yard yard;
  yard.layAtRandom();
  const CellSet cells = yard.selectAtRandom();
  const Quilt after = clearCells(yard.quilt, yard.paving, cells);
  const CellRect all = yard.map().bounds;
  for (int y = all.y0; y < all.y1; ++y) {
    for (int x = all.x0; x < all.x1; ++x) {
      RC_ASSERT(yard.at(after, {x, y}) == (cells.contains({x, y}) ? Cell() : yard.at(yard.quilt, {x, y})));
    }
  }
  RC_ASSERT(clearCells(after, yard.paving, cells) == after);
}

// What is painted in the selection comes to its new place, over what lay there; holes leave what lies there.
RC_GTEST_PROP(Selected, MovingLaysWhatWasLiftedAndNothingElse, ()) {
  Yard yard;
  yard.layAtRandom();
  const CellSet cells = yard.selectAtRandom();
  const SidePos by{*rc::gen::inRange(-6, 7), *rc::gen::inRange(-6, 7)};
  const Quilt after = moveCells(yard.quilt, yard.paving, cells, by);
  const CellRect all = yard.map().bounds;
  for (int y = all.y0; y < all.y1; ++y) {
    for (int x = all.x0; x < all.x1; ++x) {
      const CellPos from{x - by.u, y - by.v};
      const bool arrives = cells.contains(from) && all.contains(from) && !yard.at(yard.quilt, from).empty();
      const Cell stayed = cells.contains({x, y}) ? Cell() : yard.at(yard.quilt, {x, y});
      RC_ASSERT(yard.at(after, {x, y}) == (arrives ? yard.at(yard.quilt, from) : stayed));
      RC_ASSERT(movedSelection(yard.map(), cells, by).contains({x, y}) == (cells.contains(from) && all.contains(from)));
    }
  }
}

RC_GTEST_PROP(Selected, ACopyLaidAtItsGripIsWhatWasCopied, ()) {
  Yard yard;
  yard.layAtRandom();
  const CellSet cells = yard.selectAtRandom();
  const auto copy = copyOf(yard.quilt, yard.paving, cells);
  RC_ASSERT(copy);
  const CellRect bounds = cells.bounds();
  const CellPos grip{bounds.x0 + (bounds.width() - 1) / 2, bounds.y0 + (bounds.height() - 1) / 2};
  const Quilt cleared = clearCells(yard.quilt, yard.paving, cells);
  RC_ASSERT(stroked(cleared, layingOn(yard.paving, *copy), {grip}) == yard.quilt);
}

TEST(Selected, AStrokeWithinASelectionTouchesNothingElse) {
  Yard yard;
  const Block block = Block::of(tileOf(yard.quilt, "rails", 2, {true, 1}));
  StrokePlan plan = layingOn(yard.paving, block);
  plan.within = CellSet({2, 0, 4, 2});
  Stroke stroke(yard.quilt, plan);
  stroke.moveTo({0, 0});
  stroke.moveTo({8, 0});
  const CellGrid& before = yard.quilt.layer(yard.paving)->cells;
  const auto changed = CellGrid::differences(before, stroke.quilt().layer(yard.paving)->cells);
  ASSERT_EQ(changed.size(), 1u);
  EXPECT_EQ(changed[0], (CellRect{2, 0, 4, 1}));
}

TEST(Selected, TheDeskKeepsOnlyWhatLiesOnItsMaps) {
  Yard yard;
  Desk desk = validDesk({}, yard.quilt);
  desk.map = yard.paving.map;
  desk.select(CellSet({-100, -100, 0, 0}));
  desk.selections[Id()] = CellSet({0, 0, 1, 1});
  desk = validDesk(desk, yard.quilt);
  EXPECT_EQ(desk.selections.size(), 1u);
  EXPECT_EQ(desk.selection().bounds(), (CellRect{-4, -4, 0, 0}));
  desk.select({});
  EXPECT_TRUE(desk.selections.empty());
}

}  // namespace uq::test
