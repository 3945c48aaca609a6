#include <rapidcheck/gtest.h>

#include <set>

#include "core/Support.h"
#include "core/edit/ArrangeLayers.h"

namespace uq::test {

namespace {

std::vector<std::string> names(const Map& map) {
  std::vector<std::string> names;
  for (const Shared<Layer>& layer : map.layers) names.push_back(layer->name);
  return names;
}

}  // namespace

using testing::ElementsAre;

TEST(ArrangeLayers, ANewLayerComesNamedColouredAndWithARole) {
  IdSource ids(5);
  const Quilt quilt = smallQuilt();
  const Id yard = quilt.mapNamed("Yard")->id;
  const LayerAdded front = addLayer(quilt, yard, 99, ids);
  EXPECT_THAT(names(*front.quilt.map(yard)), ElementsAre("Paving", "Sheds", "Awnings", "In front"));
  EXPECT_EQ(front.quilt.layer({yard, front.layer})->role, "in front");
  const LayerAdded between = addLayer(front.quilt, yard, 1, ids);
  EXPECT_THAT(names(*between.quilt.map(yard)), ElementsAre("Paving", "Things", "Sheds", "Awnings", "In front"));
  const LayerAdded again = addLayer(between.quilt, yard, 1, ids);
  EXPECT_EQ(again.quilt.layer({yard, again.layer})->name, "Things 2");
  EXPECT_EQ(again.quilt.layer({yard, again.layer})->file, "things-2");
  EXPECT_TRUE(again.quilt.layer({yard, again.layer})->cells.empty());
}

TEST(ArrangeLayers, ThirtyTwoLayersHaveThirtyTwoThreads) {
  IdSource ids(5);
  Quilt quilt = smallQuilt();
  const Id loft = quilt.mapNamed("Loft")->id;
  for (const Shared<Layer>& layer : quilt.map(loft)->layers) quilt = deleteLayer(quilt, {loft, layer->id});
  for (int i = 0; i < 32; ++i) quilt = addLayer(quilt, loft, 0, ids).quilt;
  std::set<std::pair<int, int>> threads;
  for (const Shared<Layer>& layer : quilt.map(loft)->layers) {
    threads.insert({layer->thread.colour, static_cast<int>(layer->thread.pattern)});
  }
  EXPECT_EQ(threads.size(), 32u);
  EXPECT_EQ(quilt.map(loft)->layers.back()->role, "ground") << "a map without ground gets it first";
}

TEST(ArrangeLayers, ACopyHasTheCellsButANameAndAFileOfItsOwn) {
  IdSource ids(5);
  const Quilt quilt = smallQuilt();
  const LayerAt paving = layerOf(quilt, "Yard", "Paving");
  const LayerAdded added = duplicateLayer(quilt, paving, ids);
  const Layer* copy = added.quilt.layer({paving.map, added.layer});
  EXPECT_THAT(names(*added.quilt.map(paving.map)), ElementsAre("Paving", "Paving copy", "Sheds", "Awnings"));
  EXPECT_EQ(copy->cells, quilt.layer(paving)->cells);
  EXPECT_EQ(copy->file, "paving-copy");
  EXPECT_EQ(deleteLayer(added.quilt, {paving.map, added.layer}), quilt);
}

RC_GTEST_PROP(ArrangeLayers, MovingThereAndBackIsNothing, ()) {
  const Quilt quilt = smallQuilt();
  const Map& yard = *quilt.mapNamed("Yard");
  const auto from = *rc::gen::inRange<std::size_t>(0, yard.layers.size());
  const auto to = *rc::gen::inRange<std::size_t>(0, yard.layers.size());
  const LayerAt at{yard.id, yard.layers[from]->id};
  const Quilt moved = moveLayer(quilt, at, to);
  RC_ASSERT(moved.map(yard.id)->layers[to]->id == at.layer);
  RC_ASSERT(moveLayer(moved, at, from) == quilt);
}

}  // namespace uq::test
