// Meant: what was to lie on a cell, as a plain number, where the shape that shows it is missing and another tile stands in.
//
// It is kept beside the tile (LayerCells::meant), so that whatever is laid beside goes by what was meant, in whatever order, and a
// shape that comes later takes the stand-in's place. It says two materials and at which places the second is: by corners the
// corners, by sides and of a path the sides, by both the sides and, on
// four-sided cells, inner corners. What shows a third is spelt out place by place
// where the edging has few enough materials (17 by corners, 9 by sides; on hexagons 6 and 4), else kept as nearly as two can say.
// A value is 1 .. 2^18 − 1; 0 says nothing. Materials count by their place in the edging's list. Threads: any.
#pragma once

#include "core/document/EdgingShape.h"

namespace uq {

// 0 where it has no place that is known.
int meantOf(const Edging& edging, const EdgingShape& wanted);
// What a member would show that shows it: without tile. Of a number that says nothing sensible about this edging: nothing.
std::optional<EdgingMember> memberMeant(const Edging& edging, int meant);

}  // namespace uq
