// Rows and columns come in and go at the rulers, and by keys where something is selected.
#include "app/Story.h"
#include "app/canvas/Rulers.h"
#include "core/edit/RowsAndColumns.h"

namespace uq::test {

using testing::HasSubstr;

class LinesAtRulers : public Story {
 protected:
  void SetUp() override {
    openDemo();
    hand.key(Qt::Key_F);
    choose(ActionId::rulers);
    room->canvas()->setFocus();
  }
  const Map& map() { return *session().map(); }
  MapCanvas* canvas() { return room->canvas(); }
  std::string tag() { return canvas()->tagText().toStdString(); }
  // On the ruler above: where a column begins, or in the middle of one.
  QPointF column(double x) {
    const QRectF many = canvas()->cellRect({0, 0}).united(canvas()->cellRect({19, 0}));
    return {many.left() + x * many.width() / 20, 10};
  }
  QPointF row(double y) {
    const QRectF many = canvas()->cellRect({0, 0}).united(canvas()->cellRect({0, 19}));
    return {10, many.top() + y * many.height() / 20};
  }
  Id newMap(GridKind kind) {
    MapPlan plan;
    plan.name = "Quayside";
    plan.width = plan.height = 12;
    plan.grid = nearestShape(kind, {64, 32});
    session().verbs().maps.add(plan);
    hand.key(Qt::Key_F);
    return session().desk().map;
  }
};

TEST_F(LinesAtRulers, TwoColumnsComeInInTheMiddleByOneDrag) {
  const Map before = map();
  const int actions = hand.actions();
  hand.moveTo(canvas(), column(20));
  EXPECT_THAT(tag(), HasSubstr("Insert 1 column before 20 · on all layers"));
  hand.press(canvas(), column(20));
  hand.moveTo(canvas(), column(22));
  EXPECT_THAT(tag(), HasSubstr("Insert 2 columns before 20"));
  EXPECT_EQ(map(), before) << "before the hand lets go nothing is changed";
  picture("columns-come-in");
  hand.release(canvas(), column(22));
  EXPECT_EQ(hand.actions() - actions, 1);
  EXPECT_EQ(map().bounds, whereTo({CellLines::Which::columns, 20, 2}, before.bounds));
  for (std::size_t i = 0; i < before.layers.size(); ++i) {
    EXPECT_EQ(map().layers[i]->cells.at({19, 20}), before.layers[i]->cells.at({19, 20}));
    EXPECT_TRUE(map().layers[i]->cells.at({21, 20}).empty());
    EXPECT_EQ(map().layers[i]->cells.at({22, 20}), before.layers[i]->cells.at({20, 20}));
  }
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(map(), before);
  EXPECT_TRUE(session().isSaved());
}

// However far beyond the widget the hand is, what is said stays in sight.
TEST(Tag, StaysInSight) {
  const QRectF room(4, 4, 792, 592);
  EXPECT_EQ(movedInto({100, 100, 50, 20}, room), QRectF(100, 100, 50, 20));
  EXPECT_EQ(movedInto({1200, 700, 50, 20}, room), QRectF(746, 576, 50, 20));
  EXPECT_EQ(movedInto({-90, -9, 900, 20}, room), QRectF(4, 4, 900, 20));
}

TEST_F(LinesAtRulers, ColumnsGoWhereTheHandWentOverThemAndAreCountedBefore) {
  const Map before = map();
  const CellLines three{CellLines::Which::columns, 30, -3};
  hand.press(canvas(), column(30.5));
  EXPECT_THAT(tag(), HasSubstr("Remove column 30"));
  hand.moveTo(canvas(), column(32.5));
  EXPECT_THAT(tag(),
              HasSubstr("Remove columns 30 to 32 · " + std::to_string(paintedIn(before, three)) + " painted cells go"));
  picture("columns-go");
  hand.release(canvas(), column(32.5));
  EXPECT_EQ(map().bounds.width(), before.bounds.width() - 3);
  EXPECT_EQ(session().undoLine().steps().back().name, "Remove 3 columns of Depot Yard");
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(map(), before);
}

TEST_F(LinesAtRulers, EscDropsThemAndALockedLayerIsInTheWay) {
  const Map before = map();
  hand.press(canvas(), row(12));
  hand.moveTo(canvas(), row(15));
  EXPECT_THAT(tag(), HasSubstr("Insert 3 rows before 12"));
  hand.key(Qt::Key_Escape);
  hand.release(canvas(), row(15));
  EXPECT_EQ(map(), before);
  Desk desk = session().desk();
  desk.locked.insert(before.layers.back()->id);
  session().setDesk(desk);
  hand.moveTo(canvas(), row(12.5));
  EXPECT_THAT(tag(), HasSubstr("is locked"));
  hand.click(canvas(), row(12.5));
  EXPECT_EQ(map(), before);
}

TEST_F(LinesAtRulers, OnOneLayerAloneTheMapStaysAsItIs) {
  const Map before = map();
  choose(ActionId::linesOfLayer);
  const Layer active = *session().quilt().layer(session().desk().activeAt());
  hand.moveTo(canvas(), row(10));
  EXPECT_THAT(tag(), HasSubstr("on " + active.name + " alone"));
  hand.click(canvas(), row(10));
  EXPECT_EQ(map().bounds, before.bounds);
  for (const Shared<Layer>& layer : map().layers) {
    EXPECT_EQ(layer->cells == before.layer(layer->id)->cells, layer->id != active.id) << layer->name;
  }
}

// By two where rows are shifted, so that everything stays in step; one by one with Ctrl.
TEST_F(LinesAtRulers, RowsThatAreShiftedComeInByTwo) {
  newMap(GridKind::staggered);
  hand.moveTo(canvas(), row(4));
  EXPECT_THAT(tag(), HasSubstr("Insert 2 rows before 4"));
  EXPECT_THAT(tag(), HasSubstr("Ctrl: one by one"));
  hand.press(canvas(), row(4), Qt::LeftButton, Qt::ControlModifier);
  EXPECT_THAT(tag(), HasSubstr("Insert 1 row before 4"));
  EXPECT_THAT(tag(), HasSubstr("what follows moves half a cell across"));
  hand.release(canvas(), row(4), Qt::LeftButton, Qt::ControlModifier);
  EXPECT_EQ(map().bounds.height(), 13);
}

// On a diamond map the rulers lie along its own sides.
TEST_F(LinesAtRulers, SlantedMapsHaveSlantedOnes) {
  newMap(GridKind::diamond);
  canvas()->zoomBySteps(-2);
  const CellRect before = map().bounds;
  const auto corner = [&](int x, int y) { return canvas()->cellRect({x, y}).center(); };
  const QPointF across = corner(1, 0) - corner(0, 0);
  const QPointF down = corner(0, 1) - corner(0, 0);
  // Beyond the upper right side, before column 5: along the column, out of the map.
  const QPointF on = corner(5, 0) - across / 2 - down / 2 - down / std::hypot(down.x(), down.y()) * 25;
  hand.moveTo(canvas(), on);
  EXPECT_THAT(tag(), HasSubstr("Insert 1 column before 5"));
  picture("slanted-rulers");
  hand.drag(canvas(), {on, on + across * 3});
  EXPECT_EQ(map().bounds.width(), before.width() + 3);
  EXPECT_EQ(map().bounds.height(), before.height());
}

TEST_F(LinesAtRulers, ByKeysAsManyAsAreSelected) {
  const Map before = map();
  Desk desk = session().desk();
  desk.select(CellSet(CellRect{10, 8, 14, 9}));
  session().setDesk(desk);
  choose(ActionId::insertColumns);
  EXPECT_EQ(map().bounds.width(), before.bounds.width() + 4);
  EXPECT_EQ(session().desk().selection(), CellSet(CellRect{14, 8, 18, 9})) << "what is selected stays with its cells";
  choose(ActionId::insertRows);
  EXPECT_EQ(map().bounds.height(), before.bounds.height() + 1);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().desk().selection(), CellSet(CellRect{10, 8, 14, 9}));
  choose(ActionId::removeColumns);
  EXPECT_EQ(map().bounds.width(), before.bounds.width() - 4);
  EXPECT_EQ(map().layers.front()->cells.at({10, 8}), before.layers.front()->cells.at({14, 8}));
}

}  // namespace uq::test
