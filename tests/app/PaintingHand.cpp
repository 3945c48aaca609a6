// The painting hand at work: the jobs that a level designer does all day, each with its count of actions.
#include <QApplication>
#include <QClipboard>
#include <QLabel>
#include <QMimeData>
#include <QPushButton>
#include <QToolButton>

#include "app/PaintingStory.h"
#include "app/canvas/Lens.h"
#include "app/table/FoundTiles.h"
#include "app/table/HandPreview.h"
#include "core/edit/ArrangeStamps.h"

namespace uq::test {

TEST_F(PaintingHand, APlatformIsDrawnToItsSize) {
  makeGround();
  // End, middle, end lie side by side on the sheet. The first time the manner is said, later it stays.
  const QPointF last = onTable("street", 26);
  const int first = actionsOf([&] {
    hand.drag(room->table(), {onTable("street", 24), last});
    hand.key(Qt::Key_M);
    hand.drag(canvas(), {onMap({3, 4}), onMap({6, 4}), onMap({10, 4})});
  });
  EXPECT_EQ(first, 3);
  const auto row = [&](int y) {
    std::vector<std::uint32_t> numbers;
    for (int x = 2; x < 13; ++x) {
      const Cell cell = at("Ground", {x, y});
      numbers.push_back(cell.empty() ? 0 : cell.tile().number);
    }
    return numbers;
  };
  EXPECT_EQ(row(4), (std::vector<std::uint32_t>{0, 24, 25, 25, 25, 25, 25, 25, 26, 0, 0}));
  picture("hand-stretch");
  // Its ends stay in reach until the next press.
  const int shorter = actionsOf([&] {
    hand.drag(canvas(), {onMap({10, 4}) + QPointF(canvas()->zoom() * 16, 0), onMap({6, 4})});
  });
  EXPECT_EQ(shorter, 1);
  EXPECT_EQ(row(4), (std::vector<std::uint32_t>{0, 24, 25, 25, 26, 0, 0, 0, 0, 0, 0}));
  expectTheSameFromItsList("a stretch fitted anew");
  undo();
  EXPECT_EQ(row(4), (std::vector<std::uint32_t>{0, 24, 25, 25, 25, 25, 25, 25, 26, 0, 0}));
  // Another one is one drag, from what is still in hand.
  EXPECT_EQ(actionsOf([&] { hand.drag(canvas(), {onMap({3, 8}), onMap({7, 8})}); }), 1);
  EXPECT_EQ(row(8), (std::vector<std::uint32_t>{0, 24, 25, 25, 25, 26, 0, 0, 0, 0, 0}));
  report("a platform by stretch, the first time and the second");
}

TEST_F(PaintingHand, AHedgeIsShortenedByTwoActions) {
  makeGround();
  hand.drag(room->table(), {onTable("street", 24), onTable("street", 26)});
  hand.key(Qt::Key_M);
  hand.drag(canvas(), {onMap({3, 4}), onMap({12, 4})});
  hand.click(canvas(), onMap({15, 12}));
  undo();
  hand.key(Qt::Key_5);
  const int job = actionsOf([&] {
    hand.doubleClick(canvas(), onMap({5, 4}));
    hand.drag(canvas(), {onMap({12, 4}) + QPointF(canvas()->zoom() * 16, 0), onMap({8, 4})});
  });
  EXPECT_EQ(job, 2);
  expectTheSameFromItsList("a hedge shortened");
  EXPECT_EQ(at("Ground", {8, 4}).tile().number, 26u);
  EXPECT_TRUE(at("Ground", {9, 4}).empty());
  EXPECT_EQ(at("Ground", {3, 4}).tile().number, 24u);
}

TEST_F(PaintingHand, AThingOnTheGroundKeepsTheGround) {
  makeGround();
  // Grass first, then a crate: it belongs on the things' layer, and goes there by itself.
  hand.click(room->table(), onTable("street", 24));
  EXPECT_EQ(active(), "Ground");
  hand.key(Qt::Key_4);
  hand.moveTo(canvas(), onMap({5, 5}));
  EXPECT_EQ(tag(), "Fill on Ground · 384 cells");
  picture("hand-fill");
  hand.click(canvas(), onMap({5, 5}));
  const QPointF foot = onTable("yard", 9 * 14 + 12);
  const int job = actionsOf([&] {
    hand.drag(room->table(), {onTable("yard", 7 * 14 + 10), foot});
    hand.key(Qt::Key_1);
    EXPECT_EQ(active(), "Things");
    hand.click(canvas(), onMap({5, 5}));
  });
  EXPECT_LE(job, 4) << "a house on grass";
  EXPECT_EQ(at("Ground", {5, 5}), Cell(tile("street", 24), {}));
  EXPECT_FALSE(at("Things", {5, 5}).empty());
  EXPECT_EQ(steps(), 3u) << "with making the map";
  // Chosen by hand, the ground would be painted on; the tag says so before.
  hand.click(room->stack()->card(siding().layerNamed("Ground")->id));
  hand.moveTo(canvas(), onMap({12, 8}));
  EXPECT_EQ(tag(), "Brush on Ground");
  // Taken again, it goes where it belongs; and on a map with ground alone, the press makes a layer.
  hand.click(room->stack()->card(siding().layerNamed("Things")->id));
  hand.key(Qt::Key_Delete);
  session().verbs().layers.remove();
  hand.drag(room->table(), {onTable("yard", 7 * 14 + 10), onTable("yard", 9 * 14 + 12)});
  hand.moveTo(canvas(), onMap({12, 8}));
  EXPECT_EQ(tag(), "Brush on a new layer, keeps Ground");
  picture("hand-landing");
  hand.click(canvas(), onMap({12, 8}));
  expectTheSameFromItsList("a layer made by the press");
  EXPECT_EQ(siding().layers.size(), 2u);
  EXPECT_EQ(at("Ground", {12, 8}), Cell(tile("street", 24), {}));
  undo();
  EXPECT_EQ(siding().layers.size(), 1u);
  report("a house on grass, without loss");
}

TEST_F(PaintingHand, ARoadOfLookAlikesIsThrownUntilItLooksRight) {
  makeGround();
  const QPointF last = onTable("street", 26);
  const int gathering = actionsOf([&] {
    hand.click(room->table(), onTable("street", 24));
    hand.drag(room->table(), {onTable("street", 25), last}, Qt::LeftButton, Qt::ShiftModifier);
  });
  EXPECT_EQ(gathering, 2);
  EXPECT_EQ(session().desk().inHand.manner, Manner::mix);
  EXPECT_EQ(session().desk().inHand.members.size(), 3u);
  picture("hand-mix");
  hand.moveTo(canvas(), onMap({2, 2}));
  const Quilt before = session().quilt();
  const int road = actionsOf([&] {
    hand.key(Qt::Key_Period);
    hand.drag(canvas(), {onMap({3, 4}), onMap({20, 4}), onMap({20, 12})});
    hand.key(Qt::Key_R, Qt::ShiftModifier);
  });
  EXPECT_EQ(road, 3);
  std::map<std::uint32_t, int> counts;
  for (int x = 3; x <= 20; ++x) {
    for (int y = 3; y <= 5; ++y) ++counts[at("Ground", {x, y}).tile().number];
  }
  EXPECT_EQ(counts.size(), 3u);
  expectTheSameFromItsList("a road thrown again");
  // The throws are steps of their own.
  const Quilt thrown = session().quilt();
  hand.key(Qt::Key_R, Qt::ShiftModifier);
  EXPECT_NE(session().quilt(), thrown);
  undo();
  EXPECT_EQ(session().quilt(), thrown);
  undo();
  undo();
  EXPECT_EQ(session().quilt(), before);
  report("a road of look-alikes, thrown again");
}

TEST_F(PaintingHand, TenByTenWithTurnsByChanceAndAgain) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.key(Qt::Key_3);
  const int job = actionsOf([&] {
    hand.key(Qt::Key_R);
    hand.drag(canvas(), {onMap({4, 2}), onMap({13, 11})});
  });
  EXPECT_EQ(job, 2);
  expectTheSameFromItsList("ten by ten");
  const auto turns = [&] {
    std::map<std::uint32_t, int> counts;
    for (int y = 2; y < 12; ++y) {
      for (int x = 4; x < 14; ++x) ++counts[at("Ground", {x, y}).turn().code()];
    }
    return counts;
  };
  EXPECT_EQ(turns().size(), 8u);
  const Quilt before = session().quilt();
  EXPECT_EQ(actionsOf([&] { hand.key(Qt::Key_R, Qt::ShiftModifier); }), 1);
  EXPECT_NE(session().quilt(), before);
  EXPECT_EQ(turns().size(), 8u);
}

