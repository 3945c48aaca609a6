// Covered cells and holes: what nobody can see since nearer layers hide it, and where nothing can be seen at all.
//
// Both are told from what the pictures of the tiles say (Hiding), cell by cell; nothing is drawn.
#pragma once

#include <functional>
#include <set>

#include "core/cells/CellSet.h"
#include "core/document/Quilt.h"

namespace uq {

// Of a tile on its cell, as it stands in its sheet.
struct Hiding {
  std::function<bool(TileRef)> hides;    // all of the cell is opaque
  std::function<bool(TileRef)> keepsIn;  // nothing of it shows outside the cell
  std::function<bool(TileRef)> covers;   // as good as all of the cell is painted
  std::function<bool(TileRef)> fills;    // its picture is just the cell, a square, and so it is however it is turned
};

// The painted cells of a layer, within `in`, that nobody can see: they keep to their cell, and a nearer layer that lies
// and moves with this one, drawn at full strength and in the game, hides that cell. Lifted and animated tiles neither
// hide nor are said to be hidden, and of turned ones only those that fill a square cell are.
// Cost: the cells of the layer, and of nearer ones until one hides them; a chunk that one tile fills counts as one
// cell.
CellSet coveredCells(const Quilt& quilt, LayerAt at, CellRect in, const Hiding& hiding);

// The cells of the map, within `in`, where no layer of tiles that is in the game and not hidden covers the middle of
// the cell where it is drawn, risen and shifted. On a map with levels only those that a risen tile leaves open below
// it: gaps between two levels. Cost: the cells within `in`, for each layer.
CellSet holes(const Quilt& quilt, Id map, CellRect in, const std::set<Id>& hidden, const Hiding& hiding);

}  // namespace uq
