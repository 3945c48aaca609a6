// What was moved, pasted or taken away joins what it meets.
#include "core/edit/Rejoin.h"

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/JoinedGround.h"
#include "core/check/Checks.h"
#include "core/edit/LayCells.h"
#include "core/edit/Selected.h"

namespace uq::test {

namespace {

CellSet around(const Grid& grid, const CellSet& cells) {
  CellSet all = cells;
  cells.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      const int corners = placesOf(grid.shape().kind);
      for (int corner = 0; corner < corners; ++corner) {
        for (const CellPos beside : grid.aroundCorner({first.x + i, first.y}, corner)) all.insert(beside);
      }
    }
  });
  return all;
}

}  // namespace

TEST(Rejoin, LeavesWhatIsJoinedRightAsItIs) {
  for (const Decides decides : kDecides) {
    EXPECT_TRUE(rc::check(std::string(decidesName(decides)), [decides] {
      JoinedGround on(fullSet(decides));
      for (int i = 0; i < 4; ++i) on.paint(someCells(on.bounds, 3));
      const Rejoined again = rejoined(on.quilt, on.at, CellSet(on.bounds));
      RC_ASSERT(again.changed.empty());
      RC_ASSERT(again.cells.cells == on.cells());
      RC_ASSERT(joinFindings(on.quilt, on.at).wrong.empty());
      RC_ASSERT(joinFindings(on.quilt, on.at).standIns.empty());
    }));
  }
}

// Whatever is moved to wherever: no joint is wrong, and nothing beyond what touches it changes.
TEST(Rejoin, MendsWhatWasMovedWhereItLiesAndWhereItLay) {
  for (const Decides decides : kDecides) {
    EXPECT_TRUE(rc::check(std::string(decidesName(decides)), [decides] {
      JoinedGround on(fullSet(decides));
      for (int i = 0; i < 3; ++i) on.paint(someCells(on.bounds, 3));
      const std::vector<CellPos> ends = someCells(on.bounds, 2);
      const CellSet moved(CellRect::around(ends[0], ends[1]));
      const Quilt before = on.quilt;
      const SidePos by{*rc::gen::inRange(-4, 5), *rc::gen::inRange(-4, 5)};
      Quilt after = moveCells(before, SelectedCells(std::vector{on.at}, moved), by);
      // To an edging without *nothing* a hole says nothing: there what lay there stays, as when a copy is pasted.
      if (!showsNothing(on.edge())) {
        LayerCells cells = *after.layer(on.at);
        moved.forEachStretch([&](CellPos first, int count) {
          for (int i = 0; i < count; ++i) {
            const CellPos at{first.x + i, first.y};
            if (cells.cells.at(at).empty()) cells.cells.set(at, before.layer(on.at)->cells.at(at));
          }
        });
        after = after.with(on.at, std::move(cells));
      }
      on.quilt = joinedWhereChanged(before, after, on.at.map);
      RC_ASSERT(on.wrongJoints() == 0);
      const auto grid = makeGrid(on.made.shape);
      CellSet differ;
      const CellGrid& was = before.layer(on.at)->cells;
      const CellGrid& laid = after.layer(on.at)->cells;
      for (int y = on.bounds.y0; y < on.bounds.y1; ++y) {
        for (int x = on.bounds.x0; x < on.bounds.x1; ++x) {
          if (was.at({x, y}) != laid.at({x, y})) differ.insert({x, y});
        }
      }
      const CellSet near = around(*grid, differ);
      for (int y = on.bounds.y0; y < on.bounds.y1; ++y) {
        for (int x = on.bounds.x0; x < on.bounds.x1; ++x) {
          if (!near.contains({x, y})) RC_ASSERT(on.cells().at({x, y}) == was.at({x, y}));
        }
      }
    }));
  }
}

