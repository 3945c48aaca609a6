#include "app/table/CutPicture.h"

#include <QPainter>
#include <algorithm>

#include "app/look/Theme.h"

namespace uq {

namespace {
constexpr int kLeastTile = 6;  // logical pixels of a tile that is told apart
}

QPixmap cutPicture(const QImage& picture, const SheetCut& cut, QSize size, double ratio) {
  QPixmap drawn(size * ratio);
  drawn.setDevicePixelRatio(ratio);
  drawn.fill(Qt::transparent);
  if (picture.isNull()) return drawn;
  // So much of it that tiles can be told apart.
  const int most = std::max(1, size.width() / kLeastTile) * std::max(1, std::max(cut.cell.w, cut.cell.h) + cut.gap);
  const int side = std::min(std::max(picture.width(), picture.height()), most);
  const QRect part(0, 0, std::min(side, picture.width()), std::min(side, picture.height()));
  const double scale = std::min(size.width() / double(part.width()), size.height() / double(part.height()));
  QPainter painter(&drawn);
  painter.setRenderHint(QPainter::SmoothPixmapTransform, scale < 1);
  painter.translate((size.width() - part.width() * scale) / 2, (size.height() - part.height() * scale) / 2);
  painter.drawImage(QRectF(0, 0, part.width() * scale, part.height() * scale), picture, part);
  const Theme& theme = Theme::current();
  painter.setClipRect(QRectF(0, 0, part.width() * scale, part.height() * scale));
  const PixelSize cells = cellsOf(cut, {picture.width(), picture.height()});
  QVector<QLineF> lines;
  const auto add = [&](int count, int cell, int offset, bool upright) {
    for (int i = 0; i <= count; ++i) {
      const double at = (offset + cut.border + i * (cell + cut.gap) - (i > 0 ? cut.gap / 2.0 : 0)) * scale;
      const double far = (upright ? part.height() : part.width()) * scale;
      if (at > (upright ? part.width() : part.height()) * scale) break;
      lines << (upright ? QLineF(at, 0, at, far) : QLineF(0, at, far, at));
    }
  };
  add(cells.w, cut.cell.w, cut.offset.x, true);
  add(cells.h, cut.cell.h, cut.offset.y, false);
  painter.setPen(QPen(theme.madder, 1));
  painter.drawLines(lines);
  return drawn;
}

}  // namespace uq
