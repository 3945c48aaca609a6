// Scene: what a canvas shows of a session: its map as it is looked at (from above in the plan view), the layers that
// are seen, and where their planes lie.
//
// Holds no widget and no view, so that what would happen (Forecast) and what is painted over the map can be asked of
// any view. Cost: following a change in the plan view is that of `inPlan`; runs are those of `runsOf`. Threads: that of
// the interface. References into it live until the next follow().
#pragma once

#include <optional>
#include <vector>

#include "app/canvas/MapView.h"
#include "app/workroom/Session.h"
#include "raster/Run.h"

namespace uq {

class Scene {
 public:
  // `session` must live as long.
  explicit Scene(Session& session) : session_(session) {}

  // Takes the session's quilt and desk as they are now; true when the plan view was turned on or off.
  bool follow();

  Session& session() const { return session_; }
  const Desk& desk() const { return session_.desk(); }
  const Quilt& quilt() const { return fromAbove_ ? *fromAbove_ : session_.quilt(); }
  const Map* map() const { return quilt().map(desk().map); }  // nullptr when there is none
  bool isFromAbove() const { return fromAbove_.has_value(); }
  // A quilt that some edit makes, as this scene would show it.
  Quilt asShown(const Quilt& quilt) const;

  // The active layer as it is shown; nullptr where there is none.
  const Layer* landing() const { return map() ? quilt().layer(desk().activeAt()) : nullptr; }
  Seeing seeing() const;
  std::vector<Run> runs(const Map& map) const { return runsOf(map, seeing()); }

  // Where a layer's plane lies, in map pixels: with what the camera moves it by.
  PixelPos placeOf(const Layer& layer) const;
  // Planes of the map on a view: its own, that of a layer, and that of the active layer, raised.
  Plane ground(const MapView& view) const { return Plane(view, map()->grid); }
  Plane plane(const MapView& view, const Layer& layer) const { return Plane(view, map()->grid, placeOf(layer)); }
  Plane landingPlane(const MapView& view, int lift) const;
  // How far above the ground the active layer lies, raised.
  int heightOfLanding(int lift) const;

 private:
  Session& session_;
  std::optional<Quilt> fromAbove_;  // while the plan view is shown
};

}  // namespace uq
