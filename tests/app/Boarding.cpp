// The Board: all maps as pieces on one cloth, by hand and by keys.
#include <QSignalSpy>
#include <QToolButton>

#include "app/Story.h"
#include "app/board/BoardView.h"
#include "app/look/Theme.h"

namespace uq::test {

class Boarding : public Story {
 protected:
  Boarding() : Story(Demo::whole) {}
  void SetUp() override {
    openDemo();
    hand.key(Qt::Key_B, Qt::ControlModifier);
    pictures();
  }
  BoardView* board() { return room->board(); }
  void pictures() {
    QSignalSpy all(board(), &BoardView::pictured);
    while (board()->isComing() && all.isEmpty()) ASSERT_TRUE(all.wait(5000));
  }
  PixelPos placeOf(Id map) {
    for (const Piece& piece : piecesOf(session().quilt())) {
      if (piece.map == map) return piece.at;
    }
    return {};
  }
  Id mapNamed(const char* name) { return session().quilt().mapNamed(name)->id; }
  QPointF middleOf(const char* name) { return board()->pieceRect(mapNamed(name)).center(); }
};

TEST_F(Boarding, OneKeyLeadsFromTheMapToItsPieceAndBack) {
  EXPECT_TRUE(board()->isVisible());
  EXPECT_EQ(board()->chosen(), session().desk().map);
  for (const Piece& piece : piecesOf(session().quilt())) {
    EXPECT_TRUE(QRectF(board()->rect()).contains(board()->pieceRect(piece.map)));
  }
  picture("board");
  hand.key(Qt::Key_B, Qt::ControlModifier);
  EXPECT_TRUE(room->canvas()->isVisible());
  EXPECT_TRUE(room->canvas()->hasFocus());
  hand.click(part<QToolButton>("tab-board"));
  EXPECT_TRUE(board()->isVisible());
  hand.click(room->tabs()->tab(session().desk().map));
  EXPECT_TRUE(room->canvas()->isVisible());
}

TEST_F(Boarding, VeryManyPiecesAreThereAFrameLater) {
  while (session().quilt().maps().size() <= 64) {
    std::set<Id> all;
    for (const Shared<Map>& map : session().quilt().maps()) all.insert(map->id);
    session().verbs().maps.duplicate(all);
  }
  hand.key(Qt::Key_B, Qt::ControlModifier);
  ASSERT_TRUE(room->canvas()->isVisible());
  hand.key(Qt::Key_B, Qt::ControlModifier);
  pictures();
  settle();
  const QImage seen = board()->grab().toImage();
  for (const Piece& piece : piecesOf(session().quilt())) {
    const QRectF rect = board()->pieceRect(piece.map);
    if (piece.chalk || rect.width() < 4 || !QRectF(board()->rect()).contains(rect)) continue;
    EXPECT_NE(seen.pixelColor(rect.center().toPoint()), Theme::current().cloth);
  }
}

TEST_F(Boarding, APieceIsDraggedSavedAndTakenBack) {
  const Id quayside = mapNamed("Quayside");
  const PixelPos was = placeOf(quayside);
  const int actions = hand.actions();
  hand.drag(board(), {middleOf("Quayside"), middleOf("Quayside") + QPointF(60, 40)});
  EXPECT_EQ(hand.actions() - actions, 1);
  EXPECT_NE(placeOf(quayside), was);
  EXPECT_EQ(session().undoLine().steps().back().name, "Move Quayside on the Board");
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  const PixelPos is = placeOf(quayside);
  close();
  openDemo();
  EXPECT_EQ(placeOf(quayside), is);
  EXPECT_TRUE(session().isSaved());
}

TEST_F(Boarding, WhatIsDoneOnTheBoardIsTakenBackThere) {
  const Quilt before = session().quilt();
  hand.drag(board(), {middleOf("Ward Board"), middleOf("Ward Board") + QPointF(30, 50)});
  EXPECT_FALSE(session().quilt() == before);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(session().quilt() == before);
  // A drag that is dropped leaves no trace.
  hand.press(board(), middleOf("Quayside"));
  hand.moveTo(board(), middleOf("Quayside") + QPointF(80, 0));
  EXPECT_TRUE(session().inGesture());
  hand.key(Qt::Key_Escape);
  hand.release(board(), middleOf("Quayside"));
  EXPECT_TRUE(session().quilt() == before);
}

TEST_F(Boarding, NothingElseMovesWhileAPieceIsDragged) {
  const QRectF yard = board()->pieceRect(mapNamed("Depot Yard"));
  hand.press(board(), middleOf("Ward Board"));
  hand.moveTo(board(), middleOf("Ward Board") + QPointF(90, 60));
  EXPECT_EQ(board()->pieceRect(mapNamed("Depot Yard")), yard);
  hand.release(board(), middleOf("Ward Board"));
  EXPECT_EQ(board()->pieceRect(mapNamed("Depot Yard")), yard);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(board()->pieceRect(mapNamed("Depot Yard")), yard);
}

TEST_F(Boarding, SeveralAreChosenByAFrameAndMovedTogether) {
  const PixelRect all = boxAround(piecesOf(session().quilt()));
  const Quilt before = session().quilt();
  const QRectF box = board()->pieceRect(mapNamed("Canal Locks")).united(board()->pieceRect(mapNamed("Depot Yard")));
  hand.drag(board(), {box.topLeft() - QPointF(12, 6), box.bottomRight()});
  EXPECT_GE(board()->allChosen().size(), 2u);
  const std::size_t count = board()->allChosen().size();
  hand.key(Qt::Key_Right, Qt::ShiftModifier);
  std::size_t moved = 0;
  const auto was = piecesOf(before);
  const auto is = piecesOf(session().quilt());
  for (std::size_t i = 0; i < was.size(); ++i) moved += was[i].at == is[i].at ? 0 : 1;
  EXPECT_EQ(moved, count);
  EXPECT_FALSE(all.empty());
}

TEST_F(Boarding, ByKeysFromPieceToPieceAndIntoOne) {
  const Id first = board()->chosen();
  hand.key(Qt::Key_Right);
  hand.key(Qt::Key_Down);
  const Id there = board()->chosen();
  EXPECT_NE(there, first);
  hand.key(Qt::Key_Return);
  EXPECT_TRUE(room->canvas()->isVisible());
  EXPECT_EQ(session().desk().map, there);
  // Keys of the map do nothing on the Board.
  hand.key(Qt::Key_B, Qt::ControlModifier);
  const Quilt before = session().quilt();
  hand.key(Qt::Key_A, Qt::ControlModifier);
  EXPECT_TRUE(session().quilt() == before);
  EXPECT_TRUE(session().desk().selection().empty());
}

TEST_F(Boarding, ADoubleClickOpensAPiece) {
  hand.doubleClick(board(), middleOf("Roof Market"));
  EXPECT_EQ(session().desk().map, mapNamed("Roof Market"));
  EXPECT_TRUE(room->canvas()->isVisible());
}

TEST_F(Boarding, TidyLaysAllOfThemOutInOneStep) {
  hand.drag(board(), {middleOf("Quayside"), middleOf("Depot Yard")});
  choose(ActionId::tidyBoard);
  const auto pieces = piecesOf(session().quilt());
  for (std::size_t i = 0; i < pieces.size(); ++i) {
    for (std::size_t j = i + 1; j < pieces.size(); ++j) {
      const PixelRect& a = pieces[i].covers;
      const PixelRect& b = pieces[j].covers;
      EXPECT_FALSE(a.x < b.right() && b.x < a.right() && a.y < b.bottom() && b.y < a.bottom());
    }
  }
  EXPECT_EQ(session().undoLine().steps().back().name, "Tidy the Board");
}

}  // namespace uq::test
