// The jobs of the painting hand on every grid, whichever rows are shifted.
#include "app/PaintingStory.h"
#include "app/table/FoundTiles.h"

namespace uq::test {

class HandOnGrid : public PaintingHand, public testing::WithParamInterface<std::tuple<GridKind, bool>> {
 protected:
  void SetUp() override {
    PaintingHand::SetUp();
    const auto [kind, shift] = GetParam();
    makeGround(kind, shift);
    grid_ = makeGrid(siding().grid);
  }
  // The cell that lies so many steps across sides from another one.
  CellPos beside(CellPos cell, SidePos steps) const { return grid_->fromSide(grid_->toSide(cell) + steps); }
  std::uint32_t number(CellPos cell) {
    const Cell here = at("Ground", cell);
    return here.empty() ? 0 : here.tile().number;
  }
  std::map<std::uint32_t, int> counts() {
    std::map<std::uint32_t, int> found;
    siding().layerNamed("Ground")->cells.forEachPainted(siding().bounds,
                                                        [&](CellPos, Cell cell) { ++found[cell.tile().number]; });
    return found;
  }
  // Takes an end, a middle and another end that lie along the grid.
  void takeEndMiddleEnd() {
    const CellPos from{8, 6};
    const std::size_t begin = steps();
    for (int i = 0; i < 3; ++i) {
      hand.click(room->table(), onTable("street", static_cast<std::uint32_t>(24 + i)));
      hand.click(canvas(), onMap(beside(from, {i, 0})));
    }
    const Desk before = session().desk();
    if (before.box.value_or(usualBox(siding().grid.kind)) != BoxShape::alongTheGrid)
      Story::choose(ActionId::boxAlongGrid);
    hand.drag(canvas(), {onMap(from), onMap(beside(from, {2, 0}))}, Qt::RightButton);
    ASSERT_EQ(session().desk().inHand.extent().width(), 3);
    ASSERT_EQ(session().desk().inHand.extent().height(), 1);
    while (steps() > begin) undo();
  }
  void gatherThree() {
    hand.click(room->table(), onTable("street", 24));
    const QPointF last = onTable("street", 26);
    hand.drag(room->table(), {onTable("street", 25), last}, Qt::LeftButton, Qt::ShiftModifier);
  }

