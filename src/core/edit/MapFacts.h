// What is said of a map in the game: the cloth behind its layers, what the screen shows, and the name that players
// read.
//
// Nothing changes for a map that does not exist, or for a value that it cannot have.
#pragma once

#include <string>

#include "core/document/Quilt.h"

namespace uq {

// The colour behind all layers; none: nothing is drawn there.
Quilt withCloth(const Quilt& quilt, Id map, std::optional<Colour> cloth);

// What the player's screen shows, in map pixels, 1 .. kLargestScreen each way: on all maps, and on one that differs
// (nothing: as on all).
Quilt withScreen(const Quilt& quilt, PixelSize screen);
Quilt withScreen(const Quilt& quilt, Id map, std::optional<PixelSize> screen);
PixelSize screenOf(const Quilt& quilt, const Map& map);

// 1 .. kMostShownTimes screen pixels a map pixel, each way.
Quilt withShownTimes(const Quilt& quilt, Id map, int times);

Quilt withCameraFree(const Quilt& quilt, Id map, bool runsFree);

Quilt withSeen(const Quilt& quilt, Id map, Seen seen);

// Whether strokes beyond its edge make it larger.
Quilt withGrowing(const Quilt& quilt, Id map, bool grows);

// The layer that the Walker is drawn right in front of; the empty id: as is usual.
Quilt withWalker(const Quilt& quilt, Id map, Id behind);

// May be empty.
Quilt withTitle(const Quilt& quilt, Id map, const std::string& title);

// How many columns and rows at the edges of a map hold no tile on any layer; none where nothing is painted at all.
struct DeadStrips {
  int west = 0, east = 0, upper = 0, lower = 0;
  friend bool operator==(const DeadStrips&, const DeadStrips&) = default;
};
DeadStrips deadStrips(const Map& map);

}  // namespace uq
