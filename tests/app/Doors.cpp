// Pins and doorways by hand: spots placed, ways made over the Board, gone through and mended.
#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QSignalSpy>
#include <QToolButton>

#include "app/Story.h"
#include "app/board/BoardView.h"
#include "app/board/Cord.h"
#include "app/look/SentenceList.h"
#include "app/workroom/ThreadRound.h"
#include "core/edit/Doorways.h"
#include "core/edit/Pins.h"
#include "raster/JointFinder.h"

namespace uq::test {

using testing::HasSubstr;
using testing::SizeIs;

class Doors : public Story {
 protected:
  Doors() : Story(Demo::whole) {}
  void SetUp() override { openDemo(); }
  BoardView* board() { return room->board(); }
  Id mapNamed(const char* name) { return session().quilt().mapNamed(name)->id; }
  std::vector<Pin> pinsOf(const char* map) {
    std::vector<Pin> all;
    for (const Shared<Layer>& layer : session().quilt().mapNamed(map)->layers) {
      all.insert(all.end(), layer->pins->begin(), layer->pins->end());
    }
    std::sort(all.begin(), all.end(), [](const Pin& a, const Pin& b) { return a.number < b.number; });
    return all;
  }
  std::set<Id> doorwayIds() {
    std::set<Id> ids;
    for (const Shared<Doorway>& one : session().quilt().doorways()) ids.insert(one->id);
    return ids;
  }
  // The one that came since.
  Doorway newOne(const std::set<Id>& before) {
    for (const Shared<Doorway>& one : session().quilt().doorways()) {
      if (!before.contains(one->id)) return one.read();
    }
    return {};
  }
  // Where a cell of a map lies on the Board.
  QPointF onBoard(const char* name, CellPos cell) {
    const Map& map = *session().quilt().mapNamed(name);
    const auto grid = makeGrid(map.grid);
    const PixelRect all = grid->pixelBounds(map.bounds);
    const PixelRect box = grid->cellBox(cell);
    const QRectF piece = board()->pieceRect(map.id);
    return piece.topLeft() + QPointF((box.x + box.w / 2.0 - all.x) / all.w * piece.width(), (box.y + box.h / 2.0 - all.y) / all.h * piece.height());
  }
  // Until what hangs loose was looked at after the last change.
  const Checked& threads() {
    auto* round = room->findChild<ThreadRound*>();
    QSignalSpy looked(round, &ThreadRound::looked);
    while (round->isDue()) EXPECT_TRUE(looked.wait(10000));
    return round->checked();
  }
  bool tells(std::string_view kind) {
    const auto& all = threads().threads;
    return std::any_of(all.begin(), all.end(), [&](const LooseThread& one) { return one.kind == kind; });
  }
};

TEST_F(Doors, ADoorANewRoomAndTheWayBackAreMadeInFourSteps) {
  const std::set<Id> before = doorwayIds();
  const std::size_t maps = session().quilt().maps().size();
  const int actions = hand.actions();
  hand.key(Qt::Key_9);
  hand.click(room->canvas(), onMap({9, 7}));
  hand.key(Qt::Key_L);
  ASSERT_TRUE(board()->cord());
  picture("cord-in-hand");
  const QPointF bare(board()->width() - 60.0, 60);
  hand.click(board(), bare);
  EXPECT_LE(hand.actions() - actions, 6);
  report("a door, a new room and the door back");
  ASSERT_EQ(session().quilt().maps().size(), maps + 1);
  const Doorway way = newOne(before);
  ASSERT_TRUE(way.back);
  EXPECT_EQ(way.from.map, mapNamed("Depot Yard"));
  const Map& made = *session().quilt().map(way.to.map);
  EXPECT_EQ(made.grid, yard().grid);
  EXPECT_EQ(way.arriving, Heading::north) << "into the room from its lower edge";
  EXPECT_FALSE(board()->cord());
  EXPECT_EQ(session().desk().map, mapNamed("Depot Yard")) << "work goes on where it was";
  // One step: taken back on the Board, where it was made.
  hand.key(Qt::Key_B, Qt::ControlModifier);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt().maps().size(), maps);
  EXPECT_EQ(doorwayIds(), before);
}

