// Opening a quilt: what is seen when, what is said of broken parts, and what is left alone.
#include <gtest/gtest.h>

#include "core/SavedQuilt.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Levels.h"
#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/Holder.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

using testing::ElementsAre;
using testing::HasSubstr;
using testing::IsEmpty;
using testing::UnorderedElementsAre;

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

TEST(QuiltStore, OneWindowWritesTheOtherLooks) {
  Saved saved;
  saved.disk->lockedElsewhere = true;
  auto opened = saved.open();
  ASSERT_TRUE(opened);
  ASSERT_EQ(opened->problems.size(), 1u);
  EXPECT_EQ(opened->problems[0].cause, Error::Cause::inUse);
  EXPECT_EQ(opened->store.save(saved.painted()).error().cause, Error::Cause::inUse);
}

TEST(QuiltStore, WhoHasItOpenIsToldAndOnceTheyLetGoItIsSavedHere) {
  Saved saved;
  {
    const auto first = saved.open();  // says who it is
    ASSERT_TRUE(first);
  }
  saved.disk->lockedElsewhere = true;
  auto opened = saved.open();
  ASSERT_TRUE(opened);
  ASSERT_TRUE(opened->store.readOnly());
  EXPECT_THAT(opened->store.readOnly()->text(),
              HasSubstr("has this quilt open on " + Holder::thisProgram().machine + " since"));
  saved.disk->lockedElsewhere = false;
  const Quilt after = saved.painted();
  ASSERT_TRUE(opened->store.save(after));
  EXPECT_FALSE(opened->store.readOnly());
  const auto again = saved.open();
  ASSERT_TRUE(again);
  EXPECT_EQ(bytes(again->quilt), bytes(after));
}

TEST(QuiltStore, WhatTheOtherSavedIsNotOverwrittenByWhoTakesOver) {
  Saved saved;
  saved.disk->lockedElsewhere = true;
  auto late = saved.open();
  ASSERT_TRUE(late);
  saved.disk->lockedElsewhere = false;
  {
    auto first = saved.open();
    ASSERT_TRUE(first);
    ASSERT_TRUE(first->store.save(saved.painted()));
  }
  const std::vector<CellChange> other = {{{1, 1}, tileOf(late->quilt, "rails", 1)}};
  const auto refused = late->store.save(layCells(late->quilt, layerOf(late->quilt, "Yard", "Awnings"), other));
  ASSERT_FALSE(refused);
  EXPECT_EQ(refused.error().cause, Error::Cause::changedOutside);
  const auto again = saved.open();
  ASSERT_TRUE(again);
  EXPECT_EQ(bytes(again->quilt), bytes(saved.painted()));
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
        Damage{"newer_map", "maps/yard/map.json", "1.14", "2.0", 3, "newer version"},
        Damage{"broken_sheet", "sheets/street.json", "\"code\"", nullptr, 6, "syntax error"},
        Damage{"sheet_code", "sheets/street.json", "\"A\"", "\"a1\"", 6, "capital letters"},
        Damage{"broken_quilt", "quilt.json", "\"name\"", nullptr, 5, "syntax error"},
        Damage{"newer_quilt", "quilt.json", "1.14", "7.3", 3, "newer version of Urban Quilt (format 7.3)"}),
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

TEST(QuiltStore, OriginalsOutsideOfItAreNeverNeeded) {
  Saved saved;
  Sheet street = *saved.quilt.sheetAt(tileOf(saved.quilt, "street", 0).tile().slot);
  street.follows = "/gone/with/the/old/desk/street.png";
  ASSERT_TRUE(saved.store->save(saved.quilt.with(street)));
  auto opened = saved.open();
  ASSERT_TRUE(opened);
  EXPECT_TRUE(opened->store.isWhole());
  for (const Error& problem : opened->problems) EXPECT_THAT(problem.text(), testing::Not(HasSubstr("gone")));
  const std::vector<CellChange> one = {{{1, 2}, tileOf(opened->quilt, "rails", 3)}};
  ASSERT_TRUE(opened->store.save(layCells(opened->quilt, layerOf(opened->quilt, "Yard", "Sheds"), one)));
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

TEST(QuiltStore, ReadsANewerMinorVersionAndKeepsWhatItAdds) {
  Saved saved;
  std::string& map = saved.file("maps/yard/map.json");
  map.replace(map.find("1.14"), 4, "1.99");
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

TEST(QuiltStore, AGridThatCannotBeIsNamedWithItsLine) {
  Saved saved;
  std::string& map = saved.file("maps/yard/map.json");
  map.replace(map.find("orthogonal"), 10, "diamond");
  map.replace(map.find("[32, 32]"), 8, "[31, 32]");
  const auto opened = saved.open();
  ASSERT_EQ(opened->problems.size(), 1u);
  EXPECT_THAT(opened->problems[0].text(), HasSubstr("A diamond is an even number of pixels"));
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
  for (const char* path : {"quilt.json", "maps/yard/map.json", "maps/yard/stops.pins.json", "maps/yard/paving.cells", "sheets/street.json",
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
