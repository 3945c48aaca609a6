// Overlay: what is painted over the map (and its ground under it), part by part.
//
// An Overlay is one look at a scene: view, hand, forecast, planes. It is made for one repaint or one question and is
// not kept. Each painter draws one concern and changes nothing; places are logical pixels of the widget.
//   OverlayGround.cpp    ground, grid lines, marks of turns, the map's edge
//   OverlayGhost.cpp     the ghost of a press, shapes under way, handles, the tag
//   OverlayFindings.cpp  covered cells, holes, loose joints
// Cost: what is in sight. Threads: the interface's.
#pragma once

#include <QPainter>
#include <functional>

#include "app/canvas/Forecast.h"
#include "app/canvas/NeighbourView.h"
#include "app/canvas/StretchHandles.h"

namespace uq {

class Overlay {
 public:
  // Scene, forecast and neighbours must live as long; there is a map.
  Overlay(const Scene& scene, const MapView& view, Forecast& forecast, Pointing pointing, NeighbourView& neighbours);

  const Map& map() const { return *scene_.map(); }
  const Plane& landing() const { return landing_; }

  // What lies behind all layers, and beyond the edges.
  void paintGround(QPainter& painter, const QRectF& part) const;
  void paintOutline(QPainter& painter) const;
  // Says in a corner that the map is seen otherwise than the game shows it: from above.
  void paintSight(QPainter& painter) const;
  void paintGrid(QPainter& painter) const;
  // Marks tiles that show another side than the one they are turned to, for want of a partner.
  void paintTurnMarks(QPainter& painter) const;

  // The ghost of the press, or the shape under way. `paintMore` paints over it what else lies over the map.
  void paintGhost(QPainter& painter, const std::function<void()>& paintMore) const;
  void paintHandles(QPainter& painter, const std::vector<StretchHandle>& handles) const;
  // The colour of the layer on which a press lands.
  QColor thread() const;
  // Where the tag stands that says `text`: beside what the press covers, or beside `anchor` (a point) where that is
  // large or something is dragged.
  QRectF tagRect(const QString& text, QPointF anchor, bool besideAnchor) const;
  void paintTag(QPainter& painter, const QRectF& place, const QString& text, bool lands) const;
  // What ghost and plumb line cover; empty when there is neither.
  QRectF ghostArea() const;

  // The cells in sight that are to be marked: those of the active layer that nearer ones hide, and holes. While no
  // stroke is made, and at a scale where cells can be told apart.
  CellSet covered() const;
  CellSet holes() const;
  // The loose joints that are to be marked: of what the press would lay, and of what is in sight while they are shown.
  std::vector<Forecast::JointAt> joints() const;
  void paintFindings(QPainter& painter) const;
  void paintJoints(QPainter& painter) const;

 private:
  const Desk& desk() const { return scene_.desk(); }
  void paintCellOutlines(QPainter& painter, const CellRect& cells) const;
  void paintOver(QPainter& painter, const std::function<void()>& paintMore) const;
  // The quilt as the foretold stroke leaves it, over the present one.
  void paintOutcome(QPainter& painter, const Stroke& stroke) const;
  void paintShape(QPainter& painter) const;
  void paintPlumbLine(QPainter& painter, const CellSet& cells, const QVector<QLineF>& outline) const;
  // By how many logical pixels the ground lies under the active layer.
  QPointF down() const;

  const Scene& scene_;
  MapView view_;
  Forecast& forecast_;
  Pointing pointing_;
  NeighbourView& neighbours_;
  Plane ground_;   // of the map itself, where no layer is shifted
  Plane landing_;  // of the active layer, raised
};

}  // namespace uq
