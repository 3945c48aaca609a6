// JoinQuilts: two quilts that came of one, made one again: what was done here, and what somebody else saved meanwhile.
//
// Part by part (the facts, maps, sheets, stamps), and in a map layer by layer: what changed on one side only is taken
// from there. What changed on both is chosen by a function, which a person stands behind; nothing is lost unasked. What
// was deleted on one side and changed on the other stays. Names that both gave are told apart.
// All three must have the same slots. A value's work, on any thread. Cost: the parts that differ; of layers that are not
// shared, a comparison of their cells.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

// What changed on both sides.
struct BothChanged {
  enum class What { facts, map, layer, sheet, stamp };
  What what = What::map;
  Id part;           // empty for the facts
  Id layer;          // with What::layer; `part` is its map
  std::string name;  // "Paving on Depot Yard"
  bool mayBoth = false;
};
enum class Side { here, there, both };  // both: theirs as a copy beside ours
using Choose = std::function<Side(const BothChanged& what)>;

struct Joined {
  Quilt quilt;
  std::vector<std::string> taken;  // names of what came from there
  std::vector<std::string> kept;   // of what was deleted on one side and changed on the other, and stays
};
Joined joined(const Quilt& base, const Quilt& here, const Quilt& there, const Choose& choose, IdSource& ids);

// What would be asked.
std::vector<BothChanged> bothChanged(const Quilt& base, const Quilt& here, const Quilt& there);

}  // namespace uq
