#include "core/document/PlanView.h"

namespace uq {

bool hasPlan(GridKind kind) { return kind == GridKind::diamond || kind == GridKind::staggered; }

Quilt inPlan(const Quilt& quilt, Id id) {
  const Map* map = quilt.map(id);
  if (!map || !hasPlan(map->grid.kind)) return quilt;
  Map plan = *map;
  plan.grid.plan = true;
  plan.order = DrawOrder::byLayers;
  plan.folders.clear();
  for (Shared<Layer>& layer : plan.layers) {
    const bool plain = layer->folder.empty() && layer->offset == PixelPos{} && layer->lifts.empty();
    if (plain) continue;
    layer.edit([](Layer& one) {
      one.folder = {};
      one.offset = {};
      one.lifts = {};
    });
  }
  return quilt.restoring(Shared(std::move(plan)));
}

}  // namespace uq
