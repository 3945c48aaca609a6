// PlanGrid: a slanted grid seen from straight above — the same cells, drawn as squares along the grid's two ways.
//
// Cells, side coordinates, turns, neighbours and lines are those of the slanted grid; only pixels differ. A square has
// about the area of the diamond that it stands for. Only for diamonds and staggered diamonds (see hasPlan).
#pragma once

#include "core/grid/Grid.h"

namespace uq {

class PlanGrid final : public Grid {
 public:
  // A shape whose `plan` is set.
  explicit PlanGrid(const GridShape& shape);

  int turnOrder() const override { return slanted_->turnOrder(); }
  CellPos cellAt(PixelPos at) const override;
  PixelRect cellBox(CellPos cell) const override;
  std::vector<PixelPos> outline(CellPos cell) const override;
  CellPos across(CellPos cell, int side) const override { return slanted_->across(cell, side); }
  CellPos stepped(CellPos cell, int dx, int dy) const override;
  std::vector<PixelPos> perimeter(CellRect cells) const override;
  Lattice lattice() const override;
  PixelRect pixelBounds(CellRect cells) const override;
  CellRect cellsMeeting(PixelRect pixels) const override;
  PixelRect seat(CellPos cell, PixelSize size) const override;
  // Row by row of the slanted grid: squares never cover one another.
  void inDrawOrder(CellRect cells, const std::function<void(const DrawRow&)>& draw) const override;
  SidePos toSide(CellPos cell) const override { return slanted_->toSide(cell); }
  CellPos fromSide(SidePos side) const override { return slanted_->fromSide(side); }
  SidePos turned(SidePos offset, Turn turn) const override { return slanted_->turned(offset, turn); }
  Turn pictureTurn(Turn turn) const override { return slanted_->pictureTurn(turn); }
  std::vector<CellPos> line(CellPos from, CellPos to) const override { return slanted_->line(from, to); }

 private:
  std::unique_ptr<const Grid> slanted_;
  int side_;  // of a square, in map pixels
};

// The length of the squares' sides in map pixels; even.
int planSide(PixelSize cell);

}  // namespace uq
