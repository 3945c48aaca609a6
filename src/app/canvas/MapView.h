// MapView: which part of the cloth a widget shows, and how large.
//
// Everything lies on one cloth that is measured in map pixels; several maps lie on it at their places. The position is
// absolute in device pixels (ViewScale), so scrolling copies exact pixels. A Plane is a grid laid on that cloth,
// shifted by map pixels: by the place of its map, by a layer's own offset, by what the camera moves it, by a rise.
// Cells go to the screen and back through a Plane, map pixels through the view.
//
// Values; every call is constant time unless it says otherwise. Logical pixels are those of the widget, whose upper
// left is 0, 0. Any thread.
#pragma once

#include <QLineF>
#include <QRectF>
#include <QVector>
#include <memory>

#include "core/cells/CellSet.h"
#include "core/grid/Grid.h"
#include "raster/ViewScale.h"

namespace uq {

struct MapView {
  double zoom = 1;   // logical pixels a map pixel
  double ratio = 1;  // device pixels a logical pixel
  QSize size;        // of the widget, logical pixels
  QPoint origin;     // absolute device pixel at the widget's upper left

  ViewScale scale() const { return {zoom * ratio}; }
  QSize deviceSize() const { return (QSizeF(size) * ratio).toSize(); }
  // What is in sight, in absolute device pixels and in map pixels.
  QRect window() const { return {origin, deviceSize()}; }
  QRectF seenPixels() const;

  // The absolute device pixel under a point of the widget, and back.
  QPoint devicePoint(QPointF at) const;
  QRectF fromDevice(const QRect& device) const;
  PixelPos pixelAt(QPointF at) const { return scale().toMap(devicePoint(at)); }
  QRectF rectOf(const PixelRect& pixels) const { return fromDevice(scale().toDevice(pixels)); }

  // The map pixel in the middle, and moving the view so that one lies there. Far beyond every map is brought nearer.
  QPointF middle() const;
  void centreOn(QPointF pixel);
  // Changes the zoom, within kSmallestZoom .. kLargestZoom; what is under `about` stays there.
  void zoomTo(double wished, QPointF about);
  // Shows all of a rectangle of map pixels, with room around.
  void fit(const PixelRect& all);
  // As large as it can be shown whole.
  double fittingZoom(const PixelRect& all) const;
  void scrollBy(QPointF logical) { origin += (logical * ratio).toPoint(); }
  // Scrolls back until some of a rectangle of map pixels is in sight.
  void keepInSight(const PixelRect& all);
};

// A rectangle, moved no farther than it takes to lie in `room`; at its upper left where it is larger.
QRectF movedInto(QRectF rect, const QRectF& room);

// Logical pixels that are left round a rectangle that is fitted in.
inline constexpr int kMapMargin = 24;

// The zoom that lies so many stops above or below one.
double zoomStop(double zoom, int steps);

class Plane {
 public:
  // `by`: where map pixel 0, 0 of the grid lies on the cloth.
  Plane(const MapView& view, const GridShape& shape, PixelPos by = {});

  const Grid& grid() const { return *grid_; }
  const MapView& view() const { return view_; }
  // By how many device pixels it lies off its own place.
  QPoint shift() const { return shift_; }

  // Where a cell's box lies on the widget; the cell, and the pixel of this plane, under a point.
  QRectF cellRect(CellPos cell) const;
  CellPos cellAt(QPointF at) const { return grid_->cellAt(pixelAt(at)); }
  PixelPos pixelAt(QPointF at) const { return view_.scale().toMap(view_.devicePoint(at) - shift_); }
  // Where the upper left corner of a pixel of this plane lies on the widget.
  QPointF pointOf(PixelPos pixel) const;
  QVector<QPointF> pointsOf(const std::vector<PixelPos>& pixels) const;

  // Cells whose boxes are in sight.
  CellRect cellsInSight() const;
  // The box around a set of cells; empty when there are none.
  QRectF boxAround(const CellSet& cells) const;
  // The sides between cells of a set and others, as far as they are in sight. Cost: the borders in sight.
  QVector<QLineF> bordersOf(const CellSet& cells) const;

 private:
  MapView view_;
  std::shared_ptr<const Grid> grid_;
  QPoint shift_;
};

}  // namespace uq
