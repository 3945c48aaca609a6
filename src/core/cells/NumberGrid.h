// NumberGrid: a plain number on each cell of an endless grid, 0 where nothing is said.
//
// A CellGrid whose cells spell numbers instead of tiles, so it shares chunks and costs like one: nothing where all is
// 0, 0.5 KB for each 64 × 64 cells that hold two numbers, 16 KB for more.
#pragma once

#include <utility>

#include "core/cells/CellGrid.h"

namespace uq {

class NumberGrid {
 public:
  static constexpr SheetSlot kSlot = 1;  // with which cells() spells numbers
  static constexpr int kMost = static_cast<int>(kLastTileNumber);

  NumberGrid() = default;
  // Of cells as cells() gives them.
  static NumberGrid ofCells(CellGrid cells) {
    NumberGrid grid;
    grid.cells_ = std::move(cells);
    return grid;
  }

  int at(CellPos pos) const { return numberOf(cells_.at(pos)); }
  // `number` is 0 .. kMost; true when that changed something.
  bool set(CellPos pos, int number) { return cells_.set(pos, cellOf(number)); }
  void fill(CellRect cells, int number) { cells_.fill(cells, cellOf(number)); }
  void fill(const CellSet& cells, int number) { cells_.fill(cells, cellOf(number)); }
  bool empty() const { return cells_.empty(); }
  const CellGrid& cells() const { return cells_; }

  static int numberOf(Cell cell) { return cell.empty() ? 0 : static_cast<int>(cell.tile().number); }
  friend bool operator==(const NumberGrid&, const NumberGrid&) = default;

 private:
  static Cell cellOf(int number) {
    return number == 0 ? Cell() : Cell({kSlot, static_cast<std::uint32_t>(number)}, {});
  }

  CellGrid cells_;
};

}  // namespace uq
