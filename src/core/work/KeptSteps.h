// KeptSteps: steps of the undo line as bytes, so that the way back comes back with the work that was kept.
//
// Of a step only what was before it is written: of a map its document and the chunks of cells that differ, of other parts
// their documents. What was after it is what the quilt has, or what the next step had before, so the steps are read from
// the newest back, and what is damaged ends the line there: newer steps can still be taken back.
// The form is this program's own and may change; nobody keeps it for longer than the work that it belongs to.
// Cost: linear in what the steps changed. Threads: any.
#pragma once

#include <cstdint>
#include <set>
#include <string>
#include <vector>

#include "core/history/UndoLine.h"

namespace uq {

inline constexpr std::size_t kMostKeptSteps = 300;

// The newest steps of a line that can be kept: those whose values are at hand, or that are `known` to be kept.
struct LineToKeep {
  std::vector<std::uint64_t> numbers;  // oldest first
  std::vector<Step> fresh;             // those of them that are not known
};
LineToKeep lineToKeep(const UndoLine& line, const std::set<std::uint64_t>& known);

// `slots` knows the sheets of all cells that the steps changed.
std::string stepsText(const std::vector<Step>& steps, const Quilt& slots);

struct StepsRead {
  std::vector<Step> steps;  // oldest first
  bool whole = true;        // all that were wanted are there
};
// The steps of these numbers, oldest first, out of texts that stepsText made. `now` is the quilt after the newest one; it
// gets slots for sheets that only the steps know.
StepsRead readSteps(const std::vector<std::string>& texts, const std::vector<std::uint64_t>& numbers, Quilt& now);

}  // namespace uq
