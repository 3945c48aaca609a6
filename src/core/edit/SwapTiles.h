// Swapping one tile for another, wherever chosen.
//
// Every cell of the one tile becomes one of the other and keeps its turn and lift. What is kept outside a map's edges
// is left alone. Cost: the chunks that hold painted cells; those with none of the tile are only looked at.
#pragma once

#include "core/cells/CellSet.h"
#include "core/document/Quilt.h"

namespace uq {

enum class SwapIn { selection, layer, map, allMaps };

struct SwapAsk {
  TileRef from;
  TileRef to;
  SwapIn in = SwapIn::map;
  LayerAt at;        // the layer; its map
  CellSet selected;  // with SwapIn::selection, of that layer
  std::vector<TileRef> also{};  // more tiles that become the other, sorted
};

struct Swapped {
  Quilt quilt;
  std::int64_t cells = 0;  // that changed
};
Swapped swapTiles(const Quilt& quilt, const SwapAsk& ask);
// How many cells that would change.
std::int64_t countSwap(const Quilt& quilt, const SwapAsk& ask);

}  // namespace uq
