// HeldBar: a bar or a field's number that is dragged. From take() to leave() each change takes the place of the one
// before, all made of the quilt before it; together they are one step.
//
// What is changed while a bar is held belongs to it: where its gesture could not begin, or was ended by something else,
// nothing is changed until the hand lets go. A gesture of another kind that begins meanwhile ends that: a bar whose card
// is gone cannot say that it was let go.
#pragma once

#include <functional>
#include <string>

#include "core/work/Work.h"

namespace uq {

class HeldBar {
 public:
  // `work` must live as long.
  explicit HeldBar(Work& work) : work_(work) {}

  // `what` will be changed of the active layer; the step is called by it.
  void take(const std::string& what);
  void leave();
  // Lets go as if nothing had been changed.
  void drop();

  // True when a bar is held: then the change was made by it, or is not to be made.
  bool takes(const std::function<Quilt(const Quilt& before)>& edit);

 private:
  bool isHeld() const { return heldSince_ && *heldSince_ == work_.gesturesBegun(); }

  Work& work_;
  std::optional<std::uint64_t> heldSince_;  // how many gestures had begun then, its own among them
  bool began_ = false;                      // its own
};

}  // namespace uq
