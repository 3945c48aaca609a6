// Two quilts that came of one are made one again: what changed on one side is taken, what changed on both is asked.
#include <gmock/gmock.h>

#include "core/Support.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/DrawnPiece.h"
#include "core/edit/JoinQuilts.h"
#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Seams.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

namespace {

using testing::ElementsAre;
using testing::IsEmpty;

Quilt painted(const Quilt& quilt, const char* layer, CellPos at, std::uint32_t number) {
  const std::vector<CellChange> paint = {{at, tileOf(quilt, "rails", number)}};
  return layCells(quilt, layerOf(quilt, "Yard", layer), paint);
}

struct Joins : testing::Test {
  Quilt base = smallQuilt();
  std::vector<std::string> asked;
  IdSource ids{7};
  Joined join(const Quilt& here, const Quilt& there, Side side = Side::here) {
    asked.clear();
    return joined(base, here, there, [&](const BothChanged& one) {
      asked.push_back(one.name);
      return side;
    }, ids);
  }
  Cell at(const Quilt& quilt, const char* layer, CellPos cell) {
    return quilt.layer(layerOf(quilt, "Yard", layer))->cells.at(cell);
  }
};

}  // namespace

TEST_F(Joins, WhatChangedOnOneSideIsTakenUnasked) {
  const Quilt here = renameLayer(painted(base, "Awnings", {1, 1}, 1), layerOf(base, "Loft", "Floor"), "Boards");
  const Quilt there = painted(painted(base, "Sheds", {2, 2}, 2), "Paving", {3, 3}, 2);
  const Joined done = join(here, there);
  EXPECT_THAT(asked, IsEmpty());
  EXPECT_THAT(done.taken, ElementsAre("Yard"));
  EXPECT_EQ(at(done.quilt, "Awnings", {1, 1}), tileOf(base, "rails", 1));
  EXPECT_EQ(at(done.quilt, "Sheds", {2, 2}), tileOf(base, "rails", 2));
  EXPECT_EQ(at(done.quilt, "Paving", {3, 3}), tileOf(base, "rails", 2));
  EXPECT_TRUE(done.quilt.mapNamed("Loft")->layerNamed("Boards"));
  // Nothing there, nothing taken.
  EXPECT_EQ(join(here, base).quilt, here);
  EXPECT_EQ(join(base, there).quilt, there);
  EXPECT_EQ(join(there, there).quilt, there);
}

TEST_F(Joins, ALayerThatBothChangedIsAskedAndBothAreToBeHad) {
  const Quilt here = painted(base, "Sheds", {1, 1}, 1);
  const Quilt there = painted(base, "Sheds", {5, 5}, 2);
  EXPECT_EQ(join(here, there, Side::here).quilt, here);
  EXPECT_THAT(asked, ElementsAre("Sheds on Yard"));
  EXPECT_EQ(join(here, there, Side::there).quilt, there);
  const Quilt both = join(here, there, Side::both).quilt;
  EXPECT_EQ(at(both, "Sheds", {1, 1}), tileOf(base, "rails", 1));
  EXPECT_EQ(at(both, "Sheds (theirs)", {5, 5}), tileOf(base, "rails", 2));
  const Map& yard = *both.mapNamed("Yard");
  EXPECT_EQ(*yard.layerIndex(yard.layerNamed("Sheds (theirs)")->id), *yard.layerIndex(yard.layerNamed("Sheds")->id) + 1);
  const auto would = bothChanged(base, here, there);
  ASSERT_EQ(would.size(), 1u);
  EXPECT_EQ(would[0].what, BothChanged::What::layer);
  // The same done twice is no question.
  (void)join(here, here);
  EXPECT_THAT(asked, IsEmpty());
}

TEST_F(Joins, NewPartsComeAlongAndTheirNamesAreToldApart) {
  const GridShape grid = base.mapNamed("Yard")->grid;
  IdSource mine(20);
  IdSource theirs(30);
  const Quilt here = addMap(base, {"Roofs", grid, 6, 5}, mine).quilt;
  const Quilt there = addMap(base, {"Roofs", grid, 9, 9}, theirs).quilt;
  const Joined done = join(here, there);
  EXPECT_THAT(asked, IsEmpty());
  ASSERT_TRUE(done.quilt.mapNamed("Roofs 2"));
  EXPECT_EQ(done.quilt.mapNamed("Roofs 2")->bounds.width(), 9);
  EXPECT_NE(done.quilt.mapNamed("Roofs 2")->folder, done.quilt.mapNamed("Roofs")->folder);
  // What came of it can be saved and read.
  auto disk = std::make_shared<MemoryDisk>();
  ASSERT_TRUE(QuiltStore::create(disk, "/q", done.quilt));
  const auto opened = QuiltStore::open(disk, "/q", QuiltStore::Access::read);
  ASSERT_TRUE(opened);
  EXPECT_THAT(opened->problems, IsEmpty());
}

