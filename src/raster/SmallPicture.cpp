#include "raster/SmallPicture.h"

#include <QPainter>
#include <QTransform>
#include <algorithm>
#include <vector>

#include "raster/BlankPicture.h"

namespace uq {

namespace {

constexpr std::int64_t kMostAveraged = 1 << 17;  // cells on all layers: less than a millisecond

// The map at one pixel for n × n cells, sampled, in its own proportions at most as large as `most`.
QImage sampled(MapPainter& painter, const Quilt& quilt, const Map& map, int n, QSize size, const Seeing& seeing) {
  const CellRect blocks{floorDiv(map.bounds.x0, n), floorDiv(map.bounds.y0, n), ceilDiv(map.bounds.x1, n),
                        ceilDiv(map.bounds.y1, n)};
  QImage picture = blankPicture({blocks.width(), blocks.height()});
  for (const Run& run : runsOf(map, seeing)) {
    QPainter over(&picture);
    over.setOpacity(run.alpha() / 255.0);
    over.setCompositionMode(modeOf(run.blend));
    over.drawImage(0, 0, painter.sample(quilt, map, run, blocks, n));
  }
  if (map.grid.kind == GridKind::orthogonal) {
    return picture.scaled(size, Qt::IgnoreAspectRatio, Qt::SmoothTransformation)
        .convertToFormat(QImage::Format_ARGB32_Premultiplied);
  }
  // As the cells lie on average.
  const auto grid = makeGrid(map.grid);
  const PixelRect whole = grid->pixelBounds(map.bounds);
  const Grid::Lattice at = grid->lattice();
  const double fit = static_cast<double>(size.width()) / whole.w;
  const double step = n * fit;
  QImage laid = blankPicture(size);
  QPainter pen(&laid);
  pen.setRenderHint(QPainter::SmoothPixmapTransform);
  pen.setTransform(QTransform(at.columnX * step, at.columnY * step, at.rowX * step, at.rowY * step,
                              (at.originX - whole.x) * fit, (at.originY - whole.y) * fit));
  pen.drawImage(blocks.x0, blocks.y0, picture);
  return laid;
}

// Makes what is faint, as thin lines are when they are drawn small, as strong as it can be without changing its colour:
// so that the strongest tenth of what is there at all becomes solid.
void strengthen(QImage& picture) {
  const auto forEachPixel = [&picture](auto&& visit) {
    for (int y = 0; y < picture.height(); ++y) {
      auto* row = reinterpret_cast<QRgb*>(picture.scanLine(y));
      for (QRgb* pixel = row; pixel < row + picture.width(); ++pixel) {
        if (qAlpha(*pixel) > 0) visit(*pixel);
      }
    }
  };
  std::vector<int> alphas;
  forEachPixel([&](QRgb pixel) { alphas.push_back(qAlpha(pixel)); });
  if (alphas.empty()) return;
  const auto strong = alphas.begin() + static_cast<std::ptrdiff_t>(alphas.size() * 9 / 10);
  std::nth_element(alphas.begin(), strong, alphas.end());
  if (*strong == 255) return;
  const int most = *strong;
  forEachPixel([most](QRgb& pixel) {
    const int alpha = qAlpha(pixel);
    const int stronger = std::min(255, alpha * 255 / most);
    const auto channel = [&](int value) { return value * stronger / alpha; };
    pixel = qRgba(channel(qRed(pixel)), channel(qGreen(pixel)), channel(qBlue(pixel)), stronger);
  });
}

}  // namespace

SmallPicture smallPicture(MapPainter& painter, const Quilt& quilt, const Map& map, QSize most, const Seeing& seeing) {
  const int side = std::max({1, most.width(), most.height()});
  const int cells = std::max(map.bounds.width(), map.bounds.height());
  const bool squares = map.grid.kind == GridKind::orthogonal;
  const std::int64_t looks = map.bounds.count() * static_cast<std::int64_t>(map.layers.size());
  // Of a large map half as many cells are looked at as there are pixels: nobody waits for a small picture.
  const int n = cells <= side || (squares && looks <= kMostAveraged) ? 1 : ceilDiv(2 * cells, side);
  const PixelRect whole =
      n > 1 ? makeGrid(map.grid)->pixelBounds(map.bounds) : painter.extentOf(quilt, map, runsOf(map, seeing));
  const double fit =
      std::min({static_cast<double>(most.width()) / whole.w, static_cast<double>(most.height()) / whole.h, 1.0});
  const QSize size(std::max(1, static_cast<int>(whole.w * fit)), std::max(1, static_cast<int>(whole.h * fit)));
  if (n > 1 || (fit < kSmallestZoom && !squares)) return {sampled(painter, quilt, map, n, size, seeing), whole, fit};
  const ViewScale scale{fit};
  const QRect device(scale.toDevice(whole).topLeft(), size);
  return {painter.draw(quilt, map, runsOf(map, seeing), scale, device), whole, fit};
}

SmallPicture smallPicture(MapPainter& painter, const Quilt& quilt, const Map& map, const Layer& layer, QSize most) {
  Map alone = map;
  Layer clear = layer;
  clear.offset = {};
  clear.folder = {};
  clear.opacity = 100;
  clear.blend = Blend::normal;
  alone.folders.clear();
  alone.layers = {Shared(std::move(clear))};
  SmallPicture small = smallPicture(painter, quilt, alone, most);
  strengthen(small.picture);
  return small;
}

}  // namespace uq