TEST_F(PaintingHand, ColoursAreSwappedOverRowsByTwoActions) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.key(Qt::Key_3);
  hand.drag(canvas(), {onMap({2, 2}), onMap({11, 9})});
  hand.click(room->table(), onTable("street", 25));
  hand.drag(canvas(), {onMap({14, 2}), onMap({17, 3})});
  hand.key(Qt::Key_5);
  Story::choose(ActionId::usedHere);
  settle();
  auto* list = in<FoundTiles>("found-tiles");
  ASSERT_EQ(list->found().size(), 2u);
  const Quilt before = session().quilt();
  const int job = actionsOf([&] {
    hand.drag(canvas(), {onMap({0, 4}), onMap({23, 6})});
    hand.drag(list, {list->rectOf(0).center(), list->rectOf(1).center()});
  });
  EXPECT_EQ(job, 2);
  expectTheSameFrom(before,
                    R"({"do": "select", "map": "Siding", "layer": "Ground", "from": [0, 4], "to": [23, 6]},
                       {"do": "swap", "from": ["street", 24], "to": ["street", 25], "in": "selection"})",
                    "colours swapped over rows");
  EXPECT_EQ(at("Ground", {5, 3}), Cell(tile("street", 24), {}));
  EXPECT_EQ(at("Ground", {5, 5}), Cell(tile("street", 25), {}));
  EXPECT_EQ(at("Ground", {5, 7}), Cell(tile("street", 24), {}));
  undo();
  EXPECT_EQ(at("Ground", {5, 5}), Cell(tile("street", 24), {}));
}

