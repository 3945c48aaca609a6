// Doorways: made, led elsewhere, read by others; and the loose threads of what hangs together.
#include "core/edit/Doorways.h"

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

TEST(LooseThreads, NameGroundThatChangesAndWallsAtAStitch) {
  Joined2 both;
  const auto slot = *both.quilt.slots().find(both.quilt.sheets().front()->id);
  const auto ground = [&](Id id, std::uint32_t tile, std::uint32_t atLeft) {
    Map map = *both.quilt.map(id);
    for (Shared<Layer>& shared : map.layers) {
      if (shared->role != kGroundRole) continue;
      shared.edit([&](Layer& layer) {
        layer.cells = {};
        for (int y = map.bounds.y0; y < map.bounds.y1; ++y) {
          for (int x = map.bounds.x0; x < map.bounds.x1; ++x) layer.cells.set({x, y}, Cell({slot, x == map.bounds.x0 ? atLeft : tile}, {}));
        }
      });
    }
    both.quilt = both.quilt.with(std::move(map));
  };
  const CellRect yard = both.quilt.map(both.yard)->bounds;
  both.quilt = sewn(both.quilt, both.yard, both.loft, {yard.x1 - both.quilt.map(both.loft)->bounds.x0, 0}, both.ids).quilt;
  ground(both.yard, 1, 1);
  ground(both.loft, 2, 2);
  ASSERT_THAT(both.threads("ground that changes"), SizeIs(1));
  EXPECT_THAT(both.threads("ground that changes").front().text, HasSubstr("cells at the stitch Yard ~ Loft"));
  // What lies beside one another elsewhere on them may do so at the stitch.
  ground(both.yard, 1, 2);
  EXPECT_THAT(both.threads("ground that changes"), IsEmpty());
  // Kept up, it is seen on both sides.
  Checks kept;
  EXPECT_THAT(kept.of(both.quilt).threads, Not(testing::Contains(testing::Field(&LooseThread::kind, "ground that changes"))));
  ground(both.loft, 3, 3);
  EXPECT_THAT(kept.of(both.quilt).threads, testing::Contains(testing::Field(&LooseThread::kind, "ground that changes")));
}

// As a merge by hand leaves them: nothing is dropped, what refers to the first still does, and the rest is told.
TEST(LooseThreads, TellTwinsThatOneFileHolds) {
  Joined2 both;
  auto disk = std::make_shared<MemoryDisk>();
  ASSERT_TRUE(QuiltStore::create(disk, "/q", both.quilt));
  const auto twice = [&](const std::string& file, const std::string& id, const std::string& was, const std::string& is) {
    std::string& text = disk->files.at(file);
    const std::size_t begin = text.rfind('{', text.find("\"id\": \"" + id));
    const std::size_t end = text.find("}\n", begin) + 1;
    std::string copy = text.substr(begin, end - begin);
    const std::size_t at = copy.find(was);
    ASSERT_NE(at, std::string::npos) << copy;
    copy.replace(at, was.size(), is);
    text.insert(end, ",\n" + copy);
  };
  twice("/q/maps/yard/pins.pins.json", both.gate.pin.text(), "[4, 5]", "[6, 6]");
  twice("/q/links.json", both.way.text(), "\"arriving\"", "\"needs\": \"a key\", \"arriving\"");
  const auto opened = QuiltStore::open(disk, "/q", QuiltStore::Access::read);
  ASSERT_TRUE(opened);
  EXPECT_THAT(opened->problems, IsEmpty()) << opened->problems.front().text();
  EXPECT_THAT(opened->quilt.map(both.yard)->layers.back()->pins.read(), SizeIs(2));
  EXPECT_EQ(opened->quilt.pin(both.gate)->cell, (CellPos{4, 5}));
  ASSERT_THAT(opened->quilt.doorways(), SizeIs(2));
  both.quilt = opened->quilt;
  ASSERT_THAT(both.threads("doubled number"), SizeIs(1));
  ASSERT_THAT(both.threads("doubled doorway"), SizeIs(1));
  both.quilt = mended(mended(both.quilt, both.threads("doubled number").front()), both.threads("doubled doorway").front());
  EXPECT_THAT(both.threads("doubled number"), IsEmpty());
  EXPECT_THAT(both.threads("doubled doorway"), IsEmpty());
  EXPECT_THAT(both.quilt.doorways(), SizeIs(1));
  EXPECT_FALSE(whyNotKept(both.quilt));
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
