// A process that is killed in the middle of a save, on the real disk.
#include <gmock/gmock.h>
#include <sys/wait.h>
#include <unistd.h>

#include <csignal>
#include <filesystem>

#include "core/ForwardingDisk.h"
#include "core/Support.h"
#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

namespace {

// Kills its own process at one change, counted from 0.
class KillingDisk : public ForwardingDisk {
 public:
  explicit KillingDisk(int at) : left_(at) {}

 private:
  void beforeChanging(const std::string&) override {
    if (left_-- == 0) raise(SIGKILL);
  }
  int left_;
};

Quilt changed(const Quilt& quilt) {
  const std::vector<CellChange> paint = {{{1, 1}, tileOf(quilt, "rails", 1)}};
  return renameLayer(layCells(quilt, layerOf(quilt, "Yard", "Awnings"), paint), layerOf(quilt, "Yard", "Paving"),
                     "Ground");
}

}  // namespace

TEST(KilledSave, LeavesTheOldQuiltOrTheNewOneNeverAMix) {
  char scratch[] = "/tmp/killed-save-XXXXXX";
  ASSERT_NE(mkdtemp(scratch), nullptr);
  int outcomes[2] = {0, 0};
  for (int step = 0;; ++step) {
    const std::string folder = std::string(scratch) + "/" + std::to_string(step);
    std::string before;
    {
      auto created = QuiltStore::create(realDisk(), folder, smallQuilt());
      ASSERT_TRUE(created) << created.error().text();
      before = bytes(created->quilt);
    }
    const pid_t child = fork();
    if (child == 0) {
      auto opened = QuiltStore::open(std::make_shared<KillingDisk>(step), folder, QuiltStore::Access::write);
      const bool saved = opened && opened->store.save(changed(opened->quilt));
      _exit(saved ? 0 : 1);
    }
    int status = 0;
    ASSERT_EQ(waitpid(child, &status, 0), child);
    const auto opened = QuiltStore::open(realDisk(), folder, QuiltStore::Access::write);
    ASSERT_TRUE(opened) << opened.error().text();
    EXPECT_THAT(opened->problems, testing::IsEmpty());
    if (!WIFSIGNALED(status)) {
      ASSERT_EQ(WEXITSTATUS(status), 0);
      EXPECT_GT(step, 8);
      break;
    }
    const std::string after = bytes(opened->quilt);
    const bool isNew = after != before;
    EXPECT_TRUE(!isNew || after == bytes(changed(smallQuilt()))) << "a mix after step " << step;
    ++outcomes[isNew ? 1 : 0];
  }
  EXPECT_GT(outcomes[0], 0);
  EXPECT_GT(outcomes[1], 0);
  std::filesystem::remove_all(scratch);
}

}  // namespace uq::test
