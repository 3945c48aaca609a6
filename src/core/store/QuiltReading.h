// QuiltReading: a quilt out of its folder, or what there is of it.
//
// A broken part leaves itself out and is reported: a broken map file leaves that map out, a cut-off `.cells` keeps the
// rows before the cut, a missing sheet or picture keeps its tiles. Names and ids of what was left out are given to
// nothing else (Quilt::taken). Cost: linear in the files; cells are parsed by as many threads as there are cores, one
// layer's text a thread.
#pragma once

#include <map>
#include <optional>
#include <set>
#include <string>

#include "core/base/Progress.h"
#include "core/document/Quilt.h"
#include "core/store/QuiltFolder.h"

namespace uq {

struct QuiltRead {
  Quilt quilt;
  Errors problems;
  std::map<Id, Error> damaged;      // maps that could not be read whole
  std::set<std::string> leftOut;    // how the paths of parts begin that could not be read
  bool isWhole = true;              // nothing was left out or cut off
  std::optional<Error> unwritable;  // why nothing can be saved here
};

// A cancelled reading gives what it has so far.
QuiltRead readQuilt(QuiltFolder& folder, Progress& progress);

}  // namespace uq
