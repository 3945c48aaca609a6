// What is said of tiles, and what follows from it: frames in time, colours in words, turns that a sheet forbids, cells
// that take the size of the art.
#include <gmock/gmock.h>
#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include "core/Support.h"
#include "core/document/FrameTime.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/ArrangeSheets.h"
#include "core/edit/LayCells.h"
#include "core/edit/Turned.h"
#include "core/sheets/TileColours.h"
#include "core/sheets/TileUses.h"

namespace uq::test {
namespace {

using testing::ElementsAre;

Id idOf(const Quilt& quilt, const char* name) {
  for (const auto& sheet : quilt.sheets()) {
    if (sheet->name == name) return sheet->id;
  }
  return {};
}

TEST(FrameTime, FramesFollowOneAnotherRoundAndRound) {
  const Frames frames = {{4, 100}, {5, 50}, {6, 200}};
  EXPECT_EQ(frameAt(frames, 0), 4u);
  EXPECT_EQ(frameAt(frames, 99), 4u);
  EXPECT_EQ(frameAt(frames, 100), 5u);
  EXPECT_EQ(frameAt(frames, 349), 6u);
  EXPECT_EQ(frameAt(frames, 350), 4u);
}

TEST(FrameTime, AQuiltInFrameShowsTheFramesPixelsAndKeepsItsMaps) {
  Quilt quilt = smallQuilt();
  const Id street = idOf(quilt, "street");
  EXPECT_FALSE(hasFrames(quilt));
  quilt = changedTiles(quilt, street, {1}, [](TileFacts& facts) { facts.frames = {{1, 100}, {3, 100}}; });
  EXPECT_TRUE(hasFrames(quilt));
  EXPECT_THAT(animatedTiles(quilt), ElementsAre(tileOf(quilt, "street", 1).tile()));
  const Quilt later = inFrame(quilt, 150);
  EXPECT_EQ(later.sheet(street)->place(1), quilt.sheet(street)->place(3));
  EXPECT_EQ(later.maps(), quilt.maps());
  EXPECT_EQ(inFrame(quilt, 20), quilt);
}

TEST(TileColours, AreCalledAsPeopleCallThem) {
  const auto called = [](std::uint32_t rgb) { return colourWords()[static_cast<std::size_t>(colourWord(rgb))]; };
  EXPECT_EQ(called(0xc02020), "red");
  EXPECT_EQ(called(0x6e3b2e), "brown");
  EXPECT_EQ(called(0xe8a030), "orange");
  EXPECT_EQ(called(0x61795a), "green");
  EXPECT_EQ(called(0x2f6b74), "teal");
  EXPECT_EQ(called(0x3050c0), "blue");
  EXPECT_EQ(called(0x808080), "grey");
  EXPECT_EQ(called(0x101014), "black");
  EXPECT_EQ(called(0xf4f4f0), "white");
  EXPECT_EQ(parsedColour("#a0563f"), 0xa0563fu);
  EXPECT_FALSE(parsedColour("#a0563"));
  EXPECT_FALSE(parsedColour("a0563f"));
}

RC_GTEST_PROP(TileColours, EveryColourHasAWordAndIsNearItself, ()) {
  const auto rgb = *rc::gen::inRange<std::uint32_t>(0, 0x1000000);
  RC_ASSERT(colourWord(rgb) >= 0);
  RC_ASSERT(static_cast<std::size_t>(colourWord(rgb)) < colourWords().size());
  RC_ASSERT(isNearColour(rgb, rgb));
}

TEST(TurnsAllowed, WhatASheetForbidsIsSaidUnlessATileHasAnotherSide) {
  Quilt quilt = smallQuilt();
  const Id street = idOf(quilt, "street");
  const Block held = Block::of(tileOf(quilt, "street", 2));
  EXPECT_EQ(whyNoTurning(quilt, held, Turning::left), "");
  quilt = changedSheet(quilt, street, [](Sheet& sheet) { sheet.turns = {false, true, false}; });
  EXPECT_EQ(whyNoTurning(quilt, held, Turning::right), "street may not be turned");
  EXPECT_EQ(whyNoTurning(quilt, held, Turning::mirrorAcross), "");
  EXPECT_EQ(whyNoTurning(quilt, held, Turning::mirrorDown), "street may not be mirrored down");
  quilt = changedSheet(quilt, street, [](Sheet& sheet) { sheet.facings = {{2, 3, std::nullopt, std::nullopt}}; });
  EXPECT_EQ(whyNoTurning(quilt, held, Turning::right), "") << "another picture shows that side";
}

TEST(ArrangeMaps, CellsTakeTheSizeOfTheArtAndKeepWhatIsPainted) {
  const Quilt quilt = smallQuilt();
  const Map& yard = *quilt.mapNamed("Yard");
  const Quilt changed = withCell(quilt, yard.id, {24, 40});
  const Map& now = *changed.map(yard.id);
  EXPECT_EQ(now.grid.cell, (PixelSize{24, 40}));
  EXPECT_EQ(now.layers, yard.layers);
  EXPECT_EQ(withCell(quilt, Id(), {24, 40}), quilt);
}

TEST(TileUses, AreCountedOnAllMapsAndListedFromTheNearestLayer) {
  Quilt quilt = smallQuilt();
  const Cell tile = tileOf(quilt, "rails", 3);
  const std::int64_t before = usesIn(quilt)[tile.tile()];
  const std::vector<CellChange> laid = {{{1, 2}, tile}, {{2, 2}, tile}};
  quilt = layCells(quilt, layerOf(quilt, "Yard", "Sheds"), laid);
  EXPECT_EQ(usesIn(quilt)[tile.tile()], before + 2);
  const Map& yard = *quilt.mapNamed("Yard");
  const auto places = placesOf(yard, tile.tile(), 100);
  EXPECT_EQ(static_cast<std::int64_t>(places.size()), usesWithin(yard)[tile.tile()]);
  EXPECT_EQ(placesOf(yard, tile.tile(), 1).size(), 1u);
}

}  // namespace
}  // namespace uq::test
