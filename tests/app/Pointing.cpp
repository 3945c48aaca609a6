// The map under the hand: tools that spring back, the cell cursor of the keyboard, fading, rulers, the selection
// fitted.
#include "app/Story.h"

namespace uq::test {

class Pointing : public Story {
 protected:
  void SetUp() override {
    openDemo();
    hand.click(room->table(), onTable("street", 24));
  }
  MapCanvas* canvas() { return room->canvas(); }
  Tool tool() { return session().desk().tool; }
};

TEST_F(Pointing, AToolThatIsHeldWhileThePointerWorksSpringsBack) {
  canvas()->setFocus();
  hand.hold(Qt::Key_2);
  EXPECT_EQ(tool(), Tool::erase);
  hand.click(canvas(), onMap({20, 20}));
  EXPECT_TRUE(cellOn("Paving", {20, 20}).empty());
  hand.letGo(Qt::Key_2);
  EXPECT_EQ(tool(), Tool::brush);
  hand.hold(Qt::Key_2);
  hand.letGo(Qt::Key_2);
  EXPECT_EQ(tool(), Tool::erase) << "a tap stays";
}

TEST_F(Pointing, TabLeadsToACellCursorThatPaints) {
  room->table()->setFocus();
  hand.key(Qt::Key_T);
  ASSERT_TRUE(canvas()->cellCursor());
  const CellPos at = *canvas()->cellCursor();
  EXPECT_EQ(canvas()->tagText(), QStringLiteral("Brush on Paving"));
  hand.key(Qt::Key_Right);
  hand.key(Qt::Key_Return);
  EXPECT_EQ(cellOn("Paving", {at.x + 1, at.y}), Cell(tile("street", 24), {}));
  EXPECT_TRUE(canvas()->accessibleDescription().contains(QStringLiteral("setts, iron lid on Paving")));
  hand.key(Qt::Key_Return, Qt::ControlModifier);
  EXPECT_TRUE(cellOn("Paving", {at.x + 1, at.y}).empty());
  for (int i = 0; i < 60; ++i) hand.key(Qt::Key_Left);
  EXPECT_EQ(*canvas()->cellCursor(), (CellPos{0, at.y})) << "it stays on the map";
  EXPECT_TRUE(QRectF(canvas()->rect()).contains(canvas()->cellRect(*canvas()->cellCursor()))) << "and in sight";
  hand.moveTo(canvas(), onMap({10, 10}));
  EXPECT_FALSE(canvas()->cellCursor());
}

TEST_F(Pointing, ABoxOfCellsIsSelectedByKeys) {
  hand.key(Qt::Key_T);
  hand.key(Qt::Key_5);
  if (!canvas()->hasFocus()) hand.key(Qt::Key_T);
  const CellPos at = *canvas()->cellCursor();
  hand.key(Qt::Key_Down, Qt::ShiftModifier);
  hand.key(Qt::Key_Right, Qt::ShiftModifier);
  EXPECT_EQ(canvas()->tagText(), QStringLiteral("2 × 2 = 4 cells"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().desk().selection(), CellSet({at.x, at.y, at.x + 2, at.y + 2}));
  hand.key(Qt::Key_F, Qt::ShiftModifier);
  const QRectF shown = canvas()->cellRect(at);
  EXPECT_GT(shown.height(), 200) << "the selection fills the canvas";
  EXPECT_TRUE(QRectF(canvas()->rect()).contains(shown));
}

TEST_F(Pointing, OtherLayersFade) {
  hand.moveTo(room->table(), QPointF(2, 2));
  hand.key(Qt::Key_G);
  canvas()->setFocus();
  const auto colourAt = [this](CellPos cell) {
    const QImage picture = shown();
    return picture.pixelColor((onMap(cell) * picture.devicePixelRatio()).toPoint());
  };
  const CellPos tram{26, 9};
  const CellPos paving{20, 21};
  const QColor clear = colourAt(paving);
  const QColor before = colourAt(tram);
  hand.key(Qt::Key_Z);
  EXPECT_EQ(colourAt(paving), clear) << "the active layer stays clear";
  EXPECT_NE(colourAt(tram), before);
  picture("others-faint");
  hand.key(Qt::Key_Z);
  EXPECT_EQ(colourAt(tram), before);
}

TEST_F(Pointing, RulersCountFromTheMapsCorner) {
  hand.moveTo(canvas(), onMap({9, 11}));
  const QImage without = shown();
  Story::choose(ActionId::rulers);
  hand.moveTo(canvas(), onMap({9, 11}));
  EXPECT_NE(shown(), without);
  picture("rulers");
  Story::choose(ActionId::rulers);
  hand.moveTo(canvas(), onMap({9, 11}));
  EXPECT_EQ(shown(), without);
}

}  // namespace uq::test
