// Pictures of every format become sheets, single or together; what is broken is said, and nothing else is lost.
#include "raster/SheetIntake.h"

#include <QBuffer>
#include <QDir>
#include <QImage>
#include <QImageWriter>

#include "core/Support.h"
#include "core/edit/ArrangeSheets.h"
#include "raster/PictureFile.h"
#include "raster/SheetExport.h"

namespace uq {

namespace {

using test::MemoryDisk;

QImage checkered(int columns, int rows, int side) {
  QImage picture(columns * side, rows * side, QImage::Format_ARGB32);
  for (int y = 0; y < picture.height(); ++y) {
    for (int x = 0; x < picture.width(); ++x) {
      const unsigned tile = static_cast<unsigned>(y / side * columns + x / side + 3);
      picture.setPixel(x, y, 0xff000000u | (tile * 2654435761u >> 8 & 0xf0f0f0u));
    }
  }
  return picture;
}

std::string encoded(const QImage& picture, const char* format) {
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  QImageWriter writer(&buffer, format);
  writer.setQuality(100);
  EXPECT_TRUE(writer.write(picture)) << format;
  return buffer.data().toStdString();
}

// Two frames of 4 × 4 pixels, red for 120 ms and blue for 80 ms.
std::string movingGif() {
  static constexpr char bytes[] =
      "\x47\x49\x46\x38\x39\x61\x04\x00\x04\x00\x91\x00\x00\x00\x00\x00\xff\x00\x00\x00\x00\xff\x00\xff"
      "\x00\x21\xf9\x04\x04\x0c\x00\x00\x00\x2c\x00\x00\x00\x00\x04\x00\x04\x00\x00\x02\x0a\x4c\x98\x30"
      "\x61\xc2\x84\x09\x13\x26\x05\x00\x21\xf9\x04\x04\x08\x00\x00\x00\x2c\x00\x00\x00\x00\x04\x00\x04"
      "\x00\x00\x02\x0a\x94\x28\x51\xa2\x44\x89\x12\x25\x4a\x05\x00\x3b";
  return {bytes, sizeof bytes - 1};
}

constexpr const char* kLines =
    "<svg xmlns='http://www.w3.org/2000/svg' width='64' height='32'>"
    "<rect width='32' height='32' fill='#a0563f'/><rect x='32' width='32' height='32' fill='#2f6b74'/></svg>";

class Intakes : public testing::Test {
 protected:
  Result<Intake> take(const std::vector<std::string>& paths, PixelSize usual = {32, 32}) {
    return takeIn(paths, usual, disk, progress);
  }
  std::string put(const std::string& name, const std::string& bytes) {
    disk.put("/art/" + name, bytes);
    return "/art/" + name;
  }

