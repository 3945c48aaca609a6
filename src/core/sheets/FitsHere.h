// FitsHere: which tiles join the neighbours of a cell, by the pixels along their borders (TileSides).
//
// A tile fits a cell when it joins all its neighbours, and there is at least one that shows something at its side.
// Cost: the sides of every tile offered, once.
#pragma once

#include "core/sheets/SheetSearch.h"
#include "core/sheets/TileSides.h"

namespace uq {

// The tiles of those sheets that fit a cell of a layer of the map for whose grid `sides` was made, the best first, at
// most `most`; nothing where it has no neighbour. Turned neighbours are looked at as they lie.
std::vector<SheetHit> tilesThatFit(TileSides& sides, const std::vector<Id>& sheets, const Map& map,
                                   const Layer& layer, CellPos at, std::size_t most);

}  // namespace uq
