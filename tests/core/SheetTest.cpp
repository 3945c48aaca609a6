#include "core/document/Sheet.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <numeric>

#include "core/store/Documents.h"
#include "core/store/JsonText.h"
#include "core/store/TilesText.h"

namespace uq::test {
namespace {

using testing::HasSubstr;

Sheet sheetOf(PixelSize picture, SheetCut cut) {
  Sheet sheet;
  sheet.id = IdSource(5).next();
  sheet.name = "quay";
  sheet.file = "quay";
  sheet.code = "Q";
  sheet.picture = "quay.png";
  sheet.pictureSize = picture;
  sheet.cut = cut;
  return sheet;
}

template <class Change>
void changePlaces(Sheet& sheet, Change change) {
  TilePlaces places = sheet.places.read();
  change(places);
  sheet.places = Shared(std::move(places));
}

TEST(Sheet, CutsWithOffsetBorderAndGap) {
  const Sheet sheet = sheetOf({2 + 2 + 3 * 16 + 2 * 1, 20 + 2 + 2 * 16 + 1}, {{16, 16}, 1, 1, {2, 20}});
  EXPECT_EQ(sheet.columns(), 3);
  EXPECT_EQ(sheet.rows(), 2);
  EXPECT_EQ(sheet.place(4), (PixelRect{2 + 1 + 17, 20 + 1 + 17, 16, 16}));
  EXPECT_EQ(sheet.cellAt({2 + 1 + 17, 21}), 1u);
  EXPECT_FALSE(sheet.cellAt({2 + 1 + 16, 21})) << "that is the gap";
  EXPECT_FALSE(sheet.cellAt({2 + 1, 19})) << "that is above";
  EXPECT_FALSE(sheet.place(6));
}

TEST(Sheet, NumbersStayWithTheirTilesWhereverThoseStand) {
  Sheet sheet = sheetOf({64, 32}, {{32, 32}, 0, 0, {}});
  changePlaces(sheet, [](TilePlaces& places) {
    places.setNumbers({7, 0});
    places.retired[1] = {16, 0, 16, 16};
    places.twins[3] = {7, true};
    places.dropped.insert(0);
  });
  EXPECT_EQ(sheet.place(7), (PixelRect{0, 0, 32, 32}));
  EXPECT_EQ(sheet.place(0), (PixelRect{32, 0, 32, 32}));
  EXPECT_EQ(sheet.place(1), (PixelRect{16, 0, 16, 16})) << "retired tiles keep their rectangle";
  EXPECT_EQ(sheet.place(3), sheet.place(7)) << "twins show their tile";
  EXPECT_TRUE(sheet.shows(3).mirrored);
  EXPECT_FALSE(sheet.place(2));
  EXPECT_TRUE(sheet.offers(7));
  EXPECT_FALSE(sheet.offers(0)) << "dropped";
  EXPECT_FALSE(sheet.offers(1)) << "retired";
  EXPECT_FALSE(sheet.offers(3)) << "a twin";
  EXPECT_EQ(sheet.endOfNumbers(), 8u);
}

TEST(Sheet, ACollectionIsLaidOutWithoutOverlaps) {
  Sheet sheet = sheetOf({}, {});
  for (std::uint32_t n = 0; n < 40; ++n) {
    sheet.collection.push_back(
        {n * 3, "p" + std::to_string(n) + ".png", {10 + static_cast<int>(n) * 7 % 60, 20}, {}, {}});
  }
  layOutCollection(sheet);
  EXPECT_EQ(sheet.tileCount(), 40);
  for (std::uint32_t a = 0; a < 40; ++a) {
    const PixelRect one = sheet.cellRect(a);
    EXPECT_EQ(sheet.place(sheet.numberAt(a)), one);
    EXPECT_EQ(sheet.cellAt({one.x, one.y}), a);
    EXPECT_LE(one.right(), sheet.pictureSize.w);
    EXPECT_LE(one.bottom(), sheet.pictureSize.h);
    for (std::uint32_t b = 0; b < a; ++b) EXPECT_TRUE(one.intersected(sheet.cellRect(b)).empty());
  }
  EXPECT_FALSE(sheet.place(1)) << "no picture has that number";
}

// A sheet of which as much is said as can be, at random.
Sheet anySheet() {
  Sheet sheet = sheetOf({*rc::gen::inRange(16, 600), *rc::gen::inRange(16, 400)},
                        {{*rc::gen::inRange(4, 40), *rc::gen::inRange(4, 40)},
                         *rc::gen::inRange(0, 5),
                         *rc::gen::inRange(0, 5),
                         {*rc::gen::inRange(0, 9), *rc::gen::inRange(0, 9)}});
  const auto count = static_cast<std::uint32_t>(sheet.tileCount());
  sheet.care = {*rc::gen::arbitrary<bool>() ? std::optional(0xff00ffu) : std::nullopt, *rc::gen::inRange(1, 4),
                *rc::gen::inRange(1, 4), *rc::gen::arbitrary<bool>()};
  sheet.footing = *rc::gen::element(Footing::open, Footing::solid, Footing::overhead);
  sheet.turns = {*rc::gen::arbitrary<bool>(), *rc::gen::arbitrary<bool>(), *rc::gen::arbitrary<bool>()};
  sheet.origin = {"quay", "a market stall", "Nobody", "free for all",
                  *rc::gen::element(std::optional<bool>(), std::optional(true))};
  sheet.follows = *rc::gen::element(std::string(), std::string("/art/quay.png"));
  sheet.tiles[2].tags = {"rope", "wet"};
  sheet.tiles[2].footing = Footing::solid;
  sheet.tiles[3].frames = {{3, 120}, {4, 80}};
  sheet.tiles[3].keep = true;
  sheet.tiles[3].belongs = "in front";
  if (count > 0 && *rc::gen::arbitrary<bool>()) {
    std::vector<std::uint32_t> numbers(count);
    std::iota(numbers.begin(), numbers.end(), *rc::gen::inRange(0u, 3u));
    std::swap(numbers.front(), numbers[*rc::gen::inRange(0u, count)]);
    const std::uint32_t end = *std::max_element(numbers.begin(), numbers.end()) + 1;
    changePlaces(sheet, [&](TilePlaces& places) {
      places.retired[end] = {1, 2, 3, 4};
      places.twins[end + 1] = {numbers.front(), *rc::gen::arbitrary<bool>()};
      for (std::uint32_t n = 0; n < count; n += 3) places.dropped.insert(n);
      places.setNumbers(std::move(numbers));
    });
  }
  SheetMarks marks{*rc::gen::arbitrary<std::uint64_t>(), {}};
  for (std::uint32_t n = 0; n < count; ++n) marks.tiles.push_back(n % 4 == 0 ? 0 : n * 0x9e3779b97f4a7c15u);
  sheet.marks = Shared(std::move(marks));
  return sheet;
}

RC_GTEST_PROP(Sheet, WrittenAndReadIsTheSameSheet, ()) {
  const Sheet sheet = anySheet();
  const auto json = readJson(writeJson(sheetDocument(sheet)), "sheets/quay.json");
  RC_ASSERT(json.has_value());
  auto read = readSheetDocument(*json, "sheets/quay.json");
  RC_ASSERT(read.has_value());
  read->file = "quay";
  const std::string tiles = writeTiles(sheet);
  if (!tiles.empty()) RC_ASSERT(readTiles(tiles, "sheets/quay.tiles", *read).has_value());
  RC_ASSERT(*read == sheet);
  RC_ASSERT(writeTiles(*read) == tiles);
  for (std::size_t at = 0; at < tiles.size();) {
    const std::size_t end = tiles.find('\n', at);
    RC_ASSERT(end - at <= 1024u);
    at = end + 1;
  }
}

RC_GTEST_PROP(Sheet, ATilesFileWithAnyByteChangedIsReadOrRefusedButNeverHalf, ()) {
  const Sheet sheet = anySheet();
  std::string tiles = writeTiles(sheet);
  RC_PRE(!tiles.empty());
  tiles[*rc::gen::inRange<std::size_t>(0, tiles.size())] = *rc::gen::element('\n', ' ', '9', 'x', '-', ':');
  Sheet read = sheetOf(sheet.pictureSize, sheet.cut);
  const Sheet before = read;
  if (!readTiles(tiles, "quay.tiles", read)) RC_ASSERT(read == before);
}

TEST(Sheet, ABrokenTilesFileIsNamedWithItsLine) {
  const auto refused = [](const std::string& text) {
    Sheet sheet = sheetOf({64, 32}, {{32, 32}, 0, 0, {}});
    const auto read = readTiles(text, "sheets/quay.tiles", sheet);
    return read ? std::string() : read.error().text();
  };
  EXPECT_THAT(refused("tiles 1\ncells 0: 4 4\nend\n"), HasSubstr("stands on two cells"));
  EXPECT_THAT(refused("tiles 1\ncells 0: 4\nend\n"), HasSubstr("not all named"));
  EXPECT_THAT(refused("tiles 1\nretired 1: 0 0 8 8\nend\n"), HasSubstr("stands on a cell"));
  EXPECT_THAT(refused("tiles 1\ntwin 5: 6\ntwin 6: 7\nend\n"), HasSubstr("is a twin itself"));
  EXPECT_THAT(refused("tiles 1\nweather: rain\nend\n"), HasSubstr("sheets/quay.tiles, line 2"));
  EXPECT_THAT(refused("tiles 1\npicture ff\n"), HasSubstr("ends before its \"end\""));
  EXPECT_EQ(refused("tiles 1\npicture ff\nend\n"), "");
}

TEST(OddSizes, AreFittedToTheLargestTheSmallestOrTheUsual) {
  const std::vector<PixelSize> sizes{{64, 64}, {70, 60}, {64, 64}};
  EXPECT_EQ(usualSize(sizes), (PixelSize{64, 64}));
  EXPECT_EQ(fittedSizes(sizes, OddSizes::asTheyAre), sizes);
  EXPECT_EQ(fittedSizes(sizes, OddSizes::padded), (std::vector<PixelSize>(3, {70, 64})));
  EXPECT_EQ(fittedSizes(sizes, OddSizes::cropped), (std::vector<PixelSize>(3, {64, 60})));
  EXPECT_FALSE(fittedSizes(sizes, OddSizes::scaled)) << "70 is no whole part of 64";
  const std::vector<PixelSize> scales{{64, 32}, {128, 64}, {64, 32}, {32, 16}};
  EXPECT_EQ(fittedSizes(scales, OddSizes::scaled), (std::vector<PixelSize>(4, {64, 32})));
  EXPECT_FALSE(fittedSizes({{64, 32}, {64, 32}, {128, 128}}, OddSizes::scaled)) << "its proportions would change";
}

}  // namespace
}  // namespace uq::test
