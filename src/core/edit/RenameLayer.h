// Renaming a layer. Its id stays, so nothing that refers to it breaks; its file is named anew after it.
#pragma once

#include <string>

#include "core/document/Quilt.h"

namespace uq {

// Nothing changes for an empty name or a layer that does not exist.
Quilt renameLayer(const Quilt& quilt, LayerAt at, const std::string& name);

}  // namespace uq
