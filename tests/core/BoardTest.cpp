// Where pieces lie on the Board, how they are found there, and what moving them leaves.
#include "core/edit/Board.h"

#include <algorithm>

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/AnyGrid.h"
#include "core/Support.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/ResizeMap.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

namespace {

// The small quilt with some more maps, on any grids, some of which have a place.
Quilt anyWorld() {
  Quilt quilt = smallQuilt();
  IdSource ids(11);
  for (int n = *rc::gen::inRange(0, 6); n > 0; --n) {
    MapPlan plan{"Plot " + std::to_string(n), anyGrid(), *rc::gen::inRange(1, 40), *rc::gen::inRange(1, 40)};
    plan.grid.plan = false;
    quilt = addMap(quilt, plan, ids).quilt;
  }
  const Quilt all = quilt;
  for (const Shared<Map>& map : all.maps()) {
    if (*rc::gen::inRange(0, 3) != 0) continue;
    Map placed = map.read();
    placed.onBoard = PixelPos{*rc::gen::inRange(-3000, 3000), *rc::gen::inRange(-3000, 3000)};
    quilt = quilt.with(std::move(placed));
  }
  return quilt;
}

bool overlap(const PixelRect& a, const PixelRect& b) {
  return a.x < b.right() && b.x < a.right() && a.y < b.bottom() && b.y < a.bottom();
}

}  // namespace

RC_GTEST_PROP(Board, TidyPiecesNeverOverlapAndStayTidy, ()) {
  const Quilt tidy = withTidyBoard(anyWorld());
  const auto pieces = piecesOf(tidy);
  RC_ASSERT(pieces.size() == tidy.maps().size());
  for (std::size_t i = 0; i < pieces.size(); ++i) {
    RC_ASSERT(tidy.maps()[i]->onBoard == pieces[i].at);
    for (std::size_t j = i + 1; j < pieces.size(); ++j) RC_ASSERT(!overlap(pieces[i].covers, pieces[j].covers));
  }
  RC_ASSERT(withTidyBoard(tidy) == tidy);
}

// Whoever has no place is laid where nobody is.
RC_GTEST_PROP(Board, PiecesWithoutAPlaceLieBelowTheOthers, ()) {
  const Quilt quilt = anyWorld();
  const auto pieces = piecesOf(quilt);
  for (std::size_t i = 0; i < pieces.size(); ++i) {
    if (quilt.maps()[i]->onBoard) continue;
    for (std::size_t j = 0; j < pieces.size(); ++j) RC_ASSERT(i == j || !overlap(pieces[i].covers, pieces[j].covers));
  }
}

RC_GTEST_PROP(Board, MovingAPieceMovesNoOtherAndNoCell, ()) {
  const Quilt quilt = anyWorld();
  const auto before = piecesOf(quilt);
  const Id moved = before[*rc::gen::inRange<std::size_t>(0, before.size())].map;
  const PixelPos by{*rc::gen::inRange(-900, 900), *rc::gen::inRange(-900, 900)};
  const Quilt after = withPiecesMoved(quilt, {moved}, by);
  const auto now = piecesOf(after);
  for (std::size_t i = 0; i < before.size(); ++i) {
    const PixelPos was = before[i].at;
    RC_ASSERT(now[i].at ==
              (before[i].map == moved && !(by == PixelPos{}) ? PixelPos{was.x + by.x, was.y + by.y} : was));
    RC_ASSERT(after.maps()[i]->layers == quilt.maps()[i]->layers);
    RC_ASSERT(after.maps()[i]->bounds == quilt.maps()[i]->bounds);
  }
  // And it is saved and read.
  auto disk = std::make_shared<MemoryDisk>();
  RC_ASSERT(QuiltStore::create(disk, "/q", after).has_value());
  const auto opened = QuiltStore::open(disk, "/q", QuiltStore::Access::read);
  RC_ASSERT(opened.has_value());
  RC_ASSERT(piecesOf(opened->quilt) == now);
}

// A map that grows, to whichever side, does not move.
TEST(Board, AMapThatGrowsStaysWhereItIs) {
  const Quilt quilt = withTidyBoard(smallQuilt());
  const Map yard = *quilt.mapNamed("Yard");
  const Quilt grown = withBounds(quilt, yard.id, moved(yard.bounds, {3, 2, 0, 0}));
  EXPECT_EQ(piecesOf(grown).front().at, piecesOf(quilt).front().at);
}

TEST(Board, APieceIsHitWithinItsRealOutlineOnly) {
  Quilt quilt = smallQuilt();
  Map yard = *quilt.mapNamed("Yard");
  yard.grid = nearestShape(GridKind::diamond, {64, 32});
  yard.bounds = {0, 0, 8, 8};
  yard.onBoard = PixelPos{1000, 500};
  quilt = quilt.with(yard);
  const auto pieces = piecesOf(quilt);
  const auto own = std::find_if(pieces.begin(), pieces.end(), [&](const Piece& one) { return one.map == yard.id; });
  ASSERT_NE(own, pieces.end());
  const PixelRect box = own->covers;
  EXPECT_EQ(pieceAt(quilt, pieces, {box.x + box.w / 2, box.y + box.h / 2}), yard.id);
  EXPECT_NE(pieceAt(quilt, pieces, {box.x + 2, box.y + 2}), yard.id) << "a corner of the box is beside the diamond";
}

TEST(Board, ArrowsLeadToTheNearestPieceInTheirDirection) {
  const auto id = [](int n) { return IdSource(static_cast<std::uint64_t>(n) + 1).next(); };
  const std::vector<Piece> pieces = {{id(0), {}, {0, 0, 100, 100}},
                                     {id(1), {}, {200, 0, 100, 100}},
                                     {id(2), {}, {420, 0, 100, 100}},
                                     {id(3), {}, {0, 300, 100, 100}}};
  EXPECT_EQ(pieceBeside(pieces, id(0), 1, 0), id(1));
  EXPECT_EQ(pieceBeside(pieces, id(1), 1, 0), id(2));
  EXPECT_EQ(pieceBeside(pieces, id(2), -1, 0), id(1));
  EXPECT_EQ(pieceBeside(pieces, id(0), 0, 1), id(3));
  EXPECT_EQ(pieceBeside(pieces, id(0), 0, -1), std::nullopt);
}

TEST(Board, ADraggedPieceIsDrawnToEdgesThatAreNear) {
  const auto id = [](int n) { return IdSource(static_cast<std::uint64_t>(n) + 1).next(); };
  const std::vector<Piece> pieces = {{id(0), {}, {0, 0, 100, 100}}, {id(1), {}, {300, 40, 50, 50}}};
  const Aligned to = aligned(pieces, {id(1)}, {-195, -36}, 8);
  EXPECT_EQ(to.by, (PixelPos{-200, -40}));
  EXPECT_EQ(to.lines.size(), 2u);
  EXPECT_EQ(aligned(pieces, {id(1)}, {-150, 200}, 8).by, (PixelPos{-150, 200}));
}

TEST(Board, WhatCannotBeChangedStays) {
  const Quilt quilt = smallQuilt();
  const Id yard = quilt.mapNamed("Yard")->id;
  const Id loft = quilt.mapNamed("Loft")->id;
  const Quilt moved = withPiecesMoved(quilt, {loft}, {10, 0}, {yard});
  EXPECT_EQ(moved.map(yard)->onBoard, std::nullopt);
  EXPECT_TRUE(moved.map(loft)->onBoard);
}

}  // namespace uq::test
