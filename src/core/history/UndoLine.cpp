#include "core/history/UndoLine.h"

#include <algorithm>
#include <cassert>

namespace uq {

namespace {

template <class Part>
void compareParts(const std::vector<Shared<Part>>& before, const std::vector<Shared<Part>>& after,
                  std::vector<PartChange>& changes) {
  const auto find = [](const std::vector<Shared<Part>>& parts, Id id) -> const Shared<Part>* {
    for (const auto& part : parts) {
      if (part->id == id) return &part;
    }
    return nullptr;
  };
  for (const auto& old : before) {
    const Shared<Part>* now = find(after, old->id);
    if (!now) {
      changes.push_back({PartKey::of<Part>(old->id), old, std::monostate{}});
    } else if (!old->revision.is((*now)->revision) && !(old == *now)) {
      changes.push_back({PartKey::of<Part>(old->id), old, *now});
    }
  }
  for (const auto& now : after) {
    if (!find(before, now->id)) changes.push_back({PartKey::of<Part>(now->id), std::monostate{}, now});
  }
}

Quilt withPart(const Quilt& quilt, const PartChange& change, const PartValue& value) {
  const auto put = [&](const auto& part) {
    if constexpr (std::is_same_v<std::decay_t<decltype(part)>, std::monostate>) {
      Quilt less = quilt;
      PartKinds::forEach([&]<class Part>() {
        if (change.key == PartKey::of<Part>(change.key.id)) less = less.without<Part>(change.key.id);
      });
      return less;
    } else {
      return quilt.restoring(part);
    }
  };
  return std::visit(put, value);
}

// The value of a part on the other side of a change, where `now` is the quilt on this side.
Result<PartValue> otherSide(const PartChange& change, const Quilt& now, bool back) {
  if (!change.packed) return back ? change.before : change.after;
  const Map& map = *now.map(change.key.id);
  auto other = back ? change.packed->before(map) : change.packed->after(map);
  if (!other) return fail(other.error());
  return PartValue(Shared(std::move(*other)));
}

Result<Quilt> across(Quilt quilt, const Step& step, bool back) {
  for (const PartChange& change : step.changes) {
    const auto value = otherSide(change, quilt, back);
    if (!value) return fail(value.error());
    quilt = withPart(quilt, change, *value);
  }
  return quilt;
}

bool paintsWith(const Map& map, SheetSlot slot) {
  for (const Shared<Layer>& layer : map.layers) {
    bool found = false;
    layer->cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
      found = found || chunk.any([slot](Cell cell) { return cell.tile().slot == slot; });
    });
    if (found) return true;
  }
  return false;
}

}  // namespace

std::vector<PartChange> changesBetween(const Quilt& before, const Quilt& after) {
  std::vector<PartChange> changes;
  const auto& oldFacts = before.sharedFacts();
  const auto& newFacts = after.sharedFacts();
  if (!oldFacts.sameAs(newFacts) && !(oldFacts == newFacts)) changes.push_back({{}, oldFacts, newFacts});
  PartKinds::forEach([&]<class Part>() { compareParts(before.all<Part>(), after.all<Part>(), changes); });
  return changes;
}

bool Step::touches(const PartKey& key) const {
  return std::any_of(changes.begin(), changes.end(), [&](const PartChange& c) { return c.key == key; });
}

std::size_t Step::packedBytes() const {
  std::size_t bytes = 0;
  for (const PartChange& change : changes) bytes += change.packed ? change.packed->size() : 0;
  return bytes;
}

bool UndoLine::shareAPart(const Step& a, const Step& b) {
  return std::any_of(a.changes.begin(), a.changes.end(), [&](const PartChange& c) { return b.touches(c.key); });
}

bool UndoLine::uses(const Step& user, const Step& maker, const Quilt& now) {
  for (const PartChange& made : maker.changes) {
    const bool isNewSheet =
        std::holds_alternative<Shared<Sheet>>(made.after) && std::holds_alternative<std::monostate>(made.before);
    const auto slot = isNewSheet ? now.slots().find(made.key.id) : std::nullopt;
    if (!slot) continue;
    for (const PartChange& change : user.changes) {
      const auto* map = std::get_if<Shared<Map>>(&change.after);
      if (map && paintsWith(map->read(), *slot)) return true;
      if (change.packed && change.packed->lays(*slot)) return true;
    }
  }
  return false;
}

bool UndoLine::needs(const Group& group, const Group& other, const Quilt& now) {
  for (const Step& step : group.steps) {
    for (const Step& earlier : other.steps) {
      if (shareAPart(step, earlier) || uses(step, earlier, now)) return true;
    }
  }
  return false;
}

