// What can be done with the selected cells of one layer or several: empty, copy, move, turn them, lay them elsewhere.
//
// Empty cells of the selection are not copied and not moved, so they leave what lies under the place they would come
// to. Cells outside the map's bounds are never touched. Cost: the selected cells, and a copy of each chunk they touch.
#pragma once

#include <optional>
#include <span>

#include "core/cells/CellSet.h"
#include "core/document/Desk.h"

namespace uq {

inline constexpr std::int64_t kMostCopiedCells = 1 << 20;  // a block is held in the hand, part by part

using Layers = std::span<const LayerAt>;

// The layers on which a verb acts: the active one, or with ToolOptions::allLayers all that are neither hidden nor
// locked, the farthest first.
std::vector<LayerAt> layersOfVerb(const Desk& desk, const Quilt& quilt);

// What is selected, layer by layer: the same cells of each, or of each what belongs to a stamp that lies there.
struct SelectedCells {
  struct On {
    LayerAt at;
    CellSet cells;
  };
  CellSet all;             // on any layer; by its middle they are held
  std::vector<On> layers;  // of one map, the farthest first

  SelectedCells() = default;
  SelectedCells(Layers on, const CellSet& cells);
  std::vector<LayerAt> at() const;
};
// What a verb for the selection acts on.
SelectedCells selectedOf(const Desk& desk, const Quilt& quilt);

// The quilt with the selected cells of the layers empty.
Quilt clearCells(const Quilt& quilt, const SelectedCells& selected);
Quilt clearCells(const Quilt& quilt, Layers layers, const CellSet& selected);
Quilt clearCells(const Quilt& quilt, LayerAt at, const CellSet& selected);

// The painted cells among the selected as a block, with its grip in the middle of the selection; empty where nothing is
// painted. Nothing where more than kMostCopiedCells are painted.
std::optional<Block> copyOf(const Quilt& quilt, LayerAt at, const CellSet& selected);
// Those of several layers of one map as a thing in hand: its block is of the layer `main`, or of the farthest that has
// any, and the others are its further parts.
std::optional<InHand> copyOf(const Quilt& quilt, const SelectedCells& selected, LayerAt main);
std::optional<InHand> copyOf(const Quilt& quilt, Layers layers, LayerAt main, const CellSet& selected);
// The cell by which a copy is held.
CellPos gripOf(const CellSet& selected);

// The quilt with the selected cells of the layers moved by a step in side coordinates. What would leave the map is
// gone.
Quilt moveCells(const Quilt& quilt, const SelectedCells& selected, SidePos by);
Quilt moveCells(const Quilt& quilt, LayerAt at, const CellSet& selected, SidePos by);

// The quilt with the selected cells of one layer lying on another of its map.
Quilt moveToLayer(const Quilt& quilt, LayerAt from, Id to, const CellSet& selected);

// The quilt with the selected cells turned about the middle of the selection, pictures and arrangement, and the set
// that is selected then. On four-sided cells a mirrored selection keeps its place; on hexagons its grip does.
struct TurnGrip {
  CellSet selected;  // that was left selected
  CellPos at;
};
struct TurnedCells {
  Quilt quilt;
  CellSet selected;
  TurnGrip grip{};
};
// `last`: about what the cells were turned before, so that turns of one selection that follow one another come back to
// where they began.
TurnedCells turnCells(const Quilt& quilt, const SelectedCells& selected, Turning turning,
                      const std::optional<TurnGrip>& last = {});

// The cells of the set moved likewise, without those that leave the map.
CellSet movedSelection(const Map& map, const CellSet& selected, SidePos by);

// The selected painted cells thrown again: members of a mix, in hand or among the stamps, by that mix; with a hand that
// turns by chance, others by their turn.
Quilt thrownAgain(const Quilt& quilt, LayerAt at, const CellSet& selected, const InHand& hand, std::uint64_t seed);

}  // namespace uq
