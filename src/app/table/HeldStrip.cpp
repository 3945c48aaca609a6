#include "app/table/HeldStrip.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>

#include "app/look/Theme.h"

namespace uq {

namespace {
constexpr double kHeldPlace = 28;  // logical pixels
}

HeldStrip::HeldStrip(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("held-strip"));
  setAccessibleName(tr("What was in hand last"));
  setFixedHeight(static_cast<int>(kHeldPlace) + 2);
}

void HeldStrip::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  if (session_) {
    connect(session_, &Session::deskChanged, this, [this](const DeskChange& change) {
      if (change.hand || change.map) update();
    });
    connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
      if (change.any<Sheet>() || !change.arranged.empty()) update();
    });
  }
  update();
}

// As many as there is room for, closer together where that shows all of them.
QRectF HeldStrip::rectOf(std::size_t index) const {
  const double step = std::max(16.0, std::min(kHeldPlace + 2, (width() - kHeldPlace) / (kMostHeld - 1.0)));
  const double side = std::min(kHeldPlace, step - 1);
  return {static_cast<double>(index) * step, (height() - side) / 2, side, side};
}

std::optional<std::size_t> HeldStrip::indexAt(QPointF at) const {
  for (std::size_t i = 0; session_ && i < session_->desk().held.size(); ++i) {
    if (rectOf(i).contains(at)) return i;
  }
  return std::nullopt;
}

QString HeldStrip::textOf(const InHand& hand) const {
  if (const Stamp* stamp = session_->quilt().stamp(hand.stamp)) return QString::fromStdString(stamp->name);
  const Block& block = hand.block.empty() ? hand.others.front().block : hand.block;
  const TileRef tile = block.parts().front().cell.tile();
  const Sheet* sheet = session_->quilt().sheetAt(tile.slot);
  const QString name = sheet ? QString::fromStdString(sheet->tileName(tile.number)) : QString();
  return block.parts().size() == 1
             ? name
             : tr("%1 and %n more", nullptr, static_cast<int>(block.parts().size()) - 1).arg(name);
}

void HeldStrip::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  for (std::size_t i = 0; i < kMostHeld; ++i) {
    const QRectF box = rectOf(i);
    if (box.right() > width()) break;
    painter.fillRect(box, theme.paper);
    painter.setPen(theme.edge);
    painter.drawRect(box.adjusted(.5, .5, -.5, -.5));
    if (!session_ || i >= session_->desk().held.size()) continue;
    const InHand& hand = session_->desk().held[i];
    const Block& block = hand.block.empty() ? hand.others.front().block : hand.block;
    // The grip's tile stands for a block, with an edge that says there is more.
    const Cell cell = block.parts()[block.parts().size() / 2].cell;
    const QRectF inside = box.adjusted(2, 2, -2, -2);
    if (cell.tile().slot == kChalkSlot) {
      painter.fillRect(inside, QColor::fromRgb(chalkColour(cell.tile().number) | 0xff000000u));
    } else if (const auto picture = session_->painter().pictures().turned(session_->quilt(), Cell(cell.tile(), {}))) {
      const QSizeF size = QSizeF(picture->size()).scaled(inside.size(), Qt::KeepAspectRatio);
      painter.setRenderHint(QPainter::SmoothPixmapTransform);
      painter.drawImage(QRectF(inside.center() - QPointF(size.width() / 2, size.height() / 2), size), *picture);
    }
    if (!hand.isOneTile()) {
      painter.setPen(QPen(theme.madder, 2));
      painter.drawLine(box.bottomLeft() + QPointF(1, -1), box.bottomRight() + QPointF(-1, -1));
    }
  }
}

void HeldStrip::mousePressEvent(QMouseEvent* event) {
  const auto index = indexAt(event->position());
  if (event->button() != Qt::LeftButton || !index) return;
  const InHand held = session_->desk().held[*index];
  session_->verbs().hand.take(held);
}

bool HeldStrip::event(QEvent* event) {
  if (event->type() == QEvent::ToolTip) {
    const auto* help = static_cast<QHelpEvent*>(event);
    const auto index = indexAt(help->pos());
    QToolTip::showText(
        help->globalPos(),
        index ? textOf(session_->desk().held[*index]) : tr("What was in hand last; X takes the one before"), this);
    return true;
  }
  return QWidget::event(event);
}

}  // namespace uq
