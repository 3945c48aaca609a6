// "Saved" means that it opens again, whatever others do to the folder meanwhile, and nothing that could not be read is
// ever overwritten.
#include <gmock/gmock.h>

#include "core/Support.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/ArrangeSheets.h"
#include "core/edit/ArrangeStamps.h"
#include "core/edit/LayCells.h"
#include "core/store/Journal.h"
#include "core/store/QuiltStore.h"

namespace uq::test {
namespace {

using testing::Contains;
using testing::HasSubstr;
using testing::IsEmpty;
using testing::Not;

const std::string kSavedFolder = "/quilts/copperline";

// A disk in memory on which somebody else does something, once, right before a path is read or written.
class SharedDisk : public MemoryDisk {
 public:
  std::string before;
  std::function<void()> happens;

  Result<std::string> read(const std::string& path, std::int64_t most) override {
    meet(path);
    return MemoryDisk::read(path, most);
  }
  Result<void> write(const std::string& path, std::string_view bytes) override {
    meet(path);
    return MemoryDisk::write(path, bytes);
  }
  Result<void> rename(const std::string& from, const std::string& to) override {
    return to.ends_with(stuck) && !stuck.empty() ? fail(Error::Cause::notPermitted, "renaming failed", to)
                                                 : MemoryDisk::rename(from, to);
  }
  std::string stuck;  // a file that can never be replaced

 private:
  void meet(const std::string& path) {
    if (happens && path == kSavedFolder + "/" + before) std::exchange(happens, {})();
  }
};

class SavedOpens : public testing::Test {
 protected:
  SavedOpens() {
    IdSource ids(5);
    Quilt made = smallQuilt();
    made = keepStamp(made, InHand(Block::of(tileOf(made, "street", 2))), "pair", ids).quilt;
    auto created = QuiltStore::create(disk, kSavedFolder, made);
    EXPECT_TRUE(created) << created.error().text();
    quilt = created->quilt;
    store.emplace(std::move(created->store));
  }
  void reopen(QuiltStore::Access access = QuiltStore::Access::write) {
    store.reset();
    auto opened = QuiltStore::open(disk, kSavedFolder, access);
    ASSERT_TRUE(opened) << opened.error().text();
    problems = std::move(opened->problems);
    quilt = std::move(opened->quilt);
    store.emplace(std::move(opened->store));
  }
  std::string& file(const std::string& path) { return disk->files.at(kSavedFolder + "/" + path); }
  bool has(const std::string& path) const { return disk->files.contains(kSavedFolder + "/" + path); }
  void lose(const std::string& path) { disk->files.erase(kSavedFolder + "/" + path); }
  Quilt painted(const char* map = "Yard", const char* layer = "Sheds", CellPos at = {1, 2}) const {
    const CellChange one{at, tileOf(quilt, "rails", 3)};
    return layCells(quilt, layerOf(quilt, map, layer), std::span(&one, 1));
  }
  std::string opened() {
    reopen();
    EXPECT_THAT(problems, IsEmpty());
    return bytes(quilt);
  }

