// Where a backdrop comes to hang that is dragged: at the edges and the middle of the map where it is near them.
#pragma once

#include <string>

#include "core/document/Quilt.h"

namespace uq {

struct HangingPlace {
  PixelPos offset;  // of the layer, map pixels
  std::string at;   // "west edge, middle": what it was drawn to; empty: nothing
  friend bool operator==(const HangingPlace&, const HangingPlace&) = default;
};

// The place of a backdrop that was dragged to `wished`: each way, what of its picture's edges and middle is not farther
// than `reach` map pixels from that of the map lies on it, the nearest first. As wished where its sheet is missing.
HangingPlace hangingPlace(const Quilt& quilt, LayerAt at, PixelPos wished, int reach);

// How large a backdrop's picture hangs, in map pixels; nothing where its sheet is missing.
std::optional<PixelSize> hungSize(const Quilt& quilt, const Map& map, const Backdrop& backdrop);

}  // namespace uq
