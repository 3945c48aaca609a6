#include "app/board/BoardSheet.h"

#include <cmath>

namespace uq {

namespace {

constexpr int kMostParts = 24;  // painted one by one; more of them as one

}  // namespace

void BoardSheet::invalidate(const MapView& view, const QRectF& part) {
  const QRectF device(part.topLeft() * view.ratio, part.size() * view.ratio);
  missing_ += device.toAlignedRect().adjusted(-1, -1, 1, 1).translated(view.origin);
}

void BoardSheet::paint(QPainter& on, const MapView& view, const Draw& draw) {
  const QSize size = view.deviceSize();
  if (picture_.size() != size || view_.zoom != view.zoom || view_.ratio != view.ratio) all_ = true;
  if (picture_.size() != size) picture_ = QPixmap(size);
  const QPoint by = view_.origin - view.origin;
  if (!all_ && !by.isNull()) {
    QRegion exposed;
    picture_.scroll(by.x(), by.y(), picture_.rect(), &exposed);
    missing_ += exposed.translated(view.origin);
  }
  view_ = view;
  missing_.translate(-view.origin);
  if (std::exchange(all_, false)) missing_ = picture_.rect();
  missing_ &= picture_.rect();
  if (missing_.rectCount() > kMostParts) missing_ = missing_.boundingRect();
  if (!missing_.isEmpty()) {
    QPainter painter(&picture_);
    painter.scale(view.ratio, view.ratio);
    painter.setFont(on.font());
    for (const QRect& device : missing_) {
      const QRectF part(QPointF(device.topLeft()) / view.ratio, QSizeF(device.size()) / view.ratio);
      painter.save();
      painter.setClipRect(part);
      draw(painter, part);
      painter.restore();
    }
    missing_ = QRegion();
  }
  picture_.setDevicePixelRatio(view.ratio);
  on.drawPixmap(0, 0, picture_);
  picture_.setDevicePixelRatio(1);
}

}  // namespace uq
