// Blends, tints, opacity, offsets, parallax and backdrops, pixel by pixel against the formulas.
#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>
#include <thread>

#include "core/edit/ArrangeLayers.h"
#include "core/edit/MapFacts.h"
#include "raster/Scene.h"
#include "raster/SwatchBook.h"

namespace uq {
namespace {

// A colour that is not premultiplied, 0 .. 1.
struct Straight {
  double r = 0, g = 0, b = 0, a = 0;
};

Straight straight(QRgb premultiplied) {
  const double a = qAlpha(premultiplied) / 255.0;
  if (a == 0) return {};
  return {qRed(premultiplied) / 255.0 / a, qGreen(premultiplied) / 255.0 / a, qBlue(premultiplied) / 255.0 / a, a};
}

double mixed(Blend blend, double below, double above) {
  switch (blend) {
    case Blend::multiply: return below * above;
    case Blend::screen: return below + above - below * above;
    case Blend::normal:
    case Blend::add: return above;
  }
  return above;
}

// W3C Compositing and Blending Level 1: simple alpha compositing with a blend mode, and the operator "lighter". The
// result is premultiplied, 0 .. 255.
std::array<double, 4> laidOver(QRgb below, Straight above, Blend blend) {
  const Straight b = straight(below);
  const auto channel = [&](double cb, double cs) {
    if (blend == Blend::add) return std::min(1.0, above.a * cs + b.a * cb);
    return above.a * (1 - b.a) * cs + above.a * b.a * mixed(blend, cb, cs) + (1 - above.a) * b.a * cb;
  };
  const double alpha = blend == Blend::add ? std::min(1.0, above.a + b.a) : above.a + b.a * (1 - above.a);
  return {channel(b.r, above.r) * 255, channel(b.g, above.g) * 255, channel(b.b, above.b) * 255, alpha * 255};
}

// A scene with a picture hung between its two layers.
struct Hung : Scene {
  QImage picture;
  LayerAt at;

