// What joins where a map gets room, and where lines come in; which tiles are of one material.
#include <gmock/gmock.h>

#include "core/HemmedMap.h"
#include "core/JoinedGround.h"
#include "core/edit/Region.h"
#include "core/edit/ResizeMap.h"
#include "core/edit/RowsAndColumns.h"

namespace uq::test {

namespace {

GridKind anyMadeGrid() { return *rc::gen::element(GridKind::orthogonal, GridKind::diamond, GridKind::staggered, GridKind::hexagonalPointy, GridKind::hexagonalFlat); }

}  // namespace

// Whatever lies at the edge: the same material beyond it leaves no joint wrong, and what lay inside is as it was but for cells at the edge.
TEST(JoinedRoom, OfTheSameMaterialHasNoJointWrong) {
  for (const Decides decides : {Decides::sides, Decides::corners, Decides::both}) {
    EXPECT_TRUE(rc::check(std::string(decidesName(decides)), [decides] {
      JoinedGround on(fullSet(decides, anyMadeGrid()));
      for (int i = 0; i < 4; ++i) on.paint(someCells(on.bounds, 3));
      RC_ASSERT(on.wrongJoints() == 0);
      const CellRect old = on.bounds;
      const LayerCells before = *on.quilt.layer(on.at);
      on.bounds = {old.x0 - *rc::gen::inRange(0, 3), old.y0, old.x1 + *rc::gen::inRange(0, 4), old.y1 + *rc::gen::inRange(1, 4)};
      on.quilt = withBounds(on.quilt, on.at.map, on.bounds, NewRoom::ground);
      RC_ASSERT(on.wrongJoints() == 0);
      for (int y = old.y0 + 1; y < old.y1 - 2; ++y) {
        for (int x = old.x0 + 2; x < old.x1 - 2; ++x) RC_ASSERT(on.cells().at({x, y}) == before.cells.at({x, y}));
      }
    }));
  }
}

TEST(JoinedRoom, LinesThatComeInOrGoLeaveRightEnds) {
  for (const Decides decides : {Decides::sides, Decides::corners, Decides::both}) {
    EXPECT_TRUE(rc::check(std::string(decidesName(decides)), [decides] {
      const GridKind grid = anyMadeGrid();
      JoinedGround on(fullSet(decides, grid));
      for (int i = 0; i < 4; ++i) on.paint(someCells(on.bounds, 3));
      RC_TAG(std::string(cellsCalled(on.made.shape.kind)));
      const bool columns = *rc::gen::arbitrary<bool>();
      const int count = *rc::gen::element(-2, -1, 1, 2);
      const CellLines lines{columns ? CellLines::Which::columns : CellLines::Which::rows, *rc::gen::inRange(2, 9), count};
      RC_LOG() << cellsCalled(on.made.shape.kind) << " " << on.made.called << (columns ? " columns " : " rows ") << lines.at << " by " << count << "\n";
      RC_LOG() << on.drawn() << "\n";
      on.quilt = withLines(on.quilt, on.at.map, lines);
      RC_LOG() << on.drawn() << "\n";
      on.bounds = on.quilt.map(on.at.map)->bounds;
      RC_ASSERT(on.wrongJoints() == 0);
    }));
  }
}

TEST(JoinedRoom, AMaterialIsTheSameWhereItShowsNothingElse) {
  HemmedMap on(GridKind::orthogonal);
  const std::function<TileRef(std::uint32_t)> tileRef = [&](std::uint32_t number) { return TileRef{*on.quilt.slots().find(on.sheet), number}; };
  on.change(on.walls, [&](Edging& walls) { walls.members.push_back({{on.sheet, 150}, {}, 0, {0, 0, 0, 0}, {}}); });
  EXPECT_THAT(kinOf(on.quilt, nullptr, tileRef(15)), testing::UnorderedElementsAre(tileRef(15), tileRef(150)));
  EXPECT_THAT(kinOf(on.quilt, nullptr, tileRef(3)), testing::ElementsAre(tileRef(3))) << "its borders are not the same";
  const InHand material = materialInHand(on.quilt, *on.quilt.edging(on.walls), 0);
  EXPECT_EQ(kinOf(on.quilt, &material, tileRef(3)).size(), 17u) << "with a material in hand all of it is one";
  EXPECT_EQ(kinOf(on.quilt, &material, tileRef(3), Alike::tile).size(), 1u);
}

TEST(JoinedRoom, ATileTellsItsMaterialAndTheHandItsHeight) {
  HemmedMap on(GridKind::staggered);
  const auto cell = [&](std::uint32_t number) { return Cell({*on.quilt.slots().find(on.sheet), number}, {}); };
  const auto of = materialOfTile(on.quilt, GridKind::diamond, cell(5));
  ASSERT_TRUE(of.has_value()) << "one family";
  EXPECT_EQ(of->edging->id, on.walls);
  EXPECT_FALSE(materialOfTile(on.quilt, GridKind::orthogonal, cell(5)));
  EXPECT_FALSE(materialOfTile(on.quilt, GridKind::staggered, cell(HemmedMap::kFace)));
  InHand walls = materialInHand(on.quilt, *on.quilt.edging(on.walls), 0);
  EXPECT_EQ(rowsInHand(on.quilt, walls), 2);
  walls.rows = 5;
  EXPECT_EQ(rowsInHand(on.quilt, walls), 5);
  EXPECT_FALSE(rowsInHand(on.quilt, materialInHand(on.quilt, *on.quilt.edging(on.floor), 0)));
}

// An edging in another's hem is named after it is named anew.
TEST(JoinedRoom, ANewNameIsFollowed) {
  HemmedMap on(GridKind::orthogonal);
  on.change(on.floor, [&](Edging& floor) {
    Hem around{"walls", 0, "walls"};
    around.around = on.walls;
    around.aroundMaterial = "Walls";
    floor.hems = {around};
  });
  Edging walls = *on.quilt.edging(on.walls);
  walls.materials[0].name = "brick";
  on.quilt = withEdging(on.quilt, walls);
  EXPECT_EQ(on.quilt.edging(on.floor)->hems[0].aroundMaterial, "brick");
  EXPECT_EQ(materialInHand(on.quilt, *on.quilt.edging(on.walls), 0).role, "walls");
}

}  // namespace uq::test
