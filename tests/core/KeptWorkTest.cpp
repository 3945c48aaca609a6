// What was done since the last save is kept, and comes back: after any stop, as one state or the other, never a mix.
#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/Support.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"
#include "core/store/CellsPatch.h"
#include "core/store/CellsText.h"
#include "core/store/KeptReading.h"
#include "core/store/OverlayDisk.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

namespace {

constexpr const char* kFolder = "/home/quilts/yard";
constexpr const char* kPlace = "/home/state/kept/1";

Quilt laidOnce(const Quilt& quilt, CellPos at, std::uint32_t number) {
  const std::vector<CellChange> paint = {{at, tileOf(quilt, "rails", number)}};
  return layCells(quilt, layerOf(quilt, "Yard", "Awnings"), paint);
}

struct KeptYard : testing::Test {
  std::shared_ptr<MemoryDisk> disk = std::make_shared<MemoryDisk>();
  Quilt saved;
  KeptFacts facts{kFolder, "Yard", 3, 1'000'000};

  void SetUp() override {
    const auto created = QuiltStore::create(disk, kFolder, smallQuilt());
    ASSERT_TRUE(created);
    saved = created->quilt;
  }
  // The bytes of the quilt as it was kept; empty where nothing is.
  std::string cameBack() {
    const auto kept = keptAt(*disk, kPlace);
    EXPECT_TRUE(kept) << kept.error().text();
    if (!kept || !*kept) return {};
    const auto opened = QuiltStore::open(withKept(disk, kFolder, **kept), kFolder, QuiltStore::Access::read);
    EXPECT_TRUE(opened) << opened.error().text();
    if (!opened) return {};
    EXPECT_THAT(opened->problems, testing::IsEmpty());
    return bytes(opened->quilt);
  }
};

}  // namespace

TEST_F(KeptYard, ComesBackAsItWasKeptAndTheQuiltsFolderIsAsItWas) {
  const auto before = disk->quiltFiles();
  KeptWork work(disk, kPlace);
  Quilt now = laidOnce(saved, {1, 1}, 1);
  ASSERT_TRUE(work.keep(saved, now, facts));
  EXPECT_EQ(cameBack(), bytes(now));
  // New maps, layers that are renamed, and maps that are deleted as well.
  IdSource ids(4);
  now = addMap(now, {"Roofs", now.mapNamed("Yard")->grid, 6, 5}, ids).quilt;
  now = renameLayer(now, layerOf(now, "Yard", "Paving"), "Ground");
  now = now.without<Map>(now.mapNamed("Loft")->id);
  ASSERT_TRUE(work.keep(saved, now, facts));
  EXPECT_EQ(cameBack(), bytes(now));
  const auto kept = keptAt(*disk, kPlace);
  ASSERT_TRUE(kept && *kept);
  EXPECT_EQ((*kept)->facts, facts);
  EXPECT_THAT(changedSince(*disk, kFolder, **kept), testing::IsEmpty());
  auto after = disk->quiltFiles();
  std::erase_if(after, [](const auto& file) { return !file.first.starts_with(kFolder); });
  auto there = before;
  std::erase_if(there, [](const auto& file) { return !file.first.starts_with(kFolder); });
  EXPECT_EQ(after, there);
}

TEST_F(KeptYard, WritesOnlyWhatChangedSinceAndLeavesNothingBehind) {
  KeptWork work(disk, kPlace);
  Quilt now = renameLayer(laidOnce(saved, {1, 1}, 1), layerOf(saved, "Loft", "Floor"), "Boards");
  ASSERT_TRUE(work.keep(saved, now, facts));
  disk->written.clear();
  now = laidOnce(now, {2, 1}, 1);
  ASSERT_TRUE(work.keep(saved, now, facts));
  const auto parts = std::count_if(disk->written.begin(), disk->written.end(),
                                   [](const std::string& path) { return path.ends_with(".part"); });
  EXPECT_EQ(parts, 1) << "the cells that changed";
  EXPECT_EQ(cameBack(), bytes(now));
  // Back at what is saved there is nothing to keep.
  ASSERT_TRUE(work.keep(saved, saved, facts));
  EXPECT_EQ(cameBack(), "");
  for (const auto& [path, text] : disk->files) EXPECT_FALSE(path.starts_with(kPlace)) << path;
}

