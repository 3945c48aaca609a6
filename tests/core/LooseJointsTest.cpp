// Where a picture is cut off although its sheet has the tile that belongs there.
#include <gmock/gmock.h>
#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <set>

#include "core/PaintedSheet.h"
#include "core/check/Checks.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Seams.h"
#include "core/sheets/CloseJoints.h"

namespace uq::test {
namespace {

using testing::ElementsAre;
using testing::IsEmpty;

// A wall: left end, middle, right end; a lawn, a path, and the kerb between them; a lone crate.
enum : std::uint32_t { kLeft, kMiddle, kRight, kLawn, kKerb, kPath, kCrate };

class LooseJoints : public testing::Test {
 protected:
  LooseJoints() : painted_(7, {0, kA, 0, kB, kB, kC, 0}), laid_(prepared()) {}

  const Painted& prepared() {
    for (int y = 0; y < 4; ++y) {
      painted_.dot(kLeft, {2, y}, kA), painted_.dot(kLeft, {3, y}, kA);
      painted_.dot(kRight, {0, y}, kA), painted_.dot(kRight, {1, y}, kA);
      painted_.dot(kKerb, {2, y}, kC), painted_.dot(kKerb, {3, y}, kC);
    }
    painted_.dot(kCrate, {1, 1}, kD);
    return painted_;
  }
  // Lays tiles side by side from cell 0, 0 of the layer on a map without anything else.
  std::vector<LooseJoint> after(const std::vector<std::uint32_t>& row, CellRect part = {-4, -4, 16, 8}) {
    map_ = *laid_.quilt.mapNamed("Yard");
    map_.grid.cell = {4, 4};
    for (Shared<Layer>& layer : map_.layers) layer.edit([](Layer& one) { one.cells = {}; });
    map_.layers[1].edit([&](Layer& layer) {
      for (std::size_t i = 0; i < row.size(); ++i) {
        // As high as the map, so that only its left and right are of interest.
        for (int y = -4; y < 8; ++y) layer.cells.set({static_cast<int>(i), y}, Cell({laid_.slot, row[i]}, {}));
      }
    });
    JointBook book(TileSides(laid_.quilt, map_.grid, pixelsOf(painted_, laid_)));
    return looseJoints(book, map_, 1, part, 1000);
  }

