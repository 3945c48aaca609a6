// PlanView: a slanted map as seen from straight above. Its cells are drawn as squares, one layer over the other,
// without offsets, rises and lifts; cells, selections and edits are those of the map itself, so every tool works on
// both.
#pragma once

#include "core/document/Quilt.h"

namespace uq {

// Whether a grid is slanted, so that a view from above shows something else.
bool hasPlan(GridKind kind);

// The quilt with that map as seen from above, for showing only. The map and its layers keep their revisions. Where the
// map has no plan, the quilt as it is.
Quilt inPlan(const Quilt& quilt, Id map);

}  // namespace uq
