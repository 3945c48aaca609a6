// Maps come, are copied and renamed, and go.
#include <set>

#include "core/Support.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Folders.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Levels.h"
#include "core/edit/MapFacts.h"
#include "core/store/Documents.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

using testing::ElementsAre;
using testing::HasSubstr;

TEST(ArrangeMaps, TheProposalFollowsTheMapAndTheSheetInHand) {
  const Quilt quilt = smallQuilt();
  const MapPlan plain = proposedMap(Quilt(), nullptr, nullptr);
  EXPECT_EQ(plain, (MapPlan{"Map", {GridKind::orthogonal, {32, 32}}, 48, 32}));
  const Quilt sideOn = withSeen(quilt, quilt.mapNamed("Yard")->id, Seen::sideOn);
  const MapPlan seen = proposedMap(sideOn, sideOn.mapNamed("Yard"), nullptr);
  IdSource ids(3);
  const MapAdded added = addMap(sideOn, seen, ids);
  EXPECT_EQ(added.quilt.map(added.map)->seen, Seen::sideOn);
  const MapPlan alike = proposedMap(quilt, quilt.mapNamed("Yard"), nullptr);
  EXPECT_EQ(alike.width, 20);
  EXPECT_EQ(alike.height, 12);
  EXPECT_EQ(alike.grid, quilt.mapNamed("Yard")->grid);
  Sheet coarse;
  coarse.cut.cell = {48, 64};
  EXPECT_EQ(proposedMap(quilt, quilt.mapNamed("Yard"), &coarse).grid.cell, (PixelSize{48, 64}));
}

TEST(ArrangeMaps, ANewMapIsReadyToPaintOn) {
  IdSource ids(3);
  const MapAdded added = addMap(smallQuilt(), {"Quay Walk", {GridKind::orthogonal, {16, 16}}, 12, 8}, ids);
  const Map& map = *added.quilt.map(added.map);
  EXPECT_EQ(map.bounds, (CellRect{0, 0, 12, 8}));
  EXPECT_EQ(map.folder, "quay-walk");
  ASSERT_EQ(map.layers.size(), 2u);
  EXPECT_EQ(map.layers[0]->role, "ground");
  EXPECT_EQ(map.layers[1]->role, "things");
  EXPECT_FALSE(map.layers[0]->thread == map.layers[1]->thread);
}

TEST(ArrangeMaps, WhatCannotBeIsRefusedInWords) {
  const GridShape squares{GridKind::orthogonal, {32, 32}};
  EXPECT_EQ(whyNoMap({"Yard", squares, 1, 1}), "");
  EXPECT_THAT(whyNoMap({"", squares, 1, 1}), HasSubstr("name"));
  EXPECT_THAT(whyNoMap({"Yard", {GridKind::orthogonal, {1, 32}}, 1, 1}), HasSubstr("2 to 512"));
  EXPECT_THAT(whyNoMap({"Yard", squares, 0, 5}), HasSubstr("at least one"));
  EXPECT_THAT(whyNoMap({"Yard", squares, 1 << 20, 5}), HasSubstr("pixels"));
  EXPECT_THAT(whyNoMap({"Yard", squares, 5, (1 << 20) + 1}), HasSubstr("1,048,576"));
  IdSource ids(3);
  EXPECT_TRUE(addMap(smallQuilt(), {"", squares, 1, 1}, ids).map.empty());
}

TEST(ArrangeMaps, ACopySharesNoIdAndNoName) {
  IdSource ids(3);
  const Quilt quilt = smallQuilt();
  const Map& yard = *quilt.mapNamed("Yard");
  const MapAdded added = duplicateMap(quilt, yard.id, ids);
  const Map& copy = *added.quilt.map(added.map);
  EXPECT_EQ(copy.name, "Yard copy");
  EXPECT_NE(copy.folder, yard.folder);
  std::set<Id> seen;
  for (const Map* map : {&yard, &copy}) {
    EXPECT_TRUE(seen.insert(map->id).second);
    for (const Shared<Layer>& layer : map->layers) EXPECT_TRUE(seen.insert(layer->id).second);
  }
  EXPECT_TRUE(copy.layers[0]->cells == yard.layers[0]->cells);
}

// A folder that one map leaves may be taken by another within one save.
TEST(ArrangeMaps, MapsThatChangePlacesAreSavedWhole) {
  auto disk = std::make_shared<MemoryDisk>();
  disk->folders.insert("/q");
  Quilt quilt = smallQuilt();
  auto store = QuiltStore::create(disk, "/q", quilt);
  ASSERT_TRUE(store);
  quilt = store->quilt;
  const Id yard = quilt.mapNamed("Yard")->id;
  const Id loft = quilt.mapNamed("Loft")->id;
  Quilt swapped = renameMap(quilt, yard, "Attic");
  swapped = renameMap(swapped, loft, "Yard");
  swapped = renameMap(swapped, yard, "Loft");
  ASSERT_TRUE(store->store.save(swapped));
  const auto reread = [&] {
    const auto opened = QuiltStore::open(disk, "/q", QuiltStore::Access::read);
    EXPECT_TRUE(opened && opened->problems.empty());
    return opened->quilt;
  };
  EXPECT_EQ(bytes(reread()), bytes(swapped));
  IdSource ids(4);
  const MapAdded instead = addMap(deleteMap(swapped, loft), {"Yard", {}, 6, 6}, ids);
  EXPECT_EQ(instead.quilt.map(instead.map)->folder, "yard");
  ASSERT_TRUE(store->store.save(instead.quilt));
  EXPECT_EQ(bytes(reread()), bytes(instead.quilt));
  ASSERT_TRUE(store->store.save(deleteMap(deleteMap(instead.quilt, instead.map), yard)));
  EXPECT_THAT(reread().maps(), ElementsAre());
}

// What lies in folders in folders, and stands before the Walker, does so in the copy.
TEST(ArrangeMaps, ACopyHasFoldersAndWalkerOfItsOwn) {
  IdSource ids(3);
  Quilt quilt = smallQuilt();
  const Id yard = quilt.mapNamed("Yard")->id;
  const auto idOf = [&](const char* name) { return quilt.map(yard)->layerNamed(name)->id; };
  const FolderAdded outer = foldLayers(quilt, yard, {idOf("Sheds"), idOf("Awnings")}, ids);
  const FolderAdded inner = foldLayers(outer.quilt, yard, {idOf("Sheds")}, ids);
  quilt = withRise(withRise(inner.quilt, yard, inner.folder, 16), yard, outer.folder, 48);
  quilt = withWalker(quilt, yard, idOf("Paving"));
  const Map& map = *quilt.map(yard);
  ASSERT_EQ(map.riseOf(*map.layerNamed("Sheds")), 64);
  const MapAdded added = duplicateMap(quilt, yard, ids);
  const Map& copy = *added.quilt.map(added.map);
  EXPECT_EQ(copy.riseOf(*copy.layerNamed("Sheds")), 64);
  EXPECT_EQ(copy.walkerPlace(), map.walkerPlace());
  EXPECT_EQ(copy.walker, copy.layerNamed("Paving")->id);
  expectWhole(copy);
  for (const LayerFolder& folder : copy.folders) EXPECT_FALSE(map.layerFolder(folder.id));
  auto read = readMapDocument(mapDocument(copy), "map.json");
  ASSERT_TRUE(read) << read.error().text();
  EXPECT_EQ(read->folders, copy.folders);
}

}  // namespace uq::test
