// Changes: what has become other in a quilt, or on a desk, since one was told of it last.
//
// Found once, by Work, and handed to whoever listens, so that nobody compares a quilt with the one before to know
// whether it concerns them. Parts that are shared are not looked into.
// Cost: a look at each part, and at the layers of the maps that are others.
#pragma once

#include <algorithm>
#include <array>
#include <set>

#include "core/document/Desk.h"

namespace uq {

struct QuiltChange {
  bool facts = false;                                 // the quilt's own
  std::array<std::set<Id>, PartKinds::kCount> parts;  // by kind: they came, went, or are others
  std::set<Id> arranged;                              // of the maps those of which more than cells of layers changed
  std::set<Id> painted;                               // layers, new ones too, on which other cells lie
  bool steps = false;                                 // the line of steps went on, or more or less of it is saved

  // Whether any part of a kind changed; whether that one did.
  template <class Part>
  bool any() const {
    return !parts[PartKinds::numberOf<Part>()].empty();
  }
  template <class Part>
  bool has(Id id) const {
    return parts[PartKinds::numberOf<Part>()].contains(id);
  }
  bool empty() const {
    return !facts && !steps && std::all_of(parts.begin(), parts.end(), [](const auto& ids) { return ids.empty(); });
  }
  friend bool operator==(const QuiltChange&, const QuiltChange&) = default;
};

QuiltChange changeOf(const Quilt& before, const Quilt& after);

struct DeskChange {
  bool map = false;        // which one is worked on, and the tabs
  bool layer = false;      // the active layers, and those chosen beside them
  bool hand = false;       // what is held, and was held
  bool tool = false;       // the tool, its options, how high it lays
  bool selection = false;  // on any map
  bool sight = false;      // eyes, locks, what is faded, marked or shown from where
  bool table = false;      // folded piles, whether frames play
  bool beside = false;     // what lies beside the desk, as the handles of a stretch or what is awaited

  bool empty() const { return *this == DeskChange(); }
  friend bool operator==(const DeskChange&, const DeskChange&) = default;
};

DeskChange changeOf(const Desk& before, const Desk& after);

}  // namespace uq
