#include <gtest/gtest.h>

#include "core/Support.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Levels.h"
#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

namespace {

using testing::ElementsAre;
using testing::HasSubstr;
using testing::IsEmpty;
using testing::UnorderedElementsAre;

const std::string kFolder = "/quilts/copperline";

struct Saved {
  std::shared_ptr<MemoryDisk> disk = std::make_shared<MemoryDisk>();
  Quilt quilt;
  std::unique_ptr<QuiltStore> store;

  Saved() {
    auto created = QuiltStore::create(disk, kFolder, smallQuilt());
    EXPECT_TRUE(created) << created.error().text();
    quilt = created->quilt;
    store = std::make_unique<QuiltStore>(std::move(created->store));
    disk->written.clear();
  }

  std::string& file(const std::string& path) { return disk->files.at(kFolder + "/" + path); }
  Quilt painted(const char* map = "Yard", const char* layer = "Sheds") const {
    const std::vector<CellChange> one = {{{1, 2}, tileOf(quilt, "rails", 3)}};
    return layCells(quilt, layerOf(quilt, map, layer), one);
  }
  Result<QuiltStore::Opened> open(QuiltStore::Access access = QuiltStore::Access::write) {
    store.reset();
    return QuiltStore::open(disk, kFolder, access);
  }
  // Without the temporary names of a save.
  std::vector<std::string> names(const std::vector<std::string>& paths) const {
    std::vector<std::string> names;
    for (const std::string& path : paths) {
      if (path.find(".urban-quilt") == std::string::npos) names.push_back(path.substr(kFolder.size() + 1));
    }
    return names;
  }
};

}  // namespace

TEST(QuiltStore, AfterOneStrokeExactlyOneCellsFileIsWritten) {
  Saved saved;
  const auto done = saved.store->save(saved.painted());
  ASSERT_TRUE(done) << done.error().text();
  EXPECT_THAT(done->written, ElementsAre("maps/yard/sheds.cells"));
  EXPECT_THAT(saved.names(saved.disk->written), ElementsAre("maps/yard/.sheds.cells.new"));
}

TEST(QuiltStore, AfterRenamingALayerTheMapIsWrittenAndItsCellsFileRenamed) {
  Saved saved;
  const Quilt renamed = renameLayer(saved.quilt, layerOf(saved.quilt, "Yard", "Sheds"), "Depot");
  const auto done = saved.store->save(renamed);
  ASSERT_TRUE(done) << done.error().text();
  EXPECT_THAT(done->written, ElementsAre("maps/yard/map.json"));
  EXPECT_THAT(done->moved, ElementsAre("maps/yard/depot.cells"));
  EXPECT_THAT(done->removed, IsEmpty());
  EXPECT_FALSE(saved.disk->files.contains(kFolder + "/maps/yard/sheds.cells"));
  EXPECT_EQ(bytes(saved.open()->quilt), bytes(renamed));
}

TEST(QuiltStore, LayersThatSwapTheirNamesKeepTheirCells) {
  Saved saved;
  const LayerAt sheds = layerOf(saved.quilt, "Yard", "Sheds");
  const LayerAt paving = layerOf(saved.quilt, "Yard", "Paving");
  Layer a = *saved.quilt.layer(sheds);
  Layer b = *saved.quilt.layer(paving);
  std::swap(a.name, b.name);
  std::swap(a.file, b.file);
  const Quilt swapped = saved.quilt.with(sheds, a).with(paving, b);
  ASSERT_TRUE(saved.store->save(swapped));
  EXPECT_EQ(bytes(saved.open()->quilt), bytes(swapped));
}

TEST(QuiltStore, SavingWhatIsSavedWritesNothing) {
  Saved saved;
  EXPECT_TRUE(saved.store->isSaved(saved.quilt));
  ASSERT_TRUE(saved.store->save(saved.quilt));
  EXPECT_THAT(saved.disk->written, IsEmpty());
  const Quilt painted = saved.painted();
  EXPECT_FALSE(saved.store->isSaved(painted));
  ASSERT_TRUE(saved.store->save(painted));
  EXPECT_TRUE(saved.store->isSaved(painted));
}

TEST(QuiltStore, AMapOrSheetThatIsGoneLeavesNoFiles) {
  Saved saved;
  const Quilt less = saved.quilt.without<Map>(saved.quilt.mapNamed("Loft")->id);
  const auto done = saved.store->save(less);
  ASSERT_TRUE(done);
  EXPECT_THAT(done->removed, UnorderedElementsAre("maps/loft/map.json", "maps/loft/floor.cells"));
  EXPECT_EQ(bytes(saved.open()->quilt), bytes(less));
}

