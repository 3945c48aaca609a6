#include <gtest/gtest.h>

#include "core/SavedQuilt.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Levels.h"
#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

using testing::ElementsAre;
using testing::HasSubstr;
using testing::IsEmpty;
using testing::UnorderedElementsAre;

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

}  // namespace uq::test
