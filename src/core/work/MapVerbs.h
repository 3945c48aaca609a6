// MapVerbs: what is done to the maps of a quilt, and with their tabs. Each edit is one step; a new or copied map is gone
// to, and gets a tab. Threads: those of the Work.
#pragma once

#include <set>
#include <string>

#include "core/edit/ArrangeMaps.h"
#include "core/edit/Board.h"
#include "core/edit/DrawnPiece.h"
#include "core/edit/ResizeMap.h"
#include "core/edit/SizeFindings.h"
#include "core/edit/Stitch.h"
#include "core/work/Work.h"

namespace uq {

class MapVerbs {
 public:
  // `work` must live as long.
  explicit MapVerbs(Work& work) : work_(work) {}

  void add(const MapPlan& plan);
  void duplicate();
  // Copies of several, sewn among themselves as those are; nothing is gone to. Which these are.
  std::set<Id> duplicate(const std::set<Id>& maps);
  void rename(Id map, const std::string& name);
  void remove(Id map);
  // Several at once, as one step.
  void remove(const std::set<Id>& maps);
  // Gives the desk's map cells of that size, or the nearest its grid allows.
  void setCell(PixelSize cell);
  // Makes the desk's map the one that the quilt opens with at first, or no longer.
  void setOpening();
  // Gives the desk's map other bounds; what is cut off is kept in its seam allowance. Says why where that cannot be.
  void resize(CellRect bounds, NewRoom room = NewRoom::empty);
  // Puts rows or columns into the desk's map, or takes them out, on all layers or on the active one, as the desk says. What
  // is selected, the screen frame and the last point stay with their cells. Says why where that cannot be.
  void changeLines(const CellLines& lines);
  std::string whyNoLines(const CellLines& lines) const;
  // Cuts the desk's map to what is painted on it, all round or on some sides; says so where nothing is to be cut.
  void cutToUsed(const HeldEdge& sides = {true, true, true, true});
  // What that would leave of the desk's map; its own bounds where nothing would be cut.
  CellRect leftByCutting(const HeldEdge& sides = {true, true, true, true}) const;
  // Takes away what the desk's map keeps outside its bounds.
  void dropAllowance();
  // Makes what a finding offers a step.
  void mend(const SizeFinding& finding);
  // Changes what is said of the desk's map; `what` is said in the step's name.
  void change(const std::string& what, Quilt after);

  // Shows the Board, or the map that is worked on.
  void showBoard(bool on);
  // Moves pieces on the Board; lays all of them out. Maps that cannot be changed stay where they are.
  void movePieces(const std::set<Id>& maps, PixelPos by);
  // The same while the hand drags them, and what is sewn to them, as a gesture that begins with the first call: drawn to
  // edges of others, and sewn to those that belong together.
  struct PieceDrag {
    int reach = 0;      // map pixels within which they are drawn to edges; none where it is negative
    bool sews = true;   // else they are laid beside
    bool rips = false;  // these pieces alone, off what they are sewn to
  };
  struct Dragged {
    std::vector<BoardLine> lines;  // of edges that meet; none where a stitch does
    std::optional<Stitch> stitch;  // where letting go sews, or why it cannot be
  };
  Dragged dragPieces(const std::set<Id>& maps, PixelPos by, const PieceDrag& how);
  // Sews pieces, and what hangs on them, to the nearest edge of another within `reach` map pixels; says so where there is none.
  void sewNearest(const std::set<Id>& maps, int reach);
  // Rips pieces off all others; those that are ripped together stay sewn to one another.
  void rip(const std::set<Id>& maps);
  // Sews a map to itself, or takes that seam out.
  void wrap(Id map, bool down);
  void tidyBoard();
  // Makes the map that was drawn, on the Board; see addDrawn. The piece that was made; empty, and the listener was told why.
  Id addDrawn(const DrawnPiece& drawn, const MapPlan& plan, int carried);
  // Chalk pieces: a new one, what is said of one, and the tick of some.
  Id addChalk(const PixelRect& at);
  void sayChalk(Id chalk, const std::string& name, const std::string& note);
  void tick(const std::set<Id>& chalk);
  // Those that cannot be changed.
  std::set<Id> fixedPieces() const;

  // Goes to a map, which gets a tab; takes one's tab away. A gesture under way is finished before.
  void goTo(Id map);
  void closeTab(Id map);
  // Moves the screen frame as near to a place as the camera goes there.
  void setCamera(PixelPos at);

 private:
  Work& work_;
};

}  // namespace uq
