// The real file system, where it differs from the one in memory: links, locks, and quilts that hold them.
#include "core/store/Disk.h"

#include <gtest/gtest.h>
#include <unistd.h>

#include <filesystem>
#include <fstream>

#include "core/Support.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

namespace {

namespace fs = std::filesystem;
using testing::HasSubstr;

// A folder that is gone when the test is.
struct Scratch {
  fs::path path = fs::temp_directory_path() / ("uq-disk-" + std::to_string(getpid()));

  Scratch() {
    fs::remove_all(path);
    fs::create_directories(path);
  }
  ~Scratch() { fs::remove_all(path); }
  std::string operator/(const char* name) const { return (path / name).string(); }
};

std::string savedQuilt(const Scratch& scratch) {
  const std::string folder = scratch / "quilt";
  EXPECT_TRUE(QuiltStore::create(realDisk(), folder, smallQuilt()));
  return folder;
}

std::vector<std::string> problemsOf(const std::string& folder) {
  auto opened = QuiltStore::open(realDisk(), folder, QuiltStore::Access::write);
  EXPECT_TRUE(opened);
  std::vector<std::string> texts;
  for (const Error& problem : opened->problems) texts.push_back(problem.text());
  return texts;
}

}  // namespace

TEST(RealDisk, WritesReadsRenamesAndRemoves) {
  const Scratch scratch;
  const auto disk = realDisk();
  ASSERT_TRUE(disk->makeFolder(scratch / "a/b"));
  ASSERT_TRUE(disk->write(scratch / "a/b/one", "tram"));
  ASSERT_TRUE(disk->rename(scratch / "a/b/one", scratch / "a/b/two"));
  EXPECT_EQ(disk->read(scratch / "a/b/two", 100).value(), "tram");
  EXPECT_EQ(disk->stamp(scratch / "a/b/two").value()->size, 4);
  EXPECT_EQ(disk->stamp(scratch / "a/b/one").value(), std::nullopt);
  EXPECT_EQ(disk->list(scratch / "a/b", 10).value().front().name, "two");
  ASSERT_TRUE(disk->syncFolder(scratch / "a/b"));
  ASSERT_TRUE(disk->remove(scratch / "a/b/two"));
  EXPECT_TRUE(disk->remove(scratch / "a/b/two"));
}

TEST(RealDisk, IsBounded) {
  const Scratch scratch;
  const auto disk = realDisk();
  ASSERT_TRUE(disk->write(scratch / "long", "0123456789"));
  ASSERT_TRUE(disk->write(scratch / "other", ""));
  EXPECT_EQ(disk->read(scratch / "long", 9).error().cause, Error::Cause::tooLarge);
  EXPECT_EQ(disk->list(scratch.path.string(), 1).error().cause, Error::Cause::tooLarge);
  EXPECT_EQ(disk->read(scratch.path.string(), 100).error().reason, "it is no file");
  EXPECT_EQ(disk->read(scratch / "none", 100).error().cause, Error::Cause::missing);
}

TEST(RealDisk, OneLockAtATime) {
  const Scratch scratch;
  const auto disk = realDisk();
  auto first = disk->lock(scratch / "lock");
  ASSERT_TRUE(first);
  EXPECT_EQ(disk->lock(scratch / "lock").error().cause, Error::Cause::inUse);
  first->reset();
  EXPECT_TRUE(disk->lock(scratch / "lock"));
}

TEST(RealDisk, AFullDiskSaysSo) {
  const auto written = realDisk()->write("/dev/full", "tram");
  ASSERT_FALSE(written);
  EXPECT_EQ(written.error().cause, Error::Cause::diskFull);
  EXPECT_EQ(written.error().reason, "the disk is full");
}

TEST(Links, ACellsFileThatLeadsOutOfTheQuiltIsNotRead) {
  const Scratch scratch;
  const std::string folder = savedQuilt(scratch);
  fs::rename(folder + "/maps/yard/paving.cells", scratch / "outside.cells");
  fs::create_symlink(scratch / "outside.cells", folder + "/maps/yard/paving.cells");
  EXPECT_THAT(problemsOf(folder), testing::ElementsAre(HasSubstr("maps/yard/paving.cells: it is a link")));
}

TEST(Links, AMapsFolderThatLeadsOutOfTheQuiltIsNotRead) {
  const Scratch scratch;
  const std::string folder = savedQuilt(scratch);
  fs::rename(folder + "/maps/yard", scratch / "outside");
  fs::create_directory_symlink(scratch / "outside", folder + "/maps/yard");
  EXPECT_THAT(problemsOf(folder), testing::ElementsAre(HasSubstr("maps/yard: it is a link")));
  fs::rename(folder + "/sheets", scratch / "sheets");
  fs::create_directory_symlink(scratch / "sheets", folder + "/sheets");
  EXPECT_THAT(problemsOf(folder), testing::Contains(HasSubstr("sheets: it is a link")));
}

}  // namespace uq::test
