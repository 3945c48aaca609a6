#include "core/edit/ArrangeLayers.h"

#include <algorithm>
#include <array>

#include "core/edit/Folders.h"
#include "core/edit/LayCells.h"

namespace uq {

namespace {

constexpr std::array<std::pair<const char*, const char*>, 3> kStarts = {
    {{"ground", "Ground"}, {"things", "Things"}, {"in front", "In front"}}};

// "Things", "Things 2", …: a name that no layer of the map has.
std::string freeName(const Map& map, const std::string& wanted) {
  const auto taken = [&](const std::string& name) {
    return std::any_of(map.layers.begin(), map.layers.end(), [&](const auto& one) { return one->name == name; });
  };
  std::string name = wanted;
  for (int n = 2; taken(name); ++n) name = wanted + " " + std::to_string(n);
  return name;
}

Id folderOf(const Map& map, std::size_t index) { return index < map.layers.size() ? map.layers[index]->folder : Id(); }

LayerAdded withLayer(const Quilt& quilt, Map map, std::size_t index, Layer layer) {
  std::vector<std::string> files;
  for (const auto& other : map.layers) files.push_back(other->file);
  layer.file = slugFor(layer.name, files);
  layer.revision = Revision::next();
  const Id id = layer.id;
  map.layers.insert(map.layers.begin() + static_cast<std::ptrdiff_t>(index), Shared(std::move(layer)));
  return {quilt.with(std::move(map)), id};
}

}  // namespace

Thread freeThread(const Map& map) {
  for (int i = 0; i < Thread::kColours * Thread::kPatterns; ++i) {
    // Yellow, the fourth, last of its round: it is the faintest on paper.
    static constexpr std::array<int, Thread::kColours> kOrder = {2, 4, 1, 0, 5, 6, 7, 3};
    const Thread thread{kOrder[static_cast<std::size_t>(i % Thread::kColours)],
                        static_cast<Thread::Pattern>(i / Thread::kColours)};
    const bool taken =
        std::any_of(map.layers.begin(), map.layers.end(), [&](const auto& one) { return one->thread == thread; });
    if (!taken) return thread;
  }
  return {static_cast<int>(map.layers.size()) % Thread::kColours, Thread::Pattern::running};
}

LayerAdded addLayer(const Quilt& quilt, Id id, std::size_t index, IdSource& ids, const std::string& role,
                    std::optional<Id> folder) {
  const Map* map = quilt.map(id);
  if (!map) return {quilt, {}};
  index = std::min(index, map->layers.size());
  const bool hasGround =
      std::any_of(map->layers.begin(), map->layers.end(), [](const auto& one) { return one->role == "ground"; });
  const std::size_t start = !hasGround ? 0 : index == map->layers.size() ? 2 : 1;
  Layer layer;
  layer.id = freshId(quilt, ids);
  layer.role = role.empty() ? kStarts[start].first : role;
  std::string name = kStarts[start].second;
  if (!role.empty()) {
    const auto known = std::find_if(kStarts.begin(), kStarts.end(), [&](const auto& one) { return one.first == role; });
    name = known != kStarts.end() ? known->second : role;
  }
  layer.name = freeName(*map, name);
  layer.thread = freeThread(*map);
  // In front of the layer behind it, so with that in its folder.
  layer.folder = folderAt(*map, index, folder.value_or(index > 0 ? folderOf(*map, index - 1) : Id()));
  return withLayer(quilt, *map, index, std::move(layer));
}

LayerAdded addBackdrop(const Quilt& quilt, Id id, std::size_t index, Id sheet, IdSource& ids) {
  const Map* map = quilt.map(id);
  const Sheet* hung = quilt.sheet(sheet);
  if (!map || !hung) return {quilt, {}};
  index = std::min(index, map->layers.size());
  Layer layer;
  layer.id = freshId(quilt, ids);
  layer.kind = LayerKind::backdrop;
  layer.role = "backdrop";
  layer.name = freeName(*map, hung->name);
  layer.thread = freeThread(*map);
  layer.backdrop.sheet = sheet;
  layer.backdrop.repeatsAcross = true;
  layer.folder = folderAt(*map, index, {});
  if (index == 0) {
    for (const Shared<Layer>& other : map->layers) {
      layer.parallax.across = std::min(layer.parallax.across, other->parallax.across);
      layer.parallax.down = std::min(layer.parallax.down, other->parallax.down);
    }
    layer.parallax = {layer.parallax.across / 2, layer.parallax.down / 2};
  }
  return withLayer(quilt, *map, index, std::move(layer));
}

LayerAdded addPinsLayer(const Quilt& quilt, Id id, std::size_t index, IdSource& ids, std::optional<Id> folder) {
  const Map* map = quilt.map(id);
  if (!map) return {quilt, {}};
  index = std::min(index, map->layers.size());
  Layer layer;
  layer.id = freshId(quilt, ids);
  layer.kind = LayerKind::pins;
  layer.role = "pins";
  layer.name = freeName(*map, "Pins");
  layer.thread = freeThread(*map);
  layer.folder = folderAt(*map, index, folder.value_or(index > 0 ? folderOf(*map, index - 1) : Id()));
  return withLayer(quilt, *map, index, std::move(layer));
}

std::string whyNoMerge(const Quilt& quilt, LayerAt at) {
  const Layer* layer = quilt.layer(at);
  if (!layer) return "There is no layer";
  const Map& map = *quilt.map(at.map);
  const std::size_t index = *map.layerIndex(at.layer);
  if (index == 0) return layer->name + " is the farthest layer";
  const Layer& behind = map.layers[index - 1].read();
  if (layer->kind != behind.kind || layer->kind == LayerKind::backdrop) return "Only layers of tiles can become one, or layers for pins";
  const bool alike = map.planeOf(*layer) == map.planeOf(behind) && layer->parallax == behind.parallax &&
                     layer->opacity == behind.opacity && layer->tint == behind.tint && layer->blend == behind.blend;
  return alike ? std::string() : layer->name + " lies, moves or looks otherwise than " + behind.name;
}

Quilt mergeDown(const Quilt& quilt, LayerAt at) {
  if (!whyNoMerge(quilt, at).empty()) return quilt;
  const Map& map = *quilt.map(at.map);
  const Layer& layer = *quilt.layer(at);
  const LayerAt behind{at.map, map.layers[*map.layerIndex(at.layer) - 1]->id};
  Layer below = *quilt.layer(behind);
  // With what lies in the seam allowance.
  layer.forEachLaid([&](CellPos place, const Laid& laid) { below.lay(place, laid); });
  if (!layer.pins->empty()) {
    below.pins.edit([&](Pins& pins) {
      pins.insert(pins.end(), layer.pins->begin(), layer.pins->end());
      std::sort(pins.begin(), pins.end(), [](const Pin& a, const Pin& b) { return a.id < b.id; });
    });
  }
  return deleteLayer(quilt.with(behind, std::move(below)), at);
}

LayerAdded duplicateLayer(const Quilt& quilt, LayerAt at, IdSource& ids) {
  const Layer* layer = quilt.layer(at);
  if (!layer) return {quilt, {}};
  const Map& map = *quilt.map(at.map);
  Layer copy = *layer;
  copy.id = freshId(quilt, ids);
  copy.name = freeName(map, layer->name + " copy");
  copy.thread = freeThread(map);
  // Copies of pins are pins of their own; ways stay with what was copied.
  if (!copy.pins->empty()) {
    copy.pins.edit([&](Pins& pins) {
      for (Pin& pin : pins) pin.id = freshId(quilt, ids);
      std::sort(pins.begin(), pins.end(), [](const Pin& a, const Pin& b) { return a.id < b.id; });
    });
  }
  return withLayer(quilt, map, *map.layerIndex(at.layer) + 1, std::move(copy));
}

Quilt deleteLayer(const Quilt& quilt, LayerAt at) {
  if (!quilt.layer(at)) return quilt;
  Map map = *quilt.map(at.map);
  map.layers.erase(map.layers.begin() + static_cast<std::ptrdiff_t>(*map.layerIndex(at.layer)));
  tidyFolders(map);
  return quilt.with(std::move(map));
}

Quilt moveLayer(const Quilt& quilt, LayerAt at, std::size_t index) {
  if (!quilt.layer(at)) return quilt;
  Map map = *quilt.map(at.map);
  const std::size_t from = *map.layerIndex(at.layer);
  const Id own = map.layers[from]->folder;
  map.layers.erase(map.layers.begin() + static_cast<std::ptrdiff_t>(from));
  index = std::min(index, map.layers.size());
  return moveLayer(quilt, at, {index, folderAt(map, index, own)});
}

}  // namespace uq
