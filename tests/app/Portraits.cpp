// The pictures of docs/screenshots, each the end of a small story. To make them anew:
//   UQ_PICTURES=docs/screenshots tests/in-virtual-display build/release/bin/app_tests --gtest_filter='Portraits.*'
#include <QSignalSpy>
#include <QFile>
#include <QApplication>
#include <QDir>

#include "app/Story.h"
#include "app/canvas/Lens.h"
#include "app/table/Shelf.h"
#include "core/edit/ArrangeStamps.h"
#include "app/workroom/KeptState.h"

namespace uq::test {

class Portraits : public Story {
 protected:
  Portraits() : Story(Demo::whole) {}
  void SetUp() override {
    QDir(stateFolder()).removeRecursively();
    QDir(StartPage::quiltsFolder()).removeRecursively();
    openDemo();
  }
};

TEST_F(Portraits, ATreeIsHeldOverTheYard) {
  MapCanvas* canvas = room->canvas();
  // The tree is three by three tiles on the yard sheet.
  onTable("yard", 9 * 14 + 12);
  hand.drag(room->table(), {onTable("yard", 7 * 14 + 10), onTable("yard", 9 * 14 + 12)});
  EXPECT_EQ(session().desk().inHand.parts().size(), 9u);
  hand.moveTo(canvas, onMap({30, 12}));
  hand.key(Qt::Key_0);
  hand.moveTo(canvas, onMap({24, 15}));
  EXPECT_EQ(canvas->tagText(), QStringLiteral("Brush on Sheds & trams"));
  picture("workroom");
}

TEST_F(Portraits, TheStreetsGroundAtTheBench) {
  hand.click(part<QToolButton>("edging-street-ground"));
  PatchView* patch = room->bench()->patch();
  ASSERT_TRUE(patch->isVisible());
  // A corner of the lawn is asked about.
  std::optional<CellPos> corner;
  const CellRect bounds = patch->patch()->map().bounds;
  for (int y = bounds.y0; y < bounds.y1 && !corner; ++y) {
    for (int x = bounds.x0; x < bounds.x1 && !corner; ++x) {
      const auto spot = patch->patch()->spotAt({x, y});
      if (spot && shapeInWords(patch->patch()->edging(), spot->wanted).find("is lawn") != std::string::npos) corner = CellPos{x, y};
    }
  }
  ASSERT_TRUE(corner);
  hand.click(patch, patch->cellRect(*corner).center().toPoint());
  EXPECT_TRUE(part<QWidget>("candidates")->isVisible());
  picture("bench");
}

TEST_F(Portraits, TheWholeYardAtOnce) {
  hand.click(room->canvas(), onMap({28, 9}), Qt::RightButton);
  hand.moveTo(room->canvas(), onMap({10, 20}));
  EXPECT_TRUE(room->canvas()->tagText().startsWith(QStringLiteral("Brush on Sheds & trams · ")))
      << "a piece of a tram by itself is cut off";
  picture("whole-map");
}

TEST_F(Portraits, ANewMapLikeTheYard) {
  hand.click(room->table(), onTable("street", 24));
  hand.key(Qt::Key_M, Qt::ControlModifier);
  hand.type(QStringLiteral("Ferry Street"));
  picture("new-map");
}

TEST_F(Portraits, ASheetIsCutOnTheTable) {
  const QTemporaryDir scratch;
  const QString path = scratch.filePath(QStringLiteral("Signal Loft.png"));
  ASSERT_TRUE(QFile::copy(QString::fromStdString(folder()) + QStringLiteral("/sheets/loft.png"), path));
  hand.drop(room->canvas(), QPointF(300, 200), {path});
  awaitWork();
  settle();
  hand.key(Qt::Key_1);  // cut into tiles
  awaitWork();
  settle();
  ASSERT_TRUE(room->sheetCard()->sheet());
  picture("sheet");
}

TEST_F(Portraits, TheTableIsSpreadAndTheCanalMoves) {
  room->resize(1280, 800);
  room->canvas()->setFocus();
  hand.key(Qt::Key_T);
  hand.moveTo(room->spread(), room->spread()->tileRect("street", 20).center());
  picture("table");
}

TEST_F(Portraits, AHedgeIsStretchedInFerryStreet) {
  MapCanvas* canvas = room->canvas();
  session().verbs().maps.goTo(session().quilt().mapNamed("Ferry Street")->id);
  hand.key(Qt::Key_0);
  canvas->centreOn({24 * 32.0, 13 * 32.0});
  std::size_t hedge = 0;
  for (const Id id : shelfOrder(session().quilt())) {
    if (session().quilt().stamp(id)->name == "Hedge") break;
    ++hedge;
  }
  Shelf* shelf = room->tablePanel()->shelf();
  hand.click(shelf, shelf->rectOf(hedge).center());
  hand.drag(canvas, {onMap({17, 20}), onMap({20, 20}), onMap({26, 20})});
  hand.moveTo(canvas, onMap({22, 20}));
  picture("stretch");
}

TEST_F(Portraits, TheLensOverATram) {
  hand.key(Qt::Key_F);
  hand.click(room->canvas(), onMap({28, 9}), Qt::MiddleButton);
  picture("lens", room->canvas()->lens());
  room->canvas()->lens()->hide();
}

TEST_F(Portraits, WhatIsUsedHereLightsUp) {
  Story::choose(ActionId::usedHere);
  FoundTiles* list = room->tablePanel()->found();
  hand.moveTo(list, list->rectOf(5).center());
  picture("used-here");
}

TEST_F(Portraits, HelpIsFoundByAnyWord) {
  hand.key(Qt::Key_F1);
  hand.type(QStringLiteral("layer"));
  picture("help");
  if (QWidget* popup = QApplication::activePopupWidget()) popup->hide();
}

TEST_F(Portraits, TheStartPageAfterSomeDays) {
  // Two more quilts: one planned with chalk, one empty.
  for (const char* name : {"Lantern Tales", "Signal Loft"}) {
    room->newQuilt(QLatin1String(name), StartPage::quiltsFolder() + QLatin1Char('/') + QLatin1String(name));
    awaitWork();
    hand.key(Qt::Key_Return);
    // A pond in a park, or a few rooms.
    const bool park = name[0] == 'L';
    const auto paint = [this](std::uint32_t colour, int fromX, int toX, int y) {
      session().verbs().hand.take(Block::of(Cell({kChalkSlot, colour}, {})));
      hand.drag(room->canvas(), {onMap({fromX, y}), onMap({toX, y})});
    };
    for (int y = 4; y < 28; ++y) {
      const int half = y < 16 ? y : 31 - y;
      paint(park ? 10 : 5, park ? 4 : 8, park ? 43 : 39, y);
      if (park && half > 8) paint(13, 33 - half, 19 + half, y);
      if (!park && y % 8 > 1) paint(4, 10, 22, y);
      if (!park && y % 8 > 1) paint(3, 25, 37, y);
    }
    hand.key(Qt::Key_S, Qt::ControlModifier);
    awaitWork();
  }
  room->openQuilt(QString::fromStdString(folder()));
  awaitWork();
  room.reset();
  openNothing();
  QSignalSpy drawn(room->startPage()->findChild<StartPictures*>(), &StartPictures::drawn);
  ASSERT_TRUE(waitFor([&] { return drawn.count() > 0; }));
  settle();
  picture("start");
}

TEST_F(Portraits, ACrateIsHeldOverTheQuay) {
  MapCanvas* canvas = room->canvas();
  session().verbs().maps.goTo(session().quilt().mapNamed("Quayside")->id);
  hand.click(room->stack()->card(session().map()->layerNamed("Goods")->id));
  hand.click(room->table(), onTable("wharf", 5));
  hand.moveTo(canvas, onMap({14, 12}));
  hand.key(Qt::Key_0);
  hand.moveTo(canvas, onMap({16, 11}));
  picture("quayside");
}

TEST_F(Portraits, TheMarketFromAbove) {
  session().verbs().maps.goTo(session().quilt().mapNamed("Roof Market")->id);
  room->canvas()->setFocus();
  hand.key(Qt::Key_F);
  picture("roof-market");
  hand.key(Qt::Key_P);
  hand.moveTo(room->canvas(), onMap({10, 20}));
  picture("plan-view");
}

TEST_F(Portraits, AWardIsTurnedOverTheBoard) {
  session().verbs().maps.goTo(session().quilt().mapNamed("Ward Board")->id);
  hand.click(room->table(), onTable("wards", 3));
  hand.moveTo(room->canvas(), onMap({10, 9}));
  picture("ward-board");
}

TEST_F(Portraits, APathIsSelectedByTheLocks) {
  session().verbs().maps.goTo(session().quilt().mapNamed("Canal Locks")->id);
  hand.click(room->stack()->card(session().map()->layerNamed("Towpaths")->id));
  hand.key(Qt::Key_5);
  hand.drag(room->canvas(), {onMap({3, 6}), onMap({7, 8})});
  hand.moveTo(room->canvas(), onMap({5, 7}));
  picture("canal-locks");
}

TEST_F(Portraits, ATramIsSelectedByNight) {
  Story::choose(ActionId::indigo);
  onTable("yard", 9 * 14 + 12);
  hand.drag(room->table(), {onTable("yard", 7 * 14 + 10), onTable("yard", 9 * 14 + 12)});
  hand.click(room->stack()->card(yard().layerNamed("Sheds & trams")->id));
  hand.key(Qt::Key_5);
  hand.drag(room->canvas(), {onMap({25, 8}), onMap({29, 10})});
  hand.moveTo(room->canvas(), onMap({27, 9}));
  hand.key(Qt::Key_0);
  EXPECT_EQ(session().desk().selection(), CellSet({25, 8, 30, 11}));
  hand.moveTo(room->canvas(), onMap({28, 9}));
  EXPECT_EQ(room->canvas()->tagText(), QStringLiteral("Move on Sheds & trams"));
  picture("workroom-indigo");
  Story::choose(ActionId::linen);
}

TEST_F(Portraits, TheStackOfLanternRowAroundTheWalker) {
  session().verbs().maps.goTo(session().quilt().mapNamed("Lantern Row")->id);
  settle();
  session().verbs().layers.choose(session().map()->layerNamed("Things")->id);
  hand.click(room->stack()->walkerCard());
  room->canvas()->setZoom(0.75, {});
  room->canvas()->centreOn({1250, 740});
  hand.moveTo(room.get(), {640, 10});
  settle();
  picture("stack");
}

TEST_F(Portraits, LanternRowAsThePlayerSeesIt) {
  session().verbs().maps.goTo(session().quilt().mapNamed("Lantern Row")->id);
  settle();
  hand.key(Qt::Key_B);
  session().verbs().maps.setCamera({1010, 610});
  room->canvas()->setZoom(1.4, {});
  room->canvas()->centreOn({1250, 740});
  session().verbs().layers.choose(session().map()->layerNamed("Chimneys")->id);
  hand.moveTo(room.get(), {640, 10});
  settle();
  EXPECT_TRUE(room->canvas()->frameRect());
  picture("lantern-row");
}

}  // namespace uq::test
