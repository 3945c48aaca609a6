// What happens in the middle of a gesture: work that ends under a pressed button, Esc, a save, a quilt that may not be
// changed.
#include <QImage>
#include <QSignalSpy>
#include <QToolButton>

#include <filesystem>
#include <fstream>

#include "app/HeldDisk.h"
#include "app/PaintingStory.h"
#include "app/look/NumberField.h"
#include "app/table/FoundTiles.h"
#include "app/table/Shelf.h"
#include "app/workroom/SheetWork.h"
#include "core/edit/ArrangeStamps.h"

namespace uq::test {

class UnderTheHand : public PaintingHand {
 protected:
  UnderTheHand() { disk = held; }

  QString drawn(const QString& name, QColor colour, QSize size = {96, 64}) {
    QImage picture(size, QImage::Format_ARGB32);
    picture.fill(colour);
    const QString path = files_.filePath(name);
    EXPECT_TRUE(picture.save(path));
    return path;
  }
  // Pictures that were dropped, and wait for the disk.
  void dropAndHold() {
    held->hold(".png");
    hand.drop(room->table(), QPointF(100, 200), {drawn(QStringLiteral("Fish.png"), Qt::darkCyan)});
    ASSERT_TRUE(room->work().isRunning());
  }
  bool cameIn() {
    const auto& sheets = session().quilt().sheets();
    return std::any_of(sheets.begin(), sheets.end(), [](const auto& one) { return one->name == "Fish"; });
  }
  // Lets the work end while a button is down; `letGo` ends the gesture.
  void endWorkUnder(const std::function<void()>& letGo) {
    const std::size_t before = steps();
    ASSERT_TRUE(session().inGesture());
    held->letGo();
    awaitWork();
    settle();
    EXPECT_FALSE(cameIn()) << "nothing comes in under the hand";
    EXPECT_TRUE(session().inGesture()) << "the gesture goes on";
    letGo();
    ASSERT_TRUE(waitFor([&] { return cameIn(); })) << "it comes right after";
    EXPECT_EQ(steps(), before + 2) << "two steps: the gesture, and what came in";
    EXPECT_FALSE(session().inGesture());
  }
  QPointF cell(int x, int y) { return onMap({x, y}); }
  void hang() {
    hand.drop(canvas(), canvas()->rect().center(), {drawn(QStringLiteral("Sky.png"), Qt::blue, {256, 128})});
    auto* choice = room->findChild<QWidget*>(QStringLiteral("hang-as-backdrop"));
    if (choice && choice->isVisible()) hand.click(choice);
    awaitWork();
    settle();
    if (backdrop()) session().verbs().layers.choose(backdrop()->id);
    hand.key(Qt::Key_F);
  }
  const Layer* backdrop() {
    for (const Shared<Layer>& one : session().map()->layers) {
      if (one->kind == LayerKind::backdrop) return &one.read();
    }
    return nullptr;
  }

  std::shared_ptr<HeldDisk> held = std::make_shared<HeldDisk>();
  QTemporaryDir files_;
};

TEST_F(UnderTheHand, PicturesComeInAfterAStroke) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  dropAndHold();
  hand.press(canvas(), cell(2, 2));
  hand.moveTo(canvas(), cell(5, 2));
  endWorkUnder([&] {
    hand.moveTo(canvas(), cell(7, 2));
    hand.release(canvas(), cell(7, 2));
  });
  EXPECT_EQ(at("Ground", {6, 2}), Cell(tile("street", 24), {}));
  undo();
  EXPECT_FALSE(cameIn());
  EXPECT_EQ(at("Ground", {6, 2}), Cell(tile("street", 24), {}));
}

TEST_F(UnderTheHand, PicturesComeInAfterAMove) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.drag(canvas(), {cell(2, 2), cell(4, 2)});
  hand.key(Qt::Key_5);
  hand.drag(canvas(), {cell(2, 2), cell(4, 3)});
  dropAndHold();
  hand.press(canvas(), cell(3, 2));
  hand.moveTo(canvas(), cell(5, 4));
  endWorkUnder([&] {
    hand.moveTo(canvas(), cell(6, 5));
    hand.release(canvas(), cell(6, 5));
  });
  EXPECT_EQ(at("Ground", {5, 5}), Cell(tile("street", 24), {}));
  EXPECT_TRUE(session().desk().selection().contains({5, 5}));
}

