#include "app/canvas/MapView.h"

#include <algorithm>
#include <cmath>

#include "core/document/Map.h"
#include "raster/Run.h"

namespace uq {

namespace {

constexpr double kStops[] = {0.002, 0.003, 0.005, 0.007, 0.01, 0.015, 0.02, 0.03, 0.05, 0.07,
                             0.1,   0.15,  0.2,   0.25,  0.33, 0.5,   0.67, 0.75, 1,    1.25,
                             1.5,   2,     3,     4,     6,    8,     12,   16,   24,   32};
constexpr int kLeastInSight = 64;  // logical pixels

}  // namespace

QRectF MapView::seenPixels() const {
  const double times = scale().zoom;
  return {QPointF(origin) / times, QSizeF(deviceSize()) / times};
}

QPoint MapView::devicePoint(QPointF at) const {
  const QPointF device = at * ratio;
  return origin + QPoint(static_cast<int>(std::floor(device.x())), static_cast<int>(std::floor(device.y())));
}

QRectF MapView::fromDevice(const QRect& device) const {
  return {(device.x() - origin.x()) / ratio, (device.y() - origin.y()) / ratio, device.width() / ratio,
          device.height() / ratio};
}

QPointF MapView::middle() const {
  return (QPointF(origin) + QPointF(deviceSize().width(), deviceSize().height()) / 2) / scale().zoom;
}

void MapView::centreOn(QPointF pixel) {
  const QPointF half(deviceSize().width() / 2.0, deviceSize().height() / 2.0);
  // A file may say anything.
  const auto bounded = [](double x) { return std::clamp<double>(x, -kFarthestPixel, kFarthestPixel); };
  origin = (QPointF(bounded(pixel.x()), bounded(pixel.y())) * scale().zoom - half).toPoint();
}

void MapView::zoomTo(double wished, QPointF about) {
  const QPointF device = about * ratio;
  const QPointF pixel = (QPointF(origin) + device) / scale().zoom;
  zoom = std::clamp(wished, kSmallestZoom, kLargestZoom);
  origin = (pixel * scale().zoom - device).toPoint();
}

double MapView::fittingZoom(const PixelRect& all) const {
  const double fitting =
      std::min((size.width() - 2.0 * kMapMargin) / all.w, (size.height() - 2.0 * kMapMargin) / all.h);
  return std::clamp(fitting, kSmallestZoom, kLargestZoom);
}

void MapView::fit(const PixelRect& all) {
  zoom = fittingZoom(all);
  origin = scale().toDevice(all).center() - QRect(QPoint(), deviceSize()).center();
}

void MapView::keepInSight(const PixelRect& all) {
  const QRect device = scale().toDevice(all);
  const QSize seen = deviceSize();
  const int least = static_cast<int>(kLeastInSight * ratio);
  origin.setX(std::clamp(origin.x(), device.left() - seen.width() + least, device.right() - least));
  origin.setY(std::clamp(origin.y(), device.top() - seen.height() + least, device.bottom() - least));
}

double zoomStop(double zoom, int steps) {
  for (; steps > 0; --steps) {
    const auto stop = std::upper_bound(std::begin(kStops), std::end(kStops), zoom * 1.001);
    zoom = stop == std::end(kStops) ? kLargestZoom : *stop;
  }
  for (; steps < 0; ++steps) {
    const auto stop = std::lower_bound(std::begin(kStops), std::end(kStops), zoom * 0.999);
    zoom = stop == std::begin(kStops) ? kSmallestZoom : *(stop - 1);
  }
  return zoom;
}

QRectF movedInto(QRectF rect, const QRectF& room) {
  rect.moveRight(std::min(rect.right(), room.right()));
  rect.moveBottom(std::min(rect.bottom(), room.bottom()));
  rect.moveLeft(std::max(rect.left(), room.left()));
  rect.moveTop(std::max(rect.top(), room.top()));
  return rect;
}

Plane::Plane(const MapView& view, const GridShape& shape, PixelPos by)
    : view_(view), grid_(makeGrid(shape)), shift_(deviceShift(by, view.scale())) {}

QRectF Plane::cellRect(CellPos cell) const {
  return view_.fromDevice(view_.scale().toDevice(grid_->cellBox(cell)).translated(shift_));
}

QPointF Plane::pointOf(PixelPos pixel) const {
  const auto device = [&](int at) { return static_cast<int>(std::floor(at * view_.scale().zoom)); };
  return view_.fromDevice(QRect(QPoint(device(pixel.x), device(pixel.y)) + shift_, QSize(1, 1))).topLeft();
}

QVector<QPointF> Plane::pointsOf(const std::vector<PixelPos>& pixels) const {
  QVector<QPointF> points;
  for (const PixelPos at : pixels) points << pointOf(at);
  return points;
}

CellRect Plane::cellsInSight() const {
  return grid_->cellsMeeting(view_.scale().covering(view_.window().translated(-shift_)));
}

QRectF Plane::boxAround(const CellSet& cells) const {
  const CellRect bounds = cells.bounds();
  if (bounds.empty()) return {};
  return view_.fromDevice(view_.scale().toDevice(grid_->pixelBounds(bounds)).translated(shift_));
}

QVector<QLineF> Plane::bordersOf(const CellSet& cells) const {
  QVector<QLineF> lines;
  const CellRect seen = cellsInSight().grown(1);
  if (grid_->shape().kind == GridKind::orthogonal) {
    const auto corner = [this](CellPos at) { return cellRect(at).topLeft(); };
    for (const CellSet::Border& border : cells.borders(seen)) lines << QLineF(corner(border.from), corner(border.to));
    return lines;
  }
  const int sides = grid_->turnOrder();
  for (int side = 0; side < sides; ++side) {
    const auto step = [&](bool oddColumn, bool oddRow) {
      const CellPos at{oddColumn ? 1 : 0, oddRow ? 1 : 0};
      const CellPos to = grid_->across(at, side);
      return CellPos{to.x - at.x, to.y - at.y};
    };
    cells.forEachWithoutNeighbour(step, seen, [&](CellPos at) {
      const std::vector<PixelPos> corners = grid_->outline(at);
      lines << QLineF(pointOf(corners[static_cast<std::size_t>(side)]),
                      pointOf(corners[static_cast<std::size_t>((side + 1) % sides)]));
    });
  }
  return lines;
}

}  // namespace uq
