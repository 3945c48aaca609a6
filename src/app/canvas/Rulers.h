// Rulers: the map's columns and rows, counted along the grid's own axes; and the places on them where the hand puts
// some in or takes some out.
//
// On maps that lie straight they run along the upper and the left end of the widget, on slanted ones along the map's
// own sides, or across the sight where those are out of it. A "+" stands where columns or rows meet, a "−" on each of
// them. A look at a plane, made anew for each question. Cost: of painting, what is in sight. Threads: the interface's.
#pragma once

#include <QPainter>
#include <QString>
#include <optional>

#include "app/canvas/MapView.h"
#include "core/work/LinesDrag.h"

namespace uq {

inline constexpr double kRulerBreadth = 20;  // logical pixels

class Rulers {
 public:
  // `plane`: that of the map itself.
  Rulers(const Plane& plane, CellRect bounds);

  // Whether a point lies on one of them; and what a press there would do.
  bool isOn(QPointF at) const;
  // Where both meet: whether all layers change, or the active one alone.
  bool isOnSwitch(QPointF at) const { return switchRect().contains(at); }
  std::optional<RulerPlace> placeAt(QPointF at) const;
  // Where a drag from a place has come to: the column or row, or the place between two, that is nearest.
  int reached(const RulerPlace& from, QPointF at) const;

  // `ofLayer`: the active layer alone changes.
  void paint(QPainter& painter, std::optional<CellPos> hovered, bool ofLayer) const;
  // The knob of a place, and through the map what would come in or go.
  void paintLines(QPainter& painter, const LinesDrag& drag) const;

 private:
  using Which = CellLines::Which;
  struct Scale {
    QPointF begin;  // where the first line meets the inner edge
    QPointF step;   // to the next line
    QPointF out;    // away from the map, along the lines; of length 1
    int first = 0;
    int count = 0;
    double breadth = 0;  // along `out`
  };
  Scale scaleOf(Which which) const;
  // Counted in lines from the first, and away from the map in logical pixels.
  static QPointF along(const Scale& scale, QPointF at);
  static bool isOn(const Scale& scale, QPointF at);
  bool isSlanted() const { return plane_.grid().shape().kind == GridKind::diamond && !plane_.grid().shape().plan; }
  QRectF switchRect() const;
  void paintSwitch(QPainter& painter, bool ofLayer) const;
  void paintScale(QPainter& painter, Which which, std::optional<CellPos> hovered) const;
  void paintNumber(QPainter& painter, Which which, QPointF at, int number) const;

  Plane plane_;
  CellRect bounds_;
};

// "Insert 2 columns before 12 · on all layers", or why not.
QString wordsOf(const LinesDrag& drag, const Map& map, const Desk& desk);

}  // namespace uq
