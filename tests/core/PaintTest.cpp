// The painting hand, on every grid: fills, lines, shapes, turns, mixes, stretches and landing.
#include <set>

#include "core/Support.h"
#include "core/edit/ArrangeStamps.h"
#include "core/edit/FindStretch.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/MapFacts.h"
#include "core/edit/Region.h"
#include "core/edit/ResizeMap.h"
#include "core/edit/Selected.h"
#include "core/edit/Stroke.h"
#include "core/edit/SwapTiles.h"
#include "core/edit/Turned.h"

namespace uq::test {

namespace {

// A map of one layer on any grid, with shifted rows of either parity, and a sheet "street".
struct Ground {
  explicit Ground(GridKind kind, bool firstShift = false) {
    quilt = smallQuilt();
    Map map = *quilt.mapNamed("Yard");
    map.grid = nearestShape(kind, {32, 32});
    map.grid.firstShift = firstShift;
    map.bounds = {-9, -7, 9, 8};
    quilt = quilt.with(map);
    at = layerOf(quilt, "Yard", "Sheds");
    quilt = quilt.with(at, LayerCells());
    grid = makeGrid(map.grid);
  }

  CellRect bounds() const { return quilt.map(at.map)->bounds; }
  Cell cell(const Quilt& q, CellPos pos) const { return q.layer(at)->cells.at(pos); }
  Cell tile(std::uint32_t number) const { return tileOf(quilt, "street", number); }
  StrokePlan plan(Tool tool, InHand hand) const {
    StrokePlan plan = layingOn(at, std::move(hand));
    plan.tool = tool;
    return plan;
  }
  // A few patches of two tiles and nothing.
  void scatter() {
    CellGrid cells;
    for (int i = 0, n = *rc::gen::inRange(0, 60); i < n; ++i) {
      const CellPos pos{*rc::gen::inRange(-9, 9), *rc::gen::inRange(-7, 8)};
      const auto number = *rc::gen::inRange(0u, 2u);
      const auto turn = static_cast<std::uint8_t>(*rc::gen::inRange(0, 4));
      cells.set(pos, Cell(tile(number).tile(), Turn{false, turn}));
    }
    quilt = quilt.with(at, LayerCells{std::move(cells), {}});
  }
  CellPos anyCell() const { return {*rc::gen::inRange(-9, 9), *rc::gen::inRange(-7, 8)}; }
  std::set<CellPos> cellsOf(const CellSet& set) const {
    std::set<CellPos> all;
    set.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) all.insert({first.x + i, first.y});
    });
    return all;
  }

  Quilt quilt;
  LayerAt at;
  std::unique_ptr<const Grid> grid;
};

Ground anyGround() {
  return Ground(*rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds))),
                *rc::gen::arbitrary<bool>());
}

// From cell to cell, as anybody would do it by hand.
std::set<CellPos> plainFill(const Ground& ground, CellPos start) {
  std::set<CellPos> found;
  std::vector<CellPos> open{start};
  const auto held = [&](CellPos pos) {
    const Cell cell = ground.cell(ground.quilt, pos);
    return cell.empty() ? TileRef{} : cell.tile();
  };
  while (!open.empty()) {
    const CellPos pos = open.back();
    open.pop_back();
    if (!ground.bounds().contains(pos) || held(pos) != held(start) || !found.insert(pos).second) continue;
    for (int side = 0; side < ground.grid->turnOrder(); ++side) open.push_back(ground.grid->across(pos, side));
  }
  return found;
}

InHand mixOf(const Ground& ground, std::initializer_list<std::uint32_t> numbers) {
  InHand mix(Block::of(ground.tile(*numbers.begin())), ground.grid->shape().kind);
  mix.manner = Manner::mix;
  for (const std::uint32_t number : numbers) mix.members.push_back({Block::of(ground.tile(number))});
  return mix;
}

