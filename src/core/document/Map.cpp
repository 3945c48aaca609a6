#include "core/document/Map.h"

#include <algorithm>
#include <set>

namespace uq {

bool hasLevels(const Map& map) {
  return std::any_of(map.folders.begin(), map.folders.end(), [](const LayerFolder& one) { return one.rise != 0; });
}

std::string_view seenName(Seen seen) { return seen == Seen::sideOn ? "side-on" : "from-above"; }

std::optional<Seen> seenFromName(std::string_view name) {
  for (const Seen seen : {Seen::fromAbove, Seen::sideOn}) {
    if (name == seenName(seen)) return seen;
  }
  return std::nullopt;
}

DrawOrder usualOrder(GridKind kind) {
  return kind == GridKind::diamond || kind == GridKind::staggered ? DrawOrder::byDepth : DrawOrder::byLayers;
}

const Layer* Map::layerOfPin(Id wanted) const {
  for (const Shared<Layer>& layer : layers) {
    if (layer->holdsPins() && pinIn(layer->pins.read(), wanted)) return &layer.read();
  }
  return nullptr;
}

const Pin* Map::pin(Id wanted) const {
  const Layer* layer = layerOfPin(wanted);
  return layer ? pinIn(layer->pins.read(), wanted) : nullptr;
}

const LayerFolder* Map::layerFolder(Id wanted) const {
  for (const LayerFolder& one : folders) {
    if (one.id == wanted) return &one;
  }
  return nullptr;
}

std::vector<Id> Map::foldersAround(Id inner) const {
  std::vector<Id> around;
  for (const LayerFolder* one = layerFolder(inner); one; one = layerFolder(one->in)) around.push_back(one->id);
  std::reverse(around.begin(), around.end());
  return around;
}

bool Map::isWithin(Id inner, Id around) const {
  const LayerFolder* one = layerFolder(inner);
  while (one && one->id != around) one = layerFolder(one->in);
  return one || around.empty();
}

int Map::riseOf(const LayerFolder& inner) const {
  int rise = inner.rise;
  for (const LayerFolder* one = layerFolder(inner.in); one; one = layerFolder(one->in)) rise += one->rise;
  return rise;
}

int Map::riseOf(const Layer& layer) const {
  const LayerFolder* in = layerFolder(layer.folder);
  return in ? riseOf(*in) : 0;
}

PixelPos Map::planeOf(const Layer& layer) const { return {layer.offset.x, layer.offset.y - riseOf(layer)}; }

std::size_t Map::walkerPlace() const {
  if (const auto said = layerIndex(walker)) return *said + 1;
  for (std::size_t i = layers.size(); i > 0; --i) {
    if (layers[i - 1]->role == "things" || layers[i - 1]->role == "ground") return i;
  }
  return layers.size();
}

int Map::levelOf(const Layer& layer) const {
  const int rise = riseOf(layer);
  std::set<int> between;
  for (const LayerFolder& one : folders) {
    const int its = riseOf(one);
    if (rise > 0 ? its > 0 && its <= rise : its < 0 && its >= rise) between.insert(its);
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