TEST_F(Doors, AWayToAMapThatIsThereIsMadeAndGoneThrough) {
  const std::set<Id> before = doorwayIds();
  const int actions = hand.actions();
  hand.key(Qt::Key_9);
  hand.click(room->canvas(), onMap({20, 14}));
  hand.key(Qt::Key_L);
  hand.moveTo(board(), onBoard("Quayside", {14, 9}));
  ASSERT_TRUE(board()->cord()->target());
  EXPECT_EQ(board()->cord()->target()->map, mapNamed("Quayside"));
  picture("cord-over-a-map");
  hand.click(board(), onBoard("Quayside", {14, 9}));
  EXPECT_LE(hand.actions() - actions, 4);
  report("a way to a map that is there, and back");
  const Doorway way = newOne(before);
  EXPECT_TRUE(way.back);
  EXPECT_TRUE(sideOf(GridKind::diamond, way.arriving)) << "a heading that diamonds have";
  // There, to the very cell; back and on again.
  hand.click(room->canvas(), onMap({20, 14}), Qt::LeftButton, Qt::ControlModifier);
  EXPECT_EQ(session().desk().map, mapNamed("Quayside"));
  EXPECT_EQ(session().desk().chosenPins, (std::set<Id>{way.to.pin}));
  const CellPos arrived = session().quilt().pin(way.to)->cell;
  EXPECT_TRUE(QRectF(room->canvas()->rect()).contains(onMap(arrived)));
  picture("arrived");
  hand.key(Qt::Key_Left, Qt::AltModifier);
  EXPECT_EQ(session().desk().map, mapNamed("Depot Yard"));
  hand.key(Qt::Key_Right, Qt::AltModifier);
  EXPECT_EQ(session().desk().map, mapNamed("Quayside"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().desk().map, mapNamed("Depot Yard")) << "Enter goes through as well";
}

TEST_F(Doors, ABrokenWayIsFoundAndMended) {
  PinVerbs& pins = session().verbs().pins;
  pins.place({20, 14, 21, 15});
  const PinAt from = pins.chosen();
  const std::set<Id> before = doorwayIds();
  ASSERT_FALSE(pins.lead(from, {mapNamed("Signal Loft"), {}, {4, 5}, true, {}}).empty());
  session().verbs().maps.remove(mapNamed("Signal Loft"));
  ASSERT_TRUE(tells("dead doorway"));
  const int actions = hand.actions();
  hand.click(part<QToolButton>("foot-threads"));
  auto* list = part<QListWidget>("threads-list");
  ASSERT_TRUE(list->isVisible());
  picture("loose-threads");
  // The newest is not always the first: the row is pressed, and leads there.
  int row = 0;
  while (row < list->count() && !list->item(row)->text().contains(QStringLiteral("a map that is gone"))) ++row;
  ASSERT_LT(row, list->count());
  list->setCurrentRow(row);
  hand.click(part<QPushButton>("threads-mend"));
  EXPECT_LE(hand.actions() - actions, 2);
  report("a broken way found and mended");
  EXPECT_EQ(doorwayIds().size(), before.size()) << "one of the two that led there is gone";
  (void)threads();
  EXPECT_TRUE(list->item(row)->font().strikeOut()) << "the row stays where it was";
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(list->isVisible());
}

TEST_F(Doors, TheStartMovesToTheCellUnderThePointer) {
  hand.key(Qt::Key_9);
  hand.moveTo(room->canvas(), onMap({12, 15}));
  const int actions = hand.actions();
  hand.key(Qt::Key_L, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_LE(hand.actions() - actions, 2);
  report("the start moved to the cell under the pointer");
  const PinAt start = session().quilt().facts().start;
  ASSERT_TRUE(session().quilt().pin(start));
  EXPECT_EQ(session().quilt().pin(start)->cell, (CellPos{12, 15}));
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_FALSE(session().quilt().facts().start == start && session().quilt().pin(start)->cell == CellPos(12, 15));
}

TEST_F(Doors, SpotsArePlacedChosenMovedCopiedAndTakenAway) {
  const std::size_t were = pinsOf("Depot Yard").size();
  const Quilt untouched = session().quilt();
  hand.key(Qt::Key_9);
  hand.click(room->canvas(), onMap({10, 15}));
  hand.click(room->canvas(), onMap({14, 15}));
  ASSERT_THAT(pinsOf("Depot Yard"), SizeIs(were + 2));
  // A drag on bare ground chooses what it frames; what is chosen is dragged as one.
  hand.drag(room->canvas(), {onMap({9, 14}), onMap({15, 16})});
  ASSERT_THAT(session().desk().chosenPins, SizeIs(2));
  hand.drag(room->canvas(), {onMap({10, 15}), onMap({11, 17})});
  const auto cells = [&] {
    std::set<CellPos> all;
    for (const Id pin : session().desk().chosenPins) all.insert(yard().pin(pin)->cell);
    return all;
  };
  EXPECT_EQ(cells(), (std::set<CellPos>{{11, 17}, {15, 17}}));
  hand.key(Qt::Key_Right);
  EXPECT_EQ(cells(), (std::set<CellPos>{{12, 17}, {16, 17}}));
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(cells(), (std::set<CellPos>{{11, 17}, {15, 17}}));
  hand.key(Qt::Key_C, Qt::ControlModifier);
  hand.moveTo(room->canvas(), onMap({20, 16}));
  hand.key(Qt::Key_V, Qt::ControlModifier);
  EXPECT_THAT(pinsOf("Depot Yard"), SizeIs(were + 4));
  EXPECT_EQ(cells(), (std::set<CellPos>{{20, 16}, {24, 16}})) << "the copies are chosen";
  hand.key(Qt::Key_Delete);
  EXPECT_THAT(pinsOf("Depot Yard"), SizeIs(were + 2));
  // A box of cells with Shift.
  hand.drag(room->canvas(), {onMap({30, 14}), onMap({32, 15})}, Qt::LeftButton, Qt::ShiftModifier);
  EXPECT_EQ(yard().pin(*session().desk().chosenPins.begin())->box(), (CellRect{30, 14, 33, 16}));
  hand.key(Qt::Key_Escape);
  EXPECT_TRUE(session().desk().chosenPins.empty());
  // Esc in the middle of a drag leaves all where it was.
  const Quilt before = session().quilt();
  hand.press(room->canvas(), onMap({11, 17}));
  hand.moveTo(room->canvas(), onMap({18, 18}));
  hand.key(Qt::Key_Escape);
  hand.release(room->canvas(), onMap({18, 18}));
  EXPECT_EQ(session().quilt(), before);
  while (session().quilt() != untouched && room->actions()->action(ActionId::undo)->isEnabled()) hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt(), untouched);
}

TEST_F(Doors, WhatIsSaidOfAWayIsChangedInItsSentences) {
  PinVerbs& pins = session().verbs().pins;
  const std::set<Id> before = doorwayIds();
  hand.key(Qt::Key_9);
  hand.click(room->canvas(), onMap({20, 14}));
  (void)pins.lead(pins.chosen(), {mapNamed("Lantern Row"), {}, {30, 27}, true, {}});
  const Id id = newOne(before).id;
  const auto way = [&]() -> const Doorway& { return *session().quilt().listed<Doorway>(id); };
  auto* name = part<QLineEdit>("pin-name");
  ASSERT_TRUE(name && name->isVisible());
  hand.click(name);
  hand.type(QStringLiteral("Gate"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().quilt().pin(way().from)->name, "Gate");
  auto* needs = part<QLineEdit>("pin-needs");
  needs->setFocus();
  hand.type(QStringLiteral("the brass key"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(way().needs, "the brass key");
  EXPECT_THAT(doorwayText(session().quilt(), way()), HasSubstr("Gate leads to Lantern Row, arriving at “"));
  auto* facing = part<QComboBox>("pin-facing");
  const Heading was = way().arriving;
  facing->setFocus();
  hand.key(facing->currentIndex() > 0 ? Qt::Key_Up : Qt::Key_Down);
  EXPECT_NE(way().arriving, was);
  part<QCheckBox>("pin-back")->setFocus();
  hand.key(Qt::Key_Space);
  EXPECT_FALSE(way().back);
  EXPECT_TRUE(tells("no way back"));
  part<QCheckBox>("pin-meant-so")->setFocus();
  hand.key(Qt::Key_Space);
  EXPECT_TRUE(way().meantSo);
  picture("pin-sentences");
  // Kept in the quilt's files.
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  const Doorway saved = way();
  close();
  openDemo();
  ASSERT_TRUE(session().quilt().listed<Doorway>(id));
  EXPECT_EQ(*session().quilt().listed<Doorway>(id), saved);
}

TEST_F(Doors, AWayIsMadeByKeysAlone) {
  const std::set<Id> before = doorwayIds();
  hand.key(Qt::Key_9);
  part<QToolButton>("foot-size")->setFocus();
  room->canvas()->setFocus(Qt::TabFocusReason);
  hand.key(Qt::Key_Return);
  ASSERT_THAT(session().desk().chosenPins, SizeIs(1));
  hand.key(Qt::Key_L);
  ASSERT_TRUE(board()->cord());
  hand.key(Qt::Key_Up);
  ASSERT_TRUE(board()->cord()->target());
  const CellPos first = board()->cord()->target()->cell;
  hand.key(Qt::Key_Right, Qt::ShiftModifier);
  EXPECT_EQ(board()->cord()->target()->cell.x, first.x + 1);
  const Heading proposed = board()->cord()->heading();
  hand.key(Qt::Key_E);
  EXPECT_NE(board()->cord()->heading(), proposed);
  hand.key(Qt::Key_O);
  hand.key(Qt::Key_Return);
  const Doorway way = newOne(before);
  EXPECT_FALSE(way.back);
  EXPECT_NE(way.arriving, proposed);
  // A cord that is dropped makes nothing.
  const Quilt quilt = session().quilt();
  hand.key(Qt::Key_L);
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(board()->cord());
  EXPECT_EQ(session().quilt(), quilt);
  EXPECT_FALSE(session().desk().onBoard);
}

// What `uquilt check` works out of the same quilt, with pictures loaded anew.
TEST_F(Doors, TheWindowListsWhatTheCommandLinePrints) {
  PinVerbs& pins = session().verbs().pins;
  pins.place({20, 14, 21, 15});
  ASSERT_FALSE(pins.lead(pins.chosen(), {mapNamed("Signal Loft"), {}, {4, 5}, false, {}}).empty());
  session().verbs().maps.remove(mapNamed("Signal Loft"));
  const std::vector<LooseThread> inTheWindow = threads().threads;
  EXPECT_THAT(inTheWindow, SizeIs(testing::Gt(2u)));
  Errors problems;
  JointFinder joints(SheetPictures::load(session().quilt(), problems));
  Checks checks([&](const Quilt& quilt, const GridShape& shape) { return &joints.bookFor(quilt, shape); });
  EXPECT_EQ(checks.of(session().quilt()).threads, inTheWindow);
}

TEST_F(Doors, AKindOfThreadsIsSilencedWithAReason) {
  session().verbs().maps.duplicate();
  ASSERT_TRUE(tells("nothing leads there"));
  hand.key(Qt::Key_L, Qt::ControlModifier | Qt::AltModifier);
  auto* list = part<QListWidget>("threads-list");
  int row = 0;
  while (row < list->count() && !list->item(row)->text().contains(QStringLiteral("Nothing leads to"))) ++row;
  ASSERT_LT(row, list->count());
  list->setCurrentRow(row);
  EXPECT_FALSE(part<QPushButton>("threads-silence")->isEnabled()) << "a reason is wanted";
  part<QLineEdit>("threads-reason")->setFocus();
  hand.type(QStringLiteral("reached by tram"));
  hand.click(part<QPushButton>("threads-silence"));
  EXPECT_EQ(session().quilt().facts().silenced.at("nothing leads there"), "reached by tram");
  EXPECT_FALSE(tells("nothing leads there"));
}

TEST_F(Doors, AnEdgeThatIsNotSewnLeadsAway) {
  hand.key(Qt::Key_9);
  const Map& before = yard();
  const CellRect bounds = before.bounds;
  session().verbs().maps.goTo(mapNamed("Lantern Row"));
  room->canvas()->fitMap();
  const CellRect row = session().map()->bounds;
  hand.moveTo(room->canvas(), onMap({row.x0 - 2, row.y0 + 3}));
  EXPECT_TRUE(room->canvas()->tagText().contains(QStringLiteral("west edge"))) << room->canvas()->tagText().toStdString();
  hand.click(room->canvas(), onMap({row.x0 - 2, row.y0 + 3}));
  ASSERT_THAT(session().desk().chosenPins, SizeIs(1));
  const Id pin = *session().desk().chosenPins.begin();
  ASSERT_EQ(session().map()->pin(pin)->edge, MapEdge::left);
  EXPECT_EQ(session().map()->pin(pin)->name, "west edge");
  // The same place again is the same pin, and in its sentences it becomes a cell, and an edge again.
  hand.key(Qt::Key_Escape);
  hand.click(room->canvas(), onMap({row.x0 - 3, row.y0 + 7}));
  EXPECT_EQ(session().desk().chosenPins, (std::set<Id>{pin}));
  auto* lies = part<QComboBox>("pin-lies");
  ASSERT_TRUE(lies->isVisible());
  lies->setFocus();
  hand.key(Qt::Key_Home);
  EXPECT_FALSE(session().map()->pin(pin)->edge);
  hand.key(Qt::Key_End);
  EXPECT_EQ(session().map()->pin(pin)->edge, MapEdge::bottom);
  // Where a map is sewn, one walks over.
  session().verbs().maps.goTo(mapNamed("Depot Yard"));
  const std::size_t pins = pinsOf("Depot Yard").size();
  session().verbs().pins.placeEdge(MapEdge::right);
  EXPECT_THAT(pinsOf("Depot Yard"), SizeIs(pins)) << "Ferry Street is sewn there " << bounds.x1;
}

TEST_F(Doors, ADoorIsBegunInTheLens) {
  const std::size_t were = pinsOf("Depot Yard").size();
  hand.moveTo(room->canvas(), onMap({20, 14}));
  hand.key(Qt::Key_V);
  auto* door = part<QPushButton>("lens-door");
  ASSERT_TRUE(door && door->isVisible());
  hand.click(door);
  ASSERT_TRUE(board()->cord());
  EXPECT_THAT(pinsOf("Depot Yard"), SizeIs(were + 1));
  EXPECT_EQ(session().quilt().pin(board()->cord()->from())->cell, (CellPos{20, 14}));
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(session().desk().onBoard);
}

TEST_F(Doors, WhereADoorwayLeadsIsSeenWhileItIsPointedAt) {
  PinVerbs& pins = session().verbs().pins;
  hand.key(Qt::Key_9);
  pins.place({20, 14, 21, 15});
  const PinAt from = pins.chosen();
  ASSERT_FALSE(pins.lead(from, {mapNamed("Quayside"), {}, {14, 9}, true, {}}).empty());
  hand.moveTo(room->canvas(), onMap({28, 18}));
  const QImage without = room->canvas()->grab().toImage();
  hand.moveTo(room->canvas(), onMap({20, 14}));
  const QImage with = room->canvas()->grab().toImage();
  picture("where-it-leads");
  EXPECT_NE(without, with);
  // The other end of the look is the quayside's ground, which the yard has not: so many pixels differ.
  int differ = 0;
  for (int y = 0; y < with.height(); y += 4) {
    for (int x = 0; x < with.width(); x += 4) differ += with.pixel(x, y) != without.pixel(x, y);
  }
  EXPECT_GT(differ, 264 * 200 / 16 / 2);
  // A tile as its picture, taken from the hand.
  hand.click(room->canvas(), onMap({20, 14}));
  Desk desk = session().desk();
  desk.inHand = InHand(Block::of(Cell({1, 3}, {})), GridKind::orthogonal);
  session().setDesk(desk);
  auto* looks = part<QPushButton>("pin-looks");
  ASSERT_TRUE(looks->isVisible());
  ASSERT_TRUE(looks->isEnabled());
  looks->setFocus();
  ASSERT_TRUE(looks->hasFocus());
  hand.key(Qt::Key_Space);
  const Id way = doorwaysOf(session().quilt(), from).front();
  ASSERT_TRUE(session().quilt().listed<Doorway>(way)->picture);
  EXPECT_EQ(session().quilt().listed<Doorway>(way)->picture->tile, 3u);
  picture("door-as-a-tile");
  hand.key(Qt::Key_Space);
  EXPECT_FALSE(session().quilt().listed<Doorway>(way)->picture);
}

TEST_F(Doors, TheBoardSaysTheWaysAndOneEndIsDraggedToAnotherCell) {
  hand.key(Qt::Key_B, Qt::ControlModifier);
  auto* ways = part<SentenceList>("board-ways");
  ASSERT_TRUE(ways && ways->isVisible());
  const int ofYard = ways->count();
  EXPECT_GT(ofYard, 0);
  EXPECT_TRUE(ways->words(0).contains(QStringLiteral("leads to"))) << ways->words(0).toStdString();
  picture("board-ways");
  // Nothing chosen: all of them.
  hand.click(board(), {board()->width() - 12.0, 60});
  EXPECT_EQ(ways->count(), static_cast<int>(session().quilt().doorways().size()));
  EXPECT_GT(ways->count(), ofYard);
  // One end of the first is led to another cell of the map where it was.
  hand.click(board(), board()->pieceRect(mapNamed("Depot Yard")).center());
  const Doorway first = session().quilt().doorways().front().read();
  const auto at = board()->buttonAt(first.to);
  ASSERT_TRUE(at);
  board()->choose(first.to.map);
  const Map& there = *session().quilt().map(first.to.map);
  const CellPos was = there.pin(first.to.pin)->cell;
  const CellPos next{was.x > there.bounds.x0 + 2 ? was.x - 2 : was.x + 2, was.y};
  const std::string name = there.name;
  hand.drag(board(), {*at, onBoard(name.c_str(), next)});
  const Doorway moved = *session().quilt().listed<Doorway>(first.id);
  EXPECT_EQ(session().quilt().pin(moved.to)->cell, next);
  EXPECT_TRUE(session().desk().onBoard);
  EXPECT_FALSE(board()->cord());
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt().listed<Doorway>(first.id)->to, first.to);
  EXPECT_EQ(session().quilt().pin(first.to)->cell, was);
  // Esc in the middle leaves it.
  const Quilt quilt = session().quilt();
  hand.press(board(), *at);
  hand.moveTo(board(), onBoard(name.c_str(), next));
  ASSERT_TRUE(board()->cord());
  hand.key(Qt::Key_Escape);
  hand.release(board(), onBoard(name.c_str(), next));
  EXPECT_EQ(session().quilt(), quilt);
  // A sentence pressed twice goes to the door.
  ways->setFocus();
  hand.key(Qt::Key_Home);
  hand.key(Qt::Key_Return);
  EXPECT_FALSE(session().desk().onBoard);
  EXPECT_THAT(session().desk().chosenPins, SizeIs(1));
}

}  // namespace uq::test