RC_GTEST_PROP(QuiltStore, SaveLoadSaveGivesTheSameBytes, ()) {
  Saved saved;
  Quilt quilt = saved.quilt;
  for (int i = 0, n = *rc::gen::inRange(1, 5); i < n; ++i) {
    quilt = *editOf(quilt);
    RC_ASSERT(saved.store->save(quilt).has_value());
  }
  const auto before = saved.disk->quiltFiles();
  const auto opened = saved.open();
  RC_ASSERT(opened.has_value());
  RC_ASSERT(opened->problems.empty());
  RC_ASSERT(bytes(opened->quilt) == bytes(quilt));
  // The whole quilt written anew elsewhere: the same names, the same bytes.
  const auto copy = QuiltStore::create(saved.disk, "/copy", opened->quilt);
  RC_ASSERT(copy.has_value());
  for (const auto& [path, bytes] : before) {
    RC_ASSERT(saved.disk->files.at("/copy" + path.substr(kFolder.size())) == bytes);
  }
}

TEST(QuiltStore, KeepsFieldsThatItDoesNotKnow) {
  Saved saved;
  std::string& map = saved.file("maps/yard/map.json");
  map.replace(map.find("\"bounds\""), 0, "\"weather\": {\"rain\": 0.250, \"wind\": [1, 2]},\n  ");
  std::string& layer = saved.file("maps/yard/map.json");
  layer.replace(layer.find("\"cells\": \"sheds.cells\""), 0, "\"shimmer\": 0.5, ");
  std::string& sheet = saved.file("sheets/street.json");
  sheet.replace(sheet.find("{\"number\": 0"), 0, "{\"number\": 3, \"smell\": \"tar\"},\n    ");
  auto opened = saved.open();
  ASSERT_TRUE(opened);
  EXPECT_THAT(opened->problems, IsEmpty());
  Sheet street = *opened->quilt.sheetAt(tileOf(opened->quilt, "street", 0).tile().slot);
  street.tiles[1].name = "kerb";
  ASSERT_TRUE(opened->store.save(opened->quilt.with(street)));
  EXPECT_THAT(saved.file("sheets/street.json"), HasSubstr("{\"number\": 3, \"smell\": \"tar\"}\n"));
  EXPECT_THAT(saved.file("sheets/street.json"), HasSubstr("{\"number\": 1, \"name\": \"kerb\"},\n"));
  opened = saved.open();
  const Quilt renamed = renameLayer(opened->quilt, layerOf(opened->quilt, "Yard", "Paving"), "Ground");
  ASSERT_TRUE(opened->store.save(renamed));
  EXPECT_THAT(saved.file("maps/yard/map.json"),
              HasSubstr("\"weather\": {\n    \"rain\": 0.250,\n    \"wind\": [1, 2]\n  }"));
  EXPECT_THAT(saved.file("maps/yard/map.json"), HasSubstr("\"cells\": \"sheds.cells\", \"shimmer\": 0.5}"));
}

TEST(QuiltStore, IgnoresItselfInVersionControl) {
  Saved saved;
  EXPECT_EQ(saved.file(".urban-quilt/.gitignore"), "*\n");
}

// Whatever step of a save fails or is the last that happens, the next opener finds the old quilt or the new one, whole.
TEST(QuiltStore, ASaveCutShortAtAnyStepIsTheOldOrTheNewQuilt) {
  for (const bool stops : {false, true}) {
    int outcomes[2] = {0, 0};
    for (int step = 0;; ++step) {
      Saved saved;
      Quilt next = saved.painted();
      next = renameLayer(next, layerOf(next, "Yard", "Paving"), "Ground");
      next = next.without<Map>(next.mapNamed("Loft")->id);
      saved.disk->changes = 0;
      saved.disk->failAt = step;
      saved.disk->stopsThere = stops;
      const auto done = saved.store->save(next);
      const bool reached = saved.disk->changes > step;
      saved.disk->failAt = -1;
      if (!reached) {
        EXPECT_TRUE(done);
        EXPECT_GT(step, 8);
        break;
      }
      EXPECT_FALSE(done) << step;
      EXPECT_EQ(done.error().cause, Error::Cause::diskFull);
      EXPECT_NE(done.error().kept, "");
      const Quilt old = saved.quilt;
      const auto opened = saved.open();
      ASSERT_TRUE(opened) << step << ": " << opened.error().text();
      EXPECT_THAT(opened->problems, IsEmpty()) << step;
      const bool isNew = bytes(opened->quilt) == bytes(next);
      EXPECT_TRUE(isNew || bytes(opened->quilt) == bytes(old)) << "a mix after step " << step;
      ++outcomes[isNew ? 1 : 0];
      for (const auto& [path, bytes] : saved.disk->files) {
        EXPECT_FALSE(path.ends_with(".new") && path.find(".urban-quilt") == std::string::npos) << path;
      }
    }
    EXPECT_GT(outcomes[0], 0);
    EXPECT_GT(outcomes[1], 0);
  }
}

