// What can be done with the selected cells of one layer: empty them, copy them, move them.
//
// Empty cells of the selection are not copied and not moved, so they leave what lies under the place they would come
// to. Cells outside the map's bounds are never touched. Cost: the selected cells, and a copy of each chunk they touch.
#pragma once

#include <optional>

#include "core/cells/Block.h"
#include "core/cells/CellSet.h"
#include "core/document/Quilt.h"

namespace uq {

inline constexpr std::int64_t kMostCopiedCells = 1 << 20;  // a block is held in the hand, part by part

// The quilt with the selected cells of the layer empty.
Quilt clearCells(const Quilt& quilt, LayerAt at, const CellSet& selected);

// The painted cells among the selected as a block, with its grip in the middle of the selection; empty where nothing is
// painted. Nothing where more than kMostCopiedCells are painted.
std::optional<Block> copyOf(const Quilt& quilt, LayerAt at, const CellSet& selected);

// The quilt with the selected cells moved by a step in side coordinates. What would leave the map is gone.
Quilt moveCells(const Quilt& quilt, LayerAt at, const CellSet& selected, SidePos by);

// The cells of the set moved likewise, without those that leave the map.
CellSet movedBy(const Map& map, const CellSet& selected, SidePos by);

}  // namespace uq
