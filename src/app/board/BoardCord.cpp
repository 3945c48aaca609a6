// What of BoardView is the cord: making a doorway, and the ways that are there.
#include <QKeyEvent>

#include "app/board/BoardView.h"
#include "app/board/Cord.h"
#include "app/canvas/PinPainter.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "core/edit/Pins.h"

namespace uq {

namespace {

constexpr double kCordButton = 8;    // logical pixels, radius
constexpr double kNumbersFrom = 72;  // logical pixels that a piece is wide

void paintDisc(QPainter& painter, QPointF middle, double radius, const QColor& edge, double width) {
  painter.setPen(QPen(edge, width));
  painter.setBrush(Theme::current().lamp);
  painter.drawEllipse(middle, radius, radius);
}

}  // namespace

void BoardView::takeCord(PinAt from) {
  if (!session_ || !session_->quilt().pin(from)) return;
  cord_ = std::make_unique<Cord>(*session_, from);
  choose(from.map);
  say(cord_->words());
  setFocus(Qt::OtherFocusReason);
  update();
}

void BoardView::putCordAway() {
  if (!cord_) return;
  const PinAt from = cord_->from();
  const bool cameForIt = !cord_->movesEnd();
  cord_.reset();
  say({});
  update();
  if (cameForIt) Q_EMIT cordGone(from);
}

void BoardView::dropLostCord() {
  if (cord_ && !cord_->isHeld()) putCordAway();
}

void BoardView::dropCord(bool leads) {
  if (!cord_) return;
  if (!leads) return putCordAway();
  const InHand& hand = session_->desk().inHand;
  const Cell floor = hand.block.parts().size() == 1 ? hand.block.parts().front().cell : Cell();
  say({});
  const bool led = !cord_->drop(floor).empty();
  // A cord that was taken for a new way stays in hand; why not was said.
  if (!led && !cord_->movesEnd()) return update();
  const QString why = said_;
  putCordAway();
  say(why);
}

void BoardView::moveCord(QPointF at) {
  cord_->pointAt(pieces_, pieceAt(session_->quilt(), pieces_, cloth(at)), cloth(at));
  say(cord_->words());
  update();
}

bool BoardView::cordKey(const QKeyEvent& event) {
  if (!cord_) return false;
  if (drag_ == Drag::cord && event.key() == Qt::Key_Escape) {
    drag_ = Drag::none;
    putCordAway();
    return true;
  }
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

const std::vector<LaidCord>& BoardView::laidCords() const {
  if (!cords_) cords_ = uq::laidCords(session_->quilt(), pieces_);
  return *cords_;
}

std::optional<QPointF> BoardView::buttonAt(PinAt at) const {
  if (!session_) return std::nullopt;
  for (const LaidCord& cord : laidCords()) {
    for (const LaidCord::End& end : {cord.from, cord.to}) {
      if (end.pin == at && end.at) return sight().rectOf({end.at->x, end.at->y, 1, 1}).topLeft();
    }
  }
  return std::nullopt;
}

void BoardView::showDoorway(Id id) {
  lit_ = id;
  const Doorway* doorway = session_ ? session_->quilt().listed<Doorway>(id) : nullptr;
  if (doorway) {
    bringIntoSight(doorway->to.map);
    bringIntoSight(doorway->from.map);
  }
  update();
}

bool BoardView::showsCord(const LaidCord& cord) const {
  const auto isShown = [&](Id map) { return all_.contains(map) || (!hovered_.empty() && map == hovered_); };
  return cord.doorway == lit_ || isShown(cord.from.pin.map) || isShown(cord.to.pin.map);
}

std::optional<BoardView::CordEnd> BoardView::endUnder(QPointF at) const {
  if (!session_ || cord_ || draws_ != Draws::nothing) return std::nullopt;
  const MapView view = sight();
  std::optional<CordEnd> found;
  for (const LaidCord& cord : laidCords()) {
    // Of pieces that are only pointed at nothing can be taken: a press there is for the piece.
    if (cord.doorway != lit_ && !all_.contains(cord.from.pin.map) && !all_.contains(cord.to.pin.map)) continue;
    // What is shown before the others lies nearest.
    if (found && cord.doorway != lit_) continue;
    for (const LaidCord::End& end : {cord.to, cord.from}) {
      if (!end.at) continue;
      const QPointF button = view.rectOf({end.at->x, end.at->y, 1, 1}).topLeft();
      if ((at - button).manhattanLength() <= kCordButton + 2) found = CordEnd{cord.doorway, end.pin};
    }
  }
  return found;
}

void BoardView::hover(QPointF at) {
  const auto hit = pieceAt(session_->quilt(), pieces_, cloth(at));
  const Id now = hit && session_->quilt().map(*hit) ? *hit : Id();
  if (now == hovered_) return;
  hovered_ = now;
  if (!session_->quilt().doorways().empty()) update();
}

void BoardView::tellChoice() {
  if (toldChoice_ == all_) return;
  toldChoice_ = all_;
  Q_EMIT choiceChanged();
}

void BoardView::paintCords(QPainter& painter) const {
  if (!session_) return;
  const Theme& theme = Theme::current();
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  QFont font = painter.font();
  font.setPointSizeF(font.pointSizeF() * 0.8);
  font.setBold(true);
  painter.setFont(font);
  const QRectF seen = QRectF(rect()).adjusted(-16, -16, 16, 16);
  const MapView view = sight();
  const auto placeOf = [&](const LaidCord::End& end) { return view.rectOf({end.at->x, end.at->y, 1, 1}).topLeft(); };
  std::map<Id, bool> isLarge;
  const auto button = [&](const LaidCord::End& end, bool shown, bool isLit) {
    if (!end.at) return;
    const QPointF at = placeOf(end);
    if (!seen.contains(at)) return;
    // On pieces that are small the buttons would hide them.
    const auto [large, isNew] = isLarge.try_emplace(end.pin.map);
    if (isNew) large->second = pieceRect(end.pin.map).width() >= kNumbersFrom;
    if (!shown && !large->second) return paintButton(painter, at, 3, theme.lamp, false);
    paintDisc(painter, at, kCordButton, isLit ? theme.madder : Theme::linen().ink, isLit ? 2 : 1.2);
    painter.setPen(Theme::linen().ink);
    painter.drawText(QRectF(at.x() - 12, at.y() - 12, 24, 24), Qt::AlignCenter, QString::number(end.number));
  };
  const auto draw = [&](const LaidCord& cord, bool isLit) {
    const bool shows = showsCord(cord);
    if (shows && cord.from.at && cord.to.at) {
      drawStitchLine(painter, QLineF(placeOf(cord.from), placeOf(cord.to)), isLit ? theme.madder : Theme::linen().ink, theme.lamp, isLit ? 3 : 2);
    }
    button(cord.from, shows, isLit);
    button(cord.to, shows, isLit);
  };
  const LaidCord* lit = nullptr;
  for (const LaidCord& cord : laidCords()) {
    if (cord.doorway == lit_) lit = &cord;
    else draw(cord, false);
  }
  if (lit) draw(*lit, true);
  painter.restore();
  if (cord_) cord_->paint(painter, sight(), pieces_, QRectF(rect()));
}

}  // namespace uq
