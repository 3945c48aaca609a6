// A process that is killed in the middle of writing, on the real disk: what it left is the old state or the new one.
#include <gmock/gmock.h>

#include <set>

#include "core/KillingDisk.h"
#include "core/Support.h"
#include "core/edit/JoinQuilts.h"
#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"
#include "core/store/Documents.h"
#include "core/store/KeptReading.h"
#include "core/store/PackedQuilt.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

namespace {

Quilt changed(const Quilt& quilt, std::uint32_t tile = 1) {
  const std::vector<CellChange> paint = {{{1, 1}, tileOf(quilt, "rails", tile)}};
  return renameLayer(layCells(quilt, layerOf(quilt, "Yard", "Awnings"), paint), layerOf(quilt, "Yard", "Paving"),
                     "Ground");
}

// A quilt in "yard", and room for kept work in "kept", of one folder.
std::string yardIn(const std::string& folder) { return folder + "/yard"; }
std::string keptIn(const std::string& folder) { return folder + "/state/kept/1"; }

void makeYard(const std::string& folder) {
  const auto created = QuiltStore::create(realDisk(), yardIn(folder), smallQuilt());
  ASSERT_TRUE(created) << created.error().text();
}

QuiltStore::Opened opened(const std::string& folder) {
  auto read = QuiltStore::open(realDisk(), yardIn(folder), QuiltStore::Access::write);
  EXPECT_TRUE(read) << read.error().text();
  EXPECT_THAT(read->problems, testing::IsEmpty());
  return std::move(*read);
}

bool keeps(KeptWork& work, const Quilt& saved, const Quilt& now, const std::string& folder) {
  return work.keep(saved, now, {yardIn(folder), "Yard", 1, 1'000'000}, {{1}, {1}, [] { return std::string("way"); }})
      .has_value();
}

// The bytes of what is kept, as it comes back; empty where nothing is.
std::string cameBack(const std::string& folder) {
  const auto kept = keptAt(*realDisk(), keptIn(folder));
  EXPECT_TRUE(kept) << kept.error().text();
  if (!kept || !*kept) return {};
  EXPECT_THAT(changedSince(*realDisk(), yardIn(folder), **kept), testing::IsEmpty());
  const auto back = readKept(realDisk(), yardIn(folder), **kept, opened(folder));
  EXPECT_TRUE(back) << back.error().text();
  EXPECT_TRUE(back && back->whole);
  EXPECT_EQ(lineTexts(*realDisk(), **kept).size(), (*kept)->lineFiles.size());
  return back ? bytes(back->quilt) : std::string();
}

const std::string kOld = bytes(smallQuilt());
const std::string kNew = bytes(changed(smallQuilt()));
const std::string kNewer = bytes(changed(smallQuilt(), 2));

}  // namespace

TEST(Killed, InASaveTheQuiltIsTheOldOneOrTheNewOne) {
  std::set<std::string> left;
  const int times = killEverywhere({makeYard,
                                    [](std::shared_ptr<Disk> disk, const std::string& folder) {
                                      auto read = QuiltStore::open(disk, yardIn(folder), QuiltStore::Access::write);
                                      return read && read->store.save(changed(read->quilt));
                                    },
                                    [&](const std::string& folder, int step) {
                                      const std::string now = bytes(opened(folder).quilt);
                                      EXPECT_TRUE(now == kOld || now == kNew) << "a mix after step " << step;
                                      left.insert(now);
                                    }});
  EXPECT_GT(times, 8);
  EXPECT_EQ(left.size(), 2u);
}

TEST(Killed, WhileWorkIsKeptTheOlderStateOrTheNewerOneComesBack) {
  std::set<std::string> left;
  const int times = killEverywhere({makeYard,
                                    [](std::shared_ptr<Disk> disk, const std::string& folder) {
                                      const auto read = QuiltStore::open(disk, yardIn(folder), QuiltStore::Access::read);
                                      KeptWork work(disk, keptIn(folder));
                                      return read && keeps(work, read->quilt, changed(read->quilt), folder) &&
                                             keeps(work, read->quilt, changed(read->quilt, 2), folder);
                                    },
                                    [&](const std::string& folder, int step) {
                                      const std::string now = cameBack(folder);
                                      EXPECT_TRUE(now.empty() || now == kNew || now == kNewer) << "step " << step;
                                      EXPECT_EQ(bytes(opened(folder).quilt), kOld);
                                      left.insert(now);
                                    }});
  EXPECT_GT(times, 12);
  EXPECT_EQ(left.size(), 3u);
}

