// Work: a quilt, the desk, the line of steps and the gesture under way — what a person does with a quilt, without a
// window.
//
// All steps come in through one door, make() or a gesture's finish(), which holds them against the same rules (see
// StepCheck.h) and keeps them on the undo line. While a gesture is under way nobody else may make a step; what comes from
// elsewhere, as a worker's result, waits in a row for the hands to be free.
//
// Invariants: desk() fits quilt(); at most one gesture; while there is one, quilt() is what it shows, and the undo line
// knows of it.
// Threads: one at a time; results of other threads are handed over to it.
#pragma once

#include <deque>
#include <functional>
#include <optional>

#include "core/document/Desk.h"
#include "core/history/UndoLine.h"
#include "core/work/Gesture.h"
#include "core/work/StepCheck.h"

namespace uq {

class Work {
 public:
  using Damage = std::function<const Error*(Id map)>;

  // `damage` tells why a map must not be changed.
  Work(Quilt quilt, Desk desk, Damage damage);

  const Quilt& quilt() const { return quilt_; }
  const Desk& desk() const { return desk_; }
  const UndoLine& undoLine() const { return undoLine_; }
  UndoLine& undoLine() { return undoLine_; }

  // The desk made to fit the quilt; true when something changed. A lift is forgotten on another layer.
  [[nodiscard]] bool setDesk(Desk desk);

  struct Made {
    std::string name;
    Quilt after;
    LayerAt active;                      // the layer that is active then; the step is made in the tab of its map
    std::optional<CellSet> selected{};  // on the active map
  };
  // The door: true when a step was made, false when `after` is the quilt as it is; an Error says why it may not be,
  // and then nothing happened.
  [[nodiscard]] Result<bool> make(Made made);

  // Begins a gesture, whose step is made in the tab of the desk's map. An Error where a gesture is under way, or the
  // desk's map may not be changed.
  [[nodiscard]] Result<void> begin(std::string name, Gesture gesture);
  // Nothing where there is none; to be moved by its owner's hand, then shown.
  Gesture* gesture() { return gesture_ ? &*gesture_ : nullptr; }
  const Gesture* gesture() const { return gesture_ ? &*gesture_ : nullptr; }
  // Makes quilt() and the selection those of the gesture; true when the desk changed.
  bool show();
  // Makes a step of the gesture, under that name unless it is empty, as make() does. On an Error the gesture is dropped.
  [[nodiscard]] Result<bool> finish(const std::string& name = {});
  // Puts the quilt and what was selected back as they were before the gesture.
  void drop();

  // Puts `what` in the row of what waits until no gesture is under way.
  void whenFree(std::function<void()> what);
  // What may be called now, first in first out; empty while a gesture is under way, and when nothing waits.
  std::function<void()> takeWaiting();
  void forgetWaiting() { waiting_.clear(); }

  // Takes steps back or lays them back, by a plan of the undo line.
  [[nodiscard]] Result<void> takeBack(const UndoLine::Plan& plan);
  [[nodiscard]] Result<void> layBack(const UndoLine::Plan& plan);

 private:
  StepRules rules() const;
  DeskMark mark() const { return {desk_.landing(), desk_.selection()}; }
  void follow(UndoLine::Outcome outcome);

  Quilt quilt_;
  Desk desk_;
  Damage damage_;
  UndoLine undoLine_;
  std::optional<Gesture> gesture_;
  CellSet selectedBefore_;  // the gesture
  std::deque<std::function<void()>> waiting_;
};

}  // namespace uq
