// Work: a quilt, the desk, the line of steps and the gesture under way — what a person does with a quilt, without a
// window.
//
// All steps come in through one door, make() or a gesture's finish(), which holds them against the same rules (see
// StepCheck.h) and keeps them on the undo line. While a gesture is under way nobody else may make a step; what comes from
// elsewhere, as a worker's result, waits in a row for the hands to be free. What can be done is parted by what it is done
// to (see Verbs.h), each working on a Work; nothing else makes steps of a hand. A listener is told what happened.
//
// Work may begin before all of a quilt was read: maps that are still to come cannot be changed, nor anything but maps,
// and arrive() takes the rest in under whatever was done meanwhile.
//
// Invariants: desk() fits quilt(); at most one gesture; while there is one, quilt() is what it shows, and the undo line
// knows of it. The last stroke is as it was left, or forgotten.
// References into quilt() and desk() live until the next call that is not const.
// Threads: one at a time; results of other threads are handed over to it.
#pragma once

#include <deque>
#include <functional>
#include <optional>
#include <set>
#include <string>

#include "core/cells/CellLines.h"
#include "core/document/Desk.h"
#include "core/history/UndoLine.h"
#include "core/work/Changes.h"
#include "core/work/Gesture.h"
#include "core/work/StepCheck.h"
#include "core/work/TileLooks.h"

namespace uq {

class Work {
 public:
  using Damage = std::function<const Error*(Id map)>;

  // Is told what has happened, by the call that made it happen, after it is done.
  class Listener {
   public:
    virtual ~Listener() = default;
    virtual void quiltChanged(const QuiltChange& change) { (void)change; }
    virtual void deskChanged(const DeskChange& change) { (void)change; }
    // A stroke or move that was shown before has come farther: cells of its map differ, and the selection may; nothing
    // else does. Of what a held bar says quiltChanged tells.
    virtual void gestureMoved() {}
    // By whatever ended it: what a hand still does belongs to no gesture any more.
    virtual void gestureEnded() {}
    // Nothing happened, and why: for the person at the pointer.
    virtual void refused(const std::string& why) { (void)why; }
    virtual void failed(const Error& error) { (void)error; }
    // Undo or redo would reach farther than one step of this map: called again, it does so.
    virtual void asksFarther(const std::string& question) { (void)question; }
  };

  // `damage` tells why a map must not be changed; `looks` what is known of tiles by their pixels.
  Work(Quilt quilt, Desk desk, Damage damage, TileLooks looks = {}, IdSource ids = IdSource::fromSystem());
  // Nobody is told before this; `listener` must live as long.
  void tell(Listener& listener);

  const Quilt& quilt() const { return quilt_; }
  const Desk& desk() const { return desk_; }
  const Map* map() const { return quilt_.map(desk_.map); }  // that is worked on; nullptr when there is none
  const UndoLine& undoLine() const { return undoLine_; }
  UndoLine& undoLine() { return undoLine_; }
  const TileLooks& looks() const { return looks_; }
  IdSource& ids() { return ids_; }
  // Whether a tile covers its cell on the desk's map.
  Covers covers() const;
  // Why a map must not be changed, also since it is still to come; nullptr where it may.
  const Error* damage(Id map) const;
  // While this is so, nothing may be changed, and no step taken back.
  void onlyLook(std::optional<Error> why) { onlyLooks_ = std::move(why); }
  // The maps whose cells are still being read.
  const std::set<Id>& coming() const { return coming_; }
  // Takes in a reading of the same quilt, the first or a later one, of which `coming` are still to come. What was changed
  // meanwhile stays as it is, and all steps. No gesture may be under way.
  void arrive(Quilt read, std::set<Id> coming);

  // The desk made to fit the quilt. A lift is forgotten on another layer.
  void setDesk(Desk desk);
  // For what belongs to the desk and lies beside it.
  void tellOfDesk() const;
  // Tells the listener why nothing happens.
  void refuse(const std::string& why) const { listener_->refused(why); }
  void report(const Error& error) const;

  struct Made {
    std::string name;
    Quilt after;
    LayerAt active;                      // the layer that is active then; the step is made in the tab of its map
    std::optional<CellSet> selected{};  // on the active map
    std::optional<CellLines> lines{};   // come in or go there: the last point goes along
    bool across = false;                // over a stitch; see Step
  };
  // The door: true when a step was made, false when `after` is the quilt as it is; an Error, which the listener was
  // told, says why it may not be, and then nothing happened.
  [[nodiscard]] Result<bool> make(Made made);
  // The same for who goes on alike: with the active layer that there is, or another one.
  void step(std::string name, Quilt after) { (void)make({std::move(name), std::move(after), desk_.activeAt()}); }
  void step(std::string name, Quilt after, LayerAt active) { (void)make({std::move(name), std::move(after), active}); }

