#include <QImage>
#include <algorithm>

#include "app/canvas/Overlay.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "core/cells/CellReader.h"

namespace uq {

namespace {

constexpr double kGridLinesFrom = 6;  // logical pixels a cell
constexpr double kMarksFrom = 14;     // logical pixels a cell

double smallestSide(const MapView& view, PixelSize cell) { return std::min(cell.w, cell.h) * view.zoom; }

}  // namespace

Overlay::Overlay(const Scene& scene, const MapView& view, Forecast& forecast, Pointing pointing, NeighbourView& neighbours)
    : scene_(scene),
      view_(view),
      forecast_(forecast),
      pointing_(std::move(pointing)),
      neighbours_(neighbours),
      ground_(scene.ground(view)),
      landing_(scene.landingPlane(view, forecast.lift(pointing_.takesAway))) {}

void Overlay::paintOutline(QPainter& painter) const {
  const Theme& theme = Theme::current();
  const QPolygonF corners = ground_.pointsOf(ground_.grid().perimeter(map().bounds));
  if (map().grid.kind == GridKind::orthogonal) {
    const QRectF rect = corners.boundingRect();
    drawStitches(painter, rect.adjusted(-1.5, -1.5, 1.5, 1.5), theme.ink, theme.paper);
  } else if (corners.size() <= 4) {
    drawStitches(painter, corners, theme.ink, theme.paper);
  } else {
    QVector<QLineF> seen;
    const QRectF sight = QRectF(QPointF(), view_.size).adjusted(-64, -64, 64, 64);
    for (qsizetype i = 0; i < corners.size(); ++i) {
      const QLineF line(corners[i], corners[(i + 1) % corners.size()]);
      if (sight.contains(line.p1()) || sight.contains(line.p2())) seen << line;
    }
    drawStitchLines(painter, seen, theme.ink, theme.paper);
  }
  neighbours_.paintStitches(painter, ground_);
}

void Overlay::paintGround(QPainter& painter, const QRectF& part) const {
  neighbours_.paint(painter, view_, part);
  const QColor ground =
      map().cloth ? QColor::fromRgb(*map().cloth | 0xff000000u) : Theme::current().surround.lighter(118);
  if (map().grid.kind == GridKind::orthogonal) {
    const QRectF place = view_.rectOf(ground_.grid().pixelBounds(map().bounds));
    painter.fillRect(place.intersected(part), ground);
    return;
  }
  painter.save();
  painter.setClipRect(part, Qt::IntersectClip);
  painter.setPen(Qt::NoPen);
  painter.setBrush(ground);
  painter.drawPolygon(QPolygonF(ground_.pointsOf(ground_.grid().perimeter(map().bounds))));
  painter.restore();
}

void Overlay::paintCellOutlines(QPainter& painter, const CellRect& cells) const {
  const Grid& grid = landing_.grid();
  const int sides = grid.turnOrder();
  QVector<QLineF> lines;
  // Each side is shared by two cells: half of them are enough.
  for (int y = cells.y0; y < cells.y1; ++y) {
    for (int x = cells.x0; x < cells.x1; ++x) {
      const std::vector<PixelPos> corners = grid.outline({x, y});
      for (std::size_t side = 0; side < static_cast<std::size_t>(sides) / 2; ++side) {
        lines << QLineF(landing_.pointOf(corners[side]), landing_.pointOf(corners[side + 1]));
      }
    }
  }
  const Theme& theme = Theme::current();
  QColor dark = theme.ink;
  QColor light = theme.paper;
  dark.setAlpha(70);
  light.setAlpha(60);
  const double hair = 1 / view_.ratio;
  painter.setPen(QPen(dark, hair));
  painter.drawLines(lines);
  painter.translate(0, hair);
  painter.setPen(QPen(light, hair));
  painter.drawLines(lines);
  painter.translate(0, -hair);
}

void Overlay::paintGrid(QPainter& painter) const {
  if (smallestSide(view_, map().grid.cell) < kGridLinesFrom) return;
  const CellRect bounds = map().bounds;
  const CellRect seen = landing_.cellsInSight().intersected(bounds);
  if (map().grid.kind != GridKind::orthogonal) return paintCellOutlines(painter, seen);
  // Two tones, so that a line shows on dark and on light ground.
  const Theme& theme = Theme::current();
  QColor dark = theme.ink;
  QColor light = theme.paper;
  dark.setAlpha(46);
  light.setAlpha(40);
  const double hair = 1 / view_.ratio;
  const QRectF area = landing_.cellRect({seen.x0, seen.y0}).united(landing_.cellRect({seen.x1 - 1, seen.y1 - 1}));
  // All upright lines are one pattern, laid row by row: a line alone is as many spans as it is long.
  const QRectF device(area.topLeft() * view_.ratio, area.size() * view_.ratio);
  QImage pattern(std::max(1, qRound(device.width())), 1, QImage::Format_ARGB32_Premultiplied);
  pattern.fill(Qt::transparent);
  for (int x = std::max(seen.x0, bounds.x0 + 1); x < seen.x1; ++x) {
    const int at = qRound((landing_.cellRect({x, seen.y0}).left() - area.left()) * view_.ratio);
    if (at > 0) pattern.setPixelColor(at - 1, 0, dark);
    if (at >= 0 && at < pattern.width()) pattern.setPixelColor(at, 0, light);
  }
  painter.save();
  painter.scale(hair, hair);
  painter.setBrushOrigin(device.topLeft());
  painter.fillRect(device, QBrush(pattern));
  painter.restore();
  for (int y = std::max(seen.y0, bounds.y0 + 1); y < seen.y1; ++y) {
    const double top = landing_.cellRect({seen.x0, y}).top();
    painter.fillRect(QRectF(area.left(), top - hair, area.width(), hair), dark);
    painter.fillRect(QRectF(area.left(), top, area.width(), hair), light);
  }
}

void Overlay::paintTurnMarks(QPainter& painter) const {
  if (map().grid.kind == GridKind::orthogonal || smallestSide(view_, map().grid.cell) < kMarksFrom) return;
  const Theme& theme = Theme::current();
  for (const Shared<Layer>& layer : map().layers) {
    if (desk().hidden.contains(layer->id)) continue;
    const Plane plane = scene_.plane(view_, layer.read());
    const CellRect seen = plane.cellsInSight().intersected(map().bounds);
    CellReader reader(layer->cells);
    for (int y = seen.y0; y < seen.y1; ++y) {
      for (int x = seen.x0; x < seen.x1; ++x) {
        const Cell at = reader.at({x, y});
        if (at.empty() || at.turn() == Turn{} || plane.grid().pictureTurn(at.turn()) == at.turn()) continue;
        const QRectF box = plane.cellRect({x, y});
        const QPointF middle(box.center().x(), box.bottom() - 9);
        const QPolygonF mark{{middle + QPointF(0, -5), middle + QPointF(5, 4), middle + QPointF(-5, 4)}};
        painter.setPen(QPen(theme.ink, 1));
        painter.setBrush(theme.weld);
        painter.drawPolygon(mark);
        painter.setBrush(Qt::NoBrush);
      }
    }
  }
}

}  // namespace uq
