// Camera: where the player's screen can be over a map, where it goes by itself, and where a backdrop does not fill it.
//
// A camera is the place of the screen's upper left, in map pixels. How large the screen is: screenOf (MapFacts.h).
#pragma once

#include <string>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

// The place of the screen's upper left, in map pixels, that comes nearest to the one wished for: the camera stops at
// the map's edge, and in the middle of a map that is smaller than the screen; unless it runs free.
PixelPos cameraNear(const Quilt& quilt, const Map& map, PixelPos wished);

// Where the camera is that goes along the edges of a map, clockwise from the upper left, after so many pixels of way.
PixelPos cameraOnItsWay(const PixelRect& map, PixelSize screen, int way);

// Where a backdrop that hangs there once across does not cover the screen at an end of the camera's way.
struct BackdropGap {
  Id layer;
  int pixels = 0;    // of the screen
  std::string text;  // "Skyline ends 48 px before the east edge"
};
std::vector<BackdropGap> backdropGaps(const Quilt& quilt, const Map& map);

}  // namespace uq
