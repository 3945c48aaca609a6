// The ways of the demo's world: where the player begins, and the doorways between its maps.
#pragma once

#include "core/document/Quilt.h"

namespace uq::art {

Quilt withWays(Quilt quilt, IdSource& ids);

}  // namespace uq::art
