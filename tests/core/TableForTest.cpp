// How the Table lies for a map.
#include "core/edit/TableFor.h"

#include "core/Support.h"
#include "core/edit/ArrangeSheets.h"

namespace uq::test {

TEST(TableFor, WhatAMapUsesLiesFirstThenWhatFitsIt) {
  IdSource ids(5);
  Quilt quilt = smallQuilt();
  const auto add = [&](const char* name, const char* pile, int cell) {
    Sheet sheet;
    sheet.name = name;
    sheet.origin.pile = pile;
    sheet.cut.cell = {cell, cell};
    sheet.pictureSize = {cell * 4, cell * 4};
    const SheetAdded added = addSheet(quilt, sheet, std::string(name) + ".png", ids);
    quilt = added.quilt;
    return added.sheet;
  };
  const Id large = add("cubes", "quay", 64);
  const Id inside = add("rooms", "inside", 32);
  const Map& yard = *quilt.mapNamed("Yard");
  const std::set<Id> used = sheetsUsedOn(quilt, yard);
  EXPECT_FALSE(used.contains(large) || used.contains(inside));
  EXPECT_EQ(used.size(), 1u) << "the street, of which the ground is";
  std::vector<Id> order = tableOrderFor(quilt, &yard, used);
  const auto placeOf = [&](Id id) { return std::find(order.begin(), order.end(), id) - order.begin(); };
  EXPECT_LT(placeOf(inside), placeOf(large)) << "its cells fit";
  EXPECT_FALSE(fitsMap(*quilt.sheet(large), yard));
  EXPECT_TRUE(fitsMap(*quilt.sheet(inside), yard));
  // Once used, a pile comes before those that only fit.
  const LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  LayerCells cells;
  cells.lay(CellPos{1, 1}, uq::Laid{tileOf(quilt, "cubes", 2), 0});
  const Quilt laid = quilt.with(sheds, cells);
  order = tableOrderFor(laid, laid.mapNamed("Yard"), sheetsUsedOn(laid, *laid.mapNamed("Yard")));
  EXPECT_LT(placeOf(large), placeOf(inside));
  // Without a map it lies as somebody laid it.
  EXPECT_EQ(tableOrderFor(quilt, nullptr, {}), tableOrder(quilt));
}

}  // namespace uq::test
