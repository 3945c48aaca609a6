// UndoLine: everything that was done to a quilt, and the way back, without end.
//
// There is one line for a quilt, but undo is felt where one works: in a map's tab it takes back the newest step that
// was made there or that changed that map; a step that was painted over a stitch is at home in the tabs of all its maps. A step keeps each part of the quilt it changed — a map, a sheet, the quilt's
// own facts — as a value before and after. To take a step back, all newer steps that changed a same part, or that use a
// thing it made, go with it, and so on until nothing more follows; they form one group, and one redo lays the whole
// group back. The group is known before anything happens (`planBack`), so that the person can be asked.
//
// A gesture (a stroke, a slider, typing) opens a step, and commits or cancels it as one. A step that changes nothing is
// not kept. A new step drops all that was taken back in its tab, elsewhere what shares a part with it, and the groups
// that need those.
//
// Invariant: for every part, the quilt's present value is the `after` of the newest kept step that changed it.
// Cost: a step holds the parts it changed, which share all but what was changed with their neighbours; planning is
// linear in the steps. Steps older than the newest kFreshSteps are packed to lists of cells, and what is packed beyond
// kMostPackedBytes is spilled to a file, so the line may grow without end. Packing is a value's work that any thread
// may do: toPack() hands a step out, pack() works, putPacked() takes it in.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/cells/CellSet.h"
#include "core/document/Quilt.h"
#include "core/history/PackedMap.h"

namespace uq {

inline constexpr std::size_t kFreshSteps = 64;
inline constexpr std::size_t kMostPackedBytes = std::size_t{256} << 20;

// What undo restores as a whole.
struct PartKey {
  static constexpr int kFacts = -1;

  int kind = kFacts;  // PartKinds::numberOf, or the quilt's facts
  Id id;              // empty for facts

  template <class Part>
  static PartKey of(Id id) {
    return {PartKinds::numberOf<Part>(), id};
  }
  friend constexpr bool operator==(const PartKey&, const PartKey&) = default;
};

// monostate: the part was not there.
using PartValue = PartKinds::AnyOf<QuiltFacts>;

struct PartChange {
  PartKey key;
  PartValue before;  // both monostate where `packed` holds them
  PartValue after;
  std::shared_ptr<const PackedMap> packed{};
};

// The parts in which two quilts differ. Shared parts are passed over unread.
std::vector<PartChange> changesBetween(const Quilt& before, const Quilt& after);

// What of the desk a step brings back: where strokes landed, and what was selected on the tab's map where the step was
// about that; else the selection stays as it is.
struct DeskMark {
  LayerAt active;
  std::optional<CellSet> selection;

  DeskMark() = default;
  DeskMark(LayerAt layer, std::optional<CellSet> cells = {}) : active(layer), selection(std::move(cells)) {}
};

struct Step {
  std::uint64_t number = 0;  // counts up; never given out twice
  std::string name;          // as a person would say it: "Brush on Paving"
  Id tab;                    // the map in whose tab it was made; empty for the Board
  std::vector<PartChange> changes;
  DeskMark deskBefore;
  DeskMark deskAfter;
  bool across = false;  // painted over a stitch: at home in the tab of every map that it changed

  bool touches(const PartKey& key) const;
  std::size_t packedBytes() const;  // in memory
};

class UndoLine {
 public:
  // Steps that go together, in the order in which they were made.
  struct Plan {
    std::vector<std::uint64_t> steps;
    std::vector<std::string> names;
    // More than one step goes, or one that was made in another tab changes another map: ask first.
    bool reachesFarther = false;
  };
  struct Outcome {
    Quilt quilt;
    DeskMark desk;  // as it was there
  };

  // Steps that were taken back together, in the tab where that was asked for.
  struct Group {
    Id tab;
    std::vector<Step> steps;   // oldest first
    std::uint64_t number = 0;  // counts up; never given out twice
  };

  // The line of a quilt that came back, oldest first: of each part the newest step's `after` is what the quilt has, and
  // the `before` of the last one taken back. Only on a line without steps. Gives the groups numbers.
  void comeBack(std::vector<Step> steps, std::vector<Group> takenBack = {});

  // Opens a gesture. Nothing else may be opened until it is committed or cancelled.
  void begin(std::string name, Id tab, const Quilt& before, DeskMark desk);
  bool inGesture() const { return gesture_.has_value(); }
  // The quilt before the gesture, which there must be.
  const Quilt& beforeGesture() const { return gesture_->before; }
  // Gives the gesture another name, known only at its end.
  void rename(std::string name);
  const std::string& gestureName() const { return gesture_->step.name; }
  // Closes the gesture with what it made of the quilt; false when that changed nothing, and no step was kept. Where `desk`
  // says nothing of what is selected, the step is not about that. `across`: see Step.
  bool commit(const Quilt& after, DeskMark desk, bool across = false);
  // Closes the gesture and gives back the quilt before it.
  Quilt cancel();

  // What Ctrl+Z in that tab would take back; nothing at the beginning of the line or within a gesture.
  std::optional<Plan> planBack(Id tab, const Quilt& now) const;
  // What Ctrl+Shift+Z in that tab would lay back.
  std::optional<Plan> planForth(Id tab, const Quilt& now) const;
  // What returning the whole quilt to just after step `number` takes back; 0 is before the first step.
  Plan planReturn(std::uint64_t number) const;

  // Carries a plan out. `now` is the present quilt; `tab` is where it was asked for. On an Error — a spilled step that
  // cannot be read — nothing is changed.
  Result<Outcome> takeBack(const Plan& plan, Id tab, const Quilt& now);
  Result<Outcome> layBack(const Plan& plan, const Quilt& now);

  // A step to be packed now; nothing where every old step is packed, or cannot be.
  struct Packing {
    std::uint64_t step = 0;
    std::vector<PartChange> changes;
    bool spills = false;  // memory holds enough already
  };
  std::optional<Packing> toPack(std::size_t fresh = kFreshSteps, std::size_t most = kMostPackedBytes) const;
  // Packs the maps of a step, and spills them where asked to. What cannot be packed or spilled stays as it is.
  static Packing pack(Packing packing, const std::shared_ptr<Spill>& spill);
  // Ignored where the step is gone meanwhile.
  void putPacked(Packing packed);

  // The steps that are in force, oldest first.
  const std::vector<Step>& steps() const { return line_; }
  // What was taken back, the last one last.
  const std::vector<Group>& takenBack() const { return takenBack_; }

 private:
  Step* find(std::uint64_t number);

  static bool shareAPart(const Step& a, const Step& b);
  static bool uses(const Step& user, const Step& maker, const Quilt& now);
  static bool needs(const Group& group, const Group& other, const Quilt& now);
  void dropGroupsAgainst(const Step& step, const Quilt& now);

  struct Gesture {
    Step step;
    Quilt before;
  };
  std::optional<Gesture> gesture_;
  std::vector<Step> line_;
  std::vector<Group> takenBack_;
  std::uint64_t lastNumber_ = 0;
  std::uint64_t lastGroup_ = 0;
  std::uint64_t lastPacked_ = 0;  // no step up to this one is to be packed any more
  std::size_t packedBytes_ = 0;   // of all steps, in memory
};

}  // namespace uq
