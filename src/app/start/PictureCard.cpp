#include "app/start/PictureCard.h"

#include <QPainter>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"

namespace uq {

namespace {
constexpr int kLine = 18;  // logical pixels from one line of words to the next
}  // namespace

PictureCard::PictureCard(const QString& name, const QStringList& lines, QSize picture, QWidget* parent)
    : QAbstractButton(parent), name_(name), lines_(lines), frame_(picture) {
  setFixedSize(sizeHint());
  setFocusPolicy(Qt::StrongFocus);
  setAttribute(Qt::WA_Hover);
  setAccessibleName(name);
}

QSize PictureCard::sizeHint() const {
  const int lines = 1 + static_cast<int>(lines_.size());
  return {frame_.width() + 2 * kGap, frame_.height() + kGap + 10 + lines * kLine};
}

void PictureCard::setPicture(const QImage& picture) {
  picture_ = picture;
  update();
}

void PictureCard::paintEvent(QPaintEvent*) {
  const Theme& theme = Theme::current();
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const bool meant = underMouse() || hasFocus();
  painter.setPen(QPen(meant ? theme.woad : theme.edge, meant ? 2 : 1));
  painter.setBrush(theme.paper);
  painter.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), kCorner, kCorner);
  const QRectF frame(QPointF(kGap, kGap), QSizeF(frame_));
  painter.fillRect(frame, theme.surround);
  if (!picture_.isNull()) {
    const QSizeF fitted = QSizeF(picture_.size()).scaled(frame.size(), Qt::KeepAspectRatioByExpanding);
    const double scale = picture_.width() / fitted.width();
    const QSizeF part = frame.size() * scale;
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(
        frame, picture_,
        QRectF(QPointF((picture_.width() - part.width()) / 2, (picture_.height() - part.height()) / 2), part));
  }
  drawStitches(painter, frame, theme.ink, theme.paper, 1);
  int top = kGap + frame_.height() + 4;
  const auto line = [&](const QString& text, Qt::TextElideMode cut) {
    painter.drawText(QRect(kGap, top, frame_.width(), 20), Qt::AlignLeft | Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(text, cut, frame_.width()));
    top += kLine;
  };
  QFont bold = font();
  bold.setBold(true);
  painter.setFont(bold);
  painter.setPen(theme.ink);
  line(name_, Qt::ElideRight);
  painter.setFont(font());
  painter.setPen(theme.softInk);
  for (const QString& text : lines_) line(text, text.contains(QLatin1Char('/')) ? Qt::ElideMiddle : Qt::ElideRight);
}

}  // namespace uq
