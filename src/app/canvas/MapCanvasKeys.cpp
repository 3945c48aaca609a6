// What of MapCanvas is the keyboard, and the cell cursor by which it paints.
#include <QAccessible>
#include <QKeyEvent>
#include <algorithm>

#include "app/canvas/MapCanvas.h"

namespace uq {

bool MapCanvas::event(QEvent* event) {
  // Esc and letters belong to the canvas while it has the focus, and function keys that act on it.
  if (event->type() == QEvent::ShortcutOverride) {
    const auto& key = *static_cast<QKeyEvent*>(event);
    const bool plain = !(key.modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
    const bool isFunction = key.key() >= Qt::Key_F1 && key.key() <= Qt::Key_F35;
    if (plain && (!isFunction || actions_->actionFor(key))) event->accept();
  }
  return QWidget::event(event);
}

void MapCanvas::arrow(int dx, int dy, bool extends) {
  if (pins() && !session_->desk().chosenPins.empty() && drag_ == Drag::none) {
    const auto grid = makeGrid(map()->grid);
    const Pin* first = map()->pin(*session_->desk().chosenPins.begin());
    const CellPos from = first ? first->cell : CellPos();
    session_->verbs().pins.moveBy(grid->toSide(grid->stepped(from, dx, dy)) - grid->toSide(from));
  } else if (cursor_ && drag_ == Drag::none) {
    moveCursor(dx, dy, extends);
  } else if (selects() && !session_->desk().selection().empty() && drag_ == Drag::none) {
    const auto grid = makeGrid(map()->grid);
    const CellRect selected = session_->desk().selection().bounds();
    const CellPos first{selected.x0, selected.y0};
    session_->verbs().selection.nudge(grid->toSide(grid->stepped(first, dx, dy)) - grid->toSide(first));
  } else if (map()) {
    const PixelSize cell = map()->grid.cell;
    scrollBy(QPointF(dx * cell.w, dy * cell.h) * zoom());
  }
}

void MapCanvas::escape(const QKeyEvent& event) {
  // A drag that spans a selection is the canvas's own.
  if (drag_ == Drag::select || drag_ == Drag::take || drag_ == Drag::pins || drag_ == Drag::pinFrame) {
    drag_ = Drag::none;
    taken_ = {};
  } else if (drag_ == Drag::lines) {
    drag_ = Drag::none;
    session_->verbs().lines.drop();
  } else if (boxFrom_) {
    boxFrom_.reset();
  } else if (pins() && !session_->desk().chosenPins.empty()) {
    session_->verbs().pins.choose({});
  } else {
    (void)actions_->handleKey(event);
  }
}

void MapCanvas::keyPressEvent(QKeyEvent* event) {
  const bool shift = event->modifiers() & Qt::ShiftModifier;
  if (event->key() == Qt::Key_Control) followModifiers(event->modifiers() | Qt::ControlModifier);
  if (event->key() == Qt::Key_Shift) followModifiers(event->modifiers() | Qt::ShiftModifier);
  if (event->key() == Qt::Key_Space && !event->isAutoRepeat()) space_ = true;
  if (drag_ == Drag::edge && event->key() >= Qt::Key_1 && event->key() <= Qt::Key_3) {
    session_->verbs().edge.setRoom(static_cast<NewRoom>(event->key() - Qt::Key_1));
    return update();
  }
  offersGrowth_ = offersGrowth_ && (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter);
  switch (event->key()) {
    case Qt::Key_Control:
    case Qt::Key_Shift:
    case Qt::Key_Space: break;
    case Qt::Key_Menu: openLens(hoveredCell(), true); break;
    case Qt::Key_Left: arrow(-1, 0, shift); break;
    case Qt::Key_Right: arrow(1, 0, shift); break;
    case Qt::Key_Up: arrow(0, -1, shift); break;
    case Qt::Key_Down: arrow(0, 1, shift); break;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      if (std::exchange(offersGrowth_, false)) {
        session_->verbs().strokes.letGrow();
      } else if (pins() && !session_->verbs().pins.chosen().empty()) {
        session_->verbs().pins.follow(session_->verbs().pins.chosen());
      } else if (pins() && cursor_) {
        useCursorOnPins();
      } else if (cursor_ && drag_ == Drag::none) {
        useCursor(event->modifiers() & Qt::ControlModifier);
      }
      break;
    case Qt::Key_Escape: escape(*event); break;
    default: {
      const auto action = actions_->actionFor(*event);
      const bool isTool = action && toolOf(*action);
      if (isTool && event->isAutoRepeat()) break;
      if (isTool && session_) heldTool_.press(event->key(), session_->desk().tool, event->timestamp());
      if (!actions_->handleKey(*event)) QWidget::keyPressEvent(event);
    }
  }
  showCursor();
  update();
}

void MapCanvas::keyReleaseEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Control) followModifiers(event->modifiers() & ~Qt::ControlModifier);
  if (event->key() == Qt::Key_Shift) followModifiers(event->modifiers() & ~Qt::ShiftModifier);
  if (event->key() == Qt::Key_Space && !event->isAutoRepeat()) space_ = false;
  const bool letGo = !event->isAutoRepeat() && heldTool_.letGo(event->key(), event->timestamp());
  if (letGo && drag_ == Drag::none) springBack();
  showCursor();
  update();
  QWidget::keyReleaseEvent(event);
}

