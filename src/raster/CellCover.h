// CellCover: whether tiles cover the ground of their cell, hide it, or keep to it.
//
// A tile covers when kCoveringShare of the pixels inside the cell's outline have an alpha of at least 128 where the
// tile stands. Chalk covers, and so does a tile without a picture: it is shown as if it did, and what nobody can see is
// better kept. A tile hides what is behind it when all pixels inside the outline are opaque, and keeps to its cell when
// none outside shows anything; neither is said of one that is animated or without a picture. Answers are kept until a
// sheet changes. Cost of a new one: the pixels of a cell, of large ones a sample.
#pragma once

#include <map>

#include "core/document/Quilt.h"
#include "raster/SheetPictures.h"

namespace uq {

inline constexpr double kCoveringShare = 0.98;

class CellCover {
 public:
  explicit CellCover(SheetPictures pictures) : pictures_(std::move(pictures)) {}

  bool covers(const Quilt& quilt, const GridShape& shape, TileRef tile) { return known(quilt, shape, tile).covers; }
  bool hides(const Quilt& quilt, const GridShape& shape, TileRef tile) { return known(quilt, shape, tile).hides; }
  bool keepsIn(const Quilt& quilt, const GridShape& shape, TileRef tile) { return known(quilt, shape, tile).keepsIn; }
  // Whether its picture is just the cell, a square, so that turns change nothing of all that.
  bool fills(const Quilt& quilt, const GridShape& shape, TileRef tile) { return known(quilt, shape, tile).fills; }

 private:
  struct Known {
    Revision sheet;
    bool covers = true;
    bool hides = false;
    bool keepsIn = false;
    bool fills = false;
  };
  Known known(const Quilt& quilt, const GridShape& shape, TileRef tile);
  static Known measured(const SheetPictures& pictures, const Quilt& quilt, const GridShape& shape, const Sheet& sheet,
                        TileRef tile);

  SheetPictures pictures_;
  GridShape shape_;
  std::map<TileRef, Known> known_;
};

}  // namespace uq
