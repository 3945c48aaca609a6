// CellPatches: what the picture of a tile shows in small patches of its cell: in the middle, near each corner, halfway there, and
// at the middle of each side.
//
// A patch is told by the middle value of each channel of what is drawn in it, so outlines and textures count for little; one
// that is mostly see-through is clear. Cost of a tile: the pixels of its patches. Good for one grid; threads: any.
#pragma once

#include <array>
#include <memory>
#include <vector>

#include "core/grid/Grid.h"
#include "core/sheets/TileSides.h"

namespace uq {

struct CellPatch {
  std::array<int, 3> rgb{};
  bool clear = true;
};

class CellPatches {
 public:
  explicit CellPatches(const GridShape& shape);

  struct Seen {
    CellPatch middle;
    std::vector<CellPatch> corners;
    std::vector<CellPatch> halfway;  // to the corners
    std::vector<CellPatch> sides;
    bool empty = true;  // nothing is drawn at all
  };
  // The picture may be larger than a cell: it stands on it as pictures do.
  Seen at(const TilePixels& tile) const;

 private:
  struct Point {
    double x, y;
  };
  PixelPos corner(const PixelRect& part) const;
  CellPatch patch(const TilePixels& tile, Point spot, double wider) const;

  std::unique_ptr<const Grid> grid_;
  PixelSize cell_;
  // Where on a cell is looked at, in pixels from its box's corner.
  Point middle_;
  std::vector<Point> corners_;
  std::vector<Point> halfway_;
  std::vector<Point> sides_;
  double radius_ = 1;
};

}  // namespace uq
