#include "app/canvas/PinPainter.h"

#include <QPainterPath>
#include <cmath>
#include <map>
#include <numbers>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "core/edit/Pins.h"
#include "raster/SheetPictures.h"

namespace uq {

namespace {

constexpr double kButton = 8;      // logical pixels, radius
constexpr double kNeedle = 22;     // from the middle to its tip
constexpr double kPatch = 12;      // half the side of a picture in its place
constexpr double kKnot = 4;        // likewise, where cells are small
constexpr double kButtonFrom = 14; // logical pixels a cell
constexpr double kNamesFrom = 24;
constexpr int kMostNamed = 200;
constexpr int kMostLetters = 80;   // that are measured

struct Role {
  bool leads = false;
  bool starts = false;
  std::optional<Heading> arriving;
  std::optional<TileId> picture;
};

std::map<Id, Role> rolesOn(const Quilt& quilt, Id map) {
  std::map<Id, Role> roles;
  for (const Shared<Doorway>& doorway : quilt.doorways()) {
    for (const PinAt& end : {doorway->from, doorway->to}) {
      if (doorway->picture && end.map == map) roles[end.pin].picture = doorway->picture;
    }
    if (doorway->from.map == map) roles[doorway->from.pin].leads = true;
    if (doorway->from.map == map && doorway->back) roles[doorway->from.pin].arriving = doorway->back;
    if (doorway->to.map == map) roles[doorway->to.pin].arriving = doorway->arriving;
    if (doorway->to.map == map && doorway->back) roles[doorway->to.pin].leads = true;
  }
  const PinAt start = quilt.facts().start;
  if (start.map == map) roles[start.pin].starts = true;
  return roles;
}

// A button drawn once for all pins of its look.
QPixmap buttonPicture(double radius, const QColor& colour, bool isChosen, double ratio) {
  const double side = 2 * radius + 4;
  QPixmap picture((QSizeF(side, side) * ratio).toSize());
  picture.setDevicePixelRatio(ratio);
  picture.fill(Qt::transparent);
  QPainter painter(&picture);
  paintButton(painter, QPointF(side / 2, side / 2), radius, colour, isChosen);
  return picture;
}

// A tile in a button's place, upon a patch of cloth; nothing where the sheet has no such tile.
QPixmap tilePicture(const Quilt& quilt, const SheetPictures& pictures, const TileId& tile, double ratio) {
  const auto slot = quilt.slots().find(tile.sheet);
  const auto image = slot ? pictures.turned(quilt, Cell({*slot, tile.tile}, {})) : std::nullopt;
  if (!image || image->isNull()) return {};
  const double side = 2 * kPatch;
  QPixmap picture((QSizeF(side, side) * ratio).toSize());
  picture.setDevicePixelRatio(ratio);
  picture.fill(Qt::transparent);
  QPainter painter(&picture);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(Theme::current().ink, 1));
  painter.setBrush(Theme::current().paper);
  painter.drawRoundedRect(QRectF(.5, .5, side - 1, side - 1), 3, 3);
  const QSizeF size = QSizeF(image->size()).scaled(side - 4, side - 4, Qt::KeepAspectRatio);
  painter.drawImage(QRectF({(side - size.width()) / 2, (side - size.height()) / 2}, size), *image);
  return picture;
}

void paintWords(QPainter& painter, const QString& words, QPointF at) {
  const Theme& theme = Theme::current();
  QPainterPath path;
  path.addText(at, painter.font(), words);
  painter.setPen(QPen(theme.paper, 3, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
  painter.setBrush(Qt::NoBrush);
  painter.drawPath(path);
  painter.fillPath(path, theme.ink);
}

}  // namespace

QPointF pinPoint(const Plane& plane, const Map& map, const Pin& pin) {
  const CellRect cells = cellsOf(pin, map.bounds);
  const QPointF first = plane.cellRect({cells.x0, cells.y0}).center();
  const QPointF last = plane.cellRect({cells.x1 - 1, cells.y1 - 1}).center();
  const double zoom = plane.view().zoom / plane.view().ratio;
  return (first + last) / 2 + QPointF(pin.beside.x, pin.beside.y) * zoom;
}

void paintButton(QPainter& painter, QPointF middle, double radius, const QColor& colour, bool isChosen) {
  const Theme& theme = Theme::linen();  // buttons are light in every light
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(isChosen ? theme.madder : theme.ink, isChosen ? 2 : 1.2));
  painter.setBrush(colour);
  painter.drawEllipse(middle, radius, radius);
  if (radius >= kButton - 1) {
    // A rim, four holes, and the two stitches that hold it.
    painter.setPen(QPen(theme.ink, 0.6));
    painter.drawEllipse(middle, radius * 0.72, radius * 0.72);
    const double hole = radius * 0.3;
    painter.setPen(QPen(theme.ink, 1.8, Qt::SolidLine, Qt::RoundCap));
    for (const double side : {-hole, hole}) painter.drawLine(middle + QPointF(side, -hole), middle + QPointF(side, hole));
  }
  painter.restore();
}

void paintNeedle(QPainter& painter, QPointF middle, double length, Heading heading, const QColor& colour) {
  const double angle = (static_cast<int>(heading) - 2) * std::numbers::pi / 4;
  const QPointF way(std::cos(angle), std::sin(angle));
  const QPointF across(-way.y(), way.x());
  const QPointF eye = middle + way * (length * 0.45);
  const QPointF tip = middle + way * length;
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(Theme::linen().paper, 1));
  painter.setBrush(colour);
  painter.drawPolygon(QPolygonF({eye + across * 3.2, tip, eye - across * 3.2}));
  painter.restore();
}

