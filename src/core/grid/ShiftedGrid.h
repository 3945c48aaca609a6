// ShiftedGrid: cells in rows of which every other is shifted by half a cell — staggered diamonds and hexagons, which
// differ only in how long the upright sides are: a diamond's have no length. Flat hexagons are pointy ones with both
// axes exchanged, so their columns are shifted; inside this class all is computed for rows.
//
// With cells of w × h pixels, upright sides of s and caps of t = (h − s) / 2, rows are s + t apart. A pixel belongs to
// the cell that holds its centre, and to the lower one where that lies on a slanted edge. Pictures stand bottom-centre.
// Side coordinates: of staggered cells the two diagonals, of hexagons axial coordinates q, r (Red Blob Games,
// "Hexagonal Grids"). Lines of hexagons are sampled at equal distances with one fixed tiny nudge and rounded in cube
// coordinates, so that moving a line never changes its shape.
#pragma once

#include "core/grid/Grid.h"

namespace uq {

class ShiftedGrid final : public Grid {
 public:
  explicit ShiftedGrid(const GridShape& shape);

  int turnOrder() const override { return hexagons_ ? 6 : 4; }
  CellPos cellAt(PixelPos at) const override;
  PixelRect cellBox(CellPos cell) const override;
  std::vector<PixelPos> outline(CellPos cell) const override;
  CellPos across(CellPos cell, int side) const override;
  std::vector<PixelPos> perimeter(CellRect cells) const override;
  Lattice lattice() const override;
  PixelRect pixelBounds(CellRect cells) const override;
  CellRect cellsMeeting(PixelRect pixels) const override;
  PixelRect seat(CellPos cell, PixelSize size) const override;
  void inDrawOrder(CellRect cells, const std::function<void(const DrawRow&)>& draw) const override;
  SidePos toSide(CellPos cell) const override;
  CellPos fromSide(SidePos side) const override;
  SidePos turned(SidePos offset, Turn turn) const override;
  Turn pictureTurn(Turn turn) const override;
  std::vector<CellPos> line(CellPos from, CellPos to) const override;

 private:
  // In rows: `c` counts along a row, `r` the rows; pixels are (along, down).
  struct Place {
    int c = 0;
    int r = 0;
  };
  bool isShifted(int row) const { return ((row & 1) != 0) != shape().firstShift; }
  int shift(int row) const { return isShifted(row) ? w_ / 2 : 0; }
  Place inRows(CellPos cell) const { return flat_ ? Place{cell.y, cell.x} : Place{cell.x, cell.y}; }
  CellPos fromRows(Place place) const { return flat_ ? CellPos{place.r, place.c} : CellPos{place.c, place.r}; }
  PixelPos pixel(int along, int down) const { return flat_ ? PixelPos{down, along} : PixelPos{along, down}; }
  PixelRect rect(int along, int down, int w, int h) const {
    return flat_ ? PixelRect{down, along, h, w} : PixelRect{along, down, w, h};
  }

  bool hexagons_;
  bool flat_;
  int w_;      // along a row
  int h_;      // across the rows
  int side_;   // upright sides
  int cap_;    // t
  int pitch_;  // from row to row
};

}  // namespace uq
