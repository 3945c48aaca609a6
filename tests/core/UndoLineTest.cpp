#include <gtest/gtest.h>

#include "core/Support.h"
#include "core/edit/LayCells.h"
#include "core/history/UndoLine.h"

namespace uq::test {

namespace {

// A person at work: a quilt, its undo line, and the tab they are in.
struct Work {
  Quilt quilt = smallQuilt();
  UndoLine line;
  Id yard = quilt.mapNamed("Yard")->id;
  Id loft = quilt.mapNamed("Loft")->id;

  bool step(const char* name, Id tab, const Quilt& after) {
    line.begin(name, tab, quilt, {});
    quilt = after;
    return line.commit(quilt, {});
  }
  void lay(const char* map, const char* layer, CellPos at, const char* sheet = "rails") {
    const std::vector<CellChange> one = {{at, tileOf(quilt, sheet, static_cast<std::uint32_t>(at.x + 1))}};
    step((std::string("Brush on ") + layer).c_str(), quilt.mapNamed(map)->id,
         layCells(quilt, layerOf(quilt, map, layer), one));
  }
  bool back(Id tab) {
    const auto plan = line.planBack(tab, quilt);
    if (plan) quilt = line.takeBack(*plan, tab, quilt).quilt;
    return plan.has_value();
  }
  bool forth(Id tab) {
    const auto plan = line.planForth(tab, quilt);
    if (plan) quilt = line.layBack(*plan, quilt).quilt;
    return plan.has_value();
  }
  // A step that paints on both maps.
  void onBoth() {
    const std::vector<CellChange> one = {{{1, 1}, tileOf(quilt, "street", 7)}};
    Quilt after = layCells(quilt, layerOf(quilt, "Yard", "Sheds"), one);
    after = layCells(after, layerOf(quilt, "Loft", "Floor"), one);
    step("Swap everywhere", yard, after);
  }
};

}  // namespace

TEST(UndoLine, TakesBackAndLaysBack) {
  Work work;
  const Quilt start = work.quilt;
  work.lay("Yard", "Sheds", {0, 0});
  const Quilt one = work.quilt;
  work.lay("Yard", "Sheds", {1, 0});
  const Quilt two = work.quilt;
  EXPECT_TRUE(work.back(work.yard));
  EXPECT_EQ(work.quilt, one);
  EXPECT_TRUE(work.quilt.mapNamed("Yard")->revision.is(one.mapNamed("Yard")->revision));
  EXPECT_TRUE(work.back(work.yard));
  EXPECT_EQ(work.quilt, start);
  EXPECT_FALSE(work.back(work.yard));
  EXPECT_TRUE(work.forth(work.yard));
  EXPECT_TRUE(work.forth(work.yard));
  EXPECT_EQ(work.quilt, two);
  EXPECT_FALSE(work.forth(work.yard));
}

TEST(UndoLine, AnEditThatChangesNothingMakesNoStep) {
  Work work;
  EXPECT_FALSE(work.step("Nothing", work.yard, work.quilt));
  EXPECT_TRUE(work.line.steps().empty());
}

TEST(UndoLine, ACancelledGestureLeavesNoMark) {
  Work work;
  work.line.begin("Brush", work.yard, work.quilt, {});
  EXPECT_FALSE(work.line.planBack(work.yard, work.quilt));
  EXPECT_EQ(work.line.cancel(), work.quilt);
  EXPECT_FALSE(work.line.inGesture());
  EXPECT_TRUE(work.line.steps().empty());
}

TEST(UndoLine, EachMapHasItsOwnWayBack) {
  Work work;
  work.lay("Yard", "Sheds", {0, 0});
  work.lay("Loft", "Floor", {0, 0});
  const Quilt both = work.quilt;
  EXPECT_TRUE(work.back(work.yard));
  EXPECT_EQ(*work.quilt.mapNamed("Loft"), *both.mapNamed("Loft"));
  EXPECT_TRUE(work.quilt.layer(layerOf(work.quilt, "Yard", "Sheds"))->cells.empty());
  EXPECT_FALSE(work.back(work.yard));
  EXPECT_TRUE(work.back(work.loft));
  EXPECT_TRUE(work.forth(work.yard));
  EXPECT_TRUE(work.forth(work.loft));
  EXPECT_EQ(work.quilt, both);
}

TEST(UndoLine, OnTheBoardTheNewestOfAllGoesFirst) {
  Work work;
  work.lay("Yard", "Sheds", {0, 0});
  const Quilt one = work.quilt;
  work.lay("Loft", "Floor", {0, 0});
  EXPECT_TRUE(work.back(Id{}));
  EXPECT_EQ(work.quilt, one);
}

TEST(UndoLine, NamesWhatElseWouldGoBeforeItGoes) {
  Work work;
  const Quilt start = work.quilt;
  work.onBoth();
  work.lay("Loft", "Floor", {3, 3});
  const auto plan = work.line.planBack(work.yard, work.quilt);
  ASSERT_TRUE(plan);
  EXPECT_TRUE(plan->reachesFarther);
  EXPECT_EQ(plan->names, (std::vector<std::string>{"Swap everywhere", "Brush on Floor"}));
  const Quilt both = work.quilt;
  EXPECT_TRUE(work.back(work.yard));
  EXPECT_EQ(work.quilt, start);
  EXPECT_TRUE(work.forth(work.yard));
  EXPECT_EQ(work.quilt, both);
}

TEST(UndoLine, ASimpleStepNeedsNoQuestion) {
  Work work;
  work.lay("Yard", "Sheds", {0, 0});
  EXPECT_FALSE(work.line.planBack(work.yard, work.quilt)->reachesFarther);
}

TEST(UndoLine, AStepGoesWithTheSheetThatItPaintsWith) {
  Work work;
  Sheet quay;
  quay.id = IdSource(3).next();
  quay.name = "quay";
  quay.code = "C";
  quay.pictureSize = {64, 64};
  const Quilt start = work.quilt;
  // Brought in while at work on the yard; then the loft is painted with it.
  work.step("Bring in quay", work.yard, work.quilt.with(quay));
  work.lay("Loft", "Floor", {0, 0}, "quay");
  const Quilt all = work.quilt;
  const auto plan = work.line.planBack(work.yard, work.quilt);
  ASSERT_TRUE(plan);
  EXPECT_EQ(plan->names, (std::vector<std::string>{"Bring in quay", "Brush on Floor"}));
  EXPECT_TRUE(plan->reachesFarther);
  EXPECT_TRUE(work.back(work.yard));
  EXPECT_EQ(work.quilt, start);
  EXPECT_TRUE(work.forth(work.yard));
  EXPECT_EQ(work.quilt, all);
}

TEST(UndoLine, AStepThatPaintsWithAnotherSheetStays) {
  Work work;
  Sheet quay;
  quay.id = IdSource(3).next();
  quay.name = "quay";
  quay.code = "C";
  quay.pictureSize = {64, 64};
  work.step("Bring in quay", work.yard, work.quilt.with(quay));
  work.lay("Loft", "Floor", {0, 0}, "rails");
  EXPECT_EQ(work.line.planBack(work.yard, work.quilt)->names, std::vector<std::string>{"Bring in quay"});
}

TEST(UndoLine, ANewStepDropsOnlyWhatItContradicts) {
  Work work;
  work.lay("Yard", "Sheds", {0, 0});
  work.lay("Loft", "Floor", {0, 0});
  EXPECT_TRUE(work.back(work.yard));
  EXPECT_TRUE(work.back(work.loft));
  work.lay("Yard", "Paving", {5, 5});
  EXPECT_FALSE(work.forth(work.yard));
  EXPECT_TRUE(work.forth(work.loft));
}

TEST(UndoLine, ANewStepDropsGroupsThatNeedADroppedOne) {
  Work work;
  work.onBoth();
  work.lay("Loft", "Floor", {3, 3});
  EXPECT_TRUE(work.back(work.loft));  // the stroke on Floor
  EXPECT_TRUE(work.back(work.yard));  // the swap
  work.lay("Yard", "Paving", {5, 5});
  EXPECT_FALSE(work.forth(work.loft));
}

TEST(UndoLine, RedoBringsWhatItNeeds) {
  Work work;
  work.onBoth();
  work.lay("Loft", "Floor", {3, 3});
  const Quilt all = work.quilt;
  EXPECT_TRUE(work.back(work.loft));
  EXPECT_TRUE(work.back(work.yard));
  const auto plan = work.line.planForth(work.loft, work.quilt);
  ASSERT_TRUE(plan);
  EXPECT_EQ(plan->names.front(), "Swap everywhere");
  while (work.forth(work.loft)) {
  }
  EXPECT_EQ(work.quilt, all);
}

TEST(UndoLine, ReturnsTheWholeQuiltToAStep) {
  Work work;
  work.lay("Yard", "Sheds", {0, 0});
  const Quilt one = work.quilt;
  const auto number = work.line.steps().back().number;
  work.lay("Loft", "Floor", {0, 0});
  work.lay("Yard", "Sheds", {1, 0});
  const Quilt all = work.quilt;
  work.quilt = work.line.takeBack(work.line.planReturn(number), Id{}, work.quilt).quilt;
  EXPECT_EQ(work.quilt, one);
  EXPECT_TRUE(work.forth(Id{}));
  EXPECT_EQ(work.quilt, all);
}

TEST(UndoLine, BringsTheActiveLayerBack) {
  Work work;
  const LayerAt sheds = layerOf(work.quilt, "Yard", "Sheds");
  const LayerAt paving = layerOf(work.quilt, "Yard", "Paving");
  const std::vector<CellChange> one = {{{0, 0}, tileOf(work.quilt, "rails", 1)}};
  work.line.begin("Brush", work.yard, work.quilt, sheds);
  const Quilt after = layCells(work.quilt, sheds, one);
  work.line.commit(after, paving);
  const auto undone = work.line.takeBack(*work.line.planBack(work.yard, after), work.yard, after);
  EXPECT_EQ(undone.active, sheds);
  EXPECT_EQ(work.line.layBack(*work.line.planForth(work.yard, undone.quilt), undone.quilt).active, paving);
}

namespace {

// The line's invariant: each map is what the newest kept step that changed it left, or what it was at the start.
void checkPresent(const Work& work, const Quilt& start) {
  for (const auto& map : work.quilt.maps()) {
    const Map* expected = start.map(map->id);
    for (const Step& step : work.line.steps()) {
      for (const PartChange& change : step.changes) {
        if (change.key != PartKey{PartKey::Kind::map, map->id}) continue;
        RC_ASSERT(std::get<Shared<Map>>(change.before).read() == *expected);
        expected = &std::get<Shared<Map>>(change.after).read();
      }
    }
    RC_ASSERT(map.read() == *expected);
  }
}

}  // namespace

RC_GTEST_PROP(UndoLine, EachMapIsAlwaysWhatItsNewestKeptStepLeft, ()) {
  Work work;
  const Quilt start = work.quilt;
  std::vector<Id> tabs{Id{}, work.yard, work.loft};
  for (int i = 0, n = *rc::gen::inRange(1, 25); i < n; ++i) {
    const Id tab = *rc::gen::elementOf(tabs);
    switch (*rc::gen::inRange(0, 6)) {
      case 0:
      case 1: work.back(tab); break;
      case 2: work.forth(tab); break;
      case 3: work.step("Both", tab, *editOf(*editOf(*editOf(work.quilt)))); break;
      default: work.step("Edit", tab, *editOf(work.quilt)); break;
    }
    checkPresent(work, start);
  }
  // Whatever is left can be taken back to the start, in whatever tab one is.
  while (work.back(*rc::gen::elementOf(tabs)) || work.back(Id{})) checkPresent(work, start);
  RC_ASSERT(work.quilt == start);
}

RC_GTEST_PROP(UndoLine, RandomEditsUndoneGiveTheSameBytes, ()) {
  Work work;
  const std::string start = bytes(work.quilt);
  std::vector<Id> tabs{Id{}, work.yard, work.loft};
  for (int i = 0, n = *rc::gen::inRange(1, 12); i < n; ++i) {
    const Id tab = *rc::gen::elementOf(tabs);
    switch (*rc::gen::inRange(0, 4)) {
      case 0: work.back(tab); break;
      case 1: work.forth(tab); break;
      default: work.step("Edit", tab, *editOf(work.quilt)); break;
    }
  }
  const std::string end = bytes(work.quilt);
  const std::size_t depth = work.line.steps().size();
  for (std::size_t i = 0; i < depth; ++i) RC_ASSERT(work.back(Id{}));
  RC_ASSERT(bytes(work.quilt) == start);
  for (std::size_t i = 0; i < depth; ++i) RC_ASSERT(work.forth(Id{}));
  RC_ASSERT(bytes(work.quilt) == end);
}

}  // namespace uq::test