// A block that is laid as it was copied joins what it meets, unless that is switched off.
TEST(Rejoin, JoinsABlockThatIsPasted) {
  int exact = 0;
  for (const Decides decides : kDecides) {
    EXPECT_TRUE(rc::check(std::string(decidesName(decides)), [&, decides] {
      JoinedGround on(fullSet(decides));
      for (int i = 0; i < 3; ++i) on.paint(someCells(on.bounds, 3));
      const std::vector<CellPos> ends = someCells(on.bounds, 2);
      const auto block = copyOf(on.quilt, on.at, CellSet(CellRect::around(ends[0], ends[1])));
      if (!block || block->parts().size() < 2) return;
      StrokePlan plan = layingOn(on.at, InHand(*block, on.made.shape.kind));
      const Quilt before = on.quilt;
      on.quilt = stroked(before, plan, someCells(on.bounds, 1));
      RC_ASSERT(on.wrongJoints() == 0);
      plan.options.joinsMet = false;
      on.quilt = stroked(before, plan, someCells(on.bounds, 1));
      exact += on.wrongJoints() > 0 ? 1 : 0;
    }));
  }
  EXPECT_GT(exact, 40) << "switched off it lies as it was copied";
}

TEST(Rejoin, FindsWhatIsWrongAndMendsIt) {
  JoinedGround on(madeEdging([] {
    std::uint64_t seed = 0;
    while (madeEdging(seed, false).set != MadeSet::full || madeEdging(seed, false).truth.decides != Decides::corners || madeEdging(seed, false).shape.kind != GridKind::orthogonal) ++seed;
    return seed;
  }(), false));
  on.paint({{4, 4}, {8, 4}}, 0, false, 3);
  EXPECT_TRUE(joinFindings(on.quilt, on.at).wrong.empty());
  // A hand lays the plain tile without its borders.
  LayerCells cells = *on.quilt.layer(on.at);
  cells.cells.set({11, 10}, *plainTile(on.quilt, on.edge(), 0));
  on.quilt = on.quilt.with(on.at, cells);
  EXPECT_GT(on.wrongJoints(), 0);
  const JoinFindings found = joinFindings(on.quilt, on.at);
  EXPECT_FALSE(found.wrong.empty());
  EXPECT_FALSE(found.wrong.contains({4, 4}));
  // The same is told among the loose threads, and mended there.
  const Checked told = Checks().of(on.quilt);
  const auto thread = std::find_if(told.threads.begin(), told.threads.end(), [](const LooseThread& one) { return one.kind == "joined wrongly"; });
  ASSERT_NE(thread, told.threads.end());
  EXPECT_TRUE(found.wrong.contains(*thread->cell));
  const Quilt tied = uq::mended(on.quilt, *thread);
  EXPECT_TRUE(joinFindings(tied, on.at).wrong.empty());
  const Rejoined mended = rejoined(on.quilt, on.at, CellSet(on.bounds));
  EXPECT_EQ(mended.changed, found.wrong);
  on.quilt = on.quilt.with(on.at, LayerCells(mended.cells));
  EXPECT_EQ(on.wrongJoints(), 0);
  // Where nothing may be touched nothing is.
  EXPECT_TRUE(rejoined(on.quilt, on.at, CellSet(on.bounds), [](CellPos) { return false; }).changed.empty());
}

TEST(Rejoin, NamesStandIns) {
  std::uint64_t seed = 0;
  while (madeEdging(seed, false).set != MadeSet::small || madeEdging(seed, false).truth.decides != Decides::both || madeEdging(seed, false).shape.kind != GridKind::orthogonal) ++seed;
  JoinedGround on(madeEdging(seed, false));
  on.paint({{6, 6}});
  EXPECT_TRUE(joinFindings(on.quilt, on.at).standIns.contains({6, 6})) << "a cell alone has no shape there";
  EXPECT_TRUE(joinFindings(on.quilt, on.at).wrong.empty());
  const Checked told = Checks().of(on.quilt);
  EXPECT_TRUE(std::any_of(told.threads.begin(), told.threads.end(), [](const LooseThread& one) { return one.kind == "stand-in for a missing shape"; }));
}

}  // namespace uq::test
