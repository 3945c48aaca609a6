// Lists of edits: repetitive work written down once, done without a window, refused with a reason and a line.
#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/Support.h"
#include "core/edit/ArrangeLayers.h"
#include "core/work/EditList.h"
#include "core/store/JsonText.h"

namespace uq::test {
namespace {

using testing::SizeIs;
using testing::ElementsAre;
using testing::HasSubstr;

// The small quilt with its layers empty.
class EditList : public testing::Test {
 protected:
  EditList() {
    for (const char* layer : {"Paving", "Sheds", "Awnings"}) {
      quilt = quilt.with(layerOf(quilt, "Yard", layer), LayerCells());
    }
  }
  Result<EditsDone> run(const std::string& steps) const {
    const auto json =
        readJson("{\"document\": \"edits\", \"version\": 1,\n\"steps\": [\n" + steps + "\n]}", "steps.json");
    if (!json) return fail(json.error());
    return doEdits(
        quilt, *json, [](const Quilt&, const GridShape&, TileRef) { return true; }, "steps.json");
  }
  Quilt done(const std::string& steps) const {
    const auto result = run(steps);
    EXPECT_TRUE(result) << result.error().text();
    return result ? result->quilt : quilt;
  }
  std::string refusal(const std::string& steps) const {
    const auto result = run(steps);
    EXPECT_FALSE(result);
    return result ? "" : result.error().text();
  }
  // The numbers of the tiles in a row of a layer; 0 where it is empty.
  static std::vector<int> row(const Quilt& of, const char* layer, CellPos from, int count) {
    std::vector<int> numbers;
    for (int i = 0; i < count; ++i) {
      const Cell cell = of.mapNamed("Yard")->layerNamed(layer)->cells.at({from.x + i, from.y});
      numbers.push_back(cell.empty() ? 0 : static_cast<int>(cell.tile().number));
    }
    return numbers;
  }

