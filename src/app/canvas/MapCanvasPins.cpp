// What of MapCanvas is the tool Pins: placing, choosing, dragging, going through.
#include <algorithm>
#include <cmath>

#include "app/canvas/MapCanvas.h"
#include "app/canvas/PinPainter.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "core/edit/Doorways.h"
#include "core/edit/Pins.h"
#include "core/edit/Seams.h"

namespace uq {

namespace {

constexpr double kEdgeRoom = 40;  // logical pixels beyond an edge in which it is pointed at

}  // namespace

Id MapCanvas::pinUnder(QPointF at) const {
  const MapView view = sight();
  for (auto one = map()->layers.rbegin(); one != map()->layers.rend(); ++one) {
    const Layer& layer = one->read();
    if (!layer.holdsPins() || session_->desk().hidden.contains(layer.id)) continue;
    for (const Id pin : pinsOn(*map(), scene_->plane(view, layer).cellAt(at), session_->desk().hidden)) {
      if (map()->layerOfPin(pin)->id == layer.id) return pin;
    }
  }
  return {};
}

std::optional<MapEdge> MapCanvas::edgeToLead(CellPos at) const {
  if (!pins()) return std::nullopt;
  // Three cells out, and where cells are small as far as a hand needs beside the handle of the edge.
  const PixelSize cell = map()->grid.cell;
  const int reach = static_cast<int>(std::ceil(kEdgeRoom / (std::min(cell.w, cell.h) * zoom())));
  return edgeBeyond(map()->bounds, at, std::max(3, reach));
}

void MapCanvas::pressToPins(QPointF point, CellPos at) {
  PinVerbs& pins = session_->verbs().pins;
  pressed_ = dragged_ = at;
  const Id there = pinUnder(point);
  if (there.empty()) {
    drag_ = Drag::pinFrame;
    return;
  }
  if (ctrl_) return pins.follow({session_->desk().map, there});
  if (shift_) return pins.alsoChoose(there);
  if (!session_->desk().chosenPins.contains(there)) pins.choose({there});
  drag_ = Drag::pins;
}

SidePos MapCanvas::pinsDragged() const {
  if (drag_ != Drag::pins) return {};
  const auto grid = makeGrid(map()->grid);
  return grid->toSide(dragged_) - grid->toSide(pressed_);
}

void MapCanvas::releaseToPins(Drag ended, QPointF at, bool alt) {
  PinVerbs& pins = session_->verbs().pins;
  const auto grid = makeGrid(map()->grid);
  if (ended == Drag::pins) return pins.moveBy(grid->toSide(dragged_) - grid->toSide(pressed_));
  const CellRect box = CellRect::around(inside(pressed_), inside(dragged_));
  if (!(dragged_ == pressed_)) {
    if (shift_) return pins.place(box);
    return pins.choose(pinsWithin(*session_->map(), box, session_->desk().hidden));
  }
  if (const auto edge = edgeToLead(pressed_)) return pins.placeEdge(*edge);
  PixelPos beside;
  if (alt) {
    const PixelRect cell = grid->cellBox(pressed_);
    const PixelPos pixel = plane().pixelAt(at);
    beside = {pixel.x - cell.x - cell.w / 2, pixel.y - cell.y - cell.h / 2};
  }
  pins.place(CellRect::around(pressed_, pressed_), beside);
}

void MapCanvas::paintPinsOver(QPainter& painter) const {
  paintPins(painter, session_->quilt(), *map(), sight(), {session_->desk().hidden, session_->desk().chosenPins, pinsDragged(), &session_->painter().pictures()});
  if (drag_ != Drag::pinFrame || dragged_ == pressed_) return;
  const Plane here = plane();
  const CellRect box = CellRect::around(inside(pressed_), inside(dragged_));
  const Theme& theme = Theme::current();
  drawStitches(painter, QPolygonF(here.pointsOf(here.grid().perimeter(box))), shift_ ? theme.woad : theme.madder, theme.paper);
}

void MapCanvas::useCursorOnPins() {
  PinVerbs& pins = session_->verbs().pins;
  const Id there = pins.pinAt(*cursor_);
  if (!there.empty()) return pins.choose({there});
  if (map()->bounds.contains(*cursor_)) pins.place(CellRect::around(*cursor_, *cursor_));
}

QString MapCanvas::pinWords() const {
  const auto cell = hoveredCell();
  if (!cell) return {};
  const PinVerbs& pins = session_->verbs().pins;
  if (drag_ == Drag::pinFrame && !(dragged_ == pressed_)) {
    const CellRect box = CellRect::around(inside(pressed_), inside(dragged_));
    return shift_ ? tr("A spot of %1 × %2 cells").arg(box.width()).arg(box.height()) : tr("Choose what lies within");
  }
  if (const auto edge = edgeToLead(*cell)) {
    const QString name = QString::fromStdString(edgeText(map()->grid.kind, *edge));
    const std::string sewn = sewnAlong(session_->quilt(), map()->id, *edge);
    return sewn.empty() ? tr("The %1 as a spot: leave by it").arg(name) : tr("The %1 is sewn to %2").arg(name, QString::fromStdString(sewn));
  }
  const Id there = pointer_ && !cursor_ ? pinUnder(*pointer_) : pins.pinAt(*cell);
  const Pin* pin = map()->pin(there);
  if (!pin) return drag_ == Drag::pins ? QString() : tr("Place a spot");
  QString words = QString::fromStdString(pinText(*pin));
  for (const Id way : doorwaysOf(session_->quilt(), PinAt{map()->id, there})) {
    words = QString::fromStdString(doorwayText(session_->quilt(), *session_->quilt().listed<Doorway>(way)));
    if (arrivalFrom(session_->quilt(), {map()->id, there})) words += tr(" · Ctrl+click goes through");
    break;
  }
  if (session_->quilt().facts().start == PinAt{map()->id, there}) words += tr(" · the player begins here");
  return words;
}

std::optional<MapCanvas::Led> MapCanvas::whereItLeads() const {
  if (!pins() || drag_ != Drag::none || !map()) return std::nullopt;
  const auto cell = hoveredCell();
  if (!cell || edgeToLead(*cell)) return std::nullopt;
  const Id pin = pointer_ && !cursor_ ? pinUnder(*pointer_) : session_->verbs().pins.pinAt(*cell);
  const auto to = pin.empty() ? std::nullopt : arrivalFrom(session_->quilt(), {map()->id, pin});
  if (!to || !session_->quilt().pin(to->at)) return std::nullopt;
  return Led{to->at, to->facing, CellLook::placeBeside(cellRect(*cell).center(), QRectF(rect()), true)};
}

void MapCanvas::paintWhereItLeads(QPainter& painter) {
  const auto led = whereItLeads();
  if (!led) return;
  if (!look_) look_.emplace();
  const Map& there = *session_->quilt().map(led->to.map);
  look_->paint(painter, *session_, led->to.map, middleOf(*there.pin(led->to.pin), there.bounds), led->facing, led->place, devicePixelRatioF());
}

void MapCanvas::showArrival() {
  const auto& at = session_->verbs().pins.arrived();
  const Pin* pin = at && map() && at->map == map()->id ? map()->pin(at->pin) : nullptr;
  if (!pin) return;
  const QRectF cell = cellRect(middleOf(*pin, map()->bounds));
  if (QRectF(rect()).adjusted(40, 40, -40, -40).contains(cell)) return;
  scrollBy(cell.center() - QRectF(rect()).center());
}

}  // namespace uq