TEST_F(UnderTheHand, PicturesComeInAfterABarIsLetGo) {
  LayerCard* card = room->stack()->card(yard().layerNamed("Paving")->id);
  hand.click(card);
  dropAndHold();
  hand.press(card, card->parallaxPoint(100));
  hand.moveTo(card, card->parallaxPoint(60));
  endWorkUnder([&] {
    hand.moveTo(card, card->parallaxPoint(40));
    hand.release(card, card->parallaxPoint(40));
  });
  EXPECT_NEAR(yard().layerNamed("Paving")->parallax.across, 40, 3);
}

TEST_F(UnderTheHand, PicturesComeInAfterABackdropIsDragged) {
  makeGround();
  hang();
  ASSERT_TRUE(backdrop());
  dropAndHold();
  const QPointF from = canvas()->rect().center();
  const PixelPos before = backdrop()->offset;
  hand.press(canvas(), from, Qt::LeftButton, Qt::ControlModifier);
  hand.moveTo(canvas(), from + QPointF(40, 10));
  endWorkUnder([&] {
    hand.moveTo(canvas(), from + QPointF(90, 30));
    hand.release(canvas(), from + QPointF(90, 30), Qt::LeftButton, Qt::ControlModifier);
  });
  EXPECT_NE(backdrop()->offset, before);
}

// A save that ends the stroke is not disturbed either: what waits comes in when it is done.
TEST_F(UnderTheHand, PicturesComeInAfterASaveWithinAStroke) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  dropAndHold();
  hand.press(canvas(), cell(2, 2));
  hand.moveTo(canvas(), cell(5, 2));
  held->letGo();
  awaitWork();
  settle();
  ASSERT_FALSE(cameIn());
  held->hold(".cells");
  hand.key(Qt::Key_S, Qt::ControlModifier);
  ASSERT_TRUE(room->work().isRunning());
  settle();
  EXPECT_FALSE(cameIn()) << "not beside the save";
  held->letGo();
  awaitWork();
  ASSERT_TRUE(waitFor([&] { return cameIn(); }));
  EXPECT_FALSE(session().isSaved());
  hand.release(canvas(), cell(5, 2));
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(session().isSaved());
}

// Esc ends the drag of a backdrop: what the button does until it is let go moves nothing, and makes no step.
TEST_F(UnderTheHand, EscEndsTheDragOfABackdrop) {
  makeGround();
  hang();
  ASSERT_TRUE(backdrop());
  const PixelPos before = backdrop()->offset;
  const std::size_t count = steps();
  const QPointF from = canvas()->rect().center();
  hand.press(canvas(), from);
  hand.moveTo(canvas(), from + QPointF(40, 10));
  hand.key(Qt::Key_Escape);
  for (int i = 1; i <= 5; ++i) hand.moveTo(canvas(), from + QPointF(20 * i, 10 * i));
  hand.release(canvas(), from + QPointF(100, 50));
  EXPECT_EQ(backdrop()->offset, before);
  EXPECT_EQ(steps(), count);
  // The next one moves it again.
  hand.drag(canvas(), {from, from + QPointF(60, 0), from + QPointF(120, 0)});
  EXPECT_NE(backdrop()->offset, before);
  EXPECT_EQ(steps(), count + 1);
}

// A save takes what is there, ends the move, and nothing jumps on.
TEST_F(UnderTheHand, SavingDuringAMoveMovesOnce) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.click(canvas(), cell(2, 2));
  hand.key(Qt::Key_5);
  hand.drag(canvas(), {cell(2, 2), cell(3, 3)});
  hand.press(canvas(), cell(2, 2));
  hand.moveTo(canvas(), cell(5, 4));
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  hand.moveTo(canvas(), cell(8, 7));
  hand.release(canvas(), cell(8, 7));
  EXPECT_EQ(at("Ground", {5, 4}), Cell(tile("street", 24), {}));
  EXPECT_TRUE(at("Ground", {8, 7}).empty());
  EXPECT_TRUE(session().isSaved());
}