// Three tiles in a row: an end, a middle, an end.
InHand platform(const Ground& ground, int middles = 1) {
  std::vector<Block::Part> parts;
  for (int i = 0; i < middles + 2; ++i) {
    parts.push_back({{i, 0}, ground.tile(10 + static_cast<std::uint32_t>(i))});
  }
  return InHand(Block(std::move(parts)), ground.grid->shape().kind).inManner(Manner::stretch);
}

std::vector<std::uint32_t> row(const Ground& ground, const Quilt& quilt, SidePos from, int count) {
  std::vector<std::uint32_t> numbers;
  for (int i = 0; i < count; ++i) {
    const Cell cell = ground.cell(quilt, ground.grid->fromSide(from + SidePos{i, 0}));
    numbers.push_back(cell.empty() ? 0 : cell.tile().number);
  }
  return numbers;
}

}  // namespace

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

RC_GTEST_PROP(Mix, LaysOnlyItsMembersAndTheSameForTheSameSeed, ()) {
  Ground ground = anyGround();
  StrokePlan plan = ground.plan(Tool::box, mixOf(ground, {3, 4, 5}));
  plan.seed = *rc::gen::arbitrary<std::uint64_t>();
  const Quilt laid = stroked(ground.quilt, plan, {{-5, -5}, {5, 5}});
  RC_ASSERT(laid == stroked(ground.quilt, plan, {{-5, -5}, {5, 5}}));
  plan.hand.neverAlike = true;
  const Quilt apart = stroked(ground.quilt, plan, {{-5, -5}, {5, 5}});
  int alike = 0;
  int pairs = 0;
  for (int y = -4; y < 5; ++y) {
    for (int x = -4; x < 5; ++x) {
      const Cell cell = ground.cell(apart, {x, y});
      if (cell.empty()) continue;
      RC_ASSERT(cell.tile().number >= 3 && cell.tile().number <= 5);
      const Cell beside = ground.cell(apart, ground.grid->across({x, y}, 0));
      pairs += beside.empty() ? 0 : 1;
      alike += !beside.empty() && beside.tile() == cell.tile() ? 1 : 0;
    }
  }
  // Where rows are shifted three tiles cannot always be kept apart: a cell may have three laid neighbours.
  const bool shifted =
      ground.grid->shape().kind != GridKind::orthogonal && ground.grid->shape().kind != GridKind::diamond;
  if (!shifted) RC_ASSERT(alike == 0 && pairs > 0);
}

TEST(Mix, KeepsItsWeightsAndRareOnesOffTheRim) {
  Ground ground(GridKind::orthogonal);
  InHand mix = mixOf(ground, {3, 4});
  mix.members[0].weight = 9;
  mix.members[1].keepsOffRim = true;
  StrokePlan plan = ground.plan(Tool::box, mix);
  std::map<std::uint32_t, int> counts;
  for (std::uint64_t seed = 1; seed <= 40; ++seed) {
    plan.seed = seed;
    const Quilt laid = stroked(ground.quilt, plan, {{-4, -4}, {5, 5}});
    for (int y = -4; y <= 5; ++y) {
      for (int x = -4; x <= 5; ++x) {
        const std::uint32_t number = ground.cell(laid, {x, y}).tile().number;
        const bool rim = x == -4 || y == -4 || x == 5 || y == 5;
        EXPECT_TRUE(number == 3 || !rim) << x << ", " << y;
        if (!rim) ++counts[number];
      }
    }
  }
  const double share = counts[4] / double(counts[3] + counts[4]);
  EXPECT_NEAR(share, 0.1, 0.03);
}