void MapCanvas::focusInEvent(QFocusEvent* event) {
  const bool byTab = event->reason() == Qt::TabFocusReason || event->reason() == Qt::BacktabFocusReason;
  if (byTab && map()) {
    // Where the pointer was, else in the middle of what is seen of the map.
    cursor_ = hoveredCell().value_or(inside(cellAt(QRectF(rect()).center())));
    describeCursor();
    Q_EMIT hovered();
  }
  update();
  QWidget::focusInEvent(event);
}

void MapCanvas::moveCursor(int dx, int dy, bool extends) {
  if (extends && !boxFrom_) boxFrom_ = cursor_;
  if (!extends) boxFrom_.reset();
  const CellPos next = makeGrid(map()->grid)->stepped(*cursor_, dx, dy);
  cursor_ = extends ? inside(next) : reached(next).value_or(inside(next));
  refusal_.clear();
  // The cursor stays in sight.
  const QRectF cell = cellRect(*cursor_).adjusted(-8, -8, 8, 8);
  QPointF by;
  if (cell.right() > width()) by.rx() = cell.right() - width();
  if (cell.left() < 0) by.rx() = cell.left();
  if (cell.bottom() > height()) by.ry() = cell.bottom() - height();
  if (cell.top() < 0) by.ry() = cell.top();
  if (!by.isNull()) scrollBy(by);
  describeCursor();
  update();
  Q_EMIT hovered();
}

void MapCanvas::useCursor(bool ctrl) {
  if (ctrl && openBeyond(*cursor_)) return;
  if (!boxFrom_) boxFrom_ = cursor_;
  const CellPos from = map()->bounds.contains(*cursor_) ? *boxFrom_ : *cursor_;
  const SelectBy by = session_->desk().options.selectBy;
  const bool byLikeness = selects() && from == *cursor_ && (by == SelectBy::touching || by == SelectBy::everywhere);
  SelectionVerbs& selection = session_->verbs().selection;
  const bool isBeyond = !map()->bounds.contains(*cursor_);
  const CellSet here(CellRect::around(*cursor_, *cursor_));
  const CellSet cells = byLikeness ? selection.alike(*cursor_) : isBeyond ? here : spanned();
  boxFrom_.reset();
  if (selects()) {
    selection.select(cells, ctrl ? Selecting::less : Selecting::anew);
  } else {
    paintByCursor(cells, from, ctrl || session_->desk().tool == Tool::erase);
  }
  describeCursor();
}

void MapCanvas::paintByCursor(const CellSet& cells, CellPos from, bool takesAway) {
  if (const std::string why = whyNoStroke(session_->work(), takesAway); !why.empty()) {
    return say(QString::fromStdString(why));
  }
  Strokes& strokes = session_->verbs().strokes;
  strokes.begin(strokes.askOver(cells, from, *cursor_, takesAway, shift_));
  (void)session_->work().finish();
  handlesGone_ = false;
}

void MapCanvas::describeCursor() {
  const auto patch = neighbours_->at(*cursor_);
  const Map& here = patch ? *session_->quilt().map(patch->map) : *map();
  const CellPos at = patch ? patch->onMap(*cursor_) : *cursor_;
  QStringList tiles;
  for (auto nearest = here.layers.rbegin(); nearest != here.layers.rend(); ++nearest) {
    const Cell cell = (*nearest)->cells.at(at);
    if (cell.empty()) continue;
    const Sheet* sheet = session_->quilt().sheetAt(cell.tile().slot);
    const QString name =
        sheet ? QString::fromStdString(sheet->tileName(cell.tile().number)) : tr("tile %1").arg(cell.tile().number);
    tiles << tr("%1 on %2").arg(name, QString::fromStdString((*nearest)->name));
  }
  const QString what = tr("Cell %1, %2: %3")
                           .arg(at.x - here.bounds.x0)
                           .arg(at.y - here.bounds.y0)
                           .arg(tiles.isEmpty() ? tr("empty") : tiles.join(tr(", ")));
  setAccessibleDescription(patch ? tr("%1 · %2 · Ctrl+Enter opens it").arg(QString::fromStdString(here.name), what) : what);
  QAccessibleEvent told(this, QAccessible::DescriptionChanged);
  QAccessible::updateAccessibility(&told);
}

void MapCanvas::focusOutEvent(QFocusEvent* event) {
  cursor_.reset();
  boxFrom_.reset();
  heldTool_.leave();
  if (drag_ == Drag::none) springBack();
  heldTool_.forget();
  space_ = false;
  ctrl_ = false;
  shift_ = false;
  showCursor();
  update();
  QWidget::focusOutEvent(event);
}

}  // namespace uq
