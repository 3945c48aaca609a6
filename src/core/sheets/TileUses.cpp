#include "core/sheets/TileUses.h"

#include <algorithm>
#include <tuple>

namespace uq {

namespace {

void add(TileUses& uses, const std::map<TileRef, std::int64_t>& more) {
  for (const auto& [one, count] : more) uses[one] += count;
}

}  // namespace

TileUses usesOn(const Map& map) {
  TileUses uses;
  for (const Shared<Layer>& layer : map.layers) add(uses, layer->cells.tally(layer->cells.usedBounds()));
  return uses;
}

TileUses usesWithin(const Map& map) {
  TileUses uses;
  for (const Shared<Layer>& layer : map.layers) add(uses, layer->cells.tally(map.bounds));
  return uses;
}

TileUses usesIn(const Quilt& quilt) {
  TileUses uses;
  for (const auto& map : quilt.maps()) add(uses, usesOn(map.read()));
  const auto keep = [&](const TileId& tile) {
    if (const auto slot = quilt.slots().find(tile.sheet)) uses.try_emplace({*slot, tile.tile}, 0);
  };
  for (const Shared<Edging>& edging : quilt.edgings()) {
    for (const EdgingMember& one : edging->members) keep(one.tile);
    for (const Hem& hem : edging->hems) {
      for (const HemTile& one : hem.tiles) keep(one.tile);
    }
  }
  return uses;
}

std::set<std::uint32_t> numbersInUse(const Sheet& sheet, const TileUses& uses, SheetSlot slot) {
  std::set<std::uint32_t> numbers;
  for (auto at = uses.lower_bound({slot, 0}); at != uses.end() && at->first.slot == slot; ++at) {
    numbers.insert(at->first.number);
  }
  for (const auto& [number, facts] : sheet.tiles) {
    numbers.insert(number);
    for (const Frame& frame : facts.frames) numbers.insert(frame.tile);
  }
  for (const Facing& facing : sheet.facings) {
    for (const auto& side : facing) {
      if (side) numbers.insert(*side);
    }
  }
  for (const auto& [number, twin] : sheet.places->twins) {
    if (numbers.contains(number)) numbers.insert(twin.of);
  }
  return numbers;
}

std::vector<TileAt> placesOf(const Map& map, TileRef tile, std::size_t most) {
  std::vector<TileAt> places;
  for (std::size_t i = map.layers.size(); i-- > 0 && places.size() < most;) {
    const Layer& layer = map.layers[i].read();
    const std::size_t first = places.size();
    layer.cells.forEachPainted(map.bounds, [&](CellPos at, Cell cell) {
      if (cell.tile() == tile) places.push_back({map.id, layer.id, at});
    });
    std::sort(places.begin() + static_cast<std::ptrdiff_t>(first), places.end(), [](const TileAt& a, const TileAt& b) {
      return std::tie(a.cell.y, a.cell.x) < std::tie(b.cell.y, b.cell.x);
    });
  }
  if (places.size() > most) places.resize(most);
  return places;
}

}  // namespace uq
