// Materials laid: what joins, held against a checker that knows the members alone.
#include "core/edit/Joiner.h"

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include <algorithm>
#include <random>

#include "core/JoinedGround.h"
#include "core/Support.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Edgings.h"
#include "core/edit/Stroke.h"
#include "core/store/HandText.h"

namespace uq::test {

TEST(Joiner, LeavesNoJointWrongWithAFullSet) {
  for (const Decides decides : kDecides) {
    EXPECT_TRUE(rc::check(std::string(decidesName(decides)), [decides] {
      JoinedGround on(fullSet(decides));
      RC_ASSERT(on.wrongJoints() == 0);
      for (int i = 0; i < 6; ++i) {
        const auto materials = static_cast<int>(on.edge().materials.size());
        const MaterialIndex material = decides == Decides::corners ? *rc::gen::inRange(0, materials) : 0;
        const bool takesAway = *rc::gen::inRange(0, 4) == 0;
        on.paint(someCells(on.bounds, *rc::gen::inRange(1, 4)), material, takesAway, decides == Decides::path ? 1 : *rc::gen::element(1, 1, 3));
        RC_ASSERT(on.wrongJoints() == 0);
      }
    }));
  }
}

TEST(Joiner, ComesOutTheSameInWhateverOrder) {
  for (const Decides decides : {Decides::sides, Decides::corners, Decides::both}) {
    EXPECT_TRUE(rc::check(std::string(decidesName(decides)), [decides] {
      JoinedGround one(fullSet(decides));
      JoinedGround other = one;
      std::vector<CellPos> cells = someCells(one.bounds, 8);
      for (const CellPos cell : cells) one.paint({cell});
      std::mt19937_64 random(*rc::gen::arbitrary<std::uint64_t>());
      std::shuffle(cells.begin(), cells.end(), random);
      for (const CellPos cell : cells) other.paint({cell});
      RC_ASSERT(one.cells() == other.cells());
    }));
  }
}

TEST(Joiner, TakesAwayWhatItLaid) {
  for (const Decides decides : kDecides) {
    EXPECT_TRUE(rc::check(std::string(decidesName(decides)), [decides] {
      JoinedGround on(fullSet(decides));
      const CellGrid before = on.cells();
      std::vector<CellPos> path = someCells(on.bounds, 3);
      // By corners a cell that a stroke encloses is laid as well, and stays when the stroke is taken away: a straight one encloses none.
      if (decides == Decides::corners) path = {path[0], {path[1].x, path[0].y}};
      on.paint(path);
      RC_ASSERT(on.cells() != before);
      on.paint(path, 0, true);
      RC_ASSERT(on.cells() == before);
    }));
  }
}

TEST(Joiner, ChangesNothingThatDoesNotTouchWhatWasLaid) {
  EXPECT_TRUE(rc::check("on every grid", [] {
    JoinedGround on(madeEdging(*rc::gen::inRange<std::uint64_t>(0, 5'000), false));
    on.paint(someCells(on.bounds, 4));
    const CellGrid before = on.cells();
    const CellPos at = someCells(on.bounds, 1).front();
    on.paint({at});
    const auto grid = makeGrid(on.made.shape);
    CellSet near(CellRect::around(at, at));
    for (int corner = 0; corner < placesOf(on.made.shape.kind); ++corner) {
      for (const CellPos beside : grid->aroundCorner(at, corner)) near.insert(beside);
    }
    for (int y = on.bounds.y0; y < on.bounds.y1; ++y) {
      for (int x = on.bounds.x0; x < on.bounds.x1; ++x) {
        if (!near.contains({x, y})) RC_ASSERT(on.cells().at({x, y}) == before.at({x, y}));
      }
    }
  }));
}

TEST(Joiner, KeepsTwoPathsSideBySideApart) {
  std::uint64_t seed = 0;
  while (madeEdging(seed, false).truth.decides != Decides::path || madeEdging(seed, false).shape.kind != GridKind::orthogonal) ++seed;
  JoinedGround on(madeEdging(seed, false));
  on.paint({{2, 3}, {8, 3}});
  on.paint({{2, 4}, {8, 4}});
  EXPECT_EQ(on.side({4, 3}, 1), 0) << "along the stroke";
  EXPECT_NE(on.side({4, 3}, 2), 0) << "not to the one beside it";
  // A stroke across joins both.
  on.paint({{5, 2}, {5, 5}});
  EXPECT_EQ(on.side({5, 3}, 2), 0);
  EXPECT_EQ(on.side({5, 3}, 1), 0);
  // A ring closes where the stroke comes back to where it began.
  on.paint({{2, 8}, {6, 8}, {6, 11}, {2, 11}, {2, 8}});
  EXPECT_EQ(on.side({2, 8}, 1), 0);
  EXPECT_EQ(on.side({2, 8}, 2), 0);
  EXPECT_EQ(on.wrongJoints(), 0);
}

TEST(Joiner, LaysTheLeastWrongWhereAShapeIsMissing) {
  std::uint64_t seed = 0;
  while (madeEdging(seed, false).set != MadeSet::small || madeEdging(seed, false).truth.decides != Decides::both) ++seed;
  JoinedGround on(madeEdging(seed, false));
  // One cell alone has no shape in the small set: something of the material lies there all the same.
  on.paint({{6, 6}});
  const EdgingMember* lone = on.member(on.cells().at({6, 6}));
  ASSERT_TRUE(lone);
  EXPECT_EQ(lone->middle, 0);
  // A block of three by three has all its shapes.
  on.paint({{6, 6}}, 0, true);
  on.paint({{6, 6}}, 0, false, 3);
  EXPECT_EQ(on.wrongJoints(), 0);
}

// Whatever shape lays it: a box, an outline, a line, an oval, a fill.
TEST(Joiner, LeavesNoJointWrongWithAnyTool) {
  for (const Tool tool : {Tool::box, Tool::line, Tool::oval, Tool::fill}) {
    EXPECT_TRUE(rc::check(std::to_string(static_cast<int>(tool)), [tool] {
      JoinedGround on(fullSet(*rc::gen::element(Decides::sides, Decides::corners, Decides::both)));
      for (int i = 0; i < 3; ++i) {
        StrokePlan plan = layingOn(on.at, materialInHand(on.quilt, on.edge(), 0));
        plan.tool = tool;
        plan.takesAway = *rc::gen::inRange(0, 4) == 0;
        plan.options.outlines = *rc::gen::arbitrary<bool>();
        on.quilt = stroked(on.quilt, plan, someCells(on.bounds, tool == Tool::fill ? 1 : 2));
        RC_ASSERT(on.wrongJoints() == 0);
      }
    }));
  }
}

// Laid at once or cell by cell, as a large set or as many small ones: the same.
TEST(Joiner, ComesOutTheSameAtOnceAndCellByCell) {
  EXPECT_TRUE(rc::check("boxes", [] {
    JoinedGround one(fullSet(*rc::gen::element(Decides::sides, Decides::corners, Decides::both), GridKind::orthogonal));
    JoinedGround other = one;
    const std::vector<CellPos> ends = someCells(one.bounds, 2);
    StrokePlan plan = layingOn(one.at, materialInHand(one.quilt, one.edge(), 0));
    plan.tool = Tool::box;
    one.quilt = stroked(one.quilt, plan, ends);
    const CellRect box = CellRect::around(ends[0], ends[1]);
    std::vector<CellPos> cells;
    for (int y = box.y0; y < box.y1; ++y) {
      for (int x = box.x0; x < box.x1; ++x) cells.push_back({x, y});
    }
    for (const CellPos cell : cells) other.paint({cell});
    RC_ASSERT(one.cells() == other.cells());
  }));
}

// Three materials of which the first and the last have no border: the second comes between, and nothing beyond two cells changes.
TEST(Joiner, LaysAThirdWhereTwoHaveNoBorder) {
  int seen = 0;
  for (std::uint64_t seed = 0; seed < 4'000 && seen < 12; ++seed) {
    MadeEdging made = madeEdging(seed, false);
    if (made.set != MadeSet::full || made.truth.decides != Decides::corners || made.truth.materials.size() != 3 || showsNothing(made.truth)) continue;
    ++seen;
    // Materials 0 and 1 are never seen together.
    std::erase_if(made.truth.members, [](const EdgingMember& one) {
      const auto shows = [&](MaterialIndex material) { return std::count(one.corners.begin(), one.corners.end(), material) > 0; };
      return shows(0) && shows(1);
    });
    JoinedGround on(std::move(made));
    const CellGrid before = on.cells();
    on.paint({{5, 6}, {8, 6}});
    EXPECT_EQ(on.wrongJoints(), 0) << on.made.called;
    bool third = false;
    for (int y = on.bounds.y0; y < on.bounds.y1; ++y) {
      for (int x = on.bounds.x0; x < on.bounds.x1; ++x) {
        const EdgingMember* member = on.member(on.cells().at({x, y}));
        ASSERT_TRUE(member);
        third = third || std::count(member->corners.begin(), member->corners.end(), 2) > 0;
        const bool isNear = x >= 3 && x <= 10 && y >= 4 && y <= 8;
        EXPECT_TRUE(isNear || on.cells().at({x, y}) == before.at({x, y})) << x << ", " << y;
      }
    }
    EXPECT_TRUE(third);
  }
  EXPECT_EQ(seen, 12);
}

TEST(Joiner, AMaterialInHandIsSpeltByNamesAndGoesWithItsEdging) {
  JoinedGround on(madeEdging(2, false));
  const InHand hand = materialInHand(on.quilt, on.edge(), 0);
  ASSERT_TRUE(hand.joins());
  for (const SheetsBy by : {SheetsBy::id, SheetsBy::file}) {
    const auto again = handFromJson(handJson(hand, on.quilt, by), on.quilt);
    ASSERT_TRUE(again) << again.error().text();
    EXPECT_EQ(*again, hand);
  }
  Desk desk;
  desk.inHand = hand;
  EXPECT_TRUE(validDesk(desk, on.quilt).inHand.joins());
  EXPECT_FALSE(validDesk(desk, on.quilt.without<Edging>(on.edging)).inHand.joins()) << "a tile then";
}

}  // namespace uq::test
