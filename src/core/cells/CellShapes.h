// Sets of cells by their shape: boxes, ovals, discs and the broad stroke of a brush, outlines of sets.
//
// All are sets of cells of one grid. Shapes that may span far more than is wanted of them take a rectangle and give only
// the cells inside it, at the cost of those. Cost: the cells of the shape's bounds, where nothing else is said.
#pragma once

#include <span>

#include "core/cells/CellSet.h"
#include "core/grid/Grid.h"

namespace uq {

enum class BoxShape {
  asSeen,        // the cells whose middle lies in the rectangle of pixels between both middles
  alongTheGrid,  // the parallelogram in side coordinates
};

// What people expect first: along the grid on squares and diamonds, else as seen.
BoxShape usualBox(GridKind kind);

// A rectangle that holds any cell; and what is asked of a map whose bounds are larger than sets of cells are made for.
inline constexpr CellRect kEverywhere{-4 * kFarthestCell, -4 * kFarthestCell, 4 * kFarthestCell, 4 * kFarthestCell};
inline constexpr std::int64_t kMostChunks = 1 << 18;  // 16,384 × 65,536 cells, for example
// Whether a set of all these cells would be too much to work with.
bool isTooWide(CellRect cells);

// The box between two cells, as far as it lies inside `within`.
CellSet boxOf(const Grid& grid, CellPos a, CellPos b, BoxShape shape, CellRect within = kEverywhere);
inline CellSet boxOf(const Grid& grid, CellPos a, CellPos b) { return boxOf(grid, a, b, usualBox(grid.shape().kind)); }

// The oval that fills the box between two cells, round on the ground: along the grid on squares, diamonds and staggered
// diamonds, as seen on hexagons.
CellSet ovalOf(const Grid& grid, CellPos a, CellPos b, CellRect within = kEverywhere);
// The oval that fills a box as seen, or along the grid, whatever is usual on the grid.
CellSet ovalIn(const Grid& grid, CellPos a, CellPos b, BoxShape shape, CellRect within = kEverywhere);
// The oval of equal radii: from `a` towards `b` as far as the farther of both ways on four-sided cells; on hexagons all
// cells about `a` that are no farther from it than `b`.
CellSet roundOf(const Grid& grid, CellPos a, CellPos b, CellRect within = kEverywhere);

// The far end of a box of equal sides from `a` towards `b`: as many cells both ways along the grid, else as many
// pixels.
CellPos equalBoxEnd(const Grid& grid, CellPos a, CellPos b, BoxShape shape);

// The end nearest to `b` of a line from `a` across sides or through corners: 8 directions, on hexagons 12.
CellPos snappedLineEnd(const Grid& grid, CellPos a, CellPos b);

// The cells of `bounds` whose middle lies inside a closed way over map pixels, by the rule of odd crossings; none where
// the way goes round more than kMostOutlined.
inline constexpr std::int64_t kMostOutlined = 1 << 26;
CellSet insideOutline(const Grid& grid, CellRect bounds, std::span<const PixelPos> way);

// The set with the cells beside it, across sides and, on four-sided cells, corners; and without its own outline.
CellSet grown(const Grid& grid, const CellSet& cells);
CellSet shrunk(const Grid& grid, const CellSet& cells);

// The steps between two cells: the larger side difference, on hexagons the fewest sides crossed.
int distanceOf(const Grid& grid, CellPos a, CellPos b);

// The smallest rectangle of side coordinates that holds the set.
CellRect sideBoundsOf(const Grid& grid, const CellSet& cells);

// All cells within a distance.
CellSet discOf(const Grid& grid, CellPos middle, int distance);

// The cells within (width − 1) / 2 of each cell of a joined stroke. `width` is odd, in cells across.
CellSet brushed(const Grid& grid, std::span<const CellPos> stroke, int width);

// The cells of a set that have a neighbour outside it, across a side or a corner (on hexagons a side): closed for a
// fill through sides, and joined through sides where the set is.
CellSet outlineOf(const Grid& grid, const CellSet& cells);

}  // namespace uq
