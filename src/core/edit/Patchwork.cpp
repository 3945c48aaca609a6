#include "core/edit/Patchwork.h"

#include <algorithm>

namespace uq {

namespace {

// Cells shifted by a step.
CellSet shifted(const CellSet& cells, CellPos by) {
  if (by == CellPos{}) return cells;
  CellSet moved;
  cells.forEachStretch([&](CellPos first, int count) { moved.insert({first.x + by.x, first.y + by.y}, count); });
  return moved;
}

}  // namespace

Patchwork::Patchwork(std::vector<Patch> patches) : patches_(std::move(patches)) {
  for (const Patch& patch : patches_) bounds_ = bounds_.united(patch.cells);
}

Patchwork Patchwork::under(const Quilt& quilt, Id map) {
  const Map* one = quilt.map(map);
  return one ? Patchwork({{map, one->bounds, {}}}) : Patchwork();
}

const Patch* Patchwork::at(CellPos canvas) const {
  const auto has = [&](const Patch& patch) { return patch.cells.contains(canvas); };
  const auto found = std::find_if(patches_.begin(), patches_.end(), has);
  return found == patches_.end() ? nullptr : &*found;
}

CellSet Patchwork::among(const CellSet& canvas) const {
  const CellRect all = canvas.bounds();
  CellSet here;
  for (const Patch& patch : patches_) {
    const CellRect common = all.intersected(patch.cells);
    if (common == all) return canvas;
    if (!common.empty()) here = here.united(canvas.intersected(CellSet(common)));
  }
  return here;
}

void Patchwork::forEachPatch(const CellSet& canvas,
                             const std::function<void(const Patch&, const CellSet&)>& visit) const {
  const CellRect all = canvas.bounds();
  for (const Patch& patch : patches_) {
    const CellRect common = all.intersected(patch.cells);
    if (common.empty()) continue;
    const CellSet own = common == all ? canvas : canvas.intersected(CellSet(common));
    if (!own.empty()) visit(patch, shifted(own, {-patch.by.x, -patch.by.y}));
  }
}

}  // namespace uq
