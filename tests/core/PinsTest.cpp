// Pins: placed, moved, copied and taken away; kept in files, and by every edit of a map.
#include "core/edit/Pins.h"

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/TwoMaps.h"
#include "core/check/Checks.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Doorways.h"
#include "core/edit/LinkGraph.h"
#include "core/edit/MapFacts.h"
#include "core/edit/ResizeMap.h"
#include "core/edit/Roles.h"
#include "core/edit/RowsAndColumns.h"
#include "core/edit/Seams.h"
#include "core/edit/Standing.h"
#include "core/store/Documents.h"
#include "core/store/JsonText.h"
#include "core/store/LinksText.h"
#include "core/store/PinsText.h"
#include "core/work/StepCheck.h"

namespace uq::test {

using testing::ElementsAre;
using testing::HasSubstr;
using testing::IsEmpty;
using testing::Not;
using testing::SizeIs;

TEST(Headings, AreTheSidesOfTheGridsCells) {
  for (const GridKind kind : kGridKinds) {
    const auto grid = makeGrid(nearestShape(kind, {64, 32}));
    const std::vector<Heading>& all = headingsOf(kind);
    EXPECT_EQ(all.size(), grid->outline({}).size());
    for (std::size_t side = 0; side < all.size(); ++side) {
      // The cell beyond lies where the heading points.
      const PixelRect here = grid->cellBox({4, 4});
      const PixelRect there = grid->cellBox(grid->across({4, 4}, static_cast<int>(side)));
      const int dx = there.x - here.x;
      const int dy = there.y - here.y;
      const std::string name(headingName(all[side]));
      EXPECT_EQ(name.find("east") != std::string::npos, dx > 0) << name;
      EXPECT_EQ(name.find("west") != std::string::npos, dx < 0) << name;
      EXPECT_EQ(name.starts_with("north"), dy < 0) << name;
      EXPECT_EQ(name.starts_with("south"), dy > 0) << name;
      EXPECT_EQ(headingFromName(name), all[side]);
      EXPECT_EQ(turnedHeading(kind, turnedHeading(kind, all[side], 1), -1), all[side]);
    }
  }
  EXPECT_EQ(nearestHeading(GridKind::diamond, Heading::north), Heading::northEast);
  EXPECT_EQ(sideOf(GridKind::diamond, Heading::north), std::nullopt);
}

TEST(Pins, AreNumberedByTheLowestThatIsFreeAndFoundByTheirCells) {
  Joined2 both;
  const PinAt second = both.place(both.yard, {4, 5});
  EXPECT_EQ(both.quilt.pin(both.gate)->number, 1);
  EXPECT_EQ(pinText(*both.quilt.pin(second)), "spot 2");
  EXPECT_EQ(pinText(*both.quilt.pin(both.gate)), "Gate");
  const Map& yard = *both.quilt.map(both.yard);
  EXPECT_THAT(pinsOn(yard, {4, 5}), SizeIs(2));
  EXPECT_THAT(pinsOn(yard, {5, 5}), IsEmpty());
  EXPECT_EQ(yard.layerOfPin(second.pin), yard.layerOfPin(both.gate.pin)) << "one layer for pins is made, once";
  both.quilt = withoutPins(both.quilt, both.yard, {both.gate.pin});
  EXPECT_EQ(both.quilt.pin(both.place(both.yard, {0, 0}))->number, 1);
}

TEST(Pins, MoveAlongTheGridAndLieWhereTheyDidWhenMovedBack) {
  EXPECT_TRUE(rc::check("on all grids", [] {
    Joined2 both;
    Map map = *both.quilt.map(both.yard);
    map.grid = nearestShape(*rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds))), {64, 32});
    both.quilt = both.quilt.with(map);
    const SidePos by{*rc::gen::inRange(-9, 10), *rc::gen::inRange(-9, 10)};
    const Quilt moved = withPinsMoved(both.quilt, both.yard, {both.gate.pin}, by);
    const auto grid = makeGrid(map.grid);
    RC_ASSERT(grid->toSide(moved.pin(both.gate)->cell) == grid->toSide({4, 5}) + by);
    RC_ASSERT(withPinsMoved(moved, both.yard, {both.gate.pin}, SidePos{} - by) == both.quilt);
  }));
}