  MemoryDisk disk;
  Progress progress;
};

TEST_F(Intakes, EveryFormatComesIn) {
  for (const char* format : {"png", "jpg", "webp", "bmp"}) {
    const auto intake = take({put(std::string("street.") + format, encoded(checkered(6, 4, 32), format))});
    ASSERT_TRUE(intake) << format << ": " << intake.error().text();
    EXPECT_EQ(intake->drafts.front().sheet.cut.cell, (PixelSize{32, 32})) << format;
    EXPECT_EQ(intake->drafts.front().sheet.pictureSize, (PixelSize{192, 128}));
  }
}

TEST_F(Intakes, AMovingPictureIsOneAnimatedTile) {
  const auto intake = take({put("fire.gif", movingGif())});
  ASSERT_TRUE(intake);
  const Sheet& sheet = intake->drafts.front().sheet;
  ASSERT_TRUE(sheet.framesOf(0));
  EXPECT_EQ(*sheet.framesOf(0), (Frames{{0, 120}, {1, 80}}));
  EXPECT_EQ(sheet.cut.cell, (PixelSize{4, 4}));
  const QImage& strip = intake->drafts.front().picture;
  EXPECT_EQ(strip.pixel(1, 1), 0xffff0000u);
  EXPECT_EQ(strip.pixel(5, 1), 0xff0000ffu);
}

TEST_F(Intakes, ADrawingOfLinesIsMadeAsLargeAsAskedFor) {
  auto intake = take({put("wall.svg", kLines)});
  ASSERT_TRUE(intake);
  IntakeDraft& draft = intake->drafts.front();
  EXPECT_TRUE(draft.notes.isLineDrawing);
  EXPECT_EQ(draft.sheet.pictureSize, (PixelSize{64, 32}));
  IdSource ids(3);
  const SheetAdded added = addSheet(Quilt(), draft.sheet, draft.pictureName, ids);
  PixelCare care;
  care.enlarge = 3;
  const Quilt larger = withCare(added.quilt, added.sheet, care, {64, 32});
  SheetPictures pictures;
  const auto now = refreshed(*larger.sheet(added.sheet), pictures);
  ASSERT_TRUE(now);
  EXPECT_EQ(now->pictureSize, (PixelSize{192, 96}));
  EXPECT_EQ(now->cut.cell.w, draft.sheet.cut.cell.w * 3);
}

TEST_F(Intakes, PicturesOfOddSizesAreFittedInTheMiddleOnTheirLowerEdge) {
  QImage odd(12, 10, QImage::Format_ARGB32);
  odd.fill(0xff0000ffu);
  odd.setPixel(0, 9, 0xffff0000u);
  odd.setPixel(11, 9, 0xffffff00u);
  auto intake = take({put("a.png", pngOf(checkered(1, 1, 8))), put("b.png", pngOf(checkered(1, 1, 8))),
                      put("odd.png", pngOf(odd))});
  ASSERT_TRUE(intake);
  ASSERT_EQ(intake->drafts.size(), 1u);
  EXPECT_EQ(intake->drafts.front().notes.sizes, (std::vector<PixelSize>{{8, 8}, {8, 8}, {12, 10}}));
  IdSource ids(3);
  const SheetAdded added = addSheet(Quilt(), intake->drafts.front().sheet, "tiles", ids);
  const auto with = [&](OddSizes way) {
    PixelCare care;
    care.odd = way;
    SheetPictures pictures;
    auto now = refreshed(*withCare(added.quilt, added.sheet, care, {}).sheet(added.sheet), pictures);
    EXPECT_TRUE(now);
    return std::pair(*now, pictures.picture(*now));
  };
  const auto [padded, large] = with(OddSizes::padded);
  for (const CollectedPicture& one : padded.collection) EXPECT_EQ(one.size, (PixelSize{12, 10}));
  const PixelRect first = *padded.place(0);
  EXPECT_EQ(qAlpha(large.pixel(first.x, first.y + 9)), 0) << "two pixels beside it";
  EXPECT_EQ(qAlpha(large.pixel(first.x + 2, first.y + 9)), 255);
  EXPECT_EQ(qAlpha(large.pixel(first.x + 5, first.y + 1)), 0) << "and two above";
  const auto [cropped, small] = with(OddSizes::cropped);
  const PixelRect third = *cropped.place(2);
  EXPECT_EQ(third.w, 8);
  EXPECT_EQ(third.h, 8);
  EXPECT_EQ(small.pixel(third.x, third.y + 7), 0xff0000ffu) << "its marked corners are cut off";
  const auto [asTheyAre, plain] = with(OddSizes::scaled);
  EXPECT_EQ(asTheyAre.care.odd, OddSizes::asTheyAre) << "12 is no whole part of 8";
  EXPECT_EQ(asTheyAre.collection[2].size, (PixelSize{12, 10}));
}

TEST_F(Intakes, ManyPicturesAreACollectionButSheetsAmongThemAreSheets) {
  const auto intake = take({put("crate.png", pngOf(checkered(1, 1, 32))), put("yard.png", pngOf(checkered(8, 6, 32))),
                            put("cart.png", pngOf(checkered(1, 1, 48)))});
  ASSERT_TRUE(intake);
  ASSERT_EQ(intake->drafts.size(), 2u);
  EXPECT_FALSE(intake->drafts[0].sheet.isCollection());
  EXPECT_EQ(intake->drafts[1].sheet.collection.size(), 2u);
  EXPECT_EQ(intake->drafts[1].picture.size(), QSize(32 + 2 + 48, 48));
}

// A disc on something see-through.
QImage disc(int side) {
  QImage picture(side, side, QImage::Format_ARGB32_Premultiplied);
  picture.fill(Qt::transparent);
  for (int y = 0; y < side; ++y) {
    for (int x = 0; x < side; ++x) {
      const int dx = 2 * x + 1 - side;
      const int dy = 2 * y + 1 - side;
      if (dx * dx + dy * dy < side * side * 8 / 10) picture.setPixel(x, y, 0xffa0563f + static_cast<unsigned>(x % 7) * 0x101);
    }
  }
  return picture;
}

TEST_F(Intakes, OneThingComesInWholeAndTheCutSecond) {
  for (const PixelSize usual : {PixelSize{}, PixelSize{16, 16}, PixelSize{32, 32}, PixelSize{64, 32}}) {
    for (const int side : {20, 48, 64}) {
      const auto intake = take({put("thing.png", pngOf(disc(side)))}, usual);
      ASSERT_TRUE(intake);
      const IntakeDraft& draft = intake->drafts.front();
      EXPECT_EQ(draft.sheet.cut.cell, (PixelSize{side, side})) << usual.w;
      ASSERT_GE(draft.notes.proposals.size(), 2u);
      EXPECT_EQ(draft.notes.proposals[0].reason, "one tile");
    }
  }
  // Of a sheet the whole is offered second.
  const auto sheet = take({put("yard.png", pngOf(checkered(8, 6, 32)))});
  ASSERT_TRUE(sheet);
  EXPECT_EQ(sheet->drafts.front().sheet.cut.cell, (PixelSize{32, 32}));
  EXPECT_EQ(sheet->drafts.front().notes.proposals[1].cut.cell, (PixelSize{256, 192}));
}

TEST_F(Intakes, EveryPropOfTheDemoArrivesWhole) {
  const std::string folder = UQ_SOURCE_DIR "/demo/copperline/sheets/props/";
  int props = 0;
  for (const QString& name : QDir(QString::fromStdString(folder)).entryList({QStringLiteral("*.png")})) {
    const QImage picture(QString::fromStdString(folder) + name);
    const auto intake = take({put(name.toStdString(), pngOf(picture))});
    ASSERT_TRUE(intake);
    EXPECT_EQ(intake->drafts.front().sheet.tileCount(), 1) << name.toStdString();
    EXPECT_EQ(intake->drafts.front().sheet.cut.cell, (PixelSize{picture.width(), picture.height()}));
    ++props;
  }
  EXPECT_EQ(props, 9);
}

TEST_F(Intakes, PicturesOfNearlyOneSizeAreACollectionWhateverTheMapsCellsAre) {
  for (const int cell : {16, 32, 64}) {
    std::vector<std::string> paths;
    for (int i = 0; i < 4; ++i) {
      paths.push_back(put("wall" + std::to_string(i) + ".png", pngOf(checkered(4, 4, i == 3 ? 17 : 16))));
    }
    const auto intake = take(paths, {cell, cell});
    ASSERT_TRUE(intake);
    ASSERT_EQ(intake->drafts.size(), 1u);
    EXPECT_EQ(intake->drafts.front().sheet.collection.size(), 4u);
    EXPECT_EQ(intake->drafts.front().sheet.cut.cell, (PixelSize{64, 64}));
  }
}

TEST_F(Intakes, PicturesOfOneNameAreToldApart) {
  const auto intake = take({put("a/crate.png", pngOf(disc(20))), put("b/crate.png", pngOf(disc(24)))});
  ASSERT_TRUE(intake);
  const auto& all = intake->drafts.front().sheet.collection;
  ASSERT_EQ(all.size(), 2u);
  EXPECT_EQ(all[0].file, "crate.png");
  EXPECT_EQ(all[1].file, "crate 2.png");
}

TEST_F(Intakes, AFolderStandsForItsPictures) {
  put("quay/one.png", pngOf(checkered(1, 1, 16)));
  put("quay/two.png", pngOf(checkered(1, 1, 16)));
  put("quay/notes.txt", "not a picture");
  const auto intake = take({"/art/quay"});
  ASSERT_TRUE(intake) << intake.error().text();
  EXPECT_EQ(intake->drafts.front().sheet.collection.size(), 2u);
  EXPECT_EQ(intake->drafts.front().pictureName, "quay");
  EXPECT_TRUE(intake->problems.empty());
}

TEST_F(Intakes, WhatIsBrokenIsNamedAndTheRestComesIn) {
  const std::string good = pngOf(checkered(1, 1, 32));
  const auto intake = take({put("good.png", good), put("cut-off.png", good.substr(0, good.size() / 2)),
                            put("text.png", "hello"), put("empty.png", "")});
  ASSERT_TRUE(intake);
  EXPECT_EQ(intake->drafts.size(), 1u);
  ASSERT_EQ(intake->problems.size(), 3u);
  EXPECT_THAT(intake->problems[0].text(), testing::HasSubstr("cut-off.png"));
  EXPECT_THAT(intake->problems[1].text(), testing::HasSubstr("The other pictures come in"));
  const auto none = take({"/art/text.png"});
  ASSERT_FALSE(none);
  EXPECT_THAT(none.error().text(), testing::HasSubstr("text.png"));
  EXPECT_FALSE(take({"/art/nowhere.png"}));
}

TEST_F(Intakes, TwentyThousandFilesAreRefusedInWordsAndCancelStops) {
  std::vector<std::string> many;
  for (int i = 0; i < 20'000; ++i) many.push_back("/art/" + std::to_string(i) + ".png");
  const auto refused = take(many);
  ASSERT_FALSE(refused);
  EXPECT_EQ(refused.error().cause, Error::Cause::tooLarge);
  EXPECT_THAT(refused.error().text(), testing::HasSubstr("4,096 pictures"));
  progress.cancel();
  const auto cancelled = take({put("one.png", pngOf(checkered(2, 2, 16)))});
  ASSERT_FALSE(cancelled);
  EXPECT_EQ(cancelled.error().cause, Error::Cause::cancelled);
}

TEST(CaredFor, ShrinksClosesRimsAndSeesThrough) {
  QImage picture(4, 2, QImage::Format_ARGB32_Premultiplied);
  picture.fill(qRgb(255, 0, 255));
  picture.setPixel(0, 0, qRgb(10, 20, 30));
  picture.setPixel(1, 0, qPremultiply(qRgba(100, 50, 20, 200)));
  PixelCare care;
  care.seeThrough = 0xff00ff;
  const QImage clear = caredFor(picture, care);
  EXPECT_EQ(clear.pixel(3, 1), 0u);
  EXPECT_EQ(clear.pixel(0, 0), qRgb(10, 20, 30));
  care = {};
  care.closesRims = true;
  EXPECT_EQ(qAlpha(caredFor(picture, care).pixel(1, 0)), 255);
  care = {};
  care.shrink = 2;
  EXPECT_EQ(caredFor(picture, care).size(), QSize(2, 1));
  EXPECT_EQ(caredFor(picture, care).pixel(1, 0), qRgb(255, 0, 255));
}

TEST(SheetExport, LaysTilesInTheOrderAndColumnsWanted) {
  Sheet sheet;
  sheet.cut.cell = {8, 8};
  sheet.pictureSize = {32, 16};
  const QImage picture = checkered(4, 2, 8).convertToFormat(QImage::Format_ARGB32_Premultiplied);
  sheet.tiles[6].name = "anchor";
  sheet.tiles[1].name = "boat";
  TilePlaces places;
  places.dropped = {0};
  sheet.places = Shared(places);
  const auto byName = exportedTiles(sheet, picture, ExportOrder::byName, {}, 1);
  EXPECT_EQ(byName, (std::vector<std::uint32_t>{6, 1, 2, 3, 4, 5, 7}));
  const auto byUse = exportedTiles(sheet, picture, ExportOrder::byUse, {{{1, 5}, 9}, {{1, 3}, 2}}, 1);
  EXPECT_EQ(byUse.front(), 5u);
  EXPECT_EQ(byUse[1], 3u);
  const auto out = exportedSheet(sheet, picture, {3, 2, 1, ExportOrder::byName}, byName);
  ASSERT_TRUE(out);
  EXPECT_EQ(out->size(), QSize(2 + 3 * 8 + 2 * 2, 2 + 3 * 8 + 2 * 2));
  EXPECT_EQ(out->pixel(1, 1), picture.pixel(16, 8)) << "the first is tile 6";
  EXPECT_FALSE(exportedSheet(sheet, QImage(), {}, byName));
  EXPECT_FALSE(exportedSheet(sheet, picture, {}, {}));
}

}  // namespace

}  // namespace uq
