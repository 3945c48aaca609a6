#include <gtest/gtest.h>

#include "core/Support.h"
#include "core/store/CellsText.h"

namespace uq::test {

namespace {

CellsRead read(const std::string& text, Quilt& quilt) { return readCells(text, quilt, 4, "paving.cells"); }

std::string head(const Quilt& quilt) {
  std::string text = "cells 1\n";
  for (const char* sheet : {"street", "rails"}) {
    const Cell cell = tileOf(quilt, sheet, 0);
    text += quilt.sheetAt(cell.tile().slot)->code + " " + quilt.slots().sheet(cell.tile().slot).text() + "\n";
  }
  return text;
}

}  // namespace

TEST(CellsText, WritesRunsRowsAndCodesAsDocumented) {
  const Quilt quilt = smallQuilt();
  CellGrid cells;
  cells.fill({0, 30, 64, 31}, tileOf(quilt, "street", 14));
  cells.set({12, 30}, tileOf(quilt, "rails", 3, {false, 1}));
  cells.fill({2, 40, 4, 43}, tileOf(quilt, "street", 7));
  cells.set({-1, -1}, tileOf(quilt, "street", 5));
  EXPECT_EQ(writeCells(cells, quilt), head(quilt) +
                                          "@-1,-1\n63: .63 A5\n"
                                          "@0,0\n30: A14x12 B3b A14x51\n40-42: .2 A7x2\nend\n");
}

TEST(CellsText, AnEmptyLayerIsTwoLines) { EXPECT_EQ(writeCells({}, smallQuilt()), "cells 1\nend\n"); }

TEST(CellsText, OnePaintedCellChangesAtMostThreeLines) {
  const Quilt quilt = smallQuilt();
  CellGrid cells;
  cells.fill({0, 0, 64, 64}, tileOf(quilt, "street", 1));
  const std::string before = writeCells(cells, quilt);
  cells.set({20, 20}, tileOf(quilt, "street", 2));
  const std::string after = writeCells(cells, quilt);
  EXPECT_EQ(before, head(quilt).substr(0, head(quilt).find("B ")) + "@0,0\n0-63: A1x64\nend\n");
  EXPECT_EQ(after,
            head(quilt).substr(0, head(quilt).find("B ")) + "@0,0\n0-19: A1x64\n20: A1x20 2 1x43\n21-63: A1x64\nend\n");
}

RC_GTEST_PROP(CellsText, ReadsBackWhatItWrites, ()) {
  const Quilt quilt = *editOf(*editOf(*editOf(smallQuilt())));
  for (const auto& map : quilt.maps()) {
    for (const Shared<Layer>& layer : map->layers) {
      Quilt reader = quilt;
      const std::string text = writeCells(layer->cells, quilt);
      const CellsRead back = read(text, reader);
      RC_ASSERT(!back.error);
      RC_ASSERT(back.cells == layer->cells);
      RC_ASSERT(writeCells(back.cells, reader) == text);
    }
  }
}

TEST(CellsText, TheSameCellsGiveTheSameBytesWhateverTheSlots) {
  const Quilt quilt = smallQuilt();
  CellGrid cells;
  cells.set({0, 0}, tileOf(quilt, "street", 1));
  cells.set({1, 0}, tileOf(quilt, "rails", 2));
  const std::string text = writeCells(cells, quilt);
  Quilt other;  // knows no sheet: slots come in the order of the file
  const CellsRead back = read(text, other);
  EXPECT_FALSE(back.error);
  EXPECT_EQ(writeCells(back.cells, other), text);
}

TEST(CellsText, TakesAnyOrderAndUnmergedRuns) {
  Quilt quilt = smallQuilt();
  const CellsRead back = read(head(quilt) + "@0,0\n5: A1 A1 . . A2\n@-1,0\n3: A1\n@0,0\n4: A1\n3: A1\nend\n", quilt);
  ASSERT_FALSE(back.error);
  EXPECT_EQ(back.cells.at({1, 5}), tileOf(quilt, "street", 1));
  EXPECT_EQ(back.cells.at({4, 5}), tileOf(quilt, "street", 2));
  EXPECT_EQ(back.cells.at({-64, 3}), tileOf(quilt, "street", 1));
}

TEST(CellsText, TwoSheetsWithOneCodeAreToldApartByTheirIds) {
  Quilt quilt = smallQuilt();
  Sheet rails = *quilt.sheet(quilt.slots().sheet(tileOf(quilt, "rails", 0).tile().slot));
  rails.code = "A";
  quilt = quilt.with(rails);
  CellGrid cells;
  cells.set({0, 0}, tileOf(quilt, "street", 1));
  cells.set({1, 0}, tileOf(quilt, "rails", 1));
  const std::string text = writeCells(cells, quilt);
  EXPECT_THAT(text, testing::HasSubstr("\nA "));
  EXPECT_THAT(text, testing::HasSubstr("\nB "));
  EXPECT_EQ(read(text, quilt).cells, cells);
}

TEST(CellsText, SheetCodesCountLikeColumns) {
  EXPECT_EQ(sheetCode(0), "A");
  EXPECT_EQ(sheetCode(25), "Z");
  EXPECT_EQ(sheetCode(26), "AA");
  EXPECT_EQ(sheetCode(27), "AB");
  EXPECT_EQ(sheetCode(26 + 26 * 26), "AAA");
}

struct BadCells {
  const char* what;
  const char* body;  // after the sheet lines
  int line;
  const char* says;
};

class CellsTextRefuses : public testing::TestWithParam<BadCells> {};

TEST_P(CellsTextRefuses, AtTheLineAndKeepsWhatCameBefore) {
  Quilt quilt = smallQuilt();
  const CellsRead back = read(head(quilt) + "@0,0\n1: A1\n" + GetParam().body, quilt);
  ASSERT_TRUE(back.error);
  EXPECT_EQ(back.error->file, "paving.cells");
  EXPECT_EQ(back.error->line, GetParam().line);
  EXPECT_THAT(back.error->reason, testing::HasSubstr(GetParam().says));
  EXPECT_EQ(back.cells.at({0, 1}), tileOf(quilt, "street", 1));
}

INSTANTIATE_TEST_SUITE_P(Broken, CellsTextRefuses,
                         testing::Values(BadCells{"cut_in_a_line", "2: A1x6", 6, "cut off in the middle"},
                                         BadCells{"no_end", "2: A1x6\n", 7, "\"end\" is missing"},
                                         BadCells{"twice", "1: A2\nend\n", 6, "cell 0, 1 is given twice"},
                                         BadCells{"too_many", "2: A1x60 .5\nend\n", 6, "more than 64 cells"},
                                         BadCells{"unknown_code", "2: C1\nend\n", 6, "code C is not named"},
                                         BadCells{"no_code", "2: 1\nend\n", 6, "no sheet code"},
                                         BadCells{"row_64", "64: A1\nend\n", 6, "from 0 to 63"},
                                         BadCells{"falling_rows", "9-3: A1\nend\n", 6, "does not rise"},
                                         BadCells{"number", "2: A262144\nend\n", 6, "up to 262,143"},
                                         BadCells{"leading_zero", "2: A01\nend\n", 6, "no number"},
                                         BadCells{"run_1", "2: A1x1\nend\n", 6, "between 2 and 64"},
                                         BadCells{"empty_run_1", "2: .1 A1\nend\n", 6, "between 2 and 64"},
                                         BadCells{"run_65", "2: .65\nend\n", 6, "between 2 and 64"},
                                         BadCells{"turn", "2: A1e\nend\n", 6, "turn letter"},
                                         BadCells{"chunk_far_away", "@99999,0\nend\n", 6, "within the grid"},
                                         BadCells{"chunk_minus_zero", "@-0,0\nend\n", 6, "within the grid"},
                                         BadCells{"after_end", "end\n2: A1\n", 7, "follows \"end\""},
                                         BadCells{"late_sheet", "C abcdefghijkl\nend\n", 6, "after the first cells"},
                                         BadCells{"spaces", "2: A1  A2\nend\n", 6, "no number"},
                                         BadCells{"rubbish", "hello\nend\n", 6, "its number"}),
                         [](const auto& test) { return std::string(test.param.what); });

TEST(CellsTextRefuses, AFileThatIsNoCellsFile) {
  Quilt quilt = smallQuilt();
  EXPECT_EQ(read("", quilt).error->reason, "the file is empty");
  EXPECT_EQ(read("cells 2\nend\n", quilt).error->line, 1);
  EXPECT_THAT(read("{}\n", quilt).error->reason, testing::HasSubstr("does not begin"));
  EXPECT_THAT(read("cells 1\n" + std::string(2000, 'A') + "\nend\n", quilt).error->reason,
              testing::HasSubstr("1,024 bytes"));
}

}  // namespace uq::test