TEST_F(PaintingHand, APartOfTheLevelIsMovedOnAllLayersByTwoActions) {
  hand.key(Qt::Key_5);
  Story::choose(ActionId::allLayers);
  const auto there = [&](CellPos cell) {
    std::vector<Cell> cells;
    for (const Shared<Layer>& layer : yard().layers) cells.push_back(layer->cells.at(cell));
    return cells;
  };
  const auto tram = there({26, 9});
  const Quilt before = session().quilt();
  const int job = actionsOf([&] {
    hand.drag(canvas(), {onMap({25, 8}), onMap({29, 10})});
    hand.drag(canvas(), {onMap({26, 9}), onMap({28, 14}), onMap({29, 15})});
  });
  EXPECT_EQ(job, 2);
  EXPECT_EQ(there({29, 15}), tram);
  expectTheSameFrom(before,
                    R"({"do": "select", "map": "Depot Yard", "layer": "Paving", "from": [25, 8], "to": [29, 10]},
                       {"do": "move", "by": [3, 6], "allLayers": true, "joins": true})",
                    "a part of the level moved");
  EXPECT_EQ(session().undoLine().steps().back().name, "Move on all layers");
  undo();
  EXPECT_EQ(there({26, 9}), tram);
}

TEST_F(PaintingHand, ARightDragTakesABlockAndWithCtrlCutsIt) {
  hand.click(room->stack()->card(yard().layerNamed("Sheds & trams")->id));
  const Cell tram = cellOn("Sheds & trams", {26, 9});
  hand.drag(canvas(), {onMap({25, 8}), onMap({29, 10})}, Qt::RightButton);
  EXPECT_EQ(session().desk().inHand.extent().width(), 5);
  EXPECT_EQ(session().desk().tool, Tool::brush);
  EXPECT_EQ(cellOn("Sheds & trams", {26, 9}), tram) << "a copy";
  hand.drag(canvas(), {onMap({25, 8}), onMap({29, 10})}, Qt::RightButton, Qt::ControlModifier);
  EXPECT_TRUE(cellOn("Sheds & trams", {26, 9}).empty()) << "cut";
  undo();
  EXPECT_EQ(cellOn("Sheds & trams", {26, 9}), tram);
  // Of all layers that are seen: each part comes down on its own.
  hand.drag(canvas(), {onMap({25, 8}), onMap({29, 10})}, Qt::RightButton, Qt::ShiftModifier);
  EXPECT_GE(session().desk().inHand.others.size(), 1u);
  hand.click(canvas(), onMap({38, 24}));
  EXPECT_EQ(cellOn("Paving", {37, 24}), cellOn("Paving", {26, 9}));
  EXPECT_EQ(steps(), 1u) << "the cut was taken back";
}

