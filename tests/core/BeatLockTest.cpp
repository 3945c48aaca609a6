// A drive without locks: who has a quilt open is told by a file that goes on changing, and by nothing else.
#include "core/store/BeatLock.h"

#include <gmock/gmock.h>

#include "core/SavedQuilt.h"

namespace uq::test {

namespace {

using namespace std::chrono_literals;
const std::string kLock = "/quilts/yard/.urban-quilt/lock";

struct BeatLocks : testing::Test {
  std::shared_ptr<MemoryDisk> disk = std::make_shared<MemoryDisk>();
  BeatLock::Clock::time_point now{};

  Result<std::unique_ptr<BeatLock>> take(const std::string& path = kLock) {
    return BeatLock::take(disk, path, now, false);
  }
};

}  // namespace

TEST_F(BeatLocks, AreHeldAsLongAsTheyBeat) {
  const auto first = take();
  ASSERT_TRUE(first);
  for (int i = 0; i < 20; ++i) {
    const auto second = take();
    ASSERT_FALSE(second);
    EXPECT_EQ(second.error().cause, Error::Cause::inUse);
    now += kBeatEvery;
    (*first)->beat();
  }
  EXPECT_TRUE((*first)->stands());
}

TEST_F(BeatLocks, OfWhoIsGoneAreTakenOverOnceTheyWereSilentForLong) {
  const std::string path = kLock + "-2";
  const auto first = take(path);
  ASSERT_TRUE(first);
  now += 24h;  // that nobody looked at it meanwhile says nothing
  EXPECT_FALSE(take(path));
  now += kBeatStale - 1s;
  EXPECT_FALSE(take(path));
  now += 1s;
  const auto second = take(path);
  ASSERT_TRUE(second) << second.error().text();
  EXPECT_TRUE((*second)->stands());
  // Who was only asleep sees it, and takes nothing back.
  EXPECT_FALSE((*first)->stands());
  (*first)->beat();
  EXPECT_TRUE((*second)->stands());
}

TEST_F(BeatLocks, AreFreeOnceTheirHolderLetsThemGo) {
  {
    const auto first = take();
    ASSERT_TRUE(first);
  }
  EXPECT_FALSE(disk->files.contains(kLock));
  EXPECT_TRUE(take());
  disk->put(kLock, "");  // of a drive that had locks once
  EXPECT_TRUE(take());
}

TEST_F(BeatLocks, ThatCannotBeWrittenAreNoLocks) {
  disk->failAt = 0;
  const auto lock = take();
  ASSERT_FALSE(lock);
  EXPECT_EQ(lock.error().cause, Error::Cause::diskFull);
}

TEST(QuiltStore, OnADriveWithoutLocksTheSecondLooksOnUntilTheFirstIsClosed) {
  Saved saved;
  saved.store.reset();
  saved.disk->hasLocks = false;
  auto first = std::make_unique<Result<QuiltStore::Opened>>(saved.open());
  ASSERT_TRUE(*first);
  EXPECT_FALSE((*first)->store.readOnly());
  auto second = QuiltStore::open(saved.disk, kFolder, QuiltStore::Access::write);
  ASSERT_TRUE(second);
  ASSERT_TRUE(second->store.readOnly());
  EXPECT_THAT(second->store.readOnly()->text(), testing::HasSubstr("if that program is gone, in a minute"));
  ASSERT_TRUE((*first)->store.save(saved.painted()));
  first.reset();
  const auto taken = second->store.save(second->quilt);
  EXPECT_TRUE(taken) << taken.error().text();
}

}  // namespace uq::test