  std::shared_ptr<SharedDisk> disk = std::make_shared<SharedDisk>();
  Quilt quilt;
  std::optional<QuiltStore> store;
  Errors problems;
};

TEST_F(SavedOpens, WhatIsMissingIsWrittenAgain) {
  const Quilt after = painted();
  for (const char* path : {"maps/yard/paving.cells", "maps/yard/map.json", "maps/loft/floor.cells", "maps/loft/map.json",
                           "sheets/rails.json", "sheets/street.png", "stamps/pair/stamp.json", "stamps/pair/tiles.cells"}) {
    lose(path);
  }
  const auto saved = store->save(after);
  ASSERT_TRUE(saved) << saved.error().text();
  EXPECT_EQ(opened(), bytes(after));
}

TEST_F(SavedOpens, AMapThatNamesOtherFilesByNowIsNotPaintedOver) {
  std::string& document = file("maps/yard/map.json");
  document.replace(document.find("sheds.cells"), 11, "depot.cells");
  disk->put(kSavedFolder + "/maps/yard/map.json", document);
  disk->put(kSavedFolder + "/maps/yard/depot.cells", file("maps/yard/sheds.cells"));
  const auto files = disk->quiltFiles();
  const auto saved = store->save(painted());
  ASSERT_FALSE(saved);
  EXPECT_EQ(saved.error().cause, Error::Cause::changedOutside);
  EXPECT_EQ(saved.error().file, "maps/yard/map.json");
  EXPECT_EQ(disk->quiltFiles(), files);
  // Another map is nobody's business.
  EXPECT_TRUE(store->save(painted("Loft", "Floor")));
}

TEST_F(SavedOpens, ThePrivateFolderMayGoWhileTheQuiltIsOpen) {
  for (const char* path : {".urban-quilt/lock", ".urban-quilt/.gitignore"}) lose(path);
  disk->folders.erase(kSavedFolder + "/.urban-quilt");
  const Quilt after = painted();
  const auto saved = store->save(after);
  ASSERT_TRUE(saved) << saved.error().text();
  EXPECT_TRUE(has(".urban-quilt/.gitignore"));
  EXPECT_EQ(opened(), bytes(after));
}

// Another window took the lock while ours lay on a file that is gone: nothing is written beside it, however often one
// tries, until it lets go.
TEST_F(SavedOpens, ALockThatIsGoneIsTakenAgainBeforeAnythingIsWritten) {
  disk->loseLocks();
  disk->lockedElsewhere = true;
  const auto files = disk->quiltFiles();
  for (int tries = 0; tries < 3; ++tries) {
    const auto saved = store->save(painted());
    ASSERT_FALSE(saved) << tries;
    EXPECT_EQ(saved.error().cause, Error::Cause::inUse);
    EXPECT_EQ(disk->quiltFiles(), files) << tries;
  }
  disk->lockedElsewhere = false;
  const Quilt after = painted();
  ASSERT_TRUE(store->save(after));
  EXPECT_EQ(opened(), bytes(after));
}

// What a save that was cut off left behind goes, and nothing else that is hidden.
TEST_F(SavedOpens, HiddenFilesOfOthersStay) {
  const std::vector<std::string> others = {".env.new", "maps/yard/.notes.txt.new",
                                           "maps/.list.new", "stamps/pair/.map.json.new"};
  const std::vector<std::string> ours = {".quilt.json.new", "sheets/.street.png.new", "maps/yard/.sheds.cells.new",
                                         "maps/yard/.map.json.new", "stamps/pair/.stamp.json.new"};
  for (const auto* paths : {&others, &ours}) {
    for (const std::string& path : *paths) disk->put(kSavedFolder + "/" + path, "kept");
  }
  reopen();
  for (const std::string& path : others) EXPECT_TRUE(has(path)) << path;
  for (const std::string& path : ours) EXPECT_FALSE(has(path)) << path;
}

TEST_F(SavedOpens, WhatAnotherProgramWritesDuringASaveStays) {
  disk->before = "maps/yard/.sheds.cells.new";
  disk->happens = [this] { disk->put(kSavedFolder + "/maps/yard/sheds.cells", "cells 1\n@0,0\nend\n"); };
  const auto saved = store->save(painted());
  ASSERT_FALSE(saved);
  EXPECT_EQ(saved.error().cause, Error::Cause::changedOutside);
  EXPECT_EQ(file("maps/yard/sheds.cells"), "cells 1\n@0,0\nend\n");
  EXPECT_FALSE(has("maps/yard/.sheds.cells.new"));
  EXPECT_FALSE(has(".urban-quilt/journal"));
}

TEST_F(SavedOpens, WhatCouldNotBeReadKeepsItsNameItsIdAndItsBytes) {
  const Id yard = quilt.mapNamed("Yard")->id;
  for (const char* path : {"maps/yard/map.json", "sheets/rails.json", "stamps/pair/stamp.json"}) {
    disk->put(kSavedFolder + "/" + path, "<<<<<<< ours\n" + file(path));
  }
  const auto before = disk->quiltFiles();
  reopen();
  EXPECT_EQ(problems.size(), 3u);
  EXPECT_FALSE(store->isWhole());
  EXPECT_TRUE(quilt.knows(yard));
  IdSource ids(5);
  Quilt after = addMap(quilt, {"Yard", {GridKind::orthogonal, {32, 32}}, 4, 4}, ids).quilt;
  after = keepStamp(after, InHand(Block::of(tileOf(after, "street", 2))), "pair", ids).quilt;
  Sheet sheet = after.sheets().front().read();
  sheet.name = "rails";
  sheet.picture = {};
  after = addSheet(after, sheet, "rails.png", ids).quilt;
  EXPECT_EQ(after.mapNamed("Yard")->folder, "yard-2");
  const auto saved = store->save(after);
  ASSERT_TRUE(saved) << saved.error().text();
  for (const auto& [path, text] : before) {
    if (path == kSavedFolder + "/quilt.json") continue;
    EXPECT_EQ(disk->files.at(path), text) << path;
  }
  // Whatever an edit thinks up, its files are not those.
  Map map = *after.mapNamed("Yard");
  map.id = ids.next();
  map.name = "Other yard";
  map.folder = "yard";
  const auto refused = store->save(after.with(map));
  ASSERT_FALSE(refused);
  EXPECT_THAT(refused.error().text(), HasSubstr("could not be read"));
  EXPECT_EQ(file("maps/yard/map.json"), before.at(kSavedFolder + "/maps/yard/map.json"));
}

TEST_F(SavedOpens, ReadersFinishNoSaveAndReadThroughIt) {
  const Quilt after = painted();
  disk->stuck = "maps/yard/sheds.cells";
  ASSERT_FALSE(store->save(after)) << "committed, and not finished";
  const auto files = disk->files;
  reopen(QuiltStore::Access::read);
  EXPECT_EQ(bytes(quilt), bytes(after));
  EXPECT_EQ(disk->files, files) << "reading changes nothing";
  // Who may write cannot finish it either: looked at, not changed, and told.
  reopen();
  EXPECT_EQ(bytes(quilt), bytes(after));
  ASSERT_TRUE(store->readOnly());
  EXPECT_THAT(store->readOnly()->text(), HasSubstr("sheds.cells"));
  // When nothing stands in its way any more, the next one does.
  disk->stuck.clear();
  EXPECT_EQ(opened(), bytes(after));
  EXPECT_FALSE(has(".urban-quilt/journal"));
}

TEST_F(SavedOpens, AReaderSeesOneStateAlsoWhileSomebodySaves) {
  const std::string old = bytes(quilt);
  for (const char* path : {"maps/loft/map.json", "maps/yard/map.json", "maps/yard/sheds.cells", "sheets/street.json"}) {
    const Quilt after = [&] {
      const Quilt once = painted("Yard", "Sheds", {path[5] % 7, 2});
      const CellChange one{{1, path[5] % 5}, tileOf(quilt, "rails", 2)};
      return layCells(once, layerOf(once, "Loft", "Floor"), std::span(&one, 1));
    }();
    disk->before = path;
    disk->happens = [&] { EXPECT_TRUE(store->save(after)); };
    const auto read = QuiltStore::open(disk, kSavedFolder, QuiltStore::Access::read);
    ASSERT_TRUE(read);
    EXPECT_EQ(bytes(read->quilt), bytes(after)) << "read anew after the save, which came at " << path;
    quilt = after;
  }
}

TEST_F(SavedOpens, TheOutermostCellsOpenAgain) {
  Map map = *quilt.mapNamed("Yard");
  map.grid.cell = {8, 8};
  map.bounds = {-kFarthestCell, -kFarthestCell, kFarthestCell, kFarthestCell};
  Quilt after = quilt.with(map);
  std::vector<CellChange> corners;
  for (const int x : {-kFarthestCell, kFarthestCell - 1}) {
    for (const int y : {-kFarthestCell, kFarthestCell - 1}) corners.push_back({{x, y}, tileOf(quilt, "street", 1)});
  }
  after = layCells(after, layerOf(after, "Yard", "Sheds"), corners);
  const auto saved = store->save(after);
  ASSERT_TRUE(saved) << saved.error().text();
  EXPECT_EQ(opened(), bytes(after));
}

// What its reader would refuse is found before anything is written over.
TEST_F(SavedOpens, WhatCouldNotBeReadBackIsNotSaved) {
  const auto files = disk->quiltFiles();
  const auto refused = [&](const Quilt& after, const char* why) {
    const auto saved = store->save(after);
    ASSERT_FALSE(saved) << why;
    EXPECT_THAT(saved.error().text(), HasSubstr(why));
    EXPECT_THAT(saved.error().text(), HasSubstr("your work is still in the window"));
    EXPECT_EQ(disk->quiltFiles(), files);
    EXPECT_FALSE(has(".urban-quilt/journal"));
  };
  const CellChange sixth{{1, 1}, tileOf(quilt, "street", 3, Turn{false, 5})};
  refused(layCells(quilt, layerOf(quilt, "Yard", "Sheds"), std::span(&sixth, 1)), "turn letter");
  Map map = *quilt.mapNamed("Yard");
  map.name = std::string(1001, 'x');
  refused(quilt.with(map), "1000");
  Sheet large = quilt.sheets().front().read();
  large.pictureSize = {10'000, 8'000};
  large.cut.cell = {16, 16};
  refused(quilt.with(large), "262,144");
}

TEST_F(SavedOpens, ARenamedMapLeavesNoFolderBehind) {
  const Id yard = quilt.mapNamed("Yard")->id;
  const Quilt after = renameMap(quilt, yard, "Depot");
  ASSERT_TRUE(store->save(after));
  EXPECT_FALSE(disk->folders.contains(kSavedFolder + "/maps/yard"));
  EXPECT_TRUE(disk->folders.contains(kSavedFolder + "/maps/depot"));
  EXPECT_EQ(opened(), bytes(after));
}

TEST_F(SavedOpens, AFailingFirstWriteLeavesNothing) {
  const Quilt after = painted();
  for (int step = 0; step < 12; ++step) {
    disk->failAt = disk->changes + step;
    const auto saved = store->save(after);
    disk->failAt = -1;
    if (saved) break;
    EXPECT_FALSE(has(".urban-quilt/journal.new")) << step;
    EXPECT_FALSE(saved.error().text().empty());
  }
}

}  // namespace
}  // namespace uq::test