  Quilt quilt = smallQuilt();
};

TEST_F(EditList, AStepGoesOnWhereTheOneBeforeWas) {
  const auto result =
      run(R"({"do": "box", "map": "Yard", "layer": "Paving", "tile": ["street", 3], "from": [0, 0], "to": [4, 1]},
                             {"do": "line", "from": [0, 3], "to": [2, 3]},
                             {"do": "paint", "layer": "Sheds", "tile": ["street", 5], "path": [[1, 0]]})");
  ASSERT_TRUE(result) << result.error().text();
  EXPECT_THAT(row(result->quilt, "Paving", {0, 1}, 6), ElementsAre(3, 3, 3, 3, 3, 0));
  EXPECT_THAT(row(result->quilt, "Paving", {0, 3}, 4), ElementsAre(3, 3, 3, 0));
  EXPECT_THAT(row(result->quilt, "Sheds", {0, 0}, 3), ElementsAre(0, 5, 0));
  ASSERT_EQ(result->steps.size(), 3u);
  EXPECT_EQ(result->steps[0].what, "box on Paving of Yard");
  EXPECT_EQ(result->steps[0].cells, 10);
}

TEST_F(EditList, WhatIsSelectedIsTakenMovedTurnedAndKept) {
  const std::string laid =
      R"({"do": "paint", "map": "Yard", "layer": "Paving", "tile": ["street", 3], "path": [[0, 0]]},
                              {"do": "paint", "tile": ["street", 4], "path": [[1, 0]]},
                              {"do": "select", "from": [0, 0], "to": [1, 0]},)";
  EXPECT_THAT(row(done(laid + R"({"do": "move", "by": [3, 0]})"), "Paving", {0, 0}, 5), ElementsAre(0, 0, 0, 3, 4));
  EXPECT_THAT(row(done(laid + R"({"do": "turn", "way": "across"})"), "Paving", {-1, 0}, 4), ElementsAre(0, 4, 3, 0));
  EXPECT_THAT(row(done(laid + R"({"do": "delete"})"), "Paving", {0, 0}, 2), ElementsAre(0, 0));
  EXPECT_THAT(row(done(laid + R"({"do": "toLayer", "to": "Sheds"})"), "Sheds", {0, 0}, 2), ElementsAre(3, 4));
  // What was taken is laid again, elsewhere and from the Table.
  const Quilt kept = done(laid + R"({"do": "take"}, {"do": "keep", "name": "Pair"}, {"do": "select"},
                                    {"do": "stamp", "stamp": "Pair", "layer": "Sheds", "at": [5, 2]})");
  ASSERT_EQ(kept.stamps().size(), 1u);
  EXPECT_EQ(kept.stamps().front()->name, "Pair");
  const std::vector<int> sheds = row(kept, "Sheds", {3, 2}, 5);
  EXPECT_EQ(std::count(sheds.begin(), sheds.end(), 3), 1);
  EXPECT_EQ(std::count(sheds.begin(), sheds.end(), 4), 1);
}

TEST_F(EditList, FillsAndSwapsCountTheirCells) {
  const auto result = run(
      R"({"do": "box", "map": "Yard", "layer": "Paving", "tile": ["street", 3], "from": [0, 0], "to": [3, 3], "outline": true},
                             {"do": "fill", "tile": ["street", 7], "at": [1, 1], "onlyThis": true, "asSeen": false},
                             {"do": "swap", "from": ["street", 7], "to": ["street", 6], "in": "layer"})");
  ASSERT_TRUE(result) << result.error().text();
  EXPECT_EQ(result->steps[1].cells, 4) << "inside the outline";
  EXPECT_EQ(result->steps[2].cells, 4);
  EXPECT_THAT(row(result->quilt, "Paving", {0, 1}, 5), ElementsAre(3, 6, 6, 3, 0));
}

TEST_F(EditList, AStretchIsFittedAndAMixIsThrownByItsSeed) {
  const std::string hedge =
      R"("hand": {"manner": "stretch", "ends": {"left": 1, "right": 1},
                  "tiles": [[0, 0, "street", 1], [1, 0, "street", 2], [2, 0, "street", 3]]})";
  const Quilt fitted =
      done(R"({"do": "stretch", "map": "Yard", "layer": "Paving", "from": [0, 0], "to": [5, 0], )" + hedge + "}");
  EXPECT_THAT(row(fitted, "Paving", {0, 0}, 6), ElementsAre(1, 2, 2, 2, 2, 3));
  const std::string mix =
      R"({"do": "box", "map": "Yard", "layer": "Paving", "from": [-4, -4], "to": [15, 7],
          "hand": {"manner": "mix", "mix": [{"tiles": [[0, 0, "street", 1]]}, {"tiles": [[0, 0, "street", 2]], "weight": 9}]}, "seed": )";
  const Quilt seven = done(mix + "7}");
  EXPECT_EQ(seven, done(mix + "7}")) << "the same each time";
  EXPECT_NE(seven, done(mix + "8}"));
  const auto tally = seven.mapNamed("Yard")->layerNamed("Paving")->cells.tally({-4, -4, 16, 8});
  ASSERT_EQ(tally.size(), 2u);
  EXPECT_LT(tally.begin()->second, tally.rbegin()->second) << "by its weight";
}

TEST_F(EditList, MapsAndLayersAreMadeReadyToPaintOn) {
  const Quilt made =
      done(R"({"do": "newMap", "name": "Market", "grid": "hexagonal-pointy", "cell": [32, 32], "size": [9, 5], "seen": "side-on"},
                             {"do": "addLayer", "name": "Stalls", "role": "things"},
                             {"do": "paint", "tile": ["street", 4], "path": [[2, 2], [5, 2]]})");
  const Map* market = made.mapNamed("Market");
  ASSERT_TRUE(market);
  EXPECT_EQ(market->bounds.width(), 9);
  EXPECT_EQ(market->seen, Seen::sideOn);
  ASSERT_TRUE(market->layerNamed("Stalls"));
  EXPECT_EQ(market->layerNamed("Stalls")->cells.tally(market->bounds).begin()->second, 4);
}

TEST_F(EditList, AMapIsCalledByItsNameOrItsIdByEveryStep) {
  const std::string id = quilt.mapNamed("Yard")->id.text();
  const Quilt after = done(R"({"do": "addLayer", "map": ")" + id + R"(", "name": "Stalls"})");
  EXPECT_TRUE(after.mapNamed("Yard")->layerNamed("Stalls"));
  EXPECT_EQ(bytes(after), bytes(done(R"({"do": "addLayer", "map": "Yard", "name": "Stalls"})")));
}