RC_GTEST_FIXTURE_PROP(KeptYard, IsTheSameWhereWhatWasReadBeforeIsTaken, ()) {
  Quilt now = saved;
  for (int steps = *rc::gen::inRange(1, 6); steps > 0; --steps) now = *editOf(now);
  KeptWork work(disk, kPlace);
  RC_ASSERT(work.keep(saved, now, facts).has_value());
  const auto kept = keptAt(*disk, kPlace);
  RC_ASSERT(kept.has_value());
  if (!*kept) return;
  const ReadBefore before = savedBefore(saved, disk, **kept);
  const auto opened =
      QuiltStore::open(withKept(disk, kFolder, **kept), kFolder, QuiltStore::Access::read, nullptr, {}, &before);
  RC_ASSERT(opened.has_value());
  RC_ASSERT(bytes(opened->quilt) == bytes(now));
}

TEST_F(KeptYard, WhatIsDamagedInItIsAsItWasSavedAndTheRestComesBack) {
  const std::string path = "maps/yard/awnings.cells";
  const Quilt painted = laidOnce(saved, {1, 1}, 1);
  const Quilt now = renameLayer(painted, layerOf(saved, "Loft", "Floor"), "Boards");
  KeptWork work(disk, kPlace);
  ASSERT_TRUE(work.keep(saved, now, facts));
  const auto kept = keptAt(*disk, kPlace);
  ASSERT_TRUE(kept && *kept && (*kept)->files.contains(path));
  std::string& part = disk->files.at((*kept)->files.at(path).path);
  part.resize(part.size() / 2);
  auto opened = QuiltStore::open(disk, kFolder, QuiltStore::Access::read);
  ASSERT_TRUE(opened);
  const auto back = readKept(disk, kFolder, **kept, *opened);
  ASSERT_TRUE(back) << back.error().text();
  EXPECT_FALSE(back->whole);
  ASSERT_EQ(back->problems.size(), 1u);
  EXPECT_THAT(back->problems.front().text(), testing::HasSubstr("awnings.cells"));
  // Not the cut-off layer: that would be saved over the whole one.
  EXPECT_EQ(bytes(back->quilt), bytes(renameLayer(saved, layerOf(saved, "Loft", "Floor"), "Boards")));
}

// Of a layer that is cut off the chunks before the cut come back, and those after it are as they were saved.
TEST_F(KeptYard, OfADamagedLayerComesBackWhatIsBeforeTheDamage) {
  const std::string path = "maps/yard/awnings.cells";
  const LayerAt at = layerOf(saved, "Yard", "Awnings");
  // Two chunks, and another layer that is whole.
  const auto laid = [&](const Quilt& quilt, CellPos cell) {
    return layCells(quilt, at, std::vector<CellChange>{{cell, tileOf(quilt, "rails", 1)}});
  };
  const Quilt first = laid(saved, {-2, -2});
  const Quilt now = renameLayer(laid(first, {2, 2}), layerOf(saved, "Yard", "Sheds"), "Halls");
  ASSERT_TRUE(KeptWork(disk, kPlace).keep(saved, now, facts));
  const auto kept = keptAt(*disk, kPlace);
  ASSERT_TRUE(kept && *kept && (*kept)->files.contains(path));
  std::string& part = disk->files.at((*kept)->files.at(path).path);
  part.resize(part.rfind('@') + 5);
  auto opened = QuiltStore::open(disk, kFolder, QuiltStore::Access::read);
  ASSERT_TRUE(opened);
  const auto back = readKept(disk, kFolder, **kept, *opened);
  ASSERT_TRUE(back) << back.error().text();
  EXPECT_FALSE(back->whole);
  EXPECT_EQ(bytes(back->quilt), bytes(renameLayer(first, layerOf(saved, "Yard", "Sheds"), "Halls")));
}

