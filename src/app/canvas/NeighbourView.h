// NeighbourView: what is sewn to the map that is worked on, as it lies beyond the edges, dimmed.
//
// Maps that are sewn there and, where the canvas repeats, the same ones again, up to the border of the window. Each keeps
// swatches of its own while it is in sight; of very many the smallest show a small picture. Nothing of it can be taken or
// selected; a stroke goes into it.
// Cost: following compares what changed; a frame copies. Threads: the interface's.
#pragma once

#include <QPainter>
#include <functional>
#include <map>

#include "app/canvas/Scene.h"
#include "core/edit/Patchwork.h"
#include "raster/SwatchBook.h"

namespace uq {

class NeighbourView {
 public:
  // `arrived` as for SwatchBook; `scene` must live as long.
  NeighbourView(const Scene& scene, std::function<void()> arrived) : scene_(scene), arrived_(std::move(arrived)) {}

  // Takes the scene as it is now; true where something beyond the edges looks different.
  bool follow();
  // What lies beyond the edges within `part`, over whatever was painted there.
  void paint(QPainter& painter, const MapView& view, const QRectF& part);
  // For how many swatches something else stood in when it was painted last.
  int missing() const { return missing_; }
  // The stitches along the map's own edges.
  void paintStitches(QPainter& painter, const Plane& ground) const;

  // The other map, or the same one a period on, whose cell lies beyond the edge there; nothing within the map's own bounds.
  std::optional<Patch> at(CellPos canvas) const;
  // By how many map pixels it lies off its own place.
  PixelPos placeOf(const Patch& patch) const;

 private:
  struct Shown {
    std::unique_ptr<SwatchBook> book;
    std::uint64_t frame = 0;  // in which it was painted last
  };
  using Key = std::pair<Id, CellPos>;
  struct Small {
    Revision revision;
    QImage picture;
    PixelRect covers;
  };

  void paintOne(QPainter& painter, const MapView& view, const QRectF& part, const Patch& patch, bool large);
  const Quilt& quiltFor(Id map);
  void findStitches();

  const Scene& scene_;
  std::function<void()> arrived_;
  Patchwork canvas_;
  std::map<Id, Quilt> fromAbove_;  // in the plan view, by map
  std::map<Key, Shown> books_;
  std::map<Id, Small> small_;
  std::map<Id, Revision> known_;
  std::vector<StitchSide> stitches_;  // in map pixels
  std::vector<Patch> stitched_;       // for which they were found, and how these were seen
  bool fromAboveFound_ = false;
  Period period_;
  std::uint64_t frame_ = 0;
  int missing_ = 0;
};

}  // namespace uq
