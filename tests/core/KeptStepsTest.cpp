// The way back is kept with the work and leads to the same quilts, step by step; what is damaged only shortens it.
#include "core/work/KeptSteps.h"

#include <algorithm>

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/Support.h"
#include "core/base/Squeezed.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

namespace {

// A quilt with its line, and the bytes that it had before each step.
struct Done {
  Quilt quilt = smallQuilt();
  UndoLine line;
  std::vector<std::string> before;

  void step(const std::string& name, const Quilt& after) {
    const std::string was = bytes(quilt);
    line.begin(name, quilt.maps().front()->id, quilt, {});
    if (line.commit(after, {})) before.push_back(was);
    quilt = after;
  }
};

// The quilt as another run of the program reads it, with slots of its own.
Quilt readAnew(const Quilt& quilt) {
  auto disk = std::make_shared<MemoryDisk>();
  auto made = QuiltStore::create(disk, "/quilts/again", quilt);
  EXPECT_TRUE(made) << made.error().text();
  made = fail(Error::Cause::cancelled, "let go");
  auto opened = QuiltStore::open(disk, "/quilts/again", QuiltStore::Access::read);
  EXPECT_TRUE(opened);
  return opened->quilt;
}

// Goes all the way back, and looks at each quilt on it.
void expectTheWayBack(const Done& done, const std::vector<std::string>& texts) {
  const LineToKeep keep = lineToKeep(done.line, {});
  ASSERT_EQ(keep.ids.size(), done.before.size());
  Quilt now = readAnew(done.quilt);
  StepsRead read = readSteps(texts, keep.ids, now);
  EXPECT_TRUE(read.whole);
  ASSERT_EQ(read.steps.size(), done.before.size());
  UndoLine line;
  line.comeBack(std::move(read.steps));
  for (std::size_t i = done.before.size(); i-- > 0;) {
    const UndoLine::Plan plan = line.planReturn(i == 0 ? 0 : keep.ids[i - 1]);
    EXPECT_EQ(plan.names, std::vector<std::string>{done.line.steps()[i].name});
    auto outcome = line.takeBack(plan, {}, now);
    ASSERT_TRUE(outcome);
    now = outcome->quilt;
    ASSERT_EQ(bytes(now), done.before[i]) << "before step " << i;
  }
}

std::string textOf(const Done& done) { return stepsText(lineToKeep(done.line, {}), done.quilt); }

void packAllBut(std::size_t fresh, UndoLine& line) {
  while (auto packing = line.toPack(fresh, 0)) line.putPacked(UndoLine::pack(std::move(*packing), nullptr));
}

void takeBackNewest(Done& done, Id tab) {
  auto plan = done.line.planBack(tab, done.quilt);
  ASSERT_TRUE(plan);
  auto outcome = done.line.takeBack(*plan, tab, done.quilt);
  ASSERT_TRUE(outcome);
  done.quilt = outcome->quilt;
}

Done everyKindOfStep() {
  Done done;
  IdSource ids(5);
  const std::vector<CellChange> paint = {{{1, 2}, tileOf(done.quilt, "rails", 3)}};
  done.step("Brush on Sheds", layCells(done.quilt, layerOf(done.quilt, "Yard", "Sheds"), paint));
  LayerCells lifted = *done.quilt.layer(layerOf(done.quilt, "Yard", "Sheds"));
  lifted.lay(CellPos{3, 3}, tileOf(done.quilt, "street", 4), 12);
  done.step("Lift on Sheds", done.quilt.with(layerOf(done.quilt, "Yard", "Sheds"), lifted));
  done.step("Add Roofs", addMap(done.quilt, {"Roofs", done.quilt.mapNamed("Yard")->grid, 6, 5}, ids).quilt);
  done.step("Rename Paving", renameLayer(done.quilt, layerOf(done.quilt, "Yard", "Paving"), "Ground"));
  done.step("Delete Loft", done.quilt.without<Map>(done.quilt.mapNamed("Loft")->id));
  Map yard = *done.quilt.mapNamed("Yard");
  yard.layers.pop_back();
  done.step("Delete Awnings", done.quilt.with(yard));
  Stamp stamp;
  stamp.id = ids.next();
  stamp.name = "Corner";
  stamp.file = "corner";
  stamp.held = Block::of(tileOf(done.quilt, "rails", 3));
  done.step("Keep Corner", done.quilt.with(stamp));
  done.step("Drop Corner", done.quilt.without<Stamp>(stamp.id));
  Sheet sheet = done.quilt.sheets().front().read();
  sheet.name = "lanes";
  sheet.source = PictureBytes(std::string("not quite a picture"));
  done.step("Another picture", done.quilt.with(sheet));
  done.step("Take the sheet away", done.quilt.without<Sheet>(sheet.id));
  QuiltFacts facts = done.quilt.facts();
  facts.name = "Tallow Lanes";
  done.step("Rename the quilt", done.quilt.with(facts));
  return done;
}

}  // namespace

TEST(KeptSteps, OfEveryKindLeadBackStepByStep) {
  const Done done = everyKindOfStep();
  ASSERT_EQ(done.before.size(), 11u);
  expectTheWayBack(done, {textOf(done)});
}

RC_GTEST_PROP(KeptSteps, AnyStepsLeadBackStepByStep, ()) {
  Done done;
  const int count = *rc::gen::inRange(1, 12);
  const int part = *rc::gen::inRange(0, count);
  // Kept in two goes, as happens while somebody paints, with any of them packed before.
  std::vector<std::string> texts;
  std::vector<std::uint64_t> known;
  for (int n = 0; n <= count; ++n) {
    if (n == part || n == count) {
      packAllBut(*rc::gen::inRange<std::size_t>(0, 12), done.line);
      const LineToKeep keep = lineToKeep(done.line, known);
      texts.push_back(stepsText(keep, done.quilt));
      known = keep.ids;
    }
    if (n < count) done.step("Step " + std::to_string(n), *editOf(done.quilt));
  }
  if (!done.before.empty()) expectTheWayBack(done, texts);
}

