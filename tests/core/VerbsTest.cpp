// What a person can do with a quilt, without a window: verbs, what they tell, and what they refuse.
#include "core/work/Verbs.h"

#include <gmock/gmock.h>

#include "core/Support.h"
#include "core/edit/ArrangeStamps.h"
#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"
#include "core/work/EditList.h"

namespace uq::test {
namespace {

using testing::Contains;
using testing::ElementsAre;
using testing::HasSubstr;
using testing::IsEmpty;

class Heard : public Work::Listener {
 public:
  void quiltChanged(const QuiltChange& change) override {
    ++quilts;
    quilt = change;
  }
  void deskChanged(const DeskChange& change) override {
    ++desks;
    deskChange = change;
  }
  void gestureMoved() override { ++moves; }
  void gestureEnded() override { ++gestures; }
  void refused(const std::string& why) override { refusals.push_back(why); }
  void failed(const Error& error) override { failures.push_back(error.reason); }
  void asksFarther(const std::string& question) override { questions.push_back(question); }

  QuiltChange quilt;  // the last one
  DeskChange deskChange;
  int quilts = 0;
  int desks = 0;
  int moves = 0;
  int gestures = 0;
  std::vector<std::string> refusals;
  std::vector<std::string> failures;
  std::vector<std::string> questions;
};

class VerbsOn : public testing::Test {
 protected:
  VerbsOn() {
    Desk desk;
    desk.map = at("Sheds").map;
    desk.openMaps = {desk.map, layerOf(start, "Loft", "Floor").map};
    desk.activeLayer[desk.map] = at("Sheds").layer;
    work.emplace(start, desk, [this](Id map) { return map == damaged ? &damage : nullptr; }, TileLooks{}, IdSource(7));
    work->tell(heard);
    verbs.emplace(*work);
    verbs->hand.take(Block::of(tile(3)));
    verbs->layers.choose(at("Sheds").layer);
  }
  LayerAt at(const char* layer) const { return layerOf(start, "Yard", layer); }
  Cell tile(std::uint32_t number) const { return tileOf(start, "street", number); }
  Cell lies(CellPos cell, const char* layer = "Sheds") const { return work->quilt().layer(at(layer))->cells.at(cell); }
  void desk(const std::function<void(Desk&)>& change) {
    Desk now = work->desk();
    change(now);
    work->setDesk(std::move(now));
  }
  void stroke(std::vector<CellPos> path) {
    verbs->strokes.begin({.path = {path.front()}});
    for (const CellPos cell : path) verbs->strokes.moveTo(cell);
    (void)work->finish();
  }
  std::vector<std::string> steps() const {
    std::vector<std::string> names;
    for (const Step& step : work->undoLine().steps()) names.push_back(step.name);
    return names;
  }

