// OneThing: whether a picture shows a single thing, to be laid whole, rather than tiles to be cut.
//
// A thing lies on something see-through, hangs together, and is a few cells large. Pixels hang together through sides
// and corners, and over kLeap clear pixels, so that a shadow or a flying spark belongs to what it falls from.
// Cost: a pass over the pixels of a small picture; larger ones are not looked at. Any thread.
#pragma once

#include "core/base/PixelView.h"
#include "core/grid/Pixels.h"

namespace uq {

inline constexpr int kThingCells = 4;    // a thing is at most so many cells wide and high
inline constexpr int kUsualCell = 32;    // pixels, where nothing says how large cells are
inline constexpr int kLeap = 2;          // pixels

// `usual`: the cells of the map that is worked on; 0 × 0: none.
bool isOneThing(const PixelView& picture, PixelSize usual);

}  // namespace uq
