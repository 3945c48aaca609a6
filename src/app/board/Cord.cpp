#include "app/board/Cord.h"

#include <QCoreApplication>

#include "app/canvas/PinPainter.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "core/edit/Doorways.h"
#include "core/edit/Pins.h"

namespace uq {

namespace {

constexpr PixelSize kRoom{12, 10};     // cells of a new room

QString text(const char* words) { return QCoreApplication::translate("Cord", words); }

const Piece* pieceOf(const std::vector<Piece>& pieces, Id map) {
  for (const Piece& one : pieces) {
    if (one.map == map) return &one;
  }
  return nullptr;
}

}  // namespace

void Cord::pointAt(const std::vector<Piece>& pieces, std::optional<Id> hit, PixelPos at) {
  const Map* map = hit ? session_.quilt().map(*hit) : nullptr;
  const Piece* piece = map ? pieceOf(pieces, *hit) : nullptr;
  Target target;
  target.at = at;
  if (piece) {
    target.map = map->id;
    target.cell = makeGrid(map->grid)->cellAt({at.x - piece->at.x, at.y - piece->at.y});
    const std::vector<Id> pins = pinsOn(*map, target.cell);
    if (!pins.empty()) target.pin = pins.front();
  }
  const bool moved = !target_ || target_->map != target.map || target_->cell != target.cell;
  if (moved) turned_ = 0;
  target_ = target;
}

void Cord::pointAt(const Piece& piece) {
  const PixelRect& covers = piece.covers;
  pointAt({piece}, piece.map, {covers.x + covers.w / 2, covers.y + covers.h / 2});
}

void Cord::stepBy(int dx, int dy) {
  const Map* map = target_ ? session_.quilt().map(target_->map) : nullptr;
  if (!map) return;
  const auto grid = makeGrid(map->grid);
  const CellPos next = grid->stepped(target_->cell, dx, dy);
  if (!map->bounds.contains(next)) return;
  const PixelRect was = grid->cellBox(target_->cell);
  const PixelRect is = grid->cellBox(next);
  target_->at = {target_->at.x + is.x - was.x, target_->at.y + is.y - was.y};
  target_->cell = next;
  const std::vector<Id> pins = pinsOn(*map, next);
  target_->pin = pins.empty() ? Id() : pins.front();
  turned_ = 0;
}

void Cord::turn(int by) { turned_ += by; }

Heading Cord::heading() const {
  const Map* map = target_ ? session_.quilt().map(target_->map) : nullptr;
  if (!map) return Heading::north;
  return turnedHeading(map->grid.kind, proposedArrival(session_.quilt(), from_, map->id, target_->cell), turned_);
}

QString Cord::words() const {
  const Pin* pin = session_.quilt().pin(from_);
  const QString from = pin ? QString::fromStdString(pinText(*pin)) : QString();
  if (!target_) return text("From %1: press the cell to which it leads; Esc drops the cord").arg(from);
  const Map* map = session_.quilt().map(target_->map);
  if (!map && movesEnd()) return text("Drop it on a cell of a piece");
  if (!map) return text("From %1 to a new room here, and back").arg(from);
  const Pin* at = map->pin(target_->pin);
  QString to = QString::fromStdString(map->name) + QStringLiteral(", ");
  to += at ? QString::fromStdString(pinText(*at))
           : text("cell %1, %2").arg(target_->cell.x - map->bounds.x0).arg(target_->cell.y - map->bounds.y0);
  const QString facing = QString::fromUtf8(headingName(heading()).data());
  if (movesEnd()) return text("Between %1 and %2, facing %3 there · Q, E turn").arg(from, to, facing);
  return (both_ ? text("From %1 to %2, facing %3, and back · Q, E turn · O: one way") : text("From %1 to %2, facing %3, one way · Q, E turn · O: both ways"))
      .arg(from, to, facing);
}

bool Cord::isHeld() const {
  return session_.quilt().pin(from_) && (moves_.empty() || session_.quilt().listed<Doorway>(moves_));
}

Id Cord::drop(Cell floor) {
  if (!target_) return {};
  PinVerbs& pins = session_.verbs().pins;
  const Map* map = session_.quilt().map(target_->map);
  if (movesEnd()) {
    const bool moved = map && pins.moveEnd(moves_, end_, {map->id, target_->pin, target_->cell, true, heading()});
    return moved ? moves_ : Id();
  }
  if (map) return pins.lead(from_, {map->id, target_->pin, target_->cell, both_, heading()});
  RoomAsk ask;
  ask.cells = kRoom;
  ask.floor = floor;
  ask.onBoard = target_->at;
  return pins.leadToRoom(from_, ask);
}

void Cord::paint(QPainter& painter, const MapView& view, const std::vector<Piece>& pieces, const QRectF& room) {
  const Theme& theme = Theme::current();
  const auto onWidget = [&](PixelPos at) { return view.rectOf({at.x, at.y, 1, 1}).topLeft(); };
  const Piece* home = pieceOf(pieces, from_.map);
  const Map* parent = session_.quilt().map(from_.map);
  const Pin* pin = session_.quilt().pin(from_);
  if (!home || !parent || !pin) return;
  const PixelRect cell = makeGrid(parent->grid)->cellBox(middleOf(*pin, parent->bounds));
  const QPointF begin = onWidget({home->at.x + cell.x + cell.w / 2, home->at.y + cell.y + cell.h / 2});
  painter.setRenderHint(QPainter::Antialiasing);
  if (target_) {
    const QPointF end = onWidget(target_->at);
    drawStitchLine(painter, QLineF(begin, end), theme.madder, theme.paper, 3);
    paintButton(painter, end, 7, theme.lamp, true);
  }
  paintButton(painter, begin, 7, theme.lamp, true);
  painter.setRenderHint(QPainter::Antialiasing, false);
  const Map* map = target_ ? session_.quilt().map(target_->map) : nullptr;
  if (!map) return;
  look_.paint(painter, session_, map->id, target_->cell, heading(), CellLook::placeBeside(onWidget(target_->at), room, false), view.ratio);
}

}  // namespace uq
