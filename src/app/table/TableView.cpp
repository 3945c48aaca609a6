#include "app/table/TableView.h"

#include <QKeyEvent>
#include <QPainter>
#include <algorithm>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"

namespace uq {

namespace {

constexpr double kSmallest = 0.1;
constexpr double kLargest = 8;
constexpr int kHeading = 22;  // logical pixels over each sheet

}  // namespace

TableView::TableView(Actions* actions, QWidget* parent) : QWidget(parent), actions_(actions) {
  setObjectName(QStringLiteral("table"));
  setAccessibleName(tr("Table with the quilt's tile sheets"));
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(200, 160);
}

void TableView::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  pointed_.reset();
  dragging_.reset();
  chosen_.reset();
  if (session_) {
    connect(session_, &Session::quiltChanged, this, &TableView::followSheets);
    connect(session_, &Session::deskChanged, this, qOverload<>(&TableView::update));
  }
  followSheets();
  fitWidth();
}

void TableView::followSheets() {
  order_.clear();
  if (session_) {
    const std::vector<Shared<Sheet>>& sheets = session_->quilt().sheets();
    for (std::size_t i = 0; i < sheets.size(); ++i) order_.push_back(i);
    const auto came = [&](std::size_t i) { return std::pair(sheets[i]->code.size(), sheets[i]->code); };
    std::stable_sort(order_.begin(), order_.end(), [&](std::size_t a, std::size_t b) { return came(a) < came(b); });
  }
  update();
}

QRectF TableView::sheetRect(std::size_t index) const {
  double top = 0;
  for (std::size_t i = 0;; ++i) {
    top += (kHeading + kGap / 2) / zoom_;
    const PixelSize size = sheet(i).pictureSize;
    if (i == index) return {kGap / zoom_, top, static_cast<double>(size.w), static_cast<double>(size.h)};
    top += size.h + kGap / zoom_;
  }
}

QRectF TableView::spotRect(std::size_t index, CellRect area) const {
  const SheetCut& cut = sheet(index).cut;
  const double stepX = cut.cell.w + cut.gap;
  const double stepY = cut.cell.h + cut.gap;
  const QPointF corner =
      sheetRect(index).topLeft() + QPointF(cut.border + area.x0 * stepX, cut.border + area.y0 * stepY);
  return {corner, QSizeF(area.width() * stepX - cut.gap, area.height() * stepY - cut.gap)};
}

QSizeF TableView::contents() const {
  if (sheetCount() == 0) return {};
  double width = 0;
  for (std::size_t i = 0; i < sheetCount(); ++i) width = std::max<double>(width, sheet(i).pictureSize.w);
  const QRectF last = sheetRect(sheetCount() - 1);
  return {(width + 2 * kGap / zoom_) * zoom_, (last.bottom() + kGap / zoom_) * zoom_};
}

QRectF TableView::toWidget(const QRectF& table) const {
  return {table.topLeft() * zoom_ - scroll_, table.size() * zoom_};
}

QRectF TableView::tileRect(const std::string& name, std::uint32_t number) const {
  for (std::size_t i = 0; i < sheetCount(); ++i) {
    const auto place = sheet(i).name == name ? sheet(i).place(number) : std::nullopt;
    if (place) return toWidget(QRectF(place->x, place->y, place->w, place->h).translated(sheetRect(i).topLeft()));
  }
  return {};
}

void TableView::reveal(const std::string& name, std::uint32_t number) {
  const QRectF tile = tileRect(name, number);
  if (tile.isEmpty()) return;
  if (tile.bottom() > height()) scroll_.ry() += tile.bottom() - height() + kGap;
  if (tile.top() < 0) scroll_.ry() += tile.top() - kHeading;
  if (tile.right() > width()) scroll_.rx() += tile.right() - width() + kGap;
  if (tile.left() < 0) scroll_.rx() += tile.left() - kGap;
  clampScroll();
  update();
}