TEST(Mix, LeavesCellsAloneAndLaysLargerMembersWhole) {
  Ground ground(GridKind::orthogonal);
  InHand mix = mixOf(ground, {3});
  mix.members.push_back({Block(), 1});
  mix.members.push_back({Block({{{0, 0}, ground.tile(20)}, {{1, 0}, ground.tile(21)}}), 1});
  StrokePlan plan = ground.plan(Tool::box, mix);
  plan.seed = 5;
  const Quilt laid = stroked(ground.quilt, plan, {{-6, -6}, {6, 6}});
  int pairs = 0;
  int empties = 0;
  for (int y = -6; y <= 6; ++y) {
    for (int x = -6; x <= 6; ++x) {
      const Cell cell = ground.cell(laid, {x, y});
      empties += cell.empty() ? 1 : 0;
      if (cell.empty() || cell.tile().number != 20) continue;
      ++pairs;
      EXPECT_EQ(ground.cell(laid, {x + 1, y}), ground.tile(21));
    }
  }
  EXPECT_GT(pairs, 5);
  EXPECT_GT(empties, 10);
}

RC_GTEST_PROP(Chance, GoingBackOverACellDoesNotFlicker, ()) {
  Ground ground = anyGround();
  StrokePlan plan = ground.plan(Tool::brush, mixOf(ground, {3, 4, 5}));
  plan.hand.neverAlike = *rc::gen::arbitrary<bool>();
  plan.seed = 77;
  Stroke stroke(ground.quilt, plan);
  std::map<CellPos, Cell> laid;
  for (int i = 0; i < 6; ++i) {
    stroke.moveTo(ground.anyCell());
    for (const auto& [at, cell] : laid) RC_ASSERT(ground.cell(stroke.quilt(), at) == cell);
    for (const CellPos at : ground.cellsOf(stroke.cells())) laid[at] = ground.cell(stroke.quilt(), at);
  }
}

TEST(Stretch, RepeatsItsMiddleBetweenItsEnds) {
  for (const GridKind kind : {GridKind::orthogonal, GridKind::diamond, GridKind::staggered}) {
    const Ground ground(kind);
    for (const Tool tool : {Tool::brush, Tool::box, Tool::line}) {
      const SidePos from{-2, 0};
      Stroke stroke(ground.quilt, ground.plan(tool, platform(ground, 2)));
      stroke.moveTo(ground.grid->fromSide(from));
      stroke.moveTo(ground.grid->fromSide(from + SidePos{6, 0}));
      EXPECT_EQ(stroke.refusal(), "");
      EXPECT_EQ(row(ground, stroke.quilt(), from, 8), (std::vector<std::uint32_t>{10, 11, 12, 11, 12, 11, 13, 0}));
      // And fitted anew.
      stroke.refit({from.u, from.v, from.u + 3, from.v + 1});
      EXPECT_EQ(row(ground, stroke.quilt(), from, 8), (std::vector<std::uint32_t>{10, 11, 13, 0, 0, 0, 0, 0}));
    }
  }
}

TEST(Stretch, TooSmallABoxIsRefusedInWords) {
  const Ground ground(GridKind::orthogonal);
  Stroke stroke(ground.quilt, ground.plan(Tool::box, platform(ground)));
  stroke.moveTo({0, 0});
  EXPECT_EQ(stroke.refusal(), "This stretch needs 2 × 1 cells at least");
  EXPECT_EQ(stroke.quilt(), ground.quilt);
  stroke.moveTo({0, 3});
  EXPECT_NE(stroke.refusal(), "") << "it has no middle that repeats down";
  stroke.moveTo({1, 0});
  EXPECT_EQ(row(ground, stroke.quilt(), {0, 0}, 3), (std::vector<std::uint32_t>{10, 12, 0}));
  Stroke oval(ground.quilt, ground.plan(Tool::oval, platform(ground)));
  oval.moveTo({0, 0});
  EXPECT_EQ(oval.refusal(), "A stretch has corners: draw it with Box");
  const Ground hexes(GridKind::hexagonalPointy);
  InHand square(Block({{{0, 0}, hexes.tile(1)}, {{1, 0}, hexes.tile(2)}, {{0, 1}, hexes.tile(3)}}),
                GridKind::hexagonalPointy);
  Stroke tall(hexes.quilt, hexes.plan(Tool::box, square.inManner(Manner::stretch)));
  tall.moveTo({0, 0});
  EXPECT_EQ(tall.refusal(), "On hexagons a stretch runs along one way only");
}

