// A material laid by corners of cells.
#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/JoinedGround.h"
#include "core/Support.h"
#include "core/grid/CellCorner.h"
#include "core/store/JsonText.h"
#include "core/work/EditList.h"

namespace uq::test {

namespace {

constexpr GridKind kMadeGrids[] = {GridKind::orthogonal, GridKind::diamond, GridKind::staggered, GridKind::hexagonalPointy, GridKind::hexagonalFlat};

StrokePlan halfCellPlan(const JoinedGround& on, MaterialIndex material, bool takesAway) {
  StrokePlan plan = layingOn(on.at, materialInHand(on.quilt, on.edge(), material));
  plan.takesAway = takesAway;
  plan.options.halfCell = true;
  return plan;
}

std::vector<StrokeMove> someCorners(const JoinedGround& on, int count) {
  std::vector<StrokeMove> moves;
  for (const CellPos cell : someCells(on.bounds, count)) moves.push_back({cell, false, *rc::gen::inRange(0, placesOf(on.made.shape.kind))});
  return moves;
}

void layCorners(JoinedGround& on, const std::vector<StrokeMove>& moves, MaterialIndex material, bool takesAway = false) {
  Stroke stroke(on.quilt, halfCellPlan(on, material, takesAway));
  for (const StrokeMove& move : moves) stroke.follow(move);
  on.quilt = stroke.quilt();
}

}  // namespace

TEST(HalfCell, LaysTheCornersOnTheWayAndLeavesNoJointWrong) {
  for (const GridKind grid : kMadeGrids) {
    EXPECT_TRUE(rc::check(std::string(cellsCalled(grid)), [grid] {
      JoinedGround on(fullSet(Decides::corners, grid));
      const auto shape = makeGrid(on.made.shape);
      for (int i = 0; i < 4; ++i) {
        const MaterialIndex material = *rc::gen::inRange(0, static_cast<int>(on.edge().materials.size()));
        const auto moves = someCorners(on, *rc::gen::inRange(1, 4));
        layCorners(on, moves, material);
        RC_ASSERT(on.wrongJoints() == 0);
        for (const StrokeMove& move : moves) {
          for (const CellPos cell : shape->aroundCorner(move.cell, move.corner)) {
            if (!on.bounds.contains(cell)) continue;
            const PixelPos place = placeOf(*shape, {move.cell, move.corner});
            for (int corner = 0; corner < placesOf(grid); ++corner) {
              if (placeOf(*shape, {cell, corner}) == place) RC_ASSERT(on.corner(cell, corner) == std::optional(material));
            }
          }
        }
      }
    }));
  }
}

TEST(HalfCell, TakenAwayLeavesTheGroundAsItWas) {
  for (const GridKind grid : kMadeGrids) {
    EXPECT_TRUE(rc::check(std::string(cellsCalled(grid)), [grid] {
      JoinedGround on(fullSet(Decides::corners, grid));
      const Quilt before = on.quilt;
      const auto moves = someCorners(on, 2);
      layCorners(on, moves, 0);
      RC_ASSERT(!(on.quilt == before));
      layCorners(on, moves, 0, true);
      RC_ASSERT(on.cells() == before.layer(on.at)->cells);
    }));
  }
}

TEST(HalfCell, NeverGoesBeyondTheSelection) {
  EXPECT_TRUE(rc::check([] {
    JoinedGround on(fullSet(Decides::corners));
    const Quilt before = on.quilt;
    StrokePlan plan = halfCellPlan(on, 0, false);
    plan.within = CellSet(CellRect{3, 3, 8, 9});
    Stroke stroke(on.quilt, plan);
    for (const StrokeMove& move : someCorners(on, 4)) stroke.follow(move);
    const CellGrid& now = stroke.quilt().layer(on.at)->cells;
    for (int y = 0; y < on.bounds.y1; ++y) {
      for (int x = 0; x < on.bounds.x1; ++x) {
        if (!plan.within.contains({x, y})) RC_ASSERT(now.at({x, y}) == on.cells().at({x, y}));
      }
    }
  }));
}

TEST(HalfCell, IsAStepOfAList) {
  EXPECT_TRUE(rc::check([] {
    JoinedGround on(fullSet(Decides::corners));
    const StrokePlan plan = halfCellPlan(on, 0, *rc::gen::arbitrary<bool>());
    const auto moves = someCorners(on, 3);
    Stroke stroke(on.quilt, plan);
    for (const StrokeMove& move : moves) stroke.follow(move);
    const std::string text = writeJson(editList({stepOf(on.quilt, plan, moves, std::nullopt)}));
    const auto read = readJson(text, "list.json");
    RC_ASSERT(read.has_value());
    const auto run = doEdits(on.quilt, *read, {}, "list.json");
    RC_ASSERT(run.has_value());
    RC_ASSERT(run->quilt.layer(on.at)->cells == stroke.quilt().layer(on.at)->cells);
  }));
}

TEST(HalfCell, IsRefusedInAListWhereCornersDecideNothing) {
  JoinedGround on([] {
    std::uint64_t seed = 0;
    while (madeEdging(seed, false).truth.decides != Decides::sides) ++seed;
    return madeEdging(seed, false);
  }());
  const Json step = stepOf(on.quilt, layingOn(on.at, materialInHand(on.quilt, on.edge(), 0)), {{{2, 2}}}, std::nullopt);
  Json half = step;
  half.set("width", Json::Number{"0.5"});
  const auto run = doEdits(on.quilt, editList({half}), {}, "list.json");
  ASSERT_FALSE(run.has_value());
  EXPECT_THAT(run.error().reason, testing::HasSubstr("corners decide"));
}

TEST(HalfCell, ComesBelowOneCellAcross) {
  ToolOptions options;
  options = withWidthStepped(options, -1, true);
  EXPECT_TRUE(options.halfCell);
  EXPECT_TRUE(withWidthStepped(options, -1, true).halfCell);
  options = withWidthStepped(options, 1, true);
  EXPECT_FALSE(options.halfCell);
  EXPECT_EQ(options.width, 1);
  EXPECT_FALSE(withWidthStepped(ToolOptions{}, -1, false).halfCell);
}

}  // namespace uq::test
