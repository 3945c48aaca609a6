// MapExport: a map written for other programs, as one picture or as a layered one.
#pragma once

#include <string>

#include "core/base/Progress.h"
#include "core/store/Disk.h"
#include "raster/MapPainter.h"

namespace uq {

inline constexpr int kLargestRender = 32'768;  // device pixels each way
// Whether a picture would take more memory than pictures are read with, 512 MB, or more than kLargestRender each way.
bool isTooLargeToRender(double width, double height);

// Writes the map, with all that reaches beyond its cells, over its cloth, each map pixel as one: as OpenRaster where
// `path` ends with ".ora", else as PNG. Only layers that the game shows are in the PNG. What was there stays whole until
// the new file is. An Error where the picture would be too large, or cannot be written.
Result<void> exportMap(Disk& disk, MapPainter& painter, const Quilt& quilt, const Map& map, const std::string& path,
                       Progress* progress = nullptr);

// A map over its cloth, of a part of it in device pixels.
QImage overCloth(MapPainter& painter, const Quilt& quilt, const Map& map, const std::vector<Run>& runs, ViewScale scale,
                 const QRect& device);

}  // namespace uq
