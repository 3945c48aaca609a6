#include "app/canvas/CellLook.h"

#include "app/canvas/PinPainter.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "raster/MapPainter.h"

namespace uq {

namespace {

constexpr double kNearest = 24;  // logical pixels that a cell is wide in the look, at least
constexpr double kBeside = 24;   // logical pixels from the point

}  // namespace

QRectF CellLook::placeBeside(QPointF at, const QRectF& room, bool above) {
  const QSizeF size(kSize);
  QPointF corner = at + QPointF(kBeside, above ? -kBeside - size.height() : kBeside);
  if (corner.x() + size.width() > room.right() - 8) corner.rx() = at.x() - kBeside - size.width();
  if (corner.y() + size.height() > room.bottom() - 8) corner.ry() = at.y() - kBeside - size.height();
  if (corner.y() < room.top() + 8) corner.ry() = at.y() + kBeside;
  return {corner, size};
}

void CellLook::draw(Session& session, const Map& map, CellPos cell, const MapView& view) {
  const Theme& theme = Theme::current();
  const Drawn now{map.revision, session.quilt().sheets(), cell, view.ratio, theme.surround.rgb()};
  if (drawn_ && drawn_->map.is(now.map) && drawn_->sheets == now.sheets && drawn_->cell == cell && drawn_->ratio == now.ratio && drawn_->theme == now.theme) return;
  drawn_ = now;
  const QRect device(view.origin, (QSizeF(kSize) * view.ratio).toSize());
  picture_ = QImage(device.size(), QImage::Format_ARGB32_Premultiplied);
  picture_.fill(map.cloth ? QColor::fromRgb(*map.cloth | 0xff000000u) : theme.surround);
  session.painter().drawOver(picture_, session.quilt(), map, runsOf(map, {}), ViewScale{view.zoom}, device);
  picture_.setDevicePixelRatio(view.ratio);
}

void CellLook::paint(QPainter& painter, Session& session, Id id, CellPos cell, Heading facing, const QRectF& place, double ratio) {
  const Map* map = session.quilt().map(id);
  if (!map) return;
  const Theme& theme = Theme::current();
  const PixelRect box = makeGrid(map->grid)->cellBox(cell);
  MapView view;
  view.zoom = std::max(1.0, kNearest / map->grid.cell.w) * ratio;
  view.ratio = ratio;
  view.size = kSize;
  view.centreOn({box.x + box.w / 2.0, box.y + box.h / 2.0});
  draw(session, *map, cell, view);
  painter.save();
  painter.fillRect(place.adjusted(-4, -4, 4, 4), theme.paper);
  painter.setClipRect(place);
  painter.drawImage(place.topLeft(), picture_);
  painter.translate(place.topLeft());
  paintPins(painter, session.quilt(), *map, view, {{}, {}, {}, &session.painter().pictures()});
  const Plane plane(view, map->grid);
  painter.setRenderHint(QPainter::Antialiasing, map->grid.kind != GridKind::orthogonal);
  drawStitches(painter, QPolygonF(plane.pointsOf(plane.grid().outline(cell))), theme.madder, theme.paper);
  const QPointF middle = plane.cellRect(cell).center();
  paintButton(painter, middle, 8, theme.lamp, true);
  paintNeedle(painter, middle, 30, facing, Theme::linen().madder);
  painter.restore();
  drawStitches(painter, place, theme.madder, theme.paper);
}

}  // namespace uq
