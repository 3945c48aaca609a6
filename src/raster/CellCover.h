// CellCover: whether tiles cover the ground of their cell.
//
// A tile covers when kCoveringShare of the pixels inside the cell's outline have an alpha of at least 128 where the
// tile stands. Chalk covers, and so does a tile without a picture: it is shown as if it did, and what nobody can see is
// better kept. Answers are kept until a sheet changes. Cost of a new one: the pixels of a cell, of large ones a sample.
#pragma once

#include <map>

#include "core/document/Quilt.h"
#include "raster/SheetPictures.h"

namespace uq {

inline constexpr double kCoveringShare = 0.98;

class CellCover {
 public:
  explicit CellCover(SheetPictures pictures) : pictures_(std::move(pictures)) {}

  bool covers(const Quilt& quilt, const GridShape& shape, TileRef tile);

 private:
  struct Known {
    Revision sheet;
    bool covers;
  };
  SheetPictures pictures_;
  GridShape shape_;
  std::map<TileRef, Known> known_;
};

}  // namespace uq
