// OrthogonalGrid: square-on cells of w × h pixels, cell (x, y) at pixels (x w, y h). Side coordinates are columns and
// rows. Pictures larger than the cell sit at its bottom left.
//
// Lines go through corners. Algorithm: for each step i of n = max(|dx|, |dy|) the nearest cell to i / n of the way,
// halves rounded up; the integer form of the digital differential analyser (see Foley et al., Computer Graphics, 3.2).
#pragma once

#include "core/grid/Grid.h"

namespace uq {

class OrthogonalGrid final : public Grid {
 public:
  explicit OrthogonalGrid(const GridShape& shape) : Grid(shape), w_(shape.cell.w), h_(shape.cell.h) {}

  int turnOrder() const override { return 4; }
  CellPos cellAt(PixelPos at) const override;
  PixelRect cellBox(CellPos cell) const override;
  std::vector<PixelPos> outline(CellPos cell) const override;
  PixelRect pixelBounds(CellRect cells) const override;
  CellRect cellsMeeting(PixelRect pixels) const override;
  PixelRect seat(CellPos cell, PixelSize size) const override;
  void inDrawOrder(CellRect cells, const std::function<void(const DrawRow&)>& draw) const override;
  SidePos toSide(CellPos cell) const override { return {cell.x, cell.y}; }
  CellPos fromSide(SidePos side) const override { return {side.u, side.v}; }
  SidePos turned(SidePos offset, Turn turn) const override;
  std::vector<CellPos> line(CellPos from, CellPos to) const override;

 private:
  int w_;
  int h_;
};

}  // namespace uq
