// PinVerbs: what is done to the pins of the desk's map and to the ways between them, each as one step, and going along them.
//
// Which pins are chosen is the desk's. Pins are placed on the active layer if it is for pins, else on the nearest such one,
// which the first pin makes. Threads: those of the Work.
#pragma once

#include <set>
#include <string>
#include <vector>

#include "core/check/LooseThread.h"
#include "core/edit/Doorways.h"
#include "core/edit/Pins.h"
#include "core/work/Work.h"

namespace uq {

class PinVerbs {
 public:
  // `work` must live as long.
  explicit PinVerbs(Work& work) : work_(work) {}

  // A new spot of those cells, chosen then. `beside`: map pixels from the middle of its cell.
  void place(CellRect box, PixelPos beside = {});
  // A whole edge, chosen then; refused where something is sewn along it. One that is a pin already is only chosen.
  void placeEdge(MapEdge edge);
  // A spot on a cell, or, where that lies beyond an edge, that edge.
  void placeAt(CellPos at);
  // An edge in place of cells; nothing: the cell in its middle.
  void layAlong(Id pin, std::optional<MapEdge> edge);
  // The nearest layer's pin on a cell; empty where there is none that is seen.
  Id pinAt(CellPos cell) const;
  void choose(const std::set<Id>& pins);
  // Chooses a pin beside those that are, or no longer.
  void alsoChoose(Id pin);
  // The one that is chosen; empty where none or several are.
  PinAt chosen() const;
  // What is done to all that are chosen.
  void moveBy(SidePos by);
  void remove();
  void copy(bool cuts);
  bool hasCopied() const { return !copied_.empty(); }
  // The copies are chosen then; `at`: the cell of the first one.
  void paste(CellPos at);
  void rename(Id pin, const std::string& name);
  // The player begins at the pin that is chosen, else at that cell, where a spot is made.
  void beginHere(std::optional<CellPos> at);

  // A way from a pin, named as it reads; the doorway, empty where the listener was told why not.
  Id lead(PinAt from, const WayTo& to);
  Id leadToRoom(PinAt from, const RoomAsk& ask);
  // Leads one end of a doorway to somewhere else; whether it did, else the listener was told why not.
  bool moveEnd(Id doorway, PinAt end, const WayTo& to);
  void change(const Doorway& doorway);
  void removeDoorway(Id doorway);
  void mend(const LooseThread& thread);

  // Goes through at a pin, to where the way leads, which is chosen there; refuses in words where none leads on. `back` and
  // `on` go along what was gone through, `steps` −1 or 1.
  void follow(PinAt from);
  void alongTrail(int steps);
  // Shows a pin: its map is worked on then, and it is chosen.
  void goTo(PinAt pin);
  bool canAlongTrail(int steps) const;
  // Where the last one led to; the canvas brings it into sight.
  const std::optional<PinAt>& arrived() const { return arrived_; }

 private:
  void add(Pin pin);
  bool mayLead(MapEdge edge);
  std::string called(const std::set<Id>& pins) const;

  Work& work_;
  PinsHeld copied_;
  std::vector<PinAt> trail_;
  std::size_t onTrail_ = 0;  // one past the place on it
  std::optional<PinAt> arrived_;
};

}  // namespace uq