TEST_F(PaintingHand, TheLensShowsWhatLiesOnEachLayer) {
  hand.click(canvas(), onMap({26, 9}), Qt::MiddleButton);
  Lens* lens = canvas()->lens();
  ASSERT_TRUE(lens && lens->isVisible());
  EXPECT_EQ(lens->findChildren<QPushButton*>(QStringLiteral("lens-go")).size(), 4);
  picture("lens", lens);
  // The third line is what lies on Sheds & trams: moved, deleted, taken.
  const Cell tram = cellOn("Sheds & trams", {26, 9});
  auto* nearer = lens->findChildren<QToolButton*>(QStringLiteral("lens-nearer"))[1];
  hand.click(nearer);
  EXPECT_FALSE(lens->isVisible());
  EXPECT_EQ(cellOn("Awnings", {26, 9}), tram);
  EXPECT_EQ(active(), "Awnings");
  undo();
  hand.moveTo(canvas(), onMap({26, 9}));
  hand.key(Qt::Key_V);
  ASSERT_TRUE(lens->isVisible());
  hand.click(lens->findChildren<QToolButton*>(QStringLiteral("lens-take"))[3]);
  EXPECT_EQ(session().desk().inHand.block, Block::of(cellOn("Paving", {26, 9})));
  EXPECT_EQ(active(), "Paving");
}

TEST_F(PaintingHand, TheLensSwapsForWhatIsInHand) {
  hand.click(room->table(), onTable("street", 30));
  const TileRef old = cellOn("Paving", {20, 20}).tile();
  const std::int64_t uses = countSwap(session().quilt(), session().verbs().selection.swapAsk(old, tile("street", 30), SwapIn::layer));
  hand.click(canvas(), onMap({20, 20}), Qt::MiddleButton);
  auto* swap = canvas()->lens()->findChild<QPushButton*>(QStringLiteral("lens-swap-1"));
  ASSERT_TRUE(swap);
  EXPECT_EQ(swap->text(), QStringLiteral("layer: %1").arg(uses));
  hand.click(swap);
  EXPECT_EQ(cellOn("Paving", {20, 20}).tile(), tile("street", 30));
  EXPECT_EQ(countSwap(session().quilt(), session().verbs().selection.swapAsk(old, tile("street", 30), SwapIn::layer)), 0);
}

