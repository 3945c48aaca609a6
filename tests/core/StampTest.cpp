// Stamps: what was in hand, kept with its tiles, layers, manner and chances; saved, read, ordered, corrected, counted.
#include "core/Support.h"
#include "core/edit/ArrangeStamps.h"
#include "core/edit/FindStretch.h"
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
  EXPECT_EQ(usesOf(quilt, stamp), 0);
  const LayerAt sheds = layerOf(quilt, "Yard", "Sheds");
  quilt = stroked(quilt, layingOn(sheds, stamp.held), {{0, 0}});
  quilt = stroked(quilt, layingOn(sheds, stamp.held), {{4, 4}});
  EXPECT_EQ(usesOf(quilt, stamp), 2);
  EXPECT_TRUE(findStamp(quilt, sheds, {5, 4}));
  quilt = stroked(quilt, takingAway(sheds, Block::of(tileOf(quilt, "street", 1))), {{5, 4}});
  EXPECT_EQ(usesOf(quilt, stamp), 1);
  EXPECT_FALSE(findStamp(quilt, sheds, {4, 4}));
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
