// The painting hand, on every grid: fills, lines, shapes, maps that grow, and turns.
#include "core/Ground.h"

namespace uq::test {

RC_GTEST_PROP(Fill, FillsWhatGoingFromCellToCellFinds, ()) {
  Ground ground = anyGround();
  ground.scatter();
  const CellPos start = ground.anyCell();
  StrokePlan plan = ground.plan(Tool::fill, Block::of(ground.tile(7)));
  plan.options.asSeen = false;
  Stroke fill(ground.quilt, plan);
  fill.moveTo(start);
  const std::set<CellPos> expected = plainFill(ground, start);
  RC_ASSERT(ground.cellsOf(fill.cells()) == expected);
  for (int y = -9; y < 10; ++y) {
    for (int x = -11; x < 11; ++x) {
      const Cell before = ground.cell(ground.quilt, {x, y});
      RC_ASSERT(ground.cell(fill.quilt(), {x, y}) == (expected.contains({x, y}) ? ground.tile(7) : before));
    }
  }
}

RC_GTEST_PROP(Fill, StaysInsideASelectionAndDoesNotReachRoundIt, ()) {
  Ground ground = anyGround();
  const CellRect inside{-3, -3, 4, 4};
  CellSet within(inside);
  // A wall of what is not selected cuts the selection in two.
  within = within.without(CellSet({0, -3, 1, 4}));
  StrokePlan plan = ground.plan(Tool::fill, Block::of(ground.tile(7)));
  plan.within = within;
  Stroke fill(ground.quilt, plan);
  fill.moveTo({-2, 0});
  RC_ASSERT(fill.cells().intersected(CellSet({1, -3, 4, 4})).empty());
  RC_ASSERT(fill.cells().without(within).empty());
}

RC_GTEST_PROP(Line, IsSymmetricUnbrokenAndUnchangedByMoving, ()) {
  const Ground ground = anyGround();
  const SidePos from{*rc::gen::inRange(-6, 6), *rc::gen::inRange(-6, 6)};
  const SidePos to{*rc::gen::inRange(-6, 6), *rc::gen::inRange(-6, 6)};
  const SidePos by{*rc::gen::inRange(-40, 40), *rc::gen::inRange(-40, 40)};
  const auto places = [&](SidePos a, SidePos b) {
    std::vector<SidePos> all;
    for (const CellPos cell : ground.grid->line(ground.grid->fromSide(a), ground.grid->fromSide(b))) {
      all.push_back(ground.grid->toSide(cell));
    }
    return all;
  };
  const auto line = places(from, to);
  auto moved = places(from + by, to + by);
  for (SidePos& at : moved) at = at - by;
  RC_ASSERT(line == moved);
  RC_ASSERT(line.front() == from && line.back() == to);
  for (std::size_t i = 1; i < line.size(); ++i) {
    RC_ASSERT(distanceOf(*ground.grid, ground.grid->fromSide(line[i - 1]), ground.grid->fromSide(line[i])) == 1);
  }
  RC_ASSERT(places(to, from).size() == line.size());
}

RC_GTEST_PROP(Line, SnapsToAWayOfTheGridNearThePointer, ()) {
  const Ground ground = anyGround();
  const CellPos from = ground.anyCell();
  const CellPos to = ground.anyCell();
  const CellPos end = snappedLineEnd(*ground.grid, from, to);
  const SidePos way = ground.grid->toSide(end) - ground.grid->toSide(from);
  if (ground.grid->turnOrder() == 4) {
    RC_ASSERT(way.u == 0 || way.v == 0 || std::abs(way.u) == std::abs(way.v));
  } else {
    const int w = -way.u - way.v;
    RC_ASSERT(way.u == 0 || way.v == 0 || w == 0 || way.u == way.v || way.u == w || way.v == w);
  }
  RC_ASSERT(snappedLineEnd(*ground.grid, from, end) == end);
}

RC_GTEST_PROP(Shape, PaintingAStrokeTwiceIsPaintingItOnce, ()) {
  Ground ground = anyGround();
  ground.scatter();
  const Tool tool = *rc::gen::element(Tool::brush, Tool::line, Tool::box, Tool::oval);
  StrokePlan plan =
      ground.plan(tool, *rc::gen::arbitrary<bool>() ? mixOf(ground, {3, 4, 5}) : InHand(Block::of(ground.tile(3))));
  plan.options.width = *rc::gen::element(1, 3, 5);
  plan.options.outlines = *rc::gen::arbitrary<bool>();
  plan.hand.turnsByChance = *rc::gen::arbitrary<bool>();
  plan.seed = *rc::gen::arbitrary<std::uint64_t>();
  const std::vector<CellPos> path{ground.anyCell(), ground.anyCell(), ground.anyCell()};
  const Quilt once = stroked(ground.quilt, plan, path);
  RC_ASSERT(stroked(once, plan, path) == once);
  // And what it took away is nothing.
  plan.takesAway = true;
  const Quilt gone = stroked(once, plan, path);
  Stroke again(once, plan);
  for (const CellPos cell : path) again.moveTo(cell);
  for (const CellPos cell : ground.cellsOf(again.cells())) RC_ASSERT(ground.cell(gone, cell).empty());
}

RC_GTEST_PROP(Shape, IsTheSameMoveByMoveAndAtOnce, ()) {
  Ground ground = anyGround();
  const Tool tool = *rc::gen::element(Tool::line, Tool::box, Tool::oval);
  StrokePlan plan = ground.plan(tool, mixOf(ground, {3, 4, 5}));
  plan.seed = 9;
  const CellPos from = ground.anyCell();
  const CellPos over = ground.anyCell();
  const CellPos to = ground.anyCell();
  RC_ASSERT(stroked(ground.quilt, plan, {from, over, to}) == stroked(ground.quilt, plan, {from, to}));
}

// A map that grows as it is painted: the same as if it had been as large before; and nothing grows for what is erased,
// filled, or drawn in a selection.
RC_GTEST_PROP(Growing, IsTheSameAsOnALargeEnoughMap, ()) {
  Ground ground(*rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds))), *rc::gen::arbitrary<bool>());
  ground.quilt = withGrowing(withScreen(ground.quilt, {320, 200}), ground.at.map, true);
  const Tool tool = *rc::gen::element(Tool::brush, Tool::line, Tool::box, Tool::oval, Tool::erase);
  InHand hand = InHand(Block::of(ground.tile(3)), GridKind::orthogonal);
  StrokePlan plan = ground.plan(tool, std::move(hand));
  plan.options.width = *rc::gen::element(1, 3);
  const auto far = [] { return *rc::gen::inRange(-40, 40); };
  std::vector<CellPos> path{ground.anyCell()};
  for (int n = *rc::gen::inRange(1, 5); n > 0; --n) path.push_back({far(), far()});
  const Quilt grown = stroked(ground.quilt, plan, path);
  const CellRect is = grown.map(ground.at.map)->bounds;
  RC_ASSERT(is.united(ground.bounds()) == is);
  if (tool == Tool::erase) {
    RC_ASSERT(grown == ground.quilt);
    return;
  }
  const Quilt large = withBounds(ground.quilt, ground.at.map, is);
  RC_ASSERT(bytes(stroked(large, plan, path)) == bytes(grown));
  // Nothing of it is missing.
  const Quilt larger = withBounds(ground.quilt, ground.at.map, ground.bounds().grown(200));
  RC_ASSERT(grown.layer(ground.at)->cells == stroked(larger, plan, path).layer(ground.at)->cells);
  // By whole screens, on those sides only where something came.
  const CellRect used = grown.layer(ground.at)->cells.usedBounds();
  RC_ASSERT(is.x0 == ground.bounds().x0 || used.x0 < ground.bounds().x0);
  RC_ASSERT(is.y1 == ground.bounds().y1 || used.y1 > ground.bounds().y1);
  plan.within = CellSet(CellRect{0, 0, 4, 4});
  RC_ASSERT(stroked(ground.quilt, plan, path).map(ground.at.map)->bounds == ground.bounds());
}