// A map of which a part could not be read takes no change, by a bar or field either, and the rest can be saved.
TEST_F(UnderTheHand, BarsLeaveAMapAloneThatWasNotReadWhole) {
  close();
  const std::string file = folder() + "/maps/depot-yard/paving.cells";
  std::filesystem::resize_file(file, std::filesystem::file_size(file) / 2);
  openDemo();
  const Map before = yard();
  LayerCard* card = room->stack()->card(yard().layerNamed("Paving")->id);
  hand.drag(card, {card->parallaxPoint(100), card->parallaxPoint(60), card->parallaxPoint(40)});
  EXPECT_EQ(yard(), before);
  EXPECT_THAT(room->notices()->text().toStdString(), testing::HasSubstr("paving.cells"));
  makeGround();
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(session().isSaved()) << room->notices()->text().toStdString();
}

// Gathered one after another, the Table stays where it is; nothing falls on the map below.
TEST_F(UnderTheHand, TheSpreadTableStaysWhileOneGathers) {
  makeGround();
  const Map before = siding();
  hand.click(room->table(), onTable("street", 24));
  canvas()->setFocus();
  hand.key(Qt::Key_T);
  TableView* spread = room->spread();
  ASSERT_TRUE(spread->isVisible());
  for (const std::uint32_t number : {25u, 26u, 27u}) {
    spread->reveal("street", number);
    settle();
    hand.click(spread, spread->tileRect("street", number).center(), Qt::LeftButton, Qt::ShiftModifier);
    EXPECT_TRUE(spread->isVisible());
  }
  EXPECT_EQ(session().desk().inHand.members.size(), 4u);
  EXPECT_EQ(siding(), before);
  hand.key(Qt::Key_T);
  EXPECT_FALSE(spread->isVisible());
}

// A tool key that is let go before the button springs back when that is let go.
TEST_F(UnderTheHand, AHeldToolKeyLetGoWithinAStrokeSpringsBack) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  ASSERT_EQ(session().desk().tool, Tool::brush);
  ASSERT_TRUE(room->table()->hasFocus()) << "where something was just taken";
  hand.moveTo(canvas(), cell(1, 1));
  hand.hold(Qt::Key_3);
  hand.press(canvas(), cell(2, 2));
  hand.moveTo(canvas(), cell(4, 4));
  hand.letGo(Qt::Key_3);
  EXPECT_EQ(session().desk().tool, Tool::box);
  hand.release(canvas(), cell(4, 4));
  EXPECT_EQ(session().desk().tool, Tool::brush);
  // Later strokes stay what they are.
  hand.key(Qt::Key_4);
  hand.click(canvas(), cell(9, 9));
  EXPECT_EQ(session().desk().tool, Tool::fill);
}

// As many maps as there are, with whatever names: the window stays as wide as it was.
TEST_F(UnderTheHand, ManyTabsNeverWidenTheWindow) {
  const int width = room->width();
  for (int i = 0; i < 24; ++i) {
    MapPlan plan;
    plan.name = "A map with a long name that nobody could read whole, number " + std::to_string(i);
    plan.width = plan.height = 4;
    session().verbs().maps.add(plan);
  }
  settle();
  EXPECT_LE(room->minimumSizeHint().width(), 1024);
  EXPECT_EQ(room->width(), width);
  // The active one is in sight, and others are reached by the wheel.
  QToolButton* last = room->tabs()->tab(session().desk().map);
  EXPECT_FALSE(last->visibleRegion().isEmpty());
  QToolButton* first = room->tabs()->tab(session().desk().openMaps.front());
  EXPECT_TRUE(first->visibleRegion().isEmpty());
  hand.wheel(room->tabs(), QPointF(200, 15), 200);
  EXPECT_FALSE(first->visibleRegion().isEmpty());
  hand.click(first);
  EXPECT_EQ(session().desk().map, session().desk().openMaps.front());
  picture("many-tabs");
}

