// Stamps: what was in hand, kept with its tiles, layers, manner and chances; saved, read, ordered, corrected, counted.
#include "core/Support.h"
#include "core/edit/ArrangeStamps.h"
#include "core/edit/LaidStamps.h"
#include "core/edit/Stroke.h"
#include "core/store/ClipText.h"
#include "core/store/HandText.h"
#include "core/store/JsonText.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

namespace {

InHand house(const Quilt& quilt) {
  InHand hand(Block({{{0, 0}, tileOf(quilt, "street", 1)}, {{1, 0}, tileOf(quilt, "rails", 2, {true, 1}), 24}}));
  hand.role = "things";
  hand.others.push_back({"in front", 1, Block({{{0, -1}, tileOf(quilt, "street", 3)}})});
  return hand;
}

InHand hedge(const Quilt& quilt) {
  InHand hand(Block({{{0, 0}, tileOf(quilt, "street", 4)},
                     {{1, 0}, tileOf(quilt, "street", 5)},
                     {{2, 0}, tileOf(quilt, "street", 6)}}));
  hand = hand.inManner(Manner::stretch);
  hand.ends.shuffles = true;
  hand.ends.stepAcross = 1;
  return hand;
}

InHand leaves(const Quilt& quilt) {
  InHand hand(Block::of(tileOf(quilt, "street", 7)));
  hand = hand.gathering(Block::of(tileOf(quilt, "street", 8))).gathering(Block::of(tileOf(quilt, "street", 8)));
  hand.members.push_back({Block(), 3});
  hand.members.front().keepsOffRim = true;
  hand.neverAlike = true;
  hand.turnsByChance = true;
  return hand;
}

Quilt withAll(Quilt quilt) {
  IdSource ids(4);
  quilt = keepStamp(quilt, house(quilt), "House", ids).quilt;
  quilt = keepStamp(quilt, hedge(quilt), "Hedge", ids).quilt;
  return keepStamp(quilt, leaves(quilt), "Leaves", ids).quilt;
}

const Stamp& stampNamed(const Quilt& quilt, const char* name) {
  for (const auto& stamp : quilt.stamps()) {
    if (stamp->name == name) return stamp.read();
  }
  throw std::runtime_error(name);
}

}  // namespace

TEST(Stamp, ComesBackFromItsFilesAsItWasKept) {
  auto disk = std::make_shared<MemoryDisk>();
  const Quilt quilt = withAll(smallQuilt());
  ASSERT_TRUE(QuiltStore::create(disk, "q", quilt));
  EXPECT_TRUE(disk->files.contains("q/stamps/house/stamp.json"));
  EXPECT_TRUE(disk->files.contains("q/stamps/house/part-1.cells"));
  EXPECT_TRUE(disk->files.contains("q/stamps/house/tiles.lift.cells"));
  EXPECT_TRUE(disk->files.contains("q/stamps/leaves/mix-3.cells"));
  const auto again = QuiltStore::open(disk, "q", QuiltStore::Access::read);
  ASSERT_TRUE(again);
  EXPECT_TRUE(again->problems.empty());
  // Slots may differ, so what would be written is compared.
  ASSERT_EQ(again->quilt.stamps().size(), 3u);
  for (const char* name : {"House", "Hedge", "Leaves"}) {
    EXPECT_EQ(writeJson(handJson(stampNamed(again->quilt, name).held, again->quilt, SheetsBy::id)),
              writeJson(handJson(stampNamed(quilt, name).held, quilt, SheetsBy::id)))
        << name;
  }
  EXPECT_EQ(shelfOrder(again->quilt), shelfOrder(quilt));
}

TEST(Stamp, OnlyChangedFilesAreWrittenAndThoseOfADeletedOneGo) {
  auto disk = std::make_shared<MemoryDisk>();
  const Quilt quilt = withAll(smallQuilt());
  auto created = QuiltStore::create(disk, "q", quilt);
  ASSERT_TRUE(created);
  disk->written.clear();
  const Id hedgeId = stampNamed(quilt, "Hedge").id;
  const Quilt renamed = renameStamp(quilt, hedgeId, "Box hedge");
  const auto saved = created->store.save(renamed);
  ASSERT_TRUE(saved);
  EXPECT_EQ(saved->written, std::vector<std::string>{"stamps/hedge/stamp.json"});
  ASSERT_TRUE(created->store.save(deleteStamp(renamed, hedgeId)));
  EXPECT_FALSE(disk->files.contains("q/stamps/hedge/stamp.json"));
  EXPECT_FALSE(disk->files.contains("q/stamps/hedge/tiles.cells"));
  EXPECT_EQ(QuiltStore::open(disk, "q", QuiltStore::Access::read)->quilt.stamps().size(), 2u);
}

TEST(Stamp, ABrokenOneIsNamedAndTheOthersAreThere) {
  auto disk = std::make_shared<MemoryDisk>();
  ASSERT_TRUE(QuiltStore::create(disk, "q", withAll(smallQuilt())));
  disk->put("q/stamps/house/part-1.cells", "cells 1\nA nonsense");
  const auto opened = QuiltStore::open(disk, "q", QuiltStore::Access::read);
  ASSERT_TRUE(opened);
  EXPECT_EQ(opened->quilt.stamps().size(), 2u);
  ASSERT_EQ(opened->problems.size(), 1u);
  EXPECT_EQ(opened->problems.front().file, "stamps/house/part-1.cells");
}

