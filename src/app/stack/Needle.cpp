#include "app/stack/Needle.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QPainter>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"

namespace uq {

Needle::Needle(QWidget* parent) : QAbstractButton(parent) {
  setFocusPolicy(Qt::TabFocus);
  setFixedHeight(sizeHint().height());
  setAttribute(Qt::WA_Hover);
}

void Needle::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  const bool meant = underMouse() || hasFocus();
  const QPointF middle(width() / 2.0, height() / 2.0);
  if (meant) drawStitchLine(painter, QLineF(6, middle.y(), width() - 6, middle.y()), theme.woad, theme.panel);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(meant ? theme.woad : theme.edge, 1));
  painter.setBrush(meant ? theme.woad : theme.panel);
  painter.drawEllipse(middle, 6, 6);
  painter.setPen(QPen(meant ? theme.paper : theme.softInk, 1.4));
  painter.drawLine(middle - QPointF(3, 0), middle + QPointF(3, 0));
  painter.drawLine(middle - QPointF(0, 3), middle + QPointF(0, 3));
}

void Needle::contextMenuEvent(QContextMenuEvent* event) { Q_EMIT otherKindsWanted(event->globalPos()); }

void Needle::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
    click();
  } else {
    QAbstractButton::keyPressEvent(event);
  }
}

}  // namespace uq
