// What of MapCanvas is the hand: mouse and keys.
#include "app/canvas/MapCanvas.h"

#include <QAccessible>
#include <QGuiApplication>
#include <QKeyEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/actions/KeyBindings.h"
#include "app/canvas/Lens.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "core/cells/CellReader.h"
#include "core/document/FrameTime.h"
#include "core/document/PlanView.h"
#include "core/edit/HangingPlace.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Turned.h"

namespace uq {

namespace {
constexpr double kSnapReach = 8;  // screen pixels within which a dragged backdrop is drawn to an edge

constexpr double kMoveAfter = 4;  // logical pixels: a shorter drag moves nothing

}  // namespace

CellSet MapCanvas::spanned() const {
  const auto grid = makeGrid(map()->grid);
  const CellRect bounds = map()->bounds;
  const auto inside = [&](CellPos at) {
    return CellPos{std::clamp(at.x, bounds.x0, bounds.x1 - 1), std::clamp(at.y, bounds.y0, bounds.y1 - 1)};
  };
  const BoxShape shape = session_->desk().box.value_or(usualBox(grid->shape().kind));
  const auto box = [&](CellPos from, CellPos to) {
    const CellRect around = CellRect::around(from, to);
    const bool isVast = isTooWide(bounds) && isTooWide(around.grown(around.width()).intersected(bounds));
    return isVast ? CellSet() : boxOf(*grid, from, to, shape, bounds);
  };
  if (boxFrom_ && cursor_) return box(*boxFrom_, *cursor_);
  if (drag_ == Drag::select && session_->desk().options.selectBy == SelectBy::outline) {
    const CellSet cells = insideOutline(*grid, bounds, way_);
    const CellPos at = inside(pressed_);
    return cells.empty() ? CellSet({at.x, at.y, at.x + 1, at.y + 1}) : cells;
  }
  // A drag that begins or ends beyond the map's edge reaches to the edge.
  return box(inside(pressed_), inside(dragged_));
}

void MapCanvas::pressToSelect(const QMouseEvent& event) {
  pressed_ = dragged_ = cellAt(event.position());
  pressedAt_ = event.position();
  way_ = {scale().toMap(devicePoint(event.position()) - planeShift())};
  const bool more = event.modifiers() & Qt::ShiftModifier;
  selecting_ = more ? Selecting::more : ctrl_ ? Selecting::less : Selecting::anew;
  const bool inside = session_->desk().selection().contains(pressed_);
  drag_ = inside && selecting_ == Selecting::anew ? Drag::move : Drag::select;
}

void MapCanvas::moveToSelect(QPointF at) {
  dragged_ = cellAt(at);
  way_.push_back(scale().toMap(devicePoint(at) - planeShift()));
  if (drag_ == Drag::select) return update();
  const bool far = (at - pressedAt_).manhattanLength() >= kMoveAfter;
  if (!session_->inGesture() && far) session_->verbs().selection.beginMove();
  const auto grid = makeGrid(map()->grid);
  session_->verbs().selection.moveBy(grid->toSide(dragged_) - grid->toSide(pressed_));
}

void MapCanvas::releaseToSelect() {
  // A press inside the selection that never moved selects there, like one outside.
  if (drag_ == Drag::move && session_->inGesture()) {
    (void)session_->work().finish();
    return;
  }
  if (drag_ == Drag::move) dragged_ = pressed_;
  const SelectBy by = session_->desk().options.selectBy;
  const bool byLikeness = by == SelectBy::touching || by == SelectBy::everywhere;
  const CellSet cells = byLikeness ? alike(pressed_) : spanned();
  if (cells.empty()) return say(tr("That is more than can be selected at once: select a smaller part"));
  Desk desk = session_->desk();
  switch (selecting_) {
    case Selecting::anew: desk.select(cells); break;
    case Selecting::more: desk.select(desk.selection().united(cells)); break;
    case Selecting::less: desk.select(desk.selection().without(cells)); break;
  }
  session_->setDesk(std::move(desk));
}

void MapCanvas::moveHandle(QPointF at) {
  const auto box = session_->verbs().strokes.stretchBox();
  if (!handle_ || !box || !session_->verbs().strokes.stroke()) return;
  const SidePos to = makeGrid(map()->grid)->toSide(cellAt(at));
  const InHand& stretch = session_->verbs().strokes.stroke()->plan().hand;
  const StretchSizes across = widthsOf(stretch);
  const StretchSizes down = heightsOf(stretch);
  CellRect next = *box;
  if (handle_->across > 0) next.x1 = std::max(to.u + 1, next.x0 + across.least);
  if (handle_->across < 0) next.x0 = std::min(to.u, next.x1 - across.least);
  if (handle_->down > 0) next.y1 = std::max(to.v + 1, next.y0 + down.least);
  if (handle_->down < 0) next.y0 = std::min(to.v, next.y1 - down.least);
  if (whyNoStretch(stretch, next.width(), next.height()).empty()) session_->verbs().strokes.refit(next);
}

bool MapCanvas::holdsStretch() const {
  if (!session_ || !map() || !session_->verbs().strokes.stretchBox()) return false;
  return drag_ == Drag::stroke || drag_ == Drag::refit || !handles().empty();
}

void MapCanvas::stepLookAlike(int steps) {
  if (!holdsStretch()) return;
  session_->verbs().strokes.stepLookAlike(lastPart_, steps);
  update();
}

void MapCanvas::pressToTake(QPointF at) {
  pressed_ = dragged_ = cellAt(at);
  pressedAt_ = at;
  behind_ = takenAt_ == at ? behind_ + 1 : 0;
  takenAt_ = at;
  taken_ = hoveredCell() ? session_->pictureToTake(scale().toMap(devicePoint(at)), behind_) : PixelRect();
  drag_ = Drag::take;
}

void MapCanvas::releaseToTake(const QMouseEvent& event) {
  const QPointF at = event.position();
  const bool dragged = !(dragged_ == pressed_) && (at - pressedAt_).manhattanLength() >= kMoveAfter;
  if (dragged) {
    const CellSet cells = spanned();
    const bool cuts = ctrl_ && !KeyBindings::shared().buttonsExchanged();
    drag_ = Drag::none;
    return session_->verbs().hand.takeCells(cells, shift_, cuts);
  }
  drag_ = Drag::none;
  if (shift_ && hoveredCell()) {
    // Gathered to what is in hand.
    if (const auto cell = session_->cellToTake(scale().toMap(devicePoint(pressedAt_)), behind_)) {
      return session_->verbs().hand.gather(Block::of(*cell));
    }
  }
  const bool any = hoveredCell() && !session_->takeFromMap(scale().toMap(devicePoint(pressedAt_)), behind_).empty();
  if (hoveredCell() && !any) say(tr("Nothing to take here"));
}

void MapCanvas::openLens(std::optional<CellPos> at, bool withVerbs) {
  if (!at || !map() || session_->inGesture()) return;
  if (!lens_) lens_ = new Lens(actions_, this);
  lens_->open(session_, *at, mapToGlobal(cellRect(*at).center().toPoint()), withVerbs);
}

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

void MapCanvas::showCursor() {
  const bool frame = drag_ == Drag::frame || drag_ == Drag::hang || (drag_ == Drag::none && pointer_ && isOnFrame(*pointer_));
  setCursor(drag_ == Drag::pan ? Qt::ClosedHandCursor
            : space_           ? Qt::OpenHandCursor
            : frame            ? Qt::SizeAllCursor
                               : Qt::ArrowCursor);
}

void MapCanvas::say(const QString& refusal) {
  refusal_ = refusal;
  update();
}

void MapCanvas::mousePressEvent(QMouseEvent* event) {
  pointer_ = event->position();
  cursor_.reset();
  boxFrom_.reset();
  if (heldTool_ && !heldTool_->isUp) heldTool_->used = true;
  if (!map() || drag_ != Drag::none) return;
  ctrl_ = event->modifiers() & Qt::ControlModifier;
  shift_ = event->modifiers() & Qt::ShiftModifier;
  const bool left = event->button() == Qt::LeftButton;
  const bool right = event->button() == Qt::RightButton;
  // As the user wants it: right takes and Ctrl+left takes away, or the other way round.
  const bool exchanged = KeyBindings::shared().buttonsExchanged();
  const bool takes = exchanged ? left && ctrl_ && !selects() : right;
  const bool lays = left || (exchanged && right && !selects());
  const bool pans = event->button() == Qt::MiddleButton || (left && space_);
  dragButton_ = event->button();
  const auto handle = left && !pans ? handleAt(event->position()) : std::nullopt;
  const bool frames = left && !pans && !handle && isOnFrame(event->position());
  if (frames) {
    playCamera(false);
    drag_ = Drag::frame;
    pressedAt_ = event->position();
    cameraFrom_ = *session_->desk().camera();
  } else if (pans) {
    drag_ = Drag::pan;
    lastPan_ = pressedAt_ = event->position();
    showCursor();
  } else if (handle) {
    session_->verbs().strokes.beginRefit();
    if (session_->inGesture()) {
      handle_ = handle;
      lastPart_ = {handle->across, handle->down};
      drag_ = Drag::refit;
    }
  } else if (takes) {
    pressToTake(event->position());
  } else if (const Layer* hung = left ? hangs() : nullptr) {
    drag_ = Drag::hang;
    pressedAt_ = event->position();
    hungFrom_ = hung->offset;
    hungTo_.clear();
    session_->verbs().bar.take("Shift");
    if (!session_->inGesture()) {
      session_->verbs().bar.leave();
      drag_ = Drag::none;
    }
  } else if (left && selects()) {
    if (hoveredCell()) pressToSelect(*event);
  } else if (lays && hoveredCell()) {
    dragTakesAway_ = right || takesAway();
    Strokes::Ask ask = strokeAt(*hoveredCell());
    ask.takesAway = dragTakesAway_;
    session_->verbs().strokes.begin(ask);
    if (session_->inGesture()) drag_ = Drag::stroke;
    pressed_ = *hoveredCell();
    lastPart_ = {};
  }
  handlesGone_ = drag_ != Drag::refit;
  update();
}

void MapCanvas::mouseMoveEvent(QMouseEvent* event) {
  const auto before = hoveredCell();
  // A canvas that moves under a resting pointer is no movement of the hand.
  if (pointer_ != event->position()) cursor_.reset();
  if (takenAt_ != event->position() && drag_ != Drag::take) takenAt_.reset();
  if (!cursor_) boxFrom_.reset();
  pointer_ = event->position();
  followModifiers(event->modifiers());
  if (!map()) return;
  switch (drag_) {
    case Drag::none: break;
    case Drag::pan:
      scrollBy(lastPan_ - event->position());
      lastPan_ = event->position();
      break;
    case Drag::stroke:
      session_->verbs().strokes.moveTo(cellAt(event->position()), shift_);
      if (session_->verbs().strokes.stretchBox()) {
        // The end at the pointer is the one whose look the wheel changes.
        const auto grid = makeGrid(map()->grid);
        const SidePos way = grid->toSide(cellAt(event->position())) - grid->toSide(pressed_);
        lastPart_ = {way.u > 0 ? 1 : way.u < 0 ? -1 : 0, way.v > 0 ? 1 : way.v < 0 ? -1 : 0};
      }
      updateOverlay();
      break;
    case Drag::frame: {
      const QPointF by = (event->position() - pressedAt_) / zoom_;
      session_->verbs().maps.setCamera({cameraFrom_.x + qRound(by.x()), cameraFrom_.y + qRound(by.y())});
      break;
    }
    case Drag::hang: dragBackdrop(event->position()); break;
    case Drag::refit:
      moveHandle(event->position());
      update();
      break;
    case Drag::take:
      dragged_ = cellAt(event->position());
      if (!(dragged_ == pressed_)) taken_ = {};
      update();
      break;
    case Drag::select:
    case Drag::move: moveToSelect(event->position()); break;
  }
  if (session_->desk().showsFrame) showCursor();
  if (hoveredCell() != before) {
    refusal_.clear();
    updateOverlay();
  }
  Q_EMIT hovered();
}

const Layer* MapCanvas::hangs() const {
  const Layer* layer = map() ? session_->quilt().layer(session_->desk().landing()) : nullptr;
  const Desk& desk = session_->desk();
  const bool can = layer && layer->kind == LayerKind::backdrop && !desk.hidden.contains(layer->id) &&
                   !desk.locked.contains(layer->id);
  return can ? layer : nullptr;
}

void MapCanvas::dragBackdrop(QPointF to) {
  const QPointF by = (to - pressedAt_) / zoom_;
  const PixelPos wished{hungFrom_.x + qRound(by.x()), hungFrom_.y + qRound(by.y())};
  // With Ctrl it goes anywhere.
  const int reach = ctrl_ ? -1 : qRound(kSnapReach / zoom_);
  const HangingPlace place = hangingPlace(session_->quilt(), session_->desk().landing(), wished, reach);
  hungTo_ = place.at;
  session_->verbs().layers.change("Shift", [&](const Quilt& quilt, LayerAt at) {
    // Those chosen beside it go along.
    if (at == session_->desk().landing()) return withOffset(quilt, at, place.offset);
    const PixelPos own = quilt.layer(at)->offset;
    return withOffset(quilt, at, {own.x + place.offset.x - hungFrom_.x, own.y + place.offset.y - hungFrom_.y});
  });
  update();
}

void MapCanvas::endDrag() {
  const bool ofGesture =
      drag_ == Drag::stroke || drag_ == Drag::refit || drag_ == Drag::move || drag_ == Drag::hang;
  if (!ofGesture) return;
  // The session forgets that a bar was taken hold of.
  if (std::exchange(drag_, Drag::none) == Drag::hang) session_->verbs().bar.leave();
  handle_.reset();
  springBack();
  showCursor();
  update();
}

void MapCanvas::followModifiers(Qt::KeyboardModifiers modifiers) {
  const bool ctrl = modifiers & Qt::ControlModifier;
  const bool shift = modifiers & Qt::ShiftModifier;
  if (ctrl == ctrl_ && shift == shift_) return;
  ctrl_ = ctrl;
  shift_ = shift;
  updateOverlay();
}

void MapCanvas::mouseDoubleClickEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton || !selects() || !hoveredCell()) return mousePressEvent(event);
  const CellPos at = *hoveredCell();
  if (session_->verbs().strokes.recogniseStretch(at)) {
    handlesGone_ = false;
  } else if (!session_->verbs().hand.takeStampAt(at)) {
    mousePressEvent(event);
  }
  update();
}

