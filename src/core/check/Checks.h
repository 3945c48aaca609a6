// Checks: the loose threads of a quilt, kept up while it changes.
//
// What a map's own checks told is kept with the map's revision, so after a stroke only one map is asked again. Threads are
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

class Checks {
 public:
  // Stops early when `progress` (may be nullptr) is cancelled, and tells what it has.
  Checked of(const Quilt& quilt, Progress* progress = nullptr);

 private:
  struct Known {
    Revision map;
    std::uint64_t beside = 0;  // of the sheets and facts
    std::vector<std::vector<LooseThread>> threads;  // by check
  };
  std::map<Id, Known> known_;
  std::vector<Shared<Sheet>> sheets_;
  Shared<QuiltFacts> facts_;
  std::uint64_t beside_ = 0;
};

}  // namespace uq
