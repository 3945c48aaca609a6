#include "app/stack/Needle.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QPainter>
#include <cstdlib>
#include <utility>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"

namespace uq {

namespace {
constexpr double kMark = 3.5;  // logical pixels
constexpr int kReach = 12;     // to its left and right
}  // namespace

Needle::Needle(QWidget* parent) : QAbstractButton(parent) {
  setFocusPolicy(Qt::TabFocus);
  setFixedHeight(sizeHint().height());
  setAttribute(Qt::WA_Hover);
}

void Needle::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  const bool meant = pointedAt_ || hasFocus();
  const QPointF middle(width() / 2.0, height() / 2.0);
  if (meant) drawStitchLine(painter, QLineF(6, middle.y(), width() - 6, middle.y()), theme.woad, theme.panel);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(meant ? theme.woad : theme.edge, 1));
  painter.setBrush(meant ? theme.woad : theme.panel);
  painter.drawEllipse(middle, kMark, kMark);
  painter.setPen(QPen(meant ? theme.paper : theme.softInk, 1.2));
  painter.drawLine(middle - QPointF(2, 0), middle + QPointF(2, 0));
  painter.drawLine(middle - QPointF(0, 2), middle + QPointF(0, 2));
}

bool Needle::hitButton(const QPoint& at) const {
  return rect().contains(at) && std::abs(at.x() - width() / 2) <= kReach;
}

bool Needle::event(QEvent* event) {
  const bool moves = event->type() == QEvent::HoverMove || event->type() == QEvent::HoverEnter;
  const bool on = moves ? hitButton(static_cast<QHoverEvent*>(event)->position().toPoint())
                        : pointedAt_ && event->type() != QEvent::HoverLeave;
  if (std::exchange(pointedAt_, on) != on) update();
  return QAbstractButton::event(event);
}

void Needle::contextMenuEvent(QContextMenuEvent* event) {
  if (event->reason() == QContextMenuEvent::Keyboard || hitButton(event->pos())) {
    Q_EMIT otherKindsWanted(event->globalPos());
  }
}

void Needle::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
    click();
  } else {
    QAbstractButton::keyPressEvent(event);
  }
}

}  // namespace uq
