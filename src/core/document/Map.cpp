#include "core/document/Map.h"

#include <set>

namespace uq {

DrawOrder usualOrder(GridKind kind) {
  return kind == GridKind::diamond || kind == GridKind::staggered ? DrawOrder::byDepth : DrawOrder::byLayers;
}

const LayerFolder* Map::layerFolder(Id wanted) const {
  for (const LayerFolder& one : folders) {
    if (one.id == wanted) return &one;
  }
  return nullptr;
}

int Map::riseOf(const Layer& layer) const {
  const LayerFolder* in = layerFolder(layer.folder);
  return in ? in->rise : 0;
}

PixelPos Map::planeOf(const Layer& layer) const { return {layer.offset.x, layer.offset.y - riseOf(layer)}; }

int Map::levelOf(const Layer& layer) const {
  const int rise = riseOf(layer);
  std::set<int> between;
  for (const LayerFolder& one : folders) {
    if (rise > 0 ? one.rise > 0 && one.rise <= rise : one.rise < 0 && one.rise >= rise) between.insert(one.rise);
  }
  const int levels = static_cast<int>(between.size());
  return rise > 0 ? levels : rise < 0 ? -levels : 0;
}

std::optional<std::size_t> Map::layerIndex(Id wanted) const {
  for (std::size_t i = 0; i < layers.size(); ++i) {
    if (layers[i]->id == wanted) return i;
  }
  return std::nullopt;
}

const Layer* Map::layer(Id wanted) const {
  const auto index = layerIndex(wanted);
  return index ? &layers[*index].read() : nullptr;
}

const Layer* Map::layerNamed(std::string_view wanted) const {
  const Layer* found = nullptr;
  for (const Shared<Layer>& layer : layers) {
    if (layer->name != wanted) continue;
    if (found) return nullptr;
    found = &layer.read();
  }
  return found;
}

}  // namespace uq
