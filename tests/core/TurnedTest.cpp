#include <rapidcheck/gtest.h>

#include "core/AnyGrid.h"
#include "core/Support.h"
#include "core/edit/Facings.h"
#include "core/edit/Turned.h"

namespace uq::test {

namespace {

GridKind anyKind() { return *rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds))); }

// The small quilt with some facings of `order` sides on its sheet "street".
Quilt withFacings(int order) {
  Quilt quilt = smallQuilt();
  for (int i = 0, n = *rc::gen::inRange(0, 12); i < n; ++i) {
    const TileRef tile = tileOf(quilt, "street", *rc::gen::inRange(0u, 8u)).tile();
    const auto partner = tileOf(quilt, "street", *rc::gen::inRange(0u, 8u)).tile();
    quilt = withPartner(quilt, tile, order, *rc::gen::inRange(1, order), partner);
  }
  return quilt;
}

Turn anyTurn(int order) {
  return {*rc::gen::arbitrary<bool>(), *rc::gen::inRange<std::uint8_t>(0, std::uint8_t(order))};
}

Block anyBlock(const Quilt& quilt, const Grid& grid) {
  std::vector<Block::Part> parts;
  for (std::uint32_t i = 0, n = *rc::gen::inRange(1u, 9u); i < n; ++i) {
    const Cell cell = tileOf(quilt, "street", *rc::gen::inRange(0u, 8u), anyTurn(grid.turnOrder()));
    // As every turn spells it.
    parts.push_back({{*rc::gen::inRange(-4, 5), *rc::gen::inRange(-4, 5)}, turnedCell(quilt, grid, cell, {})});
  }
  return Block(std::move(parts));
}

}  // namespace

RC_GTEST_PROP(TurnedBlock, AFullTurnIsNothingWithSomePartners, ()) {
  const auto grid = makeGrid(anyShapeOf(anyKind()));
  const Quilt quilt = withFacings(grid->turnOrder());
  const Block block = anyBlock(quilt, *grid);
  for (const Turning turning : {Turning::left, Turning::right}) {
    Block now = block;
    for (int i = 0; i < grid->turnOrder(); ++i) now = turnedBlock(quilt, *grid, now, turning);
    RC_ASSERT(now == block);
  }
  for (const Turning turning : {Turning::mirrorAcross, Turning::mirrorDown}) {
    RC_ASSERT(turnedBlock(quilt, *grid, turnedBlock(quilt, *grid, block, turning), turning) == block);
  }
  RC_ASSERT(turnedBlock(quilt, *grid, turnedBlock(quilt, *grid, block, Turning::left), Turning::right) == block);
}

RC_GTEST_PROP(TurnedBlock, ATileWithAllItsSidesIsNeverLeftWithoutOne, ()) {
  const auto grid = makeGrid(anyShapeOf(anyKind()));
  const int order = grid->turnOrder();
  Quilt quilt = smallQuilt();
  const TileRef tile = tileOf(quilt, "street", 0).tile();
  for (int side = 1; side < order; ++side) {
    quilt = withPartner(quilt, tile, order, side, TileRef{tile.slot, static_cast<std::uint32_t>(side)});
  }
  Block held = Block::of(Cell(tile, {}));
  for (int side = 1; side < order; ++side) {
    held = turnedBlock(quilt, *grid, held, Turning::right);
    RC_ASSERT(held.parts().front().cell == Cell({tile.slot, static_cast<std::uint32_t>(side)}, {}));
    RC_ASSERT(withoutOtherSide(*grid, held) == 0);
  }
}

TEST(TurnedBlock, TurnsRightAboutItsGrip) {
  const Quilt quilt = smallQuilt();
  const auto grid = makeGrid({});
  const Block pair({{{0, 0}, tileOf(quilt, "street", 1)}, {{1, 0}, tileOf(quilt, "street", 2)}});
  const Turn right{false, 1};
  EXPECT_EQ(turnedBlock(quilt, *grid, pair, Turning::right),
            Block({{{0, 0}, tileOf(quilt, "street", 1, right)}, {{0, 1}, tileOf(quilt, "street", 2, right)}}));
}

