#include "core/edit/SwapTiles.h"

#include <algorithm>

namespace uq {

namespace {

// Counts the cells of a layer that a swap concerns, and writes the others into `after` where there is one.
std::int64_t swapOn(const Layer& layer, CellRect bounds, const CellSet* within, const SwapAsk& ask,
                    CellGrid* after) {
  std::int64_t found = 0;
  const auto inOther = [&](Cell cell) { return Cell(ask.to, cell.turn()); };
  layer.cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    const auto isIt = [&](Cell cell) {
      if (cell.empty() || cell.tile() == ask.to) return false;
      return cell.tile() == ask.from || std::binary_search(ask.also.begin(), ask.also.end(), cell.tile());
    };
    const CellRect part = chunk.at.cells().intersected(bounds);
    if (part.empty()) return;
    if (!chunk.any(isIt)) return;
    if (chunk.isUniform() && !within) {
      found += part.count();
      if (after) after->fill(part, inOther(chunk.uniform()));
      return;
    }
    ChunkCells cells = chunk.cells();
    bool any = false;
    for (int y = part.y0; y < part.y1; ++y) {
      for (int x = part.x0; x < part.x1; ++x) {
        Cell& cell =
            cells[static_cast<std::size_t>((y - chunk.at.cy * kChunkSide) * kChunkSide + x - chunk.at.cx * kChunkSide)];
        if (!isIt(cell) || (within && !within->contains({x, y}))) continue;
        cell = inOther(cell);
        any = true;
        ++found;
      }
    }
    if (any && after) after->setChunk(chunk.at, cells);
  });
  return found;
}

template <class Visit>
void forEachLayer(const Quilt& quilt, const SwapAsk& ask, Visit&& visit) {
  for (const auto& map : quilt.maps()) {
    if (ask.in != SwapIn::allMaps && map->id != ask.at.map) continue;
    for (const Shared<Layer>& layer : map->layers) {
      const bool oneLayer = ask.in == SwapIn::selection || ask.in == SwapIn::layer;
      if (!oneLayer || layer->id == ask.at.layer) visit(map.read(), layer.read());
    }
  }
}

}  // namespace

Swapped swapTiles(const Quilt& quilt, const SwapAsk& ask) {
  Swapped swapped{quilt, 0};
  if (ask.from == ask.to || ask.to == TileRef{}) return swapped;
  const CellSet* within = ask.in == SwapIn::selection ? &ask.selected : nullptr;
  forEachLayer(quilt, ask, [&](const Map& map, const Layer& layer) {
    LayerCells laid = layer;
    const std::int64_t found = swapOn(layer, map.bounds, within, ask, &laid.cells);
    if (found == 0) return;
    swapped.cells += found;
    swapped.quilt = swapped.quilt.with({map.id, layer.id}, std::move(laid));
  });
  return swapped;
}

std::int64_t countSwap(const Quilt& quilt, const SwapAsk& ask) {
  const CellSet* within = ask.in == SwapIn::selection ? &ask.selected : nullptr;
  std::int64_t found = 0;
  forEachLayer(quilt, ask, [&](const Map& map, const Layer& layer) {
    found += swapOn(layer, map.bounds, within, ask, nullptr);
  });
  return found;
}

}  // namespace uq