std::optional<TableView::Spot> TableView::spotAt(QPointF at, std::optional<std::size_t> onSheet) const {
  const QPointF table = (at + scroll_) / zoom_;
  for (std::size_t i = 0; i < sheetCount(); ++i) {
    if (onSheet && *onSheet != i) continue;
    const SheetCut& cut = sheet(i).cut;
    const QPointF inside = table - sheetRect(i).topLeft() - QPointF(cut.border, cut.border);
    int column = static_cast<int>(std::floor(inside.x() / (cut.cell.w + cut.gap)));
    int row = static_cast<int>(std::floor(inside.y() / (cut.cell.h + cut.gap)));
    if (onSheet) {  // a drag that leaves the sheet goes on along its edge
      column = std::clamp(column, 0, std::max(0, sheet(i).columns() - 1));
      row = std::clamp(row, 0, std::max(0, sheet(i).rows() - 1));
    }
    if (column >= 0 && row >= 0 && column < sheet(i).columns() && row < sheet(i).rows()) return Spot{i, column, row};
  }
  return std::nullopt;
}

void TableView::setZoom(double zoom, QPointF about) {
  if (sheetCount() == 0) return;
  // Headings keep their size, so the point is held on its sheet, not on the Table.
  const QPointF table = (about + scroll_) / zoom_;
  std::size_t on = 0;
  while (on + 1 < sheetCount() && sheetRect(on + 1).top() <= table.y()) ++on;
  const QPointF held = table - sheetRect(on).topLeft();
  zoom_ = std::clamp(zoom, kSmallest, kLargest);
  scroll_ = (sheetRect(on).topLeft() + held) * zoom_ - about;
  clampScroll();
  update();
}

void TableView::fitWidth() {
  if (sheetCount() == 0) return;
  int widest = 1;
  for (std::size_t i = 0; i < sheetCount(); ++i) widest = std::max(widest, sheet(i).pictureSize.w);
  zoom_ = std::clamp((width() - 2.0 * kGap) / widest, kSmallest, 2.0);
  scroll_ = {};
  fitted_ = true;
}

void TableView::clampScroll() {
  const QSizeF all = contents();
  scroll_.setX(std::clamp(scroll_.x(), 0.0, std::max(0.0, all.width() - width())));
  scroll_.setY(std::clamp(scroll_.y(), 0.0, std::max(0.0, all.height() - height())));
}

void TableView::point(std::optional<Spot> spot) {
  if (spot == pointed_) return;
  pointed_ = spot;
  QString text;
  if (pointed_) {
    const Sheet& on = sheet(pointed_->sheet);
    const int number = pointed_->row * on.columns() + pointed_->column;
    text = tr("%1 — %2 %3")
               .arg(QString::fromStdString(on.tileName(static_cast<std::uint32_t>(number))),
                    QString::fromStdString(on.name))
               .arg(number);
  }
  Q_EMIT pointedAt(text);
  update();
}

void TableView::takeChosen() {
  const Sheet& from = sheet(chosen_->from.sheet);
  if (from.tileCount() == 0) return;
  const auto slot = session_->quilt().slots().find(from.id);
  if (!slot) return;
  const CellRect area = chosen_->area();
  // Held by the cell nearest to the middle.
  const int gripX = area.x0 + (area.width() - 1) / 2;
  const int gripY = area.y0 + (area.height() - 1) / 2;
  // Rows and columns of a sheet are laid as rows and columns of the map, whatever its grid.
  const auto grid = makeGrid(session_->map() ? session_->map()->grid : GridShape());
  std::vector<Block::Part> parts;
  for (int row = area.y0; row < area.y1; ++row) {
    for (int column = area.x0; column < area.x1; ++column) {
      const auto number = static_cast<std::uint32_t>(row * from.columns() + column);
      parts.push_back({grid->toSide({column - gripX, row - gripY}), Cell({*slot, number}, {})});
    }
  }
  taken_ = Block(std::move(parts));
  session_->take(taken_);
}