TEST(Stretch, AStepSmallerThanTheMiddleLetsCopiesOverlap) {
  const Ground ground(GridKind::orthogonal);
  InHand trees = platform(ground, 2);
  trees.ends.stepAcross = 1;
  Stroke stroke(ground.quilt, ground.plan(Tool::box, trees));
  stroke.moveTo({0, 0});
  stroke.moveTo({5, 0});
  // Each copy lies over the one before.
  EXPECT_EQ(row(ground, stroke.quilt(), {0, 0}, 6), (std::vector<std::uint32_t>{10, 11, 11, 11, 11, 13}));
}

TEST(Stretch, AStepLargerThanTheBlockLeavesGapsAndOnlyWholeCopies) {
  const Ground ground(GridKind::orthogonal);
  InHand trees = InHand(Block({{{0, 0}, ground.tile(3)}, {{1, 0}, ground.tile(4)}}), GridKind::orthogonal).inManner(Manner::stretch);
  trees.ends = fittingEnds({0, 0, 0, 0, 5, 0, false}, trees.wholeExtent());
  ASSERT_EQ(trees.ends.stepAcross, 5);
  const Quilt laid = stroked(ground.quilt, ground.plan(Tool::box, trees), {{-4, 0}, {7, 0}});
  const auto isLaid = [&](int x) { return !ground.cell(laid, {x, 0}).empty(); };
  std::string seen;
  for (int x = -4; x <= 7; ++x) seen += isLaid(x) ? 'T' : '.';
  EXPECT_EQ(seen, "TT...TT...TT");
  const Quilt shorter = stroked(ground.quilt, ground.plan(Tool::box, trees), {{-4, 0}, {6, 0}});
  EXPECT_TRUE(ground.cell(shorter, {6, 0}).empty()) << "half a copy is none";
  // It is found again across its gaps.
  const auto found = findStretch(laid, ground.at, {1, 0}, std::span(&trees, 1));
  ASSERT_TRUE(found);
  EXPECT_EQ(found->box, (CellRect{-4, 0, 8, 1}));
}

TEST(Stretch, IsFoundAgainFromItsCellsAlone) {
  for (const bool shuffles : {false, true}) {
    const Ground ground(GridKind::orthogonal);
    InHand hedge = platform(ground, 3);
    hedge.ends.shuffles = shuffles;
    StrokePlan plan = ground.plan(Tool::box, hedge);
    plan.seed = 3;
    const Quilt laid = stroked(ground.quilt, plan, {{-4, 2}, {4, 2}});
    const auto found = findStretch(laid, ground.at, {0, 2}, std::span(&hedge, 1));
    ASSERT_TRUE(found);
    EXPECT_EQ(found->box, (CellRect{-4, 2, 5, 3}));
    EXPECT_FALSE(findStretch(laid, ground.at, {0, 3}, std::span(&hedge, 1)));
    const InHand other = Block::of(ground.tile(1));
    EXPECT_FALSE(findStretch(laid, ground.at, {0, 2}, std::span(&other, 1)));
  }
}

TEST(Lines, AreAsBroadAsTheToolOnEveryGrid) {
  for (const GridKind kind : {GridKind::orthogonal, GridKind::diamond, GridKind::staggered, GridKind::hexagonalPointy,
                              GridKind::hexagonalFlat}) {
    const Ground ground(kind);
    const auto laid = [&](Tool tool, int width) {
      StrokePlan plan = ground.plan(tool, Block::of(ground.tile(3)));
      plan.options.width = width;
      return stroked(ground.quilt, plan, {{-3, 0}, {3, 0}});
    };
    for (const int width : {1, 3, 5, 11}) {
      EXPECT_EQ(laid(Tool::line, width), laid(Tool::brush, width)) << static_cast<int>(kind) << " " << width;
    }
  }
  EXPECT_TRUE(isWidth(31));
  EXPECT_FALSE(isWidth(32) || isWidth(33) || isWidth(0) || isWidth(4));
}

