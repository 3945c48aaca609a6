// What a person does with seams, without a window: what is one step, what goes along, what is said.
#include <gmock/gmock.h>

#include "core/Support.h"
#include "core/edit/Seams.h"
#include "core/work/Verbs.h"

namespace uq::test {
namespace {

using testing::Contains;
using testing::HasSubstr;
using testing::IsEmpty;
using testing::SizeIs;

struct Hears : Work::Listener {
  void refused(const std::string& why) override { refusals.push_back(why); }
  void asksFarther(const std::string& question) override { questions.push_back(question); }
  std::vector<std::string> refusals;
  std::vector<std::string> questions;
};

// Yard (cells -4, -4 to 16, 8) with Loft (6 × 5) sewn to its right edge, from row 0.
class SeamVerbs : public testing::Test {
 protected:
  SeamVerbs() {
    IdSource ids(3);
    yard = start.mapNamed("Yard")->id;
    loft = start.mapNamed("Loft")->id;
    start = sewn(start, yard, loft, {16, 0}, ids).quilt;
    Desk desk;
    desk.map = yard;
    desk.openMaps = {yard, loft};
    desk.activeLayer[yard] = layerOf(start, "Yard", "Paving").layer;
    work.emplace(start, desk, [this](Id map) { return map == damaged ? &damage : nullptr; }, TileLooks{}, IdSource(7));
    work->tell(heard);
    verbs.emplace(*work);
    verbs->hand.take(Block::of(tileOf(start, "street", 3)));
    verbs->layers.choose(desk.activeLayer[yard]);
  }
  void stroke(std::vector<CellPos> path) {
    verbs->strokes.begin({.path = {path.front()}});
    for (const CellPos cell : path) verbs->strokes.moveTo(cell);
    (void)work->finish();
  }
  void drag(const HeldEdge& edge, CellPos from, CellPos to, bool alone) {
    ASSERT_TRUE(verbs->edge.take(edge, from));
    verbs->edge.dragTo(to, false, alone);
  }
  const CellGrid& floor() const { return work->quilt().map(loft)->layerNamed("Floor")->cells; }
  CellRect bounds(Id map) const { return work->quilt().map(map)->bounds; }