TEST(QuiltStore, ACancelledSaveLeavesTheOldQuiltAndTheNextOneSucceeds) {
  Saved saved;
  Progress progress;
  progress.cancel();
  const auto files = saved.disk->quiltFiles();
  const auto done = saved.store->save(saved.painted(), &progress);
  ASSERT_FALSE(done);
  EXPECT_EQ(done.error().cause, Error::Cause::cancelled);
  EXPECT_NE(done.error().kept, "");
  EXPECT_EQ(saved.disk->quiltFiles(), files);
  Progress wanted;
  EXPECT_TRUE(saved.store->save(saved.painted(), &wanted));
  EXPECT_EQ(wanted.perMille(), 1000);
}

TEST(QuiltStore, OpeningTellsHowFarItIsAndCanBeCancelled) {
  Saved saved;
  saved.store.reset();
  Progress progress;
  ASSERT_TRUE(QuiltStore::open(saved.disk, kFolder, QuiltStore::Access::read, &progress));
  EXPECT_GT(progress.perMille(), 0);
  progress.cancel();
  const auto opened = QuiltStore::open(saved.disk, kFolder, QuiltStore::Access::read, &progress);
  ASSERT_FALSE(opened);
  EXPECT_EQ(opened.error().cause, Error::Cause::cancelled);
}

TEST(QuiltStore, AnOnlookerSeesTheWantedMapWholeAndTheOthersComing) {
  Saved saved;
  ASSERT_TRUE(saved.store->save(saved.painted()));
  saved.store.reset();
  const Id yard = saved.quilt.mapNamed("Yard")->id;
  const Id loft = saved.quilt.mapNamed("Loft")->id;
  for (const Id wanted : {yard, loft}) {
    const Id other = wanted == yard ? loft : yard;
    std::vector<QuiltSight> seen;
    Onlooker onlooker;
    onlooker.worth = 0;
    onlooker.first = [&](const Quilt& quilt) {
      EXPECT_EQ(quilt.maps().size(), 2u);
      EXPECT_TRUE(quilt.map(yard)->layerNamed("Sheds")->cells.empty()) << "asked before any cell is read";
      return wanted;
    };
    onlooker.see = [&](QuiltSight sight) { seen.push_back(std::move(sight)); };
    const auto opened = QuiltStore::open(saved.disk, kFolder, QuiltStore::Access::write, nullptr, onlooker);
    ASSERT_TRUE(opened);
    ASSERT_EQ(seen.size(), 1u) << "not after the last";
    EXPECT_THAT(seen[0].coming, ElementsAre(other));
    EXPECT_EQ(*seen[0].quilt.map(wanted), *opened->quilt.map(wanted));
    EXPECT_EQ(seen[0].quilt.sheets(), opened->quilt.sheets());
    EXPECT_EQ(bytes(opened->quilt), bytes(saved.painted()));
  }
}

TEST(QuiltStore, AnOnlookerIsToldOfDamageAndOfNothingThatIsReadInNoTime) {
  Saved saved;
  saved.file("maps/yard/sheds.cells") += "no cells at all";
  Onlooker onlooker;
  int seen = 0;
  const Id yard = saved.quilt.mapNamed("Yard")->id;
  onlooker.first = [&](const Quilt&) { return yard; };
  onlooker.see = [&](const QuiltSight& sight) {
    ++seen;
    EXPECT_TRUE(sight.damaged.contains(yard));
  };
  saved.store.reset();
  ASSERT_TRUE(QuiltStore::open(saved.disk, kFolder, QuiltStore::Access::write, nullptr, onlooker));
  EXPECT_EQ(seen, 0);
  onlooker.worth = 0;
  ASSERT_TRUE(QuiltStore::open(saved.disk, kFolder, QuiltStore::Access::write, nullptr, onlooker));
  EXPECT_EQ(seen, 1);
}

TEST(QuiltStore, AfterAFailureTheNextSaveSucceeds) {
  for (int step = 0; step < 12; ++step) {
    Saved saved;
    const Quilt next = saved.painted();
    saved.disk->changes = 0;
    saved.disk->failAt = step;
    (void)saved.store->save(next);
    saved.disk->failAt = -1;
    const auto again = saved.store->save(saved.painted("Yard", "Awnings"));
    ASSERT_TRUE(again) << step << ": " << again.error().text();
    EXPECT_EQ(bytes(saved.open()->quilt), bytes(saved.painted("Yard", "Awnings"))) << step;
  }
}

