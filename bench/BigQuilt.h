// Large maps for the benchmarks, with the statistics of the demo: patches of Depot Yard, all layers together, taken
// from pseudo-random places. Always the same for the same size.
#pragma once

#include "core/document/Quilt.h"

namespace uq::bench {

// Opens the demo in the repository.
Quilt demoQuilt();

// The demo with one more map, "Big", of side × side cells and `layers` layers; those beyond the demo's four repeat
// them, the farthest first. Layers of things are sparse, as in the demo.
Quilt bigQuilt(int side, int layers);

// The same, with every layer as dense as Paving.
Quilt denseQuilt(int side, int layers);

// The demo with one more map, "Isometric", of side × side diamonds in patches of Quayside: four layers by depth, two of
// them on a level, with tiles up to seven cells high and footprints up to 4 × 2.
Quilt isometricQuilt(int side);

// Layer `index` of the map "Big", the farthest being 0.
LayerAt layerOfBig(const Quilt& quilt, int index);

}  // namespace uq::bench
