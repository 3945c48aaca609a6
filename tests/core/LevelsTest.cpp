#include <rapidcheck/gtest.h>

#include <set>

#include "core/Support.h"
#include "core/edit/Folders.h"
#include "core/edit/Levels.h"

namespace uq::test {

namespace {

// "Ground up 1 @32" for each layer, farthest first.
std::vector<std::string> told(const Map& map) {
  std::vector<std::string> lines;
  for (const Shared<Layer>& layer : map.layers) {
    lines.push_back(layer->name + " @" + std::to_string(map.riseOf(layer.read())));
  }
  return lines;
}

}  // namespace

using testing::ElementsAre;

TEST(Levels, EachLevelRisesByAStepAboveTheOneBelow) {
  IdSource ids(7);
  const Quilt quilt = smallQuilt();
  const LayerAt paving = layerOf(quilt, "Loft", "Floor");
  ASSERT_TRUE(quilt.layer(paving));
  const LayerAdded one = addLevel(quilt, paving, ids);
  const LayerAdded two = addLevel(one.quilt, {paving.map, one.layer}, ids);
  EXPECT_THAT(told(*two.quilt.map(paving.map)), ElementsAre("Floor @0", "Ground up 1 @32", "Ground up 2 @64"));
  EXPECT_EQ(two.quilt.map(paving.map)->folders[1].name, "Level 2");
  EXPECT_EQ(two.quilt.map(paving.map)->levelOf(*two.quilt.layer({paving.map, two.layer})), 2);
  const Quilt higher = withRise(one.quilt, paving.map, one.quilt.map(paving.map)->folders[0].id, 20);
  const LayerAdded next = addLevel(higher, {paving.map, one.layer}, ids);
  EXPECT_THAT(told(*next.quilt.map(paving.map)), ElementsAre("Floor @0", "Ground up 1 @20", "Ground up 2 @40"));
  expectWhole(*next.quilt.map(paving.map));
}

TEST(Levels, OnePutBetweenLiftsThoseAboveAndTakenAwayLowersThemAgain) {
  IdSource ids(7);
  const Quilt quilt = smallQuilt();
  const LayerAt floor = layerOf(quilt, "Loft", "Floor");
  const Quilt two = addLevel(addLevel(quilt, floor, ids).quilt, floor, ids).quilt;
  const Map& map = *two.map(floor.map);
  EXPECT_THAT(told(map), ElementsAre("Floor @0", "Ground up 1 2 @32", "Ground up 1 @64"));
  expectWhole(map);
  const Quilt less = deleteFolder(two, floor.map, map.folders[0].id);
  EXPECT_THAT(told(*less.map(floor.map)), ElementsAre("Floor @0", "Ground up 1 @32"));
  expectWhole(*less.map(floor.map));
}

TEST(Levels, ANewLayerInFrontOfOneOnALevelIsOnThatLevel) {
  IdSource ids(7);
  const LayerAt floor = layerOf(smallQuilt(), "Loft", "Floor");
  const LayerAdded level = addLevel(smallQuilt(), floor, ids);
  const LayerAdded things = addLayer(level.quilt, floor.map, 2, ids);
  EXPECT_THAT(told(*things.quilt.map(floor.map)), ElementsAre("Floor @0", "Ground up 1 @32", "In front @32"));
  const LayerAdded low = addLayer(level.quilt, floor.map, 1, ids);
  EXPECT_THAT(told(*low.quilt.map(floor.map)), ElementsAre("Floor @0", "Things @0", "Ground up 1 @32"));
  const LayerAdded copy = duplicateLayer(level.quilt, {floor.map, level.layer}, ids);
  EXPECT_EQ(copy.quilt.layer({floor.map, copy.layer})->folder, level.quilt.map(floor.map)->folders[0].id);
}

TEST(Levels, ALevelGoesWithItsLastLayer) {
  IdSource ids(7);
  const LayerAt floor = layerOf(smallQuilt(), "Loft", "Floor");
  const LayerAdded level = addLevel(smallQuilt(), floor, ids);
  EXPECT_EQ(deleteLayer(level.quilt, {floor.map, level.layer}), smallQuilt());
}

TEST(Levels, AreDrawnInTheOrderThatIsUsualUnlessSaid) {
  IdSource ids(7);
  const LayerAt floor = layerOf(smallQuilt(), "Loft", "Floor");
  const Quilt quilt = addLevel(smallQuilt(), floor, ids).quilt;
  const Id level = quilt.map(floor.map)->folders[0].id;
  EXPECT_EQ(quilt.map(floor.map)->drawOrder(), DrawOrder::byLayers);
  const Quilt changed =
      withDrawOrder(withDrawOrder(quilt, floor.map, level, DrawOrder::byDepth), floor.map, {}, DrawOrder::byDepth);
  const Map& map = *changed.map(floor.map);
  EXPECT_EQ(map.drawOrder(), DrawOrder::byDepth);
  EXPECT_EQ(map.drawOrder(map.folders[0]), DrawOrder::byDepth);
  EXPECT_EQ(
      withDrawOrder(withDrawOrder(changed, floor.map, level, DrawOrder::byLayers), floor.map, {}, DrawOrder::byLayers),
      quilt);
}

// One of the map's folders, or none.
static Id anyFolder(const Map& map) {
  const auto index = *rc::gen::inRange<std::size_t>(0, map.folders.size() + 1);
  return index < map.folders.size() ? map.folders[index].id : Id();
}

RC_GTEST_PROP(Levels, StayWholeWhateverIsDoneToLayers, ()) {
  IdSource ids(*rc::gen::arbitrary<std::uint64_t>());
  Quilt quilt = smallQuilt();
  const Id id = quilt.mapNamed("Yard")->id;
  for (int i = 0, n = *rc::gen::inRange(0, 25); i < n; ++i) {
    const Map& map = *quilt.map(id);
    const auto index = *rc::gen::inRange<std::size_t>(0, map.layers.size() + 1);
    const LayerAt at{id, index < map.layers.size() ? map.layers[index]->id : Id()};
    switch (*rc::gen::inRange(0, 10)) {
      case 0: quilt = addLayer(quilt, id, index, ids).quilt; break;
      case 1: quilt = addLevel(quilt, at, ids).quilt; break;
      case 2: quilt = moveLayer(quilt, at, *rc::gen::inRange<std::size_t>(0, map.layers.size() + 1)); break;
      case 3: quilt = duplicateLayer(quilt, at, ids).quilt; break;
      case 4: quilt = deleteLayer(quilt, at); break;
      case 5: {
        std::vector<Id> some;
        for (const Shared<Layer>& one : map.layers) {
          if (*rc::gen::arbitrary<bool>()) some.push_back(one->id);
        }
        quilt = foldLayers(quilt, id, some, ids).quilt;
        break;
      }
      case 6: quilt = unfold(quilt, id, anyFolder(map)); break;
      case 7: quilt = moveLayer(quilt, at, {*rc::gen::inRange<std::size_t>(0, map.layers.size() + 1), anyFolder(map)}); break;
      case 8: quilt = moveFolder(quilt, id, anyFolder(map), {index, anyFolder(map)}); break;
      default:
        if (!map.folders.empty()) quilt = deleteFolder(quilt, id, map.folders[index % map.folders.size()].id);
    }
    expectWhole(*quilt.map(id));
    std::set<std::string> files;
    for (const Shared<Layer>& layer : quilt.map(id)->layers) RC_ASSERT(files.insert(layer->file).second);
  }
}

}  // namespace uq::test
