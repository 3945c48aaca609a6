// A quilt in one file: it comes back whole, the same bytes each time, and no zip from elsewhere does harm.
#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/Support.h"
#include "core/store/Archive.h"
#include "core/store/PackedDisk.h"
#include "core/store/PackedQuilt.h"

namespace uq::test {

namespace {

constexpr const char* kPackedPath = "/home/mail/yard.quilt";
using testing::HasSubstr;

std::string zipOf(const std::vector<std::pair<std::string, std::string>>& files) {
  Archive archive;
  for (const auto& [name, text] : files) EXPECT_TRUE(archive.add(name, text, Archive::How::packed)) << name;
  return archive.close().value_or(std::string());
}

// Why a zip is not opened; empty where it is.
std::string refusal(std::string bytes) {
  const auto opened = PackedDisk::open(std::move(bytes), kPackedPath);
  return opened ? std::string() : opened.error().text();
}

// `to`, of the same length, in the place of `from` everywhere.
std::string renamed(std::string bytes, const std::string& from, const std::string& to) {
  for (auto at = bytes.find(from); at != std::string::npos; at = bytes.find(from, at + 1)) {
    bytes.replace(at, from.size(), to);
  }
  return bytes;
}

// Where the entry of a file begins in the list at the end (APPNOTE 4.3.12).
std::size_t entryOf(const std::string& bytes, const std::string& name) {
  constexpr std::size_t kHead = 46;
  return bytes.rfind(name) - kHead;
}

const std::vector<std::pair<std::string, std::string>> kTwo = {{"quilt.json", "{}"}, {"sheets/a.tiles", "some text"}};

}  // namespace

TEST(PackedQuilts, ComeBackWithTheSameBytesAndArePackedTheSameAgain) {
  const Quilt quilt = smallQuilt();
  MemoryDisk disk;
  const auto first = packed(quilt);
  ASSERT_TRUE(first) << first.error().text();
  disk.put(kPackedPath, *first);
  const auto back = unpacked(disk, kPackedPath);
  ASSERT_TRUE(back) << back.error().text();
  EXPECT_EQ(bytes(back->quilt), bytes(quilt));
  const auto again = packed(back->quilt);
  ASSERT_TRUE(again);
  EXPECT_TRUE(*again == *first);
}

RC_GTEST_PROP(PackedQuilts, ComeBackWhateverIsInThem, ()) {
  const Quilt quilt = *editOf(smallQuilt());
  MemoryDisk disk;
  const auto file = packed(quilt);
  RC_ASSERT(file.has_value());
  disk.put(kPackedPath, *file);
  const auto back = unpacked(disk, kPackedPath);
  RC_ASSERT(back.has_value());
  RC_ASSERT(bytes(back->quilt) == bytes(quilt));
}

TEST(PackedQuilts, SayTheFileThatIsDamagedAndShowTheRest) {
  const Quilt quilt = smallQuilt();
  auto file = packed(quilt);
  ASSERT_TRUE(file);
  // The cells of the loft lie in the file before its entry in the list.
  const auto name = file->find("maps/loft/");
  ASSERT_NE(name, std::string::npos);
  const auto from = file->find(".cells", name) + 30;
  (*file)[from] = static_cast<char>((*file)[from] ^ 0x55);
  MemoryDisk disk;
  disk.put(kPackedPath, *file);
  const auto back = unpacked(disk, kPackedPath);
  ASSERT_TRUE(back) << back.error().text();
  ASSERT_FALSE(back->problems.empty());
  EXPECT_THAT(back->problems.front().text(), HasSubstr("loft"));
  EXPECT_NE(back->quilt.mapNamed("Yard"), nullptr);
}

TEST(PackedQuilts, AreRefusedWhereverTheyAreCutOff) {
  const auto file = packed(smallQuilt());
  ASSERT_TRUE(file);
  for (std::size_t size = 1; size < file->size(); size += 7) {
    EXPECT_THAT(refusal(file->substr(0, size)), HasSubstr("cut off")) << size;
  }
}

RC_GTEST_PROP(PackedQuilts, NeverHarmWhateverBytesAreWrong, ()) {
  static const std::string good = *packed(smallQuilt());
  std::string file = good;
  const int wrong = *rc::gen::inRange(1, 20);
  for (int i = 0; i < wrong; ++i) {
    file[*rc::gen::inRange<std::size_t>(0, file.size())] = static_cast<char>(*rc::gen::inRange(0, 256));
  }
  MemoryDisk disk;
  disk.put(kPackedPath, file);
  const int before = disk.changes;
  // It opens in parts, or not at all.
  const auto back = unpacked(disk, kPackedPath);
  const bool said = back.has_value() || !back.error().text().empty();
  RC_ASSERT(said);
  RC_ASSERT(disk.changes == before);
}

TEST(PackedQuilts, WithNamesThatLeadOutAreRefused) {
  EXPECT_EQ(refusal(zipOf(kTwo)), "");
  for (const char* name : {"../../a.tiles.", "/heets/a.tiles", "sheets\\a.tiles", "sheets/../a.ti"}) {
    EXPECT_THAT(refusal(renamed(zipOf(kTwo), "sheets/a.tiles", name)), HasSubstr("names a file outside")) << name;
  }
}

TEST(PackedQuilts, ShowOnlyFilesOfAQuilt) {
  auto files = kTwo;
  files.push_back({"run-me.sh", "echo"});
  files.push_back({".git/hooks/pre-commit", "echo"});
  const auto opened = PackedDisk::open(zipOf(files), kPackedPath);
  ASSERT_TRUE(opened) << opened.error().text();
  const auto names = (*opened)->list(kPackedPath, 10);
  ASSERT_TRUE(names);
  ASSERT_EQ(names->size(), 2u);
  EXPECT_EQ((*names)[0].name, "quilt.json");
  EXPECT_EQ((*names)[1].name, "sheets");
  EXPECT_FALSE((*opened)->read(std::string(kPackedPath) + "/run-me.sh", 100));
  EXPECT_FALSE((*opened)->write(std::string(kPackedPath) + "/quilt.json", "other"));
}

TEST(PackedQuilts, WithLinksAreRefused) {
  std::string file = zipOf(kTwo);
  const std::size_t at = entryOf(file, "sheets/a.tiles");
  file[at + 5] = 3;  // made on a system with links
  file[at + 41] = static_cast<char>(0xA1);
  EXPECT_THAT(refusal(file), HasSubstr("it has a link"));
}

TEST(PackedQuilts, WithTwoFilesOfOneNameAreRefused) {
  auto files = kTwo;
  files.push_back({"sheets/b.tiles", "other text"});
  EXPECT_THAT(refusal(renamed(zipOf(files), "sheets/b.tiles", "sheets/a.tiles")),
              testing::AnyOf(HasSubstr("two files of one name"), HasSubstr("cut off")));
}

TEST(PackedQuilts, OfWhichTooMuchWouldComeAreRefused) {
  auto files = kTwo;
  files.push_back({"sheets/large.tiles", std::string(std::size_t{100} << 20, ' ')});
  EXPECT_THAT(refusal(zipOf(files)), HasSubstr("too much would come of it"));
}

TEST(PackedQuilts, WithoutAQuiltSaySo) {
  EXPECT_THAT(refusal(zipOf({{"sheets/a.tiles", "some text"}})), HasSubstr("quilt.json is missing"));
  EXPECT_THAT(refusal("not a zip at all"), HasSubstr("no packed quilt"));
}

// A disk that is full, or gone, at any step leaves the old pack or the new one, and the next try succeeds.
TEST(PackedQuilts, AreWrittenWholeOrNotAtAllWhereTheDiskFails) {
  const std::string before = *packed(smallQuilt());
  const std::string after = *packed(smallQuilt().without<Map>(smallQuilt().mapNamed("Loft")->id));
  int kept = 0;
  for (const bool stops : {false, true}) {
    for (int step = 0;; ++step) {
      MemoryDisk disk;
      disk.folders.insert({"/home", "/home/mail"});
      disk.put(kPackedPath, before);
      disk.failAt = disk.changes + step;
      disk.stopsThere = stops;
      const auto written = writeWhole(disk, kPackedPath, after);
      const bool reached = disk.changes > disk.failAt;
      if (!written) {
        EXPECT_EQ(written.error().cause, Error::Cause::diskFull);
      }
      disk.failAt = -1;
      disk.stopsThere = false;
      const auto there = unpacked(disk, kPackedPath);
      ASSERT_TRUE(there) << there.error().text();
      EXPECT_TRUE(disk.files.at(kPackedPath) == (written ? after : before) || stops) << "step " << step;
      kept += disk.files.at(kPackedPath) == before ? 1 : 0;
      EXPECT_TRUE(writeWhole(disk, kPackedPath, after));
      EXPECT_EQ(disk.files.at(kPackedPath), after);
      if (!reached) break;
    }
  }
  EXPECT_GT(kept, 2);
}

// The same where one is unpacked: a folder in which it failed opens as the whole quilt, or can be unpacked into again; one
// in which the program ended may hold something, so it is left alone.
TEST(PackedQuilts, AreUnpackedWholeOrNotAtAllWhereTheDiskFails) {
  int refused = 0;
  for (const bool stops : {false, true}) {
    for (int step = 0;; ++step) {
      auto disk = std::make_shared<MemoryDisk>();
      disk->folders.insert({"/home", "/home/mail"});
      disk->put(kPackedPath, *packed(smallQuilt()));
      const auto read = unpacked(*disk, kPackedPath);
      ASSERT_TRUE(read);
      disk->failAt = disk->changes + step;
      disk->stopsThere = stops;
      const bool made = QuiltStore::create(disk, "/home/mail/yard", read->quilt).has_value();
      const bool reached = disk->changes > disk->failAt;
      disk->failAt = -1;
      disk->stopsThere = false;
      refused += made ? 0 : 1;
      auto opened = QuiltStore::open(disk, "/home/mail/yard", QuiltStore::Access::write);
      if (opened) {
        EXPECT_EQ(bytes(opened->quilt), bytes(smallQuilt())) << "step " << step;
        EXPECT_TRUE(opened->problems.empty()) << "step " << step;
      } else {
        EXPECT_FALSE(made);
        const auto again = QuiltStore::create(disk, stops ? "/home/mail/other" : "/home/mail/yard", read->quilt);
        EXPECT_TRUE(again) << "step " << step << ": " << again.error().text();
      }
      EXPECT_TRUE(unpacked(*disk, kPackedPath));
      if (!reached) break;
    }
  }
  EXPECT_GT(refused, 4);
}

TEST(PackedQuilts, AreCancelledWithoutAFile) {
  Progress progress;
  progress.cancel();
  const auto file = packed(smallQuilt(), &progress);
  ASSERT_FALSE(file);
  EXPECT_EQ(file.error().cause, Error::Cause::cancelled);
}

}  // namespace uq::test
