// MapMenu: what the rows of the Map menu say of the map before they are chosen.
#pragma once

#include "app/actions/Actions.h"
#include "app/workroom/Session.h"

namespace uq {

// What cutting to what is used would leave, and how many painted cells lie in the seam allowance. Cost: a look at the
// chunks at the map's edges and beyond.
void tellOfSizes(Actions& actions, Session& session);

}  // namespace uq
