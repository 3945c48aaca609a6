// Gesture: one movement of the hand from press to release, and what it makes of a quilt.
//
// A stroke, cells that are moved, or something that is said of layers while a bar is dragged. A gesture starts from the
// quilt before it and never builds on its own moves, so going back and forth leaves no trace, and what it shows at any
// moment is what letting go there would leave. It is owned in one place, by Work, which makes one step of it.
//
// Cost of a move: that of the edit; see Stroke.h and Selected.h. Threads: one at a time.
#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "core/edit/Selected.h"
#include "core/edit/Stroke.h"

namespace uq {

class Gesture {
 public:
  enum class Kind { stroke, move, change };
  using Moves = std::vector<StrokeMove>;

  // `moves`: those that the stroke has made already.
  static Gesture painting(Stroke stroke, Moves moves = {});
  // Of these cells of some layers of one map.
  // `joins`: they join what they meet, and what they leave behind mends; of many cells that is put off until the hand lets go.
  static Gesture moving(Quilt before, SelectedCells cells, bool joins = false);
  // Of whatever a bar or field says.
  static Gesture changing(Quilt before);

  Kind kind() const { return kind_; }
  const Quilt& before() const { return stroke_ ? stroke_->before() : before_; }
  // The quilt as far as the gesture has come.
  const Quilt& quilt() const { return stroke_ ? stroke_->quilt() : now_; }
  // What is selected then; nothing where the gesture leaves the selection alone.
  const std::optional<CellSet>& selected() const { return selected_; }

  // Each belongs to one kind and does nothing for others.
  void follow(const StrokeMove& move);   // stroke
  void refit(CellRect box);              // stroke of a stretch; see Stroke::refit
  void relay(Stroke stroke);             // stroke: laid anew along the same moves, with another hand
  void moveBy(SidePos by);               // move: in all, in side coordinates
  void become(Quilt now);                // change: made of before()

  // The hand lets go: lays what was put off for being large.
  void finish();

  const Stroke* stroke() const { return stroke_ ? &*stroke_ : nullptr; }
  const Moves& moves() const { return moves_; }

 private:
  explicit Gesture(Kind kind) : kind_(kind) {}

  Kind kind_;
  std::optional<Stroke> stroke_;
  Moves moves_;
  Quilt before_;
  Quilt now_;
  SelectedCells cells_;
  bool joins_ = false;
  Quilt moved_;  // before it was joined
  std::optional<CellSet> selected_;
};

}  // namespace uq