void MapCanvas::mouseReleaseEvent(QMouseEvent* event) {
  if (drag_ == Drag::none || event->button() != dragButton_) return;
  followModifiers(event->modifiers());
  taken_ = {};
  const Drag ended = drag_;
  if (session_ && drag_ == Drag::hang) session_->verbs().bar.leave();
  if (session_ && (drag_ == Drag::stroke || drag_ == Drag::refit)) {
    (void)session_->work().finish();
    handlesGone_ = false;
  }
  if ((drag_ == Drag::select || drag_ == Drag::move) && session_) releaseToSelect();
  if (drag_ == Drag::take && session_) {
    // With Select a click looks instead of taking.
    const bool clicked = dragged_ == pressed_;
    drag_ = Drag::none;
    if (clicked && selects()) {
      openLens(hoveredCell(), true);
    } else {
      drag_ = ended;
      releaseToTake(*event);
    }
  }
  const bool rested = (event->position() - pressedAt_).manhattanLength() < kMoveAfter;
  drag_ = Drag::none;
  handle_.reset();
  springBack();
  if (ended == Drag::pan && event->button() == Qt::MiddleButton && rested) openLens(hoveredCell(), selects());
  showCursor();
  update();
}

void MapCanvas::wheelEvent(QWheelEvent* event) {
  const QPoint angle = event->angleDelta();
  const bool fits = drag_ == Drag::stroke || drag_ == Drag::refit;
  if (fits && holdsStretch()) {
    if (angle.y() != 0) stepLookAlike(angle.y() > 0 ? -1 : 1);
  } else if (event->modifiers() & Qt::ControlModifier) {
    const int steps = angle.y() > 0 ? 1 : angle.y() < 0 ? -1 : 0;
    if (steps != 0) zoomBySteps(steps, event->position());
  } else {
    const QPointF by = event->pixelDelta().isNull() ? QPointF(angle) / 2 : QPointF(event->pixelDelta());
    const bool sideways = event->modifiers() & Qt::ShiftModifier;
    scrollBy(sideways && by.x() == 0 ? QPointF(-by.y(), 0) : -by);
  }
  event->accept();
}

