#include "core/work/Work.h"

#include <cassert>

namespace uq {

Work::Work(Quilt quilt, Desk desk, Damage damage)
    : quilt_(std::move(quilt)), desk_(validDesk(std::move(desk), quilt_)), damage_(std::move(damage)) {}

StepRules Work::rules() const { return {damage_, desk_.locked}; }

bool Work::setDesk(Desk desk) {
  desk = validDesk(std::move(desk), quilt_);
  if (desk == desk_) return false;
  // A lift is for the work at hand: forgotten on another layer, it would put what is laid there in the air.
  if (!(desk.landing() == desk_.landing()) && desk.lift == desk_.lift) desk.lift = 0;
  desk_ = std::move(desk);
  return true;
}

Result<bool> Work::make(Made made) {
  if (gesture_) {
    return fail(Error{Error::Cause::inUse, "something is still under the hand", {}, 0, "Nothing was changed",
                      "Let go of the button first"});
  }
  if (auto why = whyNoStep(quilt_, made.after, rules())) return fail(std::move(*why));
  undoLine_.begin(std::move(made.name), made.active.map, quilt_, mark());
  Desk desk = desk_;
  desk.map = made.active.map;
  if (!made.active.layer.empty()) desk.activeLayer[desk.map] = made.active.layer;
  if (!(desk.landing() == desk_.landing())) desk.lift = 0;
  if (made.selected) desk.select(std::move(*made.selected));
  const bool isNew = undoLine_.commit(made.after, {made.active, desk.selection()});
  quilt_ = std::move(made.after);
  desk_ = validDesk(std::move(desk), quilt_);
  return isNew;
}

Result<void> Work::begin(std::string name, Gesture gesture) {
  if (gesture_) return fail(Error::Cause::inUse, "something is still under the hand");
  if (const Error* damage = damage_ ? damage_(desk_.map) : nullptr) return fail(*damage);
  undoLine_.begin(std::move(name), desk_.map, quilt_, mark());
  selectedBefore_ = desk_.selection();
  gesture_.emplace(std::move(gesture));
  return {};
}

bool Work::show() {
  assert(gesture_);
  quilt_ = gesture_->quilt();
  Desk desk = desk_;
  if (gesture_->selected()) desk.select(*gesture_->selected());
  return setDesk(std::move(desk));
}

Result<bool> Work::finish(const std::string& name) {
  assert(gesture_);
  gesture_->finish();
  (void)show();
  // The quilt before the step, which a stretch that is fitted anew did not start from.
  if (auto why = whyNoStep(undoLine_.beforeGesture(), quilt_, rules())) {
    drop();
    return fail(std::move(*why));
  }
  gesture_.reset();
  if (!name.empty()) undoLine_.rename(name);
  return undoLine_.commit(quilt_, mark());
}

void Work::drop() {
  assert(gesture_);
  gesture_.reset();
  quilt_ = undoLine_.cancel();
  Desk desk = desk_;
  desk.select(selectedBefore_);
  desk_ = validDesk(std::move(desk), quilt_);
}

void Work::whenFree(std::function<void()> what) { waiting_.push_back(std::move(what)); }

std::function<void()> Work::takeWaiting() {
  if (gesture_ || waiting_.empty()) return {};
  std::function<void()> next = std::move(waiting_.front());
  waiting_.pop_front();
  return next;
}

Result<void> Work::takeBack(const UndoLine::Plan& plan) {
  auto outcome = undoLine_.takeBack(plan, desk_.map, quilt_);
  if (!outcome) return fail(outcome.error());
  follow(std::move(*outcome));
  return {};
}

Result<void> Work::layBack(const UndoLine::Plan& plan) {
  auto outcome = undoLine_.layBack(plan, quilt_);
  if (!outcome) return fail(outcome.error());
  follow(std::move(*outcome));
  return {};
}

void Work::follow(UndoLine::Outcome outcome) {
  const std::size_t maps = quilt_.maps().size();
  Desk desk = desk_;
  // A map that comes back has its tab again.
  for (const auto& map : outcome.quilt.maps()) {
    if (!quilt_.map(map->id)) desk.openMaps.push_back(map->id);
  }
  quilt_ = std::move(outcome.quilt);
  // Where maps came or went, one goes to where the step was made.
  if (maps != quilt_.maps().size() && quilt_.map(outcome.desk.active.map)) desk.map = outcome.desk.active.map;
  if (outcome.desk.active.map == desk.map) {
    desk.activeLayer[desk.map] = outcome.desk.active.layer;
    desk.select(std::move(outcome.desk.selection));
  }
  if (!setDesk(std::move(desk))) desk_ = validDesk(std::move(desk_), quilt_);
}

}  // namespace uq
