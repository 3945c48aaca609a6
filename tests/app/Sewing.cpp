// Seams by hand: maps sewn, ripped and wrapped on the Board, and painted across in the workroom.
#include <QLineEdit>
#include <QMenu>
#include <QSignalSpy>
#include <QToolButton>

#include "app/Story.h"
#include "app/board/BoardView.h"
#include "app/look/Theme.h"
#include "core/edit/Seams.h"

namespace uq::test {

class Sewing : public Story {
 protected:
  Sewing() : Story(Demo::whole) {}
  void SetUp() override { openDemo(); }
  BoardView* board() { return room->board(); }
  void inHand(const char* sheet, std::uint32_t number) {
    Desk desk = session().desk();
    desk.hold(InHand(Block::of(Cell(tile(sheet, number), {})), GridKind::orthogonal));
    session().setDesk(std::move(desk));
  }
  Id mapNamed(const char* name) { return session().quilt().mapNamed(name)->id; }
  // On the piece, where no button is sewn on.
  QPointF middleOf(const char* name) {
    const QRectF piece = board()->pieceRect(mapNamed(name));
    return piece.center() - QPointF(piece.width() / 4, piece.height() / 4);
  }
  void onBoard() {
    if (!session().desk().onBoard) hand.key(Qt::Key_B, Qt::ControlModifier);
    QSignalSpy all(board(), &BoardView::pictured);
    while (board()->isComing() && all.isEmpty()) ASSERT_TRUE(all.wait(5000));
  }
  // Depot Yard and Ferry Street lie apart, sewn to nothing.
  void apart() {
    MapVerbs& maps = session().verbs().maps;
    if (!seamsAround(session().quilt(), {mapNamed("Ferry Street")}).empty()) maps.rip({mapNamed("Ferry Street")});
    maps.movePieces({mapNamed("Ferry Street")}, {700, 300});
  }
  // By how much Ferry Street must be dragged to lie with its left edge near the right one of Depot Yard.
  QPointF wayToYard(QPointF off) {
    const QRectF yard = board()->pieceRect(mapNamed("Depot Yard"));
    const QRectF street = board()->pieceRect(mapNamed("Ferry Street"));
    return yard.topRight() - street.topLeft() + off;
  }
  QMenu* menuOn(const char* name) {
    hand.click(board(), middleOf(name), Qt::RightButton);
    QMenu* menu = nullptr;
    EXPECT_TRUE(waitFor([&] {
      for (QMenu* one : board()->findChildren<QMenu*>(QStringLiteral("piece-menu"))) menu = one->isVisible() ? one : menu;
      return menu != nullptr;
    }));
    return menu;
  }
  void inMenu(QMenu* menu, const char* row) {
    QAction* action = menu->findChild<QAction*>(QLatin1String(row));
    ASSERT_TRUE(action) << row;
    hand.click(menu, menu->actionGeometry(action).center());
  }
};

TEST_F(Sewing, TwoMapsAreSewnAndARoadIsPaintedOverTheStitch) {
  apart();
  onBoard();
  const std::size_t seams = session().quilt().seams().size();
  inHand("rails", 0);
  const int actions = hand.actions();
  const QPointF from = middleOf("Ferry Street");
  const QPointF to = from + wayToYard({7, 5});
  hand.press(board(), from);
  hand.moveTo(board(), to);
  ASSERT_TRUE(board()->stitch());
  EXPECT_EQ(board()->stitch()->why, "");
  EXPECT_EQ(board()->stitch()->by, (CellPos{48, 0}));
  picture("stitch-preview");
  hand.release(board(), to);
  ASSERT_EQ(session().quilt().seams().size(), seams + 1);
  EXPECT_EQ(session().undoLine().steps().back().name, "Sew Ferry Street to Depot Yard");
  hand.doubleClick(board(), middleOf("Depot Yard"));
  ASSERT_EQ(session().desk().map, mapNamed("Depot Yard"));
  hand.drag(room->canvas(), {onMap({44, 14}), onMap({51, 14})});
  const Map& street = *session().quilt().map(mapNamed("Ferry Street"));
  const auto laid = [&](const Map& map, CellPos at) {
    return std::any_of(map.layers.begin(), map.layers.end(),
                       [&](const auto& one) { return one->cells.at(at).tile() == tile("rails", 0) && !one->cells.at(at).empty(); });
  };
  EXPECT_TRUE(laid(yard(), {47, 14}));
  EXPECT_TRUE(laid(street, {0, 14}));
  EXPECT_TRUE(laid(street, {3, 14}));
  EXPECT_LE(hand.actions() - actions, 4);
  report("two maps sewn and a road painted over the stitch");
  const QPointF middle = QRectF(room->canvas()->rect()).center();
  hand.drag(room->canvas(), {middle, middle - QPointF(380, 0)}, Qt::MiddleButton);
  room->canvas()->zoomBySteps(2, middle);
  (void)shown();
  picture("across-the-stitch");
  const Step& step = session().undoLine().steps().back();
  EXPECT_NE(step.name.find("across Depot Yard and Ferry Street"), std::string::npos) << step.name;
  // From the other tab it goes in one press, without a question.
  session().verbs().maps.goTo(street.id);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_FALSE(laid(yard(), {47, 14}));
  EXPECT_FALSE(laid(*session().quilt().map(mapNamed("Ferry Street")), {0, 14}));
}

TEST_F(Sewing, ShiftLaysBesideAndCtrlRipsOff) {
  apart();
  onBoard();
  const std::size_t seams = session().quilt().seams().size();
  const auto dragged = [&](QPointF by, Qt::KeyboardModifiers held) {
    const QPointF from = middleOf("Ferry Street");
    hand.drag(board(), {from, from + by / 2, from + by}, Qt::LeftButton, held);
  };
  const QPointF from = middleOf("Ferry Street");
  const QPointF beside = from + wayToYard({6, 4});
  hand.press(board(), from);
  hand.moveTo(board(), beside - QPointF(30, 0));
  hand.moveTo(board(), beside);
  hand.key(Qt::Key_Escape);
  hand.release(board(), beside);
  EXPECT_EQ(session().quilt().seams().size(), seams);
  dragged(wayToYard({6, 4}), {});
  EXPECT_EQ(session().quilt().seams().size(), seams + 1);
  // Sewn ones go together.
  const auto at = [&](const char* name) {
    const auto pieces = piecesOf(session().quilt());
    return std::find_if(pieces.begin(), pieces.end(), [&](const Piece& one) { return one.map == mapNamed(name); })->at;
  };
  const PixelPos yardWas = at("Depot Yard");
  dragged({0, 40}, Qt::AltModifier);
  EXPECT_NE(at("Depot Yard"), yardWas);
  const PixelPos yardIs = at("Depot Yard");
  dragged({50, 90}, Qt::ControlModifier);
  EXPECT_EQ(session().quilt().seams().size(), seams);
  EXPECT_EQ(at("Depot Yard"), yardIs);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt().seams().size(), seams + 1);
}

