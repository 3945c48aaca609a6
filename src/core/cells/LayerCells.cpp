#include "core/cells/LayerCells.h"

namespace uq {

namespace {

template <class Where>
void layOn(LayerCells& layer, const Where& where, const Laid& laid) {
  layer.cells.fill(where, laid.cell);
  const int lift = laid.cell.empty() ? 0 : laid.lift;
  if (lift != 0 || !layer.lifts.empty()) layer.lifts.fill(where, lift);
}

}  // namespace

void LayerCells::lay(CellPos at, const Laid& laid) {
  cells.set(at, laid.cell);
  const int lift = laid.cell.empty() ? 0 : laid.lift;
  if (lift != 0 || !lifts.empty()) lifts.set(at, lift);
}

void LayerCells::lay(CellRect where, const Laid& laid) { layOn(*this, where, laid); }

void LayerCells::lay(const CellSet& where, const Laid& laid) { layOn(*this, where, laid); }

std::vector<CellRect> LayerCells::differences(const LayerCells& a, const LayerCells& b) {
  std::vector<CellRect> all;
  if (!a.cells.sameAs(b.cells)) all = CellGrid::differences(a.cells, b.cells);
  if (a.lifts.cells().sameAs(b.lifts.cells())) return all;
  const auto lifted = CellGrid::differences(a.lifts.cells(), b.lifts.cells());
  all.insert(all.end(), lifted.begin(), lifted.end());
  return all;
}

}  // namespace uq
