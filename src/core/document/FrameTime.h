// FrameTime: what animated tiles show at a time.
#pragma once

#include <cstdint>

#include "core/document/Quilt.h"

namespace uq {

// The tile that is shown so many milliseconds after the beginning, round and round. `frames` must not be empty.
std::uint32_t frameAt(const Frames& frames, std::int64_t milliseconds);

// Whether any tile of the quilt is animated; and all that are.
bool hasFrames(const Quilt& quilt);
std::set<TileRef> animatedTiles(const Quilt& quilt);

// The quilt as it looks at a time: each animated tile shows the pixels of its frame. For looking at only: it differs
// from the quilt in what its sheets say.
Quilt inFrame(const Quilt& quilt, std::int64_t milliseconds);

}  // namespace uq
