// Select: cells are chosen, emptied, copied, moved, and painting keeps inside them.
#include "app/Story.h"

namespace uq::test {

using testing::HasSubstr;

class Selecting : public Story {
 protected:
  void SetUp() override {
    openDemo();
    const std::string card = "card-" + yard().layerNamed("Sheds & trams")->id.text();
    hand.click(room->stack()->findChild<QWidget*>(QString::fromStdString(card)));
    hand.key(Qt::Key_5);
  }
  const CellSet& selection() { return session().desk().selection(); }
  std::string tag() { return room->canvas()->tagText().toStdString(); }
  void select(CellPos from, CellPos to, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
    hand.drag(room->canvas(), {onMap(from), onMap(to)}, Qt::LeftButton, modifiers);
  }
  std::vector<Cell> things(CellRect cells) {
    std::vector<Cell> found;
    for (int y = cells.y0; y < cells.y1; ++y) {
      for (int x = cells.x0; x < cells.x1; ++x) found.push_back(cellOn("Sheds & trams", {x, y}));
    }
    return found;
  }
  // A tram of Depot Yard, found by where it stands.
  static constexpr CellRect kTram{25, 8, 30, 11};
};

TEST_F(Selecting, ARectangleGrowsShrinksAndGoesWithEsc) {
  select({2, 2}, {5, 4});
  EXPECT_EQ(selection(), CellSet({2, 2, 6, 5}));
  select({8, 2}, {9, 2}, Qt::ShiftModifier);
  EXPECT_EQ(selection(), CellSet({2, 2, 6, 5}).united(CellSet({8, 2, 10, 3})));
  select({2, 2}, {2, 4}, Qt::ControlModifier);
  EXPECT_EQ(selection(), CellSet({3, 2, 6, 5}).united(CellSet({8, 2, 10, 3})));
  select({20, 20}, {21, 21});  // outside: a new one
  EXPECT_EQ(selection(), CellSet({20, 20, 22, 22}));
  hand.key(Qt::Key_Escape);
  EXPECT_TRUE(selection().empty());
  hand.key(Qt::Key_A, Qt::ControlModifier);
  EXPECT_EQ(selection(), CellSet(yard().bounds));
  EXPECT_TRUE(session().isSaved()) << "selecting makes no step";
}

TEST_F(Selecting, TheTagCountsWhileTheDragGoesOn) {
  hand.press(room->canvas(), onMap({2, 2}));
  hand.moveTo(room->canvas(), onMap({6, 4}));
  EXPECT_EQ(tag(), "5 × 3 = 15 cells");
  hand.key(Qt::Key_Escape);
  hand.release(room->canvas(), onMap({6, 4}));
  EXPECT_TRUE(selection().empty());
}

TEST_F(Selecting, ATramIsMovedAndComesBackWithItsSelection) {
  const auto before = things(kTram);
  ASSERT_TRUE(std::any_of(before.begin(), before.end(), [](Cell cell) { return !cell.empty(); }));
  select({25, 8}, {29, 10});
  hand.moveTo(room->canvas(), onMap({26, 9}));
  EXPECT_EQ(tag(), "Move on Sheds & trams");
  picture("selection");
  select({26, 9}, {26, 13});  // a drag inside
  EXPECT_EQ(selection(), CellSet({25, 12, 30, 15}));
  EXPECT_EQ(things({25, 12, 30, 15}), before);
  for (const Cell cell : things(kTram)) EXPECT_TRUE(cell.empty());
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(things(kTram), before);
  EXPECT_EQ(selection(), CellSet(kTram));
  EXPECT_TRUE(session().isSaved());
  hand.key(Qt::Key_Down);
  hand.key(Qt::Key_Right);
  EXPECT_EQ(things({26, 9, 31, 12}), before);
  EXPECT_EQ(session().undoLine().steps().back().name, "Move on Sheds & trams");
  report("moving a tram");
}

TEST_F(Selecting, EscLeavesAMoveOffWithoutAMark) {
  select({25, 8}, {29, 10});
  const Quilt before = session().quilt();
  hand.press(room->canvas(), onMap({26, 9}));
  hand.moveTo(room->canvas(), onMap({30, 14}));
  EXPECT_NE(session().quilt(), before);
  hand.key(Qt::Key_Escape);
  EXPECT_EQ(session().quilt(), before);
  EXPECT_EQ(selection(), CellSet(kTram));
  hand.release(room->canvas(), onMap({30, 14}));
  EXPECT_EQ(session().quilt(), before);
}

TEST_F(Selecting, CopiedThingsAreLaidElsewhereAndTheHandComesBack) {
  hand.click(room->table(), onTable("street", 24));
  const InHand held = session().desk().inHand;
  hand.click(room->stack()->card(yard().layerNamed("Sheds & trams")->id));
  hand.key(Qt::Key_5);
  EXPECT_FALSE(room->actions()->action(ActionId::copyCells)->isEnabled());
  const auto tram = things(kTram);
  select({25, 8}, {29, 10});
  hand.key(Qt::Key_C, Qt::ControlModifier);
  hand.key(Qt::Key_Escape);
  hand.key(Qt::Key_V, Qt::ControlModifier);
  EXPECT_EQ(session().desk().tool, Tool::brush);
  // Somewhere where nothing stands yet.
  CellPos free{2, 12};
  const auto isFree = [&] {
    const auto there = things({free.x - 2, free.y - 1, free.x + 3, free.y + 2});
    return std::all_of(there.begin(), there.end(), [](Cell cell) { return cell.empty(); });
  };
  while (!isFree()) free = free.x < 44 ? CellPos{free.x + 1, free.y} : CellPos{2, free.y + 1};
  hand.click(room->canvas(), onMap(free));
  EXPECT_EQ(things({free.x - 2, free.y - 1, free.x + 3, free.y + 2}), tram);
  EXPECT_EQ(things(kTram), tram);
  hand.key(Qt::Key_Escape);
  EXPECT_EQ(session().desk().inHand, held);
}

TEST_F(Selecting, CuttingAndDeletingAreEachOneStep) {
  const auto tram = things(kTram);
  select({25, 8}, {29, 10});
  hand.key(Qt::Key_X, Qt::ControlModifier);
  for (const Cell cell : things(kTram)) EXPECT_TRUE(cell.empty());
  EXPECT_EQ(session().undoLine().steps().back().name, "Cut on Sheds & trams");
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(things(kTram), tram);
  hand.key(Qt::Key_Delete);
  for (const Cell cell : things(kTram)) EXPECT_TRUE(cell.empty());
  EXPECT_EQ(session().undoLine().steps().size(), 1u);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(session().isSaved());
}

TEST_F(Selecting, PaintingKeepsInsideTheSelection) {
  select({20, 14}, {22, 15});
  hand.click(room->table(), onTable("yard", 0));
  hand.moveTo(room->canvas(), onMap({30, 14}));
  EXPECT_EQ(tag(), "Outside the selection");
  hand.drag(room->canvas(), {onMap({18, 14}), onMap({26, 14})});
  const Cell laid(tile("yard", 0), {});
  for (int x = 18; x <= 26; ++x) EXPECT_EQ(cellOn("Sheds & trams", {x, 14}) == laid, x >= 20 && x <= 22) << x;
}

TEST_F(Selecting, ALockedLayerSaysSoAndStays) {
  select({25, 8}, {29, 10});
  Story::choose(ActionId::toggleLock);
  hand.moveTo(room->canvas(), onMap({27, 9}));
  const Quilt before = session().quilt();
  hand.key(Qt::Key_Delete);
  EXPECT_THAT(tag(), HasSubstr("is locked"));
  select({26, 9}, {28, 14});
  hand.key(Qt::Key_Up);
  EXPECT_EQ(session().quilt(), before);
}

}  // namespace uq::test