TEST_F(KeptYard, AMapWhoseDocumentIsDamagedIsNotTakenAwayByComingBack) {
  const Quilt now = renameMap(saved, saved.mapNamed("Loft")->id, "Attic");
  KeptWork work(disk, kPlace);
  ASSERT_TRUE(work.keep(saved, now, facts));
  const auto kept = keptAt(*disk, kPlace);
  ASSERT_TRUE(kept && *kept);
  for (const auto& [path, file] : (*kept)->files) {
    if (path.ends_with("map.json")) disk->files.at(file.path) = "{";
  }
  auto opened = QuiltStore::open(disk, kFolder, QuiltStore::Access::read);
  ASSERT_TRUE(opened);
  const auto back = readKept(disk, kFolder, **kept, *opened);
  ASSERT_TRUE(back) << back.error().text();
  EXPECT_FALSE(back->whole);
  EXPECT_EQ(bytes(back->quilt), bytes(saved));
}

TEST_F(KeptYard, NorAreTheFactsOfTheQuilt) {
  QuiltFacts named = saved.facts();
  named.name = "Tallow Lanes";
  KeptWork work(disk, kPlace);
  ASSERT_TRUE(work.keep(saved, laidOnce(saved.with(named), {1, 1}, 1), facts));
  const auto kept = keptAt(*disk, kPlace);
  ASSERT_TRUE(kept && *kept && (*kept)->files.contains("quilt.json"));
  disk->files.at((*kept)->files.at("quilt.json").path) = "[]";
  auto opened = QuiltStore::open(disk, kFolder, QuiltStore::Access::read);
  ASSERT_TRUE(opened);
  const auto back = readKept(disk, kFolder, **kept, *opened);
  ASSERT_TRUE(back) << back.error().text();
  EXPECT_FALSE(back->whole);
  EXPECT_EQ(bytes(back->quilt), bytes(laidOnce(saved, {1, 1}, 1)));
}

TEST_F(KeptYard, WhatSomebodyTookAwayMeanwhileIsKeptAnew) {
  KeptWork work(disk, kPlace);
  Quilt now = laidOnce(saved, {1, 1}, 1);
  ASSERT_TRUE(work.keep(saved, now, facts));
  std::erase_if(disk->files, [](const auto& file) { return file.first.starts_with(kPlace); });
  now = renameLayer(now, layerOf(saved, "Loft", "Floor"), "Boards");
  ASSERT_TRUE(work.keep(saved, now, facts));
  EXPECT_EQ(cameBack(), bytes(now));
}

TEST_F(KeptYard, TheLineIsKeptOncePerNumberAndGoesWithTheRest) {
  KeptWork work(disk, kPlace);
  Quilt now = laidOnce(saved, {1, 1}, 1);
  ASSERT_TRUE(work.keep(saved, now, facts, {{4, 5}, {4, 5}, [] { return std::string("four, five"); }}));
  now = laidOnce(now, {3, 2}, 1);
  ASSERT_TRUE(work.keep(saved, now, facts, {{4, 5, 6}, {6}, [] { return std::string("six"); }}));
  EXPECT_EQ(work.keptOfLine(), (std::vector<std::uint64_t>{4, 5, 6}));
  auto kept = keptAt(*disk, kPlace);
  ASSERT_TRUE(kept && *kept);
  EXPECT_EQ((*kept)->line, (std::vector<std::uint64_t>{4, 5, 6}));
  EXPECT_EQ(lineTexts(*disk, **kept), (std::vector<std::string>{"four, five", "six"}));
  // A step that was taken back is not kept any more.
  ASSERT_TRUE(work.keep(saved, now, facts, {{4, 5}, {}, {}}));
  EXPECT_EQ(work.keptOfLine(), (std::vector<std::uint64_t>{4, 5}));
  kept = keptAt(*disk, kPlace);
  ASSERT_TRUE(kept && *kept);
  EXPECT_EQ(lineTexts(*disk, **kept), (std::vector<std::string>{"four, five"}));
  ASSERT_TRUE(work.keep(saved, saved, facts, {{4, 5}, {}, {}}));
  for (const auto& [path, text] : disk->files) EXPECT_FALSE(path.starts_with(kPlace)) << path;
  EXPECT_TRUE(work.keptOfLine().empty());
}