TEST_F(Sewing, WhatCannotBeSewnSaysWhy) {
  onBoard();
  const QRectF yard = board()->pieceRect(mapNamed("Depot Yard"));
  const QRectF ward = board()->pieceRect(mapNamed("Ward Board"));
  const QPointF from = ward.center();
  hand.press(board(), from);
  hand.moveTo(board(), from + yard.bottomLeft() - ward.topLeft() + QPointF(20, 4));
  ASSERT_TRUE(board()->stitch());
  EXPECT_TRUE(board()->said().contains(QStringLiteral("only maps of one grid"))) << board()->said().toStdString();
  hand.key(Qt::Key_Escape);
  hand.release(board(), from);
}

TEST_F(Sewing, FromItsMenuAPieceIsRenamedCopiedWrappedAndDeleted) {
  onBoard();
  const std::size_t maps = session().quilt().maps().size();
  inMenu(menuOn("Signal Loft"), "piece-wrap-across");
  EXPECT_TRUE(wraps(session().quilt(), mapNamed("Signal Loft"), false));
  inMenu(menuOn("Signal Loft"), "piece-rename");
  hand.type(QStringLiteral("Attic"));
  hand.key(Qt::Key_Return);
  ASSERT_TRUE(session().quilt().mapNamed("Attic"));
  inMenu(menuOn("Attic"), "piece-duplicate");
  ASSERT_EQ(session().quilt().maps().size(), maps + 1);
  EXPECT_TRUE(wraps(session().quilt(), mapNamed("Attic copy"), false));
  EXPECT_TRUE(session().desk().onBoard);
  QMenu* menu = menuOn("Attic");
  EXPECT_TRUE(menu->findChild<QAction*>(QStringLiteral("piece-delete"))->text().contains(QStringLiteral("rips 1 seam")));
  inMenu(menu, "piece-delete");
  EXPECT_FALSE(session().quilt().mapNamed("Attic"));
  EXPECT_TRUE(session().desk().onBoard);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(session().quilt().mapNamed("Attic"));
}