  std::shared_ptr<const Grid> grid_;
};

TEST_P(HandOnGrid, PaintsSelectsTurnsFillsSavesAndComesBack) {
  hand.click(room->table(), onTable("street", 24));
  hand.click(room->stack()->card(siding().layerNamed("Ground")->id));
  const auto painted = [&] {
    std::int64_t count = 0;
    siding().layerNamed("Ground")->cells.forEachPainted(siding().bounds, [&](CellPos, Cell) { ++count; });
    return count;
  };
  const auto expectOneStep = [&](const char* what, std::int64_t cells) {
    expectTheSameFromItsList(what);
    EXPECT_EQ(painted(), cells) << what;
    undo();
    EXPECT_EQ(painted(), 0) << what;
  };
  hand.key(Qt::Key_6);
  hand.drag(canvas(), {onMap({4, 4}), onMap({12, 9})});
  expectOneStep("line", static_cast<std::int64_t>(grid_->line({4, 4}, {12, 9}).size()));
  hand.key(Qt::Key_3);
  hand.drag(canvas(), {onMap({4, 4}), onMap({12, 9})});
  expectOneStep("box", boxOf(*grid_, {4, 4}, {12, 9}).intersected(CellSet(siding().bounds)).count());
  hand.key(Qt::Key_7);
  hand.drag(canvas(), {onMap({6, 4}), onMap({12, 9})});
  expectOneStep("oval", ovalOf(*grid_, {6, 4}, {12, 9}).intersected(CellSet(siding().bounds)).count());
  hand.key(Qt::Key_4);
  hand.click(canvas(), onMap({6, 6}));
  expectOneStep("fill", siding().bounds.count());
  hand.key(Qt::Key_1);
  hand.key(Qt::Key_Period);
  hand.click(canvas(), onMap({9, 7}));
  const std::int64_t disc = discOf(*grid_, {9, 7}, 1).count();
  EXPECT_EQ(painted(), disc);
  // Cut and pasted where it was, it is the same.
  const Quilt before = session().quilt();
  hand.key(Qt::Key_5);
  hand.drag(canvas(), {onMap({4, 3}), onMap({16, 12})});
  const CellPos grip = [&] {
    const CellRect all = session().desk().selection().bounds();
    return CellPos{all.x0 + (all.width() - 1) / 2, all.y0 + (all.height() - 1) / 2};
  }();
  hand.key(Qt::Key_X, Qt::ControlModifier);
  EXPECT_EQ(painted(), 0);
  hand.key(Qt::Key_Escape);
  hand.key(Qt::Key_Comma);
  hand.key(Qt::Key_V, Qt::ControlModifier);
  hand.key(Qt::Key_Comma);
  hand.click(canvas(), onMap(grip));
  EXPECT_EQ(session().quilt(), before);
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  const auto saved = QuiltStore::open(realDisk(), folder(), QuiltStore::Access::read);
  ASSERT_TRUE(saved);
  const Map& again = *saved->quilt.mapNamed("Siding");
  EXPECT_EQ(again.grid, siding().grid);
  std::int64_t kept = 0;
  again.layerNamed("Ground")->cells.forEachPainted(again.bounds, [&](CellPos, Cell) { ++kept; });
  EXPECT_EQ(kept, disc);
}

TEST_P(HandOnGrid, AStretchIsDrawnFittedAnewFoundAgainAndGetsAnotherEnd) {
  const Quilt bare = session().quilt();
  takeEndMiddleEnd();
  hand.key(Qt::Key_M);
  const CellPos from{8, 6};
  const CellPos to = beside(from, {5, 0});
  hand.drag(canvas(), {onMap(from), onMap(to)});
  const auto row = [&] {
    std::vector<std::uint32_t> numbers;
    for (int i = -1; i < 7; ++i) numbers.push_back(number(beside(from, {i, 0})));
    return numbers;
  };
  EXPECT_EQ(row(), (std::vector<std::uint32_t>{0, 24, 25, 25, 25, 25, 26, 0}));
  expectTheSameFromItsList("a stretch");
  // The end in reach is dragged back by two cells.
  const QPointF step = onMap(to) - onMap(beside(from, {4, 0}));
  hand.drag(canvas(), {onMap(to) + step / 2, onMap(beside(from, {3, 0}))});
  EXPECT_EQ(row(), (std::vector<std::uint32_t>{0, 24, 25, 25, 26, 0, 0, 0}));
  expectTheSameFromItsList("a stretch fitted anew");
  // Another press, and it is found again by a double click.
  hand.click(canvas(), onMap(beside(from, {-3, 3})));
  undo();
  const Quilt laid = session().quilt();
  hand.key(Qt::Key_5);
  hand.doubleClick(canvas(), onMap(from));
  ASSERT_TRUE(session().verbs().strokes.stretchBox());
  EXPECT_EQ(session().verbs().strokes.stretchBox()->width(), 4);
  EXPECT_EQ(session().quilt(), laid) << "looking for it changes nothing";
  while (!session().undoLine().steps().empty() && session().quilt() != bare) undo();
  EXPECT_EQ(session().quilt(), bare);
}

TEST_P(HandOnGrid, TheWheelGivesTheEndOfAStretchAnotherLook) {
  // Ends that look alike are a mix that was kept.
  hand.click(room->table(), onTable("street", 26));
  hand.click(room->table(), onTable("street", 27), Qt::LeftButton, Qt::ShiftModifier);
  hand.key(Qt::Key_K);
  takeEndMiddleEnd();
  hand.key(Qt::Key_M);
  const CellPos from{8, 6};
  const CellPos to = beside(from, {3, 0});
  hand.press(canvas(), onMap(from));
  hand.moveTo(canvas(), onMap(to));
  hand.wheel(canvas(), onMap(to), -1);
  hand.release(canvas(), onMap(to));
  EXPECT_EQ(number(from), 24u);
  EXPECT_EQ(number(beside(from, {1, 0})), 25u);
  EXPECT_EQ(number(to), 27u);
  expectTheSameFromItsList("a stretch with another end");
  // Until the next press , and . do it too, each as a step.
  const std::size_t before = steps();
  hand.key(Qt::Key_Period);
  EXPECT_EQ(number(to), 26u);
  hand.key(Qt::Key_Comma);
  EXPECT_EQ(number(to), 27u);
  EXPECT_EQ(steps(), before + 2);
  undo();
  EXPECT_EQ(number(to), 26u);
  // The middle has no look-alikes that were kept, and says so.
  hand.press(canvas(), onMap(beside(from, {0, 3})));
  hand.moveTo(canvas(), onMap(beside(from, {4, 3})));
  hand.moveTo(canvas(), onMap(beside(from, {-4, 3})));
  hand.wheel(canvas(), onMap(beside(from, {-4, 3})), 1);
  EXPECT_FALSE(canvas()->refusal().isEmpty());
  hand.release(canvas(), onMap(beside(from, {-4, 3})));
}

TEST_P(HandOnGrid, AMixIsThrownSwappedAndThrownAgainOverASelection) {
  gatherThree();
  const Quilt bare = session().quilt();
  hand.key(Qt::Key_3);
  hand.drag(canvas(), {onMap({4, 3}), onMap({14, 11})});
  const std::int64_t all = boxOf(*grid_, {4, 3}, {14, 11}).intersected(CellSet(siding().bounds)).count();
  const auto first = counts();
  EXPECT_EQ(first.size(), 3u);
  EXPECT_EQ(first.at(24) + first.at(25) + first.at(26), all);
  expectTheSameFromItsList("a box of look-alikes");
  const Quilt thrown = session().quilt();
  hand.key(Qt::Key_R, Qt::ShiftModifier);
  EXPECT_NE(session().quilt(), thrown);
  expectTheSameFromItsList("a box thrown again");
  undo();
  EXPECT_EQ(session().quilt(), thrown);
  // Only what is selected is thrown again.
  hand.key(Qt::Key_5);
  hand.drag(canvas(), {onMap({6, 5}), onMap({9, 8})});
  const CellSet selected = session().desk().selection();
  hand.key(Qt::Key_R, Qt::ShiftModifier);
  int changed = 0;
  siding().layerNamed("Ground")->cells.forEachPainted(siding().bounds, [&](CellPos cell, Cell now) {
    if (now == thrown.layer(session().desk().activeAt())->cells.at(cell)) return;
    ++changed;
    EXPECT_TRUE(selected.contains(cell));
  });
  EXPECT_GT(changed, 0);
  undo();
  // One of them is swapped away, first there and then everywhere.
  Story::choose(ActionId::usedHere);
  settle();
  auto* list = in<FoundTiles>("found-tiles");
  ASSERT_EQ(list->found().size(), 3u);
  const std::uint32_t from = list->found()[0].tile.number;
  const std::uint32_t to = list->found()[1].tile.number;
  std::int64_t inside = 0;
  selected.forEachStretch([&](CellPos at, int count) {
    for (int i = 0; i < count; ++i) inside += number({at.x + i, at.y}) == from ? 1 : 0;
  });
  hand.drag(list, {list->rectOf(0).center(), list->rectOf(1).center()});
  EXPECT_EQ(counts()[to], first.at(to) + inside);
  hand.key(Qt::Key_Escape);
  hand.drag(list, {list->rectOf(0).center(), list->rectOf(1).center()});
  EXPECT_EQ(counts().size(), 2u);
  while (session().quilt() != bare) undo();
}

TEST_P(HandOnGrid, ABlockIsTakenKeptAsAStampAndLaidElsewhere) {
  gatherThree();
  hand.key(Qt::Key_3);
  hand.drag(canvas(), {onMap({4, 3}), onMap({9, 7})});
  const Quilt painted = session().quilt();
  hand.drag(canvas(), {onMap({5, 4}), onMap({7, 6})}, Qt::RightButton);
  const Block taken = session().desk().inHand.block;
  EXPECT_GE(taken.parts().size(), 7u);
  hand.key(Qt::Key_K);
  ASSERT_EQ(session().quilt().stamps().size(), 1u);
  EXPECT_EQ(session().quilt().stamps().front()->held.block, taken);
  EXPECT_EQ(session().quilt().stamps().front()->held.grid, siding().grid.kind);
  hand.key(Qt::Key_1);
  hand.click(canvas(), onMap({16, 10}));
  expectTheSameFromItsList("a stamp");
  const SidePos grip = grid_->toSide({16, 10});
  for (const Block::Part& part : taken.parts()) {
    const CellPos cell = grid_->fromSide(grip + part.at);
    if (siding().bounds.contains(cell)) {
      EXPECT_EQ(at("Ground", cell), part.cell);
    }
  }
  // Found by a double click, turned all the way round in hand, and laid where it was, nothing has changed.
  const Quilt laid = session().quilt();
  hand.key(Qt::Key_5);
  hand.doubleClick(canvas(), onMap({16, 10}));
  EXPECT_EQ(session().desk().selectedStamp, session().quilt().stamps().front()->id);
  EXPECT_EQ(session().desk().selection().count(), static_cast<std::int64_t>(taken.parts().size()));
  hand.key(Qt::Key_Escape);
  hand.key(Qt::Key_1);
  for (int i = 0; i < grid_->turnOrder(); ++i) hand.key(Qt::Key_E);
  EXPECT_EQ(session().desk().inHand.block, taken);
  hand.click(canvas(), onMap({16, 10}));
  EXPECT_EQ(session().quilt(), laid);
  undo();
  undo();
  EXPECT_EQ(session().quilt(), painted) << "with keeping the stamp taken back";
}

TEST_P(HandOnGrid, PartsOfTheLevelAreMovedToAnotherLayerAndBack) {
  gatherThree();
  hand.key(Qt::Key_3);
  hand.drag(canvas(), {onMap({4, 3}), onMap({9, 7})});
  const Quilt painted = session().quilt();
  hand.key(Qt::Key_5);
  hand.drag(canvas(), {onMap({5, 4}), onMap({7, 6})});
  const CellSet selected = session().desk().selection();
  hand.key(Qt::Key_W, Qt::ShiftModifier);
  EXPECT_EQ(active(), "Things");
  selected.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      EXPECT_EQ(number({first.x + i, first.y}), 0u);
      EXPECT_FALSE(at("Things", {first.x + i, first.y}).empty());
    }
  });
  hand.key(Qt::Key_S, Qt::ShiftModifier);
  EXPECT_EQ(session().quilt(), painted);
  // By the arrows there and back, too.
  hand.key(Qt::Key_Right);
  EXPECT_NE(session().quilt(), painted);
  undo();
  EXPECT_EQ(session().quilt(), painted);
  EXPECT_EQ(session().desk().selection(), selected);
}

INSTANTIATE_TEST_SUITE_P(Every, HandOnGrid,
                         testing::Combine(testing::ValuesIn(kGridKinds), testing::Values(false, true)),
                         [](const auto& one) {
                           std::string name(gridName(std::get<0>(one.param)));
                           std::replace(name.begin(), name.end(), '-', '_');
                           return name + (std::get<1>(one.param) ? "_odd" : "_even");
                         });

}  // namespace uq::test