  Quilt start = smallQuilt();
  Id damaged;
  Error damage{Error::Cause::broken, "it is cut off", "maps/yard/paving.cells", 3, {}, {}};
  Heard heard;
  std::optional<Work> work;
  std::optional<Verbs> verbs;
};

TEST_F(VerbsOn, AStrokeIsAStepThatItsListRepeats) {
  stroke({{1, 1}, {4, 1}});
  EXPECT_EQ(lies({3, 1}), tile(3));
  EXPECT_THAT(steps(), ElementsAre("Brush on Sheds"));
  EXPECT_EQ(heard.gestures, 1);
  EXPECT_EQ(work->lastPoint(), (CellPos{4, 1}));
  const auto repeated = verbs->strokes.last();
  ASSERT_TRUE(repeated);
  const auto done = doEdits(repeated->before, repeated->list, {}, {});
  ASSERT_TRUE(done) << done.error().text();
  EXPECT_EQ(bytes(done->quilt), bytes(work->quilt()));
  work->undo();
  EXPECT_EQ(work->quilt(), start);
  EXPECT_FALSE(verbs->strokes.last()) << "it is as it was left, or forgotten";
  work->redo();
  EXPECT_TRUE(verbs->strokes.last());
}

TEST_F(VerbsOn, WhatIsTriedOutIsWhatIsMade) {
  desk([](Desk& now) { now.tool = Tool::box; });
  verbs->hand.gather(Block::of(tile(5)));
  verbs->hand.gather(Block::of(tile(6)));
  desk([](Desk& now) { now.tool = Tool::box; });
  const Strokes::Ask ask{.path = {{0, 0}, {9, 6}}};
  const Quilt foretold = verbs->strokes.tryOut(ask).quilt();
  EXPECT_EQ(work->quilt(), start);
  verbs->strokes.begin(ask);
  (void)work->finish();
  EXPECT_EQ(work->quilt(), foretold);
}

// What a move changes is said as what it is: nobody lays out the Table anew for it.
TEST_F(VerbsOn, AMoveOfAStrokeTellsOfCellsOnly) {
  heard = {};
  verbs->strokes.begin({.path = {{0, 0}}});
  EXPECT_EQ(heard.quilts, 1);
  for (int x = 1; x <= 9; ++x) verbs->strokes.moveTo({x, 0});
  EXPECT_EQ(heard.moves, 9);
  EXPECT_EQ(heard.quilts, 1);
  EXPECT_EQ(heard.desks, 0);
  (void)work->finish();
  EXPECT_EQ(heard.quilts, 2);
  EXPECT_EQ(heard.gestures, 1);
  EXPECT_THAT(heard.quilt.painted, ElementsAre(at("Sheds").layer)) << "all that came since the press";
  EXPECT_TRUE(heard.quilt.steps);
  EXPECT_FALSE(heard.quilt.any<Sheet>() || heard.quilt.facts);
}

TEST_F(VerbsOn, AStepTellsOfWhatItChangedAndNothingTwice) {
  heard = {};
  desk([](Desk& now) { now.gridLines = !now.gridLines; });
  EXPECT_EQ(heard.deskChange, (DeskChange{.sight = true}));
  EXPECT_EQ(heard.quilts, 0);
  desk([](Desk&) {});
  EXPECT_EQ(heard.desks, 1) << "nothing changed";
  verbs->selection.selectAll();
  EXPECT_EQ(heard.deskChange, (DeskChange{.tool = true, .selection = true}));
}

TEST_F(VerbsOn, ChanceIsThrownAgainWhileNothingElseWasDone) {
  EXPECT_THAT(verbs->strokes.whyNoThrow(), HasSubstr("Nothing was just laid"));
  stroke({{0, 0}});
  EXPECT_THAT(verbs->strokes.whyNoThrow(), HasSubstr("Chance decided nothing"));
  for (const std::uint32_t number : {4u, 5u, 6u}) verbs->hand.gather(Block::of(tile(number)));
  desk([](Desk& now) { now.tool = Tool::box; });
  verbs->strokes.begin({.path = {{0, 0}, {9, 6}}});
  (void)work->finish();
  const Quilt first = work->quilt();
  EXPECT_EQ(verbs->strokes.whyNoThrow(), "");
  verbs->strokes.throwAgain();
  const Quilt second = work->quilt();
  EXPECT_NE(second, first);
  verbs->strokes.throwAgain();
  EXPECT_NE(work->quilt(), second);
  EXPECT_EQ(steps().size(), 4u);
  work->undo();
  work->undo();
  EXPECT_EQ(work->quilt(), first);
  verbs->layers.rename(at("Sheds").layer, "Depot");
  verbs->strokes.throwAgain();
  EXPECT_THAT(heard.refusals.back(), HasSubstr("Nothing was just laid"));
}

TEST_F(VerbsOn, EscDropsTheNearestThing) {
  const Desk before = work->desk();
  verbs->hand.paste(InHand(Block::of(tile(9)), GridKind::orthogonal));
  verbs->hand.awaitPartner(1);
  desk([](Desk& now) { now.select(CellSet(CellRect{0, 0, 2, 2})); });
  verbs->strokes.begin({.path = {{0, 0}}});
  ASSERT_TRUE(verbs->strokes.underWay());
  verbs->hand.dropWork();
  EXPECT_FALSE(verbs->strokes.underWay());
  EXPECT_EQ(work->quilt(), start);
  EXPECT_TRUE(verbs->hand.awaitedPartner());
  verbs->hand.dropWork();
  EXPECT_FALSE(verbs->hand.awaitedPartner());
  EXPECT_TRUE(verbs->hand.holdsPaste());
  verbs->hand.dropWork();
  EXPECT_EQ(work->desk().inHand, before.inHand);
  EXPECT_FALSE(work->desk().selection().empty());
  verbs->hand.dropWork();
  EXPECT_TRUE(work->desk().selection().empty());
  EXPECT_NE(work->desk().tool, Tool::select);
  // With nothing to drop, the first one only says what the second will do; a stroke between them begins anew.
  verbs->hand.dropWork();
  EXPECT_NE(work->desk().tool, Tool::select);
  verbs->strokes.begin({.path = {{0, 0}}});
  verbs->hand.dropWork();
  verbs->hand.dropWork();
  EXPECT_NE(work->desk().tool, Tool::select);
  verbs->hand.dropWork();
  EXPECT_EQ(work->desk().tool, Tool::select);
  EXPECT_THAT(steps(), IsEmpty());
}

TEST_F(VerbsOn, APasteFreesItselfAndStrokesBringNoSelectionBack) {
  const CellSet some(CellRect{0, 0, 2, 2});
  desk([&](Desk& now) { now.select(some); });
  verbs->hand.paste(InHand(Block::of(tile(9)), GridKind::orthogonal));
  EXPECT_TRUE(work->desk().selection().empty()) << "it can be laid anywhere";
  // A stroke inside a selection, which is dropped afterwards: undo and redo leave that as it is.
  desk([&](Desk& now) { now.select(some); });
  stroke({{0, 0}});
  desk([&](Desk& now) { now.select({}); });
  work->undo();
  EXPECT_TRUE(work->desk().selection().empty());
  work->redo();
  EXPECT_TRUE(work->desk().selection().empty());
  // What was done to a selection brings it back.
  desk([&](Desk& now) { now.select(some); });
  verbs->selection.remove();
  desk([&](Desk& now) { now.select({}); });
  work->undo();
  EXPECT_EQ(work->desk().selection(), some);
}

TEST_F(VerbsOn, WhatIsSelectedIsKeptOverAllLayersThatAreSeen) {
  stroke({{1, 1}});  // on Sheds, over the paving
  const InHand before = work->desk().inHand;
  desk([](Desk& now) {
    now.tool = Tool::select;
    now.select(CellSet(CellRect{1, 1, 2, 2}));
  });
  verbs->stamps.keep();
  ASSERT_EQ(work->quilt().stamps().size(), 1u);
  const InHand kept = work->quilt().stamps().front()->held;
  EXPECT_EQ(kept.others.size(), 1u) << "both layers";
  EXPECT_EQ(work->desk().inHand, before);
  EXPECT_EQ(work->desk().tool, Tool::select);
  // Of hidden layers nothing.
  desk([this](Desk& now) { now.hidden.insert(at("Paving").layer); });
  verbs->stamps.keep();
  EXPECT_TRUE(work->quilt().stamps().back()->held.others.empty());
  // Taken, it may be laid anywhere.
  desk([](Desk& now) { now.hidden.clear(); });
  verbs->hand.takeSelected();
  EXPECT_EQ(work->desk().inHand.others.size(), 1u);
  EXPECT_TRUE(work->desk().selection().empty());
  EXPECT_EQ(work->desk().tool, Tool::brush);
}

TEST_F(VerbsOn, AHeldBarIsOneStepAndLeavesOthersAlone) {
  const auto moved = [this](int hundredths) {
    verbs->layers.change("Parallax", [hundredths](const Quilt& quilt, LayerAt layer) {
      return withParallax(quilt, layer, {hundredths, hundredths});
    });
  };
  verbs->bar.take("Parallax");
  for (const int value : {90, 60, 40}) moved(value);
  EXPECT_EQ(work->quilt().layer(at("Sheds"))->parallax.across, 40);
  verbs->bar.leave();
  EXPECT_THAT(steps(), ElementsAre("Parallax on Sheds"));
  // What ends the gesture ends what the bar does, until the hand lets go.
  verbs->bar.take("Parallax");
  moved(30);
  verbs->hand.dropWork();
  moved(20);
  EXPECT_EQ(work->quilt().layer(at("Sheds"))->parallax.across, 40);
  verbs->bar.leave();
  moved(10);
  EXPECT_EQ(work->quilt().layer(at("Sheds"))->parallax.across, 10);
  // A bar that could not begin ends no stroke.
  verbs->strokes.begin({.path = {{0, 0}}});
  verbs->bar.take("Parallax");
  moved(5);
  verbs->bar.leave();
  EXPECT_TRUE(verbs->strokes.underWay());
  (void)work->finish();
  EXPECT_EQ(work->quilt().layer(at("Sheds"))->parallax.across, 10);
  EXPECT_EQ(lies({0, 0}), tile(3));
  // One whose card is gone holds nothing up.
  verbs->bar.take("Parallax");
  verbs->hand.dropWork();
  stroke({{2, 2}});
  moved(7);
  EXPECT_EQ(work->quilt().layer(at("Sheds"))->parallax.across, 7);
}

TEST_F(VerbsOn, SelectedCellsAreMovedTurnedAndCutInOneStepEach) {
  stroke({{0, 0}, {1, 0}});
  desk([](Desk& now) { now.select(CellSet(CellRect{0, 0, 2, 1})); });
  verbs->selection.beginMove();
  for (const int by : {1, 2, 3}) verbs->selection.moveBy({by, 0});
  (void)work->finish();
  EXPECT_EQ(lies({4, 0}), tile(3));
  EXPECT_TRUE(lies({0, 0}).empty());
  verbs->selection.nudge({0, 1});
  EXPECT_EQ(lies({4, 1}), tile(3));
  const auto copy = verbs->selection.copied();
  ASSERT_TRUE(copy);
  verbs->selection.cut();
  EXPECT_TRUE(lies({4, 1}).empty());
  EXPECT_FALSE(verbs->selection.copied());
  EXPECT_THAT(heard.refusals.back(), HasSubstr("Nothing is painted there"));
  verbs->hand.paste(*copy);
  desk([](Desk& now) { now.select(CellSet(CellRect{4, 1, 6, 2})); });
  verbs->selection.toLayer(1);
  EXPECT_EQ(work->desk().activeAt(), at("Awnings"));
  EXPECT_THAT(steps(), ElementsAre("Brush on Sheds", "Move on Sheds", "Move on Sheds", "Cut on Sheds"))
      << "nothing lay there to go along";
  desk([this](Desk& now) { now.locked.insert(at("Awnings").layer); });
  verbs->selection.fill();
  EXPECT_THAT(heard.refusals.back(), HasSubstr("locked"));
}

TEST_F(VerbsOn, ADamagedMapTakesNothingAndSaysWhy) {
  damaged = at("Sheds").map;
  stroke({{0, 0}});
  EXPECT_EQ(work->quilt(), start);
  EXPECT_EQ(whyNoStroke(*work, false), "This map cannot be changed: paving.cells is damaged");
  verbs->bar.take("Parallax");
  EXPECT_THAT(heard.failures, Contains(HasSubstr("cut off")));
  verbs->bar.leave();
  desk([](Desk& now) { now.select(CellSet(CellRect{0, 0, 2, 1})); });
  verbs->selection.remove();
  EXPECT_THAT(heard.refusals.back(), HasSubstr("damaged"));
  EXPECT_EQ(work->quilt(), start);
}

TEST_F(VerbsOn, MapsComeGoAndComeBackWithTheirTabs) {
  const Id yard = work->desk().map;
  const Id loft = layerOf(start, "Loft", "Floor").map;
  verbs->maps.duplicate();
  const Id copy = work->desk().map;
  EXPECT_NE(copy, yard);
  EXPECT_THAT(work->desk().openMaps, Contains(copy));
  verbs->maps.remove(copy);
  EXPECT_FALSE(work->quilt().map(copy));
  EXPECT_NE(work->desk().map, copy);
  work->undo();
  EXPECT_EQ(work->desk().map, copy);
  verbs->maps.goTo(loft);
  verbs->maps.closeTab(loft);
  EXPECT_NE(work->desk().map, loft);
  EXPECT_TRUE(work->quilt().map(loft));
}

TEST_F(VerbsOn, UndoAsksOnceWhereItReachesFarther) {
  verbs->stamps.keep();
  const Id stamp = work->quilt().stamps().front()->id;
  verbs->maps.goTo(layerOf(start, "Loft", "Floor").map);
  verbs->stamps.rename(stamp, "corner");
  verbs->maps.goTo(at("Sheds").map);
  work->undo();
  ASSERT_EQ(heard.questions.size(), 1u);
  EXPECT_THAT(heard.questions.back(), testing::AllOf(HasSubstr("“Rename"), HasSubstr("Undo again to do it")));
  EXPECT_TRUE(work->quilt().stamp(stamp)) << "nothing yet";
  work->undo();
  EXPECT_FALSE(work->quilt().stamp(stamp));
  work->redo();
  if (heard.questions.size() > 1) work->redo();
  EXPECT_EQ(work->quilt().stamp(stamp)->name, "corner");
  work->returnTo(0);
  EXPECT_EQ(bytes(work->quilt()), bytes(start));
}

TEST_F(VerbsOn, FoldersHoldTheChosenLayersAndGoWithoutThem) {
  verbs->layers.alsoChoose(at("Awnings").layer);
  verbs->folders.put();
  ASSERT_TRUE(verbs->folders.here());
  expectWhole(*work->map());
  const Id folder = verbs->folders.here()->id;
  verbs->folders.setRise(32);
  EXPECT_EQ(work->map()->layerFolder(folder)->rise, 32);
  verbs->folders.toggleEye(folder);
  EXPECT_TRUE(work->desk().hidden.contains(at("Awnings").layer));
  verbs->folders.toggleEye(folder);
  EXPECT_FALSE(work->desk().hidden.contains(at("Awnings").layer));
  verbs->folders.unfold();
  EXPECT_FALSE(work->map()->layerFolder(folder));
  EXPECT_EQ(work->map()->layers.size(), start.map(at("Sheds").map)->layers.size());
}

TEST_F(VerbsOn, StampsAreKeptCorrectedAndTakenWhole) {
  verbs->stamps.keep();
  ASSERT_EQ(work->quilt().stamps().size(), 1u);
  const Id stamp = work->quilt().stamps().front()->id;
  EXPECT_EQ(work->desk().inHand.stamp, stamp);
  verbs->stamps.keep();
  EXPECT_THAT(heard.refusals.back(), HasSubstr("is kept already"));
  verbs->stamps.rename(stamp, "corner");
  EXPECT_EQ(work->quilt().stamp(stamp)->name, "corner");
  verbs->hand.gather(Block::of(tile(8)));
  verbs->stamps.correct(stamp);
  EXPECT_EQ(work->quilt().stamp(stamp)->held, work->desk().inHand);
  verbs->stamps.remove(stamp);
  EXPECT_THAT(work->quilt().stamps(), IsEmpty());
}

}  // namespace
}  // namespace uq::test
