#include "core/sheets/FitsHere.h"

#include <algorithm>

namespace uq {

std::vector<SheetHit> tilesThatFit(TileSides& sides, const std::vector<Id>& sheets, const Map& map,
                                   const Layer& layer, CellPos at, std::size_t most) {
  std::vector<std::pair<int, TileSide>> wanted;
  bool anySolid = false;
  for (int side = 0; side < sides.count(); ++side) {
    const CellPos beside = sides.grid().across(at, side);
    const Cell cell = map.bounds.contains(beside) ? layer.cells.at(beside) : Cell();
    const TileSide* shown = cell.empty() ? nullptr : sides.of(cell, sides.facing(side));
    if (!shown) continue;
    wanted.emplace_back(side, *shown);
    anySolid = anySolid || !shown->isClear();
  }
  // Neighbours that show nothing at their sides join whatever shows nothing there, which helps nobody.
  if (!anySolid) return {};
  std::vector<std::pair<int, SheetHit>> found;
  for (const Id id : sheets) {
    const Sheet* sheet = sides.quilt().sheet(id);
    const auto slot = sides.quilt().slots().find(id);
    if (!sheet || !slot) continue;
    const auto count = static_cast<std::uint32_t>(sheet->tileCount());
    for (std::uint32_t cell = 0; cell < count; ++cell) {
      const std::uint32_t number = sheet->numberAt(cell);
      if (!sheet->offers(number)) continue;
      int difference = 0;
      const int limit = kMostDifference * static_cast<int>(wanted.size());
      for (const auto& [side, neighbour] : wanted) {
        const TileSide* own = sides.of(Cell({*slot, number}, {}), side);
        difference += own ? differenceOf(*own, neighbour) : limit + 1;
        if (difference > limit) break;
      }
      if (difference <= limit) found.push_back({difference, {id, number}});
    }
  }
  std::stable_sort(found.begin(), found.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  std::vector<SheetHit> hits;
  for (const auto& [difference, hit] : found) {
    if (hits.size() < most) hits.push_back(hit);
  }
  return hits;
}

}  // namespace uq