TEST_F(EditList, AMapIsResizedAndWhatIsCutIsKeptOrDropped) {
  const std::string laid = R"({"do": "box", "map": "Yard", "layer": "Paving", "tile": ["street", 3], "from": [0, 0],
                              "to": [3, 3]},)";
  const auto bounds = [](const Quilt& of) { return of.mapNamed("Yard")->bounds; };
  const Quilt wider = done(laid + R"({"do": "resize", "left": 2, "bottom": -1})");
  EXPECT_EQ(bounds(wider), (CellRect{-6, -4, 16, 7}));
  const Quilt cut = done(laid + R"({"do": "resize", "map": "Yard", "width": 6, "height": 6})");
  EXPECT_EQ(bounds(cut), (CellRect{-4, -4, 2, 2}));
  EXPECT_THAT(row(cut, "Paving", {0, 0}, 4), ElementsAre(3, 3, 3, 3)) << "what is cut off is kept";
  EXPECT_THAT(row(done(laid + R"({"do": "resize", "width": 6, "height": 6, "dropsAllowance": true})"), "Paving", {0, 0}, 4),
              ElementsAre(3, 3, 0, 0));
  EXPECT_EQ(bounds(done(laid + R"({"do": "resize", "toUsed": true})")), (CellRect{0, 0, 4, 4}));
  const Quilt again = done(R"({"do": "box", "map": "Yard", "layer": "Paving", "tile": ["street", 3], "from": [-4, -4],
                              "to": [15, 7]}, {"do": "resize", "right": 2, "room": "lastRow"})");
  EXPECT_THAT(row(again, "Paving", {15, 0}, 4), ElementsAre(3, 3, 3, 0));
  EXPECT_THAT(refusal(R"({"do": "resize", "map": "Yard", "left": -20})"), HasSubstr("at least one cell"));
  EXPECT_THAT(refusal(R"({"do": "resize", "map": "Yard", "room": "snow"})"), HasSubstr("empty, lastRow or ground"));
  EXPECT_THAT(refusal(R"({"do": "resize", "map": "Yard", "width": 0})"), HasSubstr("whole number"));
  EXPECT_THAT(refusal(R"({"do": "resize", "map": "Yard", "layer": "Paving"})"), HasSubstr("means nothing"));
  EXPECT_THAT(refusal(R"({"do": "resize", "map": "Nowhere"})"), HasSubstr("no map"));
}

TEST_F(EditList, ARefusalNamesTheStepItsLineAndWhatToDo) {
  const std::string fine =
      R"({"do": "paint", "map": "Yard", "layer": "Paving", "tile": ["street", 3], "path": [[0, 0]]},)"
      "\n";
  EXPECT_THAT(refusal(fine + R"({"do": "fly"})"),
              testing::AllOf(HasSubstr("step 2"), HasSubstr("fly"), HasSubstr("4"), HasSubstr("Nothing was changed")));
  EXPECT_THAT(refusal(R"({"do": "paint", "map": "Yard", "layer": "Paving", "path": [[0, 0]]})"),
              HasSubstr("no tile, hand or stamp"));
  EXPECT_THAT(refusal(R"({"do": "paint", "map": "Nowhere", "path": [[0, 0]]})"), HasSubstr("Nowhere"));
  EXPECT_THAT(refusal(R"({"do": "paint", "map": "Yard", "layer": "Moss", "path": [[0, 0]]})"), HasSubstr("Moss"));
  EXPECT_THAT(refusal(fine + R"({"do": "paint", "width": 4, "path": [[0, 0]]})"), HasSubstr("an odd number from 1 to 31"));
  EXPECT_THAT(refusal(fine + R"({"do": "paint", "width": 4294967297, "path": [[0, 0]]})"), HasSubstr("width"));
  EXPECT_THAT(refusal(fine + R"({"do": "paint", "path": [[0]]})"), HasSubstr("2 whole numbers"));
  EXPECT_THAT(refusal(fine + R"({"do": "move", "by": [1, 0]})"), HasSubstr("nothing is selected"));
  EXPECT_THAT(refusal(fine + R"({"do": "select", "from": [9, 6], "to": [9, 6]}, {"do": "take"})"),
              HasSubstr("nothing lies there"));
  EXPECT_THAT(refusal(fine + R"({"do": "stamp", "stamp": "Tower", "at": [1, 1]})"), HasSubstr("Tower"));
  EXPECT_THAT(refusal(fine + R"({"do": "stretch", "from": [0, 0], "to": [0, 0],
                                 "hand": {"tiles": [[0, 0, "street", 1], [1, 0, "street", 2], [2, 0, "street", 3]]}})"),
              HasSubstr("at least"));
}

