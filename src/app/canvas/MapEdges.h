// MapEdges: the edges of the map under the hand: which one can be taken hold of at a point, how the pointer looks there,
// and what is said of one that is dragged.
//
// An edge is on the real outline, teeth included: a point is at it where it lies outside the map and the map is no farther
// than kEdgeReach. Functions of their arguments. Cost: constant. Threads: the interface's.
#pragma once

#include <QString>

#include "app/canvas/MapView.h"
#include "core/work/EdgeDrag.h"

namespace uq {

inline constexpr double kEdgeReach = 6;  // logical pixels

// None within the map, and where it is too far. `plane` is that of the map itself.
HeldEdge edgeAt(const Plane& plane, CellRect bounds, QPointF at, double within = kEdgeReach);

Qt::CursorShape cursorOf(const HeldEdge& edge, GridKind kind);

// "48 × 32 = 1536 × 1024 px = 3.2 × 3.8 screens".
QString sizeText(const Quilt& quilt, const Map& map);

// A size, and what it cuts off and brings back of painted cells.
QString resizingText(const Quilt& quilt, const Map& map, std::int64_t cut, std::int64_t broughtBack);

// What letting go would do; `map` as it is shown.
QString wordsOf(const EdgeDrag& drag, const Quilt& quilt, const Map& map);

}  // namespace uq
