#include "core/edit/Selected.h"

#include "core/cells/CellReader.h"
#include "core/edit/LayCells.h"

namespace uq {

namespace {

// Calls f for each selected cell of the map, with what lies on it.
template <class F>
void forEachSelected(const Map& map, const TilesLayer& layer, const CellSet& selected, F&& f) {
  CellReader reader(layer.cells);
  selected.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      const CellPos at{first.x + i, first.y};
      if (map.bounds.contains(at)) f(at, reader.at(at));
    }
  });
}

}  // namespace

Quilt clearCells(const Quilt& quilt, LayerAt at, const CellSet& selected) {
  const TilesLayer* layer = quilt.layer(at);
  if (!layer) return quilt;
  CellGrid cells = layer->cells;
  NumberGrid lifts = layer->lifts;
  const CellRect bounds = quilt.map(at.map)->bounds;
  selected.forEachStretch([&](CellPos first, int count) {
    const CellRect stretch = CellRect{first.x, first.y, first.x + count, first.y + 1}.intersected(bounds);
    cells.fill(stretch, Cell());
    if (!lifts.empty()) lifts.fill(stretch, 0);
  });
  return quilt.with(at, std::move(cells), std::move(lifts));
}

std::optional<Block> copyOf(const Quilt& quilt, LayerAt at, const CellSet& selected) {
  const TilesLayer* layer = quilt.layer(at);
  if (!layer) return Block();
  const Map& map = *quilt.map(at.map);
  const auto grid = makeGrid(map.grid);
  const CellRect bounds = selected.bounds();
  const SidePos grip = grid->toSide({bounds.x0 + (bounds.width() - 1) / 2, bounds.y0 + (bounds.height() - 1) / 2});
  std::vector<Block::Part> parts;
  forEachSelected(map, *layer, selected, [&](CellPos place, Cell cell) {
    const bool room = static_cast<std::int64_t>(parts.size()) <= kMostCopiedCells;
    if (!cell.empty() && room) parts.push_back({grid->toSide(place) - grip, cell, layer->lifts.at(place)});
  });
  if (static_cast<std::int64_t>(parts.size()) > kMostCopiedCells) return std::nullopt;
  return Block(std::move(parts));
}

Quilt moveCells(const Quilt& quilt, LayerAt at, const CellSet& selected, SidePos by) {
  const TilesLayer* layer = quilt.layer(at);
  if (!layer || by == SidePos{}) return quilt;
  const Map& map = *quilt.map(at.map);
  const auto grid = makeGrid(map.grid);
  std::vector<CellChange> arriving;
  forEachSelected(map, *layer, selected, [&](CellPos place, Cell cell) {
    if (!cell.empty()) arriving.push_back({grid->fromSide(grid->toSide(place) + by), cell, layer->lifts.at(place)});
  });
  return layCells(clearCells(quilt, at, selected), at, arriving);
}

CellSet movedBy(const Map& map, const CellSet& selected, SidePos by) {
  const auto grid = makeGrid(map.grid);
  CellSet moved;
  selected.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      const CellPos at = grid->fromSide(grid->toSide({first.x + i, first.y}) + by);
      if (map.bounds.contains(at)) moved.insert(at);
    }
  });
  return moved;
}

}  // namespace uq
