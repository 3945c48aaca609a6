// The map's edges are taken with the hand: it grows and is cut, nothing moves, nothing is lost.
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QToolButton>

#include "app/Story.h"
#include "app/maps/SizeCard.h"
#include "core/edit/MapFacts.h"

namespace uq::test {

namespace {

std::int64_t paintedOn(const Map& map, CellRect cells) {
  PaintedCount count(map);
  return count.in(cells);
}

}  // namespace

class Resizing : public Story {
 protected:
  void SetUp() override {
    openDemo();
    seeAround();
    room->canvas()->setFocus();
  }
  // The map with room around it, into which its edges can be dragged.
  void seeAround() {
    hand.key(Qt::Key_F);
    room->canvas()->zoomBySteps(-2);
  }
  const Map& map() { return *session().map(); }
  // Right outside an edge of a map of squares, in the middle of it.
  QPointF beyond(Qt::Edge edge) {
    const CellRect bounds = map().bounds;
    const QRectF first = room->canvas()->cellRect({bounds.x0, bounds.y0});
    const QRectF last = room->canvas()->cellRect({bounds.x1 - 1, bounds.y1 - 1});
    const QPointF middle = first.united(last).center();
    switch (edge) {
      case Qt::LeftEdge: return {first.left() - 3, middle.y()};
      case Qt::RightEdge: return {last.right() + 3, middle.y()};
      case Qt::TopEdge: return {middle.x(), first.top() - 3};
      default: return {middle.x(), last.bottom() + 3};
    }
  }
  QPointF cells(double across, double down) {
    // Of many, since one is rounded to whole pixels.
    const QRectF many = room->canvas()->cellRect({0, 0}).united(room->canvas()->cellRect({19, 19}));
    return {across * many.width() / 20, down * many.height() / 20};
  }
  void dragEdge(Qt::Edge edge, QPointF by) { hand.drag(room->canvas(), {beyond(edge), beyond(edge) + by}); }
};

TEST_F(Resizing, OneRowMoreIsOneDrag) {
  const CellRect before = map().bounds;
  const QPointF there = onMap({20, 20});
  const int actions = hand.actions();
  hand.moveTo(room->canvas(), beyond(Qt::BottomEdge));
  EXPECT_EQ(room->canvas()->cursor().shape(), Qt::SizeVerCursor);
  dragEdge(Qt::BottomEdge, cells(0, 1));
  EXPECT_EQ(hand.actions() - actions, 1);
  EXPECT_EQ(map().bounds, moved(before, {0, 0, 0, 1}));
  EXPECT_EQ(onMap({20, 20}), there) << "nothing that stays moves";
  EXPECT_EQ(session().undoLine().steps().back().name, "Resize Depot Yard");
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(map().bounds, before);
  EXPECT_TRUE(session().isSaved());
}

TEST_F(Resizing, GrownByFiveAndShrunkByFiveNothingIsLost) {
  const Quilt before = session().quilt();
  const int actions = hand.actions();
  dragEdge(Qt::LeftEdge, cells(-5, 0));
  EXPECT_EQ(map().bounds.x0, -5);
  dragEdge(Qt::LeftEdge, cells(5, 0));
  EXPECT_EQ(hand.actions() - actions, 2);
  EXPECT_TRUE(session().quilt() == before);
}

TEST_F(Resizing, WhatIsCutIsCountedKeptAndComesBack) {
  const Quilt before = session().quilt();
  const CellRect all = map().bounds;
  const std::int64_t strip = paintedOn(map(), {all.x0, all.y0, all.x0 + 3, all.y1});
  ASSERT_GT(strip, 0);
  const QPointF from = beyond(Qt::LeftEdge);
  hand.press(room->canvas(), from);
  hand.moveTo(room->canvas(), from + cells(3, 0));
  EXPECT_THAT(room->canvas()->tagText().toStdString(),
              testing::HasSubstr("cuts " + std::to_string(strip) + " painted cells, kept in the seam allowance"));
  EXPECT_THAT(room->canvas()->tagText().toStdString(), testing::HasSubstr("45 × 32"));
  picture("resizing");
  hand.release(room->canvas(), from + cells(3, 0));
  EXPECT_EQ(map().bounds.x0, 3);
  EXPECT_EQ(allowanceCells(map()), strip);
  // No tool reaches it, and it is saved.
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  close();
  openDemo();
  EXPECT_EQ(allowanceCells(map()), strip);
  seeAround();
  dragEdge(Qt::LeftEdge, cells(-3, 0));
  EXPECT_EQ(map().bounds, all);
  EXPECT_EQ(paintedOn(map(), all), paintedOn(*before.map(map().id), all));
}

TEST_F(Resizing, WhatIsKeptOutsideIsShownWhileAnEdgeIsDraggedAndWhereOneWants) {
  const QPointF from = beyond(Qt::LeftEdge);
  const QPoint there = onMap({1, 16}).toPoint();
  hand.press(room->canvas(), from);
  hand.moveTo(room->canvas(), from + cells(4, 0));
  const QColor dragged = shown().pixelColor(there);
  hand.release(room->canvas(), from + cells(4, 0));
  const QColor hidden = shown().pixelColor(there);
  EXPECT_NE(dragged, hidden);
  choose(ActionId::showAllowance);
  EXPECT_NE(shown().pixelColor(there), hidden);
  EXPECT_TRUE(session().desk().showsAllowance);
  picture("allowance");
  choose(ActionId::showAllowance);
  EXPECT_EQ(shown().pixelColor(there), hidden);
}

TEST_F(Resizing, EscDropsAnEdgeAndAPressWithoutAMoveChangesNothing) {
  const Quilt before = session().quilt();
  hand.press(room->canvas(), beyond(Qt::RightEdge));
  hand.moveTo(room->canvas(), beyond(Qt::RightEdge) + cells(2, 0));
  EXPECT_FALSE(session().quilt() == before);
  hand.key(Qt::Key_Escape);
  EXPECT_TRUE(session().quilt() == before);
  hand.release(room->canvas(), beyond(Qt::RightEdge));
  hand.click(room->canvas(), beyond(Qt::RightEdge));
  EXPECT_TRUE(session().quilt() == before);
  EXPECT_TRUE(session().undoLine().steps().empty());
}

TEST_F(Resizing, NewRoomTakesTheGroundOnceThatIsChosen) {
  const QPointF from = beyond(Qt::RightEdge);
  hand.press(room->canvas(), from);
  hand.moveTo(room->canvas(), from + cells(2, 0));
  hand.key(Qt::Key_3);
  EXPECT_THAT(room->canvas()->tagText().toStdString(), testing::HasSubstr("new room: the ground again"));
  hand.release(room->canvas(), from + cells(2, 0));
  EXPECT_EQ(cellOn("Paving", {49, 12}), cellOn("Paving", {47, 12}));
  EXPECT_TRUE(cellOn("Sheds & trams", {49, 31}).empty());
  // Remembered: no action more.
  const int actions = hand.actions();
  dragEdge(Qt::RightEdge, cells(1, 0));
  EXPECT_EQ(hand.actions() - actions, 1);
  EXPECT_EQ(cellOn("Paving", {50, 12}), cellOn("Paving", {47, 12}));
  EXPECT_EQ(session().desk().tool, Tool::brush) << "the key was not a tool's";
}

TEST_F(Resizing, ADoubleClickOnAnEdgeCutsToWhatIsUsedOnThatSide) {
  dragEdge(Qt::RightEdge, cells(4, 0));
  dragEdge(Qt::BottomEdge, cells(0, 2));
  ASSERT_EQ(map().bounds, (CellRect{0, 0, 52, 34}));
  hand.doubleClick(room->canvas(), beyond(Qt::RightEdge));
  EXPECT_EQ(map().bounds, (CellRect{0, 0, 48, 34}));
  const int actions = hand.actions();
  hand.key(Qt::Key_U, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(hand.actions() - actions, 1);
  EXPECT_EQ(map().bounds, (CellRect{0, 0, 48, 32}));
}

TEST_F(Resizing, ShiftGoesByWholeScreensAndCtrlMovesTheOppositeEdgeToo) {
  const PixelSize screen = session().quilt().facts().screen;
  const QPointF from = beyond(Qt::RightEdge);
  hand.drag(room->canvas(), {from, from + cells(8, 0)}, Qt::LeftButton, Qt::ShiftModifier);
  EXPECT_EQ(map().bounds.width() * 32 % screen.w, 0);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  hand.drag(room->canvas(), {from, from + cells(2, 0)}, Qt::LeftButton, Qt::ControlModifier);
  EXPECT_EQ(map().bounds, (CellRect{-2, 0, 50, 32}));
}

TEST_F(Resizing, EveryGridIsResizedOnItsOwnSides) {
  for (const GridKind kind : kGridKinds) {
    MapPlan plan;
    plan.name = "Plot " + std::to_string(static_cast<int>(kind));
    plan.width = 12;
    plan.height = 10;
    plan.grid = nearestShape(kind, {64, 48});
    session().verbs().maps.add(plan);
    settle();
    seeAround();
    // Past the middle cell of the last column, along the columns.
    const QRectF last = room->canvas()->cellRect({11, 5});
    const QPointF step = room->canvas()->cellRect({5, 5}).center() - room->canvas()->cellRect({4, 5}).center();
    QPointF at = last.center();
    while (room->canvas()->cellAt(at).x <= 11) at += step / 20;
    at += step / 40;
    hand.drag(room->canvas(), {at, at + 2 * step});
    EXPECT_EQ(map().bounds, (CellRect{0, 0, 14, 10})) << plan.name;
    picture(("resized-" + std::to_string(static_cast<int>(kind))).c_str());
  }
}

TEST_F(Resizing, ASizeIsTypedInWordsAndShownBeforeEnter) {
  const int actions = hand.actions();
  hand.click(part<QToolButton>("foot-size"));
  hand.type(QStringLiteral("+5"));
  EXPECT_EQ(map().bounds, (CellRect{0, 0, 53, 32})) << "shown at once";
  EXPECT_THAT(part<QLabel>("size-told")->text().toStdString(), testing::HasSubstr("53 × 32"));
  EXPECT_TRUE(session().inGesture());
  picture("size-card");
  hand.key(Qt::Key_Return);
  EXPECT_EQ(hand.actions() - actions, 3);
  EXPECT_EQ(map().bounds, (CellRect{0, 0, 53, 32}));
  EXPECT_FALSE(part<QWidget>("size-card")->isVisible());
  EXPECT_TRUE(room->canvas()->hasFocus());
  EXPECT_EQ(session().undoLine().steps().size(), 1u);
}

TEST_F(Resizing, TheSidesAreChosenByArrowsAndWhatMeansNothingSaysWhy) {
  choose(ActionId::mapSize);
  hand.type(QStringLiteral("3 parsecs"));
  EXPECT_THAT(part<QLabel>("size-told")->text().toStdString(), testing::HasSubstr("“parsecs” is no unit"));
  EXPECT_FALSE(part<QPushButton>("size-make")->isEnabled());
  hand.key(Qt::Key_Return);
  EXPECT_TRUE(part<QWidget>("size-card")->isVisible()) << "nothing is done by it";
  part<QLineEdit>("size-across")->selectAll();
  hand.type(QStringLiteral("50"));
  part<SidePicture>("size-sides")->setFocus();
  hand.key(Qt::Key_Left);
  EXPECT_EQ(map().bounds, (CellRect{-1, 0, 49, 32}));
  hand.key(Qt::Key_Left);
  EXPECT_EQ(map().bounds, (CellRect{-2, 0, 48, 32}));
  // By the mouse as well: the lower right corner.
  hand.click(part<QWidget>("size-sides"), QPointF(90, 90));
  EXPECT_EQ(map().bounds, (CellRect{0, 0, 50, 32}));
  hand.key(Qt::Key_Escape);
  EXPECT_EQ(map().bounds, (CellRect{0, 0, 48, 32}));
  EXPECT_TRUE(session().undoLine().steps().empty());
  EXPECT_FALSE(session().inGesture());
}

TEST_F(Resizing, ASizeThatIsLeftOtherwiseIsNotDone) {
  choose(ActionId::mapSize);
  hand.type(QStringLiteral("60"));
  ASSERT_EQ(map().bounds.width(), 60);
  // By going elsewhere, as by the button.
  hand.click(room->canvas(), onMap({10, 10}));
  EXPECT_FALSE(part<QWidget>("size-card")->isVisible());
  EXPECT_EQ(map().bounds, (CellRect{0, 0, 48, 32}));
  choose(ActionId::mapSize);
  hand.type(QStringLiteral("60"));
  hand.click(part<QPushButton>("size-not-now"));
  EXPECT_EQ(map().bounds, (CellRect{0, 0, 48, 32}));
  EXPECT_FALSE(session().inGesture());
  EXPECT_TRUE(session().isSaved());
}

TEST_F(Resizing, AMapThatCannotBeChangedKeepsItsEdges) {
  const CellRect before = map().bounds;
  session().work().onlyLook(Error{Error::Cause::inUse, "mira has this quilt open", {}, 0, {}, {}});
  dragEdge(Qt::RightEdge, cells(3, 0));
  EXPECT_EQ(map().bounds, before);
  session().work().onlyLook({});
}

// A stroke beyond the edge: offered at the first one that ends outside, and then it grows by a screen in the same step.
TEST_F(Resizing, TheMapGrowsAsOnePaintsOnceThatIsWanted) {
  const CellRect before = map().bounds;
  session().verbs().hand.take(Block::of(Cell(tile("street", 24), {})));
  const QPointF inside = onMap({before.x1 - 2, 10});
  hand.drag(room->canvas(), {inside, inside + cells(5, 0)});
  EXPECT_EQ(map().bounds, before);
  EXPECT_THAT(room->canvas()->tagText().toStdString(), testing::HasSubstr("Enter: the map grows as you paint"));
  const std::size_t steps = session().undoLine().steps().size();
  hand.key(Qt::Key_Return);
  EXPECT_TRUE(map().growsAsPainted);
  EXPECT_GT(map().bounds.x1, before.x1);
  EXPECT_EQ(map().bounds.x0, before.x0);
  EXPECT_EQ(session().undoLine().steps().size(), steps + 1);
  const CellRect once = map().bounds;
  // From now on by itself, under the hand.
  const QPointF low = onMap({10, before.y1 - 2});
  hand.press(room->canvas(), low);
  hand.moveTo(room->canvas(), low + cells(0, 4));
  EXPECT_GT(map().bounds.y1, once.y1);
  picture("grows-as-painted");
  hand.release(room->canvas(), low + cells(0, 4));
  EXPECT_EQ(session().undoLine().steps().size(), steps + 2);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(map().bounds, once);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(map().bounds, before);
  EXPECT_FALSE(map().growsAsPainted);
}

TEST_F(Resizing, OtherCellsAreSeenBeforeTheyAreTaken) {
  const Map before = map();
  choose(ActionId::mapFacts);
  hand.click(part<QPushButton>("map-cells"));
  ASSERT_TRUE(part<QWidget>("cells-card")->isVisible());
  part<QLineEdit>("cells-width")->selectAll();
  hand.type(QStringLiteral("16"));
  hand.key(Qt::Key_Tab);
  EXPECT_EQ(map().grid.cell.w, 16);
  EXPECT_EQ(map().bounds, before.bounds);
  picture("cell-card");
  part<QComboBox>("cells-keeps")->setFocus();
  hand.key(Qt::Key_Down);
  EXPECT_EQ(map().bounds.width(), 2 * before.bounds.width()) << "it reaches as far as before";
  hand.key(Qt::Key_Escape);
  EXPECT_EQ(map(), before);
}

TEST_F(Resizing, TheMenuSaysBeforehandWhatACutLeavesAndWhatTheAllowanceHolds) {
  const CellRect all = map().bounds;
  dragEdge(Qt::LeftEdge, cells(2, 0));
  dragEdge(Qt::RightEdge, cells(3, 0));
  const std::int64_t outside = allowanceCells(map());
  ASSERT_GT(outside, 0);
  Q_EMIT room->actions()->opens(Menu::map);
  const CellRect left = session().verbs().maps.leftByCutting();
  const auto said = [&](ActionId id) { return room->actions()->action(id)->text().remove(QLatin1Char('&')).toStdString(); };
  EXPECT_THAT(said(ActionId::cutToUsed),
              testing::HasSubstr("leaves " + std::to_string(left.width()) + " × " + std::to_string(left.height())));
  EXPECT_LT(left.width(), all.width());
  EXPECT_THAT(said(ActionId::dropAllowance), testing::HasSubstr(std::to_string(outside) + " painted cells"));
  choose(ActionId::dropAllowance);
  EXPECT_EQ(session().undoLine().steps().back().name,
            "Drop " + std::to_string(outside) + " cells of the seam allowance of Depot Yard");
}

// Planned far too large: 150 × 150, of which a corner is used.
TEST_F(Resizing, AMapThatIsFarTooLargeIsCutToWhatIsUsedByOnePress) {
  MapPlan plan;
  plan.name = "Quayside";
  plan.width = plan.height = 150;
  plan.grid = nearestShape(GridKind::orthogonal, {32, 32});
  session().verbs().maps.add(plan);
  session().verbs().hand.take(Block::of(Cell(tile("street", 24), {})));
  hand.key(Qt::Key_F);
  hand.drag(room->canvas(), {onMap({10, 12}), onMap({41, 12})});
  hand.click(room->canvas(), onMap({20, 33}));
  const int actions = hand.actions();
  hand.key(Qt::Key_U, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(hand.actions() - actions, 1);
  EXPECT_EQ(map().bounds, (CellRect{10, 12, 42, 34}));
}

// What is selected is named before it lies outside; an edge that comes back leaves it, and so does undo.
TEST_F(Resizing, WhatIsSelectedIsNamedBeforeItLiesOutside) {
  Desk desk = session().desk();
  const CellSet selected(CellRect{0, 10, 4, 11});
  desk.select(selected);
  session().setDesk(desk);
  const QPointF from = beyond(Qt::LeftEdge);
  hand.press(room->canvas(), from);
  hand.moveTo(room->canvas(), from + cells(3, 0));
  EXPECT_THAT(room->canvas()->tagText().toStdString(), testing::HasSubstr("outside then: 3 selected cells"));
  hand.moveTo(room->canvas(), from + cells(-2, 0));
  EXPECT_EQ(session().desk().selection(), selected);
  hand.moveTo(room->canvas(), from + cells(2, 0));
  hand.release(room->canvas(), from + cells(2, 0));
  EXPECT_EQ(session().desk().selection().count(), 2);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().desk().selection(), selected);
}

// A gap of some pixels under the last row: one press in About the map.
TEST_F(Resizing, AGapUnderTheLastRowIsMendedByOnePress) {
  Quilt quilt = session().quilt();
  const PixelRect all = makeGrid(map().grid)->pixelBounds(map().bounds);
  session().verbs().maps.change("Screen", withScreen(quilt, map().id, PixelSize{all.w, all.h + 8}));
  const CellRect before = map().bounds;
  choose(ActionId::checkSizes);
  ASSERT_TRUE(part<QWidget>("map-facts")->isVisible());
  EXPECT_EQ(part<QLabel>("map-finding-0")->text().toStdString(), "The map is 8 px lower than the screen.");
  picture("sizes-disagree");
  const int actions = hand.actions();
  hand.click(part<QPushButton>("map-mend-0"));
  EXPECT_EQ(hand.actions() - actions, 1);
  EXPECT_EQ(map().bounds, moved(before, {0, 0, 0, 1}));
  EXPECT_FALSE(part<QPushButton>("map-mend-0")->isEnabled()) << "a second press meets nothing else";
}

}  // namespace uq::test