TEST(QuiltStore, ReadsThroughAnUnfinishedSaveThatItMayNotFinish) {
  Saved saved;
  Quilt next = renameLayer(saved.painted(), layerOf(saved.quilt, "Yard", "Paving"), "Ground");
  next = next.without<Map>(next.mapNamed("Loft")->id);
  saved.disk->changes = 0;
  saved.disk->stopsThere = true;
  // The step after the commit is the first that carries the save out.
  for (saved.disk->failAt = 0;; ++saved.disk->failAt) {
    saved.disk->changes = 0;
    (void)saved.store->save(next);
    if (saved.disk->files.contains(kFolder + "/.urban-quilt/journal")) break;
    ASSERT_LT(saved.disk->failAt, 30);
  }
  saved.disk->failAt = -1;
  saved.disk->readOnly = true;
  const auto files = saved.disk->files;
  const auto opened = saved.open(QuiltStore::Access::read);
  ASSERT_TRUE(opened) << opened.error().text();
  EXPECT_EQ(bytes(opened->quilt), bytes(next));
  EXPECT_EQ(saved.disk->files, files);
}

TEST(QuiltStore, RefusesToOverwriteWhatAnotherProgramWrote) {
  Saved saved;
  saved.disk->put(kFolder + "/maps/yard/sheds.cells", "cells 1\nend\n# pulled meanwhile\n");
  const auto files = saved.disk->files;
  const auto done = saved.store->save(saved.painted());
  ASSERT_FALSE(done);
  EXPECT_EQ(done.error().cause, Error::Cause::changedOutside);
  EXPECT_EQ(done.error().file, "maps/yard/sheds.cells");
  EXPECT_EQ(saved.disk->files, files);
}

TEST(QuiltStore, AFileThatWasOnlyTouchedIsNoConflict) {
  Saved saved;
  saved.disk->put(kFolder + "/maps/yard/sheds.cells", saved.file("maps/yard/sheds.cells"));
  EXPECT_TRUE(saved.store->save(saved.painted()));
}

TEST(QuiltStore, OneWindowWritesTheOtherLooks) {
  Saved saved;
  saved.disk->lockedElsewhere = true;
  auto opened = saved.open();
  ASSERT_TRUE(opened);
  ASSERT_EQ(opened->problems.size(), 1u);
  EXPECT_EQ(opened->problems[0].cause, Error::Cause::inUse);
  EXPECT_EQ(opened->store.save(saved.painted()).error().cause, Error::Cause::inUse);
}

TEST(QuiltStore, WithoutWritePermissionItIsReadOnlyAndSaysSo) {
  Saved saved;
  saved.disk->readOnly = true;
  const auto files = saved.disk->files;
  auto opened = saved.open();
  ASSERT_TRUE(opened);
  ASSERT_EQ(opened->problems.size(), 1u);
  EXPECT_EQ(opened->problems[0].cause, Error::Cause::notPermitted);
  EXPECT_THAT(
      opened->problems[0].text(),
      HasSubstr("copperline: nothing may be written in this folder. The quilt can be looked at, but not saved here"));
  EXPECT_FALSE(opened->store.save(saved.painted()));
  EXPECT_EQ(saved.disk->files, files);
}

TEST(QuiltStore, WhereThereIsNoQuiltItSaysWhatToChoose) {
  const auto opened = QuiltStore::open(std::make_shared<MemoryDisk>(), "/empty", QuiltStore::Access::write);
  ASSERT_FALSE(opened);
  EXPECT_EQ(opened.error().cause, Error::Cause::missing);
  EXPECT_THAT(opened.error().text(), HasSubstr("/empty: there is no quilt here"));
}

TEST(QuiltStore, NeverWritesIntoAFolderThatHoldsSomething) {
  Saved saved;
  const auto files = saved.disk->files;
  const auto created = QuiltStore::create(saved.disk, kFolder, smallQuilt());
  ASSERT_FALSE(created);
  EXPECT_THAT(created.error().reason, HasSubstr("not empty"));
  EXPECT_EQ(saved.disk->files, files);
}

TEST(QuiltStore, SaveAsTakesThePicturesAlong) {
  Saved saved;
  ASSERT_TRUE(QuiltStore::create(saved.disk, "/new/place", saved.quilt));
  EXPECT_EQ(saved.disk->files.at("/new/place/sheets/street.png"), saved.file("sheets/street.png"));
}

struct Damage {
  const char* what;
  const char* file;
  const char* from;  // replaced by `to`; everything from here on is cut off when `to` is null
  const char* to;
  int line;
  const char* says;
};

class DamagedQuilt : public testing::TestWithParam<Damage> {};

