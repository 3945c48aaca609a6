// Whatever is in hand comes back as it was: spelt in a list of edits, copied as text, kept as a stamp; and files that
// were harmed are read or refused, and harm nothing else.
#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/Support.h"
#include "core/edit/ArrangeStamps.h"
#include "core/store/ClipText.h"
#include "core/store/HandText.h"
#include "core/store/JsonText.h"
#include "core/store/QuiltStore.h"

namespace uq::test {
namespace {

Block anyBlock(const Quilt& quilt, int most) {
  std::map<SidePos, Block::Part> parts;
  for (int i = 0, n = *rc::gen::inRange(1, most + 1); i < n; ++i) {
    const SidePos at{*rc::gen::inRange(-4, 5), *rc::gen::inRange(-4, 5)};
    const char* sheet = *rc::gen::element("street", "rails");
    const Turn turn{*rc::gen::arbitrary<bool>(), *rc::gen::inRange<std::uint8_t>(0, 4)};
    parts[at] = {at, tileOf(quilt, sheet, *rc::gen::inRange(0u, 20u), turn), *rc::gen::element(0, 0, 8, 40)};
  }
  std::vector<Block::Part> list;
  for (const auto& [at, part] : parts) list.push_back(part);
  return Block(std::move(list));
}

// Anything that can be in hand: a block over some layers, as it is or as a stretch, or a mix.
InHand anyHand(const Quilt& quilt) {
  InHand hand(anyBlock(quilt, 9),
              *rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds))));
  hand.role = *rc::gen::element<std::string>("", "ground", "in front", "weather");
  hand.turnsByChance = *rc::gen::arbitrary<bool>();
  if (*rc::gen::inRange(0, 3) == 0) {
    for (int i = 0, n = *rc::gen::inRange(1, 5); i < n; ++i) hand = hand.gathering(anyBlock(quilt, 2));
    hand.members.back().weight = *rc::gen::inRange(1, kMostWeight + 1);
    hand.members.back().keepsOffRim = *rc::gen::arbitrary<bool>();
    hand.neverAlike = *rc::gen::arbitrary<bool>();
    return hand;
  }
  for (int i = 0, n = *rc::gen::inRange(0, 3); i < n; ++i) {
    const int above = *rc::gen::element(-2, -1, 1, 2);
    hand.others.push_back({*rc::gen::element<std::string>("", "things"), above, anyBlock(quilt, 4)});
  }
  if (*rc::gen::arbitrary<bool>()) {
    hand = hand.inManner(Manner::stretch);
    hand.ends.shuffles = *rc::gen::arbitrary<bool>();
    hand.ends.stepAcross = *rc::gen::inRange(0, 3);
  }
  return hand;
}

RC_GTEST_PROP(HandText, ReadsBackWhatItSpells, ()) {
  const Quilt quilt = smallQuilt();
  const InHand hand = anyHand(quilt);
  for (const SheetsBy by : {SheetsBy::id, SheetsBy::file}) {
    const auto json = readJson(writeJson(handJson(hand, quilt, by)), "hand");
    RC_ASSERT(static_cast<bool>(json));
    const auto back = handFromJson(*json, quilt);
    RC_ASSERT(static_cast<bool>(back));
    RC_ASSERT(*back == hand);
  }
}

RC_GTEST_PROP(HandText, AStampComesBackFromItsFiles, ()) {
  Quilt quilt = smallQuilt();
  IdSource ids(8);
  const StampKept kept = keepStamp(quilt, anyHand(quilt), "Kept", ids);
  auto disk = std::make_shared<MemoryDisk>();
  disk->folders.insert("q");
  RC_ASSERT(static_cast<bool>(QuiltStore::create(disk, "q", kept.quilt)));
  const auto again = QuiltStore::open(disk, "q", QuiltStore::Access::read);
  RC_ASSERT(static_cast<bool>(again));
  RC_ASSERT(again->problems.empty());
  RC_ASSERT(bytes(again->quilt) == bytes(kept.quilt));
  const Stamp* back = again->quilt.stamp(kept.stamp);
  RC_ASSERT(back != nullptr);
  RC_ASSERT(writeJson(handJson(back->held, again->quilt, SheetsBy::id)) ==
            writeJson(handJson(kept.quilt.stamp(kept.stamp)->held, kept.quilt, SheetsBy::id)));
}

// A file of the quilt is cut, or some of its bytes are others: the quilt opens, what is harmed is told or reads as
// something whole, and everything else is as it was.
RC_GTEST_PROP(HarmedFiles, NeverHarmAnythingElse, ()) {
  Quilt quilt = smallQuilt();
  IdSource ids(8);
  quilt = keepStamp(quilt, anyHand(quilt), "Kept", ids).quilt;
  auto disk = std::make_shared<MemoryDisk>();
  disk->folders.insert("q");
  RC_ASSERT(static_cast<bool>(QuiltStore::create(disk, "q", quilt)));
  std::vector<std::string> paths;
  for (const auto& [path, text] : disk->quiltFiles()) {
    if (path.find("maps/") != std::string::npos || path.find("stamps/") != std::string::npos) paths.push_back(path);
  }
  const std::string harmed = *rc::gen::elementOf(paths);
  const std::string full = disk->files.contains(harmed) ? harmed : "q/" + harmed;
  std::string text = disk->files.at(full);
  if (*rc::gen::arbitrary<bool>()) {
    text.resize(*rc::gen::inRange<std::size_t>(0, text.size()));
  } else {
    for (int i = 0, n = *rc::gen::inRange(1, 4); i < n; ++i) {
      text[*rc::gen::inRange<std::size_t>(0, text.size())] = static_cast<char>(*rc::gen::inRange(32, 127));
    }
  }
  disk->put(full, text);
  const auto opened = QuiltStore::open(disk, "q", QuiltStore::Access::read);
  RC_ASSERT(static_cast<bool>(opened));
  for (const Error& problem : opened->problems) {
    RC_ASSERT(!problem.reason.empty());
    RC_ASSERT(!problem.file.empty());
  }
  for (const auto& map : opened->quilt.maps()) expectWhole(map.read());
  // The other map and the sheets are what they were.
  for (const char* name : {"Yard", "Loft"}) {
    const Map* before = quilt.mapNamed(name);
    if (harmed.find("maps/" + before->folder + "/") != std::string::npos) continue;
    const Map* after = opened->quilt.map(before->id);
    RC_ASSERT(after != nullptr);
    RC_ASSERT(after->name == before->name);
    RC_ASSERT(after->layers.size() == before->layers.size());
  }
  RC_ASSERT(opened->quilt.sheets().size() >= quilt.sheets().size());
}

TEST(HandText, AnErrorSaysWhatIsNotKnown) {
  const Quilt quilt = smallQuilt();
  const auto refusal = [&](const char* text) {
    const auto hand = handFromJson(*readJson(text, "hand"), quilt);
    return hand ? std::string() : hand.error().reason;
  };
  EXPECT_THAT(refusal(R"({"tiles": [[0, 0, "moss", 3]]})"), testing::HasSubstr("moss"));
  EXPECT_NE(refusal(R"({"tiles": [[0, 0, "street", -3]]})"), "");
  EXPECT_NE(refusal(R"({"tiles": [[0, 0]]})"), "");
  EXPECT_NE(refusal(R"({"tiles": 7})"), "");
  EXPECT_NE(refusal(R"({"tiles": [[0, 0, "street", 3]], "manner": "folded"})"), "");
  EXPECT_EQ(refusal(R"({"tiles": [[0, 0, "street", 3]]})"), "");
}

}  // namespace
}  // namespace uq::test
