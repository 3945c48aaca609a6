// PngStream: a part of a map as a PNG that is drawn and packed band by band, so that a picture of gigabytes takes little memory.
//
// Drawn with libpng, 8 bits a channel with alpha. Memory: one band, at most kBandMegabytes. Cost: the pixels. Threads: any one, with a
// painter of its own.
#pragma once

#include <functional>

#include "core/base/Progress.h"
#include "core/store/Disk.h"
#include "raster/MapPainter.h"

namespace uq {

inline constexpr int kLargestStreamed = 65'536;  // pixels each way
inline constexpr int kBandMegabytes = 32;

struct MapPart {
  const Quilt& quilt;
  const Map& map;
  const std::vector<Run>& runs;
  ViewScale scale;
  QRect device;        // absolute device pixels
  bool onCloth = true;
};

// Gives the bytes of the file piece by piece to `add`, whose Error ends it. An Error where the picture would be larger than
// kLargestStreamed each way, or was cancelled.
Result<void> streamPng(MapPainter& painter, const MapPart& part, const std::function<Result<void>(std::string_view)>& add, Progress* progress = nullptr);

}  // namespace uq
