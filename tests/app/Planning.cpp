// A world that is planned on the Board: maps drawn on the cloth, chalk pieces, and the first one cut.
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QSignalSpy>
#include <QToolButton>

#include "app/Story.h"
#include "app/board/BoardView.h"
#include "app/maps/NewMapCard.h"
#include "core/edit/Seams.h"

namespace uq::test {

class Planning : public Story {
 protected:
  Planning() : Story(Demo::whole) {}
  void SetUp() override {
    openDemo();
    hand.key(Qt::Key_B, Qt::ControlModifier);
    // Room beside the city.
    for (int i = 0; i < 2; ++i) hand.wheel(board(), QPointF(board()->rect().center()), -1, Qt::ControlModifier);
  }
  BoardView* board() { return room->board(); }
  QRectF boxOf(const char* name) { return board()->pieceRect(session().quilt().mapNamed(name)->id); }
  NewMapCard* card() { return part<NewMapCard>("drawn-map-card"); }
  template <class Widget>
  Widget* onCard(const char* name) {
    return card()->findChild<Widget*>(QLatin1String(name));
  }
};

TEST_F(Planning, AWorldOfFiveIsPlannedAndTheFirstOneCut) {
  const std::size_t maps = session().quilt().maps().size();
  const std::size_t planned = session().quilt().chalkPieces().size();
  const int actions = hand.actions();
  for (int i = 0; i < 5; ++i) {
    const QPointF from(20 + 90 * i, board()->height() - 120);
    hand.drag(board(), {from, from + QPointF(40, 30), from + QPointF(78, 56)}, Qt::LeftButton,
              Qt::ControlModifier | Qt::ShiftModifier);
  }
  ASSERT_EQ(session().quilt().chalkPieces().size(), planned + 5);
  EXPECT_EQ(session().quilt().maps().size(), maps);
  picture("chalk");
  hand.doubleClick(board(), QPointF(60, board()->height() - 90));
  ASSERT_TRUE(waitFor([&] { return card() && card()->isVisible(); }));
  hand.key(Qt::Key_Return);
  EXPECT_LE(hand.actions() - actions, 8);
  report("a world of five chalk pieces planned and the first one cut");
  EXPECT_EQ(session().quilt().chalkPieces().size(), planned + 4);
  EXPECT_EQ(session().quilt().maps().size(), maps + 1);
  EXPECT_TRUE(session().desk().onBoard);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt().chalkPieces().size(), planned + 5);
  EXPECT_EQ(session().quilt().maps().size(), maps);
}

TEST_F(Planning, ANewTownIsDrawnBesideTheOldOneAndCarriesThreeColumnsOver) {
  const QRectF street = boxOf("Ferry Street");
  const int actions = hand.actions();
  hand.drag(board(), {street.topRight() + QPointF(3, 2), street.center() + QPointF(street.width(), 0), street.bottomRight() + QPointF(70, 2)},
            Qt::LeftButton, Qt::ControlModifier);
  ASSERT_TRUE(waitFor([&] { return card() && card()->isVisible(); }));
  EXPECT_EQ(onCard<QLineEdit>("map-height")->text(), QStringLiteral("32"));
  picture("drawn-beside");
  hand.type(QStringLiteral("New Town"));
  hand.click(onCard<QLineEdit>("carried"));
  hand.key(Qt::Key_A, Qt::ControlModifier);
  hand.type(QStringLiteral("3"));
  hand.key(Qt::Key_Return);
  EXPECT_LE(hand.actions() - actions, 7);
  report("a new town beside the old one with three columns carried over");
  const Map* town = session().quilt().mapNamed("New Town");
  ASSERT_TRUE(town);
  const Map& old = *session().quilt().mapNamed("Ferry Street");
  EXPECT_TRUE(SewnMaps(session().quilt()).hangTogether(old.id, town->id));
  const auto ground = partnerOn(session().quilt(), {old.id, old.layers.front()->id}, town->id);
  ASSERT_TRUE(ground);
  const CellGrid& cells = session().quilt().layer(*ground)->cells;
  for (int y = 0; y < 32; ++y) {
    for (int x = 0; x < 3; ++x) EXPECT_EQ(cells.at({x, y}), old.layers.front()->cells.at({45 + x, y}));
  }
  EXPECT_TRUE(cells.at({3, 5}).empty());
}

TEST_F(Planning, ChalkIsNamedNotedTickedMovedAndRubbedOut) {
  const std::size_t planned = session().quilt().chalkPieces().size();
  hand.click(part<QToolButton>("board-chalk"));
  EXPECT_EQ(board()->draws(), BoardView::Draws::chalk);
  const QPointF from(30, board()->height() - 190);
  hand.drag(board(), {from, from + QPointF(60, 40), from + QPointF(150, 90)});
  hand.key(Qt::Key_Escape);
  EXPECT_EQ(board()->draws(), BoardView::Draws::nothing);
  ASSERT_EQ(session().quilt().chalkPieces().size(), planned + 1);
  const Id id = board()->chosen();
  ASSERT_TRUE(session().quilt().listed<ChalkPiece>(id));
  const auto piece = [&] { return session().quilt().listed<ChalkPiece>(id); };
  hand.key(Qt::Key_F2);
  hand.type(QStringLiteral("Glass works"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(piece()->name, "Glass works");
  hand.key(Qt::Key_Space);
  EXPECT_TRUE(piece()->done);
  const PixelRect was = piece()->at;
  hand.key(Qt::Key_Right, Qt::ShiftModifier);
  EXPECT_EQ(piece()->at.x, was.x + 32);
  hand.click(board(), board()->pieceRect(id).center(), Qt::RightButton);
  QMenu* menu = nullptr;
  ASSERT_TRUE(waitFor([&] { return (menu = board()->findChild<QMenu*>(QStringLiteral("chalk-menu"))) && menu->isVisible(); }));
  hand.click(menu, menu->actionGeometry(menu->findChild<QAction*>(QStringLiteral("chalk-note"))).center());
  hand.type(QStringLiteral("furnaces; the way to the canal"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(piece()->note, "furnaces; the way to the canal");
  hand.key(Qt::Key_Delete);
  EXPECT_FALSE(piece());
}

TEST_F(Planning, AnEdgeDraggedOntoTheOppositeOneMakesTheMapWrap) {
  const Id market = session().quilt().mapNamed("Depot Yard")->id;
  hand.click(board(), board()->pieceRect(market).center());
  const QRectF on = board()->pieceRect(market);
  const QPointF from(on.center().x(), on.top() - 3);
  hand.press(board(), from);
  hand.moveTo(board(), on.center());
  EXPECT_TRUE(board()->said().contains(QStringLiteral("opposite")));
  hand.moveTo(board(), QPointF(on.center().x(), on.bottom() - 2));
  EXPECT_TRUE(board()->said().contains(QStringLiteral("wraps"))) << board()->said().toStdString();
  hand.release(board(), QPointF(on.center().x(), on.bottom() - 2));
  EXPECT_TRUE(wraps(session().quilt(), market, true));
}

}  // namespace uq::test