TEST_P(DamagedQuilt, NamesFileAndLineOpensTheRestAndOverwritesNothing) {
  const Damage& damage = GetParam();
  Saved saved;
  std::string& bytes = saved.file(damage.file);
  const auto at = bytes.find(damage.from);
  ASSERT_NE(at, std::string::npos);
  if (damage.to) {
    bytes.replace(at, std::string(damage.from).size(), damage.to);
  } else {
    bytes.resize(at);
  }
  auto opened = saved.open();
  ASSERT_TRUE(opened);
  ASSERT_FALSE(opened->problems.empty());
  const Error& problem = opened->problems.front();
  EXPECT_EQ(problem.file, damage.file);
  EXPECT_EQ(problem.line, damage.line);
  EXPECT_THAT(problem.reason, HasSubstr(damage.says));
  EXPECT_NE(problem.kept, "");
  EXPECT_NE(problem.todo, "");
  EXPECT_FALSE(opened->store.isWhole());
  // The rest opens, and can be worked on; the damaged file is never written again.
  const Quilt& quilt = opened->quilt;
  if (quilt.mapNamed("Loft")) {
    const std::vector<CellChange> one = {{{1, 2}, quilt.mapNamed("Loft")->layers[0]->cells.at({0, 0})}};
    (void)opened->store.save(layCells(quilt, layerOf(quilt, "Loft", "Floor"), one));
  }
  for (const auto& map : quilt.maps()) {
    if (!opened->store.damage(map->id)) continue;
    Map changed = map.read();
    changed.name = "Changed";
    EXPECT_FALSE(opened->store.save(quilt.with(changed)));
  }
  const std::string after = saved.file(damage.file);
  EXPECT_EQ(after.find("Changed"), std::string::npos);
  if (!damage.to) {
    EXPECT_EQ(after.size(), at);
  }
}

INSTANTIATE_TEST_SUITE_P(
    Broken, DamagedQuilt,
    testing::Values(
        Damage{"cut_off_cells", "maps/yard/paving.cells", "end\n", nullptr, 11, "\"end\" is missing"},
        Damage{"cells_cut_in_a_line", "maps/yard/paving.cells", "x16\nend", nullptr, 10, "cut off in the middle"},
        Damage{"broken_map", "maps/yard/map.json", "\"bounds\"", nullptr, 8, "syntax error"},
        Damage{"map_without_bounds", "maps/yard/map.json", "\"bounds\"", "\"bonds\"", 1, "\"bounds\" is missing"},
        Damage{"empty_map", "maps/yard/map.json", "[-4, -4, 16, 8]", "[4, 4, 4, 8]", 8, "hold no cell"},
        Damage{"far_map", "maps/yard/map.json", "[-4, -4, 16, 8]", "[-4, -4, 1600000, 8]", 8, "whole number from"},
        Damage{"map_of_too_many_pixels", "maps/yard/map.json", "[-4, -4, 16, 8]", "[-4, -4, 600000, 8]", 8,
               "16,777,216 pixels"},
        Damage{"cell_size", "maps/yard/map.json", "[32, 32]", "[32, 1]", 7, "from 2 to 512"},
        Damage{"path_out_of_the_folder", "maps/yard/map.json", "paving.cells", "../../x.cells", 10, "plain name"},
        Damage{"unknown_grid", "maps/yard/map.json", "orthogonal", "triangular", 6, "not known to this version"},
        Damage{"unknown_layer", "maps/yard/map.json", "\"tiles\"", "\"smoke\"", 10, "not known to this version"},
        Damage{"order", "maps/yard/map.json", "\"layers\": [", "\"order\": \"by-chance\", \"layers\": [", 9, "neither"},
        Damage{"folder_of_nothing", "maps/yard/map.json", "\"layers\": [",
               "\"layers\": [{\"id\": \"baaaaaaaaaaa\", \"kind\": \"folder\", \"name\": \"Level 1\", \"layers\": []},",
               9, "holds no layer"},
        Damage{"folder_in_itself", "maps/yard/map.json", "\"layers\": [",
               "\"layers\": [{\"id\": \"baaaaaaaaaaa\", \"kind\": \"folder\", \"name\": \"a\", \"layers\": ["
               "{\"id\": \"baaaaaaaaaaa\", \"kind\": \"folder\", \"name\": \"a\", \"layers\": []}]},",
               9, "the same id"},
        Damage{"rise", "maps/yard/map.json", "\"layers\": [",
               "\"layers\": [{\"id\": \"baaaaaaaaaaa\", \"kind\": \"folder\", \"name\": \"a\", \"rise\": 99999, "
               "\"layers\": []},",
               9, "from -65536 to 65536"},
        Damage{"facing_of_one", "sheets/street.json", "\"tiles\"", "\"facings\": [[3, null, null, null]], \"tiles\"",
               12, "4 or 6 tiles"},
        Damage{"facing_twice", "sheets/street.json", "\"tiles\"", "\"facings\": [[3, 4, 3, null]], \"tiles\"", 12,
               "4 or 6 tiles"},
        Damage{"footprint", "sheets/street.json", "\"tiles\"", "\"footprint\": [0, 1], \"tiles\"", 12, "from 1 to 64"},
        Damage{"newer_map", "maps/yard/map.json", "1.6", "2.0", 3, "newer version"},
        Damage{"broken_sheet", "sheets/street.json", "\"code\"", nullptr, 6, "syntax error"},
        Damage{"sheet_code", "sheets/street.json", "\"A\"", "\"a1\"", 6, "capital letters"},
        Damage{"broken_quilt", "quilt.json", "\"name\"", nullptr, 5, "syntax error"},
        Damage{"newer_quilt", "quilt.json", "1.6", "7.3", 3, "newer version of Urban Quilt (format 7.3)"}),
    [](const auto& test) { return std::string(test.param.what); });

