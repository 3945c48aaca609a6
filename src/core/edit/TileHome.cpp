#include "core/edit/TileHome.h"

#include <map>

namespace uq {

namespace {

constexpr std::int64_t kFewest = 2;  // cells that teach something

// Counts the cells of a tile by the role of their layer, as far as the chunks reach that may be looked at.
void countOn(const Map& map, TileRef tile, int& chunks, std::map<std::string, std::int64_t>& counts) {
  for (const Shared<Layer>& layer : map.layers) {
    if (!layer->holdsTiles() || layer->role.empty()) continue;
    layer->cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
      const auto isIt = [tile](Cell cell) { return !cell.empty() && cell.tile() == tile; };
      if (chunks <= 0 || --chunks < 0 || !chunk.any(isIt)) return;
      std::int64_t found = 0;
      for (int y = 0; y < kChunkSide; ++y) {
        for (int x = 0; x < kChunkSide; ++x) found += isIt(chunk.cell(x, y)) ? 1 : 0;
      }
      counts[layer->role] += found;
    });
  }
}

}  // namespace

std::optional<TileHome> homeOf(const Quilt& quilt, Id id, TileRef tile) {
  const Sheet* sheet = tile.slot == kChalkSlot ? nullptr : quilt.sheetAt(tile.slot);
  if (!sheet) return std::nullopt;
  if (const std::string& said = sheet->factsOf(tile.number).belongs; !said.empty()) return TileHome{said, true, 0};
  int chunks = kMostLookedAt;
  std::map<std::string, std::int64_t> counts;
  if (const Map* map = quilt.map(id)) countOn(*map, tile, chunks, counts);
  if (counts.empty()) {
    for (const auto& other : quilt.maps()) {
      if (other->id != id) countOn(other.read(), tile, chunks, counts);
    }
  }
  std::int64_t all = 0;
  for (const auto& [role, count] : counts) all += count;
  for (const auto& [role, count] : counts) {
    if (count >= kFewest && count * 4 > all * 3) return TileHome{role, false, count};
  }
  return std::nullopt;
}

}  // namespace uq