TEST(Stamp, LiftsThatCannotBeReadAreNoFlatStamp) {
  auto disk = std::make_shared<MemoryDisk>();
  ASSERT_TRUE(QuiltStore::create(disk, "q", withAll(smallQuilt())));
  disk->put("q/stamps/hedge/tiles.lift.cells", "cells 1\n@0,0\n0: nonsense\nend\n");
  const auto opened = QuiltStore::open(disk, "q", QuiltStore::Access::read);
  ASSERT_TRUE(opened);
  EXPECT_EQ(opened->quilt.stamps().size(), 2u);
  ASSERT_EQ(opened->problems.size(), 1u);
  EXPECT_EQ(opened->problems.front().file, "stamps/hedge/tiles.lift.cells");
}

// Fields of a newer version stay where they were found, in parts and members too.
TEST(Stamp, UnknownFieldsOfPartsAndMembersAreWrittenBack) {
  auto disk = std::make_shared<MemoryDisk>();
  ASSERT_TRUE(QuiltStore::create(disk, "q", withAll(smallQuilt())));
  for (const auto& [file, before] : {std::pair("q/stamps/house/stamp.json", "\"above\""),
                                     std::pair("q/stamps/leaves/stamp.json", "\"weight\"")}) {
    std::string text = disk->files.at(file);
    text.insert(text.rfind(before), "\"glow\": 3, ");
    disk->put(file, text);
  }
  auto opened = QuiltStore::open(disk, "q", QuiltStore::Access::write);
  ASSERT_TRUE(opened);
  EXPECT_TRUE(opened->problems.empty());
  Quilt renamed = opened->quilt;
  for (const char* name : {"House", "Leaves"}) {
    renamed = renameStamp(renamed, stampNamed(renamed, name).id, std::string(name) + " 2");
  }
  ASSERT_TRUE(opened->store.save(renamed));
  for (const char* file : {"q/stamps/house/stamp.json", "q/stamps/leaves/stamp.json"}) {
    EXPECT_THAT(disk->files.at(file), testing::HasSubstr("\"glow\": 3"));
  }
}

TEST(Stamp, KeepsNamesApartAndItsOrder) {
  IdSource ids(9);
  Quilt quilt = withAll(smallQuilt());
  const StampKept twin = keepStamp(quilt, house(quilt), "House", ids);
  EXPECT_EQ(twin.quilt.stamp(twin.stamp)->name, "House 2");
  EXPECT_EQ(twin.quilt.stamp(twin.stamp)->file, "house-2");
  const Id first = shelfOrder(quilt).front();
  const Quilt moved = movedOnShelf(quilt, first, Id());
  EXPECT_EQ(shelfOrder(moved).back(), first);
  EXPECT_EQ(renameStamp(moved, first, ""), moved);
  EXPECT_EQ(keepStamp(quilt, InHand(), "Nothing", ids).quilt, quilt);
}

TEST(Stamp, IsCountedWhereItLiesWhole) {
  Quilt quilt = withAll(smallQuilt());
  const Stamp& stamp = stampNamed(quilt, "House");
  EXPECT_TRUE(placesOf(quilt, stamp).empty());
  const LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  quilt = stroked(quilt, layingOn(sheds, stamp.held), {{0, 0}});
  quilt = stroked(quilt, layingOn(sheds, stamp.held), {{4, 4}});
  EXPECT_EQ(placesOf(quilt, stamp).size(), 2u);
  EXPECT_TRUE(laidStampAt(quilt, sheds, {5, 4}));
  quilt = stroked(quilt, takingAway(sheds, Block::of(tileOf(quilt, "street", 1))), {{5, 4}});
  EXPECT_EQ(placesOf(quilt, stamp).size(), 1u);
  EXPECT_FALSE(laidStampAt(quilt, sheds, {4, 4}));
}

TEST(LaidStamp, IsKnownByAnyOfItsPartsWithAllItsLayers) {
  Quilt quilt = withAll(smallQuilt());
  const Stamp& stamp = stampNamed(quilt, "House");
  const LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  quilt = stroked(quilt, layingOn(sheds, stamp.held), {{0, 0}});
  const auto laid = laidStampAt(quilt, sheds, {1, 0});
  ASSERT_TRUE(laid);
  ASSERT_EQ(laid->layers.size(), 2u);
  EXPECT_EQ(laid->layers[0], sheds.layer);
  const LayerAt front{sheds.map, laid->layers[1]};
  EXPECT_EQ(laidStampAt(quilt, front, {0, -1}), laid) << "by its roof as well";
  const SelectedCells cells = cellsOf(quilt, *laid);
  EXPECT_EQ(cells.all.count(), 3);
  EXPECT_EQ(laidOn(quilt, sheds.map, stamp.id, cells.all), laid);
  // Moved as one, without what lies under its roof on the other layer.
  quilt = stroked(quilt, layingOn(sheds, Block::of(tileOf(quilt, "street", 9))), {{0, -1}});
  const Quilt moved = moveCells(quilt, cells, {0, 3});
  EXPECT_EQ(moved.layer(sheds)->cells.at({0, -1}), tileOf(quilt, "street", 9));
  EXPECT_EQ(moved.layer(front)->cells.at({0, 2}), tileOf(quilt, "street", 3));
  ASSERT_EQ(placesOf(moved, stamp).size(), 1u);
  EXPECT_EQ(placesOf(moved, stamp).front().grip, (SidePos{0, 3}));
}