// What a list makes has ids of its own, also when it is run on what it made before.
TEST_F(EditList, RunTwiceItMakesTwiceAndLosesNothing) {
  const std::string steps =
      R"({"do": "newMap", "name": "Market", "size": [4, 4]},
         {"do": "addLayer", "map": "Yard", "name": "Stalls"}, {"do": "addLayer", "name": "Roofs"},
         {"do": "paint", "map": "Yard", "layer": "Paving", "tile": ["street", 3], "path": [[0, 0]]},
         {"do": "keep", "name": "Slab"}, {"do": "keep", "name": "Flag"})";
  const std::size_t layers = quilt.mapNamed("Yard")->layers.size();
  quilt = done(steps);
  const Quilt again = done(steps);
  EXPECT_EQ(done(steps), again) << "the same each time";
  quilt = again;
  EXPECT_EQ(quilt.maps().size(), 4u);
  EXPECT_EQ(quilt.stamps().size(), 4u);
  EXPECT_EQ(quilt.mapNamed("Yard")->layers.size(), layers + 4);
  std::set<Id> ids;
  std::size_t count = 0;
  for (const auto& map : quilt.maps()) {
    for (const auto& one : map->layers) ++count, ids.insert(one->id);
  }
  for (const auto& stamp : quilt.stamps()) ++count, ids.insert(stamp->id);
  EXPECT_EQ(ids.size(), count);
}

TEST_F(EditList, WhatMeansNothingIsRefused) {
  const std::string fine = R"({"do": "paint", "map": "Yard", "layer": "Paving", "tile": ["street", 3], "path": [[0, 0]]},)";
  for (const auto& [step, why] : std::vector<std::pair<std::string, std::string>>{
           {R"({"do": "paint", "widht": 3, "path": [[0, 0]]})", "widht"},
           {R"({"do": "line", "width": 3, "from": [0, 0], "to": [3, 0]})", "width"},
           {R"({"do": "box", "boxes": "round", "from": [0, 0], "to": [3, 0]})", "asSeen or alongTheGrid"},
           {R"({"do": "paint", "lift": 4000, "path": [[0, 0]]})", "from 0 to 1024"},
           {R"({"do": "addLayer", "index": 99})", "from 0 to 3"},
           {R"({"do": "fill"})", "\"at\" is missing"},
           {R"({"do": "paint", "tile": ["street", 99], "path": [[0, 0]]})", "has no tile 99"},
           {R"({"do": "paint", "path": [[9000000, 0]]})", "farther"},
           {R"({"do": "paint", "path": [[0, 0]], "fitted": [0, 0, 1, 1]})", "no stretch"},
           {R"({"do": "stamp", "at": [0, 0], "hand": {"tiles": [[0, 0, "street", 1], [0, 0, "street", 2]]}})", "one place"},
           {R"({"do": "stamp", "at": [0, 0], "hand": {"tiles": [[0, 0, "street", 1]], "wieght": 2}})", "wieght"},
           {R"({"do": "stamp", "at": [0, 0], "hand": {"mix": [{"tiles": [[0, 0, "street", 1]], "weight": 900}]}})", "weight"},
           {R"({"do": "stamp", "at": [0, 0],
                "hand": {"grid": "hexagonal-flat", "tiles": [[0, 0, "street", 1], [1, 0, "street", 2]]}})", "hexagons"}}) {
    EXPECT_THAT(refusal(fine + step), HasSubstr(why)) << step;
  }
  const auto listed = [&](const std::string& text) {
    const auto json = readJson(text, "list");
    const auto result = doEdits(quilt, *json, {}, "list");
    return result ? Error{} : result.error();
  };
  EXPECT_THAT(listed(R"({"document": "map", "version": 1, "steps": []})").reason, HasSubstr("no list"));
  EXPECT_THAT(listed(R"({"document": "edits", "version": 0, "steps": []})").reason, HasSubstr("no version 0"));
  EXPECT_EQ(listed(R"({"document": "edits", "version": 2, "steps": []})").cause, Error::Cause::newer);
  EXPECT_THAT(listed(R"({"version": 1, "step": 3, "steps": []})").reason, HasSubstr("step"));
  EXPECT_EQ(listed(R"({"version": 1, "steps": [{"do": "select", "map": "Moss"}]})").cause, Error::Cause::notFound);
}

