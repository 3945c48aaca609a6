// Lifted cells: what is laid above its layer stays so when it is moved, copied, undone and saved.
#include "core/Support.h"
#include "core/edit/LayCells.h"
#include "core/edit/Selected.h"
#include "core/edit/Stroke.h"
#include "core/edit/Turned.h"
#include "core/history/PackedMap.h"
#include "core/store/CellsText.h"

namespace uq::test {

namespace {

const NumberGrid& liftsOf(const Quilt& quilt, LayerAt at) { return quilt.layer(at)->lifts; }

}  // namespace

TEST(Lift, AStrokeLiftsTheCellsItLaysAndNoOthers) {
  const Quilt before = smallQuilt();
  const LayerAt sheds = layerOf(before, "Yard", "Sheds");
  StrokePlan plan = layingOn(sheds, Block::of(tileOf(before, "rails", 3)));
  plan.lift = 24;
  Stroke lifted(before, plan);
  lifted.moveTo({2, 2});
  lifted.moveTo({4, 2});
  for (int x = 2; x <= 4; ++x) EXPECT_EQ(liftsOf(lifted.quilt(), sheds).at({x, 2}), 24);
  EXPECT_EQ(liftsOf(lifted.quilt(), sheds).at({5, 2}), 0);
  // The next stroke on the ground brings them down, and taking away leaves no lift behind.
  Stroke flat(lifted.quilt(), layingOn(sheds, Block::of(tileOf(before, "rails", 3))));
  flat.moveTo({2, 2});
  EXPECT_EQ(liftsOf(flat.quilt(), sheds).at({2, 2}), 0);
  Stroke away(flat.quilt(), takingAway(sheds, Block::of(tileOf(before, "rails", 3))));
  away.moveTo({2, 2});
  away.moveTo({4, 2});
  EXPECT_TRUE(liftsOf(away.quilt(), sheds).empty());
}

TEST(Lift, IsNeverMoreThanTheMost) {
  const Quilt before = smallQuilt();
  const LayerAt sheds = layerOf(before, "Yard", "Sheds");
  const Block high({{{0, 0}, tileOf(before, "rails", 3), kMostLift - 5}});
  StrokePlan plan = layingOn(sheds, high);
  plan.lift = 24;
  Stroke stroke(before, plan);
  stroke.moveTo({2, 2});
  EXPECT_EQ(liftsOf(stroke.quilt(), sheds).at({2, 2}), kMostLift);
}

TEST(Lift, MovesIsCopiedAndTurnsWithItsCell) {
  const Quilt before = smallQuilt();
  const LayerAt sheds = layerOf(before, "Yard", "Sheds");
  const std::vector<CellChange> two = {{{1, 1}, tileOf(before, "rails", 3), 16}, {{2, 1}, tileOf(before, "rails", 4)}};
  const Quilt laid = layCells(before, sheds, two);
  const CellSet selected(CellRect{1, 1, 3, 2});
  const Quilt moved = moveCells(laid, sheds, selected, {3, 2});
  EXPECT_EQ(liftsOf(moved, sheds).at({4, 3}), 16);
  EXPECT_EQ(liftsOf(moved, sheds).at({1, 1}), 0);
  const Block copy = *copyOf(laid, sheds, selected);
  EXPECT_EQ(copy.parts()[0].lift, 16);
  EXPECT_EQ(copy.parts()[1].lift, 0);
  const Block turned = turnedBlock(laid, *makeGrid({}), copy, Turning::right);
  EXPECT_EQ(turned.parts()[0].lift, 16);
  EXPECT_TRUE(liftsOf(clearCells(laid, sheds, selected), sheds).empty());
}

TEST(Lift, IsPackedWithItsStep) {
  const Quilt before = smallQuilt();
  const LayerAt sheds = layerOf(before, "Yard", "Sheds");
  const std::vector<CellChange> one = {{{1, 1}, tileOf(before, "rails", 3), 16}};
  const Quilt after = layCells(before, sheds, one);
  const auto packed = PackedMap::of(*before.map(sheds.map), *after.map(sheds.map));
  ASSERT_TRUE(packed);
  EXPECT_EQ(*packed->before(*after.map(sheds.map)), *before.map(sheds.map));
  EXPECT_EQ(*packed->after(*before.map(sheds.map)), *after.map(sheds.map));
}

TEST(Lift, IsWrittenAsPlainNumbers) {
  NumberGrid lifts;
  lifts.fill({3, 5, 6, 7}, 16);
  lifts.set({-1, 0}, 7);
  const std::string text = "cells 1\n@-1,0\n0: .63 7\n@0,0\n5-6: .3 16x3\nend\n";
  EXPECT_EQ(writeNumbers(lifts), text);
  const NumbersRead read = readNumbers(text, kMostLift, "paving.lift.cells");
  EXPECT_FALSE(read.error);
  EXPECT_EQ(read.numbers, lifts);
}

TEST(Lift, NumbersThatCannotBeAreRefusedAtTheirLine) {
  const auto why = [](const std::string& row) {
    const auto read = readNumbers("cells 1\n@0,0\n" + row + "\nend\n", kMostLift, "paving.lift.cells");
    return read.error ? std::to_string(read.error->line) + ": " + read.error->reason : "";
  };
  EXPECT_EQ(why("0: 1025"), "3: a number is not one from 1 to 1024");
  EXPECT_EQ(why("0: 0"), "3: a number is not one from 1 to 1024");
  EXPECT_EQ(why("0: A5"), "3: the sheet code A is not named at the top");
  EXPECT_EQ(why("0: 5b"), "3: cells are not parted by one space");
  EXPECT_EQ(why("A aaaaaaaaaaab"), "3: a row does not begin with its number from 0 to 63");
}

RC_GTEST_PROP(Lift, ReadsBackWhatItWrites, ()) {
  NumberGrid lifts;
  for (int i = 0, n = *rc::gen::inRange(0, 30); i < n; ++i) {
    const int x = *rc::gen::inRange(-200, 200);
    const int y = *rc::gen::inRange(-200, 200);
    lifts.fill({x, y, x + *rc::gen::inRange(1, 90), y + *rc::gen::inRange(1, 4)}, *rc::gen::inRange(0, kMostLift + 1));
  }
  const std::string text = writeNumbers(lifts);
  const NumbersRead read = readNumbers(text, kMostLift, "x");
  RC_ASSERT(!read.error);
  RC_ASSERT(read.numbers == lifts);
  RC_ASSERT(writeNumbers(read.numbers) == text);
}

}  // namespace uq::test
