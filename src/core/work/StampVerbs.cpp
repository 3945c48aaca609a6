#include "core/work/StampVerbs.h"

#include "core/edit/ArrangeStamps.h"
#include "core/edit/Selected.h"
#include "core/work/HandVerbs.h"

namespace uq {

std::optional<InHand> StampVerbs::selected() const {
  Desk asked = work_.desk();
  asked.options.allLayers = true;
  asked.locked.clear();
  const LayerAt active = asked.activeAt();
  const auto copy = copyOf(work_.quilt(), layersOfVerb(asked, work_.quilt()), active, asked.selection());
  if (!copy || copy->empty()) {
    work_.refuse(copy ? "Nothing is painted in the selection" : "More than a million cells cannot be held at once");
    return std::nullopt;
  }
  InHand thing = *copy;
  if (thing.role.empty() && work_.quilt().layer(active)) thing.role = work_.quilt().layer(active)->role;
  return thing;
}

void StampVerbs::keepSelected() {
  const Desk& desk = work_.desk();
  if (const auto laid = laidOn(work_.quilt(), desk.map, desk.selectedStamp, desk.selection())) {
    return work_.refuse(work_.quilt().stamp(laid->stamp)->name + " is kept already");
  }
  const auto thing = selected();
  if (!thing) return;
  const LayerAt active = work_.desk().activeAt();
  const StampKept kept = keepStamp(work_.quilt(), *thing, {}, work_.ids());
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
    hand.role = roleOf(work_.quilt(), work_.desk().map, hand, work_.covers());
  }
  const StampKept kept = keepStamp(work_.quilt(), hand, {}, work_.ids());
  if (kept.stamp.empty()) return;
  const std::string name = "Keep " + kept.quilt.stamp(kept.stamp)->name;
  if (work_.make({name, kept.quilt, work_.desk().activeAt()})) {
    HandVerbs(work_).change(work_.quilt().stamp(kept.stamp)->held);
  }
}

std::optional<InHand> StampVerbs::correction() const {
  if (work_.desk().tool == Tool::select && !work_.desk().selection().empty()) return selected();
  if (!work_.desk().inHand.empty()) return work_.desk().inHand;
  work_.refuse("Nothing is in hand");
  return std::nullopt;
}

std::vector<LaidStamp> StampVerbs::places(Id id, Places which) const {
  const Stamp* stamp = work_.quilt().stamp(id);
  if (!stamp || which == Places::none) return {};
  std::vector<LaidStamp> places = placesOf(work_.quilt(), *stamp);
  if (which == Places::here) std::erase_if(places, [&](const LaidStamp& one) { return one.map != work_.desk().map; });
  return places;
}

void StampVerbs::correct(Id id, Places which) {
  const Stamp* stamp = work_.quilt().stamp(id);
  const auto now = stamp && !work_.gesture() ? correction() : std::nullopt;
  if (!now) return;
  const std::string name = "Correct " + stamp->name;
  Quilt after = work_.quilt();
  // A stretch or a mix lies otherwise each time.
  if (now->manner == Manner::asItIs) after = relaid(after, places(id, which), stamp->held, *now, work_.idSeed());
  after = correctStamp(after, id, *now);
  const bool isHeld = *now == work_.desk().inHand || work_.desk().inHand.stamp == id;
  if (work_.make({name, std::move(after), work_.desk().activeAt()}) && isHeld) {
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
