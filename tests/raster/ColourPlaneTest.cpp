// Maps shown so small that a cell is less than four pixels: averages of colours.
#include <cmath>

#include "Scene.h"

namespace uq {

namespace {

using Channels = std::array<double, 4>;

Channels channelsOf(QRgb colour) {
  return {double(qBlue(colour)), double(qGreen(colour)), double(qRed(colour)), double(qAlpha(colour))};
}

QRgb premultipliedAt(const QImage& picture, int x, int y) {
  return reinterpret_cast<const QRgb*>(picture.constScanLine(y))[x];
}

// A tile's average, premultiplied.
Channels averageOf(const Scene& scene, std::uint32_t number) {
  Scene alone({0, 0, 1, 1});
  alone.lay("Ground", {0, 0}, Cell({scene.small, number}, {}));
  const QImage tile = alone.whole(1);
  Channels sum{};
  for (int y = 0; y < tile.height(); ++y) {
    for (int x = 0; x < tile.width(); ++x) {
      const Channels one = channelsOf(premultipliedAt(tile, x, y));
      for (std::size_t c = 0; c < 4; ++c) sum[c] += one[c] / (tile.width() * tile.height());
    }
  }
  return sum;
}

}  // namespace

RC_GTEST_PROP(ColourPlane, APixelIsTheAverageOfTheCellsUnderIt, ()) {
  Scene scene({-9, -4, 70, 33});
  for (int i = 0, n = *rc::gen::inRange(1, 300); i < n; ++i) {
    const CellPos at{*rc::gen::inRange(-9, 70), *rc::gen::inRange(-4, 33)};
    scene.lay("Ground", at, Cell({scene.small, *rc::gen::inRange(0u, 2u)}, {}));
  }
  const Channels tiles[] = {averageOf(scene, 0), averageOf(scene, 1)};
  const double zoom = *rc::gen::element(0.011, 0.04, 0.0625, 0.1, 0.17, 0.2499);
  const double side = 16 * zoom;  // pixels a cell
  const QRect part(*rc::gen::inRange(-40, 60), *rc::gen::inRange(-20, 40), 37, 23);
  const QImage drawn = scene.draw(zoom, part);
  const CellGrid& cells = scene.quilt.layer(scene.at("Ground"))->cells;
  for (int y = 0; y < part.height(); ++y) {
    for (int x = 0; x < part.width(); ++x) {
      const double left = (part.x() + x) / side;
      const double top = (part.y() + y) / side;
      Channels wanted{};
      for (int cy = static_cast<int>(std::floor(top)); cy < top + 1 / side; ++cy) {
        for (int cx = static_cast<int>(std::floor(left)); cx < left + 1 / side; ++cx) {
          const Cell cell = cells.at({cx, cy});
          const double wide = std::min(left + 1 / side, cx + 1.0) - std::max(left, double(cx));
          const double high = std::min(top + 1 / side, cy + 1.0) - std::max(top, double(cy));
          for (std::size_t c = 0; c < 4 && !cell.empty(); ++c) {
            wanted[c] += std::max(0.0, wide) * std::max(0.0, high) * side * side * tiles[cell.tile().number][c];
          }
        }
      }
      const QRgb pixel = premultipliedAt(drawn, x, y);
      const Channels found = channelsOf(pixel);
      for (std::size_t c = 0; c < 4; ++c) {
        RC_ASSERT(std::abs(found[c] - wanted[c]) < 2);
        RC_ASSERT(found[c] <= qAlpha(pixel));
      }
    }
  }
}

TEST(ColourPlane, WhatIsSolidStaysSolidAtEveryZoom) {
  Scene scene({0, 0, 200, 200});
  const LayerAt ground = scene.at("Ground");
  Layer layer = *scene.quilt.layer(ground);
  layer.cells.fill(CellRect{0, 0, 200, 200}, Cell({scene.small, 0}, {}));
  scene.quilt = scene.quilt.with(ground, std::move(layer));
  for (const double zoom : {0.003, 0.01, 0.0333, 0.1, 0.12345, 0.24}) {
    const int side = static_cast<int>(3200 * zoom);
    const QImage drawn = scene.draw(zoom, {0, 0, side, side});
    const QRgb first = premultipliedAt(drawn, 0, 0);
    EXPECT_EQ(qAlpha(first), 255);
    for (int y = 0; y < side; ++y) {
      for (int x = 0; x < side; ++x) ASSERT_EQ(premultipliedAt(drawn, x, y), first) << zoom << ": " << x << ", " << y;
    }
  }
}

}  // namespace uq
