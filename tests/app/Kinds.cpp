// What counts as the same under Fill, and tiles swapped for any other from the tape.
#include <QToolButton>

#include "app/PaintingStory.h"
#include "core/edit/ArrangeStamps.h"

namespace uq::test {

class Kinds : public PaintingHand {
 protected:
  // Two rows of one tile, two of another, two of a third one, on the ground.
  void makeRows(std::uint32_t first, std::uint32_t second, std::uint32_t third) {
    makeGround();
    LayerCells cells;
    for (int y = 0; y < 6; ++y) {
      for (int x = 0; x < 24; ++x) {
        cells.lay(CellPos{x, y}, Cell(tile("street", y < 2 ? first : y < 4 ? second : third), {}), 0);
      }
    }
    const LayerAt ground{siding().id, siding().layerNamed("Ground")->id};
    session().verbs().layers.takeCells("Lay rows", {ground}, session().quilt().with(ground, cells));
    session().verbs().layers.choose(ground.layer);
  }
  void press(const char* option) {
    auto* button = findOption(option);
    ASSERT_TRUE(button) << option;
    button->click();
    settle();
  }
  QToolButton* findOption(const char* text) {
    for (auto* button : room->findChildren<QToolButton*>()) {
      if (button->toolTip().contains(QLatin1String(text)) || button->text() == QLatin1String(text)) return button;
    }
    return nullptr;
  }
};

TEST_F(Kinds, FillGoesUpToAnotherKindAndItsCountFollowsShiftAtOnce) {
  makeRows(0, 6, 12);
  hand.click(room->table(), onTable("rails", 1));
  session().verbs().layers.choose(siding().layerNamed("Ground")->id);
  hand.key(Qt::Key_4);
  hand.moveTo(canvas(), onMap({5, 1}));
  EXPECT_THAT(tag(), testing::HasSubstr("48 cells"));
  // The next piece of the same tile comes along with Shift, before anything is pressed.
  const LayerAt ground{siding().id, siding().layerNamed("Ground")->id};
  LayerCells more = *session().quilt().layer(ground);
  more.lay(CellPos{3, 12}, Cell(tile("street", 0), {}), 0);
  session().verbs().layers.takeCells("Lay one", {ground}, session().quilt().with(ground, more));
  hand.hold(Qt::Key_Shift);
  EXPECT_THAT(tag(), testing::HasSubstr("49 cells"));
  hand.letGo(Qt::Key_Shift);
  EXPECT_THAT(tag(), testing::HasSubstr("48 cells"));
  // What is kept together in a stamp, then the whole pile.
  IdSource ids(5);
  const Block pair({{{0, 0}, Cell(tile("street", 0), {})}, {{1, 0}, Cell(tile("street", 6), {})}});
  session().quiltStep(QStringLiteral("Keep"), keepStamp(session().quilt(), InHand(pair, GridKind::orthogonal), "pair", ids).quilt);
  Desk desk = session().desk();
  desk.options.alike = Alike::stamp;
  session().setDesk(desk);
  hand.moveTo(canvas(), onMap({6, 1}));
  EXPECT_THAT(tag(), testing::HasSubstr("96 cells"));
  desk.options.alike = Alike::pile;
  session().setDesk(desk);
  hand.moveTo(canvas(), onMap({7, 1}));
  EXPECT_THAT(tag(), testing::HasSubstr("144 cells"));
  hand.click(canvas(), onMap({7, 1}));
  expectTheSameFromItsList("a pile filled");
  EXPECT_EQ(at("Ground", {20, 5}), Cell(tile("rails", 1), {}));
}

TEST_F(Kinds, SwapOnTheTapeTurnsEverySuchTileIntoTheOneInHand) {
  makeRows(0, 6, 0);
  const LayerAt ground{siding().id, siding().layerNamed("Ground")->id};
  LayerCells turned = *session().quilt().layer(ground);
  turned.lay(CellPos{3, 12}, Cell(tile("street", 0), Turn{true, 0}), 16);
  session().verbs().layers.takeCells("Turn one", {ground}, session().quilt().with(ground, turned));
  hand.click(room->table(), onTable("street", 40));
  session().verbs().layers.choose(ground.layer);
  hand.key(Qt::Key_4);
  auto* swap = findOption("Swap");
  ASSERT_TRUE(swap);
  hand.click(swap->isVisible() ? swap : in<QWidget>("tape-more"));
  if (!session().desk().options.swaps) hand.click(swap);
  ASSERT_TRUE(session().desk().options.swaps);
  hand.moveTo(canvas(), onMap({5, 1}));
  EXPECT_EQ(tag(), "Swap on Ground · 97 cells");
  picture("swap-on-the-tape");
  hand.click(canvas(), onMap({5, 1}));
  EXPECT_EQ(session().undoLine().steps().back().name, "Swap on Ground");
  EXPECT_EQ(at("Ground", {23, 5}), Cell(tile("street", 40), {}));
  EXPECT_EQ(at("Ground", {3, 12}), Cell(tile("street", 40), Turn{true, 0})) << "turned as it was";
  EXPECT_EQ(siding().layerNamed("Ground")->lifts.at({3, 12}), 16);
  EXPECT_EQ(at("Ground", {5, 3}), Cell(tile("street", 6), {}));
  expectTheSameFromItsList("a swap");
  hand.moveTo(canvas(), onMap({5, 9}));
  EXPECT_THAT(tag(), testing::HasSubstr("Nothing lies here on Ground"));
  undo();
  EXPECT_EQ(at("Ground", {23, 5}), Cell(tile("street", 0), {}));
}

TEST_F(Kinds, StretchStaysChosenForTheNextBlockUntilAnotherManner) {
  makeGround();
  hand.drag(room->table(), {onTable("street", 24), onTable("street", 26)});
  hand.key(Qt::Key_M);
  EXPECT_EQ(session().desk().inHand.manner, Manner::stretch);
  hand.drag(room->table(), {onTable("yard", 171), onTable("yard", 175)});
  EXPECT_EQ(session().desk().inHand.manner, Manner::stretch) << "without another press";
  hand.click(room->table(), onTable("street", 24));
  EXPECT_EQ(session().desk().inHand.manner, Manner::asItIs) << "one tile is no stretch";
  hand.drag(room->table(), {onTable("yard", 171), onTable("yard", 175)});
  hand.click(in<QToolButton>("manner-as-it-is"));
  hand.drag(room->table(), {onTable("street", 24), onTable("street", 26)});
  EXPECT_EQ(session().desk().inHand.manner, Manner::asItIs);
}

TEST_F(Kinds, TheEndsOfAStretchComeBackByADoubleClickAfterARestart) {
  session().verbs().layers.choose(yard().layerNamed("Paving")->id);
  hand.key(Qt::Key_F);
  hand.drag(room->table(), {onTable("street", 24), onTable("street", 26)});
  hand.key(Qt::Key_M);
  session().verbs().layers.choose(yard().layerNamed("Paving")->id);
  hand.drag(canvas(), {onMap({20, 25}), onMap({26, 25})});
  ASSERT_TRUE(session().verbs().strokes.stretchBox());
  hand.click(room->table(), onTable("street", 0));
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  close();
  openDemo();
  session().verbs().layers.choose(yard().layerNamed("Paving")->id);
  canvas()->setFocus();
  hand.key(Qt::Key_5);
  hand.doubleClick(canvas(), onMap({23, 25}));
  ASSERT_TRUE(session().verbs().strokes.stretchBox());
  EXPECT_EQ(session().verbs().strokes.stretchBox()->width(), 7);
}

TEST_F(Kinds, HandlesOfASmallStretchLieOutsideItAndApart) {
  makeGround();
  hand.drag(room->table(), {onTable("street", 24), onTable("street", 26)});
  hand.key(Qt::Key_M);
  for (int i = 0; i < 6; ++i) hand.key(Qt::Key_Minus, Qt::ControlModifier);
  hand.drag(canvas(), {onMap({10, 8}), onMap({12, 8})});
  const QRectF stretch = canvas()->cellRect({10, 8}).united(canvas()->cellRect({12, 8}));
  ASSERT_LT(stretch.width(), 40) << "small on the screen";
  const std::vector<StretchHandle> handles = canvas()->handles();
  ASSERT_GE(handles.size(), 2u);
  for (const StretchHandle& one : handles) {
    EXPECT_FALSE(stretch.contains(one.at));
    for (const StretchHandle& other : handles) {
      if (&one != &other) {
        EXPECT_GT((one.at - other.at).manhattanLength(), 18);
      }
    }
  }
  // Dragged by the handle, the end goes as far as the hand does.
  const auto right = std::find_if(handles.begin(), handles.end(), [](const auto& one) { return one.across == 1 && one.down == 0; });
  ASSERT_NE(right, handles.end());
  const double cell = canvas()->cellRect({0, 0}).width();
  hand.drag(canvas(), {right->at, right->at + QPointF(3 * cell, 0)});
  EXPECT_EQ(session().verbs().strokes.stretchBox()->width(), 6);
}

}  // namespace uq::test
