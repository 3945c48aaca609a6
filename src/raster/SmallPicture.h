// SmallPicture: a map, or one of its layers, as a picture of a few hundred pixels — for cards, lists and the overview.
//
// Costs about a millisecond for any map: of a large one only every n-th cell is looked at.
#pragma once

#include "raster/MapPainter.h"

namespace uq {

struct SmallPicture {
  QImage picture;   // at most the size that was asked for, in the map's proportions; never null for a map with cells
  PixelRect covers;  // map pixels: the map with all that reaches beyond its cells
  double zoom = 1;   // device pixels of the picture a map pixel
};

// The layers that `seeing` shows, each at its offset.
SmallPicture smallPicture(MapPainter& painter, const Quilt& quilt, const Map& map, QSize most,
                          const Seeing& seeing = {});

// One layer alone, clear and in its place; what would be faint for being thin is strengthened.
SmallPicture smallPicture(MapPainter& painter, const Quilt& quilt, const Map& map, const Layer& layer, QSize most);

}  // namespace uq
