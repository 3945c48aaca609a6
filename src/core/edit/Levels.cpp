#include "core/edit/Levels.h"

#include <algorithm>
#include <cstdlib>
#include <set>

#include "core/edit/Folders.h"

namespace uq {

namespace {

bool isRise(int rise) { return std::abs(rise) <= kFarthestOffset; }

// The rises of a map's levels and of its ground.
std::set<int> risesOf(const Map& map) {
  std::set<int> rises{0};
  for (const LayerFolder& folder : map.folders) rises.insert(map.riseOf(folder));
  return rises;
}

template <class Change>
Quilt changed(const Quilt& quilt, Id id, Id folder, Change&& change) {
  const Map* map = quilt.map(id);
  if (!map || !map->layerFolder(folder)) return quilt;
  Map next = *map;
  for (LayerFolder& one : next.folders) {
    if (one.id == folder) change(one);
  }
  return quilt.with(std::move(next));
}

}  // namespace

int levelStep(const Map& map) {
  const std::set<int> rises = risesOf(map);
  return rises.size() > 1 ? *rises.rbegin() - *std::next(rises.rbegin()) : map.grid.cell.h;
}

LayerAdded addLevel(const Quilt& quilt, LayerAt above, IdSource& ids) {
  const Layer* below = quilt.layer(above);
  if (!below) return {quilt, {}};
  Map map = *quilt.map(above.map);
  const int step = levelStep(map);
  const int ground = map.riseOf(*below);
  if (!isRise(*risesOf(map).rbegin() + step)) return {quilt, {}};
  for (LayerFolder& folder : map.folders) {
    if (folder.in.empty() && folder.rise > ground) folder.rise += step;
  }
  LayerFolder level;
  level.id = freshId(quilt, ids);
  level.rise = ground + step;
  // Behind the first layer that is higher, in front of all that are not.
  std::size_t index = 0;
  for (std::size_t i = 0; i < map.layers.size(); ++i) {
    if (map.riseOf(map.layers[i].read()) <= ground) index = i + 1;
  }
  // Not in the middle of a folder: a level lies in none.
  while (!folderAt(map, index, {}).empty()) ++index;
  Layer layer;
  layer.id = freshId(quilt, ids);
  layer.folder = level.id;
  layer.role = "ground";
  layer.thread = freeThread(map);
  map.folders.push_back(level);
  const int number = map.levelOf(layer);
  map.folders.back().name =
      number >= 0 ? "Level " + std::to_string(number) : "Level " + std::to_string(-number) + " down";
  std::vector<std::string> files;
  const auto taken = [&](const std::string& name) {
    return std::any_of(map.layers.begin(), map.layers.end(), [&](const auto& one) { return one->name == name; });
  };
  const std::string plain =
      number >= 0 ? "Ground up " + std::to_string(number) : "Ground down " + std::to_string(-number);
  layer.name = plain;
  for (int n = 2; taken(layer.name); ++n) layer.name = plain + " " + std::to_string(n);
  for (const auto& other : map.layers) files.push_back(other->file);
  layer.file = slugFor(layer.name, files);
  const Id id = layer.id;
  map.layers.insert(map.layers.begin() + static_cast<std::ptrdiff_t>(index), Shared(std::move(layer)));
  tidyFolders(map);
  return {quilt.with(std::move(map)), id};
}

Quilt deleteFolder(const Quilt& quilt, Id id, Id folder) {
  const Map* map = quilt.map(id);
  const LayerFolder* gone = map ? map->layerFolder(folder) : nullptr;
  if (!gone) return quilt;
  const std::set<int> rises = risesOf(*map);
  const int rise = map->riseOf(*gone);
  const int step = gone->rise > 0 && gone->in.empty() ? rise - *std::prev(rises.find(rise)) : 0;
  const bool alone =
      std::none_of(map->folders.begin(), map->folders.end(), [&](const LayerFolder& one) {
        return map->riseOf(one) == rise && !map->isWithin(one.id, folder);
      });
  Map next = *map;
  for (LayerFolder& one : next.folders) {
    if (alone && one.in.empty() && one.rise > rise) one.rise -= step;
  }
  std::erase_if(next.layers, [&](const Shared<Layer>& layer) { return map->isWithin(layer->folder, folder); });
  tidyFolders(next);
  return quilt.with(std::move(next));
}

Quilt renameFolder(const Quilt& quilt, Id map, Id folder, const std::string& name) {
  if (name.empty()) return quilt;
  return changed(quilt, map, folder, [&](LayerFolder& one) { one.name = name; });
}

Quilt withRise(const Quilt& quilt, Id map, Id folder, int rise) {
  if (!isRise(rise)) return quilt;
  return changed(quilt, map, folder, [&](LayerFolder& one) { one.rise = rise; });
}

Quilt withDrawOrder(const Quilt& quilt, Id id, Id folder, DrawOrder order) {
  const Map* map = quilt.map(id);
  if (!map) return quilt;
  // What is usual is not said.
  const std::optional<DrawOrder> said =
      order == usualOrder(map->grid.kind) ? std::nullopt : std::optional<DrawOrder>(order);
  if (!folder.empty()) return changed(quilt, id, folder, [&](LayerFolder& one) { one.order = said; });
  Map next = *map;
  next.order = said;
  return quilt.with(std::move(next));
}

}  // namespace uq
