#include "core/grid/Stance.h"

#include <set>
#include <utility>

namespace uq {

Stance turnedStance(const Grid& grid, Stance stance, Turn drawn) {
  const GridKind kind = grid.shape().kind;
  if (kind == GridKind::orthogonal) {
    if (drawn.steps % 2 == 1) std::swap(stance.footprint.w, stance.footprint.h);
    return stance;
  }
  if (drawn.mirror) {
    stance.seat.x = -stance.seat.x;
    if (grid.turnOrder() == 4) std::swap(stance.footprint.w, stance.footprint.h);
  }
  return stance;
}

std::vector<CellPos> footprintOf(const Grid& grid, CellPos at, PixelSize footprint) {
  const int along = grid.shape().kind == GridKind::orthogonal ? 1 : -1;
  const SidePos nearest = grid.toSide(at);
  std::vector<CellPos> cells;
  for (int v = 0; v < footprint.h; ++v) {
    for (int u = 0; u < footprint.w; ++u) cells.push_back(grid.fromSide(nearest + SidePos{along * u, -v}));
  }
  return cells;
}

PixelRect standing(const Grid& grid, CellPos at, PixelSize size, const Stance& stance) {
  PixelRect place = grid.seat(at, size);
  if (stance.isWide() && grid.shape().kind != GridKind::orthogonal) {
    PixelRect box;
    for (const CellPos cell : footprintOf(grid, at, stance.footprint)) box = box.united(grid.cellBox(cell));
    place = {box.x + floorDiv(box.w - size.w, 2), box.bottom() - size.h, size.w, size.h};
  }
  return {place.x + stance.seat.x, place.y + stance.seat.y, place.w, place.h};
}

std::vector<Strip> stripsOf(const Grid& grid, CellPos at, PixelSize footprint, const PixelRect& place) {
  if (footprint == PixelSize{1, 1}) return {{place.x, place.right(), at}};
  const std::vector<CellPos> cells = footprintOf(grid, at, footprint);
  std::set<int> edges;
  for (const CellPos cell : cells) {
    edges.insert(grid.cellBox(cell).x);
    edges.insert(grid.cellBox(cell).right());
  }
  std::vector<Strip> strips;
  for (auto edge = edges.begin(); std::next(edge) != edges.end(); ++edge) {
    const CellPos* front = nullptr;
    for (const CellPos& cell : cells) {
      const PixelRect box = grid.cellBox(cell);
      const bool spans = box.x <= *edge && box.right() >= *std::next(edge);
      if (spans && (!front || box.bottom() > grid.cellBox(*front).bottom())) front = &cell;
    }
    if (!front) continue;
    if (!strips.empty() && strips.back().front == *front) {
      strips.back().right = *std::next(edge);
    } else {
      strips.push_back({*edge, *std::next(edge), *front});
    }
  }
  // The outermost strips hold what reaches beyond the cells; the picture may also be narrower than they are.
  strips.front().left = std::min(strips.front().left, place.x);
  strips.back().right = std::max(strips.back().right, place.right());
  std::vector<Strip> inside;
  for (Strip strip : strips) {
    strip.left = std::max(strip.left, place.x);
    strip.right = std::min(strip.right, place.right());
    if (strip.left < strip.right) inside.push_back(strip);
  }
  return inside;
}

}  // namespace uq