TEST_F(KeptYard, AnotherProgramGoesOnWhereOneStopped) {
  Quilt now = laidOnce(saved, {1, 1}, 1);
  ASSERT_TRUE(KeptWork(disk, kPlace).keep(saved, now, facts));
  now = laidOnce(now, {3, 2}, 1);
  KeptWork next(disk, kPlace);
  ASSERT_TRUE(next.keep(saved, now, facts));
  EXPECT_EQ(cameBack(), bytes(now));
}

TEST_F(KeptYard, WhateverStopsItTheOlderStateOrTheNewerOneIsThere) {
  int outcomes[2] = {0, 0};
  for (const bool stops : {false, true}) {
    for (int step = 0;; ++step) {
      disk = std::make_shared<MemoryDisk>();
      SetUp();
      const Quilt older = laidOnce(saved, {1, 1}, 1);
      const Quilt newer = renameLayer(laidOnce(older, {2, 2}, 1), layerOf(saved, "Yard", "Sheds"), "Halls");
      KeptWork work(disk, kPlace);
      ASSERT_TRUE(work.keep(saved, older, facts));
      disk->failAt = disk->changes + step;
      disk->stopsThere = stops;
      const bool done = work.keep(saved, newer, facts).has_value();
      const bool reached = disk->changes > disk->failAt;
      disk->failAt = -1;
      disk->stopsThere = false;
      const std::string back = cameBack();
      EXPECT_TRUE(back == bytes(older) || back == bytes(newer)) << "after step " << step;
      if (done) {
        EXPECT_EQ(back, bytes(newer));
      }
      ++outcomes[back == bytes(newer) ? 1 : 0];
      // And it can be gone on with.
      KeptWork again(disk, kPlace);
      ASSERT_TRUE(again.keep(saved, newer, facts));
      EXPECT_EQ(cameBack(), bytes(newer));
      if (!reached) break;
    }
  }
  EXPECT_GT(outcomes[0], 2);
  EXPECT_GT(outcomes[1], 2);
}

TEST_F(KeptYard, WhatIsBrokenSaysSoAndNamesNothingOutside) {
  ASSERT_TRUE(KeptWork(disk, kPlace).keep(saved, laidOnce(saved, {1, 1}, 1), facts));
  const std::string manifest = std::string(kPlace) + "/kept.json";
  const std::string text = disk->files[manifest];
  for (const auto& [was, is] : {std::pair("\"kept\"", "\"quilt\""), std::pair("\"version\": 1", "\"version\": 2"),
                                std::pair("maps/yard", "../../etc"), std::pair(".part\"", ".part/../x\"")}) {
    std::string other = text;
    ASSERT_NE(other.find(was), std::string::npos) << was;
    other.replace(other.find(was), std::string(was).size(), is);
    disk->put(manifest, other);
    EXPECT_FALSE(keptAt(*disk, kPlace)) << is;
  }
  disk->put(manifest, text.substr(0, text.size() / 2));
  EXPECT_FALSE(keptAt(*disk, kPlace));
}

TEST_F(KeptYard, FilesThatSomebodyElseChangedSinceAreNamed) {
  const Quilt now = laidOnce(saved, {1, 1}, 1);
  ASSERT_TRUE(KeptWork(disk, kPlace).keep(saved, now, facts));
  const auto kept = keptAt(*disk, kPlace);
  ASSERT_TRUE(kept && *kept);
  const std::string path = (*kept)->files.begin()->first;
  disk->put(std::string(kFolder) + "/" + path, "cells 1\nend\n");
  EXPECT_THAT(changedSince(*disk, kFolder, **kept), testing::ElementsAre(path));
}

