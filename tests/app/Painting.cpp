// The hands on map and Table: every mouse button and key of the first slice.
#include <QToolButton>
#include <QApplication>
#include <QLabel>
#include <QListWidget>
#include <QMenu>
#include <QMenuBar>
#include <QTest>
#include <set>
#include <utility>

#include "app/Story.h"

namespace uq::test {

class Painting : public Story {
 protected:
  void SetUp() override { openDemo(); }
  void takeLid() { hand.click(room->table(), onTable("street", 24)); }
  Cell lid() { return Cell(tile("street", 24), {}); }
  std::string active() { return session().quilt().layer(session().desk().activeAt())->name; }
  std::string tag() { return room->canvas()->tagText().toStdString(); }
};

TEST_F(Painting, AClickInTheListGoesBackToAStep) {
  EXPECT_FALSE(room->actions()->action(ActionId::listSteps)->isEnabled());
  takeLid();
  std::vector<Quilt> after{session().quilt()};
  for (int i = 0; i < 4; ++i) {
    hand.click(room->canvas(), onMap({20 + i, 20}));
    after.push_back(session().quilt());
  }
  Story::choose(ActionId::listSteps);
  auto* list = room->findChild<QListWidget*>(QStringLiteral("step-list"));
  ASSERT_TRUE(list->isVisible());
  ASSERT_EQ(list->count(), 5);
  EXPECT_EQ(list->item(0)->text(), QStringLiteral("Brush on Paving — Depot Yard"));
  picture("steps", list);
  QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(list->item(2)).center());
  EXPECT_FALSE(list->isVisible());
  EXPECT_EQ(session().quilt(), after[2]);
  settle();
  // One redo lays the whole group back.
  Story::choose(ActionId::redo);
  EXPECT_EQ(session().quilt(), after[4]);
  Story::choose(ActionId::listSteps);
  QTest::keyClick(list, Qt::Key_End);
  QTest::keyClick(list, Qt::Key_Return);
  EXPECT_EQ(session().quilt(), after[0]);
  EXPECT_TRUE(session().isSaved());
}

TEST_F(Painting, MoreStrokesThanAreKeptFreshAllComeBack) {
  hand.click(room->table(), onTable("street", 24));
  const Quilt before = session().quilt();
  for (int i = 0; i < 70; ++i) hand.click(room->canvas(), onMap({i % 48, 12 + i / 48}));
  const std::size_t steps = session().undoLine().steps().size();
  EXPECT_GT(steps, kFreshSteps);
  const Quilt after = session().quilt();
  for (std::size_t i = 0; i < steps; ++i) hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt(), before);
  EXPECT_TRUE(session().isSaved());
  for (std::size_t i = 0; i < steps; ++i) hand.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(session().quilt(), after);
}

TEST_F(Painting, EscDropsTheStrokeWithoutAMark) {
  takeLid();
  const Quilt before = session().quilt();
  hand.press(room->canvas(), onMap({20, 20}));
  hand.moveTo(room->canvas(), onMap({22, 20}));
  EXPECT_EQ(cellOn("Paving", {20, 20}), lid());
  hand.key(Qt::Key_Escape);
  EXPECT_EQ(session().quilt(), before);
  hand.moveTo(room->canvas(), onMap({24, 20}));
  hand.release(room->canvas(), onMap({24, 20}));
  EXPECT_EQ(session().quilt(), before);
  EXPECT_TRUE(session().undoLine().steps().empty());
  EXPECT_TRUE(session().isSaved());
}

TEST_F(Painting, ARightClickTakesTheTopmostTileAndGoesToItsLayer) {
  // The shed's roof covers paving there.
  hand.click(room->canvas(), onMap({5, 3}), Qt::RightButton);
  EXPECT_EQ(active(), "Sheds & trams");
  EXPECT_EQ(session().desk().inHand.block, Block::of(cellOn("Sheds & trams", {5, 3})));
  hand.moveTo(room->canvas(), onMap({30, 20}));
  EXPECT_EQ(tag(), "Brush on Sheds & trams");
  hand.click(room->canvas(), onMap({30, 20}));
  EXPECT_EQ(cellOn("Sheds & trams", {30, 20}), cellOn("Sheds & trams", {5, 3}));
}

