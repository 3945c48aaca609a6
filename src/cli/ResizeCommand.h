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
  // Rows and columns as "AT:N", AT counted from the map's corner as people see it.
  std::vector<std::string> insertedColumns, insertedRows, removedColumns, removedRows;
  std::string layer;  // on which alone they come in and go; empty: on all
  bool dryRun = false;
};
// Prints the new size, and what is cut off, comes back or is dropped.
int resizeMap(ResizeOrder order);

}  // namespace uq::cli
