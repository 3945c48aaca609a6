// What is said of a layer: its name and role, how it lies, moves and looks, and a note.
//
// Nothing changes for a layer that does not exist, or for a value that it cannot have.
#pragma once

#include <string>

#include "core/document/Quilt.h"

namespace uq {

// The layer's id stays, so nothing that refers to it breaks; its file is named anew after it. Not the empty name.
Quilt renameLayer(const Quilt& quilt, LayerAt at, const std::string& name);

// Not the empty role. One that the quilt does not list yet is listed last from then on.
Quilt withRole(const Quilt& quilt, LayerAt at, const std::string& role);

// Map pixels, ±kFarthestOffset each way.
Quilt withOffset(const Quilt& quilt, LayerAt at, PixelPos offset);

// 0 .. 100 per cent.
Quilt withOpacity(const Quilt& quilt, LayerAt at, int opacity);

// Hundredths, 0 .. kMostParallax each way.
Quilt withParallax(const Quilt& quilt, LayerAt at, Parallax parallax);

Quilt withTint(const Quilt& quilt, LayerAt at, Colour tint);
Quilt withBlend(const Quilt& quilt, LayerAt at, Blend blend);

// Whether the game shows it.
Quilt withInGame(const Quilt& quilt, LayerAt at, bool inGame);

// What hangs there and how; only of a backdrop layer.
Quilt withBackdrop(const Quilt& quilt, LayerAt at, const Backdrop& backdrop);

// At most kLongestNote bytes; may be empty.
Quilt withNote(const Quilt& quilt, LayerAt at, const std::string& note);

}  // namespace uq
