// BoardSheet: the cloth with all that lies on it, painted once and kept, so that a frame only copies.
//
// Moving the view shifts what is there and paints the strip that comes in; another zoom or size paints all anew. What
// changes is said, place by place. Cost: a copy of the widget's pixels a frame, and what is painted. Threads: the interface's.
#pragma once

#include <QPainter>
#include <QPixmap>
#include <QRegion>
#include <functional>

#include "app/canvas/MapView.h"

namespace uq {

class BoardSheet {
 public:
  // Paints a part of what a view shows, in logical pixels of the widget; clipped to it.
  using Draw = std::function<void(QPainter& painter, const QRectF& part)>;

  // Lays the sheet as the view shows it, after painting what is not there yet.
  void paint(QPainter& on, const MapView& view, const Draw& draw);

  // What lies there, in logical pixels of a view, looks different now.
  void invalidate(const MapView& view, const QRectF& part);
  void invalidateAll() { all_ = true; }

 private:
  QPixmap picture_;  // device pixels
  MapView view_;     // as it was painted
  QRegion missing_;  // absolute device pixels
  bool all_ = true;
};

}  // namespace uq
