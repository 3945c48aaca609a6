// Run: neighbouring layers that always move together, drawn and kept as one picture.
//
// The fewer runs, the faster a frame: a frame lays one picture a run over the other. Layers are in one run as long as
// nothing moves or fades them on their own. Offset and opacity are applied when a run is laid; its kept pictures know
// neither, so changing them draws no tile anew.
#pragma once

#include <set>
#include <vector>

#include "core/document/Map.h"
#include "raster/ViewScale.h"

namespace uq {

inline constexpr int kFaint = 22;  // per cent

// Which layers of a map somebody wants to see.
struct Seeing {
  std::set<Id> hidden;
  Id clear;  // all other layers are faint; empty: none is
};

struct Run {
  std::vector<Id> layers;  // farthest first
  PixelPos offset{};       // map pixels
  int opacity = 100;       // per cent

  // By how many device pixels the run is shifted.
  QPoint shift(ViewScale scale) const;
  // The opacity as Blend.h counts it, 0 .. 255.
  unsigned alpha() const { return static_cast<unsigned>((opacity * 255 + 50) / 100); }
  friend bool operator==(const Run&, const Run&) = default;
};

// Whether the layers of a run are drawn row by row of the grid, each row layer by layer, so that something tall near
// the viewer covers what stands behind it on whichever layer: the order of isometric maps. Else layer by layer.
bool drawsByDepth(const Map& map);

// The runs of the layers to be seen, farthest first; none where nothing is.
std::vector<Run> runsOf(const Map& map, const Seeing& seeing = {});

}  // namespace uq