void UndoLine::comeBack(std::vector<Step> steps, std::vector<Group> takenBack) {
  assert(line_.empty() && takenBack_.empty());
  line_ = std::move(steps);
  takenBack_ = std::move(takenBack);
  const auto count = [this](const Step& step) {
    lastNumber_ = std::max(lastNumber_, step.number);
    packedBytes_ += step.packedBytes();
  };
  for (const Step& step : line_) {
    count(step);
    const auto isPacked = [](const PartChange& change) { return change.packed != nullptr; };
    if (std::any_of(step.changes.begin(), step.changes.end(), isPacked)) lastPacked_ = std::max(lastPacked_, step.number);
  }
  for (Group& group : takenBack_) {
    group.number = ++lastGroup_;
    std::for_each(group.steps.begin(), group.steps.end(), count);
  }
}

void UndoLine::begin(std::string name, Id tab, const Quilt& before, DeskMark desk) {
  assert(!gesture_);
  Step step;
  step.name = std::move(name);
  step.tab = tab;
  step.deskBefore = std::move(desk);
  gesture_ = Gesture{std::move(step), before};
}

void UndoLine::rename(std::string name) {
  assert(gesture_);
  gesture_->step.name = std::move(name);
}

bool UndoLine::commit(const Quilt& after, DeskMark desk, bool across) {
  assert(gesture_);
  Gesture gesture = std::move(*gesture_);
  gesture_.reset();
  Step& step = gesture.step;
  step.changes = changesBetween(gesture.before, after);
  if (step.changes.empty()) return false;
  step.number = ++lastNumber_;
  step.across = across;
  if (!desk.selection) step.deskBefore.selection.reset();
  step.deskAfter = std::move(desk);
  dropGroupsAgainst(step, after);
  line_.push_back(std::move(step));
  return true;
}

Quilt UndoLine::cancel() {
  assert(gesture_);
  Quilt before = std::move(gesture_->before);
  gesture_.reset();
  return before;
}

void UndoLine::dropGroupsAgainst(const Step& step, const Quilt& now) {
  // From the last group taken back to the first: a group needs those taken back after it.
  std::vector<Group> kept;
  std::vector<Group> dropped;
  for (auto group = takenBack_.rbegin(); group != takenBack_.rend(); ++group) {
    const bool against =
        group->tab == step.tab ||
        std::any_of(group->steps.begin(), group->steps.end(), [&](const Step& s) { return shareAPart(s, step); });
    const bool orphaned =
        std::any_of(dropped.begin(), dropped.end(), [&](const Group& d) { return needs(*group, d, now); });
    (against || orphaned ? dropped : kept).push_back(std::move(*group));
  }
  for (const Group& group : dropped) {
    for (const Step& gone : group.steps) packedBytes_ -= gone.packedBytes();
  }
  takenBack_.assign(std::make_move_iterator(kept.rbegin()), std::make_move_iterator(kept.rend()));
}

std::optional<UndoLine::Plan> UndoLine::planBack(Id tab, const Quilt& now) const {
  if (gesture_) return std::nullopt;
  const PartKey tabMap = PartKey::of<Map>(tab);
  const auto newest = std::find_if(line_.rbegin(), line_.rend(), [&](const Step& step) {
    return tab.empty() || step.tab == tab || step.touches(tabMap);
  });
  if (newest == line_.rend()) return std::nullopt;

  std::vector<const Step*> together{&*newest};
  for (auto step = newest.base(); step != line_.end(); ++step) {
    const bool follows = std::any_of(together.begin(), together.end(), [&](const Step* earlier) {
      return shareAPart(*step, *earlier) || uses(*step, *earlier, now);
    });
    if (follows) together.push_back(&*step);
  }
  Plan plan;
  for (const Step* step : together) {
    plan.steps.push_back(step->number);
    plan.names.push_back(step->name);
    // What was done in this tab may change other maps: whoever did it here knows.
    if (tab.empty() || step->tab == tab || step->across) continue;
    for (const PartChange& change : step->changes) {
      const bool isOther = change.key == PartKey::of<Map>(change.key.id) && change.key.id != tab;
      if (isOther) plan.reachesFarther = true;
    }
  }
  if (plan.steps.size() > 1) plan.reachesFarther = true;
  return plan;
}

std::optional<UndoLine::Plan> UndoLine::planForth(Id tab, const Quilt& now) const {
  if (gesture_) return std::nullopt;
  const PartKey tabMap = PartKey::of<Map>(tab);
  const auto wanted = std::find_if(takenBack_.rbegin(), takenBack_.rend(), [&](const Group& group) {
    return tab.empty() || group.tab == tab ||
           std::any_of(group.steps.begin(), group.steps.end(), [&](const Step& s) { return s.touches(tabMap); });
  });
  if (wanted == takenBack_.rend()) return std::nullopt;

  // Groups taken back after it that it needs come first; they are older work.
  std::vector<const Group*> together{&*wanted};
  for (auto group = wanted.base(); group != takenBack_.end(); ++group) {
    const bool needed =
        std::any_of(together.begin(), together.end(), [&](const Group* g) { return needs(*g, *group, now); });
    if (needed) together.push_back(&*group);
  }
  Plan plan;
  plan.reachesFarther = together.size() > 1;
  for (auto group = together.rbegin(); group != together.rend(); ++group) {
    for (const Step& step : (*group)->steps) {
      plan.steps.push_back(step.number);
      plan.names.push_back(step.name);
    }
  }
  return plan;
}

