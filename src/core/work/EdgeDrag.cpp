#include "core/work/EdgeDrag.h"

#include "core/edit/Board.h"
#include "core/edit/MapFacts.h"
#include "core/edit/Seams.h"
#include "core/work/StepNames.h"

namespace uq {

std::set<Id> EdgeDrag::seamsOf(const std::vector<Along>& along) {
  std::set<Id> seams;
  for (const Along& one : along) seams.insert(one.seam);
  return seams;
}

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
  along_ = along();
  std::set<Id> names;
  for (const Along& one : along_) names.insert(one.map);
  sewnTo_ = mapNames(work_.quilt(), names);
  alone_ = false;
  opened_.clear();
  cut_ = broughtBack_ = 0;
  selected_ = work_.desk().selection();
  outside_.clear();
  grows_ = false;
  refusal_.clear();
  return true;
}

std::vector<EdgeDrag::Along> EdgeDrag::along() const {
  std::vector<Along> found;
  const Quilt& quilt = work_.quilt();
  const SewnMaps sewn(quilt);
  const Map& map = *work_.map();
  for (const Shared<Seam>& seam : quilt.seams()) {
    if (seam->wraps() || !seam->joins(map.id) || !sewn.whyWrong(seam->id).empty()) continue;
    const bool first = seam->map == map.id;
    const Map& other = *quilt.map(first ? seam->other : seam->map);
    const CellPos by = first ? seam->by : CellPos{-seam->by.x, -seam->by.y};
    const CellRect there{other.bounds.x0 + by.x, other.bounds.y0 + by.y, other.bounds.x1 + by.x, other.bounds.y1 + by.y};
    HeldEdge edge;
    edge.left = edge_.right && there.x0 == map.bounds.x1;
    edge.right = edge_.left && there.x1 == map.bounds.x0;
    edge.top = edge_.bottom && there.y0 == map.bounds.y1;
    edge.bottom = edge_.top && there.y1 == map.bounds.y0;
    if (edge.any()) found.push_back({seam->id, other.id, edge, PaintedCount(other)});
  }
  return found;
}

CellRect EdgeDrag::movedAlong(const Along& other, const Map& map, const CellRect& from, const CellRect& to) {
  CellRect bounds = map.bounds;
  if (other.edge.left) bounds.x0 += to.x1 - from.x1;
  if (other.edge.right) bounds.x1 += to.x0 - from.x0;
  if (other.edge.top) bounds.y0 += to.y1 - from.y1;
  if (other.edge.bottom) bounds.y1 += to.y0 - from.y0;
  return bounds;
}

void EdgeDrag::dragTo(CellPos at, bool screens, bool alone) {
  if (!isHeld()) return;
  const Quilt& before = work_.gesture()->before();
  alone_ = alone;
  way_ = {at.x - from_.x, at.y - from_.y, alone && along_.empty(), {}};
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
  Quilt now = before;
  std::int64_t alongCut = 0;
  std::int64_t alongBack = 0;
  for (Along& one : along_) {
    const Map& other = *before.map(one.map);
    const CellRect its = movedAlong(one, other, map.bounds, to);
    if (alone_) continue;
    if (refusal_.empty() && its.empty()) refusal_ = other.name + " would have no cell left: with Ctrl the seam opens instead";
    if (refusal_.empty() && work_.damage(one.map)) refusal_ = other.name + " cannot be changed: with Ctrl the seam opens instead";
    if (refusal_.empty()) refusal_ = whyNoBounds(other, its, room());
    if (!refusal_.empty()) return;
    alongCut += one.count.cutBy(its);
    alongBack += one.count.broughtBackBy(its);
    now = withBounds(now, one.map, its, room());
  }
  if (!refusal_.empty()) return;
  grows_ = to.count() > to.intersected(map.bounds).count();
  cut_ = count_->cutBy(to) + alongCut;
  broughtBack_ = count_->broughtBackBy(to) + alongBack;
  outside_ = leftOutside(map, to, selected_);
  // What is sewn no longer stays where it lies on the Board.
  if (opens()) now = ripped(withPlacesSaid(before), seamsOf(along_));
  SeamsKept kept = withSeamsKept(before, withBounds(now, map.id, to, room()));
  opened_ = std::move(kept.opened);
  work_.gesture()->become(std::move(kept.quilt));
  work_.show();
}

void EdgeDrag::leave() {
  if (isHeld()) (void)work_.finish();
  held_ = false;
  count_.reset();
}

}  // namespace uq
