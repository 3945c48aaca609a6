// Hexes: drawing on hexagons seen from above at an angle — grounds, banks along sides, and ways from side to side.
#pragma once

#include <functional>
#include <memory>
#include <set>
#include <vector>

#include "art/Pixels.h"
#include "core/grid/Grid.h"

namespace uq::art {

// The hexagon at the bottom of a picture that may be higher than it.
class Hex {
 public:
  Hex(Pixels& pixels, const GridShape& shape);

  Pixels& pixels() const { return pixels_; }
  int top() const { return top_; }  // of the hexagon, in the picture
  bool owns(int x, int y) const;
  // Pixels from a side of the cell, measured inwards.
  double from(int side, int x, int y) const;
  // From the nearest of the sides in a mask; large where the mask is empty.
  double fromSides(unsigned mask, int x, int y) const;
  struct Spot {
    double x, y;
  };
  Spot middle() const;
  Spot middleOf(int side) const;

  // Colours each pixel of the hexagon; Ink::none leaves it.
  void fill(const std::function<Ink(int x, int y)>& colour) const;
  // A way `width` pixels broad from the middle of one side through the cell to that of another; −1 is the cell's middle.
  void way(int from, int to, double width, const std::function<Ink(int x, int y, double across)>& colour) const;

 private:
  Pixels& pixels_;
  std::unique_ptr<const Grid> grid_;
  std::vector<Spot> corners_;
  int top_;
};

// The sides beyond which a cell has a neighbour in the bounds that is none of `cells`, as bits. `beyond` gives neighbours.
unsigned openSides(CellPos at, CellRect bounds, const std::set<CellPos>& cells,
                   const std::function<CellPos(CellPos, int side)>& beyond);

// The side of `from` beyond which `to` lies; −1 where they are no neighbours.
int sideTowards(const Grid& grid, CellPos from, CellPos to);

}  // namespace uq::art