  Quilt start = smallQuilt();
  Id yard;
  Id loft;
  Id damaged;
  Error damage;
  Hears heard;
  std::optional<Work> work;
  std::optional<Verbs> verbs;
};

}  // namespace

TEST_F(SeamVerbs, AStrokeOverTheStitchIsOneStepAtHomeInBothTabs) {
  stroke({{14, 2}, {18, 2}});
  EXPECT_FALSE(floor().at({2, 2}).empty());
  const Step& step = work->undoLine().steps().back();
  EXPECT_THAT(step.name, HasSubstr("across Loft and Yard"));
  EXPECT_TRUE(step.across);
  verbs->maps.goTo(loft);
  work->undo();
  EXPECT_THAT(heard.questions, IsEmpty());
  EXPECT_TRUE(work->quilt() == start);
  work->redo();
  EXPECT_FALSE(floor().at({2, 2}).empty());
}

TEST_F(SeamVerbs, ADroppedStrokeLeavesNoTraceOnEitherMap) {
  verbs->strokes.begin({.path = {{14, 2}}});
  verbs->strokes.moveTo({18, 2});
  work->drop();
  EXPECT_TRUE(work->quilt() == start);
}

TEST_F(SeamVerbs, AMapThatWasNotReadWholeStopsTheStroke) {
  damaged = loft;
  damage.reason = "broken";
  stroke({{14, 2}, {18, 2}});
  EXPECT_TRUE(floor().empty());
  EXPECT_FALSE(work->quilt() == start);
}

TEST_F(SeamVerbs, ASewnEdgeTakesTheNeighboursAlong) {
  drag({false, false, true, false}, {16, 2}, {18, 2}, false);
  EXPECT_EQ(verbs->edge.sewn(), "Loft");
  EXPECT_FALSE(verbs->edge.opens());
  EXPECT_EQ(bounds(yard), (CellRect{-4, -4, 18, 8}));
  EXPECT_EQ(bounds(loft), (CellRect{2, 0, 6, 5}));
  verbs->edge.leave();
  ASSERT_THAT(work->quilt().seams(), SizeIs(1));
  EXPECT_EQ(work->quilt().seams().front()->by, (CellPos{16, 0}));
  EXPECT_FALSE(SewnMaps(work->quilt()).anyWrong());
  EXPECT_THAT(work->undoLine().steps(), SizeIs(1));
  work->undo();
  EXPECT_TRUE(work->quilt() == start);
  // No farther than leaves it a cell.
  drag({false, false, true, false}, {16, 2}, {30, 2}, false);
  EXPECT_THAT(verbs->edge.refusal(), HasSubstr("no cell left"));
  work->drop();
}

TEST_F(SeamVerbs, WhatAnEdgeShowsIsWhatLettingItGoLeavesAndOtherSeamsThatOpenAreNamed) {
  // Cut below the rows to which Loft is sewn.
  drag({false, false, false, true}, {2, 8}, {2, -1}, false);
  EXPECT_THAT(verbs->edge.opened(), Contains("Yard ~ Loft"));
  const Quilt shown = work->quilt();
  EXPECT_THAT(shown.seams(), IsEmpty());
  verbs->edge.leave();
  EXPECT_TRUE(work->quilt() == shown);
}

TEST_F(SeamVerbs, TakenAloneTheEdgeOpensTheSeam) {
  drag({false, false, true, false}, {16, 2}, {20, 2}, true);
  EXPECT_TRUE(verbs->edge.opens());
  verbs->edge.leave();
  EXPECT_EQ(bounds(yard).x1, 20);
  EXPECT_EQ(bounds(loft), start.map(loft)->bounds);
  EXPECT_THAT(work->quilt().seams(), IsEmpty());
}

TEST_F(SeamVerbs, ASizeThatIsTypedPushesTheNeighbourAndOneThatOpensASeamSaysSo) {
  verbs->maps.resize({-4, -4, 20, 8});
  EXPECT_EQ(work->quilt().seams().front()->by, (CellPos{20, 0}));
  verbs->maps.resize({-4, -4, 20, 0});
  EXPECT_THAT(work->quilt().seams(), IsEmpty());
  EXPECT_THAT(work->undoLine().steps().back().name, HasSubstr("opens Yard ~ Loft"));
  work->undo();
  EXPECT_THAT(work->quilt().seams(), SizeIs(1));
}

TEST_F(SeamVerbs, PiecesAreSewnRippedWrappedAndMovedAsOneStepEach) {
  verbs->maps.showBoard(true);
  verbs->maps.rip({loft});
  EXPECT_THAT(work->quilt().seams(), IsEmpty());
  verbs->maps.rip({loft});
  EXPECT_THAT(heard.refusals, Contains(HasSubstr("Nothing is sewn")));
  // It lies at 512, 0 still, beside Yard; a little off it is sewn to the nearest edge again.
  verbs->maps.movePieces({loft}, {9, 7});
  verbs->maps.sewNearest({loft}, 40);
  ASSERT_THAT(work->quilt().seams(), SizeIs(1));
  EXPECT_EQ(work->quilt().seams().front()->by.x, 16);
  verbs->maps.wrap(loft, true);
  EXPECT_THAT(heard.refusals, Contains(HasSubstr("larger")));
  verbs->maps.wrap(yard, true);
  EXPECT_TRUE(wraps(work->quilt(), yard, true));
  verbs->maps.wrap(yard, true);
  EXPECT_FALSE(wraps(work->quilt(), yard, true));
  const auto at = [&](Id map) {
    for (const Piece& piece : piecesOf(work->quilt())) {
      if (piece.map == map) return piece.at;
    }
    return PixelPos();
  };
  const PixelPos yardAt = at(yard);
  const PixelPos loftAt = at(loft);
  verbs->maps.movePieces({loft}, {100, 50});
  EXPECT_EQ(at(yard), (PixelPos{yardAt.x + 100, yardAt.y + 50}));
  EXPECT_EQ(at(loft), (PixelPos{loftAt.x + 100, loftAt.y + 50}));
  verbs->maps.remove(loft);
  EXPECT_THAT(work->quilt().seams(), IsEmpty());
  EXPECT_THAT(work->undoLine().steps().back().name, HasSubstr("opens"));
}

}  // namespace uq::test
