// CameraFrame: what the player's screen shows, as a frame on the canvas with a tab that says where it stands.
//
// A look at a scene through a view, made anew for each question. Cost: constant. Threads: the interface's.
#pragma once

#include <QPainter>
#include <optional>

#include "app/canvas/Scene.h"

namespace uq {

class CameraFrame {
 public:
  CameraFrame(const Scene& scene, const MapView& view) : scene_(scene), view_(view) {}

  // On the widget, while it is shown; nothing else.
  std::optional<QRectF> rect() const;
  // Whether a point is where it can be taken hold of: its edge, and its tab.
  bool isAt(QPointF point) const;
  void paint(QPainter& painter) const;

 private:
  QString text() const;
  QRectF tab(const QRectF& frame) const;

  const Scene& scene_;
  const MapView& view_;
};

}  // namespace uq
