#include "app/table/FoundTiles.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <algorithm>

#include "app/look/Theme.h"

namespace uq {

namespace {
constexpr int kTile = 40;  // logical pixels
constexpr int kNote = 14;  // under a tile
constexpr int kStep = kTile + kGap;
}  // namespace

FoundTiles::FoundTiles(Actions* actions, QWidget* parent) : QWidget(parent), actions_(actions) {
  setObjectName(QStringLiteral("found-tiles"));
  setAccessibleName(tr("The tiles that were found"));
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
}

void FoundTiles::show(std::vector<Found> found, const QString& none) {
  found_ = std::move(found);
  none_ = none;
  if (pointed_ && *pointed_ >= found_.size()) pointed_.reset();
  scrollTo(scroll_);
  update();
}

int FoundTiles::columns() const { return std::max(1, (width() - kGap) / kStep); }

QRectF FoundTiles::rectOf(std::size_t index) const {
  const auto wide = static_cast<std::size_t>(columns());
  const bool noted = !found_.empty() && !found_.front().note.isEmpty();
  return {kGap + static_cast<double>(index % wide) * kStep,
          kGap + static_cast<double>(index / wide) * (kStep + (noted ? kNote : 0)) - scroll_, kTile, kTile};
}

std::optional<std::size_t> FoundTiles::indexAt(QPointF at) const {
  for (std::size_t i = 0; i < found_.size(); ++i) {
    if (rectOf(i).adjusted(-kGap / 2.0, -kGap / 2.0, kGap / 2.0, kGap / 2.0).contains(at)) return i;
  }
  return std::nullopt;
}

void FoundTiles::scrollTo(double scroll) {
  const double bottom = found_.empty() ? 0 : rectOf(found_.size() - 1).bottom() + scroll_ + kGap + kNote;
  scroll_ = std::clamp(scroll, 0.0, std::max(0.0, bottom - height()));
  update();
}

void FoundTiles::point(std::optional<std::size_t> index) {
  if (index == pointed_) return;
  pointed_ = index;
  QString text;
  if (pointed_ && session_) {
    const TileRef tile = found_[*pointed_].tile;
    const Sheet* sheet = session_->quilt().sheetAt(tile.slot);
    if (sheet) {
      text = tr("%1 — %2 %3")
                 .arg(QString::fromStdString(sheet->tileName(tile.number)), QString::fromStdString(sheet->name))
                 .arg(tile.number);
    }
  }
  Q_EMIT pointedAt(text);
  Q_EMIT lights(pointed_ ? std::optional(found_[*pointed_].tile) : std::nullopt);
  update();
}

void FoundTiles::take(std::size_t index) {
  if (session_ && index < found_.size()) session_->take(Block::of(Cell(found_[index].tile, {})));
}

void FoundTiles::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  painter.fillRect(rect(), theme.cloth);
  if (found_.empty() || !session_) {
    painter.setPen(theme.softInk);
    painter.drawText(rect().adjusted(16, 16, -16, -16), Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap, none_);
    return;
  }
  QFont small = font();
  small.setPointSizeF(small.pointSizeF() * 0.85);
  painter.setFont(small);
  for (std::size_t i = 0; i < found_.size(); ++i) {
    const QRectF box = rectOf(i);
    if (box.top() > height()) break;
    if (box.bottom() + kNote < 0) continue;
    painter.fillRect(box, theme.surround.lighter(150));
    const TileRef tile = found_[i].tile;
    if (tile.slot == kChalkSlot) {
      painter.fillRect(box.adjusted(4, 4, -4, -4), QColor::fromRgb(chalkColour(tile.number) | 0xff000000u));
    } else if (const auto picture = session_->painter().pictures().tile(session_->quilt(), tile)) {
      const QSizeF size = QSizeF(picture->size()).scaled(box.size(), Qt::KeepAspectRatio);
      painter.setRenderHint(QPainter::SmoothPixmapTransform, size.width() < picture->width());
      painter.drawImage(QRectF(box.center() - QPointF(size.width() / 2, size.height() / 2), size), *picture);
    }
    painter.setPen(theme.softInk);
    painter.drawText(QRectF(box.left() - kGap / 2.0, box.bottom(), kStep, kNote + 2), Qt::AlignHCenter | Qt::AlignTop,
                     found_[i].note);
    if (pointed_ == i) {
      painter.setPen(QPen(theme.ink, 1));
      painter.drawRect(box.adjusted(-1.5, -1.5, 1.5, 1.5));
      painter.setPen(QPen(theme.paper, 2));
      painter.drawRect(box);
    }
  }
  if (hasFocus()) {
    painter.setPen(QPen(theme.woad, 2));
    painter.drawRect(rect().adjusted(1, 1, -1, -1));
  }
}

void FoundTiles::mouseMoveEvent(QMouseEvent* event) { point(indexAt(event->position())); }

void FoundTiles::mousePressEvent(QMouseEvent* event) {
  const auto index = indexAt(event->position());
  if (!index) return;
  if (event->button() == Qt::LeftButton) take(*index);
  if (event->button() == Qt::RightButton) Q_EMIT nextPlaceWanted(found_[*index].tile);
}

void FoundTiles::wheelEvent(QWheelEvent* event) {
  scrollTo(scroll_ - event->angleDelta().y() / 2.0);
  point(indexAt(event->position()));
  event->accept();
}

void FoundTiles::keyPressEvent(QKeyEvent* event) {
  const auto move = [this](int by) {
    if (found_.empty()) return;
    const int now = pointed_ ? static_cast<int>(*pointed_) + by : 0;
    if (now < 0) return Q_EMIT leaves();
    point(static_cast<std::size_t>(std::min(now, static_cast<int>(found_.size()) - 1)));
    const QRectF box = rectOf(*pointed_);
    if (box.bottom() + kNote > height()) scrollTo(scroll_ + box.bottom() + kNote + kGap - height());
    if (box.top() < 0) scrollTo(scroll_ + box.top() - kGap);
  };
  switch (event->key()) {
    case Qt::Key_Left: move(-1); break;
    case Qt::Key_Right: move(1); break;
    case Qt::Key_Up: move(-columns()); break;
    case Qt::Key_Down: move(columns()); break;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      if (!found_.empty()) take(pointed_.value_or(0));
      break;
    default:
      if (!actions_->handleKey(*event)) QWidget::keyPressEvent(event);
  }
}

void FoundTiles::leaveEvent(QEvent*) { point(std::nullopt); }

void FoundTiles::resizeEvent(QResizeEvent*) { scrollTo(scroll_); }

}  // namespace uq
