// What of BoardView is the cord: making a doorway, and the ways that are there.
#include <QKeyEvent>

#include "app/board/BoardView.h"
#include "app/board/Cord.h"
#include "app/canvas/PinPainter.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "core/edit/Pins.h"

namespace uq {

void BoardView::takeCord(PinAt from) {
  if (!session_ || !session_->quilt().pin(from)) return;
  cord_ = std::make_unique<Cord>(*session_, from);
  choose(from.map);
  say(cord_->words());
  setFocus(Qt::OtherFocusReason);
  setMouseTracking(true);
  update();
}

void BoardView::dropCord(bool leads) {
  if (!cord_) return;
  const PinAt from = cord_->from();
  if (leads) {
    const InHand& hand = session_->desk().inHand;
    const Cell floor = hand.block.parts().size() == 1 ? hand.block.parts().front().cell : Cell();
    if (cord_->drop(floor).empty()) return update();  // it stays in hand, and why was said
  }
  cord_.reset();
  say({});
  update();
  Q_EMIT cordGone(from);
}

void BoardView::moveCord(QPointF at) {
  cord_->pointAt(pieces_, pieceAt(session_->quilt(), pieces_, cloth(at)), cloth(at));
  say(cord_->words());
  update();
}

bool BoardView::cordKey(const QKeyEvent& event) {
  if (!cord_) return false;
  const auto step = [&](int dx, int dy) {
    if (event.modifiers() & Qt::ShiftModifier) return cord_->stepBy(dx, dy);
    const Id at = cord_->target() && !cord_->target()->map.empty() ? cord_->target()->map : chosen_;
    if (const auto next = pieceBeside(pieces_, at, dx, dy)) cord_->pointAt(*piece(*next));
  };
  switch (event.key()) {
    case Qt::Key_Escape: dropCord(false); return true;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      if (cord_->target()) dropCord(true);
      return true;
    case Qt::Key_Left: step(-1, 0); break;
    case Qt::Key_Right: step(1, 0); break;
    case Qt::Key_Up: step(0, -1); break;
    case Qt::Key_Down: step(0, 1); break;
    case Qt::Key_Q: cord_->turn(-1); break;
    case Qt::Key_E: cord_->turn(1); break;
    case Qt::Key_O: cord_->setBoth(!cord_->both()); break;
    default: return false;
  }
  say(cord_->words());
  update();
  return true;
}

void BoardView::paintCords(QPainter& painter) const {
  const Theme& theme = Theme::current();
  const MapView view = sight();
  const auto place = [&](PinAt at) -> std::optional<QPointF> {
    const Piece* on = piece(at.map);
    const Map* map = session_->quilt().map(at.map);
    const Pin* pin = session_->quilt().pin(at);
    if (!on || !map || !pin) return std::nullopt;
    const PixelRect cell = makeGrid(map->grid)->cellBox(middleOf(*pin, map->bounds));
    return view.rectOf({on->at.x + cell.x + cell.w / 2, on->at.y + cell.y + cell.h / 2, 1, 1}).topLeft();
  };
  painter.setRenderHint(QPainter::Antialiasing);
  for (const Shared<Doorway>& doorway : session_->quilt().doorways()) {
    const auto from = place(doorway->from);
    const auto to = place(doorway->to);
    const bool shows = all_.contains(doorway->from.map) || all_.contains(doorway->to.map);
    if (shows && from && to) drawStitchLine(painter, QLineF(*from, *to), theme.ink, theme.lamp, 2);
    for (const auto& end : {from, to}) {
      if (end) paintButton(painter, *end, shows ? 6 : 4, theme.lamp, false);
    }
  }
  painter.setRenderHint(QPainter::Antialiasing, false);
  if (cord_) cord_->paint(painter, view, pieces_, QRectF(rect()));
}

}  // namespace uq
