#include "core/document/Desk.h"

#include <algorithm>

namespace uq {

LayerAt Desk::landing() const {
  const auto active = activeLayer.find(map);
  return active == activeLayer.end() ? LayerAt{} : LayerAt{map, active->second};
}

const CellSet& Desk::selection() const {
  static const CellSet none;
  const auto found = selections.find(map);
  return found == selections.end() ? none : found->second;
}

void Desk::select(CellSet cells) {
  if (cells.empty()) {
    selections.erase(map);
  } else {
    selections[map] = std::move(cells);
  }
}

void Desk::hold(Block block) {
  if (!block.empty()) {
    std::erase(held, block);
    held.insert(held.begin(), block);
    if (held.size() > kMostHeld) held.pop_back();
  }
  inHand = std::move(block);
}

Desk validDesk(Desk desk, const Quilt& quilt) {
  if (!quilt.map(desk.map)) desk.map = quilt.maps().empty() ? Id{} : quilt.maps().front()->id;
  if (const Map* map = quilt.map(desk.map)) {
    Id& active = desk.activeLayer[desk.map];
    if (!map->layer(active)) {
      active = map->layers.empty() ? Id{} : map->layers.front()->id;
      for (const Shared<TilesLayer>& layer : map->layers) {
        if (layer->role == "ground") active = layer->id;
      }
    }
    if (active.empty()) desk.activeLayer.erase(desk.map);
  }
  std::erase_if(desk.openMaps, [&](Id map) { return !quilt.map(map); });
  const bool hasTab = std::find(desk.openMaps.begin(), desk.openMaps.end(), desk.map) != desk.openMaps.end();
  if (!hasTab && !desk.map.empty()) desk.openMaps.push_back(desk.map);
  for (auto& [map, cells] : desk.selections) {
    const Map* selected = quilt.map(map);
    const CellRect bounds = selected ? selected->bounds : CellRect{};
    if (cells.bounds().intersected(bounds) == cells.bounds()) continue;
    cells = cells.intersected(CellSet(bounds));
  }
  std::erase_if(desk.selections, [](const auto& one) { return one.second.empty(); });
  const auto keepKnown = [&quilt](Block& block) {
    std::vector<Block::Part> parts = block.parts();
    std::erase_if(parts, [&](const Block::Part& part) { return !quilt.sheetAt(part.cell.tile().slot); });
    if (parts.size() != block.parts().size()) block = Block(std::move(parts));
  };
  // Tiles of a missing sheet may still be laid, but not those of one that was taken away.
  std::vector<Block::Part> parts = desk.inHand.parts();
  std::erase_if(parts, [&](const Block::Part& part) { return !quilt.slots().has(part.cell.tile().slot); });
  if (parts.size() != desk.inHand.parts().size()) desk.inHand = Block(std::move(parts));
  for (Block& block : desk.held) keepKnown(block);
  std::erase_if(desk.held, [](const Block& block) { return block.empty(); });
  return desk;
}

}  // namespace uq
