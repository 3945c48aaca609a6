// Maps that are drawn on the cloth, and chalk pieces that plan them.
#include "core/edit/DrawnPiece.h"

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/AnyGrid.h"
#include "core/SavedQuilt.h"
#include "core/edit/Patchwork.h"
#include "core/edit/Seams.h"

namespace uq::test {

using testing::HasSubstr;
using testing::IsEmpty;
using testing::SizeIs;

namespace {

// The small quilt with Yard at 0, 0 of the cloth: cells (-4, -4) to (16, 8) of 32 px.
Quilt onCloth() {
  Quilt quilt = smallQuilt();
  Map yard = *quilt.mapNamed("Yard");
  Map loft = *quilt.mapNamed("Loft");
  yard.onBoard = PixelPos{};
  loft.onBoard = PixelPos{5000, 5000};
  return quilt.with(yard).with(loft);
}

PixelRect boxOf(const Quilt& quilt, Id map) {
  const auto pieces = piecesOf(quilt);
  return std::find_if(pieces.begin(), pieces.end(), [&](const Piece& one) { return one.map == map; })->covers;
}

}  // namespace

TEST(DrawnPiece, AloneItIsAsLargeAsItWasDrawn) {
  const Quilt quilt = onCloth();
  IdSource ids(3);
  const DrawnPiece drawn = drawnPiece(quilt, {2000, 100, 330, 150}, quilt.mapNamed("Loft"), nullptr, 12);
  EXPECT_TRUE(drawn.beside.empty());
  EXPECT_EQ(drawn.plan.width, 10);
  EXPECT_EQ(drawn.plan.height, 5);
  const MapAdded made = addDrawn(quilt, drawn, drawn.plan, 3, ids);
  EXPECT_EQ(boxOf(made.quilt, made.map), (PixelRect{2000, 100, 320, 160}));
  EXPECT_THAT(made.quilt.seams(), IsEmpty());
}

TEST(DrawnPiece, AgainstAnEdgeItIsSewnAndCarriesOverWhatLiesThere) {
  const Quilt quilt = onCloth();
  const Map& yard = *quilt.mapNamed("Yard");
  IdSource ids(3);
  // Its right edge lies at 512.
  const DrawnPiece drawn = drawnPiece(quilt, {518, -120, 300, 370}, nullptr, nullptr, 12);
  ASSERT_EQ(drawn.beside, yard.id);
  EXPECT_EQ(drawn.edge, DrawnPiece::Edge::right);
  EXPECT_EQ(drawn.along, -4);
  MapPlan plan = drawn.plan;
  plan.name = "New town";
  plan.width = 20;
  const MapAdded made = addDrawn(quilt, drawn, plan, 3, ids);
  ASSERT_THAT(made.quilt.seams(), SizeIs(1));
  EXPECT_EQ(boxOf(made.quilt, made.map).x, 512);
  const Map& town = *made.quilt.map(made.map);
  EXPECT_EQ(town.bounds.width(), 20);
  const auto ground = partnerOn(made.quilt, {yard.id, yard.layerNamed("Paving")->id}, town.id);
  ASSERT_TRUE(ground);
  const CellGrid& cells = made.quilt.layer(*ground)->cells;
  for (int x = 0; x < 20; ++x) EXPECT_EQ(cells.at({x, 2}).empty(), x >= 3) << x;
  EXPECT_EQ(cells.at({1, 2}), yard.layerNamed("Paving")->cells.at({14, -2}));
}

// On any grid, at any of the four edges: sewn there, edge at edge, and no two maps on one cell.
RC_GTEST_PROP(DrawnPiece, AtAnyEdgeOfAnyGridItIsSewn, ()) {
  Quilt quilt = onCloth();
  Map yard = *quilt.mapNamed("Yard");
  yard.grid = anyGrid();
  yard.grid.plan = false;
  quilt = quilt.with(yard);
  const PixelRect box = boxOf(quilt, yard.id);
  DrawnPiece drawn;
  drawn.beside = yard.id;
  drawn.edge = *rc::gen::element(DrawnPiece::Edge::left, DrawnPiece::Edge::top, DrawnPiece::Edge::right, DrawnPiece::Edge::bottom);
  drawn.at = box;
  drawn.plan = proposedMap(quilt, &yard, nullptr);
  drawn.plan.width = 2 * *rc::gen::inRange(1, 12);
  drawn.plan.height = 2 * *rc::gen::inRange(1, 12);
  drawn.along = 2 * *rc::gen::inRange(-1, 2);
  IdSource ids(3);
  const MapAdded made = addDrawn(quilt, drawn, drawn.plan, *rc::gen::inRange(0, 4), ids);
  RC_ASSERT(made.quilt.seams().size() == 1u);
  RC_ASSERT(!SewnMaps(made.quilt).anyWrong());
  const Patchwork both = Patchwork::across(made.quilt, yard.id);
  RC_ASSERT(both.patches().size() == 2u);
  RC_ASSERT(edgesMeet(yard.grid.kind, both.patches()[0].cells, both.patches()[1].cells));
}

TEST(DrawnPiece, AChalkPieceIsPlannedSavedTickedAndCut) {
  Saved saved;
  auto opened = saved.open();
  ASSERT_TRUE(opened);
  IdSource ids(3);
  Id first;
  Quilt quilt = withChalk(opened->quilt, {4000, 100, 640, 320}, ids, &first);
  quilt = withChalk(quilt, {4000, 600, 640, 320}, ids);
  quilt = withChalkSaid(quilt, first, "Market", "stalls, a fountain", true);
  ASSERT_TRUE(opened->store.save(quilt));
  auto again = saved.open();
  ASSERT_TRUE(again);
  EXPECT_THAT(again->problems, IsEmpty());
  EXPECT_TRUE(again->quilt.chalkPieces() == quilt.chalkPieces());
  EXPECT_THAT(again->quilt.maps(), SizeIs(2));
  const DrawnPiece drawn = cutPiece(again->quilt, first, again->quilt.mapNamed("Yard"), nullptr, 12);
  EXPECT_EQ(drawn.plan.name, "Market");
  EXPECT_EQ(drawn.plan.width, 20);
  const MapAdded made = addDrawn(again->quilt, drawn, drawn.plan, 0, ids);
  EXPECT_THAT(made.quilt.chalkPieces(), SizeIs(1));
  EXPECT_TRUE(made.quilt.mapNamed("Market"));
  ASSERT_TRUE(again->store.save(made.quilt));
  // The last one gone, its file goes, too.
  Quilt none = made.quilt.without<ChalkPiece>(made.quilt.chalkPieces().front()->id);
  ASSERT_TRUE(again->store.save(none));
  EXPECT_FALSE(saved.disk->files.contains(kFolder + "/plan.json"));
}

TEST(DrawnPiece, APlanThatIsDamagedIsToldAndKept) {
  Saved saved;
  saved.disk->files[kFolder + "/plan.json"] =
      "{\n  \"document\": \"plan\",\n  \"version\": \"1.10\",\n  \"pieces\": [{\"id\": \"aaaaaaaaaaab\", \"name\": \"Market\", \"at\": [0, 0], \"size\": [0, 10]}]\n}\n";
  const std::string before = saved.file("plan.json");
  auto read = saved.open();
  ASSERT_TRUE(read);
  ASSERT_THAT(read->problems, SizeIs(1));
  EXPECT_THAT(read->problems[0].text(), HasSubstr("plan.json"));
  ASSERT_TRUE(read->store.save(saved.painted()));
  EXPECT_EQ(saved.file("plan.json"), before);
}

RC_GTEST_PROP(DrawnPiece, ChalkIsMovedAndTidiedLikeAnyPiece, ()) {
  Quilt quilt = onCloth();
  IdSource ids(3);
  Id chalk;
  quilt = withChalk(quilt, {*rc::gen::inRange(-900, 900), *rc::gen::inRange(-900, 900), *rc::gen::inRange(1, 900), *rc::gen::inRange(1, 900)}, ids, &chalk);
  const PixelPos by{*rc::gen::inRange(-500, 500), *rc::gen::inRange(-500, 500)};
  const PixelRect was = quilt.listed<ChalkPiece>(chalk)->at;
  const PixelRect is = withPiecesMoved(quilt, {chalk}, by).listed<ChalkPiece>(chalk)->at;
  RC_ASSERT(is == (PixelRect{was.x + by.x, was.y + by.y, was.w, was.h}));
  const auto tidy = piecesOf(withTidyBoard(quilt));
  RC_ASSERT(tidy.size() == 3u);
  for (std::size_t i = 0; i < 3; ++i) {
    for (std::size_t j = i + 1; j < 3; ++j) {
      const PixelRect& a = tidy[i].covers;
      const PixelRect& b = tidy[j].covers;
      RC_ASSERT(!(a.x < b.right() && b.x < a.right() && a.y < b.bottom() && b.y < a.bottom()));
    }
  }
}

}  // namespace uq::test