TEST_F(EditList, NothingIsWrittenThatCannotBeRead) {
  EXPECT_THAT(refusal(R"({"do": "paint", "map": "Yard", "layer": "Paving", "tile": ["street", 3, 5], "path": [[0, 0]]})"),
              HasSubstr("turned"));
  EXPECT_THAT(refusal(R"({"do": "addLayer", "map": "Yard", "name": ")" + std::string(1001, 'x') + "\"}"),
              HasSubstr("could not be kept"));
  const std::string taken =
      R"({"do": "newMap", "name": "Hexes", "grid": "hexagonal-pointy", "cell": [32, 32], "size": [5, 5]},
         {"do": "paint", "tile": ["street", 3, 5], "path": [[2, 2]]},
         {"do": "select", "from": [2, 2], "to": [2, 2]}, {"do": "take"},
         {"do": "paint", "map": "Yard", "layer": "Paving", "path": [[0, 0]]})";
  EXPECT_EQ(done(taken).mapNamed("Yard")->layerNamed("Paving")->cells.at({0, 0}), tileOf(quilt, "street", 3));
  // Backdrops hold no tiles.
  IdSource ids(9);
  quilt = addBackdrop(quilt, quilt.mapNamed("Yard")->id, 0, quilt.sheets().front()->id, ids).quilt;
  const std::string hung = quilt.mapNamed("Yard")->layers.front()->name;
  EXPECT_THAT(refusal(R"({"do": "box", "map": "Yard", "layer": ")" + hung +
                      R"(", "tile": ["street", 3], "from": [0, 0], "to": [1, 1]})"),
              HasSubstr("no layer for tiles"));
}

// Turns that follow one another come back to where they began, on every grid.
TEST_F(EditList, ASelectionTurnedAllTheWayRoundIsAsBefore) {
  for (const auto& [grid, steps] : {std::pair{"hexagonal-pointy", 6}, std::pair{"hexagonal-flat", 6}, std::pair{"staggered", 4}, std::pair{"orthogonal", 4}}) {
    for (const char* way : {"left", "right", "across", "down"}) {
      std::string list = std::string(R"({"do": "newMap", "name": "Turning", "grid": ")") + grid +
                         R"(", "cell": [32, 32], "size": [40, 40]},
        {"do": "paint", "tile": ["street", 3], "path": [[20, 20], [23, 20], [23, 22]]},
        {"do": "paint", "tile": ["street", 4], "path": [[21, 21]]},
        {"do": "select", "from": [17, 17], "to": [27, 26]})";
      const Quilt before = done(list);
      const bool mirrors = way == std::string("across") || way == std::string("down");
      for (int i = 0; i < (mirrors ? 2 : steps); ++i) list += R"(, {"do": "turn", "way": ")" + std::string(way) + "\"}";
      EXPECT_EQ(bytes(done(list)), bytes(before)) << grid << " " << way;
    }
  }
}

TEST_F(EditList, ShapesFarBeyondTheMapCostWhatLiesOnIt) {
  const auto result = run(R"({"do": "box", "map": "Yard", "layer": "Paving", "tile": ["street", 3],
                              "from": [-1048576, -1048576], "to": [1048576, 1048576]},
                             {"do": "oval", "tile": ["street", 4], "from": [-1048576, -1048576], "to": [1048576, 1048576]},
                             {"do": "box", "tile": ["street", 5], "from": [-1048576, -4], "to": [1048576, 1048576], "outline": true},
                             {"do": "paint", "tile": ["street", 6], "width": 9, "path": [[-1000000, 3], [1000000, 3]]})");
  ASSERT_TRUE(result) << result.error().text();
  EXPECT_EQ(result->steps[0].cells, 240);
  EXPECT_EQ(result->steps[1].cells, 240);
  EXPECT_EQ(result->steps[2].cells, 20) << "only its upper edge crosses the map";
  EXPECT_EQ(result->steps[3].cells, 180);
  EXPECT_THAT(refusal(R"({"do": "newMap", "name": "Vast", "cell": [2, 2], "size": [1048576, 1048576]},
                         {"do": "fill", "tile": ["street", 3], "at": [0, 0]})"),
              HasSubstr("too large"));
  EXPECT_THAT(refusal(R"({"do": "newMap", "name": "Vast", "cell": [2, 2], "size": [1048576, 1048576]},
                         {"do": "box", "tile": ["street", 3], "from": [0, 0], "to": [1000000, 1000000]})"),
              HasSubstr("more than can be laid"));
  EXPECT_EQ(run(R"({"do": "newMap", "name": "Vast", "cell": [2, 2], "size": [1048576, 1048576]},
                   {"do": "box", "tile": ["street", 3], "from": [500000, 500000], "to": [500999, 500999]})")
                ->steps[1]
                .cells,
            1'000'000);
}

