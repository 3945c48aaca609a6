// Flood fill: the region of cells that hang together with one, on any grid.
//
// Works on chunks: one whose cells all take part is filled as a whole, in others a row of 64 cells is one word. What
// hangs together inside a row is found by a carry that runs up and a prefix fill that runs down; rows seed the rows
// that they touch by masks made from Grid::across for odd and even columns and rows; chunks seed their neighbours until
// nothing is new. A page whose chunks all take part is filled at once. Every fill equals the plain one that goes from
// cell to cell.
// Cost: the chunks that the region touches, and a test of each; memory 1 KB a chunk that is not filled as a whole.
#pragma once

#include <functional>
#include <vector>

#include "core/cells/CellGrid.h"
#include "core/cells/CellSet.h"
#include "core/grid/Grid.h"

namespace uq {

// Which cells of a chunk take part: none, all, or those that are set in `rows`, which is only then looked at.
enum class Holds : std::uint8_t { none, all, some };
using ChunkTest = std::function<Holds(ChunkPos at, ChunkRows& rows)>;

// The cells that hold one of these tiles, whichever way they are turned; TileRef{} stands for empty cells. `cells` must
// outlive the test.
ChunkTest holdsOneOf(const CellGrid& cells, std::vector<TileRef> tiles);
// The cells that pass all of the tests: all cells where there are none.
ChunkTest passesAll(std::vector<ChunkTest> tests);

// Corners count on squares and diamonds only, where four cells meet in one.
enum class Through { sides, corners };

// The cells of `bounds` that pass `test` and can be reached from `start` through such cells; empty when `start` is none
// of them.
CellSet floodFill(const Grid& grid, CellRect bounds, CellPos start, const ChunkTest& test,
                  Through through = Through::sides);

// All cells of `bounds` that pass `test`, which is asked by as many threads as there are cores.
CellSet cellsPassing(CellRect bounds, const ChunkTest& test);

}  // namespace uq
