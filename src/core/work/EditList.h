// Lists of edits: the same edits without a window, as JSON (docs/edit-lists.md).
//
// A list holds steps that are done one after another; each names a map and a layer, or goes on where the step before
// was. What a step does is what the tool of that name does: the same strokes, landing, chance and refusals. The same
// list on the same quilt gives the same quilt; run again on what it gave, what it makes gets ids of its own. Each step
// passes the door that every step passes (StepCheck.h). A step that cannot be done, or that says something which means
// nothing there, ends the list with an Error that names it; nothing of the list counts then.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/sheets/LooseJoints.h"
#include "core/base/Error.h"
#include "core/base/Json.h"
#include "core/edit/Stroke.h"
#include "core/work/StepCheck.h"
#include "core/work/TileLooks.h"

namespace uq {

inline constexpr std::size_t kMostEdits = 100'000;

struct EditDone {
  std::string what;        // "box on Paving of Depot Yard"
  std::int64_t cells = 0;  // that it laid, took away or changed
};

struct EditsDone {
  Quilt quilt;
  std::vector<EditDone> steps;
};

// What is known by pictures, of which a list has none; each may be missing, and what needs it is then refused.
struct EditLooks {
  TileLooks tiles;
  // What fits beside what, on a grid; lives until the next call.
  std::function<JointBook*(const Quilt&, const GridShape&)> joints;

  EditLooks() = default;
  // Only which tiles cover their cells.
  template <class Covers>
    requires std::is_invocable_r_v<bool, const Covers&, const Quilt&, const GridShape&, TileRef>
  EditLooks(Covers covers) {
    tiles.covers = std::move(covers);
  }
};

// Does a list. `looks`: what pictures tell; `file` is named in errors. The Error's cause is notFound
// where a map, layer or stamp that the list names is not there.
Result<EditsDone> doEdits(const Quilt& quilt, const Json& list, const EditLooks& looks, const std::string& file,
                          const StepRules& rules = {});

// A stroke as a step that repeats it: its plan, and the way of the pointer.
Json stepOf(const Quilt& before, const StrokePlan& plan, const std::vector<StrokeMove>& moves,
            std::optional<CellRect> stretchBox);
// The list of some steps.
Json editList(std::vector<Json> steps);

}  // namespace uq
