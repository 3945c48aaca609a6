// PinPainter: pins as they lie on a map — buttons sewn on, each with its number, its name where there is room, and a needle
// the way somebody faces who arrives there.
//
// They keep their size on the screen, so that they are found at every zoom and hide little; where cells are smaller than a
// button they shrink to knots. Boxes and edges are stitched round. Cost: a copied picture a pin; words for at most
// kMostNamed of them. Threads: the interface's.
#pragma once

#include <QPainter>
#include <set>

#include "app/canvas/MapView.h"
#include "core/document/Quilt.h"

namespace uq {

class SheetPictures;

struct PinsShown {
  std::set<Id> hidden;  // layers
  std::set<Id> chosen;
  SidePos by;  // how far the chosen ones are being dragged
  const SheetPictures* pictures = nullptr;  // of tiles that doorways are shown as; nullptr: buttons only
};
void paintPins(QPainter& painter, const Quilt& quilt, const Map& map, const MapView& view, const PinsShown& shown);

// Where the middle of a pin lies on the widget.
QPointF pinPoint(const Plane& plane, const Map& map, const Pin& pin);
// One button, its middle at a point; `radius` in logical pixels.
void paintButton(QPainter& painter, QPointF middle, double radius, const QColor& colour, bool isChosen);
// A needle from there, pointing the way a heading does.
void paintNeedle(QPainter& painter, QPointF middle, double length, Heading heading, const QColor& colour);

}  // namespace uq