TEST(Stretch, FillsRectanglesOnly) {
  Ground ground(GridKind::orthogonal);
  StrokePlan plan = ground.plan(Tool::fill, platform(ground));
  plan.given = CellSet({0, 0, 5, 1});
  Stroke fits(ground.quilt, plan);
  fits.moveTo({0, 0});
  EXPECT_EQ(row(ground, fits.quilt(), {0, 0}, 5), (std::vector<std::uint32_t>{10, 11, 11, 11, 12}));
  plan.given.insert({9, 1});
  Stroke no(ground.quilt, plan);
  no.moveTo({0, 0});
  EXPECT_EQ(no.refusal(), "A stretch fills rectangles only, and this region is none");
}

TEST(Landing, WhatDoesNotCoverNeverWipesOutWhatDoes) {
  const Quilt quilt = smallQuilt();
  const LayerAt paving = layerOf(quilt, "Yard", "Paving");
  const Cell grass = tileOf(quilt, "street", 1);
  const Cell bush = tileOf(quilt, "rails", 1);
  const Quilt green = stroked(quilt, layingOn(paving, Block::of(grass)), {{0, 0}, {4, 0}});
  StrokePlan plan = layingOn(paving, Block::of(bush));
  plan.obeys = false;
  plan.covers = [&](TileRef tile) { return tile == grass.tile(); };
  Stroke lands(green, plan);
  lands.moveTo({2, 0});
  EXPECT_EQ(lands.landing().keeps, "Paving");
  const LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  EXPECT_EQ(lands.landing().layers.front(), sheds);
  EXPECT_EQ(lands.quilt().layer(paving)->cells.at({2, 0}), grass);
  EXPECT_EQ(lands.quilt().layer(sheds)->cells.at({2, 0}), bush);
  // Obeyed to the letter, it lands where it was told to.
  plan.obeys = true;
  EXPECT_EQ(stroked(green, plan, {{2, 0}}).layer(paving)->cells.at({2, 0}), bush);
}

TEST(Landing, ANewLayerComesWithTheFirstPressWhereThereIsNoneNearer) {
  const Quilt quilt = smallQuilt();
  const LayerAt floor = layerOf(quilt, "Loft", "Floor");
  const Cell grass = tileOf(quilt, "street", 1);
  const Quilt green = stroked(quilt, layingOn(floor, Block::of(grass)), {{0, 0}, {4, 0}});
  StrokePlan plan = layingOn(floor, Block::of(tileOf(quilt, "rails", 1)));
  plan.obeys = false;
  plan.covers = [&](TileRef tile) { return tile == grass.tile(); };
  Stroke lands(green, plan);
  lands.moveTo({2, 0});
  lands.moveTo({3, 0});
  EXPECT_TRUE(lands.landing().makesLayer);
  const Map& loft = *lands.quilt().mapNamed("Loft");
  ASSERT_EQ(loft.layers.size(), 2u);
  EXPECT_EQ(loft.layers[1]->role, "things");
  EXPECT_EQ(loft.layers[1]->cells.at({3, 0}), tileOf(quilt, "rails", 1));
  EXPECT_EQ(green.mapNamed("Loft")->layers.size(), 1u);
}

TEST(Landing, AStrokeThatMeetsACoveringTileLaterLeavesThatCellAndCountsIt) {
  const Quilt quilt = smallQuilt();
  const LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  const Cell wall = tileOf(quilt, "street", 1);
  const Quilt walled = stroked(quilt, layingOn(sheds, Block::of(wall)), {{3, 0}, {4, 0}});
  StrokePlan plan = layingOn(sheds, Block::of(tileOf(quilt, "rails", 1)));
  plan.obeys = false;
  plan.covers = [&](TileRef tile) { return tile == wall.tile(); };
  Stroke stroke(walled, plan);
  stroke.moveTo({1, 0});
  stroke.moveTo({6, 0});
  stroke.moveTo({1, 0});
  EXPECT_EQ(stroke.kept(), 2);
  EXPECT_EQ(stroke.quilt().layer(sheds)->cells.at({3, 0}), wall);
  EXPECT_EQ(stroke.quilt().layer(sheds)->cells.at({5, 0}), tileOf(quilt, "rails", 1));
}

