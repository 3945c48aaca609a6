// TileUses: how often each tile is laid, and where.
//
// Counted over all layers, whatever is turned how; with what is kept outside a map's edges, for that comes back when
// the map grows. Cost: the painted cells, uniform chunks in one go.
#pragma once

#include <map>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

using TileUses = std::map<TileRef, std::int64_t>;

// Of the whole map; `within` its bounds only, as people see it.
TileUses usesOn(const Map& map);
TileUses usesWithin(const Map& map);

// Of all maps of the quilt; tiles of edgings that lie nowhere are among them, 0 times.
TileUses usesIn(const Quilt& quilt);

// The numbers of one sheet that must not lose their meaning: laid on a map, a frame or facing partner of a tile, or
// something is said of them.
std::set<std::uint32_t> numbersInUse(const Sheet& sheet, const TileUses& uses, SheetSlot slot);

// One cell of a tile.
struct TileAt {
  Id map;
  Id layer;
  CellPos cell;
  friend bool operator==(const TileAt&, const TileAt&) = default;
};
// The places of a tile inside the bounds of a map, layer by layer from the nearest, row by row; at most `most`.
std::vector<TileAt> placesOf(const Map& map, TileRef tile, std::size_t most);

}  // namespace uq
