#include "core/sheets/CutMeasure.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <cstdio>

#include "core/MadeSheets.h"

namespace uq::test {
namespace {

using testing::HasSubstr;

PixelView viewOf(const MadeSheet& made) { return {made.pixels.data(), made.size.w, made.size.w, made.size.h, false}; }

// A picture of one colour with a rectangle of other pixels put into it.
struct Drawing {
  PixelSize size;
  std::vector<std::uint32_t> pixels;
  Drawing(PixelSize s, std::uint32_t colour)
      : size(s), pixels(static_cast<std::size_t>(s.w) * static_cast<std::size_t>(s.h), colour) {}
  PixelView view() const { return {pixels.data(), size.w, size.w, size.h, false}; }
  void put(const MadeSheet& made, PixelPos at) {
    for (int y = 0; y < made.size.h; ++y) {
      for (int x = 0; x < made.size.w; ++x) {
        pixels[static_cast<std::size_t>((at.y + y) * size.w + at.x + x)] =
            made.pixels[static_cast<std::size_t>(y * made.size.w + x)];
      }
    }
  }
};

TEST(CutMeasure, IsRightForNineOfTenMadeSheetsThatNobodySawWhileItWasTuned) {
  constexpr int kSheets = 400;
  int right = 0;
  std::map<std::string, std::pair<int, int>> byKind;
  for (int i = 0; i < kSheets; ++i) {
    const MadeSheet made = madeSheet(kFirstUnseenSeed + static_cast<std::uint64_t>(i));
    const bool good = measureCut(viewOf(made)).front().cut == made.cut;
    const std::string kind = made.text().substr(0, made.text().find(',')) + (made.cut.gap > 0 ? " with gaps" : "");
    right += good;
    byKind[kind].first += good;
    ++byKind[kind].second;
  }
  for (const auto& [kind, counts] : byKind) {
    std::printf("[ measured ] %-18s %3d of %3d\n", kind.c_str(), counts.first, counts.second);
  }
  std::printf("[ measured ] right for %d of %d\n", right, kSheets);
  EXPECT_GE(right * 10, kSheets * 9);
}

TEST(CutMeasure, SaysWhatItSawInWords) {
  MadeSheet made = madeSheet(3);
  for (std::uint64_t seed = 4; made.art != Art::ground || made.cut.gap == 0 || made.cut.border == 0; ++seed) {
    made = madeSheet(seed);
  }
  const CutProposal best = measureCut(viewOf(made)).front();
  EXPECT_EQ(best.cut, made.cut);
  EXPECT_THAT(best.reason, HasSubstr("gutters every " + std::to_string(made.cut.cell.w + made.cut.gap) + " px"));
  EXPECT_THAT(best.reason, HasSubstr("a border of " + std::to_string(made.cut.border) + " px"));
  EXPECT_THAT(best.reason, HasSubstr("nothing left over"));
  EXPECT_FALSE(best.isGuess);
}

TEST(CutMeasure, FindsTilesBesideATitleStrip) {
  MadeSheet made = madeSheet(0);
  for (std::uint64_t seed = 1; made.art != Art::ground || made.cut.cell != PixelSize{32, 32} || made.cut.gap > 0 ||
                               made.cut.border > 0 || made.size.w < 200;
       ++seed) {
    made = madeSheet(seed);
  }
  Drawing drawing({made.size.w, made.size.h + 20}, 0);
  drawing.put(made, {0, 20});
  const CutProposal best = measureCut(drawing.view()).front();
  EXPECT_EQ(best.cut.cell, (PixelSize{32, 32}));
  EXPECT_EQ(best.cut.offset, (PixelPos{0, 20}));
  EXPECT_THAT(best.reason, HasSubstr("beginning 20 px from the top"));
}

TEST(CutMeasure, WhereNothingTellsItGuessesAndSaysSo) {
  const Drawing blank({192, 96}, 0xff61795a);
  const CutProposal best = measureCut(blank.view(), {32, 32}).front();
  EXPECT_EQ(best.cut.cell, (PixelSize{32, 32}));
  EXPECT_TRUE(best.isGuess);
  EXPECT_THAT(best.reason, HasSubstr("nothing in the picture tells"));
}

// Gaps that a larger cell with another border explains as well: the rounder cell is meant.
TEST(CutMeasure, TheRounderCellIsMeant) {
  int right = 0;
  int all = 0;
  for (std::uint64_t seed = 0; all < 40; ++seed) {
    const MadeSheet made = madeSheet(seed);
    const bool gaps = made.cut.gap == 2 && (made.cut.cell == PixelSize{16, 16} || made.cut.cell == PixelSize{32, 32});
    if (!gaps) continue;
    ++all;
    right += measureCut(viewOf(made)).front().cut == made.cut;
  }
  EXPECT_GE(right, 38) << "of " << all;
}

TEST(CutMeasure, NamesWhatDoesNotDivide) {
  EXPECT_EQ(restOf({{32, 32}, 0, 0, {}}, {100, 64}), (PixelSize{4, 0}));
  EXPECT_EQ(restOf({{16, 16}, 1, 2, {}}, {16 * 3 + 2 * 2 + 2, 18}), (PixelSize{0, 0}));
  EXPECT_EQ(restOf({{32, 32}, 0, 0, {}}, {20, 20}), (PixelSize{20, 20})) << "no tile at all";
}

TEST(CutMeasure, APictureSmallerThanAnyCellIsOneTile) {
  for (const PixelSize size : {PixelSize{1, 1}, PixelSize{3, 40}, PixelSize{5, 2}}) {
    const Drawing dot(size, 0xffffffff);
    EXPECT_FALSE(measureCut(dot.view()).empty()) << size.w << " × " << size.h;
  }
}

TEST(CutMeasure, ProposesDifferentCellsTheLikeliestFirst) {
  const MadeSheet made = madeSheet(11);
  const auto all = measureCut(viewOf(made), {}, 4);
  ASSERT_LE(all.size(), 4u);
  for (std::size_t i = 1; i < all.size(); ++i) {
    EXPECT_GE(all[i - 1].weight, all[i].weight);
    for (std::size_t k = 0; k < i; ++k) EXPECT_FALSE(all[k].cut.cell == all[i].cut.cell);
  }
}

}  // namespace
}  // namespace uq::test
