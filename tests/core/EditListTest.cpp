// Lists of edits: repetitive work written down once, done without a window, refused with a reason and a line.
#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/Support.h"
#include "core/store/EditList.h"
#include "core/store/JsonText.h"

namespace uq::test {
namespace {

using testing::ElementsAre;
using testing::HasSubstr;

// The small quilt with its layers empty.
class EditList : public testing::Test {
 protected:
  EditList() {
    for (const char* layer : {"Paving", "Sheds", "Awnings"}) {
      quilt = quilt.with(layerOf(quilt, "Yard", layer), CellGrid(), NumberGrid());
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
                             {"do": "swap", "from": ["street", 7], "to": ["street", 8], "in": "layer"})");
  ASSERT_TRUE(result) << result.error().text();
  EXPECT_EQ(result->steps[1].cells, 4) << "inside the outline";
  EXPECT_EQ(result->steps[2].cells, 4);
  EXPECT_THAT(row(result->quilt, "Paving", {0, 1}, 5), ElementsAre(3, 8, 8, 3, 0));
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
      done(R"({"do": "newMap", "name": "Market", "grid": "hexagonal-pointy", "cell": [32, 32], "size": [9, 5]},
                             {"do": "addLayer", "name": "Stalls", "role": "things"},
                             {"do": "paint", "tile": ["street", 4], "path": [[2, 2], [5, 2]]})");
  const Map* market = made.mapNamed("Market");
  ASSERT_TRUE(market);
  EXPECT_EQ(market->bounds.width(), 9);
  ASSERT_TRUE(market->layerNamed("Stalls"));
  EXPECT_EQ(market->layerNamed("Stalls")->cells.tally(market->bounds).begin()->second, 4);
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
  EXPECT_THAT(refusal(fine + R"({"do": "paint", "width": 4, "path": [[0, 0]]})"), HasSubstr("1, 3, 5, 7 or 9"));
  EXPECT_THAT(refusal(fine + R"({"do": "paint", "path": [[0]]})"), HasSubstr("2 whole numbers"));
  EXPECT_THAT(refusal(fine + R"({"do": "move", "by": [1, 0]})"), HasSubstr("nothing is selected"));
  EXPECT_THAT(refusal(fine + R"({"do": "select", "from": [9, 6], "to": [9, 6]}, {"do": "take"})"),
              HasSubstr("nothing lies there"));
  EXPECT_THAT(refusal(fine + R"({"do": "stamp", "stamp": "Tower", "at": [1, 1]})"), HasSubstr("Tower"));
  EXPECT_THAT(refusal(fine + R"({"do": "stretch", "from": [0, 0], "to": [0, 0],
                                 "hand": {"tiles": [[0, 0, "street", 1], [1, 0, "street", 2], [2, 0, "street", 3]]}})"),
              HasSubstr("at least"));
}

// Whatever stands in a list, it is done or refused, and a refusal changes nothing.
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
}  // namespace uq::test
