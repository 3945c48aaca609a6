// The rows of the Stack, and where something lies that is dropped between them.
#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/Support.h"
#include "core/edit/Roles.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/HangingPlace.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Levels.h"
#include "core/edit/MapFacts.h"
#include "core/edit/StackRows.h"

namespace uq::test {
namespace {

std::string told(const Map& map, const StackRow& row) {
  return std::string(static_cast<std::size_t>(row.depth), '.') +
         (row.isFolder ? "[" + map.layerFolder(row.id)->name + "]" : map.layer(row.id)->name);
}

TEST(StackRows, AFolderStandsAboveWhatIsInItAndFoldsItUp) {
  IdSource ids(1);
  Quilt quilt = smallQuilt();
  const Id yard = quilt.mapNamed("Yard")->id;
  const auto named = [&](const char* name) { return quilt.mapNamed("Yard")->layerNamed(name)->id; };
  const FolderAdded outer = foldLayers(quilt, yard, {named("Sheds"), named("Awnings")}, ids);
  const FolderAdded inner = foldLayers(outer.quilt, yard, {named("Awnings")}, ids);
  quilt = renameFolder(renameFolder(inner.quilt, yard, outer.folder, "Houses"), yard, inner.folder, "Roofs");
  const auto rows = [&](std::set<Id> foldedUp) {
    std::vector<std::string> lines;
    for (const StackRow& row : stackRows(*quilt.map(yard), foldedUp)) lines.push_back(told(*quilt.map(yard), row));
    return lines;
  };
  EXPECT_THAT(rows({}), testing::ElementsAre("[Houses]", ".[Roofs]", "..Awnings", ".Sheds", "Paving"));
  EXPECT_THAT(rows({inner.folder}), testing::ElementsAre("[Houses]", ".[Roofs]", ".Sheds", "Paving"));
  EXPECT_THAT(rows({outer.folder}), testing::ElementsAre("[Houses]", "Paving"));
}

// Whatever is dropped on whichever half of a row, it lies there: right in front of the row, right behind it, or as the
// nearest thing in a folder.
RC_GTEST_PROP(StackRows, WhatIsDroppedLiesThere, ()) {
  IdSource ids(*rc::gen::arbitrary<std::uint64_t>());
  Quilt quilt = smallQuilt();
  const Id yard = quilt.mapNamed("Yard")->id;
  for (int i = 0; i < 3; ++i) quilt = addLayer(quilt, yard, 3, ids).quilt;
  for (int i = 0, n = *rc::gen::inRange(0, 4); i < n; ++i) {
    std::vector<Id> some;
    for (const auto& one : quilt.map(yard)->layers) {
      if (*rc::gen::inRange(0, 3) == 0) some.push_back(one->id);
    }
    quilt = foldLayers(quilt, yard, some, ids).quilt;
  }
  const Map& map = *quilt.map(yard);
  const std::vector<StackRow> rows = stackRows(map, {});
  const StackRow moved = *rc::gen::elementOf(rows);
  const StackRow on = *rc::gen::elementOf(rows);
  const bool lower = *rc::gen::arbitrary<bool>();
  const bool inItself = moved.id == on.id || (moved.isFolder && map.isWithin(on.isFolder ? on.id : on.in, moved.id));
  RC_PRE(!inItself);
  const StackPlace place = placeAtRow(map, on, lower, moved.id);
  const Quilt after =
      moved.isFolder ? moveFolder(quilt, yard, moved.id, place) : moveLayer(quilt, {yard, moved.id}, place);
  const Map& then = *after.map(yard);
  expectWhole(then);
  // The row it was dropped on may be gone with its last layer.
  const auto rowsThen = stackRows(then, {});
  const auto find = [&](Id id) {
    return std::find_if(rowsThen.begin(), rowsThen.end(), [&](const StackRow& row) { return row.id == id; });
  };
  const auto it = find(moved.id);
  RC_ASSERT(it != rowsThen.end());
  RC_ASSERT(it->in == place.folder || find(place.folder) == rowsThen.end());
  const auto target = find(on.id);
  if (target == rowsThen.end()) return;
  if (!lower) RC_ASSERT(it->from == target->to);
  if (lower && !on.isFolder) RC_ASSERT(it->to == target->from);
  if (lower && on.isFolder) RC_ASSERT(it->to == target->to && it->in == on.id);
}

TEST(HangingPlace, IsDrawnToTheEdgesAndTheMiddleOfTheMap) {
  IdSource ids(2);
  Quilt quilt = smallQuilt();  // the Yard is 640 × 384 px from -128, -128
  const Id yard = quilt.mapNamed("Yard")->id;
  const Sheet& street = *quilt.sheetAt(tileOf(quilt, "street", 0).tile().slot);
  const LayerAdded hung = addBackdrop(quilt, yard, 0, street.id, ids);
  const LayerAt at{yard, hung.layer};
  const PixelSize size = *hungSize(hung.quilt, *hung.quilt.map(yard), hung.quilt.layer(at)->backdrop);
  EXPECT_EQ(hangingPlace(hung.quilt, at, {-125, -60}, 4), (HangingPlace{{-128, -60}, "west edge"}));
  EXPECT_EQ(hangingPlace(hung.quilt, at, {-125, -60}, 2), (HangingPlace{{-125, -60}, ""}));
  const int east = 512 - size.w;
  EXPECT_EQ(hangingPlace(hung.quilt, at, {east + 3, 256 - size.h - 1}, 4),
            (HangingPlace{{east, 256 - size.h}, "east edge, lower edge"}));
  EXPECT_EQ(hangingPlace(hung.quilt, {yard, quilt.mapNamed("Yard")->layers[0]->id}, {1, 2}, 99).offset,
            (PixelPos{1, 2}));
}

TEST(DeadStrips, AreEdgesWithoutATile) {
  Quilt quilt = smallQuilt();
  const LayerAt paving = layerOf(quilt, "Yard", "Paving");
  for (const char* layer : {"Paving", "Sheds", "Awnings"}) {
    quilt = quilt.with(layerOf(quilt, "Yard", layer), LayerCells());
  }
  EXPECT_EQ(deadStrips(*quilt.map(paving.map)), DeadStrips{}) << "an empty map has none";
  CellGrid cells;
  cells.fill({-3, -4, 13, 7}, tileOf(quilt, "street", 1));
  cells.fill({40, 40, 50, 50}, tileOf(quilt, "street", 1));  // seam allowance
  quilt = quilt.with(paving, LayerCells{cells, {}, {}});
  EXPECT_EQ(deadStrips(*quilt.map(paving.map)), (DeadStrips{1, 3, 0, 1}));
}

TEST(Roles, AreRenamedEverywhereOrderedAndDropped) {
  Quilt quilt = smallQuilt();
  const LayerAt paving = layerOf(quilt, "Yard", "Paving");
  quilt = withRole(quilt, paving, "floor");
  const Quilt renamed = renameRole(quilt, "floor", "ground level");
  EXPECT_EQ(renamed.layer(paving)->role, "ground level");
  EXPECT_EQ(renamed.facts().roles.back(), "ground level");
  EXPECT_EQ(renameRole(quilt, "floor", "things"), quilt) << "that is another one";
  EXPECT_EQ(dropRole(quilt, "floor"), quilt) << "a layer has it";
  const Quilt dropped = dropRole(withRole(quilt, paving, "ground"), "floor");
  EXPECT_THAT(dropped.facts().roles, testing::Not(testing::Contains("floor")));
  EXPECT_EQ(moveRole(quilt, "floor", 0).facts().roles.front(), "floor");
  EXPECT_EQ(moveRole(moveRole(quilt, "floor", 0), "floor", 99), quilt);
}

}  // namespace
}  // namespace uq::test