TEST(Pins, AreKeptInAFileOfTheirOwnAndRead) {
  EXPECT_TRUE(rc::check("whatever they say", [] {
    Joined2 both;
    const int count = *rc::gen::inRange(1, 8);
    for (int i = 0; i < count; ++i) {
      Pin pin;
      pin.cell = {*rc::gen::inRange(-40, 40), *rc::gen::inRange(-40, 40)};
      pin.over = {*rc::gen::inRange(1, 5), *rc::gen::inRange(1, 5)};
      pin.name = *rc::gen::element<std::string>("", "Gate “A”", "two\nlines");
      pin.note = *rc::gen::element<std::string>("", "mind the step");
      if (*rc::gen::arbitrary<bool>()) pin.beside = {*rc::gen::inRange(-16, 17), 3};
      if (*rc::gen::inRange(0, 4) == 0) pin.edge = *rc::gen::element(MapEdge::left, MapEdge::top, MapEdge::right, MapEdge::bottom), pin.cell = {}, pin.over = {1, 1};
      both.quilt = addPin(both.quilt, {both.yard, {}}, pin, both.ids).quilt;
    }
    Doorway way = both.doorway();
    way.needs = *rc::gen::element<std::string>("", "the brass key");
    way.meantSo = *rc::gen::arbitrary<bool>();
    if (*rc::gen::arbitrary<bool>()) way.back.reset();
    if (*rc::gen::arbitrary<bool>()) way.picture = TileId{both.quilt.sheets().front()->id, *rc::gen::inRange(0u, 9u)};
    both.quilt = withStart(both.quilt.with(way), both.gate);
    QuiltFacts facts = both.quilt.facts();
    facts.silenced["no licence"] = "drawn here";
    both.quilt = both.quilt.with(facts);
    RC_ASSERT(!whyNotKept(both.quilt));
    auto disk = std::make_shared<MemoryDisk>();
    RC_ASSERT(QuiltStore::create(disk, "/q", both.quilt).has_value());
    const auto opened = QuiltStore::open(disk, "/q", QuiltStore::Access::read);
    RC_ASSERT(opened.has_value());
    RC_ASSERT(opened->problems.empty());
    for (std::size_t i = 0; i < both.quilt.maps().size(); ++i) {
      const Map& read = opened->quilt.maps()[i].read();
      const Map& was = both.quilt.maps()[i].read();
      RC_ASSERT(writeJson(mapDocument(read)) == writeJson(mapDocument(was)));
      RC_ASSERT(read.layers.back()->pins == was.layers.back()->pins);
    }
    RC_ASSERT(opened->quilt.doorways() == both.quilt.doorways());
    RC_ASSERT(opened->quilt.facts() == both.quilt.facts());
    RC_ASSERT(disk->files.contains("/q/maps/yard/pins.pins.json"));
  }));
}

TEST(Pins, OfAFileThatIsBrokenAreNamedAndTheFileStays) {
  for (const auto& [was, is, says] : {std::tuple("\"cell\": [4, 5]", "\"cell\": [4.5, 5]", "whole"),
                                      std::tuple("\"number\": 1", "\"number\": 0", "number"),
                                      std::tuple("\"cell\": [4, 5]", "\"edge\": \"north\"", "edge")}) {
    Joined2 both;
    auto disk = std::make_shared<MemoryDisk>();
    const auto created = QuiltStore::create(disk, "/q", both.quilt);
    ASSERT_TRUE(created) << created.error().text();
    std::string& text = disk->files.at("/q/maps/yard/pins.pins.json");
    ASSERT_NE(text.find(was), std::string::npos) << text;
    text.replace(text.find(was), std::string(was).size(), is);
    const auto opened = QuiltStore::open(disk, "/q", QuiltStore::Access::read);
    ASSERT_TRUE(opened);
    ASSERT_THAT(opened->problems, SizeIs(1)) << is;
    EXPECT_EQ(opened->problems[0].file, "maps/yard/pins.pins.json");
    EXPECT_TRUE(opened->store.damage(both.yard)) << says;
  }
}

