// KeptSteps: the steps of the undo line as bytes, so that the way back, and forth again, comes back with the work that was
// kept.
//
// Of a step only one side is written, leaning on the other (KeptParts): of a step in force what was before it, since what
// was after it is what the quilt has, or what the next step had before; of one that was taken back what was after it. So
// steps in force are read from the newest back and those taken back from the last one on, and what is damaged ends its way
// there: newer steps can still be taken back. Each has an id of its own, by which it is known to be kept already.
// Steps that are packed in memory are unpacked to be written; older ones are packed again as they are read.
// The form is this program's own and may change; nobody keeps it for longer than the work that it belongs to.
// Cost: linear in what the steps changed. Threads: any.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "core/history/UndoLine.h"

namespace uq {

// Of those in force, and of those taken back. Reading that many strokes takes some tenths of a second.
inline constexpr std::size_t kMostKeptSteps = 2'000;

// The newest steps of a line, and what it takes to write those of them that are not kept yet.
struct LineToKeep {
  std::vector<std::uint64_t> ids;           // all that count: in force, oldest first, then taken back, the first one first
  std::vector<std::uint64_t> fresh;         // those of them that are not kept yet, in rising order
  std::vector<Step> steps;                  // in force, from the oldest fresh one to the newest
  std::vector<UndoLine::Group> takenBack;   // from the first one with a fresh step to the last
};
// `known`: ids that are kept already, in rising order. Copies no cells.
LineToKeep lineToKeep(const UndoLine& line, const std::vector<std::uint64_t>& known);

// The fresh steps of a line that leads to `now`. One that cannot be unpacked ends its way.
std::string stepsText(const LineToKeep& line, const Quilt& now);

struct StepsRead {
  std::vector<Step> steps;  // oldest first
  std::vector<UndoLine::Group> takenBack;
  bool whole = true;        // all that were wanted are there
};
// The steps of these ids out of texts that stepsText made; of an id that is there twice the later one. `now` is the quilt
// that the line leads to; it gets slots for sheets that only the steps know.
StepsRead readSteps(const std::vector<std::string>& texts, const std::vector<std::uint64_t>& ids, Quilt& now);

}  // namespace uq
