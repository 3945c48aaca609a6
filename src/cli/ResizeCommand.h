// uquilt resize: moves the edges of a map, as the workroom does.
#pragma once

#include <string>

#include "core/edit/ResizeMap.h"

namespace uq::cli {

struct ResizeOrder {
  std::string quilt;  // its folder
  std::string map;
  std::string to;    // "64x48", in cells; may be empty
  std::string room;  // as newRoomName
  ResizeAsk ask;     // the rest
  bool dryRun = false;
};
// Prints the new size, and what is cut off, comes back or is dropped.
int resizeMap(ResizeOrder order);

}  // namespace uq::cli