TEST_F(PaintingHand, CopiedCellsGoToAnotherQuiltAndToOtherPrograms) {
  hand.click(room->stack()->card(yard().layerNamed("Sheds & trams")->id));
  hand.key(Qt::Key_5);
  hand.drag(canvas(), {onMap({25, 8}), onMap({29, 10})});
  hand.key(Qt::Key_C, Qt::ControlModifier);
  const QMimeData* data = QApplication::clipboard()->mimeData();
  EXPECT_TRUE(data->hasImage());
  EXPECT_EQ(qvariant_cast<QImage>(data->imageData()).size(), QSize(5 * 32, 3 * 32));
  const QString text = data->text();
  EXPECT_TRUE(text.startsWith(QStringLiteral("{\n  \"urbanQuilt\": \"cells\"")));
  // As if another program had copied that text meanwhile.
  QApplication::clipboard()->setText(text);
  hand.key(Qt::Key_Escape);
  hand.key(Qt::Key_V, Qt::ControlModifier);
  EXPECT_EQ(session().desk().inHand.extent().width(), 5);
  hand.click(canvas(), onMap({38, 24}));
  EXPECT_EQ(cellOn("Sheds & trams", {37, 24}), cellOn("Sheds & trams", {26, 9}));
}

TEST_F(PaintingHand, ShiftJoinsTheLastPointAndABroadBrushCoversItsDisc) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.click(canvas(), onMap({2, 2}));
  hand.click(canvas(), onMap({9, 2}), Qt::LeftButton, Qt::ShiftModifier);
  for (int x = 2; x <= 9; ++x) EXPECT_FALSE(at("Ground", {x, 2}).empty()) << x;
  hand.key(Qt::Key_Period);
  hand.click(canvas(), onMap({5, 8}));
  for (int y = 7; y <= 9; ++y) {
    for (int x = 4; x <= 6; ++x) EXPECT_FALSE(at("Ground", {x, y}).empty());
  }
  EXPECT_TRUE(at("Ground", {3, 8}).empty());
  // Erase is as broad, and Ctrl with any tool takes away.
  hand.key(Qt::Key_2);
  hand.click(canvas(), onMap({5, 8}));
  EXPECT_TRUE(at("Ground", {4, 7}).empty());
  hand.key(Qt::Key_3);
  hand.drag(canvas(), {onMap({0, 0}), onMap({9, 9})}, Qt::LeftButton, Qt::ControlModifier);
  EXPECT_TRUE(siding().layerNamed("Ground")->cells.empty());
}

TEST_F(PaintingHand, OvalAndBoxAreDrawnAsOutlinesToo) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.key(Qt::Key_7);
  hand.key(Qt::Key_Period);
  hand.press(canvas(), onMap({3, 3}));
  hand.moveTo(canvas(), onMap({11, 9}));
  EXPECT_EQ(tag(), "Oval on Ground · 9 × 7 = 28 cells");
  picture("hand-oval");
  hand.release(canvas(), onMap({11, 9}));
  EXPECT_TRUE(at("Ground", {7, 6}).empty());
  EXPECT_FALSE(at("Ground", {7, 3}).empty());
  EXPECT_TRUE(at("Ground", {3, 3}).empty());
  // With Shift a box has equal sides.
  hand.key(Qt::Key_3);
  hand.key(Qt::Key_Period);
  hand.drag(canvas(), {onMap({13, 3}), onMap({20, 6})}, Qt::LeftButton, Qt::ShiftModifier);
  EXPECT_FALSE(at("Ground", {20, 10}).empty());
}