UndoLine::Plan UndoLine::planReturn(std::uint64_t number) const {
  Plan plan;
  const auto kept = std::find_if(line_.begin(), line_.end(), [&](const Step& s) { return s.number == number; });
  for (auto step = kept == line_.end() ? line_.begin() : kept + 1; step != line_.end(); ++step) {
    plan.steps.push_back(step->number);
    plan.names.push_back(step->name);
  }
  plan.reachesFarther = plan.steps.size() > 1;
  return plan;
}

Step* UndoLine::find(std::uint64_t number) {
  const auto isIt = [number](const Step& step) { return step.number == number; };
  if (const auto step = std::find_if(line_.begin(), line_.end(), isIt); step != line_.end()) return &*step;
  for (Group& group : takenBack_) {
    const auto step = std::find_if(group.steps.begin(), group.steps.end(), isIt);
    if (step != group.steps.end()) return &*step;
  }
  return nullptr;
}

Result<UndoLine::Outcome> UndoLine::takeBack(const Plan& plan, Id tab, const Quilt& now) {
  assert(!gesture_ && !plan.steps.empty());
  Outcome outcome{now, {}};
  for (auto number = plan.steps.rbegin(); number != plan.steps.rend(); ++number) {
    const Step& step = *find(*number);
    auto quilt = across(std::move(outcome.quilt), step, true);
    if (!quilt) return fail(quilt.error());
    outcome = {std::move(*quilt), step.deskBefore};
  }
  Group group{tab, {}, ++lastGroup_};
  for (const std::uint64_t number : plan.steps) {
    const auto step = std::find_if(line_.begin(), line_.end(), [&](const Step& s) { return s.number == number; });
    group.steps.push_back(std::move(*step));
    line_.erase(step);
  }
  takenBack_.push_back(std::move(group));
  return outcome;
}

Result<UndoLine::Outcome> UndoLine::layBack(const Plan& plan, const Quilt& now) {
  assert(!gesture_ && !plan.steps.empty());
  Outcome outcome{now, {}};
  for (const std::uint64_t number : plan.steps) {
    const Step& step = *find(number);
    auto quilt = across(std::move(outcome.quilt), step, false);
    if (!quilt) return fail(quilt.error());
    outcome = {std::move(*quilt), step.deskAfter};
  }
  for (const std::uint64_t number : plan.steps) {
    for (Group& group : takenBack_) {
      const auto step =
          std::find_if(group.steps.begin(), group.steps.end(), [&](const Step& s) { return s.number == number; });
      if (step == group.steps.end()) continue;
      line_.push_back(std::move(*step));
      group.steps.erase(step);
      break;
    }
  }
  std::erase_if(takenBack_, [](const Group& group) { return group.steps.empty(); });
  return outcome;
}

std::optional<UndoLine::Packing> UndoLine::toPack(std::size_t fresh, std::size_t most) const {
  if (line_.size() <= fresh) return std::nullopt;
  const auto end = line_.end() - static_cast<std::ptrdiff_t>(fresh);
  const auto step = std::find_if(line_.begin(), end, [this](const Step& s) { return s.number > lastPacked_; });
  if (step == end) return std::nullopt;
  return Packing{step->number, step->changes, packedBytes_ > most};
}

UndoLine::Packing UndoLine::pack(Packing packing, const std::shared_ptr<Spill>& spill) {
  for (PartChange& change : packing.changes) {
    const auto* before = std::get_if<Shared<Map>>(&change.before);
    const auto* after = std::get_if<Shared<Map>>(&change.after);
    if (!before || !after) continue;
    auto packed = PackedMap::of(before->read(), after->read());
    if (!packed) continue;
    // What cannot be spilled stays in memory.
    if (packing.spills && spill) (void)packed->spill(spill);
    change = {change.key, {}, {}, std::make_shared<const PackedMap>(std::move(*packed))};
  }
  return packing;
}

void UndoLine::putPacked(Packing packed) {
  lastPacked_ = std::max(lastPacked_, packed.step);
  Step* step = find(packed.step);
  if (!step) return;
  step->changes = std::move(packed.changes);
  packedBytes_ += step->packedBytes();
}

}  // namespace uq
