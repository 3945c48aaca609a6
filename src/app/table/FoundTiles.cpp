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
  if (session_ && index < found_.size()) session_->verbs().hand.take(Block::of(Cell(found_[index].tile, {})));
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
    if (carried_ && (*carried_ == i || pointed_ == i)) {
      painter.setPen(QPen(*carried_ == i ? theme.weld : theme.madder, 3));
      painter.drawRect(box);
    } else if (pointed_ == i) {
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

SwapIn FoundTiles::swapIn(Qt::KeyboardModifiers modifiers) const {
  if (modifiers & Qt::ShiftModifier) return SwapIn::allMaps;
  return session_->desk().selection().empty() ? SwapIn::map : SwapIn::selection;
}

// "12 cells of the selection become Sett": what letting go here would do.
QString FoundTiles::swapText(std::size_t onto, SwapIn in) const {
  const TileRef to = found_[onto].tile;
  const Sheet* sheet = session_->quilt().sheetAt(to.slot);
  const std::int64_t count = countSwap(session_->quilt(), session_->verbs().selection.swapAsk(found_[*carried_].tile, to, in));
  const QString where = in == SwapIn::selection ? tr("in the selection")
                        : in == SwapIn::allMaps ? tr("on all maps")
                                                : tr("on this map, with Shift on all");
  return tr("%n cell(s) %1 become %2", nullptr, static_cast<int>(count))
      .arg(where, sheet ? QString::fromStdString(sheet->tileName(to.number)) : tr("tile %1").arg(to.number));
}

void FoundTiles::mouseMoveEvent(QMouseEvent* event) {
  const auto index = indexAt(event->position());
  if (pressedOn_ && !carried_ && index && *index != *pressedOn_) carried_ = pressedOn_;
  point(index);
  if (!carried_) return;
  setCursor(Qt::DragMoveCursor);
  const bool can = index && *index != *carried_;
  Q_EMIT pointedAt(can ? swapText(*index, swapIn(event->modifiers())) : tr("Drop it on the tile that it is to become"));
}

void FoundTiles::mousePressEvent(QMouseEvent* event) {
  const auto index = indexAt(event->position());
  if (!index) return;
  if (event->button() == Qt::LeftButton) pressedOn_ = index;
  if (event->button() == Qt::RightButton) Q_EMIT nextPlaceWanted(found_[*index].tile);
}

void FoundTiles::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  const auto pressed = std::exchange(pressedOn_, std::nullopt);
  const auto carried = std::exchange(carried_, std::nullopt);
  unsetCursor();
  const auto index = indexAt(event->position());
  if (carried && index && *index != *carried) {
    session_->verbs().selection.swap(found_[*carried].tile, found_[*index].tile, swapIn(event->modifiers()));
  } else if (pressed && index == pressed && !carried) {
    if (event->modifiers() & Qt::ShiftModifier) {
      session_->verbs().hand.gather(Block::of(Cell(found_[*index].tile, {})));
    } else {
      take(*index);
    }
  }
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
