// Where blocks land, and which layers keep what is taken.
#include "core/Support.h"
#include "core/edit/ArrangeSheets.h"
#include "core/edit/Landing.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Stroke.h"
#include "core/edit/TileHome.h"

namespace uq::test {

namespace {

struct Yard {
  Quilt quilt = smallQuilt();
  LayerAt paving = layerOf(quilt, "Yard", "Paving");
  LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  Yard() {
    quilt = withRole(withRole(quilt, paving, "ground"), sheds, "things");
  }
  Cell grass = tileOf(quilt, "street", 1);
  Covers covers = [tile = grass.tile()](TileRef one) { return one == tile; };

  // Two tiles of rails beside one another: a thing.
  Block thing(std::uint32_t first) const {
    return Block({{{0, 0}, tileOf(quilt, "rails", first)}, {{1, 0}, tileOf(quilt, "rails", first + 1)}});
  }
  Stroke brushed(const Quilt& on, LayerAt layer, const Block& block, CellPos at, bool obeys = false) const {
    StrokePlan plan = layingOn(layer, block);
    plan.obeys = obeys;
    plan.covers = covers;
    Stroke stroke(on, plan);
    stroke.moveTo(at);
    return stroke;
  }
};

}  // namespace

TEST(LandingOfBlocks, AThingOnAThingLandsWholeWhereNothingIsWipedOut) {
  const Yard yard;
  const Quilt before = yard.quilt.with(yard.sheds, LayerCells());
  const Stroke first = yard.brushed(before, yard.sheds, yard.thing(1), {3, 2});
  EXPECT_EQ(first.landing().layers.front(), yard.sheds);
  const Stroke second = yard.brushed(first.quilt(), yard.sheds, yard.thing(3), {4, 2});
  EXPECT_EQ(second.landing().keeps, "Sheds");
  EXPECT_NE(second.landing().layers.front(), yard.sheds);
  // Both are there whole.
  const Layer& under = *second.quilt().layer(yard.sheds);
  const Layer& over = *second.quilt().layer(second.landing().layers.front());
  EXPECT_EQ(under.cells.at({3, 2}), tileOf(yard.quilt, "rails", 1));
  EXPECT_EQ(under.cells.at({4, 2}), tileOf(yard.quilt, "rails", 2));
  EXPECT_EQ(over.cells.at({4, 2}), tileOf(yard.quilt, "rails", 3));
  EXPECT_EQ(over.cells.at({5, 2}), tileOf(yard.quilt, "rails", 4));
  // A layer that was chosen by hand is obeyed.
  const Stroke obeyed = yard.brushed(first.quilt(), yard.sheds, yard.thing(3), {4, 2}, true);
  EXPECT_EQ(obeyed.quilt().layer(yard.sheds)->cells.at({4, 2}), tileOf(yard.quilt, "rails", 3));
}

TEST(LandingOfBlocks, TheSameBlockOnTheSamePlaceChangesNothingAndAddsNoLayer) {
  const Yard yard;
  Quilt now = yard.quilt.with(yard.sheds, LayerCells());
  now = yard.brushed(now, yard.sheds, yard.thing(1), {3, 2}).quilt();
  const Stroke again = yard.brushed(now, yard.sheds, yard.thing(1), {3, 2});
  EXPECT_EQ(again.quilt(), now);
  // The same for one that had to land nearer.
  now = yard.brushed(now, yard.sheds, yard.thing(3), {4, 2}).quilt();
  const Stroke nearer = yard.brushed(now, yard.sheds, yard.thing(3), {4, 2});
  EXPECT_EQ(nearer.quilt(), now);
  EXPECT_FALSE(nearer.landing().makesLayer);
}

TEST(ChosenLayers, KeepWhatFitsThemTakeAfterTake) {
  const Yard yard;
  Desk desk;
  desk.map = yard.paving.map;
  const InHand thing = yard.thing(1);
  const InHand ground = Block::of(yard.grass);
  // Not chosen by hand: each goes to its role.
  desk.activeLayer[desk.map] = yard.paving.layer;
  Desk now = landingFor(desk, yard.quilt, thing, yard.covers);
  EXPECT_NE(now.activeAt(), yard.paving);
  EXPECT_TRUE(now.leads.empty());
  // Chosen: one for things keeps things, however often.
  now = withChosenLayer(desk, yard.sheds);
  for (int i = 0; i < 5; ++i) {
    now = landingFor(now, yard.quilt, thing, yard.covers);
    EXPECT_EQ(now.activeAt(), yard.sheds);
    EXPECT_TRUE(now.obeysLayer);
    EXPECT_TRUE(now.leads.empty());
  }
  // What does not fit goes elsewhere, and it is said where, and how to come back.
  now = landingFor(now, yard.quilt.with(yard.sheds, LayerCells()), ground, yard.covers);
  EXPECT_EQ(now.activeAt(), yard.paving);
  EXPECT_FALSE(now.obeysLayer);
  EXPECT_EQ(now.leads, "ground goes to Paving; W leads back to Sheds");
  // No key leads back over a layer between.
  const LayerAt awnings = layerOf(yard.quilt, "Yard", "Awnings");
  now = landingFor(withChosenLayer(desk, awnings), withRole(yard.quilt, awnings, "in front"), ground, yard.covers);
  EXPECT_EQ(now.leads, "ground goes to Paving; its card leads back to Awnings");
  // What was laid there before fits.
  LayerCells laid;
  laid.lay(CellPos{0, 0}, Laid{yard.grass, 0});
  now = landingFor(withChosenLayer(desk, yard.sheds), yard.quilt.with(yard.sheds, laid), ground, yard.covers);
  EXPECT_EQ(now.activeAt(), yard.sheds);
}

TEST(ChosenLayers, ALayerOfOnesOwnRoleKeepsThings) {
  const Yard yard;
  const Quilt quilt = withRole(yard.quilt, yard.sheds, "tracks");
  Desk desk;
  desk.map = yard.sheds.map;
  const Desk now = landingFor(withChosenLayer(desk, yard.sheds), quilt, InHand(yard.thing(1)), yard.covers);
  EXPECT_EQ(now.activeAt(), yard.sheds);
  EXPECT_TRUE(now.obeysLayer);
}

TEST(TileHome, IsLearntFromWhereATileWasLaidAndTheSheetsWordGoesFirst) {
  Yard yard;
  const LayerAt awnings = layerOf(yard.quilt, "Yard", "Awnings");
  Quilt quilt = withRole(yard.quilt, awnings, "in front");
  const Cell crown = tileOf(quilt, "rails", 3);
  EXPECT_FALSE(homeOf(quilt, awnings.map, crown.tile()));
  quilt = stroked(quilt, layingOn(awnings, Block::of(crown)), {{0, 0}});
  EXPECT_FALSE(homeOf(quilt, awnings.map, crown.tile())) << "once may be a slip";
  quilt = stroked(quilt, layingOn(awnings, Block::of(crown)), {{0, 1}, {2, 1}});
  const auto home = homeOf(quilt, awnings.map, crown.tile());
  ASSERT_TRUE(home);
  EXPECT_EQ(home->role, "in front");
  EXPECT_EQ(home->laid, 4);
  Desk desk;
  desk.map = awnings.map;
  desk.activeLayer[desk.map] = yard.paving.layer;
  EXPECT_EQ(landingFor(desk, quilt, InHand(Block::of(crown)), yard.covers).activeAt(), awnings);
  // Also on another map.
  const Id loft = quilt.mapNamed("Loft")->id;
  EXPECT_EQ(homeOf(quilt, loft, crown.tile())->role, "in front");
  // Where it lies here and there, nobody knows.
  const Quilt both = stroked(quilt, layingOn(yard.sheds, Block::of(crown)), {{0, 4}, {3, 4}});
  EXPECT_FALSE(homeOf(both, awnings.map, crown.tile()));
  // What is said counts more.
  const Id rails = quilt.sheetAt(crown.tile().slot)->id;
  const Quilt said = changedTiles(both, rails, {3}, [](TileFacts& facts) { facts.belongs = "things"; });
  EXPECT_TRUE(homeOf(said, awnings.map, crown.tile())->isSaid);
  EXPECT_EQ(landingFor(desk, said, InHand(Block::of(crown)), yard.covers).activeAt(), yard.sheds);
}

}  // namespace uq::test
