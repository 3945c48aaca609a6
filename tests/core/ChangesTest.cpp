// What is told of a change: which parts, which layers, what of the desk.
#include "core/work/Changes.h"

#include <gmock/gmock.h>

#include "core/Support.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/ArrangeStamps.h"
#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"

namespace uq::test {
namespace {

using testing::ElementsAre;
using testing::IsEmpty;

class Changing : public testing::Test {
 protected:
  Quilt painted() const {
    const CellChange one{{1, 1}, tileOf(quilt, "rails", 3)};
    return layCells(quilt, sheds, std::span(&one, 1));
  }

  Quilt quilt = smallQuilt();
  LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
};

TEST_F(Changing, AStrokeChangesTheCellsOfItsLayerAndNothingElse) {
  const QuiltChange change = changeOf(quilt, painted());
  EXPECT_TRUE(change.has<Map>(sheds.map));
  EXPECT_THAT(change.painted, ElementsAre(sheds.layer));
  EXPECT_THAT(change.arranged, IsEmpty());
  EXPECT_FALSE(change.any<Sheet>() || change.any<Stamp>() || change.facts);
  EXPECT_FALSE(change.empty());
}

TEST_F(Changing, WhatIsTheSameIsNoChange) {
  EXPECT_TRUE(changeOf(quilt, quilt).empty());
  const Quilt there = painted();
  const CellChange back{{1, 1}, quilt.layer(sheds)->cells.at({1, 1})};
  EXPECT_THAT(changeOf(quilt, layCells(there, sheds, std::span(&back, 1))).arranged, IsEmpty());
}

TEST_F(Changing, ALayerThatMovesOrIsRenamedArrangesItsMap) {
  const QuiltChange renamed = changeOf(quilt, renameLayer(quilt, sheds, "Halls"));
  EXPECT_THAT(renamed.arranged, ElementsAre(sheds.map));
  EXPECT_THAT(renamed.painted, IsEmpty());
  const QuiltChange shifted = changeOf(quilt, withOffset(quilt, sheds, {3, 4}));
  EXPECT_THAT(shifted.arranged, ElementsAre(sheds.map));
}

TEST_F(Changing, PartsThatComeAndGoAreTold) {
  IdSource ids(3);
  const auto kept = keepStamp(quilt, InHand(Block::of(tileOf(quilt, "street", 1))), "one", ids);
  const QuiltChange came = changeOf(quilt, kept.quilt);
  EXPECT_TRUE(came.has<Stamp>(kept.stamp));
  EXPECT_TRUE(came.facts) << "it lies on the shelf";
  EXPECT_TRUE(changeOf(kept.quilt, quilt).has<Stamp>(kept.stamp));
  const Id loft = quilt.mapNamed("Loft")->id;
  const QuiltChange gone = changeOf(quilt, quilt.without<Map>(loft));
  EXPECT_TRUE(gone.has<Map>(loft));
  EXPECT_THAT(gone.arranged, ElementsAre(loft));
}

TEST_F(Changing, ADeskSaysWhatOfItIsOther) {
  Desk desk;
  desk.map = sheds.map;
  EXPECT_TRUE(changeOf(desk, desk).empty());
  Desk other = desk;
  other.hidden.insert(sheds.layer);
  EXPECT_EQ(changeOf(desk, other), (DeskChange{.sight = true}));
  other = desk;
  other.hold(InHand(Block::of(tileOf(quilt, "street", 1))));
  other.tool = Tool::fill;
  EXPECT_EQ(changeOf(desk, other), (DeskChange{.hand = true, .tool = true}));
  other = desk;
  other.select(CellSet({0, 0, 2, 2}));
  EXPECT_EQ(changeOf(desk, other), (DeskChange{.selection = true}));
  other = desk;
  other.foldedPiles.insert("city");
  EXPECT_EQ(changeOf(desk, other), (DeskChange{.table = true}));
}

}  // namespace
}  // namespace uq::test