TEST(Growing, AShapeThatComesBackLeavesTheMapAsItWas) {
  Ground ground(GridKind::orthogonal);
  ground.quilt = withGrowing(withScreen(ground.quilt, {320, 200}), ground.at.map, true);
  Stroke stroke(ground.quilt, ground.plan(Tool::box, InHand(Block::of(ground.tile(3)), GridKind::orthogonal)));
  stroke.moveTo({0, 0});
  stroke.moveTo({30, 3});
  EXPECT_EQ(stroke.quilt().map(ground.at.map)->bounds.x1, 9 + 3 * 10);
  stroke.moveTo({4, 3});
  EXPECT_EQ(stroke.quilt().map(ground.at.map)->bounds, ground.bounds());
  EXPECT_TRUE(stroke.before() == ground.quilt);
}

TEST(Growing, AStampBeyondTheEdgeComesWhole) {
  Ground ground(GridKind::orthogonal);
  ground.quilt = withScreen(ground.quilt, {320, 200});
  const Block two({{{0, 0}, ground.tile(3)}, {{1, 0}, ground.tile(4)}});
  const StrokePlan plan = ground.plan(Tool::brush, InHand(two, GridKind::orthogonal));
  Stroke clipped(ground.quilt, plan);
  clipped.moveTo({8, 0});
  EXPECT_TRUE(clipped.reachesBeyond());
  const Quilt grown = stroked(withGrowing(ground.quilt, ground.at.map, true), plan, {{8, 0}});
  EXPECT_EQ(ground.cell(grown, {9, 0}), ground.tile(4));
  EXPECT_EQ(grown.map(ground.at.map)->bounds.x1, 19);
}

