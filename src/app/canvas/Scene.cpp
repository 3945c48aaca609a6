#include "app/canvas/Scene.h"

#include "core/document/PlanView.h"

namespace uq {

bool Scene::follow() {
  const bool fromAbove = session_.map() && desk().planView && hasPlan(session_.map()->grid.kind);
  const bool turned = fromAbove != fromAbove_.has_value();
  fromAbove_.reset();
  if (fromAbove) fromAbove_ = inPlan(session_.quilt(), desk().map);
  return turned;
}

Quilt Scene::asShown(const Quilt& quilt) const { return fromAbove_ ? inPlan(quilt, desk().map) : quilt; }

Seeing Scene::seeing() const {
  const Id active = desk().activeAt().layer;
  return {desk().hidden, desk().fadesOthers ? active : Id(), desk().camera(), desk().othersShown,
          map() ? tintsFor(*map(), desk().tinting, active) : std::map<Id, Colour>()};
}

PixelPos Scene::placeOf(const Layer& layer) const {
  const PixelPos at = map()->planeOf(layer);
  const auto camera = desk().camera();
  const PixelPos by = camera ? scrolledBy(layer.parallax, *camera) : PixelPos{};
  return {at.x + by.x, at.y + by.y};
}

Plane Scene::landingPlane(const MapView& view, int lift) const {
  const Layer* layer = landing();
  if (!layer) return ground(view);
  const PixelPos at = placeOf(*layer);
  return Plane(view, map()->grid, {at.x, at.y - lift});
}

int Scene::heightOfLanding(int lift) const {
  const Layer* layer = landing();
  return layer ? map()->riseOf(*layer) + lift : 0;
}

}  // namespace uq
