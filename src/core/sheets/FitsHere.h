// FitsHere: which tiles join the neighbours of a cell, by the pixels along their borders.
//
// Along each side of a cell small patches of pixels just inside are looked at, by their average. Two tiles join there
// when what the one shows ends as the other begins: their pixels are nearly the same, or both sides are see-through. A
// tile fits a cell when it joins all its neighbours, and there is at least one. On every grid, sides as the grid has
// them. Cost: kSideSamples patches of at most 3 × 3 pixels a side and tile.
#pragma once

#include <functional>

#include "core/document/Quilt.h"
#include "core/sheets/SheetSearch.h"

namespace uq {

inline constexpr int kSideSamples = 8;

// A tile's picture, straight: its sheet's picture and its place in it; nothing for a placeholder.
struct TilePixels {
  PixelView picture;
  PixelRect part;
};
using PixelsOf = std::function<std::optional<TilePixels>(TileRef)>;

// The tiles of the quilt's sheets that fit a cell of a layer, the best first, at most `most`; nothing where it has no
// neighbour. Turned neighbours are looked at as they lie.
std::vector<SheetHit> tilesThatFit(const Quilt& quilt, const std::vector<Id>& sheets, const Map& map,
                                   const TilesLayer& layer, CellPos at, const PixelsOf& pixels, std::size_t most);

}  // namespace uq