TEST(Landing, PartsOfAThingGoToLayersOfTheirRoleElseAsFarAway) {
  Quilt quilt = smallQuilt();
  quilt = withRole(quilt, layerOf(quilt, "Yard", "Awnings"), "in front");
  InHand tree(Block::of(tileOf(quilt, "rails", 1)));
  tree.others.push_back({"in front", 1, Block({{{0, -1}, tileOf(quilt, "rails", 2)}})});
  const LayerAt paving = layerOf(quilt, "Yard", "Paving");
  const Quilt laid = stroked(quilt, layingOn(paving, tree), {{3, 3}});
  const Map& yard = *laid.mapNamed("Yard");
  const auto front = std::find_if(yard.layers.begin(), yard.layers.end(),
                                  [](const Shared<Layer>& layer) { return layer->role == "in front"; });
  ASSERT_NE(front, yard.layers.end());
  EXPECT_EQ((*front)->cells.at({3, 2}), tileOf(quilt, "rails", 2));
  // Where there is no such layer, one is made as far away.
  const LayerAt floor = layerOf(quilt, "Loft", "Floor");
  const Quilt inside = stroked(quilt, layingOn(floor, tree), {{3, 3}});
  const Map& loft = *inside.mapNamed("Loft");
  ASSERT_EQ(loft.layers.size(), 2u);
  EXPECT_EQ(loft.layers[1]->role, "in front");
  EXPECT_EQ(loft.layers[1]->cells.at({3, 2}), tileOf(quilt, "rails", 2));
}

TEST(Region, AsSeenLooksThroughEmptyCellsOfTheNearerLayers) {
  const Quilt quilt = smallQuilt();
  const LayerAt paving = layerOf(quilt, "Yard", "Paving");
  const LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  Quilt laid = stroked(quilt, layingOn(paving, Block::of(tileOf(quilt, "street", 1))), {{0, 0}, {6, 0}});
  laid = stroked(laid, layingOn(sheds, Block::of(tileOf(quilt, "rails", 1))), {{3, 0}});
  RegionAsk ask;
  ask.layer = sheds;
  EXPECT_TRUE(usuallyAsSeen(laid, sheds, {1, 0}));
  ask.asSeen = true;
  EXPECT_TRUE(regionOf(laid, ask, {1, 0}).contains({2, 0}));
  EXPECT_FALSE(regionOf(laid, ask, {1, 0}).contains({3, 0})) << "the rail";
  ask.hidden = {sheds.layer};
  EXPECT_TRUE(regionOf(laid, ask, {1, 0}).contains({3, 0})) << "which is hidden now";
}

TEST(Region, LookAlikesOfOneMixAreTheSame) {
  Ground ground(GridKind::orthogonal);
  Quilt laid = stroked(ground.quilt, layingOn(ground.at, Block::of(ground.tile(3))), {{0, 0}, {2, 0}});
  laid = stroked(laid, layingOn(ground.at, Block::of(ground.tile(4))), {{3, 0}, {4, 0}});
  const InHand mix = mixOf(ground, {3, 4});
  RegionAsk ask;
  ask.layer = ground.at;
  ask.hand = &mix;
  EXPECT_EQ(regionOf(laid, ask, {0, 0}).count(), 5);
  ask.alike = Alike::tile;
  EXPECT_EQ(regionOf(laid, ask, {0, 0}).count(), 3);
}