TEST(KeptSteps, BeyondTheFreshOnesComeBackPacked) {
  Done done;
  for (int n = 0; n < 200; ++n) {
    const std::vector<CellChange> paint = {{{n % 7, n % 3}, tileOf(done.quilt, "rails", static_cast<std::uint32_t>(n % 5))}};
    done.step("Brush " + std::to_string(n), layCells(done.quilt, layerOf(done.quilt, "Yard", "Sheds"), paint));
  }
  packAllBut(kFreshSteps, done.line);
  expectTheWayBack(done, {textOf(done)});
  Quilt now = readAnew(done.quilt);
  UndoLine line;
  line.comeBack(readSteps({textOf(done)}, lineToKeep(done.line, {}).ids, now).steps);
  EXPECT_FALSE(line.toPack());
  EXPECT_NE(line.steps().front().changes.front().packed, nullptr);
  EXPECT_EQ(line.steps().back().changes.front().packed, nullptr);
}

// Undo, undo, crash: what was taken back is laid back, tab by tab, as it would have been.
TEST(KeptSteps, ThatWereTakenBackAreLaidBack) {
  Done done;
  const Id yard = done.quilt.mapNamed("Yard")->id;
  const Id loft = done.quilt.mapNamed("Loft")->id;
  for (const Id tab : {yard, loft, yard, yard}) {
    Map map = *done.quilt.map(tab);
    map.bounds.x1 += 1;
    map.layers.front().edit([](Layer& layer) { layer.name += "!"; });
    done.line.begin("Change " + map.name, tab, done.quilt, {});
    ASSERT_TRUE(done.line.commit(done.quilt.with(map), {}));
    done.quilt = done.quilt.with(map);
  }
  std::vector<std::string> forth{bytes(done.quilt)};
  std::vector<Id> tabs;
  std::vector<std::string> texts;
  std::vector<std::uint64_t> known;
  // Kept after each; the second time what is in force is known, and what was taken back in between is new.
  for (const Id tab : {yard, loft, yard}) {
    takeBackNewest(done, tab);
    tabs.push_back(tab);
    forth.push_back(bytes(done.quilt));
    const LineToKeep keep = lineToKeep(done.line, known);
    texts.push_back(stepsText(keep, done.quilt));
    known = keep.ids;
    std::sort(known.begin(), known.end());
  }
  const LineToKeep keep = lineToKeep(done.line, known);
  EXPECT_THAT(keep.fresh, testing::IsEmpty());
  Quilt now = readAnew(done.quilt);
  StepsRead read = readSteps(texts, keep.ids, now);
  ASSERT_TRUE(read.whole);
  UndoLine line;
  line.comeBack(std::move(read.steps), std::move(read.takenBack));
  for (std::size_t i = tabs.size(); i-- > 0;) {
    const auto plan = line.planForth(tabs[i], now);
    ASSERT_TRUE(plan) << i;
    auto outcome = line.layBack(*plan, now);
    ASSERT_TRUE(outcome);
    now = outcome->quilt;
    EXPECT_EQ(bytes(now), forth[i]) << i;
  }
  EXPECT_EQ(line.steps().size(), 4u);
  EXPECT_THAT(line.takenBack(), testing::IsEmpty());
  // What was laid back is no longer in the order of its numbers, and comes back all the same.
  const LineToKeep again = lineToKeep(line, {});
  Quilt once = readAnew(now);
  EXPECT_TRUE(readSteps({stepsText(again, now)}, again.ids, once).whole);
}

TEST(KeptSteps, ThatAreDamagedOrMissingOnlyShortenTheWay) {
  const Done done = everyKindOfStep();
  const LineToKeep keep = lineToKeep(done.line, {});
  std::vector<std::string> texts;
  for (const std::uint64_t id : keep.fresh) {
    LineToKeep one = keep;
    one.fresh = {id};
    texts.push_back(stepsText(one, done.quilt));
  }
  texts[4][texts[4].size() / 2] ^= 0x20;
  Quilt now = readAnew(done.quilt);
  StepsRead read = readSteps(texts, keep.ids, now);
  EXPECT_FALSE(read.whole);
  ASSERT_EQ(read.steps.size(), 6u);
  EXPECT_EQ(read.steps.front().name, "Delete Awnings");
  texts.pop_back();
  EXPECT_THAT(readSteps(texts, keep.ids, now).steps, testing::IsEmpty());
}

TEST(KeptSteps, AreWrittenOnce) {
  const Done done = everyKindOfStep();
  const LineToKeep all = lineToKeep(done.line, {});
  const LineToKeep rest = lineToKeep(done.line, {all.ids.begin(), all.ids.end() - 2});
  EXPECT_EQ(rest.ids, all.ids);
  EXPECT_EQ(rest.fresh.size(), 2u);
  EXPECT_EQ(rest.steps.size(), 2u);
}

RC_GTEST_PROP(KeptSteps, AnyBytesAreReadOrLeftOut, ()) {
  static const Done done = everyKindOfStep();
  static const std::string text = textOf(done);
  std::string changed = text;
  const auto at = *rc::gen::inRange<std::size_t>(0, changed.size());
  changed[at] = *rc::gen::arbitrary<char>();
  Quilt now = done.quilt;
  const StepsRead read = readSteps({changed}, lineToKeep(done.line, {}).ids, now);
  RC_ASSERT(!read.whole || unsqueezed(changed, text.size() * 100) == unsqueezed(text, text.size() * 100));
}

}  // namespace uq::test
