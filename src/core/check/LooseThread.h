// LooseThread: one thing of a quilt that is wrong or suspicious — where it is, a sentence, and the press that mends it.
//
// What is told is worked out anew from the quilt each time (Checks) and never saved; what is saved is which kinds are
// silenced, each with a reason (QuiltFacts::silenced). Two threads are the same when they say the same of the same place.
#pragma once

#include <compare>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

struct LooseThread {
  // What a press does about it.
  enum class Mend { nothing, makeWayBack, turnArrival, takeWayOut, openSeam, agreeSizes };

  std::string_view kind;  // of its check: "no way back"; a literal
  Id map;                 // empty: it is of the quilt
  std::optional<CellPos> cell;
  Id about;          // the doorway, seam or sheet; may be empty
  std::string text;  // one sentence, without its full stop
  Mend mend = Mend::nothing;
  std::string mendText{};  // "Lead back, too"
  friend bool operator==(const LooseThread&, const LooseThread&) = default;
};

// The quilt after that press; as it was where the thread is tied already.
Quilt mended(const Quilt& quilt, const LooseThread& thread);

// A check is one file of this folder, <Name>Check.cpp, that defines `const Check k<Name>Check`; the build lists them.
// `ofMap` may look at one map, the sheets and the quilt's facts only, so that it need not be asked again while these are
// the same; `ofQuilt` at everything, and must be quick. Either may be left out.
struct Check {
  using Threads = std::vector<LooseThread>;
  // The kinds of threads that it tells, as people read them.
  std::vector<std::string_view> kinds;
  void (*ofMap)(const Quilt& quilt, const Map& map, Threads& threads);
  void (*ofQuilt)(const Quilt& quilt, Threads& threads);
};
// All of them, in the order of their names.
const std::vector<const Check*>& allChecks();
// All kinds, each once.
std::vector<std::string_view> allKinds();

}  // namespace uq