TEST(Killed, WhileKeptWorkIsSavedItIsSavedOrStillKept) {
  std::set<std::string> left;
  const auto prepare = [](const std::string& folder) {
    makeYard(folder);
    const auto read = QuiltStore::open(realDisk(), yardIn(folder), QuiltStore::Access::read);
    KeptWork work(realDisk(), keptIn(folder));
    ASSERT_TRUE(read && keeps(work, read->quilt, changed(read->quilt), folder));
  };
  const auto work = [](std::shared_ptr<Disk> disk, const std::string& folder) {
    auto read = QuiltStore::open(disk, yardIn(folder), QuiltStore::Access::write);
    const auto kept = keptAt(*disk, keptIn(folder));
    if (!read || !kept || !*kept) return false;
    const auto back = readKept(disk, yardIn(folder), **kept, *read);
    return back && read->store.save(back->quilt) && KeptWork(disk, keptIn(folder)).drop();
  };
  const int times = killEverywhere({prepare, work, [&](const std::string& folder, int step) {
                                      const std::string now = bytes(opened(folder).quilt);
                                      EXPECT_TRUE(now == kOld || now == kNew) << "a mix after step " << step;
                                      EXPECT_TRUE(now == kNew || cameBack(folder) == kNew) << step;
                                      left.insert(now);
                                    }});
  EXPECT_GT(times, 10);
  EXPECT_EQ(left.size(), 2u);
}

TEST(Killed, WhenSavingWhatSomebodyElseChangedTooNothingOfThemIsLost) {
  // Theirs is in the folder before this program saves, and was taken in.
  std::set<std::string> left;
  const auto work = [](std::shared_ptr<Disk> disk, const std::string& folder) {
    auto read = QuiltStore::open(disk, yardIn(folder), QuiltStore::Access::write);
    if (!read) return false;
    // Another program's, not through the disk that kills.
    const std::string path = joined(yardIn(folder), mapFile(*read->quilt.mapNamed("Loft")));
    std::string text = *realDisk()->read(path, 1 << 20);
    text.replace(text.find("Floor"), 5, "Boards");
    if (!realDisk()->write(path, text) || !realDisk()->write(folder + "/theirs", "written")) return false;
    Progress progress;
    auto again = read->store.readAgain(progress);
    if (!again) return false;
    IdSource ids(3);
    const auto nobody = [](const BothChanged&) { return Side::here; };
    const Joined both = joined(read->quilt, changed(read->quilt), again->read.quilt, nobody, ids);
    read->store.take(std::move(*again));
    return both.taken.size() == 1 && read->store.save(both.quilt);
  };
  const int times = killEverywhere({makeYard, work, [&](const std::string& folder, int step) {
                                      if (!std::filesystem::exists(folder + "/theirs")) return;
                                      const Quilt now = opened(folder).quilt;
                                      const Map& yard = *now.mapNamed("Yard");
                                      const bool isSaved = yard.layerNamed("Ground") != nullptr;
                                      const Cell laid = yard.layerNamed("Awnings")->cells.at({1, 1});
                                      EXPECT_TRUE(now.mapNamed("Loft")->layerNamed("Boards")) << step;
                                      EXPECT_EQ(laid == tileOf(now, "rails", 1), isSaved) << "a mix after step " << step;
                                      left.insert(isSaved ? "both" : "theirs");
                                    }});
  EXPECT_GT(times, 4);
  EXPECT_EQ(left.size(), 2u);
}

TEST(Killed, WhilePackingThePackIsTheOldOneOrTheNewOne) {
  const std::string before = *packed(smallQuilt());
  const std::string after = *packed(changed(smallQuilt()));
  std::set<std::string> left;
  const int times = killEverywhere({[&](const std::string& folder) {
                                      ASSERT_TRUE(writeWhole(*realDisk(), folder + "/yard.quilt", before));
                                    },
                                    [&](std::shared_ptr<Disk> disk, const std::string& folder) {
                                      const auto bytes = packed(changed(smallQuilt()));
                                      return bytes && writeWhole(*disk, folder + "/yard.quilt", *bytes);
                                    },
                                    [&](const std::string& folder, int step) {
                                      const auto now = realDisk()->read(folder + "/yard.quilt", 1 << 24);
                                      ASSERT_TRUE(now);
                                      EXPECT_TRUE(*now == before || *now == after) << step;
                                      left.insert(*now);
                                    }});
  EXPECT_GT(times, 1);
  EXPECT_EQ(left.size(), 2u);
}

}  // namespace uq::test
