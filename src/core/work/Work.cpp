#include "core/work/Work.h"

#include <algorithm>
#include <utility>

#include "core/edit/Seams.h"
#include "core/work/StepNames.h"

namespace uq {

namespace {

// Where nobody is to be told.
Work::Listener& nobody() {
  static Work::Listener none;
  return none;
}

}  // namespace

Work::Work(Quilt quilt, Desk desk, Damage damage, TileLooks looks, IdSource ids)
    : quilt_(std::move(quilt)),
      desk_(validDesk(std::move(desk), quilt_)),
      damage_(std::move(damage)),
      looks_(std::move(looks)),
      ids_(std::move(ids)),
      listener_(&nobody()),
      told_(quilt_),
      toldDesk_(desk_) {}

Covers Work::covers() const {
  const Map* here = map();
  if (!here || !looks_.covers) return {};
  return [this, shape = here->grid](TileRef tile) { return looks_.covers(quilt_, shape, tile); };
}

const Error* Work::damage(Id map) const {
  static const Error stillRead{Error::Cause::inUse, "this map is still being read", {}, 0, {}, "Wait a moment"};
  if (onlyLooks_) return &*onlyLooks_;
  if (coming_.contains(map)) return &stillRead;
  return damage_ ? damage_(map) : nullptr;
}

void Work::arrive(Quilt read, std::set<Id> coming) {
  for (const Shared<Map>& map : quilt_.maps()) {
    if (!coming_.contains(map->id)) read = read.restoring(map);
  }
  for (const Shared<Map>& map : std::vector(read.maps())) {
    if (!quilt_.map(map->id)) read = read.without<Map>(map->id);
  }
  quilt_ = std::move(read);
  coming_ = std::move(coming);
  setLastStroke({});  // it was made on less than this
  (void)putDesk(desk_);
  tellOfChanges(true);
}

StepRules Work::rules() const {
  return {[this](Id map) { return damage(map); }, desk_.locked, !coming_.empty(), onlyLooks_ ? &*onlyLooks_ : nullptr};
}

bool Work::putDesk(Desk desk) {
  desk = validDesk(std::move(desk), quilt_);
  if (desk == desk_) return false;
  // A lift is for the work at hand: forgotten on another layer, it would put what is laid there in the air.
  if (!(desk.activeAt() == desk_.activeAt()) && desk.lift == desk_.lift) desk.lift = 0;
  desk_ = std::move(desk);
  return true;
}

void Work::setDesk(Desk desk) {
  if (putDesk(std::move(desk))) tellOfChanges(false);
}

void Work::tellOfDesk() const {
  DeskChange change;
  change.beside = true;
  listener_->deskChanged(change);
}

void Work::tell(Listener& listener) {
  listener_ = &listener;
  told_ = quilt_;
  toldDesk_ = desk_;
}

void Work::tellOfChanges(bool steps) {
  if (listener_ == &nobody()) return;  // a list of edits has no use for what changed
  QuiltChange quilt = changeOf(told_, quilt_);
  quilt.steps = steps;
  const DeskChange desk = changeOf(toldDesk_, desk_);
  told_ = quilt_;
  toldDesk_ = desk_;
  if (!quilt.empty()) listener_->quiltChanged(quilt);
  if (!desk.empty()) listener_->deskChanged(desk);
}

void Work::report(const Error& error) const {
  // What is said at the pointer is short, and names no file.
  const bool atPointer = error.cause == Error::Cause::inUse || error.cause == Error::Cause::notPermitted;
  if (atPointer && error.file.empty()) {
    listener_->refused(error.reason);
  } else {
    listener_->failed(error);
  }
}

namespace {

// Keeps what is sewn together; what comes open is said with the step.
void keepSeams(const Quilt& before, Quilt& after, std::string& name) {
  SeamsKept kept = withSeamsKept(before, after);
  after = std::move(kept.quilt);
  for (std::size_t i = 0; i < kept.opened.size(); ++i) name += (i == 0 ? " (opens " : ", ") + kept.opened[i];
  if (!kept.opened.empty()) name += ")";
}

}  // namespace

Result<bool> Work::make(Made made) {
  keepSeams(quilt_, made.after, made.name);
  std::optional<Error> why;
  if (gesture_) {
    why = Error{Error::Cause::inUse, "something is still under the hand", {}, 0, "Nothing was changed",
                "Let go of the button first"};
  } else {
    why = whyNoStep(quilt_, made.after, rules());
  }
  if (why) {
    report(*why);
    return fail(std::move(*why));
  }
  undoLine_.begin(std::move(made.name), desk_.onBoard ? Id() : made.active.map, quilt_, mark(true));
  Desk desk = desk_;
  desk.map = made.active.map;
  if (!made.active.layer.empty()) desk.activeLayer[desk.map] = made.active.layer;
  if (!(desk.activeAt() == desk_.activeAt())) desk.lift = 0;
  std::optional<CellSet> selected = made.selected;
  if (selected) desk.select(*selected, desk.selectedStamp);
  desk = validDesk(std::move(desk), made.after);
  // Edges that are moved over what is selected leave the rest of it.
  const bool clips = made.active.map == desk_.map && !(desk.selection() == desk_.selection());
  if (clips) selected = desk.selection();
  if (const auto last = lastPoint(); last && made.lines) {
    const auto there = whereTo(*made.lines, *last);
    lastPoint_ = there ? std::optional(std::pair(desk_.map, *there)) : std::nullopt;
  }
  const bool isNew = undoLine_.commit(made.after, {made.active, selected}, made.across);
  quilt_ = std::move(made.after);
  desk_ = std::move(desk);
  asked_.clear();
  tellOfChanges(true);
  return isNew;
}

Result<void> Work::begin(std::string name, Gesture gesture) {
  std::optional<Error> why;
  if (gesture_) {
    why = Error{Error::Cause::inUse, "something is still under the hand", {}, 0, {}, {}};
  } else if (const Error* damaged = desk_.onBoard ? nullptr : damage(desk_.map)) {
    why = *damaged;
  }
  if (why) {
    report(*why);
    return fail(std::move(*why));
  }
  undoLine_.begin(std::move(name), tabOf(desk_), quilt_, mark(true));
  selectedBefore_ = desk_.selection();
  gesture_.emplace(std::move(gesture));
  ++gesturesBegun_;
  isShown_ = false;
  return {};
}

void Work::show() {
  if (!gesture_) return;
  quilt_ = gesture_->quilt();
  // What is sewn goes along at once, as it will when the hand lets go.
  if (gesture_->kind() == Gesture::Kind::change) quilt_ = withSeamsKept(undoLine_.beforeGesture(), std::move(quilt_)).quilt;
  Desk desk = desk_;
  // An edge that went over what is selected and came back leaves no trace of that.
  if (gesture_->kind() == Gesture::Kind::change) desk.select(selectedBefore_, desk.selectedStamp);
  if (gesture_->selected()) desk.select(*gesture_->selected(), desk.selectedStamp);
  (void)putDesk(std::move(desk));
  asked_.clear();
  const bool isFirst = !std::exchange(isShown_, true);
  const Map* was = told_.map(desk_.map);
  const bool grew = map() && was && was->bounds != map()->bounds;
  if (!isFirst && !grew && gesture_->kind() != Gesture::Kind::change) return listener_->gestureMoved();
  tellOfChanges(false);
}

Result<bool> Work::finish() {
  if (!gesture_) return false;
  gesture_->finish();
  std::optional<LastStroke> last;
  std::string name;
  std::set<Id> maps;
  if (const Stroke* stroke = gesture_->stroke()) {
    if (!stroke->refusal().empty()) refuse(stroke->refusal());
    if (!gesture_->moves().empty()) lastPoint_ = {desk_.map, gesture_->moves().back().cell};
    last = LastStroke{stroke->before(), stroke->plan(), gesture_->moves(), stroke->stretchBox(), gesture_->quilt()};
    last->plan.mostLaid = 0;
    name = strokeName(desk_, quilt_, stroke->plan().tool, stroke->plan().takesAway, &stroke->landing());
    maps = stroke->mapsLaidOn();
    nextChance();
  }
  quilt_ = gesture_->quilt();
  if (maps.size() > 1) name += " across " + mapNames(quilt_, maps);
  std::string opens;
  keepSeams(undoLine_.beforeGesture(), quilt_, opens);
  Desk desk = desk_;
  if (gesture_->selected()) desk.select(*gesture_->selected(), desk.selectedStamp);
  (void)putDesk(std::move(desk));
  // Held against the quilt before the step, which a stretch that is fitted anew did not start from.
  if (auto why = whyNoStep(undoLine_.beforeGesture(), quilt_, rules())) {
    report(*why);
    drop();
    return fail(std::move(*why));
  }
  const bool selects = gesture_->kind() == Gesture::Kind::move || !(desk_.selection() == selectedBefore_);
  gesture_.reset();
  if (last) last_ = std::move(last);
  if (!name.empty()) undoLine_.rename(name);
  if (!opens.empty()) undoLine_.rename(undoLine_.gestureName() + opens);
  const bool isNew = undoLine_.commit(quilt_, mark(selects), maps.size() > 1);
  gestureHasEnded();
  return isNew;
}

void Work::drop() {
  if (!gesture_) return;
  gesture_.reset();
  quilt_ = undoLine_.cancel();
  Desk desk = desk_;
  desk.select(selectedBefore_, desk.selectedStamp);
  desk_ = validDesk(std::move(desk), quilt_);
  gestureHasEnded();
}

void Work::gestureHasEnded() {
  asked_.clear();
  listener_->gestureEnded();
  tellOfChanges(true);
}

const Work::LastStroke* Work::lastStroke() const {
  const bool stands = last_ && last_->after == quilt_ && last_->plan.layer.map == desk_.map;
  return stands ? &*last_ : nullptr;
}

void Work::setLastStroke(std::optional<LastStroke> last) {
  last_ = std::move(last);
  if (last_) tellOfDesk();
}

std::optional<CellPos> Work::lastPoint() const {
  const bool here = lastPoint_ && lastPoint_->first == desk_.map;
  return here ? std::optional(lastPoint_->second) : std::nullopt;
}

void Work::nextChance() {
  // Any number will do that is not the one before; ids of layers come from a source of their own.
  std::hash<Id> bits;
  seed_ = bits(ids_.next());
  idSeed_ = bits(ids_.next());
}

std::uint64_t Work::seed() {
  if (seed_ == 0) nextChance();
  return seed_;
}

std::uint64_t Work::idSeed() {
  if (seed_ == 0) nextChance();
  return idSeed_;
}

void Work::whenFree(std::function<void()> what) { waiting_.push_back(std::move(what)); }

std::function<void()> Work::takeWaiting() {
  if (gesture_ || waiting_.empty()) return {};
  std::function<void()> next = std::move(waiting_.front());
  waiting_.pop_front();
  return next;
}

bool Work::confirmed(const UndoLine::Plan& plan, bool back) {
  if (!plan.reachesFarther || asked_ == plan.steps) return true;
  asked_ = plan.steps;
  std::string names;
  for (const std::string& name : plan.names) names += (names.empty() ? "“" : ", “") + name + "”";
  listener_->asksFarther(back ? "Undo would take back together: " + names + ". Undo again to do it."
                              : "Redo would lay back together: " + names + ". Redo again to do it.");
  return false;
}

bool Work::mayGoBack() const {
  if (onlyLooks_) report(*onlyLooks_);
  return !onlyLooks_;
}

void Work::undo() {
  if (!mayGoBack()) return;
  const auto plan = undoLine_.planBack(tabOf(desk_), quilt_);
  if (plan && confirmed(*plan, true)) (void)takeBack(*plan);
}

void Work::redo() {
  if (!mayGoBack()) return;
  const auto plan = undoLine_.planForth(tabOf(desk_), quilt_);
  if (plan && confirmed(*plan, false)) (void)layBack(*plan);
}

void Work::returnTo(std::uint64_t step) {
  (void)finish();
  if (!mayGoBack()) return;
  const UndoLine::Plan plan = undoLine_.planReturn(step);
  if (!plan.steps.empty()) (void)takeBack(plan);
}

Result<void> Work::takeBack(const UndoLine::Plan& plan) {
  auto outcome = undoLine_.takeBack(plan, tabOf(desk_), quilt_);
  if (!outcome) {
    listener_->failed(outcome.error());
    return fail(outcome.error());
  }
  follow(std::move(*outcome));
  return {};
}

Result<void> Work::layBack(const UndoLine::Plan& plan) {
  auto outcome = undoLine_.layBack(plan, quilt_);
  if (!outcome) {
    listener_->failed(outcome.error());
    return fail(outcome.error());
  }
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
    if (outcome.desk.selection) desk.select(std::move(*outcome.desk.selection), desk.selectedStamp);
  }
  if (!putDesk(std::move(desk))) desk_ = validDesk(std::move(desk_), quilt_);
  asked_.clear();
  tellOfChanges(true);
}

}  // namespace uq
