#include "core/cells/LayerCells.h"

#include "core/cells/CellReader.h"

namespace uq {

namespace {

template <class Where>
void layOn(LayerCells& layer, const Where& where, const Laid& laid) {
  layer.cells.fill(where, laid.cell);
  const int lift = laid.cell.empty() ? 0 : laid.lift;
  if (lift != 0 || !layer.lifts.empty()) layer.lifts.fill(where, lift);
  if (!layer.meant.empty()) layer.meant.fill(where, 0);
}

}  // namespace

void LayerCells::lay(CellPos at, const Laid& laid) {
  cells.set(at, laid.cell);
  const int lift = laid.cell.empty() ? 0 : laid.lift;
  if (lift != 0 || !lifts.empty()) lifts.set(at, lift);
  if (!meant.empty()) meant.set(at, 0);
}

void LayerCells::lay(CellRect where, const Laid& laid) { layOn(*this, where, laid); }

void LayerCells::lay(const CellSet& where, const Laid& laid) { layOn(*this, where, laid); }

void LayerCells::forEachLaid(const CellSet& which, const Visit& visit) const {
  CellReader tiles(cells);
  CellReader heights(lifts.cells());
  which.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      const CellPos at{first.x + i, first.y};
      const Cell cell = tiles.at(at);
      if (!cell.empty()) visit(at, {cell, NumberGrid::numberOf(heights.at(at))});
    }
  });
}

void LayerCells::forEachLaid(const Visit& visit) const {
  cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    cells.forEachPainted(chunk.at.cells(), [&](CellPos at, Cell) { visit(at, laidAt(at)); });
  });
}

void LayerCells::move(const CellSet& which, LayerCells& to, const Place& place) {
  struct Moved {
    CellPos to;
    Laid laid;
    int meant = 0;
  };
  std::vector<Moved> moved;
  forEachLaid(which, [&](CellPos at, const Laid& laid) {
    if (const auto where = place(at)) moved.push_back({*where, laid, meant.empty() ? 0 : meant.at(at)});
  });
  lay(which, Laid{});
  for (const Moved& one : moved) {
    to.lay(one.to, one.laid);
    if (one.meant != 0) to.meant.set(one.to, one.meant);
  }
}

std::vector<CellRect> LayerCells::differences(const LayerCells& a, const LayerCells& b) {
  std::vector<CellRect> all;
  if (!a.cells.sameAs(b.cells)) all = CellGrid::differences(a.cells, b.cells);
  for (const NumberGrid LayerCells::*beside : {&LayerCells::lifts, &LayerCells::meant}) {
    if ((a.*beside).cells().sameAs((b.*beside).cells())) continue;
    const auto other = CellGrid::differences((a.*beside).cells(), (b.*beside).cells());
    all.insert(all.end(), other.begin(), other.end());
  }
  return all;
}

}  // namespace uq
