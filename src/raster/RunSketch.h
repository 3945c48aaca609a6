// RunSketch: a whole run in 256 × 256 pixels at most, sampled, so that there is something to show at any place and zoom
// before a swatch is drawn. Repaired in the blocks that an edit touches.
//
// Cost: making one a read of one cell in step × step; drawing what is in sight. One thread at a time.
#pragma once

#include <QPainter>
#include <vector>

#include "raster/MadeFrom.h"

namespace uq {

class RunSketch {
 public:
  // Samples all of a run anew.
  void make(MapPainter& painter, const MadeFrom& from);
  // Only where something changed, in map pixels without the shifts of layers.
  void repair(MapPainter& painter, const MadeFrom& from, const std::vector<PixelRect>& changed);
  // Draws what it shows of `where`, in absolute device pixels of the run; the painter's 0, 0 is `origin`.
  void draw(QPainter& painter, const MadeFrom& from, ViewScale scale, const QRect& where, QPoint origin) const;

 private:
  CellRect blocksOf(CellRect cells) const;

  QImage picture_;  // pixel 0, 0 stands for block (blocks_.x0, blocks_.y0) of step × step cells
  CellRect blocks_;
  int step_ = 1;
};

}  // namespace uq