TEST_F(Painting, ARightClickAtTheSamePlaceGoesBehind) {
  const QPointF tram = onMap({26, 9});
  hand.click(room->canvas(), tram, Qt::RightButton);
  EXPECT_EQ(session().quilt().layer(session().desk().activeAt())->name, "Sheds & trams");
  hand.click(room->canvas(), tram, Qt::RightButton);
  EXPECT_EQ(session().quilt().layer(session().desk().activeAt())->name, "Paving");
  EXPECT_EQ(session().desk().inHand.block, Block::of(cellOn("Paving", {26, 9})));
  hand.click(room->canvas(), tram, Qt::RightButton);
  EXPECT_EQ(session().quilt().layer(session().desk().activeAt())->name, "Sheds & trams") << "round and round";
  hand.click(room->canvas(), onMap({26, 12}), Qt::RightButton);
  hand.click(room->canvas(), tram, Qt::RightButton);
  EXPECT_EQ(session().quilt().layer(session().desk().activeAt())->name, "Sheds & trams") << "elsewhere begins anew";
}

TEST_F(Painting, ARightClickOnNothingSaysSo) {
  for (const char* layer : {"Paving", "Rails", "Sheds & trams", "Awnings"}) {
    hand.click(room->stack()->card(yard().layerNamed(layer)->id)->findChild<QWidget*>(QStringLiteral("eye")));
  }
  hand.click(room->canvas(), onMap({5, 3}), Qt::RightButton);
  EXPECT_EQ(tag(), "Nothing to take here");
  EXPECT_TRUE(session().desk().inHand.empty());
  hand.moveTo(room->canvas(), onMap({7, 3}));
  EXPECT_EQ(tag(), "Paving is hidden: open its eye to paint");
}

TEST_F(Painting, ADragOverTheTableTakesABlockThatIsLaidSideBySide) {
  hand.drag(room->table(), {onTable("yard", 9), onTable("yard", 14 + 10), onTable("yard", 14 + 10)});
  EXPECT_EQ(session().desk().inHand.extent(), (CellRect{0, 0, 2, 2}));
  EXPECT_EQ(active(), "Sheds & trams") << "where things like that belong";
  hand.drag(room->canvas(), {onMap({20, 19}), onMap({23, 19})});
  EXPECT_EQ(cellOn("Sheds & trams", {20, 19}), Cell(tile("yard", 9), {}));
  EXPECT_EQ(cellOn("Sheds & trams", {22, 19}), Cell(tile("yard", 9), {}));
  EXPECT_EQ(cellOn("Sheds & trams", {23, 20}), Cell(tile("yard", 24), {}));
  EXPECT_EQ(session().undoLine().steps().size(), 1u);
}

TEST_F(Painting, QAndETurnAAndDMirrorAndShiftQStraightens) {
  takeLid();
  const auto held = [&] { return session().desk().inHand.parts().front().cell.turn(); };
  hand.key(Qt::Key_E);
  EXPECT_EQ(held(), (Turn{false, 1}));
  hand.key(Qt::Key_Q);
  hand.key(Qt::Key_Q);
  EXPECT_EQ(held(), (Turn{false, 3}));
  hand.key(Qt::Key_A);
  EXPECT_EQ(held(), (Turn{true, 1}));
  hand.key(Qt::Key_D);
  EXPECT_EQ(held(), (Turn{false, 1}));  // both mirrors are half a turn
  hand.key(Qt::Key_Q, Qt::ShiftModifier);
  EXPECT_EQ(held(), Turn{});
}

TEST_F(Painting, TheButtonsBesideTheHandDoTheSame) {
  takeLid();
  hand.click(room->findChild<QWidget*>(QStringLiteral("turn-right-button")));
  hand.click(room->findChild<QWidget*>(QStringLiteral("mirror-across-button")));
  EXPECT_EQ(session().desk().inHand.parts().front().cell.turn(), (Turn{true, 3}));
}

