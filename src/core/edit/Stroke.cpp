#include "core/edit/Stroke.h"

#include <algorithm>

#include "core/edit/LayCells.h"

namespace uq {

Stroke::Stroke(const Quilt& before, LayerAt at, Kind kind, const Block& block, CellSet within, int lift)
    : before_(before),
      now_(before),
      at_(at),
      kind_(kind),
      block_(block),
      within_(std::move(within)),
      lift_(lift),
      extent_(block.extent()) {
  if (before.layer(at)) grid_ = makeGrid(before.map(at.map)->grid);
}

void Stroke::moveTo(CellPos cell) {
  if (!grid_ || block_.empty()) return;
  if (!press_) press_ = cell;
  for (CellPos crossed : grid_->line(last_.value_or(cell), cell)) layAt(gripFor(crossed));
  last_ = cell;
}

CellPos Stroke::gripFor(CellPos pointer) const {
  const SidePos press = grid_->toSide(*press_);
  const SidePos moved = grid_->toSide(pointer) - press;
  // The press is inside the first copy, also where the block's own cells lie beside its grip.
  const int left = std::clamp(extent_.x0, 1 - extent_.width(), 0);
  const int top = std::clamp(extent_.y0, 1 - extent_.height(), 0);
  const SidePos copies{floorDiv(moved.u - left, extent_.width()), floorDiv(moved.v - top, extent_.height())};
  return grid_->fromSide(press + SidePos{copies.u * extent_.width(), copies.v * extent_.height()});
}

void Stroke::layAt(CellPos grip) {
  if (!laid_.insert(grip).second) return;
  std::vector<CellChange> changes;
  changes.reserve(block_.parts().size());
  for (const Block::Part& part : block_.parts()) {
    const CellPos place = grid_->fromSide(grid_->toSide(grip) + part.at);
    if (!within_.empty() && !within_.contains(place)) continue;
    changes.push_back({place, kind_ == Kind::lay ? part.cell : Cell{}, std::min(part.lift + lift_, kMostLift)});
  }
  now_ = layCells(now_, at_, changes);
}

Quilt stroked(const Quilt& before, LayerAt at, Stroke::Kind kind, const Block& block,
              const std::vector<CellPos>& path) {
  Stroke stroke(before, at, kind, block);
  for (CellPos cell : path) stroke.moveTo(cell);
  return stroke.quilt();
}

}  // namespace uq
