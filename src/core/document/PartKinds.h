// PartKinds: the kinds of parts that a quilt lists, in one place.
//
// A kind is a type with `id`, `name`, `revision` and ==. What a quilt does with each of its parts — keep it by name,
// put it back, take it out, tell its changes, undo it, check it before a step, plan its files — is written once for all
// kinds and goes through this list. One more kind is: its type here, and what only it can say, as one overload in
//   Quilt.cpp       settle(), renew()   what is settled when it is put back by `with` (optional)
//   StepCheck.cpp   whyNoPart()         why such a part could not be written and read
//   SavePlan.cpp    addFiles()          its files, and what their reader says
//   Desk.cpp        forget()            what the desk says of one that is gone
//   Documents.h     kFolderOf           the folder in which its files lie
//   QuiltReadingParts.cpp               how it is read
//   Journal.cpp     isQuiltFile()       what its files may be called; QuiltFolder.cpp, where new ones are looked for
// The quilt's facts are a part for undo as well, of which there is one.
#pragma once

#include <tuple>
#include <type_traits>
#include <variant>
#include <vector>

#include "core/base/Shared.h"
#include "core/document/ChalkPiece.h"
#include "core/document/Doorway.h"
#include "core/document/Edging.h"
#include "core/document/Map.h"
#include "core/document/Seam.h"
#include "core/document/Sheet.h"
#include "core/document/Stamp.h"
#include "core/document/Target.h"

namespace uq {

// To choose an overload by kind, where there is no part at hand.
template <class Kind>
struct KindTag {};

template <class... Kinds>
struct KindList {
  // Calls visit.operator()<Kind>() for each kind, in order.
  template <class Visit>
  static void forEach(Visit&& visit) {
    (visit.template operator()<Kinds>(), ...);
  }
  static constexpr int kCount = sizeof...(Kinds);
  // The number of a kind in this list, from 0.
  template <class Kind>
  static constexpr int numberOf() {
    int number = 0;
    (void)((std::is_same_v<Kind, Kinds> || (++number, false)) || ...);
    return number;
  }
  // The parts of a quilt by kind, each kind by name.
  using Lists = std::tuple<std::vector<Shared<Kinds>>...>;
  // One part of any kind, or one of `More`; monostate: it is not there.
  template <class... More>
  using AnyOf = std::variant<std::monostate, Shared<More>..., Shared<Kinds>...>;
};

using PartKinds = KindList<Map, Sheet, Stamp, Seam, ChalkPiece, Doorway, Edging, Target>;

}  // namespace uq