RC_GTEST_PROP(Turn, FourQuartersOrSixSixthsOfASelectionAreNothing, ()) {
  Ground ground = anyGround();
  ground.scatter();
  // In the middle, so that nothing leaves the map.
  const CellSet selected = discOf(*ground.grid, {0, 0}, 2);
  const Turning turning = *rc::gen::element(Turning::left, Turning::right);
  Quilt turned = ground.quilt;
  CellSet now = selected;
  const CellSet cleared = selected;
  for (int i = 0; i < ground.grid->turnOrder(); ++i) {
    TurnedCells next = turnCells(turned, {std::span(&ground.at, 1), now}, turning);
    turned = next.quilt;
    now = next.selected;
    RC_ASSERT(now.count() == selected.count());
  }
  RC_ASSERT(ground.cellsOf(now) == ground.cellsOf(selected));
  RC_ASSERT(copyOf(turned, ground.at, selected) == copyOf(ground.quilt, ground.at, selected));
}

RC_GTEST_PROP(Turn, FourQuartersOfABoxOfAnySidesAreNothingAndMirroredItStaysWhereItIs, ()) {
  Ground ground = anyGround();
  RC_PRE(ground.grid->turnOrder() == 4);
  ground.scatter();
  const CellPos corner{-1, -1};
  const SidePos far = ground.grid->toSide(corner) + SidePos{*rc::gen::inRange(0, 3), *rc::gen::inRange(0, 3)};
  const CellSet selected = boxOf(*ground.grid, corner, ground.grid->fromSide(far), BoxShape::alongTheGrid)
                               .intersected(CellSet(ground.bounds()));
  // Nothing lies where it may come to.
  const Quilt alone = clearCells(ground.quilt, ground.at, CellSet(ground.bounds()).without(selected));
  const auto times = [&](Turning turning, int count) {
    TurnedCells turned{alone, selected};
    for (int i = 0; i < count; ++i)
      turned = turnCells(turned.quilt, {std::span(&ground.at, 1), turned.selected}, turning);
    return turned;
  };
  const auto isNothing = [&](const TurnedCells& turned) {
    return turned.selected == selected &&
           copyOf(turned.quilt, ground.at, selected) == copyOf(alone, ground.at, selected);
  };
  RC_ASSERT(isNothing(times(Turning::right, 4)));
  RC_ASSERT(isNothing(times(Turning::left, 4)));
  RC_ASSERT(isNothing(times(Turning::mirrorAcross, 2)));
  const CellRect box = sideBoundsOf(*ground.grid, selected);
  const CellRect mirrored = sideBoundsOf(*ground.grid, times(Turning::mirrorAcross, 1).selected);
  if (box.width() == mirrored.width()) RC_ASSERT(box == mirrored);
}

RC_GTEST_PROP(Selected, CutAndPastedCellsAreTheSameCells, ()) {
  Ground ground = anyGround();
  ground.scatter();
  const CellPos a = ground.anyCell();
  const CellPos b = ground.anyCell();
  const CellSet selected = boxOf(*ground.grid, a, b).intersected(CellSet(ground.bounds()));
  RC_PRE(!selected.empty());
  const std::vector<LayerAt> layers{ground.at, layerOf(ground.quilt, "Yard", "Awnings")};
  const auto hand = copyOf(ground.quilt, layers, ground.at, selected);
  RC_ASSERT(hand);
  const Quilt cut = clearCells(ground.quilt, layers, selected);
  StrokePlan plan = layingOn(ground.at, *hand);
  const Quilt back = hand->empty() ? cut : stroked(cut, plan, {gripOf(selected)});
  RC_ASSERT(copyOf(back, ground.at, selected) == copyOf(ground.quilt, ground.at, selected));
}

}  // namespace uq::test
