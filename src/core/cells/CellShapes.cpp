#include "core/cells/CellShapes.h"

namespace uq {

CellSet boxOf(const Grid& grid, CellPos a, CellPos b) {
  const GridKind kind = grid.shape().kind;
  if (kind == GridKind::orthogonal || kind == GridKind::diamond) return CellSet(CellRect::around(a, b));
  // Twice the middle, in map pixels.
  const auto middle = [&](CellPos cell) {
    const PixelRect box = grid.cellBox(cell);
    return PixelPos{2 * box.x + box.w, 2 * box.y + box.h};
  };
  const PixelPos from = middle(a);
  const PixelPos to = middle(b);
  const auto between = [](int x, int p, int q) { return x >= std::min(p, q) && x <= std::max(p, q); };
  const CellRect near = CellRect::around(a, b).grown(1);
  CellSet box;
  for (int y = near.y0; y < near.y1; ++y) {
    for (int x = near.x0; x < near.x1; ++x) {
      const PixelPos at = middle({x, y});
      if (between(at.x, from.x, to.x) && between(at.y, from.y, to.y)) box.insert({x, y});
    }
  }
  return box;
}

}  // namespace uq
