#include "core/document/Map.h"

namespace uq {

std::optional<std::size_t> Map::layerIndex(Id wanted) const {
  for (std::size_t i = 0; i < layers.size(); ++i) {
    if (layers[i]->id == wanted) return i;
  }
  return std::nullopt;
}

const TilesLayer* Map::layer(Id wanted) const {
  const auto index = layerIndex(wanted);
  return index ? &layers[*index].read() : nullptr;
}

const TilesLayer* Map::layerNamed(std::string_view wanted) const {
  const TilesLayer* found = nullptr;
  for (const Shared<TilesLayer>& layer : layers) {
    if (layer->name != wanted) continue;
    if (found) return nullptr;
    found = &layer.read();
  }
  return found;
}

}  // namespace uq