  // Begins a gesture, whose step is made in the tab of the desk's map. An Error, which the listener was told, where a
  // gesture is under way, or the desk's map may not be changed; on the Board none is worked on.
  [[nodiscard]] Result<void> begin(std::string name, Gesture gesture);
  // How many were begun so far.
  std::uint64_t gesturesBegun() const { return gesturesBegun_; }
  // Nothing where there is none; to be moved by its owner's hand, then shown.
  Gesture* gesture() { return gesture_ ? &*gesture_ : nullptr; }
  const Gesture* gesture() const { return gesture_ ? &*gesture_ : nullptr; }
  // Makes quilt() and the selection those of the gesture.
  void show();
  // Ends the gesture, if there is one, by one step, as make() does; a stroke is called by what it did, and is the last
  // one then. On an Error, which the listener was told, it is dropped.
  Result<bool> finish();
  // Puts the quilt and what was selected back as they were before the gesture, if there is one.
  void drop();

  // What was laid last, for another throw of chance and for the handles of a stretch.
  struct LastStroke {
    Quilt before;
    StrokePlan plan;
    Gesture::Moves moves;
    std::optional<CellRect> box;  // of a stretch, in side coordinates
    Quilt after;
  };
  // Nothing once something else was done, or on another map.
  const LastStroke* lastStroke() const;
  void setLastStroke(std::optional<LastStroke> last);
  // Where it ended, on the desk's map, for the next one to go on from.
  std::optional<CellPos> lastPoint() const;
  // The seeds of the next stroke: of chance, and of the ids that it makes. Another one each time something was laid.
  std::uint64_t seed();
  std::uint64_t idSeed();
  void nextChance();

  // Puts `what` in the row of what waits until no gesture is under way.
  void whenFree(std::function<void()> what);
  // What may be called now, first in first out; empty while a gesture is under way, and when nothing waits.
  std::function<void()> takeWaiting();
  void forgetWaiting() { waiting_.clear(); }

  // Undo and redo in the tab of the desk's map. Where more than one step would go, the first call only asks, and a
  // second one does it.
  void undo();
  void redo();
  // Takes the whole quilt back to just after a step, as one group that one redo lays back; 0 is before the first.
  void returnTo(std::uint64_t step);

 private:
  // Takes steps back or lays them back, by a plan of the undo line.
  [[nodiscard]] Result<void> takeBack(const UndoLine::Plan& plan);
  [[nodiscard]] Result<void> layBack(const UndoLine::Plan& plan);
  StepRules rules() const;
  // Whether steps may be taken back and laid back; else says why not.
  [[nodiscard]] bool mayGoBack() const;
  // What a step brings back of the desk: what is selected only where the step is about that.
  DeskMark mark(bool selection) const {
    return {desk_.activeAt(), selection ? std::optional(desk_.selection()) : std::nullopt};
  }
  bool putDesk(Desk desk);
  void follow(UndoLine::Outcome outcome);
  bool confirmed(const UndoLine::Plan& plan, bool back);
  void gestureHasEnded();
  // Tells what has changed since this was told last; nothing where nothing has. `steps`: the line of steps went on.
  void tellOfChanges(bool steps);

  Quilt quilt_;
  Desk desk_;
  Damage damage_;
  std::optional<Error> onlyLooks_;
  std::set<Id> coming_;
  TileLooks looks_;
  IdSource ids_;
  Listener* listener_;
  Quilt told_;  // as the listener knows them
  Desk toldDesk_;
  UndoLine undoLine_;
  std::vector<std::uint64_t> asked_;  // the steps that were named in a question
  std::optional<Gesture> gesture_;
  std::uint64_t gesturesBegun_ = 0;
  bool isShown_ = false;    // the gesture, once at least
  CellSet selectedBefore_;  // the gesture
  std::optional<LastStroke> last_;
  std::optional<std::pair<Id, CellPos>> lastPoint_;
  std::uint64_t seed_ = 0;
  std::uint64_t idSeed_ = 0;
  std::deque<std::function<void()>> waiting_;
};

}  // namespace uq
