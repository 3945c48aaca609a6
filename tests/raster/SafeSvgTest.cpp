// Drawings from elsewhere: what is drawn is the drawing, and nothing is fetched for it.
#include "raster/SafeSvg.h"

#include <gtest/gtest.h>
#include <zlib.h>

#include <QFile>
#include <QImage>
#include <QTemporaryDir>

#include "raster/PictureFile.h"

namespace uq {

namespace {

const std::string kHead =
    R"(<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="8" height="8">)";

bool showsRed(const std::string& svg) {
  const auto picture = decodePicture(svg, "drawing.svg", 1);
  EXPECT_TRUE(picture) << picture.error().text();
  for (int y = 0; picture && y < picture->height(); ++y) {
    for (int x = 0; x < picture->width(); ++x) {
      if (picture->pixel(x, y) == 0xffff0000u) return true;
    }
  }
  return false;
}

std::string packed(const std::string& text) {
  std::string out(text.size() / 500 + 4096, '\0');
  z_stream stream{};
  EXPECT_EQ(deflateInit2(&stream, 9, Z_DEFLATED, MAX_WBITS + 16, 8, Z_DEFAULT_STRATEGY), Z_OK);
  stream.next_in = reinterpret_cast<Bytef*>(const_cast<char*>(text.data()));
  stream.avail_in = static_cast<uInt>(text.size());
  stream.next_out = reinterpret_cast<Bytef*>(out.data());
  stream.avail_out = static_cast<uInt>(out.size());
  EXPECT_EQ(deflate(&stream, Z_FINISH), Z_STREAM_END);
  out.resize(stream.total_out);
  deflateEnd(&stream);
  return out;
}

}  // namespace

TEST(SafeSvg, DrawsTheDrawingAndPicturesInsideIt) {
  EXPECT_TRUE(showsRed(kHead + R"(<rect width="8" height="8" fill="#ff0000"/></svg>)"));
  EXPECT_TRUE(showsRed(kHead + R"(<defs><rect id="r" width="8" height="8" fill="#ff0000"/></defs><use xlink:href="#r"/></svg>)"));
  EXPECT_TRUE(showsRed(kHead + R"(<style>rect { fill: #ff0000 }</style><rect width="8" height="8"/></svg>)"));
  QImage red(8, 8, QImage::Format_ARGB32);
  red.fill(Qt::red);
  const std::string inside = QByteArray::fromStdString(pngOf(red)).toBase64().toStdString();
  EXPECT_TRUE(showsRed(kHead + R"(<image width="8" height="8" xlink:href="data:image/png;base64,)" + inside + R"("/></svg>)"));
  std::string wrapped;
  for (const char c : inside) wrapped += (wrapped.size() % 20 == 19 ? std::string("\n") : std::string()) + c;
  EXPECT_TRUE(showsRed(kHead + R"(<image width="8" height="8" xlink:href="data:image/png;base64,)" + wrapped + R"("/></svg>)"));
  EXPECT_TRUE(showsRed(packed(kHead + R"(<rect width="8" height="8" fill="#ff0000"/></svg>)"))) << "packed, too";
  EXPECT_TRUE(isLineDrawing(kHead + "</svg>"));
  EXPECT_FALSE(isLineDrawing(pngOf(red)));
}

TEST(SafeSvg, FetchesNothing) {
  const QTemporaryDir scratch;
  const QString file = scratch.filePath(QStringLiteral("secret.png"));
  QImage red(8, 8, QImage::Format_ARGB32);
  red.fill(Qt::red);
  ASSERT_TRUE(red.save(file));
  const std::string path = file.toStdString();
  for (const std::string& target : {path, "file://" + path, "./" + path, " " + path}) {
    for (const char* name : {"href", "xlink:href"}) {
      EXPECT_FALSE(showsRed(kHead + "<image width=\"8\" height=\"8\" " + name + "=\"" + target + "\"/></svg>")) << target;
    }
  }
  const std::string image = kHead + "<image width=\"8\" height=\"8\" xlink:href=\"" + path + "\"/></svg>";
  const std::string nested = QByteArray::fromStdString(image).toBase64().toStdString();
  EXPECT_FALSE(showsRed(kHead + R"(<image width="8" height="8" xlink:href="data:image/png;base64,)" + nested + R"("/></svg>)"));
  // Nor one that hides behind a harmless one: readers take what stands behind the last mark.
  QImage blank(8, 8, QImage::Format_ARGB32);
  blank.fill(Qt::transparent);
  const std::string harmless = QByteArray::fromStdString(pngOf(blank)).toBase64().toStdString();
  for (const char* between : {"base64,", ";base64,", " base64,"}) {
    EXPECT_FALSE(showsRed(kHead + R"(<image width="8" height="8" xlink:href="data:image/png;base64,)" + harmless + between +
                          nested + R"("/></svg>)"))
        << between;
  }
  // Nor by names that are spelt out elsewhere.
  EXPECT_FALSE(showsRed("<!DOCTYPE svg [<!ENTITY where \"" + path + "\">]>" + kHead +
                        R"(<image width="8" height="8" xlink:href="&where;"/></svg>)"));
  EXPECT_FALSE(showsRed("<?xml-stylesheet type=\"text/css\" href=\"" + path + "\"?>" + kHead + "</svg>"));
}

TEST(SafeSvg, WhatIsTooLargeOrBrokenIsToldInWords) {
  const std::string bomb = packed(kHead + std::string(std::size_t{300} << 20, ' ') + "</svg>");
  ASSERT_LT(bomb.size(), std::size_t{1} << 20);
  const auto large = decodePicture(bomb, "drawing.svgz", 1);
  ASSERT_FALSE(large);
  EXPECT_EQ(large.error().cause, Error::Cause::tooLarge);
  for (const std::string& broken : {kHead, std::string("<svg"), packed(kHead).substr(0, 40), kHead + "<a></b></svg>",
                                    std::string("<!DOCTYPE svg [<!ENTITY a \"&b;\"><!ENTITY b \"&a;\">]><svg>&a;</svg>")}) {
    const auto read = decodePicture(broken, "drawing.svg", 1);
    ASSERT_FALSE(read);
    EXPECT_FALSE(read.error().reason.empty());
  }
}

}  // namespace uq
