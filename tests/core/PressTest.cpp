// What a press means: by tool, buttons and keys, and by what lies under it.
#include "core/work/Press.h"

#include <gmock/gmock.h>

#include "core/Support.h"
#include "core/edit/LayerFacts.h"
#include "core/work/Verbs.h"

namespace uq::test {
namespace {

using Button = Press::Button;

class Pressing : public testing::Test {
 protected:
  Pressing() : work(smallQuilt(), usualDesk(), {}), verbs(work) { work.tell(listener); }
  static Desk usualDesk() {
    const Quilt quilt = smallQuilt();
    Desk desk;
    const LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
    desk.map = sheds.map;
    desk.activeLayer[desk.map] = sheds.layer;
    desk.hold(InHand(Block::of(tileOf(quilt, "street", 3)), GridKind::orthogonal));
    return desk;
  }
  void desk(const std::function<void(Desk&)>& change) {
    Desk now = work.desk();
    change(now);
    work.setDesk(std::move(now));
  }
  void choose(Tool tool) {
    desk([tool](Desk& now) { now.tool = tool; });
  }
  PressMeans means(Button button, bool ctrl = false, bool exchanged = false) {
    Press press;
    press.button = button;
    press.ctrl = ctrl;
    press.exchanged = exchanged;
    press.cell = cell;
    return meaningOf(work, press);
  }

  Work::Listener listener;
  Work work;
  Verbs verbs;
  std::optional<CellPos> cell = CellPos{1, 1};
};

TEST_F(Pressing, LeftLaysRightTakesAndCtrlTakesAway) {
  EXPECT_EQ(means(Button::left), PressMeans::lay);
  EXPECT_EQ(means(Button::right), PressMeans::take);
  EXPECT_EQ(means(Button::left, true), PressMeans::takeAway);
  choose(Tool::erase);
  EXPECT_EQ(means(Button::left), PressMeans::takeAway);
  EXPECT_EQ(means(Button::right), PressMeans::take);
}

TEST_F(Pressing, ExchangedButtonsAreTheOtherWayRound) {
  EXPECT_EQ(means(Button::left, false, true), PressMeans::lay);
  EXPECT_EQ(means(Button::right, false, true), PressMeans::takeAway);
  EXPECT_EQ(means(Button::left, true, true), PressMeans::take);
  choose(Tool::select);
  EXPECT_EQ(means(Button::right, false, true), PressMeans::nothing);
  EXPECT_EQ(means(Button::left, true, true), PressMeans::select);
}

TEST_F(Pressing, BesideTheMapOnlyTheViewAndTakingCount) {
  cell.reset();
  EXPECT_EQ(means(Button::left), PressMeans::nothing);
  EXPECT_EQ(means(Button::middle), PressMeans::look);
  EXPECT_EQ(means(Button::right), PressMeans::take) << "a drag from there reaches the map";
}

TEST_F(Pressing, SpaceHandlesAndTheScreenComeFirst) {
  Press press;
  press.cell = cell;
  press.onFrame = true;
  EXPECT_EQ(meaningOf(work, press), PressMeans::frame);
  press.onHandle = true;
  EXPECT_EQ(meaningOf(work, press), PressMeans::refit);
  press.space = true;
  EXPECT_EQ(meaningOf(work, press), PressMeans::look);
  press.button = Button::right;
  EXPECT_EQ(meaningOf(work, press), PressMeans::take);
}

TEST_F(Pressing, SelectMovesWhatIsSelectedAndSpansElse) {
  choose(Tool::select);
  EXPECT_EQ(means(Button::left), PressMeans::select);
  desk([](Desk& now) { now.select(CellSet({0, 0, 3, 3})); });
  EXPECT_EQ(means(Button::left), PressMeans::moveSelected);
  EXPECT_EQ(means(Button::left, true), PressMeans::select) << "with Ctrl less is selected";
  Press press;
  press.cell = CellPos{4, 4};
  EXPECT_EQ(meaningOf(work, press), PressMeans::select);
  press.ctrl = true;
  EXPECT_EQ(selectingBy(press), Selecting::less);
  press.shift = true;
  EXPECT_EQ(selectingBy(press), Selecting::more);
}

TEST_F(Pressing, ABackdropHangsUnlessItIsHiddenOrLocked) {
  const Quilt& quilt = work.quilt();
  verbs.layers.hangBackdrops({quilt.sheets().front()->id});
  ASSERT_TRUE(hangingLayer(work));
  EXPECT_EQ(means(Button::left), PressMeans::hang);
  cell.reset();
  EXPECT_EQ(means(Button::left), PressMeans::hang) << "it may hang beside the map";
  desk([](Desk& now) { now.locked.insert(now.activeAt().layer); });
  EXPECT_EQ(hangingLayer(work), nullptr);
  EXPECT_EQ(means(Button::left), PressMeans::nothing);
}

TEST_F(Pressing, AStrokeIsAskedForAsTheToolsGo) {
  const Strokes::Ask plain = verbs.strokes.askAt({1, 1}, false, false);
  EXPECT_THAT(plain.path, testing::ElementsAre(CellPos{1, 1}));
  verbs.strokes.begin(plain);
  ASSERT_TRUE(work.finish());
  EXPECT_THAT(verbs.strokes.askAt({4, 1}, false, true).path, testing::ElementsAre(CellPos{1, 1}, CellPos{4, 1}));
  choose(Tool::box);
  EXPECT_TRUE(verbs.strokes.askAt({4, 1}, false, true).even);
  choose(Tool::fill);
  EXPECT_TRUE(verbs.strokes.askAt({4, 1}, false, true).everywhere);
}

TEST_F(Pressing, ABoxOfTheKeyboardIsGoneOverByBrushAndDrawnByShapes) {
  const CellSet cells = verbs.selection.boxed({1, 1}, {3, 2});
  EXPECT_EQ(cells, CellSet({1, 1, 4, 3}));
  const Strokes::Ask brush = verbs.strokes.askOver(cells, {1, 1}, {3, 2}, false, false);
  EXPECT_THAT(brush.path,
              testing::ElementsAre(CellPos{1, 1}, CellPos{3, 1}, CellPos{3, 2}, CellPos{1, 2}));
  EXPECT_EQ(brush.within, cells);
  choose(Tool::box);
  EXPECT_THAT(verbs.strokes.askOver(cells, {1, 1}, {3, 2}, false, false).path,
              testing::ElementsAre(CellPos{1, 1}, CellPos{3, 2}));
}

TEST_F(Pressing, CellsComeToTheSelectionAndLeaveIt) {
  verbs.selection.select(CellSet({0, 0, 2, 1}), Selecting::anew);
  verbs.selection.select(CellSet({3, 0, 4, 1}), Selecting::more);
  verbs.selection.select(CellSet({0, 0, 1, 1}), Selecting::less);
  EXPECT_EQ(work.desk().selection(), CellSet({1, 0, 2, 1}).united(CellSet({3, 0, 4, 1})));
}

}  // namespace
}  // namespace uq::test