TEST(Region, WhatCountsAsTheSameIsSaid) {
  Ground ground(GridKind::orthogonal);
  Quilt laid = stroked(ground.quilt, layingOn(ground.at, Block::of(ground.tile(3))), {{0, 0}, {2, 0}});
  laid = stroked(laid, layingOn(ground.at, Block::of(ground.tile(4))), {{3, 0}, {4, 0}});
  laid = stroked(laid, layingOn(ground.at, Block::of(ground.tile(7))), {{5, 0}, {6, 0}});
  laid = stroked(laid, layingOn(ground.at, Block::of(tileOf(laid, "rails", 1))), {{7, 0}, {8, 0}});
  IdSource ids(3);
  const Block pair({{{0, 0}, ground.tile(3)}, {{1, 0}, ground.tile(4)}});
  laid = keepStamp(laid, InHand(pair, GridKind::orthogonal), "gate", ids).quilt;
  RegionAsk ask;
  ask.layer = ground.at;
  const auto count = [&](Alike alike) {
    ask.alike = alike;
    return regionOf(laid, ask, {0, 0}).count();
  };
  EXPECT_EQ(count(Alike::tile), 3);
  EXPECT_EQ(count(Alike::mix), 3);
  EXPECT_EQ(count(Alike::stamp), 5);
  EXPECT_EQ(count(Alike::pile), 7) << "up to another sheet";
  for (const char* name : {"street", "rails"}) {
    const Shared<Sheet>* found = nullptr;
    for (const auto& sheet : laid.sheets()) found = sheet->name == name ? &sheet : found;
    ASSERT_TRUE(found);
    Sheet sheet = found->read();
    sheet.origin.pile = "Town";
    laid = laid.with(sheet);
  }
  EXPECT_EQ(count(Alike::pile), 9) << "both lie in one pile now";
}

TEST(Swap, ByFillKeepsTurnsAndLiftsAndAsksForOneTile) {
  Ground ground(GridKind::orthogonal);
  LayerCells cells;
  const Cell turned(ground.tile(3).tile(), Turn{false, 1});
  cells.lay({0, 0}, turned, 8);
  cells.lay({5, 5}, ground.tile(3), 0);
  cells.lay({1, 0}, ground.tile(4), 0);
  ground.quilt = ground.quilt.with(ground.at, std::move(cells));
  StrokePlan plan = ground.plan(Tool::fill, Block::of(ground.tile(9)));
  plan.options.swaps = true;
  const Quilt swapped = stroked(ground.quilt, plan, {{0, 0}});
  EXPECT_EQ(swapped.layer(ground.at)->laidAt({0, 0}), (uq::Laid{Cell(ground.tile(9).tile(), Turn{false, 1}), 8}));
  EXPECT_EQ(ground.cell(swapped, {5, 5}), ground.tile(9)) << "not only what hangs together";
  EXPECT_EQ(ground.cell(swapped, {1, 0}), ground.tile(4));
  plan.within = CellSet(CellRect{0, 0, 2, 2});
  EXPECT_EQ(ground.cell(stroked(ground.quilt, plan, {{0, 0}}), {5, 5}), ground.tile(3)) << "not selected";
  plan.within = {};
  Stroke nothing(ground.quilt, plan);
  nothing.moveTo({2, 2});
  EXPECT_THAT(nothing.refusal(), testing::HasSubstr("Nothing lies here"));
  plan.hand = InHand(Block({{{0, 0}, ground.tile(3)}, {{1, 0}, ground.tile(4)}}), GridKind::orthogonal);
  Stroke many(ground.quilt, plan);
  many.moveTo({0, 0});
  EXPECT_THAT(many.refusal(), testing::HasSubstr("one tile"));
}

