// Run: neighbouring layers that always move together, drawn and kept as one picture.
//
// The fewer runs, the faster a frame: a frame lays one picture a run over the other. Layers are in one run as long as
// nothing moves, blends or fades them on their own.
#pragma once

#include <set>
#include <vector>

#include "core/document/Map.h"

namespace uq {

struct Run {
  std::vector<Id> layers;  // farthest first
  friend bool operator==(const Run&, const Run&) = default;
};

// The runs of a map's layers without the hidden ones, farthest first; none where nothing is to be seen.
std::vector<Run> runsOf(const Map& map, const std::set<Id>& hidden);

}  // namespace uq
