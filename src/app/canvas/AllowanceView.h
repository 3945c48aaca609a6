// AllowanceView: what of a map lies outside its edges, shown dimmed under a hatch.
//
// A picture of the same map with edges around all that is painted, over which the map itself is drawn. Made only while it
// is shown. Cost: that of a SwatchBook of its own. Threads: the interface's.
#pragma once

#include <QPainter>
#include <functional>

#include "app/canvas/MapView.h"
#include "raster/SwatchBook.h"

namespace uq {

class AllowanceView {
 public:
  // `arrived` as for SwatchBook.
  AllowanceView(SheetPictures pictures, std::function<void()> arrived);

  // The map of the quilt as it is now, in these runs.
  void show(const Quilt& quilt, const Map& map, std::vector<Run> runs);
  // What lies outside; the place of the map itself holds anything, and is to be painted over.
  void paint(QPainter& painter, const MapView& view, const QRect& part);
  // Whether anything lies outside.
  bool isThere() const { return isThere_; }

 private:
  SwatchBook book_;
  std::optional<Map> shown_;  // with the edges around all
  bool isThere_ = false;
};

}  // namespace uq