TEST_F(PaintingHand, TheSameCellsAreSelectedByAClickAndByAnOutline) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.key(Qt::Key_3);
  hand.drag(canvas(), {onMap({2, 2}), onMap({5, 5})});
  hand.drag(canvas(), {onMap({10, 2}), onMap({12, 3})});
  hand.key(Qt::Key_5);
  hand.click(in<QToolButton>("select-touching-button"));
  hand.moveTo(canvas(), onMap({3, 3}));
  EXPECT_EQ(tag(), "Select on Ground · 16 cells");
  hand.click(canvas(), onMap({3, 3}));
  EXPECT_EQ(session().desk().selection().count(), 16);
  hand.click(canvas(), onMap({11, 2}), Qt::LeftButton, Qt::ShiftModifier);
  EXPECT_EQ(session().desk().selection().count(), 22);
  hand.click(in<QToolButton>("select-everywhere-button"));
  hand.key(Qt::Key_Escape);
  hand.click(canvas(), onMap({3, 3}));
  EXPECT_EQ(session().desk().selection().count(), 22);
  hand.click(in<QToolButton>("select-by-outline-button"));
  hand.drag(canvas(), {onMap({14, 8}), onMap({20, 8}), onMap({20, 14}), onMap({14, 14})});
  picture("hand-outline");
  const std::int64_t drawn = session().desk().selection().count();
  EXPECT_GE(drawn, 25);
  EXPECT_LE(drawn, 49);
  hand.key(Qt::Key_Period, Qt::ShiftModifier);
  EXPECT_GT(session().desk().selection().count(), drawn);
  hand.key(Qt::Key_4, Qt::ShiftModifier);
  EXPECT_FALSE(at("Ground", {17, 11}).empty()) << "filled";
}

TEST_F(PaintingHand, AHouseIsKeptAndUsedOnAnotherMap) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.key(Qt::Key_4);
  hand.click(canvas(), onMap({5, 5}));
  hand.key(Qt::Key_1);
  session().verbs().maps.goTo(yard().id);
  hand.click(room->stack()->card(yard().layerNamed("Sheds & trams")->id));
  const Quilt before = session().quilt();
  const int keeping = actionsOf([&] {
    hand.drag(canvas(), {onMap({25, 8}), onMap({29, 10})}, Qt::RightButton);
    hand.key(Qt::Key_K);
  });
  EXPECT_EQ(keeping, 2);
  ASSERT_EQ(session().quilt().stamps().size(), 1u);
  const auto listed = doneFrom(before, R"({"do": "select", "map": "Depot Yard", "layer": "Sheds & trams",
                                           "from": [25, 8], "to": [29, 10]},
                                          {"do": "take"}, {"do": "keep"})");
  ASSERT_TRUE(listed);
  // The same stamp, but for the id, which nobody can foretell.
  Stamp kept = listed->stamps().front().read();
  const Stamp& own = session().quilt().stamps().front().read();
  kept.id = kept.held.stamp = own.id;
  EXPECT_EQ(kept.held, own.held);
  EXPECT_EQ(kept.file, own.file);
  EXPECT_EQ(kept.name, own.name);
  const Shelf* shelf = room->tablePanel()->shelf();
  session().verbs().maps.goTo(siding().id);
  hand.click(room->table(), onTable("street", 25));
  const int using_ = actionsOf([&] {
    hand.click(room->tablePanel()->shelf(), shelf->rectOf(0).center());
    hand.click(canvas(), onMap({8, 8}));
  });
  EXPECT_EQ(using_, 2);
  EXPECT_EQ(active(), "Things") << "the layer of its role";
  expectTheSameFromItsList("a house used on another map");
  EXPECT_EQ(at("Things", {8, 8}), cellOn("Sheds & trams", {27, 9}));
  EXPECT_EQ(at("Ground", {8, 8}), Cell(tile("street", 24), {}));
  // Its card counts it, and corrects it with what is in hand.
  hand.click(room->tablePanel()->shelf(), shelf->rectOf(0).center(), Qt::RightButton);
  ASSERT_TRUE(shelf->card());
  EXPECT_EQ(shelf->card()->findChild<QLabel*>(QStringLiteral("stamp-uses"))->text(),
            QStringLiteral("Lies on the maps %1 times.")
                .arg(placesOf(session().quilt(), session().quilt().stamps().front().read()).size()));
  hand.click(shelf->card()->findChild<QPushButton*>(QStringLiteral("stamp-rename")));
  hand.type(QStringLiteral("Tram"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().quilt().stamps().front()->name, "Tram");
  picture("stamps");
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  const auto saved = QuiltStore::open(realDisk(), folder(), QuiltStore::Access::read);
  ASSERT_TRUE(saved);
  ASSERT_EQ(saved->quilt.stamps().size(), 1u);
  EXPECT_EQ(saved->quilt.stamps().front()->held.parts().size(), 15u);
  // A double click with Select selects the whole of it; it is moved and deleted as one, without the ground below.
  canvas()->setFocus();
  hand.key(Qt::Key_5);
  hand.doubleClick(canvas(), onMap({9, 8}));
  EXPECT_EQ(session().desk().selectedStamp, session().quilt().stamps().front()->id);
  EXPECT_EQ(session().desk().selection().count(), 15);
  const Cell corner = at("Things", {8, 8});
  hand.key(Qt::Key_Right);
  EXPECT_EQ(at("Things", {9, 8}), corner);
  EXPECT_EQ(at("Ground", {8, 8}), Cell(tile("street", 24), {})) << "the ground stays";
  hand.key(Qt::Key_Right);
  EXPECT_EQ(at("Things", {10, 8}), corner) << "it is still one thing";
  hand.key(Qt::Key_Delete);
  EXPECT_TRUE(at("Things", {10, 8}).empty());
  EXPECT_EQ(session().undoLine().steps().back().name, "Delete Tram");
  for (int i = 0; i < 3; ++i) undo();
  report("a house kept, and used on another map");
}

