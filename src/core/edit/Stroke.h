// Stroke: what one press, drag and release of Brush or Erase does to a layer.
//
// A stroke is a function of the quilt before it and the path of the pointer; making it move by move gives the same
// result as making it at once. The cells between two moves are joined by the grid's line, so a fast hand leaves no
// gaps. A block is laid at multiples of its size counted from the press, so its copies meet without overlapping. Cost
// of a move: the cells it newly crosses, and a copy of each chunk they touch.
#pragma once

#include <memory>
#include <optional>
#include <set>

#include "core/cells/Block.h"
#include "core/cells/CellSet.h"
#include "core/document/Quilt.h"

namespace uq {

class Stroke {
 public:
  enum class Kind { lay, takeAway };

  // Nothing happens in a stroke on a layer that does not exist, or with an empty block. Taking away empties the cells
  // that `block` would have covered. Where `within` holds cells, only those are touched. `lift` is added to what the
  // block's parts are lifted by, in map pixels; together at most kMostLift.
  Stroke(const Quilt& before, LayerAt at, Kind kind, const Block& block, CellSet within = {}, int lift = 0);

  // Presses (first call) or moves to `cell`.
  void moveTo(CellPos cell);

  const Quilt& before() const { return before_; }
  // The quilt with the stroke as far as it has come.
  const Quilt& quilt() const { return now_; }

 private:
  void layAt(CellPos grip);
  CellPos gripFor(CellPos pointer) const;

  Quilt before_;
  Quilt now_;
  LayerAt at_;
  Kind kind_;
  Block block_;
  CellSet within_;
  int lift_;
  CellRect extent_;
  std::unique_ptr<const Grid> grid_;
  std::optional<CellPos> press_;
  std::optional<CellPos> last_;
  std::set<CellPos> laid_;  // grips where the block already lies
};

// The whole stroke at once.
Quilt stroked(const Quilt& before, LayerAt at, Stroke::Kind kind, const Block& block, const std::vector<CellPos>& path);

}  // namespace uq
