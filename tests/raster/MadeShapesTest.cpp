// Pictures that are cut together show what they were made for.
#include "raster/MadeShapes.h"

#include <gtest/gtest.h>

#include "core/MadeInQuilt.h"
#include "core/edit/ArrangeSheets.h"
#include "raster/PictureFile.h"

namespace uq::test {

namespace {

QImage pictureOf(const MadeEdging& made) {
  const PixelView view = made.view();
  return QImage(reinterpret_cast<const uchar*>(view.pixels), view.w, view.h, static_cast<int>(view.stride * 4), QImage::Format_ARGB32_Premultiplied).copy();
}

}  // namespace

// The set of small sheets lacks most shapes; a full one without some of its members is what they are held against.
TEST(MadeShapes, ShowTheShapesThatWereMissing) {
  int made = 0;
  int asDrawn = 0;
  std::set<GridKind> grids;
  for (std::uint64_t seed = 0; seed < 300 && made < 200; ++seed) {
    const MadeEdging plain = madeEdging(seed, false);
    if (plain.set != MadeSet::full || plain.outlined || plain.truth.decides == Decides::path) continue;
    MadeInQuilt in(madeEdging(seed));
    Sheet sheet = *in.quilt.sheet(in.sheet);
    sheet.source = PictureBytes(pngOf(pictureOf(in.made)));
    sheet.origin.licence = "CC0";
    in.quilt = in.quilt.with(sheet);
    SheetPictures pictures;
    pictures.set(*in.quilt.sheet(in.sheet), pictureOf(in.made));
    const auto grid = makeGrid(in.made.shape);
    // Every fifth is lost.
    Edging less = in.truth;
    for (std::size_t i = less.members.size(); i-- > 0;) {
      if (i % 5 == 3) less.members.erase(less.members.begin() + static_cast<std::ptrdiff_t>(i));
    }
    const MadeShapes shapes = madeShapes(in.quilt, pictures, less, *grid);
    if (shapes.picture.isNull()) continue;
    grids.insert(in.made.shape.kind);
    EXPECT_EQ(shapes.sheet.origin.licence, "CC0");
    EXPECT_NE(shapes.sheet.name.find("made"), std::string::npos);
    const PixelSize cell = in.made.shape.cell;
    const QImage drawnSheet = pictureOf(in.made);
    for (const EdgingMember& one : shapes.members) {
      const auto drawn = std::find_if(in.truth.members.begin(), in.truth.members.end(), [&](const EdgingMember& other) { return other.sides == one.sides && other.corners == one.corners; });
      ASSERT_NE(drawn, in.truth.members.end()) << in.made.called << ": a shape that the full set lacks was made";
      ++made;
      const PixelRect place = in.made.place(drawn->tile.tile);
      int differ = 0;
      for (int y = 0; y < cell.h; ++y) {
        for (int x = 0; x < cell.w; ++x) {
          const QRgb a = shapes.picture.pixel(static_cast<int>(one.tile.tile) % 8 * cell.w + x, static_cast<int>(one.tile.tile) / 8 * cell.h + y);
          const QRgb b = drawnSheet.pixel(place.x + x, place.y + y);
          differ += std::abs(qRed(a) - qRed(b)) + std::abs(qGreen(a) - qGreen(b)) + std::abs(qBlue(a) - qBlue(b)) + std::abs(qAlpha(a) - qAlpha(b)) > 90 ? 1 : 0;
        }
      }
      // Where parts meet a little may look otherwise.
      asDrawn += differ * 6 <= cell.w * cell.h ? 1 : 0;
    }
  }
  EXPECT_GT(made, 60);
  EXPECT_GE(grids.size(), 3u);
  EXPECT_GE(asDrawn * 10, made * 9) << "of " << made;
}

}  // namespace uq::test