TEST_F(EditList, OvalsFollowTheKindOfBox) {
  const std::string ground = R"({"do": "newMap", "name": "Slope", "grid": "staggered", "cell": [64, 32], "size": [30, 30]},)";
  const std::string oval = R"({"do": "oval", "tile": ["street", 3], "from": [10, 10], "to": [14, 20])";
  const Quilt usual = done(ground + oval + "}");
  EXPECT_EQ(bytes(done(ground + oval + R"(, "boxes": "alongTheGrid"})")), bytes(usual));
  EXPECT_NE(bytes(done(ground + oval + R"(, "boxes": "asSeen"})")), bytes(usual));
}

// Whatever stands in a list, it is done or refused, and a refusal changes nothing.
TEST_F(EditList, SewsWrapsRipsAndPaintsOverTheStitch) {
  const Quilt sewnThen = done(R"({"do": "sew", "map": "Yard", "other": "Loft", "at": [16, 0]},
    {"do": "line", "map": "Yard", "layer": "Paving", "tile": ["street", 3], "from": [14, 2], "to": [17, 2]})");
  ASSERT_EQ(sewnThen.seams().size(), 1u);
  EXPECT_THAT(row(sewnThen, "Paving", {14, 2}, 2), ElementsAre(3, 3));
  const CellGrid& floor = sewnThen.mapNamed("Loft")->layerNamed("Floor")->cells;
  EXPECT_EQ(floor.at({1, 2}).tile().number, 3u);
  EXPECT_TRUE(floor.at({2, 2}).empty());
  const Quilt alone = done(R"({"do": "sew", "map": "Yard", "other": "Loft", "at": [16, 0]},
    {"do": "line", "map": "Yard", "layer": "Paving", "tile": ["street", 3], "from": [14, 2], "to": [17, 2], "onlyThisMap": true})");
  EXPECT_TRUE(alone.mapNamed("Loft")->layerNamed("Floor")->cells.empty());
  EXPECT_TRUE(done(R"({"do": "sew", "map": "Yard", "other": "Loft", "at": [16, 0]}, {"do": "rip", "map": "Loft"})").seams().empty());
  EXPECT_EQ(done(R"({"do": "wrap", "map": "Yard", "way": "down"})").seams().size(), 1u);
  // A sewn map that is resized takes its neighbour along.
  const Quilt grown = done(R"({"do": "sew", "map": "Yard", "other": "Loft", "at": [16, 0]}, {"do": "resize", "map": "Yard", "right": 4})");
  EXPECT_EQ(grown.seams().front()->by, (CellPos{20, 0}));
  EXPECT_THAT(refusal(R"({"do": "sew", "map": "Yard", "other": "Loft", "at": [30, 0]})"), HasSubstr("do not meet"));
  EXPECT_THAT(refusal(R"({"do": "sew", "map": "Yard", "other": "Attic", "at": [16, 0]})"), HasSubstr("no map “Attic”"));
  EXPECT_THAT(refusal(R"({"do": "sew", "map": "Yard", "other": "Yard", "at": [20, 0]})"), HasSubstr("only where it wraps"));
  EXPECT_THAT(refusal(R"({"do": "wrap", "map": "Yard", "way": "round"})"), HasSubstr("neither"));
}

