// LinesDrag: rows and columns under the hand at a ruler: what a press there would put in or take out, and how many
// while the hand drags along it.
//
// Nothing is changed before the hand lets go; then it is one step. What is pointed at ends with the map it is on.
// Cost of a move: the chunks that are newly spanned are counted once. Threads: those of the Work.
#pragma once

#include <optional>
#include <string>

#include "core/edit/ResizeMap.h"
#include "core/edit/RowsAndColumns.h"
#include "core/work/MapVerbs.h"

namespace uq {

// A place on a ruler. `at`: the row or column before which some come in, or the one that goes.
struct RulerPlace {
  CellLines::Which which = CellLines::Which::columns;
  bool removes = false;
  int at = 0;
  friend bool operator==(const RulerPlace&, const RulerPlace&) = default;
};

// What a drag from a place to a row or column asks for: so many come in before the place as the hand went over, at
// least one; or all go that lie between, both ends too. By `even` many, as far as the bounds have so many.
CellLines spannedLines(const RulerPlace& from, int to, int even, CellRect bounds);

class LinesDrag {
 public:
  // `work` and `maps` must live as long.
  LinesDrag(Work& work, MapVerbs& maps) : work_(work), maps_(maps) {}

  // What a press there would do; nothing: the hand is elsewhere. Ignored while some are held.
  void point(const std::optional<RulerPlace>& at, bool oneByOne);
  void take() { held_ = lines().has_value(); }
  bool isHeld() const { return held_ && lines(); }
  void dragTo(int at, bool oneByOne);
  // Lets go: one step, or a word why not.
  void leave();
  void drop();

  // Without a ruler: as many as the selection spans come in before it, or those go.
  void changeSelected(CellLines::Which which, bool remove);

  // What is pointed at, or was taken.
  const std::optional<RulerPlace>& place() const { return from_; }
  // What would come in or go; nothing where nothing is pointed at, or the map is another one now.
  std::optional<CellLines> lines() const;
  // How many painted cells would go.
  std::int64_t painted() const { return painted_; }
  // Whether what follows would move by half a cell.
  bool shifts() const;
  // Why it cannot be; empty where it can.
  std::string refusal() const;

 private:
  void span();

  Work& work_;
  MapVerbs& maps_;
  std::optional<RulerPlace> from_;
  Id map_;
  Id only_;
  int to_ = 0;
  bool oneByOne_ = false;
  bool held_ = false;
  CellLines lines_;
  std::optional<Map> countedMap_;
  std::optional<PaintedCount> count_;
  std::int64_t painted_ = 0;
};

}  // namespace uq