void MapCanvas::keyPressEvent(QKeyEvent* event) {
  const bool shift = event->modifiers() & Qt::ShiftModifier;
  const auto arrow = [&](int dx, int dy) {
    if (cursor_ && drag_ == Drag::none) {
      moveCursor(dx, dy, shift);
    } else if (selects() && !session_->desk().selection().empty() && drag_ == Drag::none) {
      const auto grid = makeGrid(map()->grid);
      const CellRect selected = session_->desk().selection().bounds();
      const CellPos first{selected.x0, selected.y0};
      session_->verbs().selection.nudge(grid->toSide(grid->stepped(first, dx, dy)) - grid->toSide(first));
    } else if (map()) {
      const PixelSize cell = map()->grid.cell;
      scrollBy(QPointF(dx * cell.w, dy * cell.h) * zoom_);
    }
  };
  if (event->key() == Qt::Key_Control) followModifiers(event->modifiers() | Qt::ControlModifier);
  if (event->key() == Qt::Key_Shift) followModifiers(event->modifiers() | Qt::ShiftModifier);
  if (event->key() == Qt::Key_Space && !event->isAutoRepeat()) space_ = true;
  switch (event->key()) {
    case Qt::Key_Control:
    case Qt::Key_Shift:
    case Qt::Key_Space: break;
    case Qt::Key_Menu: openLens(hoveredCell(), true); break;
    case Qt::Key_Left: arrow(-1, 0); break;
    case Qt::Key_Right: arrow(1, 0); break;
    case Qt::Key_Up: arrow(0, -1); break;
    case Qt::Key_Down: arrow(0, 1); break;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      if (cursor_ && drag_ == Drag::none) useCursor(event->modifiers() & Qt::ControlModifier);
      break;
    case Qt::Key_Escape:
      // A drag that spans a selection is the canvas's own.
      if (drag_ == Drag::select || drag_ == Drag::take) {
        drag_ = Drag::none;
        taken_ = {};
        break;
      }
      if (boxFrom_) {
        boxFrom_.reset();
        break;
      }
      actions_->handleKey(*event);
      break;
    default: {
      const auto action = actions_->actionFor(*event);
      const bool isTool = action && toolOf(*action);
      if (isTool && event->isAutoRepeat()) break;
      if (isTool && session_) {
        // X11 tells a key that is still down as let go and pressed again at one moment.
        static const bool isX11 = QGuiApplication::platformName() == QLatin1String("xcb");
        const bool repeats = isX11 && heldTool_ && heldTool_->key == event->key() && heldTool_->isUp &&
                             event->timestamp() == heldTool_->upAt;
        if (repeats) {
          heldTool_->isUp = heldTool_->sprung = false;
        } else {
          const bool isDue = heldTool_ && heldTool_->isUp && heldTool_->used && !heldTool_->sprung;
          heldTool_ = HeldTool{event->key(), isDue ? heldTool_->before : session_->desk().tool};
        }
      }
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
  if (heldTool_ && heldTool_->key == event->key() && !event->isAutoRepeat()) {
    heldTool_->isUp = true;
    heldTool_->upAt = event->timestamp();
    if (drag_ == Drag::none) springBack();
  }
  showCursor();
  update();
  QWidget::keyReleaseEvent(event);
}

void MapCanvas::springBack() {
  if (!heldTool_ || !heldTool_->isUp || !heldTool_->used || heldTool_->sprung || !session_) return;
  heldTool_->sprung = true;
  Desk desk = session_->desk();
  desk.tool = heldTool_->before;
  session_->setDesk(std::move(desk));
}

void MapCanvas::leaveEvent(QEvent*) {
  pointer_.reset();
  refusal_.clear();
  updateOverlay();
  Q_EMIT hovered();
}

void MapCanvas::focusInEvent(QFocusEvent* event) {
  const bool byTab = event->reason() == Qt::TabFocusReason || event->reason() == Qt::BacktabFocusReason;
  if (byTab && map()) {
    // Where the pointer was, else in the middle of what is seen of the map.
    const CellRect bounds = map()->bounds;
    const CellPos middle = cellAt(QRectF(rect()).center());
    cursor_ = hoveredCell().value_or(
        CellPos{std::clamp(middle.x, bounds.x0, bounds.x1 - 1), std::clamp(middle.y, bounds.y0, bounds.y1 - 1)});
    describeCursor();
    Q_EMIT hovered();
  }
  update();
  QWidget::focusInEvent(event);
}

void MapCanvas::moveCursor(int dx, int dy, bool extends) {
  const CellRect bounds = map()->bounds;
  if (extends && !boxFrom_) boxFrom_ = cursor_;
  if (!extends) boxFrom_.reset();
  const CellPos next = makeGrid(map()->grid)->stepped(*cursor_, dx, dy);
  cursor_ = CellPos{std::clamp(next.x, bounds.x0, bounds.x1 - 1), std::clamp(next.y, bounds.y0, bounds.y1 - 1)};
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

void MapCanvas::useCursor(bool takesAway) {
  if (!boxFrom_) boxFrom_ = cursor_;
  const CellPos from = *boxFrom_;
  const SelectBy by = session_->desk().options.selectBy;
  const bool byLikeness = selects() && from == *cursor_ && (by == SelectBy::touching || by == SelectBy::everywhere);
  const CellSet spanned = byLikeness ? alike(*cursor_) : this->spanned();
  const CellRect cells = spanned.bounds();
  boxFrom_.reset();
  if (selects()) {
    Desk desk = session_->desk();
    desk.select(takesAway ? desk.selection().without(spanned) : spanned);
    session_->setDesk(std::move(desk));
  } else {
    takesAway = takesAway || session_->desk().tool == Tool::erase;
    if (const std::string why = whyNoStroke(session_->work(), takesAway); !why.empty()) {
      return say(QString::fromStdString(why));
    }
    const Tool tool = session_->desk().tool;
    const bool byPath = tool == Tool::brush || tool == Tool::erase;
    Strokes::Ask ask;
    ask.takesAway = takesAway;
    if (!byPath || session_->desk().inHand.manner == Manner::stretch) {
      ask.path = from == *cursor_ ? std::vector{from} : std::vector{from, *cursor_};
      ask.everywhere = tool == Tool::fill && shift_;
    } else if (spanned.count() == 1) {
      ask.path = {from};
    } else {
      // Forth along one row and back along the next, so that the stroke covers the box.
      ask.within = spanned;
      for (int y = cells.y0; y < cells.y1; ++y) {
        const bool forth = (y - cells.y0) % 2 == 0;
        ask.path.push_back({forth ? cells.x0 : cells.x1 - 1, y});
        ask.path.push_back({forth ? cells.x1 - 1 : cells.x0, y});
      }
    }
    session_->verbs().strokes.begin(ask);
    (void)session_->work().finish();
    handlesGone_ = false;
  }
  describeCursor();
}

void MapCanvas::describeCursor() {
  const Map& here = *map();
  QStringList tiles;
  for (auto nearest = here.layers.rbegin(); nearest != here.layers.rend(); ++nearest) {
    const Cell cell = (*nearest)->cells.at(*cursor_);
    if (cell.empty()) continue;
    const Sheet* sheet = session_->quilt().sheetAt(cell.tile().slot);
    const QString name =
        sheet ? QString::fromStdString(sheet->tileName(cell.tile().number)) : tr("tile %1").arg(cell.tile().number);
    tiles << tr("%1 on %2").arg(name, QString::fromStdString((*nearest)->name));
  }
  setAccessibleDescription(tr("Cell %1, %2: %3")
                               .arg(cursor_->x - here.bounds.x0)
                               .arg(cursor_->y - here.bounds.y0)
                               .arg(tiles.isEmpty() ? tr("empty") : tiles.join(tr(", "))));
  QAccessibleEvent told(this, QAccessible::DescriptionChanged);
  QAccessible::updateAccessibility(&told);
}

void MapCanvas::focusOutEvent(QFocusEvent* event) {
  cursor_.reset();
  boxFrom_.reset();
  heldTool_.reset();
  space_ = false;
  ctrl_ = false;
  shift_ = false;
  showCursor();
  update();
  QWidget::focusOutEvent(event);
}

}  // namespace uq