TEST_F(Painting, EraseTakesCellsAwayUntilATileIsTaken) {
  hand.click(room->canvas(), onMap({10, 20}));  // nothing in hand: nothing happens
  EXPECT_TRUE(session().undoLine().steps().empty());
  hand.key(Qt::Key_2);
  hand.drag(room->canvas(), {onMap({10, 20}), onMap({14, 20})});
  for (int x = 10; x <= 14; ++x) EXPECT_TRUE(cellOn("Paving", {x, 20}).empty()) << x;
  EXPECT_EQ(session().undoLine().steps().back().name, "Erase on Paving");
  takeLid();
  EXPECT_EQ(session().desk().tool, Tool::brush);
  hand.key(Qt::Key_2);
  hand.key(Qt::Key_1);
  EXPECT_EQ(session().desk().tool, Tool::brush);
}

TEST_F(Painting, TheTapeChoosesToolsWithTheMouseToo) {
  hand.click(room->findChild<QWidget*>(QStringLiteral("choose-erase-button")));
  EXPECT_EQ(session().desk().tool, Tool::erase);
  hand.click(room->findChild<QWidget*>(QStringLiteral("choose-brush-button")));
  EXPECT_EQ(session().desk().tool, Tool::brush);
}

TEST_F(Painting, WAndSChooseTheLayerAndACardDoesToo) {
  takeLid();
  hand.key(Qt::Key_W);
  EXPECT_EQ(active(), "Rails");
  hand.key(Qt::Key_S);
  hand.key(Qt::Key_S);
  EXPECT_EQ(active(), "Paving");
  LayerCard* awnings = room->stack()->card(yard().layerNamed("Awnings")->id);
  hand.click(awnings, QPointF(100, 20));
  EXPECT_EQ(active(), "Awnings");
  hand.click(room->canvas(), onMap({20, 20}));
  EXPECT_EQ(cellOn("Awnings", {20, 20}), lid());
}

TEST_F(Painting, ALockedOrHiddenLayerRefusesAtTheCursor) {
  takeLid();
  const Quilt before = session().quilt();
  LayerCard* paving = room->stack()->card(yard().layerNamed("Paving")->id);
  hand.click(paving->findChild<QWidget*>(QStringLiteral("lock")));
  hand.click(room->canvas(), onMap({20, 20}));
  EXPECT_EQ(tag(), "Paving is locked: open its lock to paint");
  EXPECT_EQ(session().quilt(), before);
  picture("refusal");
  hand.click(paving->findChild<QWidget*>(QStringLiteral("lock")));
  hand.click(paving->findChild<QWidget*>(QStringLiteral("eye")));
  hand.click(room->canvas(), onMap({20, 20}));
  EXPECT_EQ(tag(), "Paving is hidden: open its eye to paint");
  EXPECT_EQ(session().quilt(), before);
  EXPECT_TRUE(session().isSaved());  // eyes and locks are no part of the quilt
}

TEST_F(Painting, ThePointedTileIsNamedAndNumbered) {
  const auto* said = room->findChild<QLabel*>(QStringLiteral("pointed-tile"));
  // On a busy machine the window may still lose the pointer to the one of the story before.
  EXPECT_TRUE(waitFor([&] {
    hand.moveTo(room->table(), onTable("street", 24));
    return said->text() == QStringLiteral("setts, iron lid — street 24");
  })) << said->text().toStdString();
}

TEST_F(Painting, TheTableIsReachedByKeysAlone) {
  room->table()->setFocus();
  hand.key(Qt::Key_Down);  // the first tile, of Chalk
  hand.key(Qt::Key_Down);
  hand.key(Qt::Key_Down);  // over Chalk's last row to the next sheet
  hand.key(Qt::Key_Right);
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().desk().inHand.block, Block::of(Cell(tile("street", 1), {})));
  hand.key(Qt::Key_Down, Qt::ShiftModifier);
  hand.key(Qt::Key_Right, Qt::ShiftModifier);
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().desk().inHand.parts().size(), 4u);
}

