// PictureImport: the picture of a map cut back into cells: each piece is looked for among the tiles of the quilt's sheets, turned ones too.
//
// A piece is what lies on the area of one cell, to the pixel; tiles larger than a cell, or half hidden behind others, are not recognised.
// A clear piece is a cell on which nothing lies. On squares the upper left of the picture is that of the map, unless hardly anything is
// recognised so; then, and on all other grids, the place is taken at which most of some pieces are. Pieces are compared by their sums
// (XXH3, 64 bits).
// Cost: one look at each pixel of the picture, and of all tiles in all their turns. Threads: any.
#pragma once

#include <QImage>
#include <vector>

#include "core/base/Progress.h"
#include "raster/SheetPictures.h"

namespace uq {

struct PictureCells {
  CellGrid cells;    // from 0, 0
  int columns = 0;
  int rows = 0;
  PixelPos origin;   // the pixel of the picture on which map pixel 0, 0 lies
  std::int64_t known = 0;
  std::int64_t clear = 0;
  struct Unknown {
    std::vector<CellPos> cells;  // on which it lies, row by row
  };
  std::vector<Unknown> unknown;  // each picture once, those that lie on most cells first
  std::int64_t unknownCells() const;
};

// An Error where the picture has no room for a cell, is larger than a map may be, or the work was cancelled.
Result<PictureCells> cellsOfPicture(const QImage& picture, const Quilt& quilt, const SheetPictures& pictures, const GridShape& grid, Progress* progress = nullptr);

// The pictures that were not recognised, 16 in a row, each as large as the box of a cell: to become a sheet. At most kMostUnknown.
inline constexpr std::size_t kMostUnknown = 16'384;
QImage unknownPictures(const QImage& picture, const PictureCells& read, const GridShape& grid);

}  // namespace uq