// Copied by hand, a map, a sheet or a layer keeps the id of the one it was copied from.
TEST(QuiltStore, TwoThingsWithOneIdAreNamedAndOneIsLeftOut) {
  const auto firstProblem = [](auto&& copy) {
    Saved saved;
    copy(saved);
    const auto files = saved.disk->quiltFiles();
    const auto opened = saved.open();
    EXPECT_TRUE(opened);
    EXPECT_FALSE(opened->store.isWhole());
    EXPECT_EQ(saved.disk->quiltFiles(), files);
    return opened->problems.at(0).text();
  };
  EXPECT_THAT(firstProblem([](Saved& saved) {
                for (const char* name : {"map.json", "floor.cells"}) {
                  saved.disk->put(kFolder + "/maps/loft-2/" + name, saved.file(std::string("maps/loft/") + name));
                }
              }),
              HasSubstr("maps/loft-2/map.json: its id is that of the map \"Loft\""));
  EXPECT_THAT(firstProblem([](Saved& saved) {
                saved.disk->put(kFolder + "/sheets/street2.json", saved.file("sheets/street.json"));
              }),
              HasSubstr("sheets/street2.json: its id is that of the sheet \"street\""));
  EXPECT_THAT(firstProblem([](Saved& saved) {
                const std::string id = saved.quilt.mapNamed("Yard")->layers[0]->id.text();
                std::string& map = saved.file("maps/yard/map.json");
                const std::string other = saved.quilt.mapNamed("Yard")->layers[1]->id.text();
                map.replace(map.find(other), other.size(), id);
              }),
              HasSubstr("maps/yard/map.json, line 11: two layers have the same id"));
}

TEST(QuiltStore, ACutOffCellsFileShowsTheRowsBeforeTheCut) {
  Saved saved;
  std::string& bytes = saved.file("maps/yard/paving.cells");
  bytes.resize(bytes.find("@0,0"));
  const auto opened = saved.open();
  const CellGrid& cells = opened->quilt.mapNamed("Yard")->layerNamed("Paving")->cells;
  EXPECT_FALSE(cells.at({-4, 5}).empty());
  EXPECT_TRUE(cells.at({0, 0}).empty());
  EXPECT_NE(opened->store.damage(opened->quilt.mapNamed("Yard")->id), nullptr);
  EXPECT_EQ(opened->store.damage(opened->quilt.mapNamed("Loft")->id), nullptr);
}

TEST(QuiltStore, AMissingSheetKeepsItsTilesThroughASave) {
  Saved saved;
  ASSERT_TRUE(saved.store->save(saved.painted()));
  saved.disk->files.erase(kFolder + "/sheets/rails.json");
  const std::string before = saved.file("maps/yard/sheds.cells");
  auto opened = saved.open();
  ASSERT_TRUE(opened);
  ASSERT_EQ(opened->problems.size(), 1u);
  EXPECT_THAT(opened->problems[0].text(), HasSubstr("is not in this quilt"));
  EXPECT_THAT(opened->problems[0].text(), HasSubstr("1 cells painted with it are kept"));
  // Something else is painted on that layer and saved: the missing sheet's tile and code stay.
  const std::vector<CellChange> one = {{{2, 2}, tileOf(opened->quilt, "street", 1)}};
  ASSERT_TRUE(opened->store.save(layCells(opened->quilt, layerOf(opened->quilt, "Yard", "Sheds"), one)));
  EXPECT_THAT(saved.file("maps/yard/sheds.cells"), HasSubstr("2: . B3 A1\n"));
}

TEST(QuiltStore, AFolderThatVanishedIsNotMadeAnewByHalf) {
  Saved saved;
  saved.disk->files.clear();
  saved.disk->folders.clear();
  const auto done = saved.store->save(saved.painted());
  ASSERT_FALSE(done);
  EXPECT_EQ(done.error().cause, Error::Cause::missing);
  EXPECT_THAT(done.error().text(), HasSubstr("the quilt's folder is gone"));
  EXPECT_TRUE(saved.disk->files.empty());
  EXPECT_FALSE(saved.store->isSaved(saved.painted()));
}

