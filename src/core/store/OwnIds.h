// OwnIds: parts of one file that have the same id, as a merge by hand leaves them, told apart.
//
// The first keeps its id, so that what refers to it still does; later ones get one of their own, always the same for the
// same file; those that say the very same are one. Cost: sorting. Threads: any.
#pragma once

#include <algorithm>
#include <set>
#include <vector>

#include "core/base/Id.h"

namespace uq {

// Sorted by id then.
template <class Part>
void giveOwnIds(std::vector<Part>& parts) {
  std::stable_sort(parts.begin(), parts.end(), [](const Part& a, const Part& b) { return a.id < b.id; });
  parts.erase(std::unique(parts.begin(), parts.end()), parts.end());
  std::set<Id> taken;
  std::vector<Part*> twins;
  for (Part& part : parts) {
    if (!taken.insert(part.id).second) twins.push_back(&part);
  }
  if (twins.empty()) return;
  IdSource ids(std::hash<Id>()(twins.front()->id));
  for (Part* part : twins) {
    do part->id = ids.next();
    while (!taken.insert(part->id).second);
  }
  std::sort(parts.begin(), parts.end(), [](const Part& a, const Part& b) { return a.id < b.id; });
}

}  // namespace uq
