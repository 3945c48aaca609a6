// Overview: the whole map, small, with the part in sight in stitches. A press or a drag shows that part.
#pragma once

#include <QTimer>
#include <QWidget>

#include "app/canvas/MapCanvas.h"
#include "app/workroom/Session.h"

namespace uq {

class Overview : public QWidget {
  Q_OBJECT

 public:
  explicit Overview(MapCanvas* canvas, QWidget* parent = nullptr);

  void setSession(Session* session);
  // Where a map pixel lies on the widget.
  QPointF placeOf(QPointF pixel) const;

  QSize sizeHint() const override { return {240, 128}; }

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void follow();
  void redraw();
  void look(QPointF at);
  QRectF pictureRect() const;

  MapCanvas* canvas_;
  Session* session_ = nullptr;
  QImage picture_;
  PixelRect covers_;  // map pixels that the picture shows
  bool drawnFromAbove_ = false;
  Revision drawn_;  // of the map that the picture shows
  Id drawnMap_;
  std::set<Id> drawnHidden_;
  QTimer timer_;  // so that a stroke never waits for the picture
};

}  // namespace uq
