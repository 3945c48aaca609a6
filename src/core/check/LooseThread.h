// LooseThread: one thing of a quilt that is wrong or suspicious — where it is, a sentence, and the press that mends it.
//
// What is told is worked out anew from the quilt each time (Checks) and never saved; what is saved is which kinds are
// silenced, each with a reason (QuiltFacts::silenced). Two threads are the same when they say the same of the same place.
#pragma once

#include <compare>
#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

class JointBook;

struct LooseThread {
  // What a press does about it.
  enum class Mend { nothing, makeWayBack, turnArrival, takeWayOut, openSeam, agreeSizes, renumber, joinAnew };

  std::string_view kind;  // of its check: "no way back"; a literal
  Id map;                 // empty: it is of the quilt
  std::optional<CellPos> cell;
  Id about;          // the doorway, seam, sheet or layer; may be empty
  std::string text;  // one sentence, without its full stop
  Mend mend = Mend::nothing;
  std::string mendText{};  // "Lead back, too"
  friend bool operator==(const LooseThread&, const LooseThread&) = default;
};

// The quilt after that press; as it was where the thread is tied already.
Quilt mended(const Quilt& quilt, const LooseThread& thread);

// A seam that is right: cell c of `other` lies on the map's cell c + by. Of a map that wraps both are the same one.
struct SeamSight {
  const Quilt& quilt;
  const Seam& seam;
  const Map& map;
  const Map& other;
  CellPos by;
  JointBook* joints;  // of the map's grid; nullptr where no pictures are at hand

  // The cells of the map, row by row, that lie beside cells of the other one, each with all of these and the sides they lie at.
  void forEachPair(const std::function<void(CellPos here, CellPos there, int side)>& visit) const;
  // "48 cells at the stitch Depot Yard ~ Ferry Street"
  std::string called(int cells) const;
};

// A check is one file of this folder, <Name>Check.cpp, that defines `const Check k<Name>Check`; the build lists them.
// `ofMap` may look at one map, the sheets, the edgings and the quilt's facts only, `ofSeam` at the two maps besides, so that they need
// not be asked again while these are the same; `ofQuilt` at everything, and must be quick. Each may be left out.
struct Check {
  using Threads = std::vector<LooseThread>;
  // The kinds of threads that it tells, as people read them.
  std::vector<std::string_view> kinds;
  void (*ofMap)(const Quilt& quilt, const Map& map, Threads& threads);
  void (*ofQuilt)(const Quilt& quilt, Threads& threads);
  void (*ofSeam)(const SeamSight& sight, Threads& threads) = nullptr;
};
// All of them, in the order of their names.
const std::vector<const Check*>& allChecks();
// All kinds, each once.
std::vector<std::string_view> allKinds();

}  // namespace uq