void TableView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  painter.fillRect(rect(), theme.cloth);
  if (sheetCount() == 0) {
    painter.setPen(theme.softInk);
    painter.drawText(rect().adjusted(16, 16, -16, -16), Qt::AlignCenter | Qt::TextWordWrap,
                     tr("The tile sheets of a quilt lie here."));
    return;
  }
  if (sheetCount() == 1) {
    const QRectF below = rect().adjusted(16, static_cast<int>(toWidget(sheetRect(0)).bottom()) + 16, -16, -16);
    painter.setPen(theme.softInk);
    painter.drawText(below, Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap,
                     tr("This quilt has no tile sheet yet. Plan with Chalk meanwhile: what is painted stays."));
  }
  for (std::size_t i = 0; i < sheetCount(); ++i) {
    const QRectF place = toWidget(sheetRect(i));
    if (place.top() - kHeading > height() || place.bottom() < 0) continue;
    const Sheet& one = sheet(i);
    painter.setPen(theme.softInk);
    painter.drawText(
        QRectF(place.left(), place.top() - kHeading, std::max<double>(place.width(), width()), kHeading - 3),
        Qt::AlignLeft | Qt::AlignBottom,
        i == 0 ? tr("Chalk · fills any cell")
               : tr("%1 · %2 px · %3 tiles")
                     .arg(QString::fromStdString(one.name))
                     .arg(one.cut.cell.w == one.cut.cell.h
                              ? QString::number(one.cut.cell.w)
                              : QStringLiteral("%1 × %2").arg(one.cut.cell.w).arg(one.cut.cell.h))
                     .arg(one.tileCount()));
    painter.fillRect(place, theme.surround.lighter(150));
    const QImage picture = session_->painter().pictures().picture(one);
    if (picture.isNull()) {
      painter.fillRect(place, theme.paper);
      painter.fillRect(place, QBrush(theme.edge, Qt::BDiagPattern));
      painter.setPen(theme.weld);
      painter.drawText(place, Qt::AlignCenter | Qt::TextWordWrap,
                       tr("The picture %1 is missing").arg(QString::fromStdString(one.picture)));
    } else {
      painter.setRenderHint(QPainter::SmoothPixmapTransform, zoom_ * devicePixelRatioF() < 1);
      painter.drawImage(place, picture);
    }
    // The cut, as thin lines between tiles.
    QColor line = theme.paper;
    line.setAlpha(90);
    for (int column = 1; column < one.columns(); ++column) {
      painter.fillRect(QRectF(toWidget(spotRect(i, {column, 0, column + 1, 1})).left(), place.top(), 1, place.height()),
                       line);
    }
    for (int row = 1; row < one.rows(); ++row) {
      painter.fillRect(QRectF(place.left(), toWidget(spotRect(i, {0, row, 1, row + 1})).top(), place.width(), 1), line);
    }
  }
  const auto mark = [&](std::size_t index, CellRect area, const QColor& thread) {
    drawStitches(painter, toWidget(spotRect(index, area)), thread, theme.paper);
  };
  const bool stillHeld = chosen_ && session_->desk().inHand == taken_;
  if (stillHeld) mark(chosen_->from.sheet, chosen_->area(), theme.madder);
  if (dragging_) {
    mark(dragging_->from.sheet, dragging_->area(), theme.madder);
  } else if (pointed_) {
    const CellRect area{pointed_->column, pointed_->row, pointed_->column + 1, pointed_->row + 1};
    painter.setPen(QPen(theme.ink, 1));
    const QRectF box = toWidget(spotRect(pointed_->sheet, area));
    painter.drawRect(box.adjusted(-1.5, -1.5, 1.5, 1.5));
    painter.setPen(QPen(theme.paper, 2));
    painter.drawRect(box);
  }
  if (hasFocus()) {
    painter.setPen(QPen(theme.woad, 2));
    painter.drawRect(rect().adjusted(1, 1, -1, -1));
  }
}

void TableView::resizeEvent(QResizeEvent*) {
  if (!fitted_ || scroll_.isNull()) fitWidth();
  clampScroll();
}