TEST_F(UnderTheHand, MapsThatComeBackHaveTheirTabsAgain) {
  makeGround();
  const std::size_t maps = session().quilt().maps().size();
  ASSERT_EQ(session().desk().openMaps.size(), maps);
  for (std::size_t i = 0; i < maps; ++i) choose(ActionId::deleteMap);
  EXPECT_TRUE(session().quilt().maps().empty());
  for (std::size_t i = 0; i < maps; ++i) undo();
  EXPECT_EQ(session().quilt().maps().size(), maps);
  EXPECT_EQ(session().desk().openMaps.size(), maps);
  for (const Id map : session().desk().openMaps) {
    ASSERT_TRUE(room->tabs()->tab(map));
    EXPECT_FALSE(room->tabs()->tab(map)->text().isEmpty());
  }
}

// Any map is seen whole, the largest too.
TEST_F(UnderTheHand, TheLargestMapFitsTheWindow) {
  MapPlan plan;
  plan.name = "Vast";
  plan.width = plan.height = 4096;
  session().verbs().maps.add(plan);
  settle();
  hand.key(Qt::Key_F);
  const QRectF all = canvas()->cellRect({0, 0}).united(canvas()->cellRect({4095, 4095}));
  EXPECT_TRUE(QRectF(canvas()->rect()).contains(all)) << all.width();
}

// The plan view goes forth and back to the very pixel.
TEST_F(UnderTheHand, PTwiceIsNothing) {
  makeGround(GridKind::diamond);
  hand.wheel(canvas(), canvas()->rect().center(), 3, Qt::ControlModifier);
  hand.wheel(canvas(), QPointF(300, 200), 2);
  const QPointF before = canvas()->cellRect({5, 5}).center();
  for (int i = 0; i < 3; ++i) {
    hand.key(Qt::Key_P);
    hand.key(Qt::Key_P);
    EXPECT_EQ(canvas()->cellRect({5, 5}).center(), before);
  }
}

// A stamp that is let go beside the shelf stays where it was.
TEST_F(UnderTheHand, AStampDroppedOnAFoundTileStaysInItsPlace) {
  for (const std::uint32_t number : {24u, 25u, 26u}) {
    hand.click(room->table(), onTable("street", number));
    canvas()->setFocus();
    hand.key(Qt::Key_K);
  }
  ASSERT_EQ(session().quilt().stamps().size(), 3u);
  const auto order = shelfOrder(session().quilt());
  choose(ActionId::usedHere);
  auto* shelf = room->findChild<Shelf*>();
  FoundTiles* found = room->tablePanel()->found();
  ASSERT_TRUE(shelf->isVisible() && found->isVisible());
  const QPointF from(20, 20);
  const QPointF onto = shelf->mapFrom(room.get(), found->mapTo(room.get(), found->rectOf(1).center().toPoint()));
  hand.drag(shelf, {from, from + QPointF(60, 0), onto});
  EXPECT_EQ(shelfOrder(session().quilt()), order);
  // On the shelf it is put elsewhere, as ever.
  hand.drag(shelf, {from, from + QPointF(30, 0), from + QPointF(60, 0)});
  EXPECT_NE(shelfOrder(session().quilt()), order);
}

// However many rows the tape has, a sheet's card ends above it.
TEST_F(UnderTheHand, TheCardOfASheetLeavesTheTapeFree) {
  for (const int width : {1280, 1024}) {
    room->resize(width, 700);
    settle();
    const Id sheet = session().quilt().sheets().front()->id;
    room->table()->revealSheet(sheet);
    settle();
    hand.click(room->table(), room->table()->headingRect(sheet).center());
    ASSERT_TRUE(room->sheetCard()->isVisible());
    auto* tape = in<QWidget>("tape");
    const int bottom = room->sheetCard()->mapTo(room.get(), QPoint(0, room->sheetCard()->height())).y();
    EXPECT_LE(bottom, tape->mapTo(room.get(), QPoint()).y()) << width;
    hand.key(Qt::Key_Escape);
  }
}

TEST_F(UnderTheHand, AMaximisedWindowStaysAsLargeAsItIs) {
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  close();
  openNothing();
  room->showMaximized();
  settle();
  const QSize size = room->size();
  room->openQuilt(QString::fromStdString(folder()));
  awaitWork();
  settle();
  // The screen of the tests is narrower than the window can be used on.
  EXPECT_EQ(room->size(), size.expandedTo(room->minimumSizeHint()));
  EXPECT_TRUE(room->isMaximized());
}

}  // namespace uq::test