TEST_F(Sewing, APieceIsFoundByTypingItsName) {
  onBoard();
  EXPECT_EQ(board()->chosen(), session().desk().map);
  hand.type(QStringLiteral("m"));
  EXPECT_TRUE(part<QLineEdit>("board-find")->hasFocus());
  hand.type(QStringLiteral("ark"));
  EXPECT_EQ(board()->chosen(), mapNamed("Roof Market"));
  hand.key(Qt::Key_Escape);
  EXPECT_TRUE(board()->hasFocus());
  EXPECT_EQ(board()->chosen(), session().desk().map);
  hand.type(QStringLiteral("q"));
  hand.type(QStringLiteral("uay"));
  hand.key(Qt::Key_Return);
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().desk().map, mapNamed("Quayside"));
  EXPECT_TRUE(room->canvas()->isVisible());
}

TEST_F(Sewing, AMapIsMadeToWrapAndPaintedAcrossItsOwnEdge) {
  session().verbs().maps.goTo(mapNamed("Signal Loft"));
  inHand("loft", 0);
  const int actions = hand.actions();
  choose(ActionId::wrapsAcross);
  ASSERT_TRUE(wraps(session().quilt(), mapNamed("Signal Loft"), false));
  hand.drag(room->canvas(), {onMap({9, 5}), onMap({13, 5})});
  EXPECT_LE(hand.actions() - actions, 3);
  report("a map made to wrap and painted across its own edge");
  const Map& loft = *session().quilt().mapNamed("Signal Loft");
  const auto laid = [&](CellPos at) {
    return std::any_of(loft.layers.begin(), loft.layers.end(),
                       [&](const auto& one) { return !one->cells.at(at).empty() && one->cells.at(at).tile() == tile("loft", 0); });
  };
  for (const int x : {9, 10, 11, 0, 1}) EXPECT_TRUE(laid({x, 5})) << x;
  picture("wraps");
}

TEST_F(Sewing, ANeighbourIsOpenedInPlaceByASecondPress) {
  const Id street = mapNamed("Ferry Street");
  if (!Patchwork::across(session().quilt(), yard().id).period().any() && Patchwork::across(session().quilt(), yard().id).isPlain()) {
    IdSource ids(9);
    session().work().step("Sew", sewn(session().quilt(), yard().id, street, {48, 0}, ids).quilt);
  }
  MapCanvas* canvas = room->canvas();
  inHand("street", 0);
  canvas->zoomBySteps(-3);
  const Quilt before = session().quilt();
  const QRectF cell = canvas->cellRect({50, 16});
  ASSERT_TRUE(QRectF(canvas->rect()).contains(cell));
  // Beyond the edge the street shows as it is, dimmed.
  hand.moveTo(canvas, QPointF(4, 4));
  const QImage dimmed = shown();
  const double ratio = canvas->devicePixelRatioF();
  hand.doubleClick(canvas, cell.center());
  EXPECT_EQ(session().desk().map, street);
  EXPECT_EQ(canvas->cellRect({2, 16}), cell);
  EXPECT_TRUE(session().quilt() == before);
  hand.moveTo(canvas, QPointF(4, 4));
  const QImage after = shown();
  const QColor surround = Theme::current().surround;
  int off = 0;
  for (int y = 20; y < 26; ++y) {
    for (int x = 4; x < 10; ++x) {
      const QPoint at = (canvas->cellRect({x, y}).center() * ratio).toPoint();
      const QColor dim = dimmed.pixelColor(at);
      const QColor clear = after.pixelColor(at);
      const auto mixed = [](int one, int other) { return (one * (255 - 105) + other * 105) / 255; };
      off += std::abs(dim.red() - mixed(clear.red(), surround.red())) > 12 ? 1 : 0;
    }
  }
  EXPECT_LE(off, 4);
  picture("neighbour");
}

TEST_F(Sewing, AtTheSwitchAStrokeStopsAtTheStitch) {
  inHand("rails", 0);
  choose(ActionId::onlyThisMap);
  EXPECT_TRUE(session().desk().options.onlyThisMap);
  const Quilt before = session().quilt();
  hand.drag(room->canvas(), {onMap({45, 14}), onMap({49, 14})});
  EXPECT_TRUE(session().quilt().map(mapNamed("Ferry Street"))->revision.is(before.map(mapNamed("Ferry Street"))->revision));
  EXPECT_FALSE(session().quilt() == before);
  choose(ActionId::onlyThisMap);
  hand.drag(room->canvas(), {onMap({45, 15}), onMap({49, 15})});
  EXPECT_FALSE(session().quilt().map(mapNamed("Ferry Street"))->revision.is(before.map(mapNamed("Ferry Street"))->revision));
}

}  // namespace uq::test
