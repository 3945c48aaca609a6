// Moving the active layer nearer or farther, and asking why a stroke would not land.
#pragma once

#include <string>

#include "core/document/Desk.h"

namespace uq {

// The desk with the next layer towards the viewer (`steps` > 0) or away from it (< 0) active; the same desk at the end
// of the stack.
Desk withNearerLayer(const Desk& desk, const Quilt& quilt, int steps);

// Why a stroke would do nothing now, in words for the person at the pointer; empty when it would land.
std::string whyNoStroke(const Desk& desk, const Quilt& quilt, bool takesAway);

}  // namespace uq
