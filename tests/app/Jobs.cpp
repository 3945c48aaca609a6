// Whole jobs, in as many actions as they may take.
#include <QDir>
#include <QPushButton>
#include <QToolButton>

#include "app/Story.h"
#include "app/workroom/Clipboard.h"
#include "app/workroom/KeptState.h"
#include "core/edit/LaidStamps.h"
#include "core/edit/Selected.h"
#include "core/sheets/TileUses.h"

namespace uq::test {

class Jobs : public Story {
 protected:
  explicit Jobs(Demo demo = Demo::yard) : Story(demo) {}
  void SetUp() override { openDemo(); }
  int actionsOf(const std::function<void()>& job) {
    const int before = hand.actions();
    job();
    return hand.actions() - before;
  }
  std::string active() { return session().quilt().layer(session().desk().activeAt())->name; }
};

TEST_F(Jobs, FourLoosePicturesAreSolidTiles) {
  QTemporaryDir art;
  QStringList paths;
  for (int i = 0; i < 4; ++i) {
    QImage wall(64, 64, QImage::Format_RGB32);
    wall.fill(QColor(60 + 40 * i, 90, 120 - 20 * i));
    for (int y = 0; y < 64; y += 8) {
      for (int x = 0; x < 64; ++x) wall.setPixelColor(x, y, QColor(30, 30, 40));
    }
    paths << art.filePath(QStringLiteral("wall %1.png").arg(i));
    ASSERT_TRUE(wall.save(paths.back()));
  }
  const std::size_t before = session().quilt().sheets().size();
  const int job = actionsOf([&] {
    hand.drop(room.get(), QPointF(60, 400), paths);
    awaitWork();
    settle();
    hand.click(room->sheetCard()->findChild<QToolButton*>(QStringLiteral("footing-solid")));
  });
  EXPECT_LE(job, 2);
  ASSERT_EQ(session().quilt().sheets().size(), before + 1);
  ASSERT_TRUE(room->sheetCard()->sheet());
  const Sheet& walls = *session().quilt().sheet(*room->sheetCard()->sheet());
  EXPECT_EQ(walls.collection.size(), 4u);
  for (std::uint32_t tile = 0; tile < 4; ++tile) EXPECT_EQ(walls.footingOf(tile), Footing::solid);
  report("four loose pictures as solid tiles");
}

TEST_F(Jobs, CopiedAndPastedElsewhere) {
  hand.key(Qt::Key_5);
  hand.click(room->stack()->card(yard().layerNamed("Sheds & trams")->id));
  room->canvas()->setFocus();
  hand.key(Qt::Key_0);
  hand.drag(room->canvas(), {onMap({16, 8}), onMap({21, 11})});
  const CellSet from = session().desk().selection();
  const auto copy = copyOf(session().quilt(), session().desk().activeAt(), from);
  ASSERT_TRUE(copy && !copy->empty());
  const CellPos to{20, 18};
  const int job = actionsOf([&] {
    hand.key(Qt::Key_C, Qt::ControlModifier);
    hand.key(Qt::Key_V, Qt::ControlModifier);
    hand.click(room->canvas(), onMap(to));
  });
  EXPECT_EQ(job, 3);
  EXPECT_FALSE(session().isSaved()) << "it was not held back by the selection it came from";
  EXPECT_TRUE(session().desk().selection().empty());
  report("copying and pasting elsewhere");
}

TEST_F(Jobs, NinetyThousandCellsPasteAsTheyWereCopied) {
  session().verbs().maps.add({"Wide", yard().grid, 300, 300});
  settle();
  const LayerAt ground{session().desk().map, session().map()->layerNamed("Ground")->id};
  LayerCells cells;
  for (int y = 0; y < 300; ++y) {
    for (int x = 0; x < 300; ++x) {
      cells.cells.set({x, y}, Cell({kChalkSlot, static_cast<std::uint32_t>((x * 7 + y * 3) % 14)}, {}));
    }
  }
  session().verbs().layers.takeCells("Lay chalk", {ground}, session().quilt().with(ground, cells));
  session().verbs().layers.choose(ground.layer);
  hand.key(Qt::Key_A, Qt::ControlModifier);
  hand.key(Qt::Key_C, Qt::ControlModifier);
  session().verbs().maps.add({"Wide too", yard().grid, 300, 300});
  settle();
  hand.key(Qt::Key_F);
  hand.key(Qt::Key_V, Qt::ControlModifier);
  hand.moveTo(room->canvas(), onMap({149, 149}));
  EXPECT_THAT(room->canvas()->tagText().toStdString(), testing::HasSubstr("90000 cells"));
  hand.click(room->canvas(), onMap({149, 149}));
  const Map& there = *session().quilt().mapNamed("Wide too");
  EXPECT_TRUE(there.layerNamed("Ground")->cells == cells.cells);
}

TEST_F(Jobs, ALayerOfOnesOwnIsPaintedWithFiveTakes) {
  hand.click(room->findChild<QWidget*>(QStringLiteral("needle-2")));
  const LayerAt own = session().desk().activeAt();
  const std::size_t layers = yard().layers.size();
  // Things of different kinds, none of which covers its cell.
  const std::uint32_t things[] = {3, 4, 5, 9, 10};
  int laid = 0;
  for (const std::uint32_t thing : things) {
    hand.click(room->table(), onTable("rails", thing));
    EXPECT_EQ(session().desk().activeAt(), own) << thing;
    hand.click(room->canvas(), onMap({20 + 2 * laid, 20}));
    ++laid;
  }
  EXPECT_EQ(session().quilt().layer(own)->cells.tally(yard().bounds).size(), 5u);
  EXPECT_EQ(yard().layers.size(), layers);
  report("a layer of one's own, painted with five takes");
}

TEST_F(Jobs, GroundGoesWhereItBelongsAndTheTagSaysSo) {
  hand.click(room->stack()->card(yard().layerNamed("Rails")->id));
  hand.click(room->table(), onTable("street", 24));
  hand.moveTo(room->canvas(), onMap({20, 20}));
  EXPECT_EQ(active(), "Paving");
  EXPECT_TRUE(room->canvas()->tagText().contains(QStringLiteral("ground goes to Paving; W leads back to Rails")))
      << room->canvas()->tagText().toStdString();
  hand.key(Qt::Key_W);
  EXPECT_EQ(active(), "Rails");
  EXPECT_FALSE(room->canvas()->tagText().contains(QStringLiteral("leads back")));
}

TEST_F(Jobs, AVillageFenceWithAGapStaysWholeAtBothSidesOfIt) {
  session().verbs().layers.choose(yard().layerNamed("Sheds & trams")->id);
  hand.key(Qt::Key_F);
  const int job = actionsOf([&] {
    hand.drag(room->table(), {onTable("yard", 171), onTable("yard", 189)});
    hand.key(Qt::Key_M);
    hand.drag(room->canvas(), {onMap({4, 25}), onMap({11, 26})});
    hand.drag(room->canvas(), {onMap({14, 25}), onMap({22, 26})});
  });
  EXPECT_LE(job, 5);
  const std::string on = active();
  const auto number = [&](int x, int y) { return cellOn(on.c_str(), {x, y}).tile().number; };
  for (const auto& [first, last] : {std::pair(4, 11), std::pair(14, 22)}) {
    EXPECT_EQ(number(first, 25), 171u);
    EXPECT_EQ(number(last, 25), 175u);
    EXPECT_EQ(number(first, 26), 185u);
    EXPECT_EQ(number(last, 26), 189u);
  }
  for (int x = 12; x < 14; ++x) EXPECT_TRUE(cellOn(on.c_str(), {x, 25}).empty()) << "the gap";
  report("a village fence with a gap");
}

TEST_F(Jobs, ARoughOutInChalkBecomesTiles) {
  MapPlan plan;
  plan.name = "Siding";
  plan.width = 24;
  plan.height = 16;
  plan.grid = nearestShape(GridKind::orthogonal, {32, 32});
  session().verbs().maps.add(plan);
  settle();
  hand.key(Qt::Key_F);
  const std::pair<std::uint32_t, CellRect> rough[] = {{4, {1, 1, 9, 14}}, {9, {9, 1, 15, 14}}, {12, {15, 1, 23, 14}}};
  for (const auto& [colour, box] : rough) {
    session().verbs().hand.take(Block::of(Cell({kChalkSlot, colour}, {})));
    hand.key(Qt::Key_3);
    hand.drag(room->canvas(), {onMap({box.x0, box.y0}), onMap({box.x1 - 1, box.y1 - 1})});
  }
  const std::uint32_t ground[] = {0, 12, 6};
  for (int i = 0; i < 3; ++i) {
    const CellRect box = rough[i].second;
    const int job = actionsOf([&] {
      hand.click(room->table(), onTable("street", ground[i]));
      if (session().desk().tool != Tool::fill) hand.key(Qt::Key_4);
      hand.click(room->canvas(), onMap({box.x0 + 2, box.y0 + 3}), Qt::LeftButton, Qt::ShiftModifier);
    });
    EXPECT_LE(job, 3);
    const Map& siding = *session().quilt().mapNamed("Siding");
    const CellGrid& cells = siding.layerNamed("Ground")->cells;
    for (const CellPos at : {CellPos{box.x0, box.y0}, CellPos{box.x1 - 1, box.y1 - 1}}) {
      EXPECT_EQ(cells.at(at), Cell(tile("street", ground[i]), {})) << i;
    }
  }
  report("three colours of a rough-out in chalk, turned into tiles");
}

TEST_F(Jobs, AHouseOnGrassIsAStampAndAChimneyComesToAllOfThem) {
  session().verbs().maps.add({"Siding", yard().grid, 24, 16});
  settle();
  hand.key(Qt::Key_F);
  hand.key(Qt::Key_PageDown, Qt::ControlModifier);
  ASSERT_EQ(session().map()->name, "Depot Yard");
  session().verbs().layers.choose(yard().layerNamed("Sheds & trams")->id);
  const CellRect house{25, 8, 30, 11};
  const Shelf* shelf = room->tablePanel()->shelf();
  const int job = actionsOf([&] {
    hand.key(Qt::Key_5);
    hand.drag(room->canvas(), {onMap({house.x0, house.y0}), onMap({house.x1 - 1, house.y1 - 1})});
    hand.key(Qt::Key_K);
    // Used on the second map.
    hand.key(Qt::Key_PageDown, Qt::ControlModifier);
    hand.click(shelf->parentWidget()->findChild<Shelf*>(), shelf->rectOf(0).center());
    hand.click(room->canvas(), onMap({10, 8}));
    // A chimney there.
    hand.click(room->table(), onTable("yard", 139));
    hand.click(room->canvas(), onMap({10, 7}));
    hand.key(Qt::Key_5);
    hand.drag(room->canvas(), {onMap({8, 7}), onMap({12, 9})});
    hand.click(shelf->parentWidget()->findChild<Shelf*>(), shelf->rectOf(0).center(), Qt::RightButton);
    auto* all = shelf->card()->findChild<QPushButton*>(QStringLiteral("stamp-correct-all"));
    ASSERT_TRUE(all);
    hand.click(all);
  });
  EXPECT_LE(job, 12);
  report("a house as a stamp, used on a second map, a chimney on all of them");
  const Cell chimney(tile("yard", 139), {});
  const auto chimneys = [&](const Map& map) {
    std::vector<CellPos> all;
    for (const Shared<Layer>& layer : map.layers) {
      layer->cells.forEachPainted(map.bounds, [&](CellPos at, Cell cell) {
        if (cell == chimney) all.push_back(at);
      });
    }
    return all;
  };
  EXPECT_EQ(chimneys(*session().quilt().mapNamed("Siding")), (std::vector<CellPos>{{10, 7}}));
  const std::vector<CellPos> there = chimneys(yard());
  EXPECT_TRUE(std::find(there.begin(), there.end(), CellPos{house.x0 + 2, house.y0}) != there.end())
      << "also on the house that it was made of";
  EXPECT_EQ(placesOf(session().quilt(), session().quilt().stamps().front().read()).size(), 3u)
      << "the yard has another one, which was not kept, but is the same";
  // One step for all of it.
  const std::string name = session().undoLine().steps().back().name;
  EXPECT_EQ(name.substr(0, 7), "Correct");
}

class JobsOnAllMaps : public Jobs {
 protected:
  JobsOnAllMaps() : Jobs(Demo::whole) {}
};

TEST_F(JobsOnAllMaps, ACrownComesInFrontOfTheWalker) {
  const Map* street = session().quilt().mapNamed("Ferry Street");
  session().verbs().maps.goTo(street->id);
  settle();
  const Layer& crowns = *street->layerNamed("Crowns");
  session().verbs().layers.choose(street->layerNamed("Ground")->id);
  hand.key(Qt::Key_F);
  Cell crown;
  crowns.cells.forEachPainted(street->bounds, [&](CellPos, Cell cell) { crown = crown.empty() ? cell : crown; });
  ASSERT_FALSE(crown.empty());
  const std::string sheet = session().quilt().sheetAt(crown.tile().slot)->name;
  CellPos place{};
  for (int x = street->bounds.x0 + 2; x < street->bounds.x1 - 2; ++x) {
    if (crowns.cells.at({x, street->bounds.y0 + 3}).empty()) place = {x, street->bounds.y0 + 3};
  }
  const Id id = street->id;
  const std::size_t layers = street->layers.size();
  const int job = actionsOf([&] {
    hand.click(room->table(), onTable(sheet.c_str(), crown.tile().number));
    hand.click(room->canvas(), onMap(place));
  });
  EXPECT_EQ(job, 2);
  EXPECT_EQ(active(), "Crowns");
  const Map& now = *session().quilt().map(id);
  EXPECT_EQ(now.layers.size(), layers);
  EXPECT_EQ(now.layerNamed("Crowns")->cells.at(place).tile(), crown.tile());
  EXPECT_GE(*now.layerIndex(now.layerNamed("Crowns")->id), now.walkerPlace()) << "in front";
  report("a crown in front of the Walker");
}

class FirstHour : public Jobs {
 protected:
  void SetUp() override {
    QDir(stateFolder()).removeRecursively();
    QDir(StartPage::quiltsFolder()).removeRecursively();
    openNothing();
  }
};

TEST_F(FirstHour, ASheetComesInAndGroundAndAPlatformAreSaved) {
  const QString art = QString::fromStdString(folder()) + QStringLiteral("/sheets/street.png");
  const int job = actionsOf([&] {
    hand.click(room->startPage()->findChild<QPushButton*>(QStringLiteral("start-new")));
    hand.key(Qt::Key_Return);
    awaitWork();
    hand.key(Qt::Key_Return);
    hand.drop(room.get(), QPointF(60, 400), {art});
    awaitWork();
    settle();
    hand.click(room->table(), onTable("street", 0));
    hand.key(Qt::Key_4);
    hand.click(room->canvas(), QPointF(room->canvas()->width() - 60, 200));
    const QPointF last = onTable("street", 26);
    const QPointF first = onTable("street", 24);
    EXPECT_EQ(onTable("street", 26), last) << "both are in sight";
    hand.drag(room->table(), {first, last});
    hand.key(Qt::Key_M);
    hand.key(Qt::Key_1);
    const CellPos corner = room->canvas()->cellAt(QPointF(room->canvas()->width() - 300, 240));
    hand.drag(room->canvas(), {onMap(corner), onMap({corner.x + 6, corner.y})});
    hand.key(Qt::Key_S, Qt::ControlModifier);
    awaitWork();
  });
  EXPECT_LE(job, 14);
  report("from the first start to a saved map with ground and a platform");
  ASSERT_TRUE(room->session());
  EXPECT_TRUE(session().isSaved());
  const Map& map = session().quilt().maps().front().read();
  const auto count = [&](std::uint32_t number) {
    const TileUses uses = usesOn(map);
    const auto found = uses.find(tile("street", number));
    return found == uses.end() ? 0 : found->second;
  };
  EXPECT_GT(count(0), 1000) << "ground";
  EXPECT_EQ(count(24), 1);
  EXPECT_EQ(count(25), 5);
  EXPECT_EQ(count(26), 1);
}

// Some ten minutes of work without a mouse; each line is one thing that somebody wants.
TEST_F(FirstHour, TenMinutesByKeyboardAlone) {
  const QString art = QString::fromStdString(folder()) + QStringLiteral("/sheets/street.png");
  QStringList steps;
  const auto step = [&](const char* what, const std::function<void()>& keys) {
    const int before = hand.actions();
    keys();
    steps << QStringLiteral("%1 (%2)").arg(QLatin1String(what)).arg(hand.actions() - before);
  };
  const auto press = [&](std::initializer_list<Qt::Key> keys, Qt::KeyboardModifiers with = {}) {
    for (const Qt::Key one : keys) hand.key(one, with);
  };
  const auto ctrl = [&](Qt::Key one) { hand.key(one, Qt::ControlModifier); };
  const auto painted = [&](const char* layer) {
    std::int64_t count = 0;
    const Map& map = session().quilt().maps().front().read();
    if (const Layer* on = map.layerNamed(layer)) on->cells.forEachPainted(map.bounds, [&](CellPos, Cell) { ++count; });
    return count;
  };
  step("a new quilt", [&] {
    ctrl(Qt::Key_N);
    hand.type(QStringLiteral("Tallow Lanes"));
    hand.key(Qt::Key_Return);
    awaitWork();
  });
  step("its first map", [&] {
    hand.type(QStringLiteral("Lamp Square"));
    hand.key(Qt::Key_Return);
  });
  ASSERT_TRUE(room->session() && session().map());
  step("a sheet brought in", [&] {
    hand.inDialog(QStringLiteral("pictures-dialog"), [&](QWidget& dialog) {
      hand.type(art);
      hand.key(Qt::Key_Return);
      if (dialog.isVisible()) hand.key(Qt::Key_Return);
    });
    ctrl(Qt::Key_I);
    awaitWork();
    settle();
    hand.key(Qt::Key_Escape);
  });
  ASSERT_EQ(session().quilt().sheets().size(), 1u);
  EXPECT_FALSE(room->sheetCard()->isVisible());
  room->canvas()->setFocus();
  step("a tile taken from the Table", [&] {
    press({Qt::Key_T, Qt::Key_Down, Qt::Key_Down, Qt::Key_Down, Qt::Key_Return});
  });
  EXPECT_FALSE(session().desk().inHand.empty());
  EXPECT_NE(session().desk().inHand.parts().front().cell.tile().slot, kChalkSlot);
  step("ground filled", [&] { press({Qt::Key_4, Qt::Key_Return}); });
  EXPECT_EQ(painted("Ground"), 48 * 32);
  step("another tile, a box of it", [&] {
    press({Qt::Key_T, Qt::Key_Right, Qt::Key_Return, Qt::Key_3});
    press({Qt::Key_Right, Qt::Key_Right, Qt::Key_Down}, Qt::ShiftModifier);
    hand.key(Qt::Key_Return);
  });
  step("a line, three cells broad", [&] {
    press({Qt::Key_6, Qt::Key_Period});
    press({Qt::Key_Down, Qt::Key_Down, Qt::Key_Down, Qt::Key_Down});
    press({Qt::Key_Right, Qt::Key_Right, Qt::Key_Right, Qt::Key_Right}, Qt::ShiftModifier);
    hand.key(Qt::Key_Return);
  });
  step("a part copied and pasted beside it", [&] {
    press({Qt::Key_Escape, Qt::Key_5});
    press({Qt::Key_Left, Qt::Key_Left, Qt::Key_Up}, Qt::ShiftModifier);
    hand.key(Qt::Key_Return);
    ctrl(Qt::Key_C);
    ctrl(Qt::Key_V);
    press({Qt::Key_Down, Qt::Key_Down, Qt::Key_Down, Qt::Key_Down, Qt::Key_Return, Qt::Key_Escape});
  });
  step("a layer nearer, painted on", [&] {
    hand.key(Qt::Key_W);
    press({Qt::Key_1, Qt::Key_Right, Qt::Key_Right, Qt::Key_Return});
  });
  step("the last step taken back and laid again", [&] {
    ctrl(Qt::Key_Z);
    hand.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  });
  step("a stamp kept", [&] { hand.key(Qt::Key_K); });
  EXPECT_EQ(session().quilt().stamps().size(), 1u);
  step("a layer renamed", [&] {
    hand.key(Qt::Key_F2);
    hand.type(QStringLiteral("Trees"));
    hand.key(Qt::Key_Return);
  });
  EXPECT_EQ(active(), "Trees");
  EXPECT_GT(painted("Trees"), 0);
  step("a second map, and back", [&] {
    ctrl(Qt::Key_M);
    hand.key(Qt::Key_Return);
    ctrl(Qt::Key_PageDown);
  });
  EXPECT_EQ(session().quilt().maps().size(), 2u);
  EXPECT_EQ(session().map()->name, "Lamp Square");
  step("help asked for", [&] {
    hand.key(Qt::Key_F1);
    hand.type(QStringLiteral("door"));
    hand.key(Qt::Key_Escape);
  });
  step("saved", [&] {
    ctrl(Qt::Key_S);
    awaitWork();
  });
  EXPECT_TRUE(session().isSaved());
  if (qEnvironmentVariableIsSet("UQ_PICTURES")) qInfo().noquote() << steps.join(QStringLiteral("; "));
  EXPECT_LE(hand.actions(), 90) << steps.join(QStringLiteral("; ")).toStdString();
  report("ten minutes by keyboard alone");
}

}  // namespace uq::test
