// QuiltReading: a quilt out of its folder, or what there is of it.
//
// A broken part leaves itself out and is reported: a broken map file leaves that map out, a cut-off `.cells` keeps the
// rows before the cut, a missing sheet or picture keeps its tiles. Names and ids of what was left out are given to
// nothing else (Quilt::taken). Cost: linear in the files; cells are parsed by as many threads as there are cores, one
// layer's text a thread. The cells come last, map by map, so that somebody can look on (Onlooker).
#pragma once

#include <cstdint>
#include <functional>
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

// A quilt of which the cells of some maps are still to be read; everything else is there.
struct QuiltSight {
  Quilt quilt;
  std::set<Id> coming;            // maps that have no cells yet
  std::map<Id, Error> damaged{};  // of the others, those that could not be read whole
};

// Who looks on while a quilt is read, on the thread that reads.
struct Onlooker {
  // The map that is wanted first, asked once of a quilt whose maps all are still to come.
  std::function<Id(const Quilt& quilt)> first;
  // After each map, but not where what is still to come is read in no time.
  std::function<void(QuiltSight sight)> see;
  std::int64_t worth = std::int64_t{4} << 20;  // bytes of cells that must still be to come

  bool looks() const { return see != nullptr; }
};

// A quilt that was read before, out of much the same files. Sheets get the slots that they have there, so that cells can
// be compared; cells out of files that are the same are taken from it.
struct ReadBefore {
  const Quilt& quilt;                                       // read whole; lives as long as the reading
  std::function<bool(const std::string& path)> isSame = {};  // whether a file of cells is as it was; none is where unset
  // Of a file of cells that differs: the text of those chunks that do (CellsPatch); nothing where all of it is to be read.
  struct Patch {
    std::string text;
    std::set<std::pair<int, int>> chunks;
  };
  std::function<std::optional<Patch>(const std::string& path)> patch = {};
};

// A cancelled reading gives what it has so far.
QuiltRead readQuilt(QuiltFolder& folder, Progress& progress, const Onlooker& onlooker = {},
                    const ReadBefore* before = nullptr);

}  // namespace uq