TEST_F(Joins, SeamsAndPlannedMapsOfBothSidesComeTogether) {
  const Id yard = base.mapNamed("Yard")->id;
  const Id loft = base.mapNamed("Loft")->id;
  IdSource mine(70);
  IdSource theirs(80);
  const Quilt here = withChalk(wrapped(base, loft, false, mine).quilt, {9000, 0, 64, 64}, mine);
  Quilt there = wrapped(base, yard, true, theirs).quilt;
  there = withChalk(there, {9000, 500, 64, 64}, theirs);
  const Joined done = join(here, there);
  EXPECT_THAT(asked, IsEmpty());
  EXPECT_TRUE(wraps(done.quilt, loft, false));
  EXPECT_TRUE(wraps(done.quilt, yard, true));
  EXPECT_EQ(done.quilt.chalkPieces().size(), 2u);
  EXPECT_THAT(done.taken, testing::UnorderedElementsAre("a seam", "Place"));
  // Ripped there and left alone here, it is gone.
  base = here;
  EXPECT_TRUE(join(here, ripped(here, seamsOf(here, loft))).quilt.seams().empty());
}

TEST_F(Joins, WhatWasDeletedOnOneSideAndChangedOnTheOtherStays) {
  const Id loft = base.mapNamed("Loft")->id;
  const Quilt without = base.without<Map>(loft);
  const Quilt changed = renameLayer(base, layerOf(base, "Loft", "Floor"), "Boards");
  EXPECT_FALSE(join(base, without).quilt.map(loft)) << "untouched here, it goes";
  const Joined stays = join(changed, without);
  EXPECT_TRUE(stays.quilt.map(loft));
  EXPECT_THAT(stays.kept, ElementsAre("Loft"));
  EXPECT_TRUE(join(without, changed).quilt.map(loft)) << "and comes back";
  EXPECT_FALSE(join(without, base).quilt.map(loft)) << "what was only deleted here is gone";
}

TEST_F(Joins, WhatIsSaidOfAMapOnBothSidesIsAskedAsAWhole) {
  const LayerAt sheds = layerOf(base, "Yard", "Sheds");
  const Quilt here = renameLayer(base, sheds, "Halls");
  const Quilt there = painted(renameLayer(base, sheds, "Depots"), "Awnings", {1, 1}, 1);
  EXPECT_EQ(join(here, there, Side::here).quilt, here);
  EXPECT_THAT(asked, ElementsAre("Yard"));
  EXPECT_EQ(join(here, there, Side::there).quilt, there);
  const Quilt both = join(here, there, Side::both).quilt;
  ASSERT_TRUE(both.mapNamed("Yard (theirs)"));
  EXPECT_TRUE(both.mapNamed("Yard (theirs)")->layerNamed("Depots"));
  auto disk = std::make_shared<MemoryDisk>();
  ASSERT_TRUE(QuiltStore::create(disk, "/q", both));
  EXPECT_THAT(QuiltStore::open(disk, "/q", QuiltStore::Access::read)->problems, IsEmpty());
}

TEST(ReadAgain, SeesWhatAnotherProgramSavedWithTheSameSlotsAndSavingGoesOn) {
  auto disk = std::make_shared<MemoryDisk>();
  auto mine = QuiltStore::create(disk, "/q", smallQuilt());
  ASSERT_TRUE(mine);
  EXPECT_FALSE(mine->store.isChanged());
  // A pull: another program's files, lock or not.
  {
    auto other = std::make_shared<MemoryDisk>();
    other->files = disk->files;
    other->folders = disk->folders;
    auto theirs = QuiltStore::open(other, "/q", QuiltStore::Access::write);
    ASSERT_TRUE(theirs);
    IdSource ids(3);
    Quilt quilt = painted(theirs->quilt, "Sheds", {5, 5}, 2);
    quilt = addMap(quilt, {"Roofs", quilt.mapNamed("Yard")->grid, 6, 5}, ids).quilt;
    ASSERT_TRUE(theirs->store.save(quilt));
    for (const auto& [path, text] : other->files) {
      if (!disk->files.contains(path) || disk->files[path] != text) disk->put(path, text);
    }
    disk->folders = other->folders;
  }
  EXPECT_TRUE(mine->store.isChanged());
  const Quilt here = painted(mine->quilt, "Awnings", {1, 1}, 1);
  EXPECT_FALSE(mine->store.save(painted(mine->quilt, "Sheds", {1, 1}, 1))) << "never over it unseen";
  Progress progress;
  auto again = mine->store.readAgain(progress);
  ASSERT_TRUE(again) << again.error().text();
  EXPECT_EQ(again->read.quilt.slots(), mine->quilt.slots());
  IdSource ids(9);
  const Joined done =
      joined(mine->quilt, here, again->read.quilt, [](const BothChanged&) { return Side::here; }, ids);
  EXPECT_THAT(done.taken, ElementsAre("Roofs", "Yard"));
  mine->store.take(std::move(*again));
  EXPECT_FALSE(mine->store.isChanged());
  const auto saved = mine->store.save(done.quilt);
  ASSERT_TRUE(saved) << saved.error().text();
  const auto opened = QuiltStore::open(disk, "/q", QuiltStore::Access::read);
  ASSERT_TRUE(opened);
  EXPECT_EQ(bytes(opened->quilt), bytes(done.quilt));
}

}  // namespace uq::test
