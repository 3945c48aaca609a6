// Strokes: what a press, a drag and a release of a tool do, what they would do, and what can be done with the last one.
//
// A stroke is a gesture of the Work (see Work.h), made as the desk says. While nothing else was done after it, chance can
// be thrown again, and a stretch has handles and look-alikes.
// Cost: that of the stroke; see Stroke.h. Threads: those of the Work.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/base/Json.h"
#include "core/edit/LookAlikes.h"
#include "core/work/Work.h"

namespace uq {

class Strokes {
 public:
  // `work` must live as long.
  explicit Strokes(Work& work) : work_(work) {}

  // A stroke along a path; its seed is that of the next one. A path of several cells is pressed at the first one.
  struct Ask {
    bool takesAway = false;
    bool even = false;        // equal sides, straight ways
    bool everywhere = false;  // all such cells of the layer
    std::vector<CellPos> path;
    int corner = 0;               // of each of them, with a brush of half a cell
    CellSet within{};             // only these cells are touched, and selected ones; an empty set does not count
    CellSet given{};              // filled instead of a region
    std::optional<Tool> tool{};  // other than the desk's
  };

  // That of a press at a cell. Brush and Erase join it to where the last stroke ended while `even`; Fill then takes all
  // such cells of the layer.
  Ask askAt(CellPos cell, bool takesAway, bool even, int corner = 0) const;
  // That of a box of cells at once, from its corner `from` to the other one `to`: shapes are drawn in it, Brush and Erase
  // go over all of it. `even` counts for Fill.
  Ask askOver(const CellSet& cells, CellPos from, CellPos to, bool takesAway, bool even) const;

  // The stroke as it would be made now, without making it. It refuses to lay very many cells.
  Stroke tryOut(const Ask& ask);

  // From press to release, which is Work::finish(). Nothing happens where it may not be.
  void begin(const Ask& ask);
  void moveTo(CellPos to, bool even = false, int corner = 0);
  bool underWay() const { return work_.gesture() != nullptr; }
  const Stroke* stroke() const { return work_.gesture() ? work_.gesture()->stroke() : nullptr; }

  // The last stroke as a list of edits that repeats it on the quilt before it, while nothing else was done.
  struct Repeated {
    Quilt before;
    Json list;
  };
  std::optional<Repeated> last() const;
  // Another outcome of chance: for the selection, else for the last stroke. One step.
  void throwAgain();
  // The desk's map grows as it is painted from now on, and so does what was laid last: one step.
  void letGrow();
  std::string whyNoThrow() const;

  // The stretch that is laid, was laid last or was recognised: its box in side coordinates, and what lay in the hand.
  // Nothing once something else was done. Refitting it is a stroke.
  std::optional<CellRect> stretchBox() const;
  const InHand* stretchLaid() const;
  void beginRefit();
  void refit(CellRect box);
  // Puts the next look-alike in the place of a part of that stretch; while it is dragged as part of the stroke, else as a
  // step. Says so where no kept mix has one.
  void stepLookAlike(StretchPart part, int steps);
  // Finds a stamp or what is in hand, laid as a stretch around a cell; false where there is none.
  bool recogniseStretch(CellPos at);

 private:
  StrokePlan planned(const Ask& ask);
  std::string named(std::string_view verb) const;

  Work& work_;
};

// Why a stroke would do nothing now, with the tool of the desk or another; empty when it would land.
std::string whyNoStroke(const Work& work, bool takesAway, std::optional<Tool> tool = {});
// Whether all these layers take a change, and there is one; says why not.
bool takesChange(const Work& work, std::span<const LayerAt> layers);

}  // namespace uq