TEST(QuiltStore, ReadsANewerMinorVersionAndKeepsWhatItAdds) {
  Saved saved;
  std::string& map = saved.file("maps/yard/map.json");
  map.replace(map.find("1.6"), 3, "1.8");
  map.replace(map.find("\"layers\""), 0, "\"wraps\": [true, false],\n  ");
  auto opened = saved.open();
  ASSERT_TRUE(opened);
  EXPECT_THAT(opened->problems, IsEmpty());
  ASSERT_TRUE(opened->store.save(renameLayer(opened->quilt, layerOf(opened->quilt, "Yard", "Paving"), "Ground")));
  EXPECT_THAT(saved.file("maps/yard/map.json"), HasSubstr("\"wraps\": ["));
}

TEST(QuiltStore, ReadsAQuiltOfTheFirstVersion) {
  Saved saved;
  std::string& quilt = saved.file("quilt.json");
  quilt =
      "{\n  \"document\": \"quilt\",\n  \"version\": \"1.0\",\n  \"id\": \"mpuwbveowy6f\",\n  \"name\": \"Old\"\n}\n";
  const auto opened = saved.open();
  ASSERT_TRUE(opened);
  EXPECT_THAT(opened->problems, IsEmpty());
  EXPECT_EQ(opened->quilt.facts().roles, kPlainRoles);
  EXPECT_EQ(opened->quilt.facts().screen, (PixelSize{480, 270}));
}

TEST(QuiltStore, MapsOfEveryGridComeBackAsTheyWere) {
  Saved saved;
  auto opened = saved.open();
  IdSource ids(12);
  Quilt quilt = opened->quilt;
  for (const GridKind kind : kGridKinds) {
    GridShape shape = nearestShape(kind, {56, 64});
    shape.firstShift = kind == GridKind::staggered || kind == GridKind::hexagonalFlat;
    quilt = addMap(quilt, {std::string(gridName(kind)), shape, 7, 9}, ids).quilt;
  }
  ASSERT_TRUE(opened->store.save(quilt));
  const auto again = saved.open(QuiltStore::Access::read);
  EXPECT_THAT(again->problems, IsEmpty());
  for (const auto& map : quilt.maps()) EXPECT_EQ(again->quilt.map(map->id)->grid, map->grid) << map->name;
}

TEST(QuiltStore, LevelsStancesAndFacingsComeBackAsTheyWere) {
  Saved saved;
  auto opened = saved.open();
  IdSource ids(12);
  const LayerAt sheds = layerOf(opened->quilt, "Yard", "Sheds");
  const LayerAdded level = addLevel(opened->quilt, sheds, ids);
  Quilt quilt =
      withDrawOrder(level.quilt, sheds.map, level.quilt.layer({sheds.map, level.layer})->folder, DrawOrder::byDepth);
  Sheet sheet = *quilt.sheetAt(tileOf(quilt, "street", 0).tile().slot);
  sheet.stance = {{0, 5}, {1, 2}};
  sheet.tiles[3].stance = Stance{{-2, 5}, {3, 2}};
  sheet.facings = {{1u, std::nullopt, 4u, std::nullopt}};
  quilt = quilt.with(sheet);
  ASSERT_TRUE(opened->store.save(quilt));
  const auto again = saved.open(QuiltStore::Access::read);
  EXPECT_THAT(again->problems, IsEmpty());
  EXPECT_EQ(*again->quilt.map(sheds.map), *quilt.map(sheds.map));
  EXPECT_EQ(*again->quilt.sheet(sheet.id), *quilt.sheet(sheet.id));
  EXPECT_THAT(saved.file("maps/yard/map.json"), HasSubstr("\"rise\": 32"));
  EXPECT_THAT(saved.file("sheets/street.json"), HasSubstr("\"facings\""));
}