// Times are only ever compared for being the same, so a clock that is set back hides nothing.
TEST_F(KeptYard, AClockThatJumpsBackHidesNothing) {
  KeptWork work(disk, kPlace);
  facts.until = 2'000'000'000;
  disk->clock = 2'000'000'000;
  ASSERT_TRUE(work.keep(saved, laidOnce(saved, {1, 1}, 1), facts));
  facts.until = 5;
  disk->clock = 5;
  const Quilt now = laidOnce(saved, {2, 2}, 1);
  ASSERT_TRUE(work.keep(saved, now, facts));
  EXPECT_EQ(cameBack(), bytes(now));
  const auto kept = keptAt(*disk, kPlace);
  ASSERT_TRUE(kept && *kept);
  EXPECT_EQ((*kept)->facts.until, 5);
  const std::string path = (*kept)->files.begin()->first;
  disk->clock = 1;
  disk->put(std::string(kFolder) + "/" + path, "cells 1\nend\n");
  EXPECT_THAT(changedSince(*disk, kFolder, **kept), testing::ElementsAre(path));
}

RC_GTEST_PROP(CellsPatch, MakesOfTheSavedCellsWhatTheyAreNow, ()) {
  Quilt quilt = smallQuilt();
  const auto scattered = [&](CellGrid cells) {
    for (int n = *rc::gen::inRange(0, 40); n > 0; --n) {
      const CellPos at{*rc::gen::inRange(-150, 150), *rc::gen::inRange(-150, 150)};
      const char* sheet = *rc::gen::element("street", "rails");
      const bool empty = *rc::gen::inRange(0, 4) == 0;
      cells.set(at, empty ? Cell() : tileOf(quilt, sheet, *rc::gen::inRange(0u, 12u)));
    }
    if (*rc::gen::arbitrary<bool>()) cells.fill({-64, 0, 0, 64}, Cell());
    return cells;
  };
  const CellGrid before = scattered({});
  const CellGrid after = scattered(before);
  const std::vector<ChunkPos> chunks = chunksBetween(before, after);
  std::set<std::pair<int, int>> named;
  for (const ChunkPos at : chunks) named.insert({at.cx, at.cy});
  const std::string made =
      patchedCells(writeCells(before, quilt), writeChunks(after, chunks, quilt), named);
  const CellsRead read = readCells(made, quilt, 4, "made");
  RC_ASSERT(!read.error);
  RC_ASSERT(read.cells == after);
}

TEST(CellsPatch, TellsCodesApartThatBothUseForDifferentSheets) {
  const std::string text = "cells 1\nA aaaaaaaaaaaa\nB bbbbbbbbbbbb\n@0,0\n0: A1 B2 3\n@1,0\n0: B9\nend\n";
  const std::string patch = "cells 1\nA bbbbbbbbbbbb\nB cccccccccccc\n@1,0\n0: A5 6 B7 . A8x3\nend\n";
  EXPECT_EQ(patchedCells(text, patch, {{1, 0}}),
            "cells 1\nA aaaaaaaaaaaa\nB bbbbbbbbbbbb\nAAA cccccccccccc\n@0,0\n0: A1 B2 3\n@1,0\n0: B5 6 AAA7 . B8x3\nend\n");
}

TEST_F(KeptYard, OfALargeLayerOnlyTheChunksThatChangedAreKept) {
  const LayerAt sheds = layerOf(saved, "Yard", "Sheds");
  LayerCells wide;
  wide.cells.fill({-640, -640, 640, 640}, tileOf(saved, "street", 3));
  for (int i = 0; i < 900; ++i) wide.cells.set({i * 7 % 1200 - 600, i * 13 % 1200 - 600}, tileOf(saved, "rails", 2));
  disk = std::make_shared<MemoryDisk>();
  saved = QuiltStore::create(disk, kFolder, saved.with(sheds, wide))->quilt;
  LayerCells other = *saved.layer(sheds);
  other.lay(CellPos{300, 300}, tileOf(saved, "rails", 5), 0);
  other.cells.fill({-640, -640, -576, -576}, Cell());
  const Quilt now = saved.with(sheds, other);
  KeptWork work(disk, kPlace);
  ASSERT_TRUE(work.keep(saved, now, facts));
  EXPECT_EQ(cameBack(), bytes(now));
  std::size_t largest = 0;
  for (const auto& [path, text] : disk->files) {
    if (path.ends_with(".part")) largest = std::max(largest, text.size());
  }
  EXPECT_LT(largest, 2000u);
}

}  // namespace uq::test
