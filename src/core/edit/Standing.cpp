#include "core/edit/Standing.h"

#include <algorithm>

namespace uq {

Standing::Standing(const Quilt& quilt, const Map& map) : quilt_(quilt), map_(map), grid_(makeGrid(map.grid)) {
  for (const Shared<Layer>& layer : map.layers) {
    if (layer->holdsTiles() && layer->inGame && layer->parallax == Parallax{}) layers_.push_back(&layer.read());
  }
  const auto widen = [this](PixelSize footprint) {
    widest_ = {std::max(widest_.w, footprint.w), std::max(widest_.h, footprint.h)};
  };
  for (const Shared<Sheet>& sheet : quilt.sheets()) {
    if (sheet->footing == Footing::solid) widen(sheet->stance.footprint);
    for (const auto& [number, facts] : sheet->tiles) {
      if (sheet->footingOf(number) == Footing::solid) widen(sheet->stanceOf(number).footprint);
    }
  }
}

bool Standing::isSolid(const Layer& layer, CellPos at, CellPos covers) const {
  const Cell cell = layer.cells.at(at);
  if (cell.empty() || layer.lifts.at(at) != 0) return false;
  const Sheet* sheet = quilt_.sheetAt(cell.tile().slot);
  if (!sheet || sheet->footingOf(cell.tile().number) != Footing::solid) return false;
  if (at == covers) return true;
  const Stance stance = turnedStance(*grid_, sheet->stanceOf(cell.tile().number), grid_->pictureTurn(cell.turn()));
  if (!stance.isWide()) return false;
  const std::vector<CellPos> cells = footprintOf(*grid_, at, stance.footprint);
  return std::find(cells.begin(), cells.end(), covers) != cells.end();
}

bool Standing::canStand(CellPos cell) const {
  if (!map_.bounds.contains(cell)) return false;
  const int reach = std::max(widest_.w, widest_.h);
  const bool isWide = widest_.w > 1 || widest_.h > 1;
  if (!isWide) return std::none_of(layers_.begin(), layers_.end(), [&](const Layer* layer) { return isSolid(*layer, cell, cell); });
  // Whoever reaches here lies within as many cells along both ways.
  const SidePos here = grid_->toSide(cell);
  for (const Layer* layer : layers_) {
    for (int v = 1 - reach; v < reach; ++v) {
      for (int u = 1 - reach; u < reach; ++u) {
        if (isSolid(*layer, grid_->fromSide(here + SidePos{u, v}), cell)) return false;
      }
    }
  }
  return true;
}

std::vector<Heading> Standing::openSides(CellPos cell) const {
  std::vector<Heading> open;
  const std::vector<Heading>& all = headingsOf(map_.grid.kind);
  for (std::size_t side = 0; side < all.size(); ++side) {
    if (canStand(grid_->across(cell, static_cast<int>(side)))) open.push_back(all[side]);
  }
  return open;
}

Heading Standing::facing(CellPos cell, Heading travel) const {
  const std::vector<Heading> open = openSides(cell);
  const std::vector<Heading>& all = open.empty() ? headingsOf(map_.grid.kind) : open;
  const auto angle = [&](Heading one) {
    const int turn = (static_cast<int>(one) - static_cast<int>(travel) + kHeadings) % kHeadings;
    return turn <= kHeadings / 2 ? 2 * turn : 2 * (kHeadings - turn) + 1;
  };
  return *std::min_element(all.begin(), all.end(), [&](Heading a, Heading b) { return angle(a) < angle(b); });
}

Heading Standing::leaving(CellPos cell) const {
  const std::vector<Heading>& all = headingsOf(map_.grid.kind);
  const std::vector<Heading> open = openSides(cell);
  if (open.size() == 1) return nearestHeading(map_.grid.kind, opposite(open.front()));
  for (std::size_t side = 0; side < all.size(); ++side) {
    if (!map_.bounds.contains(grid_->across(cell, static_cast<int>(side)))) return all[side];
  }
  constexpr Heading kLowerFirst[] = {Heading::south, Heading::southEast, Heading::southWest, Heading::east,
                                     Heading::west,  Heading::northEast, Heading::northWest, Heading::north};
  for (const Heading one : kLowerFirst) {
    if (std::find(open.begin(), open.end(), one) != open.end()) return nearestHeading(map_.grid.kind, opposite(one));
  }
  return all.front();
}

}  // namespace uq
