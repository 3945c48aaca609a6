#include "core/edit/TableFor.h"

#include <algorithm>
#include <map>

#include "core/edit/ArrangeSheets.h"

namespace uq {

namespace {
constexpr int kFewChunks = 64;  // of which every cell is looked at
constexpr int kSampleStep = 8;  // cells, across and down, of more
}  // namespace

std::set<Id> sheetsUsedOn(const Quilt& quilt, const Map& map) {
  std::set<SheetSlot> slots;
  const auto see = [&](Cell cell) {
    if (!cell.empty()) slots.insert(cell.tile().slot);
  };
  for (const Shared<Layer>& layer : map.layers) {
    int chunks = 0;
    layer->cells.forEachChunk([&](const CellGrid::ChunkView&) { ++chunks; });
    const int step = chunks <= kFewChunks ? 1 : kSampleStep;
    layer->cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
      for (int y = 0; y < kChunkSide; y += step) {
        for (int x = 0; x < kChunkSide; x += step) see(chunk.cell(x, y));
      }
    });
  }
  std::set<Id> used;
  for (const SheetSlot slot : slots) {
    if (slot != kChalkSlot) used.insert(quilt.slots().sheet(slot));
  }
  return used;
}

bool fitsMap(const Sheet& sheet, const Map& map) {
  return sheet.isCollection() || sheet.tileCount() == 1 || sheet.cut.cell.w == map.grid.cell.w;
}

std::vector<Id> tableOrderFor(const Quilt& quilt, const Map* map, const std::set<Id>& used) {
  std::vector<Id> order = tableOrder(quilt);
  if (!map) return order;
  // The best of a pile says where the pile lies.
  const auto rank = [&](Id id) {
    const Sheet* sheet = quilt.sheet(id);
    return used.contains(id) ? 0 : sheet && !sheet->isCollection() && sheet->cut.cell.w == map->grid.cell.w ? 1 : 2;
  };
  std::map<std::string, int> ranks;
  const auto pile = [&](Id id) { return quilt.sheet(id)->origin.pile; };
  for (const Id id : order) {
    const auto [at, isNew] = ranks.emplace(pile(id), rank(id));
    if (!isNew) at->second = std::min(at->second, rank(id));
  }
  std::stable_sort(order.begin(), order.end(), [&](Id a, Id b) {
    // What lies in no pile stays last, the best of it first.
    const bool looseA = pile(a).empty();
    const bool looseB = pile(b).empty();
    if (looseA != looseB) return looseB;
    return looseA ? rank(a) < rank(b) : ranks[pile(a)] < ranks[pile(b)];
  });
  return order;
}

}  // namespace uq
