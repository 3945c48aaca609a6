#include "app/look/Stitches.h"

#include "app/look/Theme.h"

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

void drawStitchLines(QPainter& painter, const QVector<QLineF>& lines, const QColor& thread, const QColor& gap,
                     qreal width) {
  inTwoTones(painter, thread, gap, width, [&] { painter.drawLines(lines); });
}

void drawStitches(QPainter& painter, const QPolygonF& corners, const QColor& thread, const QColor& gap, qreal width) {
  inTwoTones(painter, thread, gap, width, [&] { painter.drawPolygon(corners); });
}

void drawThread(QPainter& painter, const QRectF& rect, const Thread& thread) {
  const Theme& theme = Theme::current();
  // Always dark: threads have the same colours in every theme.
  const QColor ink = Theme::linen().ink;
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.fillRect(rect, theme.thread(thread));
  painter.fillRect(QRectF(rect.right(), rect.top(), 1, rect.height()), theme.ink);
  painter.setClipRect(rect);
  painter.setPen(QPen(ink, 1.3, Qt::SolidLine, Qt::FlatCap));
  painter.setBrush(ink);
  constexpr qreal kPitch = 8;
  const qreal middle = rect.center().x();
  const qreal half = rect.width() / 2;
  for (qreal y = rect.top() + kPitch / 2; y < rect.bottom(); y += kPitch) {
    switch (thread.pattern) {
      case Thread::Pattern::running: painter.drawLine(QPointF(middle, y - 2.5), QPointF(middle, y + 2.5)); break;
      case Thread::Pattern::doubled:
        for (const qreal x : {middle - half / 2, middle + half / 2}) {
          painter.drawLine(QPointF(x, y - 2.5), QPointF(x, y + 2.5));
        }
        break;
      case Thread::Pattern::cross:
        painter.drawLine(QPointF(middle - 2.5, y - 2.5), QPointF(middle + 2.5, y + 2.5));
        painter.drawLine(QPointF(middle + 2.5, y - 2.5), QPointF(middle - 2.5, y + 2.5));
        break;
      case Thread::Pattern::dotted:
        painter.setPen(Qt::NoPen);
        painter.drawEllipse(QPointF(middle, y), 1.4, 1.4);
        break;
    }
  }
  painter.restore();
}

void drawStitchLine(QPainter& painter, const QLineF& line, const QColor& thread, const QColor& gap, qreal width) {
  inTwoTones(painter, thread, gap, width, [&] { painter.drawLine(line); });
}

}  // namespace uq