RC_GTEST_FIXTURE_PROP(EditList, NonsenseIsRefusedAndNeverHarms, ()) {
  const auto place = [] {
    return "[" + std::to_string(*rc::gen::inRange(-30, 30)) + ", " + std::to_string(*rc::gen::inRange(-30, 30)) + "]";
  };
  std::string steps = R"({"do": "paint", "map": "Yard", "layer": "Paving", "tile": ["street", 3], "path": [[0, 0]]})";
  for (int i = 0, n = *rc::gen::inRange(0, 6); i < n; ++i) {
    const std::string what = *rc::gen::element<std::string>("paint", "erase", "line", "box", "oval", "fill", "stamp",
                                                            "stretch", "swap", "select", "move", "delete", "turn",
                                                            "toLayer", "keep", "take", "addLayer", "newMap", "dig");
    steps += ",\n{\"do\": \"" + what + "\"";
    for (const char* field : {"at", "from", "to", "by", "like", "cell", "size"}) {
      if (*rc::gen::arbitrary<bool>()) steps += ", \"" + std::string(field) + "\": " + place();
    }
    if (*rc::gen::arbitrary<bool>()) steps += ", \"path\": [" + place() + ", " + place() + "]";
    if (*rc::gen::arbitrary<bool>()) steps += ", \"way\": \"left\"";
    if (*rc::gen::arbitrary<bool>())
      steps += ", \"tile\": [\"street\", " + std::to_string(*rc::gen::inRange(0, 99)) + "]";
    if (*rc::gen::arbitrary<bool>()) steps += ", \"width\": " + std::to_string(*rc::gen::inRange(0, 11));
    if (*rc::gen::arbitrary<bool>())
      steps += *rc::gen::element<std::string>(", \"all\": true", ", \"seed\": 4", ", \"lands\": true", ", \"name\": 3");
    steps += "}";
  }
  const Quilt before = quilt;
  const auto result = run(steps);
  RC_ASSERT(quilt == before);
  if (result) {
    for (const auto& map : result->quilt.maps()) expectWhole(map.read());
    RC_ASSERT(run(steps)->quilt == result->quilt);
  } else {
    RC_ASSERT(result.error().text().find("step ") != std::string::npos);
  }
}

}  // namespace
TEST_F(EditList, PlacesPinsAndLeadsWays) {
  const std::string gate = R"({"do": "pin", "map": "Yard", "name": "Gate", "at": [4, 5]})";
  const Quilt led = done(gate + R"(, {"do": "lead", "map": "Yard", "from": "Gate", "other": "Loft", "at": [2, 3], "facing": "north", "needs": "a key"},
                                    {"do": "begin", "map": "Yard", "pin": "1"}, {"do": "movePin", "map": "Yard", "pin": "Gate", "at": [6, 6]})");
  ASSERT_THAT(led.doorways(), SizeIs(1));
  const Doorway& way = led.doorways().front().read();
  EXPECT_EQ(way.arriving, Heading::north);
  EXPECT_TRUE(way.back);
  EXPECT_EQ(way.needs, "a key");
  EXPECT_EQ(led.facts().start, way.from);
  EXPECT_EQ(led.pin(way.from)->cell, (CellPos{6, 6}));
  EXPECT_EQ(led.pin(way.to)->cell, (CellPos{2, 3}));
  const Quilt edge = done(R"({"do": "pin", "map": "Yard", "edge": "left"}, {"do": "lead", "map": "Yard", "from": "west edge", "other": "Loft", "at": [1, 1], "oneWay": true, "meantSo": true})");
  EXPECT_TRUE(edge.doorways().front()->meantSo);
  EXPECT_FALSE(edge.doorways().front()->back);
  EXPECT_FALSE(done(gate + R"(, {"do": "removePin", "map": "Yard", "pin": "Gate"})").mapNamed("Yard")->layers.back()->pins->size());
  EXPECT_THAT(refusal(R"({"do": "lead", "map": "Yard", "from": "Gate", "other": "Loft", "at": [2, 3]})"), HasSubstr("no pin “Gate”"));
  EXPECT_THAT(refusal(gate + ", " + gate + R"(, {"do": "begin", "map": "Yard", "pin": "Gate"})"), HasSubstr("several pins “Gate”"));
  EXPECT_THAT(refusal(gate + R"(, {"do": "lead", "map": "Yard", "from": "Gate", "other": "Loft", "at": [2, 3], "facing": "north-east"})"), HasSubstr("no heading"));
  EXPECT_THAT(refusal(R"({"do": "pin", "map": "Yard", "edge": "north"})"), HasSubstr("left, top, right or bottom"));
  EXPECT_THAT(refusal(gate + R"(, {"do": "lead", "map": "Yard", "from": "Gate", "to": "Gate"})"), HasSubstr("where it begins"));
}