TEST(Pins, GoAlongWithRowsAndColumnsLayersAndCopies) {
  Joined2 both;
  const CellLines columns{CellLines::Which::columns, 2, 3};
  const Quilt wider = withLines(both.quilt, both.yard, columns);
  EXPECT_EQ(wider.pin(both.gate)->cell, (CellPos{7, 5}));
  EXPECT_EQ(withLines(wider, both.yard, columns.undone()).pin(both.gate)->cell, (CellPos{4, 5}));
  EXPECT_EQ(withLines(both.quilt, both.yard, {CellLines::Which::rows, 5, -1}).pin(both.gate), nullptr) << "it goes with its row";
  // A box gains what comes in within it, and loses what goes.
  Pin box;
  box.cell = {6, 2};
  box.over = {4, 1};
  const PinAdded boxed = addPin(both.quilt, {both.yard, {}}, box, both.ids);
  EXPECT_EQ(withLines(boxed.quilt, both.yard, {CellLines::Which::columns, 8, 2}).pin(boxed.pin)->over.w, 6);
  EXPECT_EQ(withLines(boxed.quilt, both.yard, {CellLines::Which::columns, 8, -5}).pin(boxed.pin)->over.w, 2);
  EXPECT_EQ(withLines(boxed.quilt, both.yard, {CellLines::Which::columns, 4, -3}).pin(boxed.pin)->box(), (CellRect{4, 2, 7, 3}));
  // Two layers for pins become one, and ways still lead to what lay on either.
  const LayerAdded second = addPinsLayer(both.quilt, both.yard, 99, both.ids);
  Quilt two = second.quilt;
  Pin bell;
  bell.name = "bell";
  const PinAdded rung = addPin(two, {both.yard, second.layer}, bell, both.ids);
  const Quilt one = mergeDown(rung.quilt, {both.yard, second.layer});
  EXPECT_TRUE(one.pin(rung.pin));
  EXPECT_TRUE(one.pin(both.gate));
  EXPECT_EQ(one.map(both.yard)->layerOfPin(rung.pin.pin), one.map(both.yard)->layerOfPin(both.gate.pin));
  // A copied group leads within the copy, a map copied alone to nowhere new.
  MapsAdded copies = duplicateMaps(both.quilt, {both.yard, both.loft}, both.ids);
  ASSERT_THAT(copies.quilt.doorways(), SizeIs(2));
  for (const Shared<Doorway>& doorway : copies.quilt.doorways()) {
    EXPECT_TRUE(copies.quilt.pin(doorway->from));
    EXPECT_TRUE(copies.quilt.pin(doorway->to));
    if (doorway->id == both.way) continue;
    EXPECT_EQ(doorway->from.map, copies.copies[both.yard]);
    EXPECT_EQ(doorway->to.map, copies.copies[both.loft]);
  }
  EXPECT_THAT(duplicateMap(both.quilt, both.yard, both.ids).quilt.doorways(), SizeIs(1));
}

TEST(Pins, AreCopiedWithTheWaysAmongThem) {
  Joined2 both;
  const PinAt stair = both.place(both.yard, {6, 6}, "stair");
  both.quilt = addDoorway(both.quilt, both.gate, {both.yard, stair.pin, {}, false, {}}, both.ids).quilt;
  const PinsHeld held = heldPins(both.quilt, both.yard, {both.gate.pin, stair.pin});
  EXPECT_THAT(held.pins, SizeIs(2));
  EXPECT_THAT(held.doorways, SizeIs(1)) << "the way to the Loft leads out of them";
  const PinsAdded laid = withPinsLaid(both.quilt, {both.loft, {}}, held, {0, 0}, both.ids);
  EXPECT_THAT(laid.pins, SizeIs(2));
  EXPECT_THAT(pinsOn(*laid.quilt.map(both.loft), {2, 1}), SizeIs(1)) << "as far from one another as they were";
  EXPECT_THAT(doorwaysOf(laid.quilt, both.loft), SizeIs(2));
}