TEST(LaidStamp, ChangesWithItsStampSoThatWhatBothHaveStaysInPlace) {
  Quilt quilt = withAll(smallQuilt());
  const Stamp stamp = stampNamed(quilt, "House");
  const LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  quilt = stroked(quilt, layingOn(sheds, stamp.held), {{0, 0}});
  quilt = stroked(quilt, layingOn(sheds, stamp.held), {{5, 3}});
  // A chimney on the roof, and everything held by another cell.
  InHand now = stamp.held;
  now.block = Block({{{2, 1}, tileOf(quilt, "street", 1)}, {{3, 1}, tileOf(quilt, "rails", 2, {true, 1}), 24}});
  now.others[0].block = Block({{{2, 0}, tileOf(quilt, "street", 3)}, {{2, -1}, tileOf(quilt, "street", 8)}});
  const Quilt after = relaid(quilt, placesOf(quilt, stamp), stamp.held, now, 1);
  const auto laid = laidStampAt(quilt, sheds, {0, 0});
  const LayerAt front{sheds.map, laid->layers[1]};
  for (const CellPos at : {CellPos{0, 0}, CellPos{5, 3}}) {
    EXPECT_EQ(after.layer(sheds)->cells.at(at), tileOf(quilt, "street", 1));
    EXPECT_EQ(after.layer(sheds)->laidAt({at.x + 1, at.y}).lift, 24);
    EXPECT_EQ(after.layer(front)->cells.at({at.x, at.y - 1}), tileOf(quilt, "street", 3));
    EXPECT_EQ(after.layer(front)->cells.at({at.x, at.y - 2}), tileOf(quilt, "street", 8));
  }
  EXPECT_EQ(placesOf(correctStamp(after, stamp.id, now), *correctStamp(after, stamp.id, now).stamp(stamp.id)).size(), 2u);
  // What goes from the stamp goes from its places.
  const Quilt less = relaid(quilt, placesOf(quilt, stamp), stamp.held, InHand(Block::of(tileOf(quilt, "street", 1))), 1);
  EXPECT_TRUE(less.layer(sheds)->cells.at({1, 0}).empty());
  EXPECT_TRUE(less.layer(front)->cells.at({0, -1}).empty());
}

TEST(Clip, GoesToAQuiltThatCallsItsSheetOtherwise) {
  const Quilt quilt = smallQuilt();
  const std::string text = clipText(house(quilt), quilt);
  ASSERT_TRUE(isClipText(text));
  const auto same = readClip(text, quilt);
  ASSERT_TRUE(same);
  EXPECT_EQ(*same, house(quilt));
  // Another quilt with sheets of the same names, but other ids and slots.
  Quilt other((QuiltFacts()));
  IdSource ids(77);
  for (const char* name : {"rails", "street"}) {
    Sheet sheet;
    for (const auto& one : quilt.sheets()) {
      if (one->name == name) sheet = one.read();
    }
    sheet.id = ids.next();
    other = other.with(std::move(sheet));
  }
  const auto there = readClip(text, other);
  ASSERT_TRUE(there);
  EXPECT_EQ(there->parts().front().cell.tile().number, 1u);
  EXPECT_EQ(other.sheetAt(there->parts().front().cell.tile().slot)->name, "street");
  const auto lacking = readClip(text, other.without<Sheet>(other.sheets().front()->id));
  ASSERT_FALSE(lacking);
  EXPECT_THAT(lacking.error().reason, testing::HasSubstr("which this quilt lacks"));
  EXPECT_FALSE(readClip("{}", quilt));
  EXPECT_FALSE(isClipText("hello"));
}

TEST(HandText, NonsenseIsRefusedInWords) {
  const Quilt quilt = smallQuilt();
  for (const char* text : {"[]", "{}", "{\"tiles\": [[0, 0]]}", "{\"tiles\": [[0, 0, \"street\", -1]]}",
                           "{\"tiles\": [[0, 0, \"nowhere\", 1]]}", "{\"tiles\": [[0, 0, \"street\", 1, 12]]}",
                           "{\"tiles\": [], \"manner\": \"sideways\"}", "{\"tiles\": [], \"grid\": \"round\"}"}) {
    const auto json = readJson(text, "hand");
    ASSERT_TRUE(json) << text;
    const auto hand = handFromJson(*json, quilt);
    EXPECT_FALSE(hand) << text;
  }
}

}  // namespace uq::test
