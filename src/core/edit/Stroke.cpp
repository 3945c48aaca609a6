#include "core/edit/Stroke.h"

#include <algorithm>
#include <utility>

#include "core/edit/ResizeMap.h"
#include "core/edit/StrokeWork.h"

namespace uq {

Stroke::Stroke(Quilt before, StrokePlan plan) : work_(std::make_unique<Work>(before, std::move(plan))), before_(std::move(before)) {}
Stroke::~Stroke() = default;
Stroke::Stroke(Stroke&&) noexcept = default;
Stroke& Stroke::operator=(Stroke&&) noexcept = default;

void Stroke::follow(const StrokeMove& move) {
  const Map* map = before_.map(work_->plan_.layer.map);
  if (!map || !map->growsAsPainted) return work_->moveTo(move);
  // A shape is drawn from the first place to the last; what it grew by in between is taken back.
  const bool byPath = work_->goesByPath();
  if (!byPath && moves_.size() > 1) moves_.pop_back();
  moves_.push_back(move);
  if (!byPath && work_->before_.map(map->id)->bounds != map->bounds) {
    work_ = std::make_unique<Work>(before_, work_->plan_);
    for (const StrokeMove& one : moves_) work_->moveTo(one);
  } else {
    work_->moveTo(move);
  }
  grow();
}
void Stroke::finish() { work_->finish(); }
void Stroke::refit(CellRect box) {
  work_->refit(box);
  grow();
}

void Stroke::grow() {
  const Map* map = before_.map(work_->plan_.layer.map);
  if (!map || !map->growsAsPainted) return;
  // What is cut off at the old edge may reach beyond the new one, too.
  while (const auto wanted = work_->beyond()) {
    const Map& now = *work_->before_.map(map->id);
    const CellRect to = work_->besideSewn(grownToHold(before_, now, *wanted));
    if (to == now.bounds) return;
    const auto box = work_->box_;
    auto larger = std::make_unique<Work>(withBounds(work_->before_, map->id, to), work_->plan_);
    for (const StrokeMove& one : moves_) larger->moveTo(one);
    if (box && larger->box_ != box) larger->refit(*box);
    work_ = std::move(larger);
  }
}

std::set<Id> Stroke::mapsLaidOn() const { return work_->mapsLaidOn(); }
Laid Stroke::laidAt(CellPos canvas) const { return work_->laidAt(canvas); }
std::string Stroke::stopsAt() const { return work_->stopsAt(); }
bool Stroke::reachesBeyond() const { return work_->beyond().has_value(); }
const StrokePlan& Stroke::plan() const { return work_->plan_; }
const Quilt& Stroke::before() const { return before_; }
const Quilt& Stroke::quilt() const { return work_->now_; }
const Landing& Stroke::landing() const { return work_->landing_; }
const CellSet& Stroke::cells() const { return work_->cells_; }
const CellSet& Stroke::shape() const { return work_->shape_; }
std::optional<CellRect> Stroke::stretchBox() const { return work_->box_; }
std::int64_t Stroke::kept() const { return work_->keptCells_.count(); }
const std::string& Stroke::refusal() const { return work_->refusal_; }

bool Stroke::mayLayCorners(const Quilt& quilt, Id id, Tool tool, const InHand& hand) {
  const Edging* edging = hand.joins() ? quilt.edging(hand.edging) : nullptr;
  const Map* map = quilt.map(id);
  const bool brushes = tool == Tool::brush || tool == Tool::erase;
  return brushes && map && edging && edging->decides == Decides::corners && areOfOneFamily(edging->grid, map->grid.kind);
}

ToolOptions withWidthStepped(ToolOptions options, int steps, bool hasHalves) {
  const bool wasHalf = hasHalves && std::exchange(options.halfCell, false);
  options.halfCell = hasHalves && steps < 0 && options.width == 1;
  if (!wasHalf) options.width = std::clamp(options.width + 2 * steps, 1, kBroadest);
  return options;
}

StrokePlan planOf(const Desk& desk, const Quilt&, bool takesAway) {
  StrokePlan plan;
  plan.tool = desk.tool;
  plan.options = desk.options;
  plan.box = desk.box;
  plan.takesAway = takesAway || desk.tool == Tool::erase;
  plan.hand = desk.inHand;
  plan.layer = desk.activeAt();
  plan.obeys = desk.obeysLayer;
  plan.within = desk.selection();
  plan.lift = desk.lift;
  plan.shut = desk.hidden;
  plan.shut.insert(desk.locked.begin(), desk.locked.end());
  plan.hidden = desk.hidden;
  return plan;
}

StrokePlan layingOn(LayerAt layer, InHand hand) {
  StrokePlan plan;
  plan.hand = std::move(hand);
  plan.layer = layer;
  plan.obeys = true;
  return plan;
}

StrokePlan takingAway(LayerAt layer, InHand hand) {
  StrokePlan plan = layingOn(layer, std::move(hand));
  plan.takesAway = true;
  return plan;
}

Quilt stroked(const Quilt& before, const StrokePlan& plan, const std::vector<CellPos>& path) {
  Stroke stroke(before, plan);
  for (const CellPos cell : path) stroke.moveTo(cell);
  return stroke.quilt();
}

}  // namespace uq
