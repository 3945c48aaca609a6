// MadeFrom: what a picture of a run was made from: the cells of its layers, the sheets, the grid, the bounds, the
// player's screen where a backdrop fits it, and how the run looks.
//
// One value, compared as a whole, so that who keeps pictures never asks which of these changed: a picture is right, or
// stale in some places, or of no more use. A change of bounds makes stale only what comes in or goes out.
// Cost: sheets are compared by identity; where a layer changed, that of finding its differences. One thread at a time.
#pragma once

#include <optional>
#include <vector>

#include "raster/MapPainter.h"

namespace uq {

class MadeFrom {
 public:
  MadeFrom() = default;
  // There is such a map, with all layers of the run.
  MadeFrom(Quilt quilt, Id map, Run run) : quilt_(std::move(quilt)), map_(map), run_(std::move(run)) {}

  const Quilt& quilt() const { return quilt_; }
  Id mapId() const { return map_; }
  const Map& map() const { return *quilt_.map(map_); }
  const Run& run() const { return run_; }

  // What differs of a picture that was made from this, now that it would be made from `now`: on the plane of the run in
  // map pixels, and where the cells themselves lie, without the shifts of their layers. No rectangles where it is
  // right; nothing at all where all of it may differ.
  struct Stale {
    std::vector<PixelRect> drawn;
    std::vector<PixelRect> laid;
    bool empty() const { return drawn.empty(); }
  };
  std::optional<Stale> staleIn(const MadeFrom& now, MapPainter& painter) const;

 private:
  Quilt quilt_;
  Id map_;
  Run run_;
};

}  // namespace uq
