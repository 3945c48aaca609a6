#include "core/work/StampVerbs.h"

#include "core/edit/ArrangeStamps.h"
#include "core/edit/Selected.h"
#include "core/work/HandVerbs.h"

namespace uq {

void StampVerbs::keepSelected() {
  Desk asked = work_.desk();
  asked.options.allLayers = true;
  asked.locked.clear();
  const LayerAt active = asked.activeAt();
  const auto copy = copyOf(work_.quilt(), layersOfVerb(asked, work_.quilt()), active, asked.selection());
  if (!copy) return work_.refuse("More than a million cells cannot be held at once");
  if (copy->empty()) return work_.refuse("Nothing is painted in the selection");
  InHand thing = *copy;
  if (thing.role.empty() && work_.quilt().layer(active)) thing.role = work_.quilt().layer(active)->role;
  const StampKept kept = keepStamp(work_.quilt(), thing, {}, work_.ids());
  if (kept.stamp.empty()) return;
  (void)work_.make({"Keep " + kept.quilt.stamp(kept.stamp)->name, kept.quilt, active});
}

void StampVerbs::keep() {
  if (work_.desk().tool == Tool::select && !work_.desk().selection().empty()) return keepSelected();
  InHand hand = work_.desk().inHand;
  const Stamp* own = work_.quilt().stamp(hand.stamp);
  if (own && own->held == hand) return work_.refuse(own->name + " is kept already");
  // So that it comes down where it lay: on a layer of this role.
  if (hand.role.empty() && work_.quilt().layer(work_.desk().activeAt())) {
    hand.role = roleOf(work_.quilt(), hand, work_.covers());
  }
  const StampKept kept = keepStamp(work_.quilt(), hand, {}, work_.ids());
  if (kept.stamp.empty()) return;
  const std::string name = "Keep " + kept.quilt.stamp(kept.stamp)->name;
  if (work_.make({name, kept.quilt, work_.desk().activeAt()})) {
    HandVerbs(work_).change(work_.quilt().stamp(kept.stamp)->held);
  }
}

void StampVerbs::correct(Id id) {
  const Stamp* stamp = work_.quilt().stamp(id);
  if (!stamp) return;
  const std::string name = "Correct " + stamp->name;
  if (work_.make({name, correctStamp(work_.quilt(), id, work_.desk().inHand), work_.desk().activeAt()})) {
    HandVerbs(work_).change(work_.quilt().stamp(id)->held);
  }
}

void StampVerbs::rename(Id id, const std::string& name) {
  const Stamp* stamp = work_.quilt().stamp(id);
  if (stamp) work_.step("Rename " + stamp->name, renameStamp(work_.quilt(), id, name));
}

void StampVerbs::remove(Id id) {
  const Stamp* stamp = work_.quilt().stamp(id);
  if (stamp) work_.step("Delete " + stamp->name, deleteStamp(work_.quilt(), id));
}

void StampVerbs::move(Id id, Id before) {
  const Stamp* stamp = work_.quilt().stamp(id);
  if (stamp) work_.step("Move " + stamp->name, movedOnShelf(work_.quilt(), id, before));
}

}  // namespace uq
