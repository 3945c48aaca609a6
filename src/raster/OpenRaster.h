// OpenRaster: a map as a layered picture that painting programs open.
//
// The open format of openraster.org, version 0.0.6: a zip archive with the layers as PNG files, nearest first in
// stack.xml, each with its name, place, opacity and blend, and the whole picture beside them. A layer is written in its
// own pixels, tinted, at 100 %, where the map's cells are; what reaches beyond them is kept.
#pragma once

#include <string>

#include "raster/MapPainter.h"

namespace uq {

// The bytes of the file. Layers that the game does not show are marked as hidden. An Error where the archive cannot be
// made.
Result<std::string> openRaster(MapPainter& painter, const Quilt& quilt, const Map& map);

}  // namespace uq
