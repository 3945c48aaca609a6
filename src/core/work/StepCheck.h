// StepCheck: whether a quilt may become another one — what every step has to pass, made by hand, by a list of edits or
// by what came from another thread.
//
// Refused are changes of a map of which a part could not be read (saving it would lose the rest), of anything but maps
// while some are still being read, of what lies on a locked layer, and whatever the reader of the quilt's files would
// refuse: names, counts, places, turns. So what was made can be saved, and what was saved opens again.
// Cost: the parts whose revision differs; of their cells a look at each chunk, and all of those that differ.
#pragma once

#include <functional>
#include <optional>
#include <set>

#include "core/base/Error.h"
#include "core/document/Quilt.h"

namespace uq {

struct StepRules {
  // Why a map must not be changed; nullptr where it may. Empty: none is damaged.
  std::function<const Error*(Id map)> damage;
  std::set<Id> locked;    // layers
  bool mapsOnly = false;  // parts of the quilt are still being read
  const Error* nothing = nullptr;  // why nothing may be changed
};

// Why `before` must not become `after`; nothing where it may.
std::optional<Error> whyNoStep(const Quilt& before, const Quilt& after, const StepRules& rules);

// Why a quilt cannot be kept in files as it is; nothing where it can. Looks at all of it.
std::optional<Error> whyNotKept(const Quilt& quilt);

}  // namespace uq