  explicit Hung(QSize size, bool seeThrough) {
    picture = QImage(size, QImage::Format_ARGB32);
    for (int y = 0; y < size.height(); ++y) {
      for (int x = 0; x < size.width(); ++x) {
        const int alpha = seeThrough ? (x * 37 + y * 11) % 256 : 255;
        picture.setPixel(x, y, qRgba((x * 29 + 40) % 256, (y * 53 + 10) % 256, (x * y * 7) % 256, alpha));
      }
    }
    picture = picture.convertToFormat(QImage::Format_ARGB32_Premultiplied);
    IdSource ids(77);
    Sheet sheet;
    sheet.id = ids.next();
    sheet.name = "sky";
    sheet.code = "Z";
    sheet.cut.cell = {16, 16};
    sheet.pictureSize = {size.width(), size.height()};
    quilt = quilt.with(sheet);
    pictures.set(sheet, picture);
    LayerAdded added = addBackdrop(quilt, map, 1, sheet.id, ids);
    quilt = added.quilt;
    at = {map, added.layer};
    quilt = withParallax(quilt, at, {100, 100});
    for (int y = -1; y < 5; ++y) {
      for (int x = -2; x < 6; ++x) {
        if ((x + y) % 3 != 0) lay("Ground", {x, y}, Cell({small, static_cast<std::uint32_t>(x & 1)}, {}));
      }
    }
  }
  void set(const std::function<void(Backdrop&)>& change) {
    Backdrop backdrop = quilt.layer(at)->backdrop;
    change(backdrop);
    quilt = withBackdrop(quilt, at, backdrop);
  }
};

RC_GTEST_PROP(Depth, EveryPixelFollowsTheFormula, ()) {
  Hung scene({*rc::gen::inRange(5, 40), *rc::gen::inRange(5, 40)}, *rc::gen::arbitrary<bool>());
  const auto blend = *rc::gen::element(Blend::normal, Blend::multiply, Blend::screen, Blend::add);
  const int opacity = *rc::gen::inRange(1, 101);
  const Colour tint = *rc::gen::element(kNoTint, Colour{0x8090a0}, Colour{0xff0000}, Colour{0x102030});
  const PixelPos offset{*rc::gen::inRange(-30, 30), *rc::gen::inRange(-30, 30)};
  const Parallax parallax{*rc::gen::inRange(0, 200), *rc::gen::inRange(0, 200)};
  const PixelPos camera{*rc::gen::inRange(-200, 200), *rc::gen::inRange(-200, 200)};
  const bool across = *rc::gen::arbitrary<bool>();
  const bool down = *rc::gen::arbitrary<bool>();
  scene.set([&](Backdrop& one) {
    one.repeatsAcross = across;
    one.repeatsDown = down;
  });
  scene.quilt = withBlend(scene.quilt, scene.at, blend);
  scene.quilt = withOpacity(scene.quilt, scene.at, opacity);
  scene.quilt = withTint(scene.quilt, scene.at, tint);
  scene.quilt = withOffset(scene.quilt, scene.at, offset);
  scene.quilt = withParallax(scene.quilt, scene.at, parallax);
  // What the screen shows at that place of the camera.
  const QRect screen(camera.x, camera.y, 64, 48);
  const QImage drawn = scene.draw(1, screen, {{}, {}, camera});
  const QImage ground = scene.draw(1, screen, {{scene.at.layer}, {}, camera});
  for (int y = 0; y < screen.height(); ++y) {
    for (int x = 0; x < screen.width(); ++x) {
      // screen = position + offset - parallax × camera
      const auto share = [](int hundredths, int at) {
        return static_cast<int>(std::floor((hundredths * at + 50) / 100.0));
      };
      const int px = x - offset.x + share(parallax.across, camera.x);
      const int py = y - offset.y + share(parallax.down, camera.y);
      const int w = scene.picture.width();
      const int h = scene.picture.height();
      const bool hangs = (across || (px >= 0 && px < w)) && (down || (py >= 0 && py < h));
      const QRgb below = reinterpret_cast<const QRgb*>(ground.constScanLine(y))[x];
      Straight above;
      if (hangs) {
        const QRgb pixel =
            reinterpret_cast<const QRgb*>(scene.picture.constScanLine(((py % h) + h) % h))[((px % w) + w) % w];
        above = straight(pixel);
        above.r *= (tint >> 16 & 255) / 255.0;
        above.g *= (tint >> 8 & 255) / 255.0;
        above.b *= (tint & 255) / 255.0;
        above.a *= opacity / 100.0;
      }
      const std::array<double, 4> wanted = laidOver(below, above, hangs ? blend : Blend::normal);
      const QRgb is = reinterpret_cast<const QRgb*>(drawn.constScanLine(y))[x];
      const std::array<int, 4> got{qRed(is), qGreen(is), qBlue(is), qAlpha(is)};
      for (std::size_t c = 0; c < 4; ++c) {
        if (std::abs(got[c] - wanted[c]) > 1.01) {
          RC_LOG() << "at " << x << ", " << y << " channel " << c << ": " << got[c] << " for " << wanted[c]
                   << ", blend " << std::string(blendName(blend)) << ", opacity " << opacity << "\n";
          RC_FAIL("a pixel is wrong");
        }
      }
    }
  }
}

RC_GTEST_PROP(Depth, AnyPartOfADrawingIsThatPartOfTheWhole, ()) {
  Hung scene({*rc::gen::inRange(5, 60), *rc::gen::inRange(5, 60)}, true);
  scene.set([](Backdrop& one) {
    one.repeatsAcross = *rc::gen::arbitrary<bool>();
    one.repeatsDown = *rc::gen::arbitrary<bool>();
    one.shownAt = *rc::gen::element(50, 100, 170);
  });
  scene.quilt = withBlend(scene.quilt, scene.at, *rc::gen::element(Blend::normal, Blend::multiply, Blend::add));
  const double zoom = *rc::gen::element(0.4, 1.0, 2.0, 3.3);
  const Seeing seeing{{}, {}, PixelPos{*rc::gen::inRange(-50, 50), 9}};
  const QRect whole(-40, -30, 120, 90);
  const QImage all = scene.draw(zoom, whole, seeing);
  const QRect part(*rc::gen::inRange(-40, 60), *rc::gen::inRange(-30, 40), 20, 20);
  RC_ASSERT(scene.draw(zoom, part, seeing) == all.copy(part.translated(-whole.topLeft())));
}

// How far two pictures are apart, at the pixel where they are most.
int apart(const QImage& a, const QImage& b) {
  int most = 0;
  for (int y = 0; y < a.height(); ++y) {
    for (int x = 0; x < 4 * a.width(); ++x)
      most = std::max(most, std::abs(a.constScanLine(y)[x] - b.constScanLine(y)[x]));
  }
  return most;
}

// A painter with a book, as the canvas has it.
struct Canvas {
  explicit Canvas(const Scene& scene) : book(scene.pictures, [] {}) {}
  QImage paint(const Scene& scene, const Seeing& seeing) {
    book.show(scene.quilt, scene.map, runsOf(scene.yard(), seeing));
    QImage picture(160, 120, QImage::Format_ARGB32_Premultiplied);
    for (int i = 0; i < 100'000; ++i) {
      picture.fill(Qt::transparent);
      QPainter painter(&picture);
      const auto frame = book.paint(painter, {1}, {-40, -30, 160, 120}, {-40, -30, 160, 120});
      // With what workers draw ahead.
      if (frame.whole() && book.isIdle()) break;
      std::this_thread::yield();
    }
    return picture;
  }
  SwatchBook book;
};

TEST(Depth, TheCanvasShowsWhatIsDrawnAndMakesNoSwatchAnewForTheCamera) {
  Hung scene({23, 17}, true);
  scene.quilt = withBlend(scene.quilt, scene.at, Blend::multiply);
  scene.quilt = withParallax(scene.quilt, scene.at, {40, 60});
  Canvas canvas(scene);
  for (const PixelPos camera : {PixelPos{0, 0}, PixelPos{13, 5}, PixelPos{-22, 40}}) {
    const Seeing seeing{{}, {}, camera};
    EXPECT_LE(apart(canvas.paint(scene, seeing), scene.draw(1, {-40, -30, 160, 120}, seeing)), 2) << camera.x;
  }
  // Everything that is only laid otherwise: opacity, blend, offset, hiding, fading, order.
  const std::uint64_t made = canvas.book.made();
  scene.quilt = withOpacity(scene.quilt, scene.at, 30);
  scene.quilt = withBlend(scene.quilt, scene.at, Blend::screen);
  EXPECT_LE(apart(canvas.paint(scene, {}), scene.draw(1, {-40, -30, 160, 120})), 3);
  const Seeing moved{{}, {}, PixelPos{3, 3}};
  EXPECT_LE(apart(canvas.paint(scene, moved), scene.draw(1, {-40, -30, 160, 120}, moved)), 3);
  const Seeing faint{{}, scene.at.layer};
  EXPECT_LE(apart(canvas.paint(scene, faint), scene.draw(1, {-40, -30, 160, 120}, faint)), 3);
  scene.quilt = moveLayer(scene.quilt, scene.at, 0);
  canvas.paint(scene, {});
  EXPECT_EQ(canvas.book.made(), made);
}

TEST(Depth, AnEmptyOrMissingPictureShowsNothing) {
  Hung scene({8, 8}, false);
  const QImage with = scene.draw(1, {0, 0, 64, 48});
  scene.set([](Backdrop& one) { one.sheet = {}; });
  const QImage without = scene.draw(1, {0, 0, 64, 48});
  EXPECT_NE(with, without);
  scene.quilt = deleteLayer(scene.quilt, scene.at);
  EXPECT_EQ(scene.draw(1, {0, 0, 64, 48}), without);
}

TEST(Depth, ARepeatedBackdropEndsWithTheMapUnlessTheCameraLooks) {
  Hung scene({8, 8}, false);
  scene.quilt = withParallax(scene.quilt, scene.at, {50, 50});
  const QImage beyond = scene.draw(1, {-90, 0, 20, 6});
  EXPECT_EQ(qAlpha(beyond.pixel(3, 3)), 0) << "left of the map";
  const QImage looked = scene.draw(1, {-90, 0, 20, 6}, {{}, {}, PixelPos{-90, 0}});
  EXPECT_EQ(qAlpha(looked.pixel(3, 3)), 255);
}

TEST(Depth, PinsAndGoneLayersAreNotDrawn) {
  Hung scene({8, 8}, false);
  IdSource ids(5);
  const QImage before = scene.draw(1, {0, 0, 64, 48});
  scene.quilt = addPinsLayer(scene.quilt, scene.map, 0, ids).quilt;
  EXPECT_EQ(scene.draw(1, {0, 0, 64, 48}), before);
  Seeing gone{{}, scene.at.layer};
  gone.faint = 0;
  EXPECT_EQ(runsOf(scene.yard(), gone).size(), 1u) << "only the clear one";
}

}  // namespace
}  // namespace uq
