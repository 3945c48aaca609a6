// What happens to sheets after they came in: cut anew, rearranged by another program, tidied, searched.
#include <gmock/gmock.h>
#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <algorithm>
#include <numeric>

#include "core/edit/ArrangeStamps.h"
#include "core/edit/OldPieces.h"
#include "core/store/Documents.h"
#include "core/PaintedSheet.h"
#include "core/edit/ArrangeSheets.h"
#include "core/sheets/FitsHere.h"
#include "core/sheets/PictureFindings.h"
#include "core/sheets/SheetSearch.h"
#include "core/sheets/SheetTidy.h"
#include "core/sheets/TileMarks.h"

namespace uq::test {
namespace {

using testing::ElementsAre;
using testing::IsEmpty;

Sheet after(const Sheet& before, const Painted& now, PictureChange* told = nullptr) {
  Sheet fresh = before;
  fresh.source = now.sheet.source;
  fresh.pictureSize = now.sheet.pictureSize;
  fresh.marks = now.sheet.marks;
  PictureChange change = changedPicture(before, fresh);
  if (told) *told = change;
  return change.sheet;
}

TEST(LivingSheet, ARowPutInAtTheTopMovesEveryTileAndLosesNone) {
  const Painted before(2, {kA, kB, kC, kD});
  const Painted now(2, {kE, 0, kA, kB, kC, kD});
  PictureChange told;
  const Sheet sheet = after(before.sheet, now, &told);
  for (std::uint32_t number = 0; number < 4; ++number) EXPECT_EQ(sheet.cellOf(number), number + 2);
  EXPECT_THAT(told.moved, ElementsAre(0, 1, 2, 3));
  EXPECT_THAT(told.changed, IsEmpty());
  EXPECT_THAT(told.added, ElementsAre(4)) << "the blank place beside it is no new tile";
}

TEST(LivingSheet, AColumnPutInMovesTilesToo) {
  const Painted before(2, {kA, kB, kC, kD});
  const Painted now(3, {kA, kE, kB, kC, kE, kD});
  const Sheet sheet = after(before.sheet, now);
  EXPECT_EQ(sheet.cellOf(0), 0u);
  EXPECT_EQ(sheet.cellOf(1), 2u);
  EXPECT_EQ(sheet.cellOf(2), 3u);
  EXPECT_EQ(sheet.cellOf(3), 5u);
}

TEST(LivingSheet, ATileDrawnAnewStaysAndHasChanged) {
  const Painted before(2, {kA, kB, kC, kD});
  const Painted now(2, {kA, kE, kC, kD});
  PictureChange told;
  const Sheet sheet = after(before.sheet, now, &told);
  EXPECT_TRUE(sheet.places->empty());
  EXPECT_THAT(told.changed, ElementsAre(1));
  EXPECT_THAT(told.moved, IsEmpty());
}

TEST(LivingSheet, ATileDrawnAnewGoesAlongWithItsNeighbours) {
  const Painted before(3, {kA, kB, kC});
  const Painted now(3, {0, 0, 0, kA, kE, kC});
  PictureChange told;
  const Sheet sheet = after(before.sheet, now, &told);
  EXPECT_EQ(sheet.cellOf(1), 4u);
  EXPECT_THAT(told.changed, ElementsAre(1));
}

TEST(LivingSheet, OfTwinsEachGoesToTheNearestPlace) {
  const Painted before(4, {kA, 0, 0, kA});
  const Painted now(4, {0, kA, kA, 0});
  const Sheet sheet = after(before.sheet, now);
  EXPECT_EQ(sheet.cellOf(0), 1u);
  EXPECT_EQ(sheet.cellOf(3), 2u);
}

TEST(LivingSheet, WhatIsCutOffIsGoneUntilItComesBack) {
  const Painted before(2, {kA, kB, kC, kD});
  const Painted cut(2, {kA, kB});
  PictureChange told;
  const Sheet less = after(before.sheet, cut, &told);
  EXPECT_THAT(told.gone, ElementsAre(2, 3));
  EXPECT_FALSE(less.place(3));
  EXPECT_TRUE(less.place(1));
}

RC_GTEST_PROP(LivingSheet, HoweverTilesAreShuffledEachKeepsItsNumberAndItsPixels, ()) {
  const int wide = *rc::gen::inRange(1, 7);
  const int rows = *rc::gen::inRange(1, 6);
  std::vector<std::uint32_t> colours(static_cast<std::size_t>(wide * rows));
  std::iota(colours.begin(), colours.end(), 0xff101010u);
  const Painted before(wide, colours);
  std::vector<std::uint32_t> shuffled = colours;
  for (std::size_t i = shuffled.size(); i > 1; --i) {
    std::swap(shuffled[i - 1], shuffled[*rc::gen::inRange<std::size_t>(0, i)]);
  }
  const Painted now(wide, shuffled);
  PictureChange told;
  const Sheet sheet = after(before.sheet, now, &told);
  RC_ASSERT(told.changed.empty());
  RC_ASSERT(told.added.empty());
  for (std::uint32_t number = 0; number < colours.size(); ++number) {
    const PixelRect place = *sheet.place(number);
    RC_ASSERT(now.view().at(place.x, place.y) == colours[number]);
  }
  // And back again.
  const Sheet back = after(sheet, before);
  RC_ASSERT(back.places->empty());
}

TEST(ArrangeSheets, ANewSheetGetsAFreeCodeAndFreeFileNames) {
  const Painted painted(2, {kA, kB});
  Laid one(painted);
  EXPECT_EQ(one.now().name, "quay");
  EXPECT_EQ(one.now().file, "quay");
  EXPECT_EQ(one.now().picture, "quay.png");
  const SheetAdded again = addSheet(one.quilt, painted.sheet, "Old Quay.PNG", one.ids);
  const Sheet& second = *again.quilt.sheet(again.sheet);
  EXPECT_EQ(second.file, "quay-2");
  EXPECT_EQ(second.picture, "quay-2.png");
  EXPECT_NE(second.code, one.now().code);
}

TEST(ArrangeSheets, AWrongCutThatNobodyUsedIsSimplyCutAnew) {
  Laid laid(Painted(4, {kA, kB, kC, kD, kA, kB, kC, kD}));
  const SheetCut cut{{8, 8}, 0, 0, {}};
  laid.quilt = cutAnew(laid.quilt, laid.sheet, cut, {}, laid.inUse());
  EXPECT_EQ(laid.now().tileCount(), 2);
  EXPECT_TRUE(laid.now().places->empty());
}

TEST(ArrangeSheets, APaintedTileKeepsItsPictureThroughAnyCut) {
  Laid laid(Painted(4, {kA, kB, kC, kD, kA, kB, kC, kD}));
  laid.lay(5);
  const PixelRect painted = *laid.now().place(5);
  laid.quilt = cutAnew(laid.quilt, laid.sheet, {{8, 8}, 0, 0, {}}, {}, laid.inUse());
  EXPECT_EQ(laid.now().place(5), painted) << "retired, with the rectangle it had";
  EXPECT_FALSE(laid.now().offers(5));
  EXPECT_EQ(laid.now().numberAt(0), 8u) << "a name that nobody had";
  laid.quilt = cutAnew(laid.quilt, laid.sheet, {{4, 4}, 0, 0, {}}, {}, laid.inUse());
  EXPECT_EQ(laid.now().place(5), painted);
  EXPECT_TRUE(laid.now().offers(5)) << "its rectangle is a cell again";
}

TEST(ArrangeSheets, TurnsAreAsUsualInTheQuiltAndNamesAreToldApart) {
  Laid laid(Painted(2, {kA, kB}));
  QuiltFacts facts = laid.quilt.facts();
  facts.turns.turn = facts.turns.mirrorDown = false;
  const SheetAdded next = addSheet(laid.quilt.with(facts), Painted(2, {kC, kD}).sheet, "mews.png", laid.ids);
  EXPECT_EQ(next.quilt.sheet(next.sheet)->turns, facts.turns);
  EXPECT_EQ(next.quilt.sheet(laid.sheet)->turns, TurnsAllowed()) << "those that are there stay";
  const auto read = readQuiltDocument(quiltDocument(facts), "quilt.json");
  ASSERT_TRUE(read);
  EXPECT_EQ(read->turns, facts.turns);
  Sheet named = laid.now();
  named.tiles[0].name = "kerb";
  EXPECT_EQ(freeTileName(named, 1, "kerb"), "kerb 2");
  EXPECT_EQ(freeTileName(named, 0, "kerb"), "kerb") << "its own";
  EXPECT_EQ(freeTileName(named, 1, ""), "");
}

TEST(OldPieces, OfACutThatWasNearlyRightAreTheTilesThatWereMeant) {
  Laid laid(Painted(4, {kA, kB, kC, kD, kA, kB, kC, kD}));
  // Cut by mistake into tiles of 5 × 4, and painted so.
  laid.quilt = cutAnew(laid.quilt, laid.sheet, {{5, 4}, 0, 0, {}}, {}, {});
  laid.lay(0, {0, 0});
  laid.lay(1, {1, 0});
  laid.lay(1, {2, 0});
  IdSource ids(8);
  laid.quilt = keepStamp(laid.quilt, InHand(Block::of(Cell({laid.slot, 1}, Turn{true, 0}))), "kerb", ids).quilt;
  EXPECT_TRUE(oldPiecesOf(laid.quilt, laid.sheet, usesIn(laid.quilt)).meant.empty()) << "nothing is old yet";
  laid.quilt = cutAnew(laid.quilt, laid.sheet, {{4, 4}, 0, 0, {}}, {}, laid.inUse());
  const OldPieces pieces = oldPiecesOf(laid.quilt, laid.sheet, usesIn(laid.quilt));
  EXPECT_EQ(pieces.meantCells, 3);
  EXPECT_TRUE(pieces.unsure.empty());
  const Quilt right = withMeantTiles(laid.quilt, laid.sheet, pieces);
  const Layer& sheds = *right.layer(layerOf(right, "Yard", "Sheds"));
  EXPECT_EQ(right.sheet(laid.sheet)->place(sheds.cells.at({0, 0}).tile().number), (PixelRect{0, 0, 4, 4}));
  EXPECT_EQ(right.sheet(laid.sheet)->place(sheds.cells.at({2, 0}).tile().number), (PixelRect{4, 0, 4, 4}));
  const Cell kept = right.stamps().front()->held.parts().front().cell;
  EXPECT_EQ(kept, Cell(sheds.cells.at({2, 0}).tile(), Turn{true, 0})) << "turned as it was";
  EXPECT_EQ(oldPiecesOf(right, laid.sheet, usesIn(right)).meantCells, 0);
}

TEST(OldPieces, PartsOfATileAreOnlyCounted) {
  Laid laid(Painted(4, {kA, kB, kC, kD, kA, kB, kC, kD}));
  laid.lay(0, {0, 0});
  laid.lay(1, {1, 0});
  laid.lay(4, {0, 1});
  laid.quilt = cutAnew(laid.quilt, laid.sheet, {{8, 8}, 0, 0, {}}, {}, laid.inUse());
  const OldPieces pieces = oldPiecesOf(laid.quilt, laid.sheet, usesIn(laid.quilt));
  EXPECT_TRUE(pieces.meant.empty());
  EXPECT_EQ(pieces.unsure, (std::vector<std::uint32_t>{0, 1, 4}));
  EXPECT_EQ(pieces.unsureCells, 3);
}

RC_GTEST_PROP(ArrangeSheets, NoCutEverChangesWhatAMapShows, ()) {
  Laid laid(Painted(6, std::vector<std::uint32_t>(36, kA)));
  std::map<std::uint32_t, PixelRect> shown;
  for (int i = 0; i < 4; ++i) {
    const auto number = laid.now().numberAt(*rc::gen::inRange(0u, static_cast<std::uint32_t>(laid.now().tileCount())));
    laid.lay(number, {i, 0});
    shown[number] = *laid.now().place(number);
    const SheetCut cut{{*rc::gen::inRange(2, 12), *rc::gen::inRange(2, 12)},
                       *rc::gen::inRange(0, 3),
                       *rc::gen::inRange(0, 3),
                       {*rc::gen::inRange(0, 4), 0}};
    laid.quilt = cutAnew(laid.quilt, laid.sheet, cut, {}, laid.inUse());
    RC_PRE(laid.now().tileCount() > 0);
    for (const auto& [one, place] : shown) RC_ASSERT(laid.now().place(one) == place);
  }
}

TEST(ArrangeSheets, SheetsLieInPilesAndCanBeMoved) {
  Laid laid(Painted(2, {kA, kB}));
  const Id street = laid.quilt.sheets()[1]->id == laid.sheet ? laid.quilt.sheets()[0]->id : laid.quilt.sheets()[1]->id;
  laid.quilt = movedOnTable(laid.quilt, laid.sheet, "quay", {});
  EXPECT_EQ(tableOrder(laid.quilt).front(), laid.sheet) << "piles come before what lies in none";
  EXPECT_EQ(pilesOf(laid.quilt).front(), "quay");
  laid.quilt = movedOnTable(laid.quilt, street, "quay", laid.sheet);
  EXPECT_EQ(tableOrder(laid.quilt).front(), street);
  EXPECT_EQ(tableOrder(laid.quilt)[1], laid.sheet);
}

TEST(SheetTidy, FindsBlankStrayDoubleAndUnusedEachOnItsOwn) {
  Painted painted(4, {kA, kA, kB, 0, kC, 0, kB, kD});
  painted.dot(5, {1, 1}, kE);  // a stray mark
  painted.dot(2, {0, 0}, kE);  // two tiles that mirror one another
  painted.dot(6, {3, 0}, kE);
  Laid laid(painted);
  laid.lay(1);
  laid.lay(6, {2, 1});
  const TidyFinds finds = findToTidy(laid.now(), painted.view(), usesIn(laid.quilt), laid.slot);
  EXPECT_THAT(finds.blank, ElementsAre(3));
  EXPECT_THAT(finds.stray, ElementsAre(5));
  ASSERT_EQ(finds.twins.size(), 2u);
  EXPECT_EQ(finds.twins.at(1), (TilePlaces::Twin{0, false}));
  EXPECT_EQ(finds.twins.at(6), (TilePlaces::Twin{2, true}));
  EXPECT_THAT(finds.unused, ElementsAre(4, 7)) << "0 and 2 are shown by twins that are laid";
  const PixelRect before = *laid.now().place(0);
  laid.quilt = laid.quilt.with(tidied(laid.now(), finds));
  EXPECT_EQ(laid.now().place(1), before);
  EXPECT_TRUE(laid.now().shows(6).mirrored);
  EXPECT_TRUE(laid.now().offers(0));
  for (const std::uint32_t number : {1, 3, 4, 5, 6, 7}) EXPECT_FALSE(laid.now().offers(number)) << number;
  EXPECT_TRUE(findToTidy(laid.now(), painted.view(), usesIn(laid.quilt), laid.slot).empty());
}

TEST(SheetTidy, LeavesAloneWhatIsToBeKept) {
  const Painted painted(3, {kA, kA, 0});
  Laid laid(painted);
  laid.quilt = changedTiles(laid.quilt, laid.sheet, {0, 1, 2}, [](TileFacts& facts) { facts.keep = true; });
  EXPECT_TRUE(findToTidy(laid.now(), painted.view(), usesIn(laid.quilt), laid.slot).empty());
  laid.quilt = changedTiles(laid.quilt, laid.sheet, {0, 1, 2}, [](TileFacts& facts) { facts.keep = false; });
  EXPECT_TRUE(laid.now().tiles.empty()) << "nothing is said of them any more";
}

TEST(SheetSearch, FindsByEveryWordAtOnce) {
  const Painted painted(2, {0xffa03020, 0xff304080, 0xff30a040, 0});
  Laid laid(painted);
  laid.quilt = changedTiles(laid.quilt, laid.sheet, {0}, [](TileFacts& facts) {
    facts.name = "Brick wall";
    facts.tags = {"kiln"};
    facts.footing = Footing::solid;
  });
  laid.lay(2);
  const TileColours colours = coloursOf(laid.now(), painted.view());
  const TileUses uses = usesIn(laid.quilt);
  const SearchHelp help{[&](const Sheet& sheet) { return sheet.id == laid.sheet ? &colours : nullptr; }, &uses};
  const auto found = [&](std::string_view text) {
    std::vector<std::uint32_t> numbers;
    for (const SheetHit& hit : searchSheets(laid.quilt, {laid.sheet}, text, help, 100)) numbers.push_back(hit.number);
    return numbers;
  };
  EXPECT_THAT(found("BRICK"), ElementsAre(0));
  EXPECT_THAT(found("kiln quay"), ElementsAre(0));
  EXPECT_THAT(found("kiln rails"), IsEmpty());
  EXPECT_THAT(found("red"), ElementsAre(0));
  EXPECT_THAT(found("#31418a"), ElementsAre(1));
  EXPECT_THAT(found("quay #2"), ElementsAre(2));
  EXPECT_THAT(found("solid"), ElementsAre(0));
  EXPECT_THAT(found("used"), ElementsAre(2));
  EXPECT_THAT(found("quay"), ElementsAre(0, 1, 2, 3));
  EXPECT_THAT(found("  "), IsEmpty());
}

TEST(FitsHere, FindsTheTileWhoseBordersGoOn) {
  // Left half green, right half blue, joins green on its left and blue on its right.
  Painted painted(4, {kB, kC, kB, kA});
  for (int y = 0; y < 4; ++y) {
    for (int x = 2; x < 4; ++x) painted.dot(2, {x, y}, kC);
  }
  for (const GridKind kind : {GridKind::orthogonal, GridKind::hexagonalPointy}) {
    Laid laid(painted);
    Map map = *laid.quilt.mapNamed("Yard");
    map.grid = nearestShape(kind, {4, 4});
    Layer layer = map.layers.front().read();
    layer.cells = {};
    layer.cells.set({1, 1}, Cell({laid.slot, 0}, {}));
    layer.cells.set({3, 1}, Cell({laid.slot, 1}, {}));
    TileSides sides(laid.quilt, map.grid, pixelsOf(painted, laid));
    const auto fits = tilesThatFit(sides, {laid.sheet}, map, layer, {2, 1}, 10);
    ASSERT_EQ(fits.size(), 1u) << gridName(kind);
    EXPECT_EQ(fits.front().number, 2u);
    EXPECT_THAT(tilesThatFit(sides, {laid.sheet}, map, layer, {5, 5}, 10), IsEmpty()) << "no neighbour";
  }
}

TEST(PictureFindings, TellEnlargedArtRimsAndColoursBehind) {
  const Painted blocks(3, {kA, kB, kC, kD, kE, kA});
  EXPECT_EQ(findingsOf(blocks.view()).enlarged, 4);
  EXPECT_FALSE(findingsOf(blocks.view()).hasClear);
  Painted rims(2, {kA, 0});
  rims.dot(0, {0, 0}, 0x40200000);
  rims.dot(0, {1, 0}, 0x40200000);
  EXPECT_EQ(findingsOf(rims.view()).rims, 0) << "a shadow of one strength is drawn on purpose";
  rims.dot(0, {2, 0}, 0x50200000);
  rims.dot(0, {3, 0}, 0x60200000);
  EXPECT_EQ(findingsOf(rims.view()).rims, 4);
  EXPECT_TRUE(findingsOf(rims.view()).hasClear);
  Painted magenta(3, std::vector<std::uint32_t>(9, 0xffff00ff));
  magenta.dot(4, {1, 1}, kA);
  EXPECT_EQ(findingsOf(magenta.view()).background, 0xff00ffu);
}

TEST(PictureFindings, TellPaintedArtFromArtOfSetPixels) {
  Painted art(4, std::vector<std::uint32_t>(16, kA));
  EXPECT_FALSE(findingsOf(art.view()).isSmooth) << "flat colours";
  for (std::size_t i = 0; i < art.pixels.size(); ++i) art.pixels[i] = 0xff404040u + static_cast<std::uint32_t>(i % 64 * 0x010102u);
  EXPECT_TRUE(findingsOf(art.view()).isSmooth) << "a slow change of colour";
  for (std::size_t i = 0; i < art.pixels.size(); ++i) art.pixels[i] = i % 3 == 0 ? kA : i % 3 == 1 ? kB : kC;
  EXPECT_FALSE(findingsOf(art.view()).isSmooth);
}

TEST(PictureFindings, RecogniseThePictureAtTwiceItsSize) {
  const Painted small(2, {kA, kB, kC, kD});
  std::vector<std::uint32_t> pixels;
  for (int y = 0; y < 16; ++y) {
    for (int x = 0; x < 16; ++x) pixels.push_back(small.view().at(x / 2, y / 2));
  }
  const PixelView large{pixels.data(), 16, 16, 16, false};
  EXPECT_TRUE(isTwice(large, small.view()));
  EXPECT_FALSE(isTwice(small.view(), large));
  const Painted other(2, {kD, kC, kB, kA});
  EXPECT_FALSE(isTwice(large, other.view()));
}

}  // namespace
}  // namespace uq::test
