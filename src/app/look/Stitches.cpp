#include "app/look/Stitches.h"

namespace uq {

namespace {

template <class Draw>
void inTwoTones(QPainter& painter, const QColor& thread, const QColor& gap, qreal width, Draw draw) {
  painter.save();
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(gap, width, Qt::SolidLine, Qt::FlatCap, Qt::MiterJoin));
  draw();
  QPen dashes(thread, width, Qt::CustomDashLine, Qt::FlatCap, Qt::MiterJoin);
  dashes.setDashPattern({6 / width, 4 / width});
  painter.setPen(dashes);
  draw();
  painter.restore();
}

}  // namespace

void drawStitches(QPainter& painter, const QRectF& rect, const QColor& thread, const QColor& gap, qreal width) {
  inTwoTones(painter, thread, gap, width, [&] { painter.drawRect(rect); });
}

void drawStitchLine(QPainter& painter, const QLineF& line, const QColor& thread, const QColor& gap, qreal width) {
  inTwoTones(painter, thread, gap, width, [&] { painter.drawLine(line); });
}

}  // namespace uq
