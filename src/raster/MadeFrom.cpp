#include "raster/MadeFrom.h"

#include <algorithm>

#include "core/edit/MapFacts.h"

namespace uq {

namespace {

bool sameSheets(const Quilt& a, const Quilt& b) {
  return std::equal(a.sheets().begin(), a.sheets().end(), b.sheets().begin(), b.sheets().end(),
                    [](const auto& one, const auto& other) {
                      return one.sameAs(other) || (one->id == other->id && one->revision.is(other->revision));
                    });
}

}  // namespace

std::optional<MadeFrom::Stale> MadeFrom::staleIn(const MadeFrom& now, MapPainter& painter) const {
  const Map* then = quilt_.map(map_);
  const Map* here = now.quilt_.map(now.map_);
  if (!then || !here || map_ != now.map_ || !run_.drawsAs(now.run_)) return std::nullopt;
  if (!(then->grid == here->grid) || !sameSheets(quilt_, now.quilt_)) return std::nullopt;
  const bool sameBounds = then->bounds == here->bounds;
  if (run_.backdrop && !(sameBounds && screenOf(quilt_, *then) == screenOf(now.quilt_, *here))) return std::nullopt;
  Stale stale;
  if (then->revision.is(here->revision)) return stale;
  for (std::size_t i = 0; i < run_.layers.size(); ++i) {
    const Layer* old = then->layer(run_.layers[i]);
    const Layer* layer = here->layer(run_.layers[i]);
    if (!old || !layer) return std::nullopt;
    if (sameBounds && old->revision.is(layer->revision)) continue;
    const PixelPos by = run_.shiftOf(i);
    for (const PixelRect& rect : painter.changes(quilt_, now.quilt_, {map_, layer->id})) {
      stale.laid.push_back(rect);
      stale.drawn.push_back({rect.x + by.x, rect.y + by.y, rect.w, rect.h});
    }
  }
  return stale;
}

}  // namespace uq
