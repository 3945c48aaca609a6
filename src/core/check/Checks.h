// Checks: the loose threads of a quilt, kept up while it changes.
//
// What a map's own checks told is kept with the map's revision, and what those of a seam told with both maps', so after a
// stroke only one map and its seams are asked again. Threads are
// in the order of the checks, in a check by map. Those of silenced kinds are left out, and counted.
// Threads: one at a time; may be another one than the window's, with a copy of the quilt. Cost: what changed; for a whole
// quilt a look at every painted cell.
#pragma once

#include <map>
#include <vector>

#include "core/base/Progress.h"
#include "core/check/LooseThread.h"

namespace uq {

struct Checked {
  std::vector<LooseThread> threads;
  std::map<std::string, int, std::less<>> silenced;  // how many of each kind are left out
};

// The pictures' sides for a grid, for checks that look at pixels; nullptr: none are at hand. Good until the next call.
using JointsFor = std::function<JointBook*(const Quilt& quilt, const GridShape& shape)>;

class Checks {
 public:
  explicit Checks(JointsFor joints = {}) : joints_(std::move(joints)) {}

  // Stops early when `progress` (may be nullptr) is cancelled, and tells what it has.
  Checked of(const Quilt& quilt, Progress* progress = nullptr);

 private:
  struct Known {
    Revision map;
    std::uint64_t beside = 0;  // of the sheets, edgings and facts
    std::vector<std::vector<LooseThread>> threads;  // by check
  };
  struct KnownSeam {
    Revision map;
    Revision other;
    CellPos by;
    std::uint64_t beside = 0;
    std::vector<std::vector<LooseThread>> threads;  // by check
  };
  void lookAtMaps(const Quilt& quilt, Progress* progress);
  void lookAtSeams(const Quilt& quilt, Progress* progress);

  JointsFor joints_;
  std::map<Id, Known> known_;
  std::map<Id, KnownSeam> knownSeams_;
  std::vector<Shared<Sheet>> sheets_;
  std::vector<Shared<Edging>> edgings_;
  Shared<QuiltFacts> facts_;
  std::uint64_t beside_ = 0;
};

}  // namespace uq
