// What of TableView is the hand: pointing, taking, dragging and keys.
#include "app/table/TableView.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QToolTip>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>
#include <cstdlib>

#include "app/workroom/SheetWork.h"

namespace uq {

namespace {

constexpr double kCarriedFrom = 4;  // logical pixels from which a press becomes a drag

}  // namespace

void TableView::point(std::optional<Spot> spot) {
  if (spot == pointed_) return;
  pointed_ = spot;
  Q_EMIT pointedAt(pointed_ ? textOf(*pointed_) : QString());
  update();
}

void TableView::takeChosen(bool byKeys, bool gathers) {
  const Sheet& from = *sheet(chosen_->from.sheet);
  const auto slot = session_->quilt().slots().find(from.id);
  const std::vector<Spot> spots = spotsOf(*chosen_);
  if (!slot || spots.empty()) return;
  const int wide = from.columns();
  const auto at = [wide](std::uint32_t cell) {
    return CellPos{static_cast<int>(cell) % wide, static_cast<int>(cell) / wide};
  };
  CellRect area = CellRect::around(at(chosen_->from.cell), at(chosen_->to.cell));
  // Held by the cell nearest to the middle.
  const int gripX = area.x0 + (area.width() - 1) / 2;
  const int gripY = area.y0 + (area.height() - 1) / 2;
  // Rows and columns of a sheet are laid as rows and columns of the map, whatever its grid.
  const auto grid = makeGrid(session_->map() ? session_->map()->grid : GridShape());
  std::vector<Block::Part> parts;
  numbers_.clear();
  for (const Spot& spot : spots) {
    numbers_.push_back(from.numberAt(spot.cell));
    const CellPos place = at(spot.cell);
    parts.push_back({grid->toSide({place.x - gripX, place.y - gripY}), Cell({*slot, from.numberAt(spot.cell)}, {})});
  }
  taken_ = Block(std::move(parts));
  if (gathers) {
    for (const Block::Part& part : taken_.parts()) session_->verbs().hand.gather(Block::of(part.cell));
  } else {
    session_->verbs().hand.take(taken_);
  }
  if (gathers) return Q_EMIT gathered();
  Q_EMIT taken(byKeys);
}

bool TableView::event(QEvent* event) {
  if (event->type() == QEvent::ToolTip) {
    const auto* help = static_cast<QHelpEvent*>(event);
    const TableItem* item = itemAt(help->pos(), true);
    if (item && item->kind == TableItem::Kind::sheet && item->sheet != chalk().id) {
      QToolTip::showText(help->globalPos(), tr("Click for the sheet's cut and facts, drag to move it"), this,
                         toWidget(item->heading).toRect());
    } else {
      QToolTip::hideText();
    }
    return true;
  }
  return QWidget::event(event);
}

std::pair<std::string, Id> TableView::landing(QPointF at) const {
  const QPointF point = atContents(at);
  std::string pile;
  for (const TableItem& item : layout_.items) {
    if (item.kind == TableItem::Kind::loose || item.sheet == chalk().id) continue;
    if (item.kind == TableItem::Kind::pile) {
      if (point.y() < item.heading.top()) break;
      pile = item.name;
      continue;
    }
    pile = sheet(item.sheet)->origin.pile;
    const double middle = (item.heading.top() + item.picture.bottom()) / 2;
    if (point.y() < middle) return {pile, item.sheet};
  }
  return {pile, {}};
}

void TableView::mousePressEvent(QMouseEvent* event) {
  if (!session_) return;
  if (event->button() == Qt::MiddleButton) pan_ = event->position();
  if (event->button() != Qt::LeftButton) return;
  const QPointF at = event->position();
  if (const TableItem* item = itemAt(at, true)) {
    if (item->kind == TableItem::Kind::pile) {
      Desk desk = session_->desk();
      if (!desk.foldedPiles.erase(item->name)) desk.foldedPiles.insert(item->name);
      session_->setDesk(std::move(desk));
    } else if (item->kind == TableItem::Kind::loose) {
      Q_EMIT looseChosen(QString::fromStdString(item->name));
    } else if (item->sheet != chalk().id) {
      carried_ = Carried{item->sheet, at, at, false};
    }
    return;
  }
  const TableItem* item = itemAt(at, false);
  if (!item) return;
  const Sheet& on = *sheet(item->sheet);
  const QImage picture = session_->painter().pictures().picture(on);
  if (picture.isNull()) {
    Q_EMIT pictureWanted(on.id);
    return;
  }
  if (picking_ && picking_->sheet == on.id) {
    const QPointF inside = (atContents(at) - item->picture.topLeft()) / zoom_;
    const QPoint pixel(static_cast<int>(inside.x()), static_cast<int>(inside.y()));
    const Picking picking = *std::exchange(picking_, std::nullopt);
    unsetCursor();
    if (picture.rect().contains(pixel)) picking.picked(picture.pixel(pixel) & 0xffffffu);
    return;
  }
  if (const auto spot = spotAt(at)) dragging_ = Chosen{*spot, *spot};
  update();
}

void TableView::mouseMoveEvent(QMouseEvent* event) {
  if (!session_) return;
  if (pan_) {
    scroll_ += *pan_ - event->position();
    pan_ = event->position();
    clampScroll();
    update();
  } else if (carried_) {
    carried_->at = event->position();
    carried_->moved = carried_->moved || (carried_->at - carried_->from).manhattanLength() >= kCarriedFrom;
    if (carried_->moved) setCursor(Qt::ClosedHandCursor);
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
  if (event->button() != Qt::LeftButton) return;
  if (carried_) {
    const Carried carried = *std::exchange(carried_, std::nullopt);
    unsetCursor();
    if (!carried.moved) {
      Q_EMIT sheetChosen(carried.sheet);
    } else {
      const auto [pile, before] = landing(event->position());
      if (before != carried.sheet) session_->sheets().moveOnTable(carried.sheet, QString::fromStdString(pile), before);
    }
    update();
    return;
  }
  if (!dragging_) return;
  const Chosen chosen = *std::exchange(dragging_, std::nullopt);
  const Sheet& on = *sheet(chosen.from.sheet);
  const auto slot = session_->quilt().slots().find(on.id);
  const TileRef dragged{slot.value_or(0), on.numberAt(chosen.from.cell)};
  const bool left = !rect().contains(event->position().toPoint());
  if (!left || !slot || !dropTaker_ || !dropTaker_(dragged, event->globalPosition().toPoint())) {
    chosen_ = chosen;
    takeChosen(false, event->modifiers().testFlag(Qt::ShiftModifier));
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

void TableView::moveCursor(int dx, int dy, bool extends) {
  std::vector<Id> order;
  for (const TableItem& item : layout_.items) {
    if (item.kind == TableItem::Kind::sheet && sheet(item.sheet)->tileCount() > 0) order.push_back(item.sheet);
  }
  if (order.empty()) return;
  const bool begins = !pointed_ || !layout_.of(pointed_->sheet);
  Spot spot = begins ? Spot{order.front(), 0} : *pointed_;
  if (extends && !dragging_) dragging_ = Chosen{spot, spot};
  if (!extends) dragging_.reset();
  const Sheet* on = sheet(spot.sheet);
  int column = static_cast<int>(spot.cell) % on->columns();
  int row = static_cast<int>(spot.cell) / on->columns();
  if (!begins) {
    // A collection has one row; up and down lead out of it.
    column = std::clamp(column + dx, 0, on->columns() - 1);
    row += dy;
  }
  // Over the last row the cursor goes on to the next sheet.
  const auto index = std::find(order.begin(), order.end(), spot.sheet) - order.begin();
  const auto beyond = index + (row >= on->rows() ? 1 : row < 0 ? -1 : 0);
  if (beyond != index && !extends && beyond >= 0 && beyond < static_cast<std::ptrdiff_t>(order.size())) {
    on = sheet(order[static_cast<std::size_t>(beyond)]);
    row = beyond > index ? 0 : on->rows() - 1;
    column = std::min(column, on->columns() - 1);
  }
  row = std::clamp(row, 0, on->rows() - 1);
  spot = {on->id, static_cast<std::uint32_t>(row * on->columns() + column)};
  if (dragging_) dragging_->to = spot;
  point(spot);
  reveal(on->id, on->numberAt(spot.cell));
}

void TableView::keyPressEvent(QKeyEvent* event) {
  if (!session_) return QWidget::keyPressEvent(event);
  const bool extends = event->modifiers() & Qt::ShiftModifier;
  switch (event->key()) {
    case Qt::Key_Left: moveCursor(-1, 0, extends); break;
    case Qt::Key_Right: moveCursor(1, 0, extends); break;
    case Qt::Key_Up: moveCursor(0, -1, extends); break;
    case Qt::Key_Down: moveCursor(0, 1, extends); break;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      if (pointed_) {
        chosen_ = dragging_ ? *dragging_ : Chosen{*pointed_, *pointed_};
        dragging_.reset();
        takeChosen(true);
      }
      break;
    case Qt::Key_Escape:
      if (!picking_) return QWidget::keyPressEvent(event);
      picking_.reset();
      unsetCursor();
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
