// Pins and doorways: placed, moved, copied and taken away; kept in files, and by every edit of a map.
#include "core/edit/Pins.h"

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/SavedQuilt.h"
#include "core/check/Checks.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Doorways.h"
#include "core/edit/LinkGraph.h"
#include "core/edit/MapFacts.h"
#include "core/edit/ResizeMap.h"
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
using testing::SizeIs;

namespace {

// Yard and Loft with a gate and a hatch, and a way between them.
struct Joined2 {
  IdSource ids{7};
  Quilt quilt = smallQuilt();
  Id yard = quilt.mapNamed("Yard")->id;
  Id loft = quilt.mapNamed("Loft")->id;
  PinAt gate;
  PinAt hatch;
  Id way;

  Joined2() {
    gate = place(yard, {4, 5}, "Gate");
    hatch = place(loft, {2, 3}, "hatch");
    const DoorwayAdded added = addDoorway(quilt, gate, {loft, hatch.pin, {}, true, {}}, ids);
    quilt = added.quilt;
    way = added.doorway;
  }
  PinAt place(Id map, CellPos cell, const std::string& name = {}) {
    Pin pin;
    pin.cell = cell;
    pin.name = name;
    const PinAdded added = addPin(quilt, {map, {}}, pin, ids);
    quilt = added.quilt;
    return added.pin;
  }
  const Doorway& doorway() const { return *quilt.listed<Doorway>(way); }
  std::vector<LooseThread> threads(std::string_view kind = {}) const {
    Checks checks;
    std::vector<LooseThread> all = checks.of(quilt).threads;
    std::erase_if(all, [&](const LooseThread& one) { return !kind.empty() && one.kind != kind; });
    return all;
  }
};

}  // namespace

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
    if (*rc::gen::arbitrary<bool>()) way.picture = TilePicture{both.quilt.sheets().front()->id, *rc::gen::inRange(0u, 9u)};
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

TEST(Doorways, LeadThereAndBackAndSaySo) {
  Joined2 both;
  EXPECT_EQ(arrivalFrom(both.quilt, both.gate)->at, both.hatch);
  EXPECT_EQ(arrivalFrom(both.quilt, both.hatch)->at, both.gate);
  EXPECT_THAT(doorwayText(both.quilt, both.doorway()), HasSubstr("Gate leads to Loft, arriving at “hatch”, facing "));
  Doorway one = both.doorway();
  one.back.reset();
  one.needs = "the brass key";
  both.quilt = both.quilt.with(one);
  EXPECT_THAT(doorwayText(both.quilt, one), HasSubstr(", one way. Needs the brass key."));
  EXPECT_EQ(arrivalFrom(both.quilt, both.hatch), std::nullopt);
  EXPECT_THAT(needsSaid(both.quilt), ElementsAre("the brass key"));
  // Onto a cell: the spot is made.
  const DoorwayAdded made = addDoorway(both.quilt, both.gate, {both.loft, {}, {1, 1}, true, {}}, both.ids);
  EXPECT_EQ(made.quilt.pin(made.quilt.listed<Doorway>(made.doorway)->to)->cell, (CellPos{1, 1}));
  EXPECT_TRUE(addDoorway(both.quilt, both.gate, {both.yard, both.gate.pin, {}, true, {}}, both.ids).doorway.empty()) << "to itself";
}

