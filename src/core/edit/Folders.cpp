#include "core/edit/Folders.h"

#include <algorithm>

namespace uq {

namespace {

std::vector<Id> foldersBeside(const Map& map, std::size_t index) {
  std::vector<Id> around;
  for (const std::size_t beside : {index - 1, index}) {
    if (beside >= map.layers.size()) continue;
    const std::vector<Id> more = map.foldersAround(map.layers[beside]->folder);
    around.insert(around.end(), more.begin(), more.end());
  }
  return around;
}

// The innermost folder that both lie in.
Id common(const Map& map, Id a, Id b) {
  const std::vector<Id> one = map.foldersAround(a);
  const std::vector<Id> other = map.foldersAround(b);
  Id inner;
  for (std::size_t i = 0; i < std::min(one.size(), other.size()) && one[i] == other[i]; ++i) inner = one[i];
  return inner;
}

// The innermost folder around all that lies at both sides of a place: what lies there has to be in it.
Id forced(const Map& map, std::size_t index) {
  if (index == 0 || index >= map.layers.size()) return {};
  return common(map, map.layers[index - 1]->folder, map.layers[index]->folder);
}

// Whether something may lie there. A folder without layers (what moves was all it held) lies wherever the one around it
// may.
bool mayLie(const Map& map, StackPlace place) {
  const auto holds = [&](Id folder) {
    return std::any_of(map.layers.begin(), map.layers.end(),
                       [&](const auto& one) { return map.isWithin(one->folder, folder); });
  };
  while (!place.folder.empty() && map.layerFolder(place.folder) && !holds(place.folder)) {
    place.folder = map.layerFolder(place.folder)->in;
  }
  if (!map.isWithin(place.folder, forced(map, place.index))) return false;
  const std::vector<Id> beside = foldersBeside(map, place.index);
  return place.folder.empty() || std::find(beside.begin(), beside.end(), place.folder) != beside.end();
}

// How many folders lie in one another at most, in a folder and with it.
int depthIn(const Map& map, Id folder) {
  const std::size_t around = map.foldersAround(folder).size();
  std::size_t most = around;
  for (const LayerFolder& one : map.folders) {
    if (map.isWithin(one.id, folder)) most = std::max(most, map.foldersAround(one.id).size());
  }
  return static_cast<int>(most - around) + 1;
}

void insertAt(Map& map, std::size_t index, std::vector<Shared<Layer>> layers) {
  map.layers.insert(map.layers.begin() + static_cast<std::ptrdiff_t>(index), layers.begin(), layers.end());
}

void putIn(Shared<Layer>& layer, Id folder) {
  if (layer->folder != folder) layer.edit([&](Layer& moved) { moved.folder = folder; });
}

std::string freeFolderName(const Map& map) {
  const auto taken = [&](const std::string& name) {
    return std::any_of(map.folders.begin(), map.folders.end(), [&](const auto& one) { return one.name == name; });
  };
  std::string name = "Folder";
  for (int n = 2; taken(name); ++n) name = "Folder " + std::to_string(n);
  return name;
}

}  // namespace

void tidyFolders(Map& map) {
  std::vector<LayerFolder> folders;
  for (const Shared<Layer>& layer : map.layers) {
    for (const Id id : map.foldersAround(layer->folder)) {
      const bool has = std::any_of(folders.begin(), folders.end(), [&](const auto& one) { return one.id == id; });
      if (!has) folders.push_back(*map.layerFolder(id));
    }
  }
  map.folders = std::move(folders);
}

Id folderAt(const Map& map, std::size_t index, Id own) { return mayLie(map, {index, own}) ? own : forced(map, index); }

FolderAdded foldLayers(const Quilt& quilt, Id id, const std::vector<Id>& layers, IdSource& ids) {
  const Map* old = quilt.map(id);
  const auto isMeant = [&](const Shared<Layer>& layer) {
    return std::find(layers.begin(), layers.end(), layer->id) != layers.end();
  };
  if (!old || std::none_of(old->layers.begin(), old->layers.end(), isMeant)) return {quilt, {}};
  Map map = *old;
  std::vector<Shared<Layer>> gathered;
  std::optional<Id> around;
  std::size_t index = 0;  // how many of the others lie behind the nearest of them
  for (const Shared<Layer>& layer : old->layers) {
    if (!isMeant(layer)) continue;
    index = *old->layerIndex(layer->id) - gathered.size();
    gathered.push_back(layer);
    around = around ? common(map, *around, layer->folder) : layer->folder;
  }
  std::erase_if(map.layers, isMeant);
  // Not in the middle of a folder that does not hold them all.
  while (index < map.layers.size() && !mayLie(map, {index, *around})) ++index;
  if (static_cast<int>(map.foldersAround(*around).size()) >= kDeepestLayerFolder) return {quilt, {}};
  LayerFolder folder;
  folder.id = freshId(quilt, ids);
  folder.in = *around;
  folder.name = freeFolderName(map);
  // It is drawn as what is around it, so that nothing looks otherwise.
  const LayerFolder* outer = map.layerFolder(*around);
  const DrawOrder order = outer ? map.drawOrder(*outer) : map.drawOrder();
  if (order != usualOrder(map.grid.kind)) folder.order = order;
  map.folders.push_back(folder);
  for (Shared<Layer>& layer : gathered) putIn(layer, folder.id);
  insertAt(map, index, std::move(gathered));
  tidyFolders(map);
  return {quilt.with(std::move(map)), folder.id};
}

Quilt unfold(const Quilt& quilt, Id id, Id folder) {
  const Map* old = quilt.map(id);
  const LayerFolder* gone = old ? old->layerFolder(folder) : nullptr;
  if (!gone) return quilt;
  Map map = *old;
  for (Shared<Layer>& layer : map.layers) {
    if (layer->folder == folder) putIn(layer, gone->in);
  }
  for (LayerFolder& one : map.folders) {
    if (one.in == folder) one.in = gone->in;
  }
  std::erase_if(map.folders, [&](const LayerFolder& one) { return one.id == folder; });
  return quilt.with(std::move(map));
}

Quilt moveLayer(const Quilt& quilt, LayerAt at, StackPlace to) {
  if (!quilt.layer(at)) return quilt;
  Map map = *quilt.map(at.map);
  const auto from = map.layers.begin() + static_cast<std::ptrdiff_t>(*map.layerIndex(at.layer));
  Shared<Layer> layer = *from;
  map.layers.erase(from);
  to.index = std::min(to.index, map.layers.size());
  if (!mayLie(map, to)) return quilt;
  putIn(layer, to.folder);
  insertAt(map, to.index, {layer});
  tidyFolders(map);
  return quilt.with(std::move(map));
}

Quilt moveFolder(const Quilt& quilt, Id id, Id folder, StackPlace to) {
  const Map* old = quilt.map(id);
  if (!old || !old->layerFolder(folder) || old->isWithin(to.folder, folder)) return quilt;
  Map map = *old;
  std::vector<Shared<Layer>> moved;
  for (const Shared<Layer>& layer : old->layers) {
    if (map.isWithin(layer->folder, folder)) moved.push_back(layer);
  }
  std::erase_if(map.layers, [&](const Shared<Layer>& layer) { return map.isWithin(layer->folder, folder); });
  to.index = std::min(to.index, map.layers.size());
  if (!mayLie(map, to)) return quilt;
  if (static_cast<int>(map.foldersAround(to.folder).size()) + depthIn(map, folder) > kDeepestLayerFolder) return quilt;
  for (LayerFolder& one : map.folders) {
    if (one.id == folder) one.in = to.folder;
  }
  insertAt(map, to.index, std::move(moved));
  tidyFolders(map);
  return quilt.with(std::move(map));
}

}  // namespace uq
