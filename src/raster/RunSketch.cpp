#include "raster/RunSketch.h"

#include <QTransform>
#include <algorithm>

namespace uq {

namespace {

constexpr int kSketchSide = 256;  // pixels, at most

}  // namespace

CellRect RunSketch::blocksOf(CellRect cells) const {
  return {floorDiv(cells.x0, step_), floorDiv(cells.y0, step_), ceilDiv(cells.x1, step_), ceilDiv(cells.y1, step_)};
}

void RunSketch::make(MapPainter& painter, const MadeFrom& from) {
  const CellRect bounds = from.map().bounds;
  step_ = 1;
  while (std::max(bounds.width(), bounds.height()) / step_ > kSketchSide) step_ *= 2;
  blocks_ = blocksOf(bounds);
  picture_ = painter.sample(from.quilt(), from.map(), from.run(), blocks_, step_);
}

void RunSketch::repair(MapPainter& painter, const MadeFrom& from, const std::vector<PixelRect>& changed) {
  const Map& map = from.map();
  const auto grid = makeGrid(map.grid);
  CellRect blocks;
  for (const PixelRect& pixels : changed) {
    blocks = blocks.united(blocksOf(grid->cellsMeeting(pixels).intersected(map.bounds)).intersected(blocks_));
  }
  if (blocks.empty()) return;
  QPainter onto(&picture_);
  onto.setCompositionMode(QPainter::CompositionMode_Source);
  onto.drawImage(blocks.x0 - blocks_.x0, blocks.y0 - blocks_.y0,
                 painter.sample(from.quilt(), map, from.run(), blocks, step_));
}

void RunSketch::draw(QPainter& painter, const MadeFrom& from, ViewScale scale, const QRect& where,
                     QPoint origin) const {
  if (where.isEmpty()) return;
  painter.save();
  painter.setClipRect(where.translated(-origin), Qt::IntersectClip);
  const auto grid = makeGrid(from.map().grid);
  if (from.map().grid.kind != GridKind::orthogonal) {
    // As the cells lie on average.
    const Grid::Lattice at = grid->lattice();
    const double step = step_ * scale.zoom;
    painter.setTransform(QTransform(at.columnX * step, at.columnY * step, at.rowX * step, at.rowY * step,
                                    at.originX * scale.zoom - origin.x(), at.originY * scale.zoom - origin.y()),
                         true);
    painter.drawImage(blocks_.x0, blocks_.y0, picture_);
  } else {
    const PixelRect blocks =
        grid->pixelBounds({blocks_.x0 * step_, blocks_.y0 * step_, blocks_.x1 * step_, blocks_.y1 * step_});
    // Only the pixels that show: a sketch is scaled by thousands at large zooms.
    const double px = double{scale.zoom} * blocks.w / picture_.width();
    const double py = double{scale.zoom} * blocks.h / picture_.height();
    const QRectF seen = QRectF(where).translated(-blocks.x * scale.zoom, -blocks.y * scale.zoom);
    const QRectF source(seen.x() / px, seen.y() / py, seen.width() / px, seen.height() / py);
    painter.drawImage(QRectF(where.translated(-origin)), picture_, source);
  }
  painter.restore();
}

}  // namespace uq
