// RowsAndColumns: rows and columns put into the middle of a map, or taken out of it, and all that goes along.
//
// The map grows or shrinks by as many at its right or lower edge; its cells, those of the seam allowance too, go where
// whereTo (CellLines.h) says, and so does the place where a backdrop hangs. On one layer alone only its cells go, and
// the map stays as large; what comes to lie outside is seam allowance. On grids with shifted rows (flat ones: columns)
// an odd number of them moves what follows by half a cell. Cost: the chunks behind the place, on each layer, on as many
// threads as there are cores.
#pragma once

#include <set>
#include <string>

#include "core/cells/CellLines.h"
#include "core/document/Desk.h"
#include "core/document/Quilt.h"

namespace uq {

// How many of them at once leave all cells in step: 1, or 2 where an odd number moves what follows by half a cell.
int evenLines(GridKind kind, CellLines::Which which);

// Why they cannot come in, or go, in words; empty where they can. `only`: on that layer alone; empty: on all. Layers
// that are `locked` are not changed.
std::string whyNoLines(const Map& map, const CellLines& lines, Id only = {}, const std::set<Id>& locked = {});

// Nothing changes where whyNoLines says why.
Quilt withLines(const Quilt& quilt, Id map, const CellLines& lines, Id only = {});

// How many painted cells go; none where lines come in. Cost: the chunks there.
std::int64_t paintedIn(const Map& map, const CellLines& lines, Id only = {});

// "2 columns", "1 row".
std::string linesText(const CellLines& lines);

// The layer that the desk says they come in and go on alone; empty: on all.
Id linesLayer(const Desk& desk);

// Where a map pixel goes with the cell that it lies on.
PixelPos whereTo(const GridShape& grid, const CellLines& lines, PixelPos at);

}  // namespace uq
