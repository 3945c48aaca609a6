#include "core/edit/LayCells.h"

namespace uq {

Quilt layCells(const Quilt& quilt, LayerAt at, std::span<const CellChange> changes) {
  const Map* map = quilt.map(at.map);
  const Layer* layer = quilt.layer(at);
  if (!layer) return quilt;
  CellGrid cells = layer->cells;
  NumberGrid lifts = layer->lifts;
  for (const CellChange& change : changes) {
    if (!map->bounds.contains(change.at)) continue;
    cells.set(change.at, change.cell);
    const int lift = change.cell.empty() ? 0 : change.lift;
    if (lift != 0 || !lifts.empty()) lifts.set(change.at, lift);
  }
  return quilt.with(at, std::move(cells), std::move(lifts));
}

}  // namespace uq