TEST_F(Painting, TheTableZoomsAtThePointerAndPans) {
  TableView* table = room->table();
  const QPointF at = onTable("street", 24);
  const double before = table->zoom();
  hand.wheel(table, at, 1, Qt::ControlModifier);
  hand.wheel(table, at, 1, Qt::ControlModifier);
  EXPECT_GT(table->zoom(), before);
  EXPECT_TRUE(table->tileRect("street", 24).contains(at));
  const QRectF place = table->tileRect("street", 24);
  hand.drag(table, {at, at - QPointF(10, 12)}, Qt::MiddleButton);
  EXPECT_EQ(table->tileRect("street", 24), place.translated(-10, -12));
  EXPECT_TRUE(session().desk().inHand.empty());
  hand.wheel(table, at, -1);
  EXPECT_LT(table->tileRect("street", 24).top(), place.top() - 12);
}

TEST_F(Painting, AStrokeEndsAtTheMapsEdge) {
  takeLid();
  hand.key(Qt::Key_F);
  hand.drag(room->canvas(), {onMap({46, 20}), onMap({49, 20})});
  EXPECT_EQ(cellOn("Paving", {47, 20}), lid());
  EXPECT_TRUE(cellOn("Paving", {48, 20}).empty());
}

TEST_F(Painting, ZoomingKeepsTheCellUnderThePointer) {
  MapCanvas* canvas = room->canvas();
  const QPointF at = onMap({30, 12});
  for (int notches : {1, 1, 1, 1, -1, -1, 1, 1, 1}) {
    hand.wheel(canvas, at, notches, Qt::ControlModifier);
    EXPECT_EQ(canvas->cellAt(at), (CellPos{30, 12})) << canvas->zoom();
  }
  EXPECT_GT(canvas->zoom(), 1);
}

