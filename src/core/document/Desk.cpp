#include "core/document/Desk.h"

#include <algorithm>

namespace uq {

LayerAt Desk::activeAt() const {
  const auto active = activeLayer.find(map);
  return active == activeLayer.end() ? LayerAt{} : LayerAt{map, active->second};
}

std::optional<PixelPos> Desk::camera() const {
  if (!showsFrame) return std::nullopt;
  const auto at = cameras.find(map);
  return at == cameras.end() ? PixelPos{} : at->second;
}

const CellSet& Desk::selection() const {
  static const CellSet none;
  const auto found = selections.find(map);
  return found == selections.end() ? none : found->second;
}

void Desk::select(CellSet cells, Id stamp) {
  selectedStamp = stamp;
  if (cells.empty()) {
    selections.erase(map);
  } else {
    selections[map] = std::move(cells);
  }
}

void Desk::hold(InHand thing) {
  if (!thing.empty()) {
    std::erase(held, thing);
    held.insert(held.begin(), thing);
    if (held.size() > kMostHeld) held.pop_back();
  }
  inHand = std::move(thing);
}

namespace {

// The active map and layer, and what is kept by map.
void forget(Desk& desk, const Quilt& quilt, KindTag<Map>) {
  if (!quilt.map(desk.map)) desk.map = quilt.maps().empty() ? Id{} : quilt.maps().front()->id;
  std::erase_if(desk.chosenPins, [&](Id pin) { return !quilt.pin({desk.map, pin}); });
  if (const Map* map = quilt.map(desk.map)) {
    Id& active = desk.activeLayer[desk.map];
    if (!map->layer(active)) {
      active = map->layers.empty() ? Id{} : map->layers.front()->id;
      for (const Shared<Layer>& layer : map->layers) {
        if (layer->role == "ground") active = layer->id;
      }
    }
    if (active.empty()) desk.activeLayer.erase(desk.map);
  }
  std::erase_if(desk.alsoChosen, [&](Id layer) {
    const Map* map = quilt.map(desk.map);
    return !map || !map->layer(layer) || layer == desk.activeAt().layer;
  });
  desk.onBoard = desk.onBoard && !desk.map.empty();
  std::erase_if(desk.cameras, [&](const auto& one) { return !quilt.map(one.first); });
  std::erase_if(desk.openMaps, [&](Id map) { return !quilt.map(map); });
  const bool hasTab = std::find(desk.openMaps.begin(), desk.openMaps.end(), desk.map) != desk.openMaps.end();
  if (!hasTab && !desk.map.empty()) desk.openMaps.push_back(desk.map);
  for (auto& [map, cells] : desk.selections) {
    const Map* selected = quilt.map(map);
    const CellRect bounds = selected ? selected->bounds : CellRect{};
    if (cells.bounds().intersected(bounds) == cells.bounds()) continue;
    cells = cells.intersected(CellSet(cells.bounds().intersected(bounds)));
  }
  std::erase_if(desk.selections, [](const auto& one) { return one.second.empty(); });
}

// Tiles of a missing sheet may still be laid, but not those of one that was taken away.
void forget(Desk& desk, const Quilt& quilt, KindTag<Sheet>) {
  const auto keep = [](InHand& hand, const auto& gone) {
    bool any = false;
    hand.forEachBlock([&](const Block& block) {
      any = any || std::any_of(block.slots().begin(), block.slots().end(), gone);
    });
    if (!any) return;
    hand = hand.changed([&gone](const Block& block) {
      std::vector<Block::Part> parts = block.parts();
      std::erase_if(parts, [&](const Block::Part& part) { return gone(part.cell.tile().slot); });
      return parts.size() == block.parts().size() ? block : Block(std::move(parts));
    });
  };
  keep(desk.inHand, [&](SheetSlot slot) { return !quilt.slots().has(slot); });
  for (InHand& hand : desk.held) keep(hand, [&](SheetSlot slot) { return !quilt.sheetAt(slot); });
  std::erase_if(desk.held, [](const InHand& hand) { return hand.empty(); });
}

// What was taken of a stamp stays in hand, and is of none.
void forget(Desk& desk, const Quilt& quilt, KindTag<Stamp>) {
  if (!quilt.stamp(desk.selectedStamp)) desk.selectedStamp = {};
  const auto keep = [&](InHand& hand) {
    if (!hand.stamp.empty() && !quilt.stamp(hand.stamp)) hand.stamp = {};
  };
  keep(desk.inHand);
  for (InHand& hand : desk.held) keep(hand);
}

// The desk says nothing of these.
void forget(Desk&, const Quilt&, KindTag<Seam>) {}
void forget(Desk&, const Quilt&, KindTag<ChalkPiece>) {}
void forget(Desk&, const Quilt&, KindTag<Doorway>) {}
void forget(Desk&, const Quilt&, KindTag<Target>) {}

// A material of an edging that is gone stays in hand as the tile by which it was seen.
void forget(Desk& desk, const Quilt& quilt, KindTag<Edging>) {
  const auto keep = [&](InHand& hand) {
    const Edging* edging = quilt.edging(hand.edging);
    if (hand.joins() && (!edging || hand.material >= static_cast<int>(edging->materials.size()))) hand.edging = {}, hand.material = 0;
  };
  keep(desk.inHand);
  for (InHand& hand : desk.held) keep(hand);
}

}  // namespace

Desk validDesk(Desk desk, const Quilt& quilt) {
  PartKinds::forEach([&]<class Part>() { forget(desk, quilt, KindTag<Part>()); });
  return desk;
}

}  // namespace uq