TEST(QuiltStore, LiftsHaveAFileOfTheirOwnOnlyWhereTheyAreUsed) {
  Saved saved;
  auto opened = saved.open();
  const LayerAt sheds = layerOf(opened->quilt, "Yard", "Sheds");
  const std::vector<CellChange> lifted = {{{1, 1}, tileOf(opened->quilt, "rails", 3), 16}};
  const Quilt high = layCells(opened->quilt, sheds, lifted);
  ASSERT_TRUE(opened->store.save(high));
  EXPECT_EQ(saved.file("maps/yard/sheds.lift.cells"), "cells 1\n@0,0\n1: . 16\nend\n");
  EXPECT_EQ(saved.open(QuiltStore::Access::read)->quilt.layer(sheds)->lifts.at({1, 1}), 16);
  // Renamed, the file moves along; brought down, it goes.
  const Quilt renamed = renameMap(high, sheds.map, "Works");
  ASSERT_TRUE(opened->store.save(renamed));
  EXPECT_EQ(saved.open(QuiltStore::Access::read)->quilt.layer(sheds)->lifts.at({1, 1}), 16);
  const std::vector<CellChange> flat = {{{1, 1}, tileOf(opened->quilt, "rails", 3)}};
  ASSERT_TRUE(opened->store.save(layCells(renamed, sheds, flat)));
  for (const auto& [path, bytes] : saved.disk->files) EXPECT_THAT(path, Not(HasSubstr(".lift."))) << path;
  // A broken one keeps the map from being changed.
  ASSERT_TRUE(opened->store.save(high));
  saved.file("maps/yard/sheds.lift.cells") = "cells 1\n@0,0\n1: 9999\nend\n";
  const auto broken = saved.open(QuiltStore::Access::read);
  ASSERT_EQ(broken->problems.size(), 1u);
  EXPECT_EQ(broken->problems.front().line, 3);
  EXPECT_NE(broken->store.damage(sheds.map), nullptr);
}

TEST(QuiltStore, AGridThatCannotBeIsNamedWithItsLine) {
  Saved saved;
  std::string& map = saved.file("maps/yard/map.json");
  map.replace(map.find("orthogonal"), 10, "diamond");
  map.replace(map.find("[32, 32]"), 8, "[31, 32]");
  const auto opened = saved.open();
  ASSERT_EQ(opened->problems.size(), 1u);
  EXPECT_THAT(opened->problems[0].text(), HasSubstr("A diamond is an even number of pixels"));
}

TEST(QuiltStore, ChalkIsSavedByItsNameAndNeedsNoSheet) {
  Saved saved;
  auto opened = saved.open();
  const std::vector<CellChange> one = {{{2, 2}, tileOf(opened->quilt, "Chalk", 10)}};
  ASSERT_TRUE(opened->store.save(layCells(opened->quilt, layerOf(opened->quilt, "Yard", "Sheds"), one)));
  EXPECT_THAT(saved.file("maps/yard/sheds.cells"), HasSubstr("CK chalkcolours\n"));
  const auto again = saved.open();
  EXPECT_THAT(again->problems, IsEmpty());
  EXPECT_EQ(again->quilt.layer(layerOf(again->quilt, "Yard", "Sheds"))->cells.at({2, 2}), one[0].cell);
  // A file that claims to be Chalk is refused.
  std::string impostor = saved.file("sheets/rails.json");
  const auto id = impostor.find("\"id\": \"") + 7;
  impostor.replace(id, 12, "chalkcolours");
  saved.disk->put(kFolder + "/sheets/other.json", impostor);
  EXPECT_THAT(saved.open()->problems.at(0).text(), HasSubstr("its id is that of the sheet \"Chalk\""));
}

TEST(QuiltStore, ReadingNeverWrites) {
  Saved saved;
  const auto files = saved.disk->files;
  const int changes = saved.disk->changes;
  ASSERT_TRUE(saved.open(QuiltStore::Access::read));
  EXPECT_EQ(saved.disk->files, files);
  EXPECT_EQ(saved.disk->changes, changes);
}

TEST(Journal, OnlyTakesPathsInsideTheQuilt) {
  for (const char* path : {"", "/etc/passwd", "../x", "maps/../../x", "maps//x", "./x", "maps/", ".git/HEAD",
                           "maps/yard/.x.new", ".urban-quilt/lock", "maps/x.cells", "notes.txt", "maps/yard/notes.txt",
                           "sheets/a/b/c.png", "maps/\xff/map.json"}) {
    EXPECT_FALSE(isQuiltFile(path)) << path;
  }
  for (const char* path : {"quilt.json", "maps/yard/map.json", "maps/yard/paving.cells", "sheets/street.json",
                           "sheets/street.png", "sheets/props/tree.png", "stamps/shed/stamp.json"}) {
    EXPECT_TRUE(isQuiltFile(path)) << path;
  }
}

TEST(Journal, AForgedOneIsRefusedAndNothingIsTouched) {
  Saved saved;
  saved.disk->put(kFolder + "/.urban-quilt/journal",
                  "{\"document\": \"journal\", \"version\": \"1.0\", \"writes\": [], \"moves\": [], "
                  "\"removes\": [\"../../home/letters.txt\"]}\n");
  saved.disk->put("/home/letters.txt", "dear");
  const auto opened = saved.open();
  ASSERT_FALSE(opened);
  EXPECT_THAT(opened.error().text(), HasSubstr("journal"));
  EXPECT_EQ(saved.disk->files.at("/home/letters.txt"), "dear");
}

}  // namespace uq::test
