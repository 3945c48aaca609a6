#include "raster/Run.h"

#include <cmath>

namespace uq {

QPoint Run::shift(ViewScale scale) const {
  const auto device = [&](int pixels) { return static_cast<int>(std::lround(pixels * scale.zoom)); };
  return {device(offset.x), device(offset.y)};
}

bool drawsByDepth(const Map& map) { return map.grid.kind == GridKind::diamond || map.grid.kind == GridKind::staggered; }

std::vector<Run> runsOf(const Map& map, const Seeing& seeing) {
  std::vector<Run> runs;
  bool together = false;  // whether the next layer may join the last run
  for (const Shared<TilesLayer>& layer : map.layers) {
    if (seeing.hidden.contains(layer->id)) continue;
    const bool faint = !seeing.clear.empty() && layer->id != seeing.clear;
    const int opacity = faint ? (layer->opacity * kFaint + 50) / 100 : layer->opacity;
    // A layer that is see-through by itself shows each of its pixels once, so it is laid as a whole. Faint ones may
    // fade together.
    const bool alone = layer->opacity != 100;
    const bool joins = together && !alone && runs.back().offset == layer->offset && runs.back().opacity == opacity;
    if (!joins) runs.push_back({{}, layer->offset, opacity});
    runs.back().layers.push_back(layer->id);
    together = !alone;
  }
  return runs;
}

}  // namespace uq
