// Targets of a quilt: as documents, as parts that are saved, and what an export folder knows of what was written.
#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include <filesystem>

#include "core/SavedQuilt.h"
#include "core/Support.h"
#include "core/edit/Targets.h"
#include "core/store/ExportFolder.h"
#include "core/store/ExportPlaces.h"
#include "core/store/ExportState.h"
#include "core/store/JsonText.h"
#include "core/store/TargetText.h"

namespace uq::test {

namespace {

Target anyTarget() {
  IdSource ids(*rc::gen::arbitrary<std::uint32_t>());
  Target target;
  target.id = ids.next();
  target.name = "Levels " + std::to_string(*rc::gen::inRange(0, 100));
  target.file = "levels";
  target.form = *rc::gen::elementOf(std::vector<TargetForm>(std::begin(kTargetForms), std::end(kTargetForms)));
  for (int n = *rc::gen::inRange(0, 4); n > 0; --n) target.maps.push_back(ids.next());
  target.folder = *rc::gen::element<std::string>("", "exports", "exports/a b/c", "game");
  if (target.form == TargetForm::json) target.cells = *rc::gen::element<std::string>("", "runs", "packed");
  target.of = *rc::gen::element(PictureOf::map, PictureOf::layer, PictureOf::screen);
  target.scale = *rc::gen::inRange(1, kLargestTargetScale + 1);
  target.hidden = *rc::gen::arbitrary<bool>();
  target.order = *rc::gen::element<std::string>("", "name", "use");
  target.columns = *rc::gen::inRange(0, kMostTargetColumns + 1);
  target.bleed = *rc::gen::inRange(0, kMostBleed + 1);
  target.powersOfTwo = *rc::gen::arbitrary<bool>();
  target.text = *rc::gen::element<std::string>("", "one line", "a\nb\n", "\n\n{{name}}\n  end", "quoted \"text\" \\ and\ttabs");
  target.naming = *rc::gen::element<std::string>("", "levels/{{id}}.h");
  target.ending = *rc::gen::element<std::string>("", ".lua");
  target.escape = *rc::gen::element<std::string>("", "c");
  return target;
}

// A folder that goes with the test.
struct Scratch {
  std::string path;
  Scratch() {
    char made[] = "/tmp/exports-XXXXXX";
    path = mkdtemp(made);
  }
  ~Scratch() { std::filesystem::remove_all(path); }
  Scratch(const Scratch&) = delete;
  Scratch& operator=(const Scratch&) = delete;
  bool has(const std::string& file) const { return std::filesystem::exists(path + "/" + file); }
};

}  // namespace

RC_GTEST_PROP(Targets, AreReadAsTheyWereWritten, ()) {
  const Target target = anyTarget();
  const auto json = readJson(writeJson(targetDocument(target)), "t");
  RC_ASSERT(json.has_value());
  auto read = readTargetDocument(*json, "t");
  RC_ASSERT(read.has_value());
  read->file = target.file;
  RC_ASSERT(*read == target);
  RC_ASSERT(writeJson(targetDocument(*read)) == writeJson(targetDocument(target)));
}

TEST(Targets, ThatLeaveTheQuiltOrWriteOverItAreNone) {
  for (const char* folder : {"../game", "/home/game", "maps", "sheets/out", "quilt.json", "a/../b", ".hidden", "a//b", "targets", "exports/"}) {
    EXPECT_FALSE(whyNoExportFolder(folder).empty()) << folder;
    Target target;
    target.name = "Out";
    target.folder = folder;
    EXPECT_FALSE(whyNoTarget(target).empty()) << folder;
    EXPECT_FALSE(readTargetDocument(targetDocument(target), "t").has_value()) << folder;
  }
  EXPECT_TRUE(whyNoExportFolder("exports/levels").empty());
  EXPECT_TRUE(whyNoExportFolder("mapsets").empty());
}

TEST(Targets, AreSavedWithTheQuiltAndFollowTheirNames) {
  Saved saved;
  Quilt quilt = saved.quilt;
  IdSource ids(3);
  const TargetAdded added = addTarget(quilt, newTarget(quilt, TargetForm::json), ids);
  ASSERT_FALSE(added.target.empty());
  const TargetAdded second = addTarget(added.quilt, newTarget(added.quilt, TargetForm::json), ids);
  quilt = second.quilt;
  EXPECT_NE(quilt.listed<Target>(added.target)->name, quilt.listed<Target>(second.target)->name);
  EXPECT_NE(quilt.listed<Target>(added.target)->folder, quilt.listed<Target>(second.target)->folder);
  ASSERT_TRUE(saved.store->save(quilt).has_value());
  EXPECT_NE(saved.file("targets/maps-for-the-game.json").find("\"form\": \"json\""), std::string::npos);
  const auto opened = saved.open();
  ASSERT_TRUE(opened.has_value());
  for (const Shared<Target>& one : quilt.all<Target>()) {
    const Target* read = opened->quilt.listed<Target>(one->id);
    ASSERT_TRUE(read) << one->name;
    EXPECT_EQ(writeJson(targetDocument(*read)), writeJson(targetDocument(one.read())));
    EXPECT_EQ(read->file, one->file);
    EXPECT_TRUE(*read == one.read());
  }
  // One that is removed loses its file, one that cannot be read stays where it is and is told.
  saved.store = std::make_unique<QuiltStore>(std::move(saved.open()->store));
  saved.file("targets/maps-for-the-game.json") = "{ no";
  const auto broken = saved.open();
  ASSERT_TRUE(broken.has_value());
  EXPECT_EQ(broken->quilt.all<Target>().size(), 1u);
  EXPECT_EQ(broken->problems.size(), 1u);
}

TEST(ExportFolder, WritesOnlyWhatChangesAndTakesAwayWhatIsGone) {
  const Scratch scratch;
  const auto disk = realDisk();
  const auto write = [&](const std::string& owner, const std::vector<std::pair<std::string, std::string>>& files) {
    ExportFolder folder(*disk, scratch.path, "t");
    folder.begin(owner, "Map " + owner);
    for (const auto& [path, bytes] : files) EXPECT_TRUE(folder.put(path, bytes).has_value());
    EXPECT_TRUE(folder.end("state").has_value());
    return folder;
  };
  EXPECT_THAT(write("a", {{"maps/a.json", "1"}, {"both.png", "p"}}).written(), testing::ElementsAre("maps/a.json", "both.png"));
  EXPECT_THAT(write("b", {{"maps/b.json", "2"}, {"both.png", "p"}}).same(), testing::ElementsAre("both.png"));
  EXPECT_TRUE(ExportFolder(*disk, scratch.path, "t").isOf("a", "state"));
  EXPECT_FALSE(ExportFolder(*disk, scratch.path, "t").isOf("a", "another"));
  EXPECT_THAT(write("a", {{"maps/a2.json", "1"}, {"both.png", "p"}}).removed(), testing::ElementsAre("maps/a.json"));
  ExportFolder folder(*disk, scratch.path, "t");
  const auto gone = folder.gone({"b"});
  ASSERT_EQ(gone.size(), 1u);
  EXPECT_EQ(gone[0].name, "Map a");
  EXPECT_TRUE(folder.takeAway(gone[0]).has_value());
  EXPECT_FALSE(scratch.has("maps/a2.json"));
  EXPECT_TRUE(scratch.has("both.png")) << "the other map has it, too";
  EXPECT_TRUE(scratch.has("maps/b.json"));
}

// Broken off in the middle, what is there is of no state that was: going back to the old one is written, too.
TEST(ExportFolder, AnExportThatIsBrokenOffIsDoneAgain) {
  MemoryDisk disk;
  const auto write = [&](const char* state, const char* bytes, bool ends) {
    ExportFolder folder(disk, "/game", "t");
    folder.begin("a", "A");
    EXPECT_TRUE(folder.put("a.json", bytes).has_value());
    if (ends) {
      EXPECT_TRUE(folder.end(state).has_value());
    }
  };
  write("old", "1", true);
  EXPECT_TRUE(ExportFolder(disk, "/game", "t").isOf("a", "old"));
  write("new", "2", false);
  EXPECT_FALSE(ExportFolder(disk, "/game", "t").isOf("a", "old"));
  EXPECT_EQ(ExportFolder(disk, "/game", "t").filesOf("a").size(), 1u) << "it still knows what it had";
  write("old", "1", true);
  EXPECT_TRUE(ExportFolder(disk, "/game", "t").isOf("a", "old"));
}

TEST(ExportFolder, LeavesWhatAnotherTargetWroteThere) {
  MemoryDisk disk;
  for (const char* target : {"t", "u"}) {
    ExportFolder folder(disk, "/game", target);
    folder.begin("a", "A");
    ASSERT_TRUE(folder.put("maps/a.json", "1").has_value());
    ASSERT_TRUE(folder.end("1").has_value());
  }
  for (const char* target : {"t", "u"}) {
    EXPECT_TRUE(disk.files.contains("/game/maps/a.json"));
    ExportFolder folder(disk, "/game", target);
    ASSERT_TRUE(folder.takeAway(folder.gone({}).at(0)).has_value());
  }
  EXPECT_FALSE(disk.files.contains("/game/maps/a.json"));
}

TEST(ExportFolder, LeavesWhatSomebodyChangedAndWhatIsOutside) {
  const Scratch scratch;
  const auto disk = realDisk();
  ExportFolder folder(*disk, scratch.path, "t");
  folder.begin("a", "A");
  EXPECT_FALSE(folder.put("../out.txt", "x").has_value());
  EXPECT_FALSE(folder.put("/tmp/out.txt", "x").has_value());
  ASSERT_TRUE(folder.put("a.txt", "x").has_value());
  ASSERT_TRUE(folder.end("1").has_value());
  ASSERT_TRUE(disk->write(scratch.path + "/a.txt", "mine").has_value());
  ExportFolder later(*disk, scratch.path, "t");
  EXPECT_FALSE(later.isOf("a", "1")) << "its size is another";
  ASSERT_TRUE(later.takeAway(later.gone({}).at(0)).has_value());
  EXPECT_THAT(later.left(), testing::ElementsAre("a.txt"));
  EXPECT_TRUE(scratch.has("a.txt"));
  // A book that leads elsewhere counts for nothing.
  ASSERT_TRUE(disk->write(scratch.path + "/.urban-quilt-export/t/b.json", R"({"document": "export-book", "version": "1.0", "name": "B", "state": "1", "files": [{"file": "../b", "size": 1, "sum": "1"}]})").has_value());
  EXPECT_TRUE(ExportFolder(*disk, scratch.path, "t").gone({}).empty());
}

// Wherever writing fails, a file is as it was or as it is to be, and what is said tells what to do.
TEST(ExportFolder, KeepsTheOldFilesWhereThereIsNoRoom) {
  for (const bool isLarge : {false, true}) {
    for (int at = 0;; ++at) {
      MemoryDisk disk;
      const auto write = [&](const std::string& bytes) -> Result<void> {
        ExportFolder folder(disk, "/game", "t");
        folder.begin("a", "A");
        auto done = isLarge ? folder.putMade("a.json", [&](const auto& add) { return add(bytes); }) : folder.put("a.json", bytes);
        return done ? folder.end("1") : done;
      };
      ASSERT_TRUE(write("old").has_value());
      disk.failAt = disk.changes + at;
      const auto done = write("new one");
      const std::string& there = disk.files.at("/game/a.json");
      EXPECT_TRUE(there == "old" || there == "new one") << there;
      for (const auto& [path, bytes] : disk.files) EXPECT_FALSE(path.ends_with(".new")) << path;
      if (done) {
        EXPECT_GE(at, 3);
        EXPECT_EQ(there, "new one");
        break;
      }
      EXPECT_FALSE(done.error().kept.empty());
      // What a later export finds is what lies there.
      disk.failAt = -1;
      ASSERT_TRUE(write("new one").has_value());
      EXPECT_EQ(disk.files.at("/game/a.json"), "new one");
    }
  }
}

// The same quilt gives the same word, whichever slots its sheets have; whatever comes out otherwise gives another.
TEST(ExportState, IsOfWhatAMapShowsAndNothingElse) {
  const Quilt quilt = smallQuilt();
  const Map& yard = *quilt.mapNamed("Yard");
  const std::string word = ExportStates(quilt, "json", true).of(yard);
  EXPECT_EQ(ExportStates(quilt, "json", true).of(yard), word);
  EXPECT_NE(ExportStates(quilt, "csv", true).of(yard), word);
  Map painted = yard;
  for (Shared<Layer>& layer : painted.layers) {
    if (layer->holdsTiles()) layer.edit([](Layer& one) { one.cells.set({0, 0}, Cell({kChalkSlot, 3}, {})); });
  }
  const Quilt other = quilt.with(painted);
  EXPECT_NE(ExportStates(other, "json", true).of(*other.map(yard.id)), word);
  Sheet sheet = quilt.sheets().front().read();
  sheet.tiles[1].name = "another name";
  const Quilt named = quilt.with(sheet);
  EXPECT_NE(ExportStates(named, "json", true).of(*named.map(yard.id)), word);
}

TEST(ExportPlaces, AreKeptOnThisMachineAndNeverLeadIntoTheQuilt) {
  const Scratch scratch;
  setenv("XDG_STATE_HOME", (scratch.path + "/state").c_str(), 1);
  const auto disk = realDisk();
  IdSource ids(4);
  ExportPlaces places;
  places.folders[ids.next()] = "/srv/game";
  places.command = "make levels";
  places.last = {ids.next()};
  ASSERT_TRUE(keepExportPlaces(*disk, scratch.path + "/quilt", places).has_value());
  EXPECT_EQ(exportPlaces(*disk, scratch.path + "/quilt"), places);
  EXPECT_EQ(exportPlaces(*disk, scratch.path + "/quilt/"), places) << "a slash makes no difference";
  EXPECT_EQ(exportPlaces(*disk, scratch.path + "/copy"), ExportPlaces()) << "a copy writes nothing over what the other wrote";
  Target target;
  target.id = places.folders.begin()->first;
  EXPECT_EQ(folderOf(places, "/q", target), "/srv/game");
  target.folder = "exports/a";
  EXPECT_EQ(folderOf(places, "/q", target), "/q/exports/a");
  unsetenv("XDG_STATE_HOME");
}

}  // namespace uq::test
