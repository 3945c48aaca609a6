#include "app/look/Tag.h"

#include "app/look/Theme.h"

namespace uq {

void drawTag(QPainter& painter, const QRectF& place, const QString& text, const QColor& edge) {
  const Theme& theme = Theme::current();
  const QRectF inner = place.adjusted(.5, .5, -.5, -.5);
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(theme.ink, 3));
  painter.setBrush(theme.paper);
  painter.drawRoundedRect(inner, kCorner, kCorner);
  painter.setPen(QPen(edge, 2));
  painter.drawRoundedRect(inner, kCorner, kCorner);
  painter.setPen(theme.ink);
  painter.drawText(place, Qt::AlignCenter, text);
  painter.restore();
}

}  // namespace uq
