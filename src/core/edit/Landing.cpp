#include "core/edit/Landing.h"

namespace uq {

Desk withNearerLayer(const Desk& desk, const Quilt& quilt, int steps) {
  const LayerAt at = desk.landing();
  const Map* map = quilt.map(at.map);
  const auto index = map ? map->layerIndex(at.layer) : std::nullopt;
  if (!index) return desk;
  const auto wanted = static_cast<std::ptrdiff_t>(*index) + steps;
  if (wanted < 0 || wanted >= static_cast<std::ptrdiff_t>(map->layers.size())) return desk;
  Desk next = desk;
  next.activeLayer[at.map] = map->layers[static_cast<std::size_t>(wanted)]->id;
  return next;
}

std::string whyNoStroke(const Desk& desk, const Quilt& quilt, bool takesAway) {
  const LayerAt at = desk.landing();
  const TilesLayer* layer = quilt.layer(at);
  if (!layer) return "This map has no layer to paint on";
  if (desk.hidden.contains(at.layer)) return layer->name + " is hidden: open its eye to paint";
  if (desk.locked.contains(at.layer)) return layer->name + " is locked: open its lock to paint";
  if (takesAway) return {};
  if (desk.inHand.empty()) return "Nothing in hand: take a tile from the Table";
  const GridKind grid = quilt.map(at.map)->grid.kind;
  if (desk.inHand.parts().size() > 1 && !areOfOneFamily(desk.handGrid, grid)) {
    return "What is in hand was put together from " + std::string(cellsCalled(desk.handGrid)) + ", and these are " +
           std::string(cellsCalled(grid)) + ": take it anew";
  }
  return {};
}

}  // namespace uq
