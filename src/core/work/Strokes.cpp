#include "core/work/Strokes.h"

#include "core/edit/FindStretch.h"
#include "core/edit/MapFacts.h"
#include "core/edit/Selected.h"
#include "core/work/EditList.h"
#include "core/work/StepNames.h"

namespace uq {

namespace {

constexpr std::int64_t kMostLaidAtOnce = 200'000;  // cells of a shape that are laid while it is dragged
constexpr std::int64_t kMostTriedOut = 20'000;     // and before it is pressed

// Whether the tool of a desk grows with the way of the hand, other than a shape.
bool goesByPath(const Desk& desk) {
  const bool stretches = desk.inHand.manner == Manner::stretch;
  return (desk.tool == Tool::brush && !stretches) || desk.tool == Tool::erase;
}

// A stroke that was made, made again.
Stroke along(const Quilt& before, StrokePlan plan, const Gesture::Moves& moves) {
  Stroke stroke(before, std::move(plan));
  for (const StrokeMove& move : moves) stroke.follow(move);
  return stroke;
}

}  // namespace

std::string whyNoStroke(const Work& work, bool takesAway, std::optional<Tool> tool) {
  if (const Error* damage = work.damage(work.desk().map)) {
    if (work.coming().contains(work.desk().map)) return "This map is still being read";
    if (damage->cause == Error::Cause::inUse) return damage->reason;
    const std::string file = damage->file.substr(damage->file.rfind('/') + 1);
    return "This map cannot be changed: " + file + " is damaged";
  }
  if (!tool) return whyNoStroke(work.desk(), work.quilt(), takesAway);
  Desk asked = work.desk();
  asked.tool = *tool;
  return whyNoStroke(asked, work.quilt(), takesAway);
}

bool takesChange(const Work& work, std::span<const LayerAt> layers) {
  std::string why = layers.empty() ? "Every layer is hidden or locked" : "";
  for (const LayerAt at : layers) {
    Desk asked = work.desk();
    asked.activeLayer[at.map] = at.layer;
    if (why.empty()) why = whyNoStroke(asked, work.quilt(), true);
  }
  if (why.empty() && work.damage(work.desk().map)) why = whyNoStroke(work, true);
  if (!why.empty()) work.refuse(why);
  return why.empty();
}

std::string Strokes::named(std::string_view verb) const { return verbName(work_.desk(), work_.quilt(), verb); }

StrokePlan Strokes::planned(const Ask& ask) {
  StrokePlan plan = planOf(work_.desk(), work_.quilt(), ask.takesAway);
  if (ask.tool) plan.tool = *ask.tool;
  plan.seed = work_.seed();
  plan.ids = work_.idSeed();
  plan.everywhere = ask.everywhere;
  plan.covers = work_.covers();
  plan.given = ask.given;
  for (const Shared<Map>& map : work_.quilt().maps()) {
    const Error* damage = work_.quilt().seams().empty() ? nullptr : work_.damage(map->id);
    if (damage) plan.unchangeable[map->id] = work_.coming().contains(map->id) ? "it is still being read" : "it was not read whole";
  }
  if (!ask.within.empty()) plan.within = plan.within.empty() ? ask.within : plan.within.intersected(ask.within);
  return plan;
}

Strokes::Ask Strokes::askAt(CellPos cell, bool takesAway, bool even, int corner) const {
  Ask ask;
  ask.takesAway = takesAway;
  ask.path = {cell};
  ask.corner = corner;
  if (!even) return ask;
  const bool fills = work_.desk().tool == Tool::fill;
  if (!goesByPath(work_.desk())) {
    ask.everywhere = fills;
    ask.even = !fills;
  } else if (const auto last = work_.lastPoint()) {
    ask.path = {*last, cell};
  }
  return ask;
}

Strokes::Ask Strokes::askOver(const CellSet& cells, CellPos from, CellPos to, bool takesAway, bool even) const {
  Ask ask;
  ask.takesAway = takesAway;
  if (!goesByPath(work_.desk())) {
    ask.path = from == to ? std::vector{from} : std::vector{from, to};
    ask.everywhere = work_.desk().tool == Tool::fill && even;
    return ask;
  }
  if (cells.count() == 1) {
    ask.path = {from};
    return ask;
  }
  // Forth along one row and back along the next, so that the stroke covers the box.
  const CellRect box = cells.bounds();
  ask.within = cells;
  for (int y = box.y0; y < box.y1; ++y) {
    const bool forth = (y - box.y0) % 2 == 0;
    ask.path.push_back({forth ? box.x0 : box.x1 - 1, y});
    ask.path.push_back({forth ? box.x1 - 1 : box.x0, y});
  }
  return ask;
}

Stroke Strokes::tryOut(const Ask& ask) {
  StrokePlan plan = planned(ask);
  plan.mostLaid = kMostTriedOut;
  Stroke stroke(work_.quilt(), std::move(plan));
  for (const CellPos cell : ask.path) stroke.follow({cell, ask.even, ask.corner});
  return stroke;
}

void Strokes::begin(const Ask& ask) {
  if (underWay() || ask.path.empty() || !whyNoStroke(work_, ask.takesAway, ask.tool).empty()) return;
  if (!work_.desk().leads.empty()) {
    Desk desk = work_.desk();
    desk.leads.clear();
    work_.setDesk(std::move(desk));
  }
  StrokePlan plan = planned(ask);
  const bool outside = !ask.within.empty() && plan.within.empty();
  if (outside) return;
  plan.mostLaid = kMostLaidAtOnce;
  const std::string name =
      strokeName(work_.desk(), work_.quilt(), ask.tool.value_or(work_.desk().tool), ask.takesAway);
  const bool joins = plan.hand.joins();
  const bool lays = !plan.takesAway && plan.tool != Tool::erase;
  const Id layer = work_.desk().activeAt().layer;
  if (lays && joins != work_.desk().joined.contains(layer)) {
    Desk desk = work_.desk();
    if (joins) desk.joined.insert(layer);
    else desk.joined.erase(layer);
    work_.setDesk(std::move(desk));
  }
  if (!work_.begin(name, Gesture::painting(Stroke(work_.quilt(), std::move(plan))))) return;
  for (const CellPos cell : ask.path) moveTo(cell, ask.even, ask.corner);
}

void Strokes::moveTo(CellPos to, bool even, int corner) {
  if (!stroke()) return;
  work_.gesture()->follow({to, even, corner});
  work_.show();
}

std::optional<Strokes::Repeated> Strokes::last() const {
  const Work::LastStroke* last = work_.lastStroke();
  if (!last || !last->plan.given.empty()) return std::nullopt;
  return Repeated{last->before, editList({stepOf(last->before, last->plan, last->moves, last->box)})};
}

std::string Strokes::whyNoThrow() const {
  if (!work_.desk().selection().empty()) return {};
  const Work::LastStroke* last = work_.lastStroke();
  if (!last) return "Nothing was just laid that could come out otherwise";
  return last->plan.hand.byChance() && !last->plan.takesAway ? "" : "Chance decided nothing in the last stroke";
}

void Strokes::throwAgain() {
  if (underWay()) return;
  work_.nextChance();
  const Desk& desk = work_.desk();
  if (!desk.selection().empty()) {
    const std::vector<LayerAt> layers = layersOfVerb(desk, work_.quilt());
    if (!takesChange(work_, layers)) return;
    Quilt after = work_.quilt();
    for (const LayerAt at : layers) after = thrownAgain(after, at, desk.selection(), desk.inHand, work_.seed());
    if (after == work_.quilt()) {
      return work_.refuse("No tile of a mix is selected: gather look-alikes first, or press R for turns");
    }
    return work_.step(named("Throw again"), std::move(after));
  }
  if (const std::string why = whyNoThrow(); !why.empty()) return work_.refuse(why);
  Work::LastStroke last = *work_.lastStroke();
  last.plan.seed = work_.seed();
  Stroke stroke = along(last.before, last.plan, last.moves);
  if (last.box) stroke.refit(*last.box);
  stroke.finish();
  work_.setLastStroke({});
  if (!work_.make({named("Throw again"), stroke.quilt(), desk.activeAt(), {}, {}, stroke.mapsLaidOn().size() > 1})) return;
  last.after = work_.quilt();
  work_.setLastStroke(std::move(last));
}

void Strokes::letGrow() {
  if (underWay() || !work_.map()) return;
  Quilt after = withGrowing(work_.quilt(), work_.map()->id, true);
  if (const Work::LastStroke* last = work_.lastStroke()) {
    Stroke stroke = along(after, last->plan, last->moves);
    if (last->box) stroke.refit(*last->box);
    stroke.finish();
    after = stroke.quilt();
  }
  work_.step("Let " + work_.map()->name + " grow as it is painted", std::move(after));
}

std::optional<CellRect> Strokes::stretchBox() const {
  if (const Stroke* under = stroke()) return under->stretchBox();
  const Work::LastStroke* last = work_.lastStroke();
  return last ? last->box : std::nullopt;
}

const InHand* Strokes::stretchLaid() const {
  if (const Stroke* under = stroke()) return under->stretchBox() ? &under->plan().hand : nullptr;
  const Work::LastStroke* last = work_.lastStroke();
  return last && last->box ? &last->plan.hand : nullptr;
}

void Strokes::beginRefit() {
  const Work::LastStroke* last = work_.lastStroke();
  if (underWay() || !last || !last->box) return;
  (void)work_.begin(named("Stretch"), Gesture::painting(along(last->before, last->plan, last->moves), last->moves));
}

void Strokes::refit(CellRect box) {
  if (!stroke()) return;
  work_.gesture()->refit(box);
  if (stroke()->refusal().empty()) work_.show();
}

void Strokes::stepLookAlike(StretchPart part, int steps) {
  const auto box = stretchBox();
  const InHand* laid = stretchLaid();
  if (!box || !laid) return;
  const InHand next = withLookAlike(work_.quilt(), *laid, part, steps);
  if (next == *laid) {
    return work_.refuse("No kept mix has look-alikes of this part: gather them and keep them with K");
  }
  const auto laidAnew = [&](const Quilt& before, StrokePlan plan, const Gesture::Moves& moves) {
    plan.hand = next;
    Stroke stroke = along(before, std::move(plan), moves);
    if (stroke.stretchBox() != box) stroke.refit(*box);
    return stroke;
  };
  if (const Stroke* under = stroke()) {
    work_.gesture()->relay(laidAnew(under->before(), under->plan(), work_.gesture()->moves()));
    return work_.show();
  }
  Work::LastStroke last = *work_.lastStroke();
  const Stroke stroke = laidAnew(last.before, last.plan, last.moves);
  last.plan = stroke.plan();
  work_.setLastStroke({});
  if (!work_.make({named("Another look"), stroke.quilt(), work_.desk().activeAt(), {}, {}, stroke.mapsLaidOn().size() > 1})) return;
  last.after = work_.quilt();
  work_.setLastStroke(std::move(last));
}

bool Strokes::recogniseStretch(CellPos at) {
  if (!work_.map() || underWay()) return false;
  const LayerAt landing = work_.desk().activeAt();
  // What was held is remembered from one day to the next.
  std::vector<InHand> hands{work_.desk().inHand};
  hands.insert(hands.end(), work_.desk().held.begin(), work_.desk().held.end());
  const auto found = findStretch(work_.quilt(), landing, at, hands);
  if (!found) return false;
  const auto grid = makeGrid(work_.map()->grid);
  const CellRect& box = found->box;
  const CellPos from = grid->fromSide({box.x0, box.y0});
  const CellPos to = grid->fromSide({box.x1 - 1, box.y1 - 1});
  Work::LastStroke last;
  last.before = clearCells(work_.quilt(), landing, boxOf(*grid, from, to, BoxShape::alongTheGrid));
  last.plan = layingOn(landing, found->stretch);
  last.plan.tool = Tool::box;
  last.plan.seed = work_.seed();
  last.moves = {{from}, {to}};
  last.box = box;
  last.after = work_.quilt();
  work_.setLastStroke(std::move(last));
  return true;
}

}  // namespace uq