TEST_F(EditList, WhatIsSeenByPicturesIsDoneWhereThereAreSome) {
  EXPECT_THAT(refusal(R"({"do": "stripCovered", "map": "Yard", "layer": "Paving"})"), HasSubstr("seen by pictures"));
  EXPECT_THAT(refusal(R"({"do": "closeJoints", "map": "Yard", "layer": "Paving"})"), HasSubstr("seen by pictures"));
  const auto list = readJson(R"({"version": 1, "steps": [
    {"do": "box", "map": "Yard", "layer": "Paving", "tile": ["street", 3], "from": [0, 0], "to": [3, 0]},
    {"do": "paint", "layer": "Sheds", "tile": ["street", 4], "at": [1, 0]},
    {"do": "stripCovered", "layer": "Paving"}]})", "l");
  EditLooks looks;
  const LooksOn always = [](const Quilt&, const GridShape&, TileRef) { return true; };
  looks.tiles = {always, always, always, always};
  const auto done = doEdits(quilt, *list, looks, "l");
  ASSERT_TRUE(done) << done.error().text();
  EXPECT_EQ(done->steps.back().cells, 1);
  EXPECT_EQ(row(done->quilt, "Paving", {0, 0}, 4), (std::vector<int>{3, 0, 3, 3}));
}

TEST_F(EditList, ArrangesMapsLayersAndFoldersAsTheWindowDoes) {
  const Quilt made = done(R"({"do": "copyMap", "map": "Yard", "name": "Yard by night"},
    {"do": "map", "title": "Night", "cloth": "#102030", "screen": [320, 180], "shownTimes": 3, "cameraFree": true, "opensWith": true},
    {"do": "layer", "layer": "Sheds", "name": "Huts", "opacity": 40, "tint": "#ff8800", "parallax": [50, 75], "offset": [3, -4], "inGame": false, "note": "dark"},
    {"do": "copyLayer", "name": "Huts again"},
    {"do": "moveLayer", "index": 0},
    {"do": "fold", "layers": ["Paving", "Huts"], "name": "Low"},
    {"do": "level", "layer": "Awnings", "name": "Roofs", "rise": 24},
    {"do": "renameMap", "map": "Loft", "name": "Attic"},
    {"do": "placeMap", "map": "Attic", "at": [1000, 500]})");
  const Map& night = *made.mapNamed("Yard by night");
  EXPECT_EQ(night.title, "Night");
  EXPECT_EQ(night.cloth, Colour{0x102030});
  EXPECT_EQ(night.shownTimes, 3);
  EXPECT_EQ(made.facts().opensWith, night.id);
  const Layer& huts = *night.layerNamed("Huts");
  EXPECT_EQ(huts.opacity, 40);
  EXPECT_EQ(huts.parallax, (Parallax{50, 75}));
  EXPECT_EQ(huts.offset, (PixelPos{3, -4}));
  EXPECT_FALSE(huts.inGame);
  EXPECT_EQ(night.layers.front()->name, "Huts again");
  ASSERT_TRUE(night.layerFolder(huts.folder));
  EXPECT_EQ(night.layerFolder(huts.folder)->name, "Low");
  const auto roofs = std::find_if(night.folders.begin(), night.folders.end(), [](const LayerFolder& one) { return one.name == "Roofs"; });
  ASSERT_NE(roofs, night.folders.end());
  EXPECT_EQ(roofs->rise, 24);
  EXPECT_EQ(made.mapNamed("Yard")->layerNamed("Sheds")->opacity, 100) << "the map that was copied is as it was";
  EXPECT_TRUE(made.mapNamed("Attic"));
  const auto before = run(R"({"do": "copyMap", "map": "Yard", "name": "Two"}, {"do": "unfold", "folder": "Low"})");
  ASSERT_FALSE(before);
  EXPECT_THAT(before.error().text(), HasSubstr("no folder “Low”"));
  EXPECT_EQ(done(R"({"do": "deleteMap", "map": "Loft"}, {"do": "deleteLayer", "map": "Yard", "layer": "Awnings"})").maps().size(), quilt.maps().size() - 1);
  EXPECT_THAT(refusal(R"({"do": "renameMap", "map": "Yard", "name": "Loft"})"), HasSubstr("called “Loft” already"));
  EXPECT_THAT(refusal(R"({"do": "layer", "map": "Yard", "layer": "Sheds", "opacity": 101})"), HasSubstr("opacity"));
  EXPECT_THAT(refusal(R"({"do": "layer", "map": "Yard", "layer": "Sheds", "tint": "red"})"), HasSubstr("a colour like"));
  EXPECT_THAT(refusal(R"({"do": "map", "map": "Yard", "tint": "red"})"), HasSubstr("means nothing"));
}

}  // namespace uq::test
