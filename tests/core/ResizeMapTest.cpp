// Maps grow and are cut: nothing that stays moves, nothing that is cut is gone.
#include "core/edit/ResizeMap.h"

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include <limits>
#include <set>

#include "core/AnyGrid.h"
#include "core/Support.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/MapFacts.h"
#include "core/edit/SizeText.h"

namespace uq::test {

namespace {

const Map& yardOf(const Quilt& quilt) { return *quilt.mapNamed("Yard"); }

EdgeMoves someMoves() {
  const auto some = [] { return *rc::gen::inRange(-9, 10); };
  return {some(), some(), some(), some()};
}

// The quilt with the Yard on any grid, and some edits on it.
Quilt anyYard() {
  Quilt quilt = smallQuilt();
  Map yard = yardOf(quilt);
  yard.grid = anyGrid();
  quilt = quilt.with(std::move(yard));
  for (int n = *rc::gen::inRange(0, 5); n > 0; --n) quilt = *editOf(quilt);
  return quilt.mapNamed("Yard") ? quilt : smallQuilt();
}

std::int64_t paintedIn(const Map& map, CellRect cells) {
  std::int64_t painted = 0;
  for (const Shared<Layer>& layer : map.layers) layer->cells.forEachPainted(cells, [&](CellPos, Cell) { ++painted; });
  return painted;
}

constexpr CellRect kEverywhere{-200, -200, 200, 200};

}  // namespace

RC_GTEST_PROP(ResizeMap, AnySequenceLeavesEveryCellAndLiftWhereItIs, ()) {
  const Quilt before = anyYard();
  const Id id = yardOf(before).id;
  Quilt now = before;
  for (int n = *rc::gen::inRange(1, 8); n > 0; --n) {
    const CellRect to = moved(now.map(id)->bounds, someMoves());
    const bool can = whyNoBounds(*now.map(id), to).empty();
    const Quilt next = withBounds(now, id, to);
    RC_ASSERT(next.map(id)->bounds == (can ? to : now.map(id)->bounds));
    now = next;
  }
  for (std::size_t i = 0; i < before.map(id)->layers.size(); ++i) {
    const Layer& was = before.map(id)->layers[i].read();
    const Layer& is = now.map(id)->layers[i].read();
    RC_ASSERT(was == is);
    RC_ASSERT(was.revision.is(is.revision));  // no cell was touched
  }
  // Back at the old size it is the same, byte for byte.
  RC_ASSERT(bytes(withBounds(now, id, before.map(id)->bounds)) == bytes(before));
}

RC_GTEST_PROP(ResizeMap, CountsWhatIsCutAndWhatComesBack, ()) {
  const Quilt quilt = anyYard();
  Map map = yardOf(quilt);
  map.bounds = moved(map.bounds, {*rc::gen::inRange(-6, 2), *rc::gen::inRange(-4, 2), 0, 0});
  PaintedCount count(map);
  for (int n = 0; n < 3; ++n) {
    const CellRect to = moved(map.bounds, someMoves());
    if (to.empty()) continue;
    const CellRect stays = to.intersected(map.bounds);
    RC_ASSERT(count.in(to) == paintedIn(map, to));
    RC_ASSERT(count.cutBy(to) == paintedIn(map, map.bounds) - paintedIn(map, stays));
    RC_ASSERT(count.broughtBackBy(to) == paintedIn(map, to) - paintedIn(map, stays));
  }
  RC_ASSERT(allowanceCells(map) == paintedIn(map, kEverywhere) - paintedIn(map, map.bounds));
  const Quilt dropped = withoutAllowance(quilt.with(map), map.id);
  RC_ASSERT(allowanceCells(*dropped.map(map.id)) == 0);
  RC_ASSERT(paintedIn(*dropped.map(map.id), kEverywhere) == paintedIn(map, map.bounds));
}

RC_GTEST_PROP(ResizeMap, NewRoomTakesTheNearestCellAndKeepsWhatComesBack, ()) {
  const Quilt quilt = anyYard();
  const Map map = yardOf(quilt);
  const CellRect to = moved(map.bounds, {*rc::gen::inRange(0, 6), *rc::gen::inRange(0, 6), *rc::gen::inRange(0, 6), 1});
  const Map now = *withBounds(quilt, map.id, to, NewRoom::lastRow).map(map.id);
  for (std::size_t i = 0; i < map.layers.size(); ++i) {
    const LayerCells& was = map.layers[i].read();
    const LayerCells& is = now.layers[i].read();
    for (int y = to.y0; y < to.y1; ++y) {
      for (int x = to.x0; x < to.x1; ++x) {
        const CellPos nearest{std::clamp(x, map.bounds.x0, map.bounds.x1 - 1), std::clamp(y, map.bounds.y0, map.bounds.y1 - 1)};
        const Laid wanted = was.cells.at({x, y}).empty() ? was.laidAt(nearest) : was.laidAt({x, y});
        RC_ASSERT(is.laidAt({x, y}) == wanted);
      }
    }
  }
}

TEST(ResizeMap, NewGroundComesOnTheGroundAlone) {
  Quilt quilt = smallQuilt();
  const Map yard = yardOf(quilt);  // the quilt becomes others
  quilt = withRole(quilt, layerOf(quilt, "Yard", "Paving"), "ground");
  const CellRect to = moved(yard.bounds, {0, 0, 1, 0});
  const Map now = *withBounds(quilt, yard.id, to, NewRoom::ground).map(yard.id);
  const CellRect fresh{yard.bounds.x1, to.y0, to.x1, to.y1};
  for (const Shared<Layer>& layer : now.layers) {
    std::int64_t painted = 0;
    layer->cells.forEachPainted(fresh, [&](CellPos, Cell) { ++painted; });
    EXPECT_EQ(painted, layer->role == "ground" ? fresh.height() : 0) << layer->name;
  }
}

// Ground that a kept mix knows comes as that mix, the same each time.
TEST(ResizeMap, NewGroundComesAsItsMix) {
  Quilt quilt = smallQuilt();
  const Map yard = yardOf(quilt);
  const LayerAt at = layerOf(quilt, "Yard", "Paving");
  quilt = withRole(quilt, at, "ground");
  LayerCells all = *quilt.layer(at);
  all.lay(yard.bounds, Laid{tileOf(quilt, "street", 1), 0});
  quilt = quilt.with(at, all);
  Stamp mix;
  mix.id = IdSource(3).next();
  mix.name = "Setts";
  mix.file = "setts";
  mix.held.manner = Manner::mix;
  for (const std::uint32_t number : {1u, 2u, 3u}) mix.held.members.push_back({Block::of(tileOf(quilt, "street", number)), 1});
  quilt = quilt.with(mix);
  const CellRect to = moved(yard.bounds, {0, 0, 10, 0});
  const CellGrid now = withBounds(quilt, yard.id, to, NewRoom::ground).layer(at)->cells;
  std::set<std::uint32_t> numbers;
  now.forEachPainted({yard.bounds.x1, to.y0, to.x1, to.y1}, [&](CellPos, Cell cell) { numbers.insert(cell.tile().number); });
  EXPECT_EQ(numbers, (std::set<std::uint32_t>{1, 2, 3}));
  EXPECT_TRUE(withBounds(quilt, yard.id, to, NewRoom::ground).layer(at)->cells == now);
}

TEST(ResizeMap, WhatWouldLieOutsideIsNamed) {
  const Quilt quilt = smallQuilt();
  const Map yard = yardOf(quilt);
  const CellRect to = moved(yard.bounds, {-4, 0, 0, 0});
  EXPECT_THAT(leftOutside(yard, to, CellSet(CellRect{-3, 0, 2, 1})), testing::ElementsAre("3 selected cells"));
  EXPECT_THAT(leftOutside(yard, to, CellSet(CellRect{0, 0, 2, 1})), testing::IsEmpty());
}

TEST(ResizeMap, WhatCannotBeSaysWhyAndChangesNothing) {
  const Quilt quilt = smallQuilt();
  const Map yard = yardOf(quilt);  // the quilt becomes others
  for (const CellRect to : {CellRect{0, 0, 0, 5}, CellRect{3, 3, 2, 9}, CellRect{0, 0, kFarthestCell + 1, 4},
                            CellRect{-kFarthestCell - 1, 0, 4, 4}, CellRect{0, 0, 600'000, 4},
                            moved(yard.bounds, {std::numeric_limits<int>::max(), 0, std::numeric_limits<int>::max(), 0})}) {
    EXPECT_NE(whyNoBounds(yard, to), "");
    EXPECT_EQ(bytes(withBounds(quilt, yard.id, to)), bytes(quilt));
  }
  EXPECT_EQ(whyNoBounds(yard, {0, 0, 1, 1}), "");
  // A map may be that large, but is not filled in one go.
  const CellRect large{0, 0, 20'000, 20'000};
  EXPECT_EQ(whyNoBounds(yard, large), "");
  EXPECT_NE(whyNoBounds(yard, large, NewRoom::lastRow), "");
  EXPECT_EQ(bytes(withBounds(quilt, yard.id, large, NewRoom::lastRow)), bytes(quilt));
}

// The cell under each edge stays the one that the edge lies in; what is painted stays on its cells.
RC_GTEST_PROP(ResizeMap, WithOtherCellsAMapKeepsThemOrHowFarItReaches, ()) {
  const Quilt quilt = anyYard();
  const Map map = yardOf(quilt);
  const PixelSize cell{*rc::gen::inRange(kSmallestCell, 90), *rc::gen::inRange(kSmallestCell, 90)};
  const Quilt same = withCell(quilt, map.id, cell);
  RC_ASSERT(same.map(map.id)->bounds == map.bounds);
  if (!whyNoCell(map, cell, CellsKeep::reach).empty()) return;
  const Map is = *withCell(quilt, map.id, cell, CellsKeep::reach).map(map.id);
  RC_ASSERT(is.grid == same.map(map.id)->grid);
  for (std::size_t i = 0; i < map.layers.size(); ++i) RC_ASSERT(is.layers[i] == map.layers[i]);
  const PixelSize was = cellsPitch(map.grid);
  const PixelSize now = cellsPitch(is.grid);
  const auto lies = [](int before, int beforeCell, int after, int afterCell) {
    return std::abs(before * beforeCell - after * afterCell) < afterCell;
  };
  RC_ASSERT(lies(map.bounds.x0, was.w, is.bounds.x0, now.w) && lies(map.bounds.x1, was.w, is.bounds.x1, now.w));
  RC_ASSERT(lies(map.bounds.y0, was.h, is.bounds.y0, now.h) && lies(map.bounds.y1, was.h, is.bounds.y1, now.h));
}

TEST(ResizeMap, GrowsByWholeScreensToHoldWhatIsWanted) {
  Quilt quilt = smallQuilt();
  quilt = withScreen(quilt, {320, 200});
  Map yard = yardOf(quilt);
  yard.grid = nearestShape(GridKind::orthogonal, {32, 32});
  yard.bounds = {0, 0, 20, 12};
  quilt = quilt.with(yard);
  EXPECT_EQ(grownToHold(quilt, yard, {0, 0, 20, 12}), yard.bounds);
  EXPECT_EQ(grownToHold(quilt, yard, {3, 3, 21, 5}), (CellRect{0, 0, 30, 12}));
  EXPECT_EQ(grownToHold(quilt, yard, {-11, -1, 5, 5}), (CellRect{-20, -7, 20, 12}));
  EXPECT_EQ(grownToHold(quilt, yard, {0, 0, kFarthestCell, 5}), yard.bounds) << "which cannot be";
}

TEST(ResizeMap, IsCutToWhatIsUsed) {
  Quilt quilt = smallQuilt();
  const Map yard = yardOf(quilt);  // the quilt becomes others
  const CellRect used = usedBounds(yard);
  EXPECT_FALSE(used.empty());
  quilt = withBounds(quilt, yard.id, moved(yard.bounds, {30, 20, 10, 5}));
  EXPECT_EQ(usedBounds(yardOf(quilt)), used);
  EXPECT_EQ(usedBounds(yardOf(withBounds(quilt, yard.id, used))), used);
}

TEST(ResizeMap, ADraggedEdgeStopsBeforeTheOppositeOne) {
  Map map = yardOf(smallQuilt());
  map.bounds = {0, 0, 10, 8};
  map.grid = nearestShape(GridKind::orthogonal, {32, 32});
  const HeldEdge right{false, false, true, false};
  EXPECT_EQ(dragged(map, right, {3, 5}), (CellRect{0, 0, 13, 8}));
  EXPECT_EQ(dragged(map, right, {-50, 0}), (CellRect{0, 0, 1, 8}));
  EXPECT_EQ(dragged(map, {true, true, false, false}, {-2, 3}), (CellRect{-2, 3, 10, 8}));
  EXPECT_EQ(dragged(map, right, {2, 0, true}), (CellRect{-2, 0, 12, 8}));
  EXPECT_EQ(dragged(map, right, {-50, 0, true}), (CellRect{4, 0, 6, 8}));
  // Whole screens of 160 × 128: 5 × 4 cells.
  EXPECT_EQ(dragged(map, right, {4, 0, false, PixelSize{160, 128}}), (CellRect{0, 0, 15, 8}));
  EXPECT_EQ(dragged(map, right, {-9, 0, false, PixelSize{160, 128}}), (CellRect{0, 0, 5, 8}));
  EXPECT_EQ(edgeBeyond(map.bounds, {-1, 3}), (HeldEdge{true, false, false, false}));
  EXPECT_EQ(edgeBeyond(map.bounds, {10, 8}), (HeldEdge{false, false, true, true}));
  EXPECT_FALSE(edgeBeyond(map.bounds, {9, 7}).any());
}

TEST(SizeText, SaysCellsInAnyWords) {
  const auto cells = [](const char* text) { return sizeMeant(text, 48, 32, 480).cells; };
  EXPECT_EQ(cells("64"), 64);
  EXPECT_EQ(cells("+5"), 53);
  EXPECT_EQ(cells(" - 2 "), 46);
  EXPECT_EQ(cells("2*23"), 46);
  EXPECT_EQ(cells("3 screens"), 45);
  EXPECT_EQ(cells("1.5 Screens"), 23) << "they are covered";
  EXPECT_EQ(cells("+ 1 screen"), 63);
  EXPECT_EQ(cells("1920 px"), 60);
  EXPECT_EQ(cells("1921px"), 61);
  EXPECT_EQ(cells("12 cells"), 12);
  EXPECT_EQ(cells("2*3*4 s"), 360);
}

TEST(SizeText, WhatMeansNothingSaysWhy) {
  for (const char* text : {"", "  ", "x", "3 parsecs", "-48", "-100", "0", "1.5", "2*", "2**3", "+", "--3", "1e5", "9999999999999",
                           "99999999*99999999*99999999", "2000000", "999999 screens", "nan", "inf"}) {
    const SizeMeant meant = sizeMeant(text, 48, 32, 480);
    EXPECT_NE(meant.why, "") << text;
    EXPECT_EQ(meant.cells, 0) << text;
  }
}

RC_GTEST_PROP(SizeText, AnyTextIsReadOrRefused, (const std::string& text)) {
  const SizeMeant meant = sizeMeant(text, 48, 32, 480);
  RC_ASSERT(meant.why.empty() == (meant.cells >= 1 && meant.cells <= kFarthestCell));
}

}  // namespace uq::test
