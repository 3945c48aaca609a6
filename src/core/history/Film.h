// Film: how a quilt was made, step by step, to be looked at again: what each step of the undo line left behind.
//
// Values that share all that a step did not change; a film of many steps takes little more room than the line itself. What was packed is
// unpacked for it. Cost: the steps, taken back one by one. Threads: any, on a copy of the line.
#pragma once

#include <string>
#include <vector>

#include "core/base/Progress.h"
#include "core/history/UndoLine.h"

namespace uq {

struct FilmState {
  Quilt quilt;
  std::string step;  // that led here; empty: how it began
  Id map;            // that the step is about: its tab, or else the first one it changed; empty where it is about none
};

// From how it began to now, oldest first; where a step cannot be read any more, from there on. `most`: the newest so many steps.
// Fewer, from the newest on, where it was cancelled.
std::vector<FilmState> filmOf(UndoLine line, Quilt now, std::size_t most, Progress* progress = nullptr);

// Which state is seen at a moment of a film, both from 0 to 1: each as long, and the last one as long as all steps of a tenth.
std::size_t stateAt(std::size_t states, double moment);

}  // namespace uq
