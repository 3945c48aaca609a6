// Laying and taking away cells: the edit that every painting tool ends in.
//
// Edits are functions of values: they take a quilt and return one, and leave the first as it was. Cells outside the
// map's bounds are never touched. A quilt in which nothing changed is returned with all its revisions kept.
#pragma once

#include <span>

#include "core/document/Quilt.h"

namespace uq {

struct CellChange {
  CellPos at;
  Cell cell;     // empty: take away
  int lift = 0;  // above the layer, in map pixels, 0 .. kMostLift
};

// Lays each change in turn on a layer. Cost: the changes, and a copy of each chunk they touch.
Quilt layCells(const Quilt& quilt, LayerAt at, std::span<const CellChange> changes);

}  // namespace uq
