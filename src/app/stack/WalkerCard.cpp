#include "app/stack/WalkerCard.h"

#include <QApplication>
#include <QKeyEvent>
#include <QPainter>
#include <utility>

#include "app/look/Icons.h"
#include "app/look/Theme.h"

namespace uq {

namespace {
constexpr int kHeight = 22;  // logical pixels
constexpr int kIcon = 18;
}  // namespace

WalkerCard::WalkerCard(QWidget* parent) : QFrame(parent) {
  setObjectName(QStringLiteral("walker-card"));
  setFixedHeight(kHeight);
  setFocusPolicy(Qt::TabFocus);
}

void WalkerCard::present(const QString& behind, const QString& front, bool colours) {
  colours_ = colours;
  const QString where = front.isEmpty()    ? tr("Drawn in front of all layers.")
                        : behind.isEmpty() ? tr("Drawn behind all layers.")
                                           : tr("Drawn in front of %1 and behind %2.").arg(behind, front);
  setToolTip(
      tr("The Walker, the figure that the player moves. %1\nDrag it between the cards; a press colours what is in "
         "front of it and what is behind.")
          .arg(where));
  setAccessibleName(tr("Walker. %1").arg(where));
  update();
}

void WalkerCard::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const Theme& theme = Theme::current();
  const QRectF card = QRectF(rect()).adjusted(1, 1, -1, -1);
  painter.setPen(QPen(colours_ ? theme.madder : hasFocus() ? theme.woad : theme.edge, colours_ ? 2 : 1));
  painter.setBrush(theme.paper);
  painter.drawRoundedRect(card, card.height() / 2, card.height() / 2);
  icon(QStringLiteral("walker"), theme.ink).paint(&painter, QRect(14, (height() - kIcon) / 2, kIcon, kIcon));
  painter.setPen(theme.ink);
  QRectF text = card.adjusted(36, 0, -10, 0);
  painter.drawText(text, Qt::AlignLeft | Qt::AlignVCenter, tr("Walker"));
  painter.setPen(theme.softInk);
  QFont font = painter.font();
  font.setPointSizeF(font.pointSizeF() * 0.88);
  painter.setFont(font);
  painter.drawText(text, Qt::AlignRight | Qt::AlignVCenter, tr("\u2191 front  \u2193 behind"));
}

void WalkerCard::mousePressEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) pressedAt_ = event->pos();
}

void WalkerCard::mouseMoveEvent(QMouseEvent* event) {
  if (!(event->buttons() & Qt::LeftButton)) return;
  if (!drags_ && (event->pos() - pressedAt_).manhattanLength() < QApplication::startDragDistance()) return;
  drags_ = true;
  Q_EMIT dragged(mapToParent(event->pos()));
}

void WalkerCard::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  if (std::exchange(drags_, false)) {
    Q_EMIT dropped(mapToParent(event->pos()));
  } else {
    Q_EMIT pressed();
  }
}

void WalkerCard::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space) {
    Q_EMIT pressed();
  } else if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
    Q_EMIT moved(event->key() == Qt::Key_Up ? 1 : -1);
  } else {
    QFrame::keyPressEvent(event);
  }
}

}  // namespace uq