TEST(Doorways, AreEnteredAndLeftFacingTheOpenSide) {
  // A door in a wall: solid all round but to the south.
  Joined2 both;
  Sheet wall = both.quilt.sheets().front().read();
  wall.footing = Footing::solid;
  both.quilt = both.quilt.with(wall);
  const auto slot = *both.quilt.slots().find(wall.id);
  const auto walled = [&](Id id, const std::set<CellPos>& open) {
    Map map = *both.quilt.map(id);
    Layer ground = *std::find_if(map.layers.begin(), map.layers.end(), [](const auto& one) { return one->holdsTiles(); })->operator->();
    for (int y = 0; y < 8; ++y) {
      for (int x = 0; x < 8; ++x) ground.cells.set({x, y}, open.contains({x, y}) ? Cell() : Cell({slot, 1}, {}));
    }
    both.quilt = both.quilt.with({id, ground.id}, ground);
  };
  for (const Id id : {both.yard, both.loft}) {
    Map bare = *both.quilt.map(id);
    for (Shared<Layer>& layer : bare.layers) layer.edit([](Layer& one) { static_cast<LayerCells&>(one) = {}; });
    both.quilt = both.quilt.with(bare);
  }
  walled(both.yard, {{4, 5}, {4, 6}});
  walled(both.loft, {{2, 3}, {2, 2}});
  EXPECT_EQ(proposedArrival(both.quilt, both.gate, both.loft, {2, 3}), Heading::north) << "going north through the door";
  EXPECT_EQ(proposedReturn(both.quilt, both.gate), Heading::south) << "coming out of it";
  Doorway way = both.doorway();
  way.arriving = Heading::north;
  way.back = Heading::south;
  both.quilt = both.quilt.with(way);
  EXPECT_THAT(both.threads("arrival"), IsEmpty());
  way.arriving = Heading::east;
  both.quilt = both.quilt.with(way);
  ASSERT_THAT(both.threads("arrival"), SizeIs(1));
  EXPECT_THAT(both.threads("arrival").front().text, HasSubstr("faces east, where nobody can go on"));
  EXPECT_EQ(mended(both.quilt, both.threads("arrival").front()).listed<Doorway>(both.way)->arriving, Heading::north);
  both.quilt = withPinsMoved(both.quilt, both.loft, {both.hatch.pin}, {3, 0});
  ASSERT_THAT(both.threads("arrival"), SizeIs(1));
  EXPECT_THAT(both.threads("arrival").front().text, HasSubstr("stands in something solid"));
}

TEST(Doorways, LeadToARoomThatIsMadeForThem) {
  Joined2 both;
  const Cell floor = Cell({*both.quilt.slots().find(both.quilt.sheets().front()->id), 3}, {});
  const RoomAdded room = addRoom(both.quilt, both.gate, {"Cellar", {6, 4}, floor, PixelPos{900, 40}}, both.ids);
  const Map& cellar = *room.quilt.map(room.map);
  EXPECT_EQ(cellar.name, "Cellar");
  EXPECT_EQ(cellar.grid, both.quilt.map(both.yard)->grid);
  EXPECT_EQ(cellar.bounds, (CellRect{0, 0, 6, 4}));
  std::set<std::string> roles;
  for (const Shared<Layer>& layer : cellar.layers) roles.insert(layer->role);
  for (const Shared<Layer>& layer : both.quilt.map(both.yard)->layers) EXPECT_TRUE(roles.contains(layer->role)) << layer->role;
  const Doorway& way = *room.quilt.listed<Doorway>(room.doorway);
  EXPECT_TRUE(way.back);
  EXPECT_EQ(room.quilt.pin(way.to)->cell, (CellPos{3, 3}));
  const auto ground = std::find_if(cellar.layers.begin(), cellar.layers.end(), [](const auto& one) { return one->role == "ground"; });
  EXPECT_EQ((*ground)->cells.tally(cellar.bounds).begin()->second, 24);
}

TEST(LooseThreads, AreTiedByTheirPress) {
  Joined2 both;
  EXPECT_THAT(both.threads("no start"), SizeIs(1));
  both.quilt = withStart(both.quilt, both.gate);
  EXPECT_THAT(both.threads("no start"), IsEmpty());
  EXPECT_THAT(both.threads("dead doorway"), IsEmpty());
  Doorway way = both.doorway();
  way.back.reset();
  both.quilt = both.quilt.with(way);
  ASSERT_THAT(both.threads("no way back"), SizeIs(1));
  EXPECT_TRUE(mended(both.quilt, both.threads("no way back").front()).listed<Doorway>(both.way)->back);
  Quilt meant = both.quilt;
  way.meantSo = true;
  both.quilt = both.quilt.with(way);
  EXPECT_THAT(both.threads("no way back"), IsEmpty());
  both.quilt = meant;
  // Another way leads back from there, to somewhere else.
  const PinAt bell = both.place(both.yard, {8, 8}, "bell");
  both.quilt = addDoorway(both.quilt, both.hatch, {both.yard, bell.pin, {}, false, {}}, both.ids).quilt;
  EXPECT_THAT(both.threads("ends that disagree"), SizeIs(1));
  // A map that goes leaves the way, told with both presses.
  both.quilt = deleteMap(both.quilt, both.loft);
  const auto dead = both.threads("dead doorway");
  ASSERT_THAT(dead, SizeIs(2));
  EXPECT_THAT(dead.front().text, HasSubstr("to a map that is gone"));
  for (const LooseThread& one : dead) both.quilt = mended(both.quilt, one);
  EXPECT_THAT(both.quilt.doorways(), IsEmpty());
  QuiltFacts facts = both.quilt.facts();
  facts.silenced["no licence"] = "all drawn here";
  both.quilt = both.quilt.with(facts);
  EXPECT_THAT(both.threads("no licence"), IsEmpty());
}