  Painted painted_;
  Laid laid_;
  Map map_;
};

TEST_F(LooseJoints, AWholeWallHasNone) { EXPECT_THAT(after({kLeft, kMiddle, kMiddle, kRight}), IsEmpty()); }

TEST_F(LooseJoints, AWallWithoutItsEndIsCutOffThereAndTheEndBelongsThere) {
  const auto loose = after({kLeft, kMiddle, kMiddle}, {-4, 0, 16, 1});
  ASSERT_EQ(loose.size(), 1u);
  EXPECT_EQ(loose[0].cell, (CellPos{2, 0}));
  EXPECT_EQ(loose[0].side, 1) << "the right one";
  EXPECT_EQ(loose[0].between.number, kRight);
}

TEST_F(LooseJoints, AHardBorderIsLooseOnlyWhereTheSheetHasWhatBelongsBetween) {
  const auto loose = after({kLawn, kPath}, {0, 0, 2, 1});
  ASSERT_EQ(loose.size(), 1u);
  EXPECT_EQ(loose[0].between.number, kKerb);
  EXPECT_THAT(after({kLawn, kKerb, kPath}, {0, 0, 3, 1}), IsEmpty());
  EXPECT_THAT(after({kPath, kLawn}, {0, 0, 2, 1}), IsEmpty()) << "there is no kerb the other way round";
}

TEST_F(LooseJoints, ThatTilesStandBesideNothingIsNoFault) { EXPECT_THAT(after({kCrate}), IsEmpty()); }

TEST_F(LooseJoints, AnotherLayerMayCarryAPictureOn) {
  ASSERT_FALSE(after({kLeft, kMiddle}, {0, 0, 4, 1}).empty());
  map_.layers[2].edit([&](Layer& layer) { layer.cells.set({2, 0}, Cell({laid_.slot, kRight}, {})); });
  JointBook book(TileSides(laid_.quilt, map_.grid, pixelsOf(painted_, laid_)));
  EXPECT_THAT(looseJoints(book, map_, 1, {0, 0, 4, 1}, 1000), IsEmpty());
  EXPECT_FALSE(looseJoints(book, map_, 1, {0, 1, 4, 2}, 1000).empty()) << "only there";
}

TEST_F(LooseJoints, ALiftedTileHidesAJoint) {
  ASSERT_FALSE(after({kLeft, kMiddle}, {0, 0, 4, 1}).empty());
  // A lawn two cells below, lifted over the place behind the wall.
  map_.layers[2].edit([&](Layer& layer) { layer.lay({2, 2}, Cell({laid_.slot, kLawn}, {}), 8); });
  JointBook book(TileSides(laid_.quilt, map_.grid, pixelsOf(painted_, laid_)));
  EXPECT_THAT(looseJoints(book, map_, 1, {0, 0, 4, 1}, 1000), IsEmpty());
  EXPECT_FALSE(looseJoints(book, map_, 1, {0, 1, 4, 2}, 1000).empty()) << "only there";
  map_.layers[2].edit([&](Layer& layer) { layer.lay({2, 2}, Cell({laid_.slot, kCrate}, {}), 8); });
  EXPECT_FALSE(looseJoints(book, map_, 1, {0, 0, 4, 1}, 1000).empty()) << "a crate hides nothing";
}

TEST_F(LooseJoints, CellsThatAreLiftedDifferentlyAreNotBesideEachOther) {
  ASSERT_FALSE(after({kLawn, kPath}, {0, 0, 2, 1}).empty());
  map_.layers[1].edit([&](Layer& layer) { layer.lay({1, 0}, Cell({laid_.slot, kPath}, {}), 40); });
  JointBook book(TileSides(laid_.quilt, map_.grid, pixelsOf(painted_, laid_)));
  EXPECT_THAT(looseJoints(book, map_, 1, {0, 0, 2, 1}, 1000), IsEmpty());
}

TEST_F(LooseJoints, WhatBelongsBesideAnEmptyCellGoesThere) {
  const auto loose = after({kLeft, kMiddle, kMiddle}, {-4, 0, 16, 1});
  JointBook book(TileSides(laid_.quilt, map_.grid, pixelsOf(painted_, laid_)));
  ASSERT_EQ(loose.size(), 1u);
  const auto closing = closingOf(book, map_, 1, loose[0]);
  ASSERT_TRUE(closing);
  EXPECT_EQ(closing->at, (CellPos{3, 0}));
  EXPECT_EQ(closing->cell, Cell({laid_.slot, kRight}, {}));
}

TEST_F(LooseJoints, AreClosedAllAtOnce) {
  after({kLawn, kLawn, kPath});
  JointBook book(TileSides(laid_.quilt, map_.grid, pixelsOf(painted_, laid_)));
  const Closed closed = closeJoints(book, map_, 1, {-4, -4, 16, 8}, {}, 1000);
  EXPECT_EQ(closed.cells, 12);
  EXPECT_EQ(closed.left, 0u);
  EXPECT_THAT(looseJoints(book, closed.map, 1, {-4, -4, 16, 8}, 1000), IsEmpty());
  const Closed some = closeJoints(book, map_, 1, {-4, -4, 16, 8}, CellSet(CellRect{0, 0, 3, 2}), 1000);
  EXPECT_EQ(some.cells, 2) << "only among the selected cells";
  Progress progress;
  progress.cancel();
  EXPECT_TRUE(closeJoints(book, map_, 1, {-4, -4, 16, 8}, {}, 1000, &progress).map == map_);
}

TEST_F(LooseJoints, WhatIsClosedKeepsItsLift) {
  after({kLeft, kMiddle});
  map_.layers[1].edit([&](Layer& layer) { layer.lay({1, 0}, Cell({laid_.slot, kMiddle}, {}), 16); });
  JointBook book(TileSides(laid_.quilt, map_.grid, pixelsOf(painted_, laid_)));
  const Closed closed = closeJoints(book, map_, 1, {1, 0, 4, 1}, {}, 1000);
  EXPECT_EQ(closed.map.layers[1]->laidAt({2, 0}), (uq::Laid{Cell({laid_.slot, kRight}, {}), 16}));
}

TEST_F(LooseJoints, WhatIsBeyondTheMapIsNoNeighbour) {
  map_ = *laid_.quilt.mapNamed("Yard");
  const auto all = after({kLeft, kMiddle, kMiddle, kMiddle, kMiddle, kMiddle, kMiddle, kMiddle, kMiddle, kMiddle,
                          kMiddle, kMiddle, kMiddle, kMiddle, kMiddle, kMiddle});
  EXPECT_THAT(all, IsEmpty()) << "the wall runs to the edge";
}

// A wall that ends at the edge of its map goes on behind the stitch, or is told.
TEST_F(LooseJoints, AlongAStitchAreToldBetweenTheMaps) {
  const auto lay = [&](const std::vector<std::uint32_t>& row, const std::vector<std::uint32_t>& beyond) {
    IdSource ids(5);
    Map map = *laid_.quilt.mapNamed("Yard");
    map.grid.cell = {4, 4};
    map.bounds = {0, 0, 4, 4};
    for (Shared<Layer>& layer : map.layers) layer.edit([](Layer& one) { one.cells = {}; });
    Quilt quilt = laid_.quilt.with(map);
    MapAdded twice = duplicateMap(quilt, map.id, ids);
    quilt = std::move(twice.quilt);
    const Id copy = twice.map;
    const auto paint = [&](Id id, const std::vector<std::uint32_t>& tiles) {
      Map painted = *quilt.map(id);
      painted.layers[1].edit([&](Layer& layer) {
        for (std::size_t i = 0; i < tiles.size(); ++i) {
          for (int y = 0; y < 4; ++y) layer.cells.set({static_cast<int>(i), y}, Cell({laid_.slot, tiles[i]}, {}));
        }
      });
      quilt = quilt.with(std::move(painted));
    };
    paint(map.id, row);
    paint(copy, beyond);
    const Sewing sewing = sewn(quilt, map.id, copy, {4, 0}, ids);
    EXPECT_EQ(sewing.why, "");
    JointBook book(TileSides(sewing.quilt, map.grid, pixelsOf(painted_, laid_)));
    Checks checks([&](const Quilt&, const GridShape&) { return &book; });
    std::vector<LooseThread> told = checks.of(sewing.quilt).threads;
    std::erase_if(told, [](const LooseThread& one) { return one.kind != "loose joint at a stitch"; });
    return told;
  };
  EXPECT_THAT(lay({kLeft, kMiddle, kMiddle, kMiddle}, {kMiddle, kMiddle, kMiddle, kRight}), IsEmpty());
  const auto told = lay({kLeft, kMiddle, kMiddle, kMiddle}, {});
  ASSERT_EQ(told.size(), 1u);
  EXPECT_THAT(told[0].text, testing::HasSubstr("4 cells at the stitch"));
  EXPECT_EQ(told[0].cell, (CellPos{3, 0}));
  EXPECT_EQ(lay({kLeft, kMiddle, kRight}, {kMiddle, kRight}).size(), 1u) << "from the other side as well";
}

TEST_F(LooseJoints, StopAtTheNumberAskedFor) {
  after({kLeft, kMiddle});
  JointBook book(TileSides(laid_.quilt, map_.grid, pixelsOf(painted_, laid_)));
  EXPECT_EQ(looseJoints(book, map_, 1, {-4, -4, 16, 8}, 5).size(), 5u);
  Progress progress;
  progress.cancel();
  EXPECT_THAT(looseJoints(book, map_, 1, {-4, -4, 16, 8}, 5, &progress), IsEmpty());
}

// A joint as its two cells, whichever of them it was found from.
std::set<std::pair<std::pair<int, int>, std::pair<int, int>>> pairs(const Grid& grid,
                                                                    const std::vector<LooseJoint>& all) {
  std::set<std::pair<std::pair<int, int>, std::pair<int, int>>> found;
  for (const LooseJoint& one : all) {
    const CellPos to = grid.across(one.cell, one.side);
    const std::pair a(one.cell.x, one.cell.y);
    const std::pair b(to.x, to.y);
    found.insert(std::minmax(a, b));
  }
  return found;
}

RC_GTEST_FIXTURE_PROP(LooseJoints, APartHasThoseOfTheWholeOnEveryGrid, ()) {
  const auto kind = *rc::gen::element(GridKind::orthogonal, GridKind::diamond, GridKind::staggered,
                                      GridKind::hexagonalPointy, GridKind::hexagonalFlat);
  after({});
  map_.grid = nearestShape(kind, {4, 4});
  map_.grid.firstShift = kind != GridKind::orthogonal && kind != GridKind::diamond && *rc::gen::arbitrary<bool>();
  map_.bounds = {0, 0, 12, 9};
  const auto tiles = *rc::gen::container<std::vector<std::uint32_t>>(108, rc::gen::inRange(0u, 9u));
  map_.layers[1].edit([&](Layer& layer) {
    for (int i = 0; i < 108; ++i) {
      const std::uint32_t tile = tiles[static_cast<std::size_t>(i)];
      if (tile < 7) layer.cells.set({i % 12, i / 12}, Cell({laid_.slot, tile}, {}));
    }
  });
  JointBook book(TileSides(laid_.quilt, map_.grid, pixelsOf(painted_, laid_)));
  const Grid& grid = book.sides().grid();
  const auto whole = pairs(grid, looseJoints(book, map_, 1, map_.bounds, 10'000));
  const int x = *rc::gen::inRange(0, 11);
  const int y = *rc::gen::inRange(0, 8);
  const CellRect part{x, y, *rc::gen::inRange(x + 1, 13), *rc::gen::inRange(y + 1, 10)};
  const auto here = pairs(grid, looseJoints(book, map_, 1, part, 10'000));
  for (const auto& joint : here) RC_ASSERT(whole.contains(joint));
  for (const auto& [a, b] : whole) {
    const bool within = part.contains({a.first, a.second}) && part.contains({b.first, b.second});
    if (within) RC_ASSERT(here.contains({a, b}));
  }
}

}  // namespace
}  // namespace uq::test
