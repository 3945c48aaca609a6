#include "core/work/EdgeDrag.h"

#include "core/edit/MapFacts.h"

namespace uq {

bool EdgeDrag::take(const HeldEdge& edge, CellPos at) {
  held_ = false;
  if (!work_.map() || !edge.any()) return false;
  if (!work_.begin("Resize " + work_.map()->name, Gesture::changing(work_.quilt()))) return false;
  held_ = true;
  began_ = work_.gesturesBegun();
  edge_ = edge;
  from_ = at;
  way_ = {};
  count_.emplace(*work_.map());
  cut_ = broughtBack_ = 0;
  selected_ = work_.desk().selection();
  outside_.clear();
  grows_ = false;
  refusal_.clear();
  return true;
}

void EdgeDrag::dragTo(CellPos at, bool screens, bool bothSides) {
  if (!isHeld()) return;
  const Quilt& before = work_.gesture()->before();
  way_ = {at.x - from_.x, at.y - from_.y, bothSides, {}};
  if (screens) way_.screen = screenOf(before, *before.map(work_.desk().map));
  show();
}

void EdgeDrag::setRoom(NewRoom room) {
  Desk desk = work_.desk();
  desk.newRoom = room;
  work_.setDesk(std::move(desk));
  if (isHeld()) show();
}

void EdgeDrag::show() {
  const Quilt& before = work_.gesture()->before();
  const Map& map = *before.map(work_.desk().map);
  const CellRect to = dragged(map, edge_, way_);
  refusal_ = whyNoBounds(map, to, room());
  if (!refusal_.empty()) return;
  grows_ = to.count() > to.intersected(map.bounds).count();
  cut_ = count_->cutBy(to);
  broughtBack_ = count_->broughtBackBy(to);
  outside_ = leftOutside(map, to, selected_);
  work_.gesture()->become(withBounds(before, map.id, to, room()));
  work_.show();
}

void EdgeDrag::leave() {
  if (isHeld()) (void)work_.finish();
  held_ = false;
  count_.reset();
}

}  // namespace uq
