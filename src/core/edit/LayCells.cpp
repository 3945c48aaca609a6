#include "core/edit/LayCells.h"

namespace uq {

Quilt layCells(const Quilt& quilt, LayerAt at, std::span<const CellChange> changes) {
  const Map* map = quilt.map(at.map);
  const TilesLayer* layer = quilt.layer(at);
  if (!layer) return quilt;
  CellGrid cells = layer->cells;
  for (const CellChange& change : changes) {
    if (map->bounds.contains(change.at)) cells.set(change.at, change.cell);
  }
  return quilt.with(at, std::move(cells));
}

}  // namespace uq