TEST_F(PaintingHand, WhatIsInHandIsPutTogetherFromTilesAndDroppedOnTheTable) {
  hand.click(room->table(), onTable("street", 24));
  auto* preview = in<HandPreview>("hand-preview");
  // A tile dropped beside the first one makes a block of two.
  const QPointF place(preview->width() - 3, preview->placeRect({0, 0}).center().y());
  const QPointF onIt = room->table()->mapFrom(room.get(), preview->mapTo(room.get(), place.toPoint()));
  hand.drag(room->table(), {onTable("street", 25), onIt});
  ASSERT_EQ(session().desk().inHand.parts().size(), 2u);
  EXPECT_EQ(session().desk().inHand.parts().back().cell.tile(), tile("street", 25));
  // Its marks are dragged: the second column repeats at first, then the first one.
  hand.click(in<QToolButton>("manner-stretch"));
  EXPECT_EQ(session().desk().inHand.ends.left, 1);
  const QPointF mark = preview->markLine(0).center();
  const double column = preview->placeRect({1, 0}).width();
  hand.drag(preview, {mark, mark - QPointF(column, 0)});
  EXPECT_EQ(session().desk().inHand.ends.left, 0);
  // Carried onto the Table it is kept.
  const QPointF over = preview->mapFrom(room.get(), room->table()->mapTo(room.get(), QPoint(60, 60)));
  hand.drag(preview, {preview->rect().bottomLeft() + QPointF(12, -8), over});
  ASSERT_EQ(session().quilt().stamps().size(), 1u);
  EXPECT_EQ(session().quilt().stamps().front()->held.manner, Manner::stretch);
  undo();
  EXPECT_TRUE(session().quilt().stamps().empty());
}