void paintPins(QPainter& painter, const Quilt& quilt, const Map& map, const MapView& view, const PinsShown& shown) {
  const bool any = std::any_of(map.layers.begin(), map.layers.end(), [&](const auto& one) { return !one->pins->empty() && !shown.hidden.contains(one->id); });
  if (!any) return;
  const Theme& theme = Theme::current();
  const std::map<Id, Role> roles = rolesOn(quilt, map.id);
  const double cellWide = map.grid.cell.w * view.zoom / view.ratio;
  const double cellHigh = map.grid.cell.h * view.zoom / view.ratio;
  const double cell = std::min(cellWide, cellHigh);
  const double radius = cell >= kButtonFrom ? kButton : kKnot;
  const QPixmap plain = buttonPicture(radius, Theme::linen().paper, false, view.ratio);
  const QPixmap leading = buttonPicture(radius, theme.lamp, false, view.ratio);
  const QPixmap chosen = buttonPicture(radius + 2, theme.lamp, true, view.ratio);
  const QRectF seen = QRectF(QPointF(), QSizeF(view.size)).adjusted(-20, -20, 20, 20);
  std::map<std::pair<Id, std::uint32_t>, QPixmap> patches;
  std::vector<std::pair<const Pin*, QPointF>> named;
  std::set<std::pair<int, int>> taken;  // places of plain buttons, in steps of two logical pixels
  for (const Shared<Layer>& layer : map.layers) {
    if (!layer->holdsPins() || shown.hidden.contains(layer->id)) continue;
    const Plane ground(view, map.grid, map.planeOf(layer.read()));
    const CellRect near = ground.cellsInSight().grown(2);
    for (const Pin& pin : layer->pins.read()) {
      const bool isChosen = shown.chosen.contains(pin.id);
      if (!isChosen && !pin.edge && near.intersected(pin.box()).empty()) continue;
      const Pin* drawn = &pin;
      Pin dragged;
      if (isChosen && !(shown.by == SidePos{}) && !pin.edge) {
        dragged = pin;
        dragged.cell = ground.grid().fromSide(ground.grid().toSide(pin.cell) + shown.by);
        drawn = &dragged;
      }
      const QPointF middle = pinPoint(ground, map, *drawn);
      const CellRect cells = cellsOf(*drawn, map.bounds);
      const bool isBox = cells.width() > 1 || cells.height() > 1;
      if (!isBox && !seen.contains(middle)) continue;
      if (isBox) {
        painter.setRenderHint(QPainter::Antialiasing, map.grid.kind != GridKind::orthogonal);
        drawStitches(painter, QPolygonF(ground.pointsOf(ground.grid().perimeter(cells))), isChosen ? theme.madder : theme.ink, theme.lamp);
        painter.setRenderHint(QPainter::Antialiasing, false);
      }
      const auto role = roles.find(pin.id);
      static const Role kNone;
      const Role& is = role == roles.end() ? kNone : role->second;
      // Of very many on the same pixels one is seen.
      const bool isPlain = role == roles.end() && !isChosen && !isBox;
      if (isPlain && !taken.insert({qRound(middle.x() / 2), qRound(middle.y() / 2)}).second) continue;
      const QPixmap* patch = nullptr;
      if (is.picture && shown.pictures && radius == kButton) {
        const auto [made, isNew] = patches.try_emplace({is.picture->sheet, is.picture->tile});
        if (isNew) made->second = tilePicture(quilt, *shown.pictures, *is.picture, view.ratio);
        if (!made->second.isNull()) patch = &made->second;
      }
      const QPixmap& picture = patch ? *patch : isChosen ? chosen : is.leads ? leading : plain;
      if (is.arriving && radius == kButton) paintNeedle(painter, middle, kNeedle, *is.arriving, Theme::linen().madder);
      const QSizeF size = QSizeF(picture.size()) / view.ratio;
      painter.drawPixmap(middle - QPointF(size.width() / 2, size.height() / 2), picture);
      if (patch && isChosen) drawStitches(painter, QRectF(middle.x() - kPatch - 1, middle.y() - kPatch - 1, 2 * kPatch + 2, 2 * kPatch + 2), theme.madder, theme.paper);
      if (is.starts) {
        // Where the player begins: stitched round twice.
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(theme.madder, 2, Qt::DashLine));
        painter.drawEllipse(middle, radius + 5, radius + 5);
        painter.setRenderHint(QPainter::Antialiasing, false);
      }
      if (cell >= kNamesFrom && static_cast<int>(named.size()) <= kMostNamed) named.emplace_back(&pin, middle);
    }
  }
  if (named.size() > kMostNamed) return;
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  QFont font = painter.font();
  font.setPointSizeF(font.pointSizeF() * 0.85);
  font.setBold(true);
  painter.setFont(font);
  const QFontMetrics metrics(font);
  for (const auto& [pin, middle] : named) {
    const QString number = QString::number(pin->number);
    const QString name = metrics.elidedText(QString::fromStdString(pin->name).left(kMostLetters), Qt::ElideRight, 160);
    paintWords(painter, name.isEmpty() ? number : number + QStringLiteral(" · ") + name, middle + QPointF(radius + 4, radius + metrics.ascent() / 2.0));
  }
  painter.restore();
}

}  // namespace uq