TEST(LooseThreads, TellWhatIsStillChalkAndWhatHasNoSheet) {
  Joined2 both;
  Map yard = *both.quilt.map(both.yard);
  const LayerAt at = layerOf(both.quilt, "Yard", "Paving");
  LayerCells cells = *both.quilt.layer(at);
  cells.cells.set({3, 3}, Cell({kChalkSlot, 1}, {}));
  both.quilt = both.quilt.with(at, cells);
  ASSERT_THAT(both.threads("still chalk"), SizeIs(1));
  EXPECT_EQ(both.threads("still chalk").front().cell, (CellPos{3, 3}));
  const Id sheet = std::find_if(both.quilt.sheets().begin(), both.quilt.sheets().end(), [](const auto& one) { return one->name == "street"; })->read().id;
  both.quilt = both.quilt.without<Sheet>(sheet);
  EXPECT_THAT(both.threads("missing sheet"), testing::Not(IsEmpty()));
}

TEST(LooseThreads, ComeOutTheSameWhetherKeptUpOrFoundAnew) {
  EXPECT_TRUE(rc::check("after edits", [] {
    Joined2 both;
    Checks kept;
    (void)kept.of(both.quilt);
    for (int i = 0; i < 12; ++i) {
      const Quilt& quilt = both.quilt;
      std::vector<PinAt> pins;
      for (const Shared<Map>& map : quilt.maps()) {
        for (const Shared<Layer>& layer : map->layers) {
          for (const Pin& pin : layer->pins.read()) pins.push_back({map->id, pin.id});
        }
      }
      const Id map = quilt.maps()[static_cast<std::size_t>(*rc::gen::inRange(0, static_cast<int>(quilt.maps().size())))]->id;
      const auto anyPin = [&] { return pins.empty() ? PinAt{} : pins[static_cast<std::size_t>(*rc::gen::inRange(0, static_cast<int>(pins.size())))]; };
      switch (*rc::gen::inRange(0, 9)) {
        case 0: both.quilt = renameMap(quilt, map, "Yard " + std::to_string(i)); break;
        case 1: both.quilt = withLines(quilt, map, {CellLines::Which::rows, *rc::gen::inRange(0, 8), *rc::gen::element(-2, 3)}); break;
        case 2: both.quilt = withoutPins(quilt, map, {anyPin().pin}); break;
        case 3: both.quilt = withPinsMoved(quilt, map, {anyPin().pin}, {*rc::gen::inRange(-20, 20), *rc::gen::inRange(-20, 20)}); break;
        case 4: both.quilt = duplicateMaps(quilt, {both.yard, both.loft}, both.ids).quilt; break;
        case 5: both.quilt = addDoorway(quilt, anyPin(), {map, {}, {*rc::gen::inRange(0, 9), 2}, *rc::gen::arbitrary<bool>(), {}}, both.ids).quilt; break;
        case 6: if (quilt.maps().size() > 2) both.quilt = deleteMap(quilt, map); break;
        case 7: both.quilt = withStart(quilt, anyPin()); break;
        default: {
          both.place(map, {*rc::gen::inRange(0, 9), 1});
        }
      }
      const Checked now = kept.of(both.quilt);
      Checks anew;
      RC_ASSERT(now.threads == anew.of(both.quilt).threads);
      // No way that is not right goes unnamed.
      for (const Shared<Doorway>& doorway : both.quilt.doorways()) {
        const bool isWhole = both.quilt.pin(doorway->from) && both.quilt.pin(doorway->to);
        const bool isTold = std::any_of(now.threads.begin(), now.threads.end(), [&](const LooseThread& one) { return one.about == doorway->id; });
        RC_ASSERT(isWhole || isTold);
      }
      RC_ASSERT(!whyNotKept(both.quilt));
    }
  }));
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

TEST(LooseThreads, NameAnEdgeThatLeadsAwayAndIsSewn) {
  Joined2 both;
  Pin edge;
  edge.edge = MapEdge::right;
  edge.name = "east edge";
  const PinAdded added = addPin(both.quilt, {both.yard, {}}, edge, both.ids);
  both.quilt = addDoorway(added.quilt, added.pin, {both.loft, {}, {1, 1}, true, {}}, both.ids).quilt;
  EXPECT_THAT(both.threads("edge that leads is sewn"), IsEmpty());
  EXPECT_EQ(sewnAlong(both.quilt, both.yard, MapEdge::right), "");
  const CellRect yard = both.quilt.map(both.yard)->bounds;
  const Sewing made = sewn(both.quilt, both.yard, both.loft, {yard.x1 - both.quilt.map(both.loft)->bounds.x0, 0}, both.ids);
  ASSERT_EQ(made.why, "");
  both.quilt = made.quilt;
  EXPECT_EQ(sewnAlong(both.quilt, both.yard, MapEdge::right), "Loft");
  EXPECT_EQ(sewnAlong(both.quilt, both.yard, MapEdge::left), "");
  EXPECT_EQ(sewnAlong(both.quilt, both.loft, MapEdge::left), "Yard");
  ASSERT_THAT(both.threads("edge that leads is sewn"), SizeIs(1));
  EXPECT_THAT(both.threads("edge that leads is sewn").front().text, HasSubstr("is sewn to Loft"));
}

TEST(Doorways, AreLedToSomewhereElseByOneEnd) {
  Joined2 both;
  // Its pin goes along within a map and to another one, name and all.
  const DoorwayAdded within = withEndMoved(both.quilt, both.way, both.hatch, {both.loft, {}, {5, 1}, true, Heading::west}, both.ids);
  ASSERT_EQ(within.doorway, both.way);
  const Doorway& moved = *within.quilt.listed<Doorway>(both.way);
  EXPECT_EQ(moved.to, both.hatch);
  EXPECT_EQ(within.quilt.pin(both.hatch)->cell, (CellPos{5, 1}));
  EXPECT_EQ(moved.arriving, Heading::west);
  const DoorwayAdded over = withEndMoved(both.quilt, both.way, both.hatch, {both.yard, {}, {1, 1}, true, {}}, both.ids);
  const Doorway& carried = *over.quilt.listed<Doorway>(both.way);
  EXPECT_EQ(carried.to.map, both.yard);
  EXPECT_EQ(over.quilt.pin(carried.to)->name, "hatch");
  EXPECT_FALSE(over.quilt.pin(both.hatch)) << "it went along";
  EXPECT_EQ(carried.from, both.gate);
  // What something else needs stays where it is.
  const Quilt begins = withStart(both.quilt, both.hatch);
  const DoorwayAdded left = withEndMoved(begins, both.way, both.hatch, {both.yard, {}, {1, 1}, true, {}}, both.ids);
  EXPECT_TRUE(left.quilt.pin(both.hatch));
  EXPECT_FALSE(left.quilt.listed<Doorway>(both.way)->to == both.hatch);
  // Onto a pin; never onto its other end.
  const PinAt third = both.place(both.yard, {7, 7}, "third");
  EXPECT_EQ(withEndMoved(both.quilt, both.way, both.gate, {both.yard, third.pin, {}, true, {}}, both.ids).quilt.listed<Doorway>(both.way)->from, third);
  EXPECT_TRUE(withEndMoved(both.quilt, both.way, both.hatch, {both.yard, both.gate.pin, {}, true, {}}, both.ids).doorway.empty());
  EXPECT_TRUE(withEndMoved(both.quilt, both.way, third, {both.yard, {}, {1, 1}, true, {}}, both.ids).doorway.empty()) << "no end of it";
}

TEST(LinkGraph, SaysWhatHangsTogetherAndWhatIsGone) {
  Joined2 both;
  Doorway way = both.doorway();
  way.needs = "the brass key";
  both.quilt = withStart(both.quilt.with(way), both.gate);
  const Json graph = linkGraph(both.quilt);
  const auto text = [](const Json* json) { return json && json->as<std::string>() ? *json->as<std::string>() : std::string("-"); };
  EXPECT_EQ(text(graph.find("start")->find("spot")), both.gate.pin.text());
  const Json& doorway = graph.find("doorways")->as<Json::Array>()->front();
  EXPECT_EQ(text(doorway.find("from")->find("map")), both.yard.text());
  EXPECT_EQ(text(doorway.find("needs")), "the brass key");
  EXPECT_EQ(text(graph.find("needs")->as<Json::Array>()->front().find("what")), "the brass key");
  const Json graphWithout = linkGraph(withoutPins(both.quilt, both.loft, {both.hatch.pin}));
  const Json& loose = graphWithout.find("doorways")->as<Json::Array>()->front();
  EXPECT_FALSE(loose.find("to")->find("map")) << "null: the spot is gone";
  EXPECT_EQ(writeJson(graph), writeJson(linkGraph(both.quilt))) << "the same bytes";
}

}  // namespace uq::test
