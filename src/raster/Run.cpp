#include "raster/Run.h"

namespace uq {

std::vector<Run> runsOf(const Map& map, const std::set<Id>& hidden) {
  Run all;
  for (const Shared<TilesLayer>& layer : map.layers) {
    if (!hidden.contains(layer->id)) all.layers.push_back(layer->id);
  }
  if (all.layers.empty()) return {};
  return {all};
}

}  // namespace uq
