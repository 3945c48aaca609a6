// What of MapCanvas is the hand: the mouse.
#include <QGuiApplication>
#include <QMouseEvent>
#include <algorithm>

#include "app/actions/KeyBindings.h"
#include "app/canvas/CameraFrame.h"
#include "app/canvas/Lens.h"
#include "app/canvas/MapEdges.h"
#include "app/canvas/MapCanvas.h"
#include "core/grid/CellCorner.h"
#include "core/edit/HangingPlace.h"
#include "core/edit/LayerFacts.h"

namespace uq {

namespace {

constexpr double kSnapReach = 8;  // screen pixels within which a dragged backdrop is drawn to an edge
constexpr double kMoveAfter = 4;  // logical pixels: a shorter drag moves nothing

}  // namespace

CellPos MapCanvas::inside(CellPos at) const {
  const CellRect bounds = map()->bounds;
  return {std::clamp(at.x, bounds.x0, bounds.x1 - 1), std::clamp(at.y, bounds.y0, bounds.y1 - 1)};
}

CellSet MapCanvas::spanned() const {
  const SelectionVerbs& selection = session_->verbs().selection;
  if (boxFrom_ && cursor_) return selection.boxed(*boxFrom_, *cursor_);
  if (drag_ == Drag::select && session_->desk().options.selectBy == SelectBy::outline) {
    const auto grid = makeGrid(map()->grid);
    const CellSet cells = insideOutline(*grid, map()->bounds, way_);
    const CellPos at = inside(pressed_);
    return cells.empty() ? CellSet({at.x, at.y, at.x + 1, at.y + 1}) : cells;
  }
  // A drag that begins or ends beyond the map's edge reaches to the edge.
  return selection.boxed(inside(pressed_), inside(dragged_));
}

void MapCanvas::pressToSelect(QPointF at, Selecting how) {
  pressed_ = dragged_ = cellAt(at);
  pressedAt_ = at;
  way_ = {plane().pixelAt(at)};
  selecting_ = how;
}

void MapCanvas::moveToSelect(QPointF at) {
  dragged_ = cellAt(at);
  way_.push_back(plane().pixelAt(at));
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
  SelectionVerbs& selection = session_->verbs().selection;
  selection.select(byLikeness ? selection.alike(pressed_) : spanned(), selecting_);
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
  const auto toTake = hoveredCell() ? session_->toTake(sight().pixelAt(at), behind_) : std::nullopt;
  taken_ = toTake ? toTake->covers : PixelRect();
  drag_ = Drag::take;
}

void MapCanvas::releaseToTake() {
  drag_ = Drag::none;
  if (!(dragged_ == pressed_)) {
    const CellSet cells = spanned();
    const bool cuts = ctrl_ && !KeyBindings::shared().buttonsExchanged();
    return session_->verbs().hand.takeCells(cells, shift_, cuts);
  }
  // With Select a click looks instead of taking.
  if (selects()) return openLens(hoveredCell(), true);
  if (!hoveredCell()) return;
  const PixelPos at = sight().pixelAt(pressedAt_);
  if (shift_) {
    // Gathered to what is in hand.
    if (const auto found = session_->toTake(at, behind_))
      return session_->verbs().hand.gather(Block::of(found->cell));
  }
  if (session_->takeFromMap(at, behind_).empty()) say(tr("Nothing to take here"));
}

void MapCanvas::openLens(std::optional<CellPos> at, bool withVerbs) {
  if (!at || !map() || !map()->bounds.contains(*at) || session_->inGesture()) return;
  if (!lens_) lens_ = new Lens(actions_, this);
  lens_->open(session_, *at, mapToGlobal(cellRect(*at).center().toPoint()), withVerbs);
}

void MapCanvas::showCursor() {
  const bool over = drag_ == Drag::none && pointer_ && scene_ && CameraFrame(*scene_, sight()).isAt(*pointer_);
  const HeldEdge edge = drag_ == Drag::edge ? session_->verbs().edge.edge()
                        : drag_ == Drag::none && pointer_ && scene_ && map() ? edgeUnder(*pointer_) : HeldEdge();
  const bool moves = drag_ == Drag::frame || drag_ == Drag::hang || over;
  setCursor(drag_ == Drag::pan ? Qt::ClosedHandCursor
            : space_           ? Qt::OpenHandCursor
            : moves            ? Qt::SizeAllCursor
            : edge.any()       ? cursorOf(edge, map()->grid.kind)
                               : Qt::ArrowCursor);
}

void MapCanvas::say(const QString& refusal) {
  refusal_ = refusal;
  update();
}

void MapCanvas::mousePressEvent(QMouseEvent* event) {
  ignoresSecond_ = false;
  offersGrowth_ = false;
  pointer_ = event->position();
  cursor_.reset();
  boxFrom_.reset();
  heldTool_.use();
  if (!map() || drag_ != Drag::none) return;
  ctrl_ = event->modifiers() & Qt::ControlModifier;
  shift_ = event->modifiers() & Qt::ShiftModifier;
  dragButton_ = event->button();
  press(event->position(), event->button());
  handlesGone_ = drag_ != Drag::refit;
  update();
}

Press MapCanvas::pressAt(QPointF at, Qt::MouseButton button) const {
  Press press;
  press.button = button == Qt::LeftButton    ? Press::Button::left
                 : button == Qt::RightButton ? Press::Button::right
                                             : Press::Button::middle;
  press.ctrl = ctrl_;
  press.shift = shift_;
  press.space = space_;
  press.exchanged = KeyBindings::shared().buttonsExchanged();
  press.onHandle = handleAt(handles(), at).has_value();
  press.onFrame = CameraFrame(*scene_, sight()).isAt(at);
  press.onEdge = edgeUnder(at).any();
  press.onRuler = isOnRuler(at);
  press.cell = hoveredCell();
  return press;
}

void MapCanvas::press(QPointF at, Qt::MouseButton button) {
  const Press press = pressAt(at, button);
  pressedAt_ = at;
  switch (meaningOf(session_->work(), press)) {
    case PressMeans::nothing: break;
    case PressMeans::look:
      drag_ = Drag::pan;
      lastPan_ = at;
      showCursor();
      break;
    case PressMeans::refit: pressToRefit(*handleAt(handles(), at)); break;
    case PressMeans::frame:
      playCamera(false);
      drag_ = Drag::frame;
      cameraFrom_ = *session_->desk().camera();
      break;
    case PressMeans::edge: pressToResize(at); break;
    case PressMeans::lines:
      if (rulers()->isOnSwitch(at)) {
        Desk desk = session_->desk();
        desk.linesOfLayer = !desk.linesOfLayer;
        return session_->setDesk(std::move(desk));
      }
      followRulers();
      session_->verbs().lines.take();
      if (session_->verbs().lines.isHeld()) drag_ = Drag::lines;
      break;
    case PressMeans::take: pressToTake(at); break;
    case PressMeans::hang: pressToHang(); break;
    case PressMeans::select:
      drag_ = Drag::select;
      pressToSelect(at, selectingBy(press));
      break;
    case PressMeans::moveSelected:
      drag_ = Drag::move;
      pressToSelect(at, Selecting::anew);
      break;
    case PressMeans::pins: pressToPins(at, *press.cell); break;
    case PressMeans::lay: pressToStroke(*press.cell, false); break;
    case PressMeans::takeAway: pressToStroke(*press.cell, true); break;
  }
}

void MapCanvas::pressToRefit(const StretchHandle& handle) {
  session_->verbs().strokes.beginRefit();
  if (!session_->inGesture()) return;
  handle_ = handle;
  lastPart_ = {handle.across, handle.down};
  drag_ = Drag::refit;
}

void MapCanvas::pressToHang() {
  hungFrom_ = hangs()->offset;
  hungTo_.clear();
  session_->verbs().bar.take("Shift");
  if (session_->inGesture()) {
    drag_ = Drag::hang;
  } else {
    session_->verbs().bar.leave();
  }
}

HeldEdge MapCanvas::edgeUnder(QPointF at) const {
  if (isOnRuler(at)) return {};
  // Over a stitch the hand paints on: only the edge itself is taken hold of.
  const bool sewn = neighbours_->at(ground().cellAt(at)).has_value();
  return edgeAt(ground(), map()->bounds, at, sewn ? kEdgeReach / 2 : kEdgeReach);
}

std::optional<Rulers> MapCanvas::rulers() const {
  if (!map() || !session_->desk().rulers) return std::nullopt;
  return Rulers(ground(), map()->bounds);
}

bool MapCanvas::isOnRuler(QPointF at) const {
  const auto along = rulers();
  return along && along->isOn(at);
}

void MapCanvas::followRulers() {
  if (!session_) return;
  LinesDrag& lines = session_->verbs().lines;
  const auto before = lines.lines();
  const auto along = rulers();
  const bool points = along && pointer_ && drag_ == Drag::none && !space_ && !session_->inGesture();
  lines.point(points ? along->placeAt(*pointer_) : std::nullopt, ctrl_);
  if (!(before == lines.lines())) update();
}

void MapCanvas::pressToResize(QPointF at) {
  // The view stays while the map changes its size under the hand.
  fits_ = false;
  if (session_->verbs().edge.take(edgeUnder(at), ground().cellAt(at))) drag_ = Drag::edge;
  followAllowance();
}

void MapCanvas::dragLines(QPointF at) {
  const auto along = rulers();
  const auto place = session_->verbs().lines.place();
  if (!along || !place) return;
  session_->verbs().lines.dragTo(along->reached(*place, at), ctrl_);
  update();
}

void MapCanvas::pressToStroke(CellPos at, bool takesAway) {
  dragTakesAway_ = takesAway;
  Strokes& strokes = session_->verbs().strokes;
  strokes.begin(strokes.askAt(at, takesAway, shift_, pointing().corner));
  if (session_->inGesture()) drag_ = Drag::stroke;
  pressed_ = at;
  lastPart_ = {};
}

int MapCanvas::cornerAt(QPointF at) const {
  if (!map() || !session_->desk().options.halfCell) return 0;
  const Plane here = plane();
  return cornerNear(here.grid(), here.pixelAt(at)).corner;
}

void MapCanvas::moveStroke(QPointF at) {
  const CellPos to = cellAt(at);
  session_->verbs().strokes.moveTo(to, shift_, cornerAt(at));
  if (session_->verbs().strokes.stretchBox()) {
    // The end at the pointer is the one whose look the wheel changes.
    const auto grid = makeGrid(map()->grid);
    const SidePos way = grid->toSide(to) - grid->toSide(pressed_);
    lastPart_ = {way.u > 0 ? 1 : way.u < 0 ? -1 : 0, way.v > 0 ? 1 : way.v < 0 ? -1 : 0};
  }
  updateOverlay();
}

void MapCanvas::mouseMoveEvent(QMouseEvent* event) {
  const auto before = hoveredCell();
  const int cornerBefore = pointer_ ? cornerAt(*pointer_) : 0;
  // A canvas that moves under a resting pointer is no movement of the hand.
  if (pointer_ != event->position()) cursor_.reset();
  if (takenAt_ != event->position() && drag_ != Drag::take) takenAt_.reset();
  if (!cursor_) boxFrom_.reset();
  pointer_ = event->position();
  followModifiers(event->modifiers());
  if (!map()) return;
  switch (drag_) {
    case Drag::none: followRulers(); break;
    case Drag::lines: dragLines(event->position()); break;
    case Drag::pan:
      scrollBy(lastPan_ - event->position());
      lastPan_ = event->position();
      break;
    case Drag::stroke: moveStroke(event->position()); break;
    case Drag::frame: {
      const QPointF by = (event->position() - pressedAt_) / zoom();
      session_->verbs().maps.setCamera({cameraFrom_.x + qRound(by.x()), cameraFrom_.y + qRound(by.y())});
      break;
    }
    case Drag::hang: dragBackdrop(event->position()); break;
    case Drag::edge: session_->verbs().edge.dragTo(ground().cellAt(event->position()), shift_, ctrl_); break;
    case Drag::refit:
      if (handle_) dragHandle(*scene_, *handle_, cellAt(endWith(*handle_, event->position())));
      update();
      break;
    case Drag::take:
      dragged_ = cellAt(event->position());
      if (!(dragged_ == pressed_)) taken_ = {};
      update();
      break;
    case Drag::select:
    case Drag::move: moveToSelect(event->position()); break;
    case Drag::pins:
    case Drag::pinFrame:
      dragged_ = cellAt(event->position());
      update();
      break;
  }
  showCursor();
  if (hoveredCell() != before || cornerAt(event->position()) != cornerBefore) {
    refusal_.clear();
    offersGrowth_ = offersGrowth_ && !hoveredCell();
    updateOverlay();
  }
  Q_EMIT hovered();
}

const Layer* MapCanvas::hangs() const { return session_ ? hangingLayer(session_->work()) : nullptr; }

void MapCanvas::dragBackdrop(QPointF to) {
  const QPointF by = (to - pressedAt_) / zoom();
  const PixelPos wished{hungFrom_.x + qRound(by.x()), hungFrom_.y + qRound(by.y())};
  // With Ctrl it goes anywhere.
  const int reach = ctrl_ ? -1 : qRound(kSnapReach / zoom());
  const HangingPlace place = hangingPlace(session_->quilt(), session_->desk().activeAt(), wished, reach);
  hungTo_ = place.at;
  session_->verbs().layers.change("Shift", [&](const Quilt& quilt, LayerAt at) {
    // Those chosen beside it go along.
    if (at == session_->desk().activeAt()) return withOffset(quilt, at, place.offset);
    const PixelPos own = quilt.layer(at)->offset;
    return withOffset(quilt, at, {own.x + place.offset.x - hungFrom_.x, own.y + place.offset.y - hungFrom_.y});
  });
  update();
}

void MapCanvas::endDrag() {
  const bool ofGesture = drag_ == Drag::stroke || drag_ == Drag::refit || drag_ == Drag::move || drag_ == Drag::hang ||
                         drag_ == Drag::edge;
  if (!ofGesture) return;
  // The session forgets that a bar was taken hold of.
  if (std::exchange(drag_, Drag::none) == Drag::hang) session_->verbs().bar.leave();
  followAllowance();
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
  if (drag_ == Drag::lines && pointer_) dragLines(*pointer_);
  followRulers();
  updateOverlay();
}

void MapCanvas::ignoreSecondPress() { ignoresSecond_ = true; }

void MapCanvas::mouseDoubleClickEvent(QMouseEvent* event) {
  if (std::exchange(ignoresSecond_, false)) return;
  if (const HeldEdge edge = map() && event->button() == Qt::LeftButton ? edgeUnder(event->position()) : HeldEdge(); edge.any()) {
    return session_->verbs().maps.cutToUsed(edge);
  }
  if (event->button() == Qt::LeftButton && map() && openBeyondTwice(event->position())) return;
  if (event->button() != Qt::LeftButton || !selects() || !hoveredCell()) return mousePressEvent(event);
  const CellPos at = *hoveredCell();
  if (session_->verbs().strokes.recogniseStretch(at)) {
    handlesGone_ = false;
  } else if (!session_->verbs().selection.selectStampAt(at)) {
    mousePressEvent(event);
  }
  update();
}

void MapCanvas::mouseReleaseEvent(QMouseEvent* event) {
  if (drag_ == Drag::none || event->button() != dragButton_) return;
  followModifiers(event->modifiers());
  taken_ = {};
  const bool rested = (event->position() - pressedAt_).manhattanLength() < kMoveAfter;
  if (rested && drag_ == Drag::take) dragged_ = pressed_;
  const Drag ended = drag_;
  if (session_ && ended == Drag::hang) session_->verbs().bar.leave();
  if (session_ && ended == Drag::edge) session_->verbs().edge.leave();
  if (session_ && ended == Drag::lines) session_->verbs().lines.leave();
  if (session_ && (ended == Drag::stroke || ended == Drag::refit)) {
    const Stroke* stroke = forecast_->underWay();
    // One that ends outside; a broad one along the edge is no wish for a larger map.
    const bool clipped = stroke && stroke->reachesBeyond() && !reached(cellAt(event->position()));
    const auto made = session_->work().finish();
    noteBeyond(made && *made);
    offersGrowth_ = clipped && map() && !map()->growsAsPainted;
    const QPointF at = event->position();
    offeredAt_ = {std::clamp(at.x(), 0.0, double(width())), std::clamp(at.y(), 0.0, double(height()))};
    handlesGone_ = false;
  }
  if (session_ && (ended == Drag::select || ended == Drag::move)) releaseToSelect();
  if (session_ && ended == Drag::take) releaseToTake();
  drag_ = Drag::none;
  if (session_ && (ended == Drag::pins || ended == Drag::pinFrame)) {
    releaseToPins(ended, event->position(), event->modifiers() & Qt::AltModifier);
  }
  followRulers();
  if (ended == Drag::edge) followAllowance();
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

void MapCanvas::springBack() {
  const auto tool = session_ ? heldTool_.springsBackTo() : std::nullopt;
  if (!tool) return;
  Desk desk = session_->desk();
  desk.tool = *tool;
  session_->setDesk(std::move(desk));
}

void MapCanvas::leaveEvent(QEvent*) {
  pointer_.reset();
  refusal_.clear();
  followRulers();
  updateOverlay();
  Q_EMIT hovered();
}

}  // namespace uq
