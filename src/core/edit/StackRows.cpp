#include "core/edit/StackRows.h"

namespace uq {

std::vector<StackRow> stackRows(const Map& map, const std::set<Id>& foldedUp) {
  std::vector<StackRow> rows;
  std::vector<Id> before;  // around the layer in front
  for (std::size_t i = map.layers.size(); i > 0; --i) {
    const Layer& layer = map.layers[i - 1].read();
    const std::vector<Id> around = map.foldersAround(layer.folder);
    bool listed = true;
    for (std::size_t depth = 0; depth < around.size() && listed; ++depth) {
      const Id id = around[depth];
      const bool folded = foldedUp.contains(id);
      if (depth >= before.size() || before[depth] != id) {
        StackRow row{id, true, folded, static_cast<int>(depth), map.layerFolder(id)->in, i - 1, i};
        while (row.from > 0 && map.isWithin(map.layers[row.from - 1]->folder, id)) --row.from;
        rows.push_back(row);
      }
      listed = !folded;
    }
    if (listed) rows.push_back({layer.id, false, false, static_cast<int>(around.size()), layer.folder, i - 1, i});
    before = around;
  }
  return rows;
}

StackPlace placeAtRow(const Map& map, const StackRow& row, bool lowerHalf, Id moved) {
  const bool into = row.isFolder && !row.foldedUp;
  StackPlace place{lowerHalf && !into ? row.from : row.to, lowerHalf && into ? row.id : row.in};
  const std::size_t behind = place.index;
  for (std::size_t i = 0; i < behind; ++i) {
    const Layer& layer = map.layers[i].read();
    if (layer.id == moved || (!moved.empty() && map.layerFolder(moved) && map.isWithin(layer.folder, moved))) {
      --place.index;
    }
  }
  return place;
}

}  // namespace uq
