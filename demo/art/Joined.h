// What joins by itself in the demo: the street's grounds, rails, the canals, towpaths and tram lines.
#pragma once

#include "core/document/Quilt.h"

namespace uq::art {

// With an edging for each; its tiles' sheets must be there.
Quilt withEdgings(Quilt quilt);

}  // namespace uq::art
