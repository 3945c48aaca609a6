// OrthogonalGrid: square-on cells of w × h pixels, cell (x, y) at pixels (x w, y h). Side coordinates are columns and
// rows. Pictures larger than the cell sit at its bottom left.
//
// Lines go through corners; see squareLine.
#pragma once

#include "core/grid/Grid.h"

namespace uq {

// The steps of a line through corners from (0, 0) to (du, dv), both included. Algorithm: for each step i of
// n = max(|du|, |dv|) the nearest cell to i / n of the way, halves rounded up; the integer form of the digital
// differential analyser (see Foley et al., Computer Graphics, 3.2).
std::vector<SidePos> squareLine(SidePos to);

// The same through sides: each step crosses the side whose middle lies nearer to the straight line.
std::vector<SidePos> squareSideLine(SidePos to);

class OrthogonalGrid final : public Grid {
 public:
  explicit OrthogonalGrid(const GridShape& shape) : Grid(shape), w_(shape.cell.w), h_(shape.cell.h) {}

  int turnOrder() const override { return 4; }
  CellPos cellAt(PixelPos at) const override;
  PixelRect cellBox(CellPos cell) const override;
  std::vector<PixelPos> outline(CellPos cell) const override;
  CellPos across(CellPos cell, int side) const override;
  std::vector<PixelPos> perimeter(CellRect cells) const override;
  Lattice lattice() const override { return {0, 0, double(w_), 0, 0, double(h_)}; }
  PixelRect pixelBounds(CellRect cells) const override;
  CellRect cellsMeeting(PixelRect pixels) const override;
  PixelRect seat(CellPos cell, PixelSize size) const override;
  void inDrawOrder(CellRect cells, const std::function<void(const DrawRow&)>& draw) const override;
  SidePos toSide(CellPos cell) const override { return {cell.x, cell.y}; }
  CellPos fromSide(SidePos side) const override { return {side.u, side.v}; }
  SidePos turned(SidePos offset, Turn turn) const override;
  Turn pictureTurn(Turn turn) const override { return turn; }
  std::vector<CellPos> line(CellPos from, CellPos to) const override;

 private:
  int w_;
  int h_;
};

}  // namespace uq
