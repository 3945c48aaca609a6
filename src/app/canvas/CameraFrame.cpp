#include "app/canvas/CameraFrame.h"

#include <QCoreApplication>
#include <QGuiApplication>
#include <QPainterPath>
#include <algorithm>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "core/edit/MapFacts.h"

namespace uq {

namespace {

constexpr double kFrameReach = 6;  // logical pixels

}  // namespace

std::optional<QRectF> CameraFrame::rect() const {
  const auto camera = scene_.map() ? scene_.desk().camera() : std::nullopt;
  if (!camera) return std::nullopt;
  const PixelSize screen = screenOf(scene_.quilt(), *scene_.map());
  return view_.rectOf({camera->x, camera->y, screen.w, screen.h});
}

QString CameraFrame::text() const {
  const PixelSize screen = screenOf(scene_.quilt(), *scene_.map());
  const PixelPos at = *scene_.desk().camera();
  return QCoreApplication::translate("uq::CameraFrame", "Screen %1 × %2 at %3, %4")
      .arg(screen.w)
      .arg(screen.h)
      .arg(at.x)
      .arg(at.y);
}

QRectF CameraFrame::tab(const QRectF& frame) const {
  const QFontMetrics metrics(QGuiApplication::font());
  const QSizeF size(metrics.horizontalAdvance(text()) + 2 * kGap, metrics.height() + 6);
  QRectF tab(frame.topLeft() - QPointF(0, size.height()), size);
  if (tab.top() < 2) tab.moveTop(std::max(2.0, frame.top() + 4));
  return tab;
}

bool CameraFrame::isAt(QPointF point) const {
  const auto frame = rect();
  if (!frame) return false;
  const bool near = frame->adjusted(-kFrameReach, -kFrameReach, kFrameReach, kFrameReach).contains(point);
  const bool inside = frame->adjusted(kFrameReach, kFrameReach, -kFrameReach, -kFrameReach).contains(point);
  return tab(*frame).contains(point) || (near && !inside);
}

void CameraFrame::paint(QPainter& painter) const {
  const auto frame = rect();
  if (!frame) return;
  const Theme& theme = Theme::current();
  QPainterPath beyond;
  beyond.addRect(QRectF(QPointF(), view_.size));
  beyond.addRect(*frame);
  QColor shade = theme.surround;
  shade.setAlpha(150);
  painter.fillPath(beyond, shade);
  drawStitches(painter, frame->adjusted(-1.5, -1.5, 1.5, 1.5), theme.madder, theme.paper);
  const QRectF place = tab(*frame);
  painter.fillRect(place, theme.madder);
  painter.setPen(theme.paper);
  painter.drawText(place, Qt::AlignCenter, text());
}

}  // namespace uq
