#include "core/edit/LayCells.h"

namespace uq {

Quilt layCells(const Quilt& quilt, LayerAt at, std::span<const CellChange> changes) {
  const Map* map = quilt.map(at.map);
  const Layer* layer = quilt.layer(at);
  if (!layer) return quilt;
  LayerCells cells = *layer;
  for (const CellChange& change : changes) {
    if (map->bounds.contains(change.at)) cells.lay(change.at, change.cell, change.lift);
  }
  return quilt.with(at, std::move(cells));
}

}  // namespace uq
