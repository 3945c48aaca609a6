// What a stroke lays, on every grid: mixes, stretches, landing, regions, swaps.
#include "core/Ground.h"

namespace uq::test {

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