TEST(TurnedBlock, CountsThePicturesThatHaveNoOtherSide) {
  Quilt quilt = smallQuilt();
  const auto grid = makeGrid(nearestShape(GridKind::diamond, {64, 32}));
  const TileRef crane = tileOf(quilt, "street", 1).tile();
  const TileRef craneFromTheRight = tileOf(quilt, "street", 2).tile();
  quilt = withPartner(quilt, crane, 4, 1, craneFromTheRight);
  const Block held({{{0, 0}, Cell(crane, {})}, {{1, 0}, tileOf(quilt, "street", 5)}});
  const Block once = turnedBlock(quilt, *grid, held, Turning::right);
  EXPECT_EQ(withoutOtherSide(*grid, held), 0);
  EXPECT_EQ(withoutOtherSide(*grid, once), 1) << "the crane has a picture of that side, the other has none";
  EXPECT_EQ(once.parts().front().cell, Cell(craneFromTheRight, {}));
  const Block mirrored = turnedBlock(quilt, *grid, held, Turning::mirrorAcross);
  EXPECT_EQ(withoutOtherSide(*grid, mirrored), 0) << "every picture can be mirrored across";
}

TEST(Facings, APartnerIsAPartnerBothWays) {
  const Quilt quilt = smallQuilt();
  const auto street = [&](std::uint32_t number) { return tileOf(quilt, "street", number).tile(); };
  const Quilt paired = withPartner(quilt, street(1), 4, 1, street(2));
  EXPECT_EQ(partnerOf(paired, street(1), 4, 1), street(2));
  EXPECT_EQ(partnerOf(paired, street(2), 4, 3), street(1));
  EXPECT_EQ(partnerOf(paired, street(1), 4, 2), std::nullopt);
  EXPECT_EQ(partnerOf(paired, street(1), 6, 1), std::nullopt) << "four sides are no six";
  EXPECT_EQ(withPartner(paired, street(2), 4, 3, std::nullopt), quilt) << "one tile alone has no facing";
  const Quilt moved = withPartner(withPartner(paired, street(5), 4, 2, street(6)), street(5), 4, 1, street(2));
  EXPECT_EQ(partnerOf(moved, street(1), 4, 1), std::nullopt);
  EXPECT_EQ(partnerOf(moved, street(2), 4, 1), street(6));
}

TEST(Facings, StayWithinOneSheetAndOneThing) {
  const Quilt quilt = smallQuilt();
  const TileRef tile = tileOf(quilt, "street", 1).tile();
  EXPECT_EQ(withPartner(quilt, tile, 4, 1, tileOf(quilt, "rails", 1).tile()), quilt);
  EXPECT_EQ(withPartner(quilt, tile, 4, 1, tile), quilt);
  EXPECT_EQ(withPartner(quilt, tile, 4, 0, tileOf(quilt, "street", 2).tile()), quilt);
  EXPECT_EQ(withPartner(quilt, tile, 4, 4, tileOf(quilt, "street", 2).tile()), quilt);
}

// Of a hexagon's six turns two can be drawn; the others come nearest and are told.
TEST(TurnedBlock, OnHexagonsHalfATurnIsOneAndOthersAreMarked) {
  for (const GridKind kind : {GridKind::hexagonalPointy, GridKind::hexagonalFlat}) {
    const auto grid = makeGrid(nearestShape(kind, {32, 32}));
    const std::uint8_t shown[] = {0, 0, 3, 3, 3, 0};
    const std::uint8_t quarters[] = {0, 0, 2, 2, 2, 0};
    for (const bool mirror : {false, true}) {
      for (std::uint8_t steps = 0; steps < 6; ++steps) {
        EXPECT_EQ(grid->pictureTurn({mirror, steps}), (Turn{mirror, shown[steps]}));
        EXPECT_EQ(grid->drawnTurn({mirror, steps}), (Turn{mirror, quarters[steps]}));
        const Block block = Block::of(tileOf(smallQuilt(), "street", 1, Turn{mirror, steps}));
        EXPECT_EQ(withoutOtherSide(*grid, block), steps % 3 == 0 ? 0 : 1) << int{steps};
      }
    }
  }
}

}  // namespace uq::test