TEST(Pins, ThatWereCutAreLaidThemselvesSoThatWaysToThemLive) {
  Joined2 both;
  both.quilt = withStart(both.quilt, both.gate);
  const PinsHeld held = heldPins(both.quilt, both.yard, {both.gate.pin});
  const Quilt cut = withoutPins(both.quilt, both.yard, {both.gate.pin});
  const PinsAdded laid = withPinsLaid(cut, {both.loft, {}}, held, {1, 1}, both.ids);
  EXPECT_EQ(laid.pins, (std::set<Id>{both.gate.pin}));
  const Doorway& way = *laid.quilt.listed<Doorway>(both.way);
  EXPECT_EQ(way.from, (PinAt{both.loft, both.gate.pin}));
  EXPECT_EQ(laid.quilt.pin(way.from)->name, "Gate");
  EXPECT_EQ(laid.quilt.facts().start, way.from);
  // A second time it is a copy.
  const PinsAdded again = withPinsLaid(laid.quilt, {both.loft, {}}, held, {3, 1}, both.ids);
  EXPECT_FALSE(again.pins.contains(both.gate.pin));
  EXPECT_EQ(again.quilt.listed<Doorway>(both.way)->from, way.from);
}

TEST(Pins, StandForAWholeEdgeAndGoAlongWithIt) {
  const CellRect bounds{-2, 1, 6, 5};
  EXPECT_EQ(edgeBeyond(bounds, {-3, 2}, 3), MapEdge::left);
  EXPECT_EQ(edgeBeyond(bounds, {8, 4}, 3), MapEdge::right);
  EXPECT_EQ(edgeBeyond(bounds, {9, 4}, 3), std::nullopt) << "too far";
  EXPECT_EQ(edgeBeyond(bounds, {0, 0}, 3), MapEdge::top);
  EXPECT_EQ(edgeBeyond(bounds, {5, 5}, 3), MapEdge::bottom);
  EXPECT_EQ(edgeBeyond(bounds, {6, 5}, 3), std::nullopt) << "at a corner";
  EXPECT_EQ(edgeBeyond(bounds, {0, 2}, 3), std::nullopt);
  // Out over an edge is across a side of its cells, on every grid.
  for (const GridKind kind : kGridKinds) {
    const auto grid = makeGrid({kind, {32, 16}, kind == GridKind::hexagonalFlat || kind == GridKind::hexagonalPointy ? 8 : 0});
    for (const MapEdge edge : kMapEdges) {
      // Straight rows of diamonds have no side to the left or right: their headings are the nearest ones.
      if (kind == GridKind::staggered && (edge == MapEdge::left || edge == MapEdge::right)) continue;
      const auto side = sideOf(kind, nearestHeading(kind, outOver(kind, edge)));
      ASSERT_TRUE(side);
      Pin pin;
      pin.edge = edge;
      EXPECT_EQ(edgeBeyond(bounds, grid->across(middleOf(pin, bounds), *side), 1), edge) << edgeName(edge) << " " << gridName(kind);
    }
  }
  Joined2 both;
  Pin edge;
  edge.edge = MapEdge::right;
  const PinAdded added = addPin(both.quilt, {both.yard, {}}, edge, both.ids);
  const DoorwayAdded way = addDoorway(added.quilt, added.pin, {both.loft, {}, {1, 1}, true, {}}, both.ids);
  const CellRect yard = way.quilt.map(both.yard)->bounds;
  ResizeAsk wider;
  wider.by.right = 4;
  const Quilt grown = resized(way.quilt, both.yard, wider).quilt;
  EXPECT_EQ(middleOf(*grown.pin(added.pin), grown.map(both.yard)->bounds).x, yard.x1 + 3);
}

}  // namespace uq::test
