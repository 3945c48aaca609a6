#include <gtest/gtest.h>

#include "core/Support.h"
#include "core/edit/Landing.h"
#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Stroke.h"

namespace uq::test {

namespace {

const CellGrid& cellsOf(const Quilt& quilt, const char* map, const char* layer) {
  return quilt.layer(layerOf(quilt, map, layer))->cells;
}

}  // namespace

TEST(Quilt, PuttingAnEqualPartBackKeepsEveryRevision) {
  const Quilt quilt = smallQuilt();
  const Map yard = *quilt.mapNamed("Yard");
  const Quilt same = quilt.with(yard);
  EXPECT_TRUE(same.mapNamed("Yard")->revision.is(yard.revision));
  Map grown = yard;
  grown.bounds.x1 += 1;
  const Quilt changed = quilt.with(grown);
  EXPECT_FALSE(changed.mapNamed("Yard")->revision.is(yard.revision));
  EXPECT_TRUE(changed.mapNamed("Yard")->layers[0]->revision.is(yard.layers[0]->revision));
  EXPECT_TRUE(changed.mapNamed("Loft")->revision.is(quilt.mapNamed("Loft")->revision));
}

TEST(Quilt, AMissingSheetKeepsItsSlot) {
  const Quilt quilt = smallQuilt();
  const Cell cell = tileOf(quilt, "rails", 1);
  const Quilt without = quilt.without<Sheet>(quilt.slots().sheet(cell.tile().slot));
  EXPECT_EQ(without.sheetAt(cell.tile().slot), nullptr);
  Quilt more = without;
  EXPECT_NE(more.slotFor(IdSource(99).next(), "Q"), cell.tile().slot);
}

TEST(Slug, IsAPlainFileNameThatNobodyElseHas) {
  EXPECT_EQ(slugFor("Sheds & trams", {}), "sheds-trams");
  EXPECT_EQ(slugFor("../..", {}), "unnamed");
  EXPECT_EQ(slugFor("Paving", {"paving", "paving-2"}), "paving-3");
  EXPECT_LE(slugFor(std::string(500, 'x'), {}).size(), 60u);
}

TEST(LayCells, NeverTouchesCellsOutsideTheMap) {
  const Quilt quilt = smallQuilt();
  const LayerAt paving = layerOf(quilt, "Yard", "Paving");
  const std::vector<CellChange> outside = {{{-5, 0}, tileOf(quilt, "rails", 1)}, {{16, 0}, Cell{}}};
  EXPECT_EQ(layCells(quilt, paving, outside), quilt);
}

TEST(LayCells, OnALayerThatIsNotThereDoesNothing) {
  const Quilt quilt = smallQuilt();
  const std::vector<CellChange> one = {{{0, 0}, tileOf(quilt, "rails", 1)}};
  EXPECT_EQ(layCells(quilt, {}, one), quilt);
}

TEST(Stroke, JoinsWhatAFastHandSkips) {
  const Quilt quilt = smallQuilt();
  const LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  const Cell tile = tileOf(quilt, "rails", 3);
  const Quilt after = stroked(quilt, layingOn(sheds, Block::of(tile)), {{0, 0}, {5, 0}, {5, 3}});
  EXPECT_EQ(after.layer(sheds)->cells.tally({-4, -4, 16, 8}), (std::map<TileRef, std::int64_t>{{tile.tile(), 9}}));
  EXPECT_EQ(cellsOf(after, "Yard", "Paving"), cellsOf(quilt, "Yard", "Paving"));
}

TEST(Stroke, LaysABlockAtMultiplesOfItsSizeFromThePress) {
  const Quilt quilt = smallQuilt();
  const LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  const Cell left = tileOf(quilt, "rails", 1);
  const Cell right = tileOf(quilt, "rails", 2);
  const Block pair({{{0, 0}, left}, {{1, 0}, right}});
  const Quilt after = stroked(quilt, layingOn(sheds, pair), {{3, 0}, {8, 0}});
  const CellGrid& cells = after.layer(sheds)->cells;
  for (int x = 3; x < 9; ++x) EXPECT_EQ(cells.at({x, 0}), x % 2 == 1 ? left : right) << x;
  EXPECT_TRUE(cells.at({2, 0}).empty());
  EXPECT_TRUE(cells.at({9, 0}).empty());
}

TEST(Stroke, BackwardsTooCopiesMeetWithoutOverlapping) {
  const Quilt quilt = smallQuilt();
  const LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  const Block pair({{{0, 0}, tileOf(quilt, "rails", 1)}, {{1, 0}, tileOf(quilt, "rails", 2)}});
  const Quilt after = stroked(quilt, layingOn(sheds, pair), {{3, 0}, {0, 0}});
  const CellGrid& cells = after.layer(sheds)->cells;
  for (int x = -1; x < 5; ++x) EXPECT_EQ(cells.at({x, 0}).tile().number, (x % 2 + 2) % 2 == 1 ? 1u : 2u) << x;
}

TEST(Stroke, TakesAwayTheFootprintOfWhatIsHeld) {
  const Quilt quilt = smallQuilt();
  const LayerAt paving = layerOf(quilt, "Yard", "Paving");
  const Block pair({{{0, 0}, tileOf(quilt, "rails", 1)}, {{0, 1}, tileOf(quilt, "rails", 2)}});
  const Quilt after = stroked(quilt, takingAway(paving, pair), {{2, 2}});
  EXPECT_TRUE(after.layer(paving)->cells.at({2, 2}).empty());
  EXPECT_TRUE(after.layer(paving)->cells.at({2, 3}).empty());
  EXPECT_FALSE(after.layer(paving)->cells.at({2, 4}).empty());
}

RC_GTEST_PROP(Stroke, MoveByMoveIsTheSameAsAtOnce, ()) {
  const Quilt quilt = smallQuilt();
  const LayerAt at = layerOf(quilt, "Yard", *rc::gen::element("Paving", "Sheds"));
  std::vector<CellPos> path;
  for (int i = 0, n = *rc::gen::inRange(1, 7); i < n; ++i) {
    path.push_back({*rc::gen::inRange(-8, 20), *rc::gen::inRange(-8, 12)});
  }
  std::vector<Block::Part> parts{{{0, 0}, tileOf(quilt, "rails", 1)}};
  for (std::uint32_t i = 0, n = *rc::gen::inRange(0u, 4u); i < n; ++i) {
    parts.push_back({{*rc::gen::inRange(-1, 2), *rc::gen::inRange(-1, 2)}, tileOf(quilt, "rails", i)});
  }
  const StrokePlan plan = *rc::gen::arbitrary<bool>() ? layingOn(at, Block(parts)) : takingAway(at, Block(parts));
  Stroke stroke(quilt, plan);
  for (std::size_t i = 0; i < path.size(); ++i) {
    stroke.moveTo(path[i]);
    const std::vector<CellPos> sofar(path.begin(), path.begin() + static_cast<std::ptrdiff_t>(i) + 1);
    RC_ASSERT(stroke.quilt() == stroked(quilt, plan, sofar));
  }
  RC_ASSERT(stroke.before() == quilt);
}

TEST(RenameLayer, NamesItsFileAnewAndKeepsItsId) {
  const Quilt quilt = smallQuilt();
  const LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  const Quilt renamed = renameLayer(quilt, sheds, "Paving!");
  EXPECT_EQ(renamed.layer(sheds)->name, "Paving!");
  EXPECT_EQ(renamed.layer(sheds)->file, "paving-2");
  EXPECT_EQ(renameLayer(quilt, sheds, ""), quilt);
  EXPECT_EQ(renameLayer(quilt, sheds, "Sheds"), quilt);
}

TEST(Desk, StartsOnTheGroundOfTheFirstMap) {
  const Quilt quilt = smallQuilt();
  const Desk desk = validDesk({}, quilt);
  EXPECT_EQ(quilt.map(desk.map)->name, "Loft");
  EXPECT_EQ(quilt.layer(desk.activeAt())->name, "Floor");
}

TEST(Desk, FitsAQuiltFromWhichItsMapOrLayerIsGone) {
  const Quilt quilt = smallQuilt();
  Desk desk = validDesk({}, quilt);
  desk.map = quilt.mapNamed("Yard")->id;
  desk.activeLayer[desk.map] = layerOf(quilt, "Yard", "Awnings").layer;
  desk = validDesk(desk, quilt);
  EXPECT_EQ(validDesk(desk, quilt), desk);
  Map yard = *quilt.mapNamed("Yard");
  yard.layers.pop_back();
  EXPECT_EQ(quilt.layer(validDesk(desk, quilt.with(yard)).activeAt())->name, "Paving");
  EXPECT_EQ(validDesk(desk, quilt.without<Map>(yard.id)).map, quilt.mapNamed("Loft")->id);
  EXPECT_EQ(validDesk(desk, Quilt()).activeAt(), LayerAt{});
}

TEST(Landing, StepsNearerAndFartherAndStopsAtTheEnds) {
  const Quilt quilt = smallQuilt();
  Desk desk;
  desk.map = quilt.mapNamed("Yard")->id;
  desk = validDesk(desk, quilt);
  desk = withNearerLayer(desk, quilt, 1);
  EXPECT_EQ(quilt.layer(desk.activeAt())->name, "Sheds");
  desk = withNearerLayer(withNearerLayer(desk, quilt, 1), quilt, 1);
  EXPECT_EQ(quilt.layer(desk.activeAt())->name, "Awnings");
  EXPECT_EQ(quilt.layer(withNearerLayer(desk, quilt, -1).activeAt())->name, "Sheds");
}

TEST(Landing, SaysWhyAStrokeWouldDoNothing) {
  const Quilt quilt = smallQuilt();
  Desk desk = validDesk({}, quilt);
  EXPECT_THAT(whyNoStroke(desk, quilt, false), testing::HasSubstr("Nothing in hand"));
  EXPECT_EQ(whyNoStroke(desk, quilt, true), "");
  desk.inHand = Block::of(tileOf(quilt, "street", 1));
  EXPECT_EQ(whyNoStroke(desk, quilt, false), "");
  desk.locked.insert(desk.activeAt().layer);
  EXPECT_EQ(whyNoStroke(desk, quilt, false), "Floor is locked: open its lock to paint");
  desk.hidden.insert(desk.activeAt().layer);
  EXPECT_EQ(whyNoStroke(desk, quilt, true), "Floor is hidden: open its eye to paint");
}

}  // namespace uq::test
