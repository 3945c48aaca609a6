// What was meant where a tile stands in for a shape that is missing.
#include "core/edit/Meant.h"

#include <gmock/gmock.h>

#include <random>

#include "core/JoinedGround.h"
#include "core/SavedQuilt.h"
#include "core/edit/EdgingCoverage.h"
#include "core/edit/JoinQuilts.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Rejoin.h"

namespace uq::test {
namespace {

// A set some of whose shapes are gone: never a plain one, which shows one material and nothing else.
MadeEdging ofTwo(Decides decides) {
  for (std::uint64_t seed = *rc::gen::arbitrary<std::uint32_t>();; ++seed) {
    MadeEdging made = madeEdging(seed, false);
    if (made.set == MadeSet::full && made.truth.decides == decides && made.truth.materials.size() <= 2u) return made;
  }
}

struct Gapped : JoinedGround {
  std::vector<EdgingMember> gone;

  explicit Gapped(MadeEdging from, int share) : JoinedGround(std::move(from)) {
    std::mt19937_64 random(*rc::gen::arbitrary<std::uint64_t>());
    Edging without = edge();
    std::erase_if(without.members, [&](const EdgingMember& one) {
      const auto plain = [&](const std::vector<MaterialIndex>& places) { return std::all_of(places.begin(), places.end(), [&](MaterialIndex place) { return place == one.middle; }); };
      if ((plain(one.sides) && plain(one.corners)) || static_cast<int>(random() % 100) >= share) return false;
      gone.push_back(one);
      return true;
    });
    quilt = quilt.with(without);
  }
  LayerCells layer() const { return *quilt.layer(at); }
  void differ(const JoinedGround& other, std::ostream& say) const {
    for (int y = bounds.y0; y < bounds.y1; ++y) {
      for (int x = bounds.x0; x < bounds.x1; ++x) {
        const Cell a = cells().at({x, y});
        const Cell b = other.cells().at({x, y});
        const int meantA = quilt.layer(at)->meant.at({x, y});
        const int meantB = other.quilt.layer(other.at)->meant.at({x, y});
        if (a == b && meantA == meantB) continue;
        say << x << "," << y << ": " << a.bits() << " meant " << std::oct << meantA << std::dec << ", not " << b.bits() << " meant " << std::oct << meantB << std::dec << "\n";
      }
    }
  }
};

}  // namespace

TEST(Meant, SaysAShapeOfTwoMaterialsExactly) {
  for (const Decides decides : kDecides) {
    EXPECT_TRUE(rc::check(std::string(decidesName(decides)), [decides] {
      const MadeEdging made = fullSet(decides);
      for (const EdgingMember& one : made.truth.members) {
        std::set<MaterialIndex> shown(one.corners.begin(), one.corners.end());
        shown.insert(one.sides.begin(), one.sides.end());
        if (decides != Decides::corners) shown.insert(one.middle);
        if (shown.size() > 2) continue;
        const auto read = memberMeant(made.truth, meantOf(made.truth, shapeOf(one)));
        RC_ASSERT(read.has_value());
        RC_ASSERT(read->sides == one.sides);
        if (cornersDecide(decides)) RC_ASSERT(read->corners == one.corners);
        if (decides != Decides::corners) RC_ASSERT(read->middle == one.middle);
      }
    }));
  }
}

TEST(Meant, SaysAShapeOfMoreMaterialsExactlyWhereTheyAreFew) {
  for (const Decides decides : {Decides::sides, Decides::corners}) {
    EXPECT_TRUE(rc::check(std::string(decidesName(decides)), [decides] {
      Edging edging = fullSet(decides).truth;
      edging.materials.resize(static_cast<std::size_t>(*rc::gen::inRange(3, 5)));
      const auto any = [&] { return *rc::gen::inRange(-1, static_cast<int>(edging.materials.size())); };
      EdgingShape shape{any(), {}, {}};
      auto& places = decides == Decides::corners ? shape.corners : shape.sides;
      for (int i = 0; i < placesOf(edging.grid); ++i) places.push_back(any());
      const auto read = memberMeant(edging, meantOf(edging, shape));
      RC_ASSERT(read.has_value());
      RC_ASSERT((decides == Decides::corners ? read->corners : read->sides) == places);
      if (decides == Decides::sides) RC_ASSERT(read->middle == shape.middle);
    }));
  }
}

TEST(Meant, ComesAlongWhereVersionsAreJoined) {
  EXPECT_TRUE(rc::check([&] {
    Gapped on(ofTwo(Decides::corners), 60);
    const Quilt base = on.quilt;
    for (const CellPos cell : someCells(on.bounds, 4)) on.paint({cell});
    IdSource ids(3);
    const Quilt here = renameLayer(base, on.at, "Streets");
    const Quilt both = joined(base, here, on.quilt, [](const BothChanged&) { return Side::here; }, ids).quilt;
    RC_ASSERT(both.layer(on.at)->meant == on.layer().meant);
    RC_ASSERT(both.layer(on.at)->name == "Streets");
  }));
}

TEST(Meant, OfAnotherEdgingSaysNothing) {
  const MadeEdging made = madeEdging(1, false);
  EXPECT_FALSE(memberMeant(made.truth, 0));
  EXPECT_FALSE(memberMeant(made.truth, 40 << 12 | 40 << 6));
  EXPECT_FALSE(memberMeant(made.truth, -7));
}

// With shapes missing, too, the order in which materials are laid makes no difference.
TEST(Meant, MakesTheOrderOfStrokesMakeNoDifference) {
  for (const Decides decides : {Decides::sides, Decides::corners, Decides::both}) {
    EXPECT_TRUE(rc::check(std::string(decidesName(decides)), [decides] {
      MadeEdging made = ofTwo(decides);
      Gapped one(std::move(made), 30);
      Gapped other = one;
      std::vector<CellPos> cells = someCells(one.bounds, 8);
      for (const CellPos cell : cells) one.paint({cell});
      std::mt19937_64 random(*rc::gen::arbitrary<std::uint64_t>());
      std::shuffle(cells.begin(), cells.end(), random);
      for (const CellPos cell : cells) other.paint({cell});
      RC_LOG() << one.made.called << ", " << one.gone.size() << " gone\n";
      one.differ(other, RC_LOG());
      RC_ASSERT(one.layer() == other.layer());
    }));
  }
}

// Shapes that come later take the place of what stood in, and all is as if they had been there.
TEST(Meant, MendsTheMapWhenTheShapeComes) {
  for (const Decides decides : {Decides::sides, Decides::corners, Decides::both}) {
    EXPECT_TRUE(rc::check(std::string(decidesName(decides)), [decides] {
      MadeEdging made = ofTwo(decides);
      JoinedGround whole(made);
      Gapped gapped(std::move(made), 40);
      for (const CellPos cell : someCells(whole.bounds, 6)) {
        whole.paint({cell});
        gapped.paint({cell});
      }
      Edging again = gapped.edge();
      again.members.insert(again.members.end(), gapped.gone.begin(), gapped.gone.end());
      gapped.quilt = withEdging(gapped.quilt, again);
      RC_LOG() << gapped.made.called << ", " << gapped.gone.size() << " gone\n";
      gapped.differ(whole, RC_LOG());
      RC_ASSERT(gapped.wrongJoints() == 0);
      RC_ASSERT(gapped.layer().meant.empty());
      RC_ASSERT(joinFindings(gapped.quilt, gapped.at).standIns.empty());
      // The same, but for the choice among look-alikes.
      for (int y = whole.bounds.y0; y < whole.bounds.y1; ++y) {
        for (int x = whole.bounds.x0; x < whole.bounds.x1; ++x) {
          const EdgingMember* a = whole.member(whole.cells().at({x, y}));
          const EdgingMember* b = gapped.member(gapped.cells().at({x, y}));
          RC_ASSERT((a == nullptr) == (b == nullptr));
          if (a) RC_ASSERT(shapeOf(*a) == shapeOf(*b));
        }
      }
    }));
  }
}

TEST(Meant, IsKeptWithTheQuiltMovedAndWrittenOver) {
  Saved saved;
  const LayerAt at = layerOf(saved.quilt, "Yard", "Paving");
  LayerCells cells = *saved.quilt.layer(at);
  const Cell tile = tileOf(saved.quilt, "street", 2);
  cells.lay(CellPos{1, 1}, uq::Laid{tile, 0});
  cells.meant.set({1, 1}, 4711);
  LayerCells moved = cells;
  moved.move(CellSet(CellRect{1, 1, 2, 2}), moved, [](CellPos) { return CellPos{3, 2}; });
  EXPECT_EQ(moved.meant.at({3, 2}), 4711);
  EXPECT_EQ(moved.meant.at({1, 1}), 0);
  moved.lay(CellPos{3, 2}, uq::Laid{tile, 0});
  EXPECT_TRUE(moved.meant.empty()) << "what is laid means itself";
  EXPECT_NE(moved, cells);
  const auto done = saved.store->save(saved.quilt.with(at, cells));
  ASSERT_TRUE(done) << done.error().text();
  EXPECT_TRUE(saved.disk->files.contains(kFolder + "/maps/yard/paving.meant.cells"));
  auto opened = saved.open();
  ASSERT_TRUE(opened);
  EXPECT_EQ(opened->quilt.layer(layerOf(opened->quilt, "Yard", "Paving"))->meant.at({1, 1}), 4711);
  // Once nothing stands in, there is no file of it.
  const auto without = opened->store.save(opened->quilt.with(at, moved));
  ASSERT_TRUE(without) << without.error().text();
  EXPECT_FALSE(saved.disk->files.contains(kFolder + "/maps/yard/paving.meant.cells"));
}

}  // namespace uq::test
