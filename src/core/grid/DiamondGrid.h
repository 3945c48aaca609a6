// DiamondGrid: isometric cells, diamonds of w × h pixels (both even) in a diamond-shaped map. Columns run to the lower
// right, rows to the lower left; the upper corner of cell (x, y) is at pixel ((x − y) w / 2, (x + y) h / 2). Side
// coordinates are columns and rows. Pictures stand bottom-centre on the lower corner.
//
// A pixel belongs to the cell that holds its centre, and to the lower one where that lies on an edge: with X = 2px + 1
// and Y = 2py + 1, x = ⌊(X h + Y w) / 2wh⌋ and y = ⌊(Y w − X h) / 2wh⌋.
#pragma once

#include "core/grid/Grid.h"

namespace uq {

class DiamondGrid final : public Grid {
 public:
  explicit DiamondGrid(const GridShape& shape) : Grid(shape), w_(shape.cell.w), h_(shape.cell.h) {}

  int turnOrder() const override { return 4; }
  CellPos cellAt(PixelPos at) const override;
  PixelRect cellBox(CellPos cell) const override;
  std::vector<PixelPos> outline(CellPos cell) const override;
  CellPos across(CellPos cell, int side) const override;
  std::vector<PixelPos> perimeter(CellRect cells) const override;
  Lattice lattice() const override { return {0, 0, w_ / 2.0, h_ / 2.0, -w_ / 2.0, h_ / 2.0}; }
  PixelRect pixelBounds(CellRect cells) const override;
  CellRect cellsMeeting(PixelRect pixels) const override;
  PixelRect seat(CellPos cell, PixelSize size) const override;
  void inDrawOrder(CellRect cells, const std::function<void(const DrawRow&)>& draw) const override;
  SidePos toSide(CellPos cell) const override { return {cell.x, cell.y}; }
  CellPos fromSide(SidePos side) const override { return {side.u, side.v}; }
  SidePos turned(SidePos offset, Turn turn) const override;
  Turn pictureTurn(Turn turn) const override { return {turn.mirror, 0}; }
  std::vector<CellPos> line(CellPos from, CellPos to) const override;

 private:
  int w_;
  int h_;
};

// Where an offset between slanted cells goes: mirrored across, columns and rows change places; a quarter to the right is
// (u, v) → (−v, u).
SidePos turnedDiamond(SidePos offset, Turn turn);

}  // namespace uq
