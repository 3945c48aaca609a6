// Where a dragged piece would be sewn: on any grid edge at edge, no farther than the hand is near, and wherever else edges meet.
#include "core/edit/Stitch.h"

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/AnyGrid.h"
#include "core/Support.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Patchwork.h"
#include "core/edit/Seams.h"

namespace uq::test {

using testing::HasSubstr;
using testing::IsEmpty;
using testing::SizeIs;

namespace {

constexpr int kNear = 12;  // map pixels

// Maps of one grid, each with a place on the cloth.
struct OnCloth {
  Quilt quilt = smallQuilt().without<Map>(smallQuilt().mapNamed("Yard")->id).without<Map>(smallQuilt().mapNamed("Loft")->id);
  IdSource ids{41};

  Id lay(const GridShape& grid, int width, int height, PixelPos at) {
    const MapAdded added = addMap(quilt, {"Plot " + std::to_string(quilt.maps().size()), grid, width, height}, ids);
    Map map = *added.quilt.map(added.map);
    map.onBoard = at;
    quilt = added.quilt.with(std::move(map));
    return added.map;
  }
  std::optional<Stitch> near(Id moved, PixelPos by, int reach = kNear) { return stitchNear(quilt, piecesOf(quilt), {moved}, by, reach); }
  PixelPos at(const Quilt& of, Id map) {
    const auto pieces = piecesOf(of);
    return std::find_if(pieces.begin(), pieces.end(), [&](const Piece& one) { return one.map == map; })->at;
  }
};

GridShape savedGrid() {
  GridShape grid = anyGrid();
  grid.plan = false;
  return grid;
}

}  // namespace

RC_GTEST_PROP(Stitches, SewEdgeAtEdgeAndNoFartherThanTheHandIsNear, ()) {
  OnCloth cloth;
  const GridShape grid = savedGrid();
  const Id still = cloth.lay(grid, *rc::gen::inRange(1, 9), *rc::gen::inRange(1, 9), {});
  const Id moved = cloth.lay(grid, *rc::gen::inRange(1, 9), *rc::gen::inRange(1, 9), {40000, 40000});
  const PixelRect box = makeGrid(grid)->pixelBounds(cloth.quilt.map(still)->bounds);
  const PixelPos to{*rc::gen::inRange(box.x - 2 * box.w, box.right() + box.w), *rc::gen::inRange(box.y - 2 * box.h, box.bottom() + box.h)};
  const PixelPos by{to.x - 40000, to.y - 40000};
  auto stitch = cloth.near(moved, by);
  RC_PRE(stitch.has_value());
  if (!stitch->why.empty()) {
    // Shifted rows or columns, which would not interlock there.
    RC_ASSERT(grid.kind != GridKind::orthogonal && grid.kind != GridKind::diamond);
    RC_ASSERT(stitch->why.find("half a cell off") != std::string::npos);
    return;
  }
  RC_ASSERT(std::abs(stitch->move.x - by.x) <= kNear && std::abs(stitch->move.y - by.y) <= kNear);
  const Quilt sewnThen = sewnAt(cloth.quilt, {moved}, *stitch, cloth.ids);
  RC_ASSERT(stitch->why == "");
  RC_ASSERT(sewnThen.seams().size() == 1u);
  RC_ASSERT(!SewnMaps(sewnThen).anyWrong());
  // On the cloth it lies where its cells say, and where the preview showed it.
  const PixelPos step = pixelStep(*sewnThen.map(still), *sewnThen.map(moved), stitch->by);
  RC_ASSERT(cloth.at(sewnThen, still) == PixelPos());
  RC_ASSERT(cloth.at(sewnThen, moved) == step);
  RC_ASSERT((PixelPos{40000 + stitch->move.x, 40000 + stitch->move.y}) == step);
  // The stitch has a side for each cell that meets another across it, each on both outlines.
  RC_ASSERT(!seamOnBoard(sewnThen, piecesOf(sewnThen), sewnThen.seams().front().read()).empty());
}

RC_GTEST_PROP(Stitches, AreNotOfferedFarFromEveryEdge, ()) {
  OnCloth cloth;
  const GridShape grid = savedGrid();
  cloth.lay(grid, 5, 5, {});
  const Id moved = cloth.lay(grid, 5, 5, {30000, 30000});
  const PixelRect box = makeGrid(grid)->pixelBounds({0, 0, 5, 5});
  const int off = kNear + 2;
  RC_ASSERT(!cloth.near(moved, {box.w + off - 30000, -30000}));
  RC_ASSERT(!cloth.near(moved, {-30000, box.h + off - 30000}) || grid.kind == GridKind::diamond);
}

TEST(Stitches, LieFlushWhereThatIsNearEnough) {
  OnCloth cloth;
  const GridShape grid{GridKind::orthogonal, {32, 32}};
  cloth.lay(grid, 10, 8, {});
  const Id moved = cloth.lay(grid, 6, 8, {1000, 0});
  const auto stitch = cloth.near(moved, {320 + 5 - 1000, 9});
  ASSERT_TRUE(stitch);
  EXPECT_EQ(stitch->by, (CellPos{10, 0}));
  EXPECT_EQ(stitch->move, (PixelPos{320 - 1000, 0}));
  // A part of the edge is enough: three rows lower.
  const auto lower = cloth.near(moved, {320 - 3 - 1000, 3 * 32 + 4});
  ASSERT_TRUE(lower);
  EXPECT_EQ(lower->by, (CellPos{10, 3}));
}

TEST(Stitches, SewToEveryEdgeThatMeets) {
  OnCloth cloth;
  const GridShape grid{GridKind::orthogonal, {32, 32}};
  const Id first = cloth.lay(grid, 10, 8, {});
  const Id right = cloth.lay(grid, 6, 8, {320, 0});
  const Id below = cloth.lay(grid, 10, 4, {0, 256});
  cloth.quilt = sewn(cloth.quilt, first, right, {10, 0}, cloth.ids).quilt;
  cloth.quilt = sewn(cloth.quilt, first, below, {0, 8}, cloth.ids).quilt;
  const Id last = cloth.lay(grid, 6, 4, {3000, 3000});
  auto stitch = cloth.near(last, {320 + 4 - 3000, 256 - 5 - 3000});
  ASSERT_TRUE(stitch);
  const Quilt done = sewnAt(cloth.quilt, {last}, *stitch, cloth.ids);
  EXPECT_THAT(done.seams(), SizeIs(4));
  EXPECT_FALSE(SewnMaps(done).anyWrong());
  EXPECT_THAT(Patchwork::across(done, first).patches(), SizeIs(4));
}

TEST(Stitches, SayWhyTheyCannotBeMade) {
  OnCloth cloth;
  cloth.lay({GridKind::orthogonal, {32, 32}}, 10, 8, {});
  const Id slanted = cloth.lay(nearestShape(GridKind::staggered, {64, 32}), 6, 8, {1000, 0});
  const auto stitch = cloth.near(slanted, {320 + 5 - 1000, 0});
  ASSERT_TRUE(stitch);
  EXPECT_THAT(stitch->why, HasSubstr("only maps of one grid can be sewn"));
  // An odd number of rows, and the next map's would lie half a cell off.
  OnCloth rows;
  const GridShape staggered = nearestShape(GridKind::staggered, {64, 32});
  rows.lay(staggered, 6, 9, {});
  const Id below = rows.lay(staggered, 6, 9, {5000, 0});
  const PixelRect box = makeGrid(staggered)->pixelBounds({0, 0, 6, 9});
  const auto half = rows.near(below, {-5000, box.h - 16 + 2});
  ASSERT_TRUE(half);
  EXPECT_THAT(half->why, HasSubstr("half a cell off"));
  // Where a third map lies in the way, the quilt is as it was.
  const Id wide = cloth.lay({GridKind::orthogonal, {32, 32}}, 3, 3, {0, -3000});
  const Id beside = cloth.lay({GridKind::orthogonal, {32, 32}}, 4, 8, {320, 0});
  cloth.quilt = sewn(cloth.quilt, cloth.quilt.mapNamed("Plot 0")->id, beside, {10, 0}, cloth.ids).quilt;
  Stitch over{cloth.quilt.mapNamed("Plot 0")->id, wide, {10, 2}, {320, 3064}, {}};
  const Quilt same = sewnAt(cloth.quilt, {wide}, over, cloth.ids);
  EXPECT_THAT(over.why, HasSubstr("claim the same cells"));
  EXPECT_TRUE(same == cloth.quilt);
}

}  // namespace uq::test
