// HandPreview: the picture of what is in hand, and what can be done to it there.
//
// As it is, the block as it will lie; a tile dropped on it takes that place, so blocks are put together here, and its
// edges can be dragged to add columns and rows like the outermost one, or to drop some. As a stretch, with four marks
// that say which columns and rows are its ends: they can be dragged. As a mix, its members side by side with their
// weights, which the wheel changes; a right click keeps one off the rim.
#pragma once

#include <QWidget>

#include "app/table/HandPicture.h"
#include "app/workroom/Session.h"

namespace uq {

class HandPreview : public QWidget {
  Q_OBJECT

 public:
  explicit HandPreview(QWidget* parent = nullptr);

  void setSession(Session* session);

  // A tile let go at a point of the screen; false where that is not over this picture.
  bool drop(TileRef tile, QPoint globalAt);
  // Where a place of the block, a mark or a member of a mix lies.
  QRectF placeRect(SidePos at) const;
  QLineF markLine(int mark) const;  // 0 left, 1 right, 2 top, 3 bottom end
  QLineF edgeLine(int edge) const;  // likewise of the block: 0 left, 1 right, 2 top, 3 bottom
  QRectF memberRect(std::size_t index) const;

 Q_SIGNALS:
  void carriedTo(QPoint globalAt);  // what is in hand was dragged out of its picture

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  bool event(QEvent* event) override;

 private:
  std::optional<HandPicture> drawn() const;
  void paintBlock(QPainter& painter) const;
  void setWeight(std::size_t index, int weight);
  QString shareText(std::size_t index) const;
  void paintMembers(QPainter& painter) const;
  void paintMarks(QPainter& painter) const;
  std::optional<std::size_t> memberAt(QPointF at) const;
  std::optional<int> markAt(QPointF at) const;
  bool isMix() const;
  bool isStretch() const;

  Session* session_ = nullptr;
  std::optional<int> nearestLine(QPointF at, QLineF (HandPreview::*line)(int) const) const;
  std::optional<int> edgeAt(QPointF at) const;
  void moveMark(QPointF at);
  void moveEdge(QPointF at);

  std::optional<int> mark_;  // that is dragged
  // The edge that is dragged, from where, with what in hand, and the way from one column or row to the next.
  struct EdgeDrag {
    int edge = 0;
    QPointF from;
    InHand hand;
    QPointF step;
  };
  std::optional<EdgeDrag> edge_;
  bool carries_ = false;
};

}  // namespace uq