TEST_F(Painting, ZoomStaysBetweenAFifthAndThreeThousandTwoHundredPercent) {
  MapCanvas* canvas = room->canvas();
  for (int i = 0; i < 40; ++i) hand.key(Qt::Key_Minus, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(canvas->zoom(), 0.002);
  canvas->zoomBySteps(60);
  EXPECT_DOUBLE_EQ(canvas->zoom(), 32);
  hand.key(Qt::Key_0);
  EXPECT_DOUBLE_EQ(canvas->zoom(), 1);
  hand.key(Qt::Key_F);
  EXPECT_TRUE(QRectF(canvas->rect()).contains(canvas->cellRect({0, 0}).united(canvas->cellRect({47, 31}))));
}

TEST_F(Painting, TheMiddleButtonSpaceWheelAndArrowsMoveTheView) {
  MapCanvas* canvas = room->canvas();
  hand.key(Qt::Key_0);
  auto moved = [&, last = canvas->cellRect({0, 0}).topLeft()]() mutable {
    const QPointF now = canvas->cellRect({0, 0}).topLeft();
    return now - std::exchange(last, now);
  };
  hand.drag(canvas, {QPointF(300, 300), QPointF(260, 270)}, Qt::MiddleButton);
  EXPECT_EQ(moved(), QPointF(-40, -30));
  hand.wheel(canvas, QPointF(300, 300), -1);
  EXPECT_EQ(moved(), QPointF(0, -60));
  hand.wheel(canvas, QPointF(300, 300), -1, Qt::ShiftModifier);
  EXPECT_EQ(moved(), QPointF(-60, 0));
  hand.key(Qt::Key_Left);
  EXPECT_EQ(moved(), QPointF(32, 0));
  takeLid();
  canvas->setFocus();
  QTest::keyPress(canvas, Qt::Key_Space);
  hand.drag(canvas, {QPointF(300, 300), QPointF(310, 305)});
  QTest::keyRelease(canvas, Qt::Key_Space);
  EXPECT_EQ(moved(), QPointF(10, 5));
  EXPECT_TRUE(session().undoLine().steps().empty());
}

TEST_F(Painting, GridLinesGoOnAndOff) {
  hand.key(Qt::Key_0);
  hand.moveTo(room->table(), QPointF(2, 2));
  const QImage with = shown();
  hand.key(Qt::Key_G);
  const QImage without = shown();
  EXPECT_NE(with, without);
  hand.key(Qt::Key_G);
  EXPECT_EQ(shown(), with);
}

TEST_F(Painting, WhatAStrokeRedrawsEqualsAFreshPicture) {
  takeLid();
  hand.key(Qt::Key_0);
  hand.drag(room->canvas(), {onMap({20, 15}), onMap({26, 18}), onMap({22, 19})});
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  hand.drag(room->canvas(), {onMap({21, 15}), onMap({27, 18})}, Qt::LeftButton, Qt::ControlModifier);
  hand.moveTo(room->table(), QPointF(2, 2));
  const QImage repaired = shown();
  // Away and back: everything is drawn anew.
  hand.wheel(room->canvas(), QPointF(200, 200), -1);
  hand.wheel(room->canvas(), QPointF(200, 200), 1);
  hand.moveTo(room->table(), QPointF(2, 2));
  EXPECT_EQ(shown(), repaired);
}

TEST_F(Painting, TheFootLineSaysWhereAndHowLarge) {
  hand.moveTo(room->canvas(), onMap({9, 11}));
  EXPECT_EQ(room->findChild<QLabel*>(QStringLiteral("foot-place"))->text().toStdString(),
            "cell 9, 11 · px 288, 352");
  EXPECT_EQ(room->findChild<QToolButton*>(QStringLiteral("foot-size"))->text().toStdString(),
            "48 × 32 = 1536 × 1024 px = 3.4 × 3.6 screens");
  EXPECT_EQ(room->findChild<QLabel*>(QStringLiteral("foot-scale"))->text().toStdString(), "52 %");
  EXPECT_THAT(room->findChild<QLabel*>(QStringLiteral("foot-hands"))->text().toStdString(),
              testing::StartsWith("Left lays · right takes · Ctrl+left takes away"));
}

TEST_F(Painting, MenusShowKeysAndGreyEntriesSayWhy) {
  QMenuBar* bar = room->menuBar();
  hand.click(bar, bar->actionGeometry(bar->actions().at(1)).center());
  auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
  ASSERT_NE(menu, nullptr);
  picture("edit-menu", menu);
  EXPECT_TRUE(menu->actions().contains(room->actions()->action(ActionId::turnLeft)));
  EXPECT_FALSE(room->actions()->action(ActionId::turnLeft)->isEnabled());
  EXPECT_EQ(room->actions()->action(ActionId::turnLeft)->toolTip(),
            QStringLiteral("Nothing is in hand: take a tile from the Table"));
  menu->close();
  takeLid();
  EXPECT_TRUE(room->actions()->action(ActionId::turnLeft)->isEnabled());
}

TEST_F(Painting, ASmallWindowStillShowsEverything) {
  room->resize(1024, 700);
  settle();
  EXPECT_EQ(room->size(), QSize(1024, 700));
  EXPECT_GE(room->canvas()->width(), 440);
  EXPECT_TRUE(QRectF(room->canvas()->rect())
                  .contains(room->canvas()->cellRect({0, 0}).united(room->canvas()->cellRect({47, 31}))));
  takeLid();
  hand.moveTo(room->canvas(), onMap({47, 31}));
  picture("small-window");
}

TEST_F(Painting, TabReachesTableCanvasAndStack) {
  room->canvas()->setFocus();
  std::set<QString> reached;
  for (int i = 0; i < 80; ++i) {
    hand.key(Qt::Key_Tab);
    if (QWidget* now = QApplication::focusWidget()) reached.insert(now->objectName());
  }
  EXPECT_TRUE(reached.contains(QStringLiteral("table")));
  EXPECT_TRUE(reached.contains(QStringLiteral("canvas")));
  EXPECT_TRUE(reached.contains(QStringLiteral("choose-erase-button")));
  EXPECT_TRUE(reached.contains(QStringLiteral("eye")));
}

}  // namespace uq::test