void TableView::mousePressEvent(QMouseEvent* event) {
  if (event->button() == Qt::MiddleButton) pan_ = event->position();
  const auto spot = spotAt(event->position());
  if (event->button() == Qt::LeftButton && spot) dragging_ = Chosen{*spot, *spot};
  update();
}

void TableView::mouseMoveEvent(QMouseEvent* event) {
  if (pan_) {
    scroll_ += *pan_ - event->position();
    pan_ = event->position();
    clampScroll();
    update();
  } else if (dragging_) {
    dragging_->to = spotAt(event->position(), dragging_->from.sheet).value_or(dragging_->to);
    point(dragging_->to);
    update();
  } else {
    point(spotAt(event->position()));
  }
}

void TableView::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() == Qt::MiddleButton) pan_.reset();
  if (event->button() != Qt::LeftButton || !dragging_) return;
  const Chosen chosen = *std::exchange(dragging_, std::nullopt);
  const Sheet& on = sheet(chosen.from.sheet);
  const auto slot = session_->quilt().slots().find(on.id);
  const TileRef dragged{slot.value_or(0), static_cast<std::uint32_t>(chosen.from.row * on.columns() + chosen.from.column)};
  const bool left = !rect().contains(event->position().toPoint());
  if (!left || !slot || !dropTaker_ || !dropTaker_(dragged, event->globalPosition().toPoint())) {
    chosen_ = chosen;
    takeChosen();
  }
  update();
}

void TableView::wheelEvent(QWheelEvent* event) {
  const QPoint angle = event->angleDelta();
  if (event->modifiers() & Qt::ControlModifier) {
    setZoom(zoom_ * (angle.y() > 0 ? 1.25 : 0.8), event->position());
  } else {
    const bool sideways = event->modifiers() & Qt::ShiftModifier;
    scroll_ -= sideways && angle.x() == 0 ? QPointF(angle.y(), 0) / 2 : QPointF(angle) / 2;
    clampScroll();
    update();
  }
  event->accept();
}

void TableView::keyPressEvent(QKeyEvent* event) {
  const auto move = [&](int dx, int dy) {
    if (sheetCount() == 0) return;
    Spot spot = pointed_.value_or(Spot{});
    const bool extends = event->modifiers() & Qt::ShiftModifier;
    if (extends && !dragging_) dragging_ = Chosen{spot, spot};
    if (!extends) dragging_.reset();
    const Sheet& on = sheet(spot.sheet);
    if (pointed_) {
      spot.column = std::clamp(spot.column + dx, 0, std::max(0, on.columns() - 1));
      spot.row += dy;
    }
    // Over the last row the cursor goes on to the next sheet.
    if (spot.row >= on.rows() && !extends && spot.sheet + 1 < sheetCount()) {
      spot = {spot.sheet + 1, std::min(spot.column, sheet(spot.sheet + 1).columns() - 1), 0};
    } else if (spot.row < 0 && !extends && spot.sheet > 0) {
      const Sheet& above = sheet(spot.sheet - 1);
      spot = {spot.sheet - 1, std::min(spot.column, above.columns() - 1), above.rows() - 1};
    }
    spot.row = std::clamp(spot.row, 0, std::max(0, sheet(spot.sheet).rows() - 1));
    if (dragging_) dragging_->to = spot;
    point(spot);
    const Sheet& now = sheet(spot.sheet);
    reveal(now.name, static_cast<std::uint32_t>(spot.row * now.columns() + spot.column));
  };
  switch (event->key()) {
    case Qt::Key_Left: move(-1, 0); break;
    case Qt::Key_Right: move(1, 0); break;
    case Qt::Key_Up: move(0, -1); break;
    case Qt::Key_Down: move(0, 1); break;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      if (pointed_) {
        chosen_ = dragging_ ? *dragging_ : Chosen{*pointed_, *pointed_};
        dragging_.reset();
        takeChosen();
      }
      break;
    default:
      if (!actions_->handleKey(*event)) QWidget::keyPressEvent(event);
  }
  update();
}

void TableView::leaveEvent(QEvent*) {
  if (!dragging_) point(std::nullopt);
}

}  // namespace uq
