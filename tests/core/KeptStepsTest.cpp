// The way back is kept with the work and leads to the same quilts, step by step; what is damaged only shortens it.
#include "core/work/KeptSteps.h"

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
  ASSERT_EQ(keep.numbers.size(), done.before.size());
  Quilt now = readAnew(done.quilt);
  StepsRead read = readSteps(texts, keep.numbers, now);
  EXPECT_TRUE(read.whole);
  ASSERT_EQ(read.steps.size(), done.before.size());
  UndoLine line;
  line.comeBack(std::move(read.steps));
  for (std::size_t i = done.before.size(); i-- > 0;) {
    const UndoLine::Plan plan = line.planReturn(i == 0 ? 0 : keep.numbers[i - 1]);
    EXPECT_EQ(plan.names, std::vector<std::string>{done.line.steps()[i].name});
    auto outcome = line.takeBack(plan, {}, now);
    ASSERT_TRUE(outcome);
    now = outcome->quilt;
    ASSERT_EQ(bytes(now), done.before[i]) << "before step " << i;
  }
}

std::string textOf(const Done& done) { return stepsText(lineToKeep(done.line, {}).fresh, done.quilt); }

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
  for (int n = 0; n < count; ++n) done.step("Step " + std::to_string(n), *editOf(done.quilt));
  if (done.before.empty()) return;
  // Kept in two goes, as happens while somebody paints.
  const std::vector<Step> fresh = lineToKeep(done.line, {}).fresh;
  const auto part = static_cast<std::ptrdiff_t>(*rc::gen::inRange<std::size_t>(0, fresh.size() + 1));
  expectTheWayBack(done, {stepsText({fresh.begin(), fresh.begin() + part}, done.quilt),
                          stepsText({fresh.begin() + part, fresh.end()}, done.quilt)});
}

TEST(KeptSteps, ThatAreDamagedOrMissingOnlyShortenTheWay) {
  const Done done = everyKindOfStep();
  const LineToKeep keep = lineToKeep(done.line, {});
  std::vector<std::string> texts;
  for (const Step& step : keep.fresh) texts.push_back(stepsText({step}, done.quilt));
  texts[4][texts[4].size() / 2] ^= 0x20;
  Quilt now = readAnew(done.quilt);
  StepsRead read = readSteps(texts, keep.numbers, now);
  EXPECT_FALSE(read.whole);
  ASSERT_EQ(read.steps.size(), 6u);
  EXPECT_EQ(read.steps.front().name, "Delete Awnings");
  texts.pop_back();
  EXPECT_THAT(readSteps(texts, keep.numbers, now).steps, testing::IsEmpty());
}

TEST(KeptSteps, AreWrittenOnceAndEndWhereAValueIsNotAtHand) {
  Done done = everyKindOfStep();
  const LineToKeep all = lineToKeep(done.line, {});
  const LineToKeep rest = lineToKeep(done.line, {all.numbers.begin(), all.numbers.end() - 2});
  EXPECT_EQ(rest.numbers, all.numbers);
  EXPECT_EQ(rest.fresh.size(), 2u);
  while (auto packing = done.line.toPack(4, 0)) done.line.putPacked(UndoLine::pack(std::move(*packing), nullptr));
  const LineToKeep few = lineToKeep(done.line, {});
  EXPECT_LT(few.numbers.size(), all.numbers.size());
  EXPECT_EQ(few.numbers.back(), all.numbers.back());
  EXPECT_EQ(few.fresh.size(), few.numbers.size());
}

RC_GTEST_PROP(KeptSteps, AnyBytesAreReadOrLeftOut, ()) {
  static const Done done = everyKindOfStep();
  static const std::string text = textOf(done);
  std::string changed = text;
  const auto at = *rc::gen::inRange<std::size_t>(0, changed.size());
  changed[at] = *rc::gen::arbitrary<char>();
  Quilt now = done.quilt;
  const StepsRead read = readSteps({changed}, lineToKeep(done.line, {}).numbers, now);
  RC_ASSERT(!read.whole || unsqueezed(changed, text.size() * 100) == unsqueezed(text, text.size() * 100));
}

}  // namespace uq::test
