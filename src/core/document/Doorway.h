// Doorway: a way from a pin on one map to a pin on another one, or on the same; one way, or both.
//
// Both ends are pins, never cells, so a way lives through whatever moves cells: pins go along. It is found by its two
// ends; a link whose map or pin is gone is kept and told (core/check), and right again once that comes back. The heading is
// the way that somebody faces on arriving. Whether an end is there, or can be stood on, is no part of the value.
#pragma once

#include <optional>
#include <string>

#include "core/base/Id.h"
#include "core/base/Json.h"
#include "core/base/Revision.h"
#include "core/document/TileId.h"
#include "core/grid/Heading.h"

namespace uq {

inline constexpr std::size_t kMostDoorways = 20'000;    // of a quilt
inline constexpr std::size_t kLongestOfDoorway = 10'000;  // bytes: needs, sound and note each

struct PinAt {
  Id map;
  Id pin;
  bool empty() const { return pin.empty(); }
  friend constexpr auto operator<=>(const PinAt&, const PinAt&) = default;
};

struct Doorway {
  inline static const std::string name;  // doorways have none: they are listed by id, and called by their pins

  Id id;
  PinAt from;
  PinAt to;
  Heading arriving = Heading::south;  // at `to`
  // It also leads back, and who arrives at `from` faces that way.
  std::optional<Heading> back;
  bool meantSo = false;  // it leads one way only, and shall
  std::string needs;     // what it takes to go through: a key, an item, a word, an ability; may be empty
  std::optional<TileId> picture;  // shown at its ends in place of a button, where the sheet has it
  std::string sound;     // may be empty
  std::string note;      // may be empty
  Json::Object extra;    // fields that this version does not know
  Revision revision;

  bool joins(PinAt end) const { return from == end || to == end; }
  bool joins(Id map) const { return from.map == map || to.map == map; }
  // From its other end to this one.
  bool leadsTo(PinAt end) const { return to == end || (back && from == end); }
  bool leadsFrom(PinAt end) const { return from == end || (back && to == end); }
  // The end that is not this one.
  const PinAt& beyond(PinAt end) const { return from == end ? to : from; }
  friend bool operator==(const Doorway&, const Doorway&) = default;
};

}  // namespace uq