TEST_F(PaintingHand, TheEdgesOfABlockInHandAreDraggedToAddAndDropRows) {
  const QPointF last = onTable("street", 26);
  hand.drag(room->table(), {onTable("street", 24), last});
  auto* preview = in<HandPreview>("hand-preview");
  const auto numbers = [&] {
    std::vector<std::uint32_t> all;
    for (const Block::Part& part : session().desk().inHand.parts()) all.push_back(part.cell.tile().number);
    return all;
  };
  ASSERT_EQ(numbers(), (std::vector<std::uint32_t>{24, 25, 26}));
  // The last column is dropped, and two more of the first one are added.
  const double column = preview->placeRect({1, 0}).width();
  const QPointF right = preview->edgeLine(1).center();
  hand.drag(preview, {right, right - QPointF(column, 0)});
  EXPECT_EQ(numbers(), (std::vector<std::uint32_t>{24, 25}));
  const QPointF left = preview->edgeLine(0).center();
  const double wide = preview->placeRect({1, 0}).width();
  hand.drag(preview, {left, left - QPointF(2 * wide, 0)});
  EXPECT_EQ(numbers(), (std::vector<std::uint32_t>{24, 24, 24, 25}));
  // A row below, like the one above it.
  const QPointF bottom = preview->edgeLine(3).center();
  const double high = preview->placeRect({0, 0}).height();
  hand.drag(preview, {bottom, bottom + QPointF(0, high)});
  EXPECT_EQ(session().desk().inHand.extent().height(), 2);
  EXPECT_EQ(session().desk().inHand.parts().size(), 8u);
  makeGround();
  hand.click(canvas(), onMap({8, 8}));
  std::int64_t laid = 0;
  siding().layerNamed("Ground")->cells.forEachPainted(siding().bounds, [&](CellPos, Cell) { ++laid; });
  EXPECT_EQ(laid, 8);
}

TEST_F(PaintingHand, AJointThatDoesNotHoldIsStitchedAndFoundOnTheMap) {
  // A lawn of the demo whose edge has a piece missing.
  ASSERT_TRUE(canvas()->joints().empty());
  hand.key(Qt::Key_J);
  EXPECT_TRUE(session().desk().showsJoints);
  const std::size_t before = canvas()->joints().size();
  const CellPos shed = [&] {
    // A thing's tile with a neighbour that carries it on.
    JointFinder finder(session().painter().pictures());
    const std::size_t index = *yard().layerIndex(yard().layerNamed("Sheds & trams")->id);
    std::optional<CellPos> found;
    yard().layers[index]->cells.forEachPainted(yard().bounds, [&](CellPos cell, Cell) {
      if (found) return;
      Map without = yard();
      without.layers[index].edit([&](Layer& layer) { layer.cells.set(cell, Cell()); });
      const auto loose = looseJoints(finder.bookFor(session().quilt(), without.grid), without, index,
                                     CellRect{cell.x - 1, cell.y - 1, cell.x + 2, cell.y + 2}, 10);
      const auto now = looseJoints(finder.bookFor(session().quilt(), without.grid), yard(), index,
                                   CellRect{cell.x - 1, cell.y - 1, cell.x + 2, cell.y + 2}, 10);
      if (loose.size() > now.size()) found = cell;
    });
    return found.value_or(CellPos{});
  }();
  hand.click(room->stack()->card(yard().layerNamed("Sheds & trams")->id));
  hand.key(Qt::Key_2);
  hand.click(canvas(), onMap(shed));
  EXPECT_GT(canvas()->joints().size(), before) << "what stood beside it is cut off";
  picture("loose-joints");
  // The round through the map leads to it.
  hand.key(Qt::Key_J, Qt::ShiftModifier);
  awaitWork();
  ASSERT_FALSE(canvas()->lit().empty());
  const CellPos lit{canvas()->lit().bounds().x0, canvas()->lit().bounds().y0};
  hand.key(Qt::Key_J, Qt::ShiftModifier);
  const CellPos next{canvas()->lit().bounds().x0, canvas()->lit().bounds().y0};
  EXPECT_TRUE(before == 0 || next != lit) << "one press goes on by one";
  // What belongs there is laid, one by one and all at once, each by one step.
  const std::size_t loose = canvas()->joints().size();
  hand.key(Qt::Key_J, Qt::ControlModifier);
  EXPECT_LT(canvas()->joints().size(), loose);
  undo();
  EXPECT_EQ(canvas()->joints().size(), loose);
  hand.key(Qt::Key_J, Qt::ControlModifier | Qt::ShiftModifier);
  awaitWork();
  EXPECT_EQ(canvas()->joints().size(), before);
  EXPECT_EQ(session().undoLine().steps().back().name, "Lay what belongs at loose joints");
  undo();
  undo();
  EXPECT_EQ(canvas()->joints().size(), before);
}

}  // namespace uq::test
