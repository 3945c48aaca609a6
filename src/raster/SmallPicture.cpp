#include "raster/SmallPicture.h"

#include <QPainter>
#include <QTransform>
#include <algorithm>

#include "raster/BlankPicture.h"

namespace uq {

namespace {

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

}  // namespace

SmallPicture smallPicture(MapPainter& painter, const Quilt& quilt, const Map& map, QSize most, const Seeing& seeing) {
  const int side = std::max({1, most.width(), most.height()});
  const int cells = std::max(map.bounds.width(), map.bounds.height());
  // Of a large map half as many cells are looked at as there are pixels: nobody waits for a small picture.
  const int n = cells > side ? ceilDiv(2 * cells, side) : 1;
  const PixelRect whole =
      n > 1 ? makeGrid(map.grid)->pixelBounds(map.bounds) : painter.extentOf(quilt, map, runsOf(map, seeing));
  const double fit =
      std::min({static_cast<double>(most.width()) / whole.w, static_cast<double>(most.height()) / whole.h, 1.0});
  const QSize size(std::max(1, static_cast<int>(whole.w * fit)), std::max(1, static_cast<int>(whole.h * fit)));
  if (n > 1 || fit < kSmallestZoom) return {sampled(painter, quilt, map, n, size, seeing), whole, fit};
  const ViewScale scale{fit};
  const QRect device(scale.toDevice(whole).topLeft(), size);
  return {painter.draw(quilt, map, runsOf(map, seeing), scale, device), whole, fit};
}

SmallPicture smallPicture(MapPainter& painter, const Quilt& quilt, const Map& map, const Layer& layer,
                          QSize most) {
  Map alone = map;
  Layer clear = layer;
  clear.offset = {};
  clear.folder = {};
  clear.opacity = 100;
  clear.blend = Blend::normal;
  alone.folders.clear();
  alone.layers = {Shared(std::move(clear))};
  return smallPicture(painter, quilt, alone, most);
}

}  // namespace uq