RC_GTEST_PROP(Swap, TurnsEveryOneIntoTheOtherAndNothingElse, ()) {
  Ground ground = anyGround();
  ground.scatter();
  SwapAsk ask{ground.tile(0).tile(), ground.tile(9).tile(), SwapIn::layer, ground.at, {}};
  if (*rc::gen::arbitrary<bool>()) {
    ask.in = SwapIn::selection;
    ask.selected = CellSet({-4, -4, 5, 5});
  }
  const Swapped swapped = swapTiles(ground.quilt, ask);
  std::int64_t changed = 0;
  for (int y = -7; y < 8; ++y) {
    for (int x = -9; x < 9; ++x) {
      const Cell was = ground.cell(ground.quilt, {x, y});
      const bool in = ask.in == SwapIn::layer || ask.selected.contains({x, y});
      const bool meant = !was.empty() && was.tile() == ask.from && in;
      changed += meant ? 1 : 0;
      RC_ASSERT(ground.cell(swapped.quilt, {x, y}) == (meant ? Cell(ask.to, was.turn()) : was));
    }
  }
  RC_ASSERT(swapped.cells == changed);
  RC_ASSERT(countSwap(ground.quilt, ask) == changed);
}

TEST(ThrowAgain, ThrowsWhatIsOfAMixAndTurnsTheRest) {
  Ground ground(GridKind::orthogonal);
  StrokePlan plan = ground.plan(Tool::box, mixOf(ground, {3, 4, 5}));
  plan.seed = 1;
  const Quilt laid = stroked(ground.quilt, plan, {{-4, -4}, {5, 5}});
  const CellSet selected({-4, -4, 6, 6});
  const Quilt thrown = thrownAgain(laid, ground.at, selected, plan.hand, 2);
  int other = 0;
  for (int y = -4; y < 6; ++y) {
    for (int x = -4; x < 6; ++x) {
      const Cell cell = ground.cell(thrown, {x, y});
      EXPECT_TRUE(cell.tile().number >= 3 && cell.tile().number <= 5);
      other += cell == ground.cell(laid, {x, y}) ? 0 : 1;
    }
  }
  EXPECT_GT(other, 30);
  InHand turns(Block::of(ground.tile(7)));
  EXPECT_EQ(thrownAgain(laid, ground.at, selected, turns, 2), laid) << "none of its tiles is of a mix";
  turns.turnsByChance = true;
  const Quilt turned = thrownAgain(laid, ground.at, selected, turns, 2);
  std::set<std::uint32_t> codes;
  for (int y = -4; y < 6; ++y) {
    for (int x = -4; x < 6; ++x) {
      EXPECT_EQ(ground.cell(turned, {x, y}).tile(), ground.cell(laid, {x, y}).tile());
      codes.insert(ground.cell(turned, {x, y}).turn().code());
    }
  }
  EXPECT_EQ(codes.size(), 8u);
}

RC_GTEST_PROP(Selection, GrownThenShrunkHoldsAllThatItHeld, ()) {
  const Ground ground = anyGround();
  const CellSet cells = discOf(*ground.grid, ground.anyCell(), *rc::gen::inRange(0, 3));
  const CellSet more = grown(*ground.grid, cells);
  RC_ASSERT(cells.without(more).empty());
  RC_ASSERT(more.count() > cells.count());
  RC_ASSERT(ground.cellsOf(shrunk(*ground.grid, more)) == ground.cellsOf(cells));
}

TEST(Selection, AnOutlineDrawnByHandHoldsTheCellsWhoseMiddleIsInside) {
  const Ground ground(GridKind::orthogonal);
  // A triangle over the corner of the map.
  const std::vector<PixelPos> way{{0, 0}, {32 * 4 - 2, 0}, {0, 32 * 4 - 2}};
  const CellSet inside = insideOutline(*ground.grid, ground.bounds(), way);
  EXPECT_TRUE(inside.contains({0, 0}));
  EXPECT_TRUE(inside.contains({2, 0}));
  EXPECT_FALSE(inside.contains({3, 3}));
  EXPECT_FALSE(inside.contains({-1, 0}));
  EXPECT_EQ(inside.count(), 6);
}

}  // namespace uq::test
