// Regions: the cells that are the same as one, hanging together with it or anywhere on the map.
//
// Over seams the region goes on into the maps that are sewn there, unless it is asked of one map alone: looked for
// everywhere, or within chosen cells.
// What Fill fills, and what Select takes when asked for "the same as this"; what is the same is said by Alike. A region is that of one layer, or as seen: of cells whose
// nearest painted tile is the same. Cost: that of a flood fill; as seen, of one a layer.
#pragma once

#include <set>

#include "core/cells/FloodFill.h"
#include "core/document/Alike.h"
#include "core/document/InHand.h"
#include "core/document/Quilt.h"
#include "core/edit/Patchwork.h"

namespace uq {

struct RegionAsk {
  LayerAt layer;
  bool asSeen = false;
  bool everywhere = false;  // not only what hangs together
  Alike alike = Alike::mix;
  Through through = Through::sides;
  CellSet within;                // where not empty, nothing beyond it
  std::set<Id> hidden;           // layers that are not seen
  const InHand* hand = nullptr;  // a mix in hand makes its tiles kin
  bool acrossSeams = false;
  std::set<Id> closed;  // maps into which it does not go
};

// The tile and all that are the same, sorted. Of an empty cell (TileRef{}) itself.
std::vector<TileRef> kinOf(const Quilt& quilt, const InHand* hand, TileRef tile, Alike alike = Alike::mix);

// Whether a region is meant as seen where nobody said: when the layer is empty at that cell.
bool usuallyAsSeen(const Quilt& quilt, LayerAt layer, CellPos at);

// Why a region cannot be looked for, since it might be more than a set of cells is made for; empty when it can.
std::string whyNoRegion(const Quilt& quilt, const RegionAsk& ask);

// The region of the cell, on the canvas of its map, inside the maps' bounds; empty where there is no such layer or the cell is outside.
CellSet regionOf(const Quilt& quilt, const RegionAsk& ask, CellPos at);
// What it is looked for on.
Patchwork patchworkOf(const Quilt& quilt, const RegionAsk& ask);

}  // namespace uq
