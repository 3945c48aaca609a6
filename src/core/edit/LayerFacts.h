// What is said of a layer: its name, role, offset, opacity and note.
//
// Nothing changes for a layer that does not exist, or for a value that it cannot have.
#pragma once

#include <string>

#include "core/document/Quilt.h"

namespace uq {

// The layer's id stays, so nothing that refers to it breaks; its file is named anew after it. Not the empty name.
Quilt renameLayer(const Quilt& quilt, LayerAt at, const std::string& name);

// Not the empty role.
Quilt withRole(const Quilt& quilt, LayerAt at, const std::string& role);

// Map pixels, ±kFarthestOffset each way.
Quilt withOffset(const Quilt& quilt, LayerAt at, PixelPos offset);

// 0 .. 100 per cent.
Quilt withOpacity(const Quilt& quilt, LayerAt at, int opacity);

// At most kLongestNote bytes; may be empty.
Quilt withNote(const Quilt& quilt, LayerAt at, const std::string& note);

}  // namespace uq
