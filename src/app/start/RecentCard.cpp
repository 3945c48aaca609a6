#include "app/start/RecentCard.h"

#include <QDir>
#include <QKeyEvent>
#include <QLocale>
#include <QPainter>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"

namespace uq {

namespace {

constexpr int kPictureHeight = 180;

QString shortened(const QString& folder) {
  const QString home = QDir::homePath();
  return folder.startsWith(home + QLatin1Char('/')) ? QLatin1Char('~') + folder.mid(home.size()) : folder;
}

}  // namespace

RecentCard::RecentCard(RecentQuilt quilt, QWidget* parent)
    : QAbstractButton(parent), quilt_(std::move(quilt)), picture_(quilt_.picture) {
  setFixedSize(sizeHint());
  setFocusPolicy(Qt::StrongFocus);
  setAttribute(Qt::WA_Hover);
  setAccessibleName(tr("Open %1, in %2").arg(quilt_.name, shortened(quilt_.folder)));
  setToolTip(tr("Open %1\n%2\nDel takes it off this list").arg(quilt_.name, quilt_.folder));
}

void RecentCard::paintEvent(QPaintEvent*) {
  const Theme& theme = Theme::current();
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const bool meant = underMouse() || hasFocus();
  const QRectF card = QRectF(rect()).adjusted(1, 1, -1, -1);
  painter.setPen(QPen(meant ? theme.woad : theme.edge, meant ? 2 : 1));
  painter.setBrush(theme.paper);
  painter.drawRoundedRect(card, kCorner, kCorner);
  const QRectF frame(kGap, kGap, width() - 2 * kGap, kPictureHeight);
  painter.fillRect(frame, theme.surround);
  if (!picture_.isNull()) {
    // Fills the frame, cut at its sides.
    const QSizeF fitted = QSizeF(picture_.size()).scaled(frame.size(), Qt::KeepAspectRatioByExpanding);
    const double scale = picture_.width() / fitted.width();
    const QSizeF part = frame.size() * scale;
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(
        frame, picture_,
        QRectF(QPointF((picture_.width() - part.width()) / 2, (picture_.height() - part.height()) / 2), part));
  }
  drawStitches(painter, frame, theme.ink, theme.paper, 1);
  const int width = this->width() - 2 * kGap;
  const auto line = [&](int top, const QString& text, Qt::TextElideMode cut) {
    painter.drawText(QRect(kGap, top, width, 20), Qt::AlignLeft | Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(text, cut, width));
  };
  QFont bold = font();
  bold.setBold(true);
  painter.setFont(bold);
  painter.setPen(theme.ink);
  line(kPictureHeight + 12, quilt_.name, Qt::ElideRight);
  painter.setFont(font());
  painter.setPen(theme.softInk);
  line(kPictureHeight + 30, shortened(quilt_.folder), Qt::ElideMiddle);
  line(kPictureHeight + 48, QLocale().toString(quilt_.when.date(), QLocale::LongFormat), Qt::ElideRight);
}

void RecentCard::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Delete) {
    Q_EMIT forgetWanted(quilt_.folder);
  } else if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
    click();
  } else {
    QAbstractButton::keyPressEvent(event);
  }
}

}  // namespace uq
