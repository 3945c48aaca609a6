#include "core/work/PinVerbs.h"

#include <algorithm>

#include "core/edit/Doorways.h"
#include "core/edit/Seams.h"

namespace uq {

std::string PinVerbs::called(const std::set<Id>& pins) const {
  const Map* map = work_.map();
  if (pins.size() != 1 || !map) return std::to_string(pins.size()) + " pins";
  const Pin* pin = map->pin(*pins.begin());
  return pin ? pinText(*pin) : std::string("a pin");
}

void PinVerbs::place(CellRect box, PixelPos beside) {
  if (!work_.map() || box.empty()) return;
  Pin pin;
  pin.cell = {box.x0, box.y0};
  pin.over = {box.width(), box.height()};
  pin.beside = beside;
  add(std::move(pin));
}

bool PinVerbs::mayLead(MapEdge edge) {
  const std::string sewn = sewnAlong(work_.quilt(), work_.desk().map, edge);
  if (sewn.empty()) return true;
  work_.refuse("The " + edgeText(work_.map()->grid.kind, edge) + " is sewn to " + sewn + ": one walks over it without a doorway");
  return false;
}

void PinVerbs::placeEdge(MapEdge edge) {
  if (!work_.map()) return;
  for (const Shared<Layer>& layer : work_.map()->layers) {
    for (const Pin& pin : layer->pins.read()) {
      if (pin.edge == edge) return choose({pin.id});
    }
  }
  if (!mayLead(edge)) return;
  Pin pin;
  pin.edge = edge;
  pin.name = edgeText(work_.map()->grid.kind, edge);
  add(std::move(pin));
}

void PinVerbs::placeAt(CellPos at) {
  if (!work_.map()) return;
  const auto edge = edgeBeyond(work_.map()->bounds, at, kFarthestCell);
  if (edge) return placeEdge(*edge);
  place(CellRect::around(at, at));
}

void PinVerbs::layAlong(Id id, std::optional<MapEdge> edge) {
  const Pin* found = work_.quilt().pin({work_.desk().map, id});
  if (!found || found->edge == edge || (edge && !mayLead(*edge))) return;
  Pin pin = *found;
  pin.edge = edge;
  pin.cell = edge ? CellPos() : middleOf(*found, work_.map()->bounds);
  pin.over = {1, 1};
  pin.beside = {};
  const std::string where = edge ? "along the " + edgeText(work_.map()->grid.kind, *edge) : "on a cell";
  work_.step("Lay " + pinText(*found) + " " + where, withPin(work_.quilt(), work_.desk().map, std::move(pin)));
}

void PinVerbs::add(Pin pin) {
  PinAdded added = addPin(work_.quilt(), work_.desk().activeAt(), std::move(pin), work_.ids());
  if (added.pin.empty()) return work_.refuse("No pin can lie there");
  const std::string name = "Place " + pinText(*added.quilt.pin(added.pin));
  work_.step(name, std::move(added.quilt));
  choose({added.pin.pin});
}

Id PinVerbs::pinAt(CellPos cell) const {
  const Map* map = work_.map();
  if (!map) return {};
  const std::vector<Id> there = pinsOn(*map, cell, work_.desk().hidden);
  return there.empty() ? Id() : there.front();
}

void PinVerbs::choose(const std::set<Id>& pins) {
  Desk desk = work_.desk();
  desk.chosenPins = pins;
  work_.setDesk(std::move(desk));
}

void PinVerbs::alsoChoose(Id pin) {
  std::set<Id> pins = work_.desk().chosenPins;
  if (!pins.erase(pin)) pins.insert(pin);
  choose(pins);
}

PinAt PinVerbs::chosen() const {
  const std::set<Id>& pins = work_.desk().chosenPins;
  return pins.size() == 1 ? PinAt{work_.desk().map, *pins.begin()} : PinAt{};
}

void PinVerbs::moveBy(SidePos by) {
  const std::set<Id> pins = work_.desk().chosenPins;
  if (pins.empty() || by == SidePos{}) return;
  work_.step("Move " + called(pins), withPinsMoved(work_.quilt(), work_.desk().map, pins, by));
}

void PinVerbs::remove() {
  const std::set<Id> pins = work_.desk().chosenPins;
  if (pins.empty()) return work_.refuse("No pin is chosen");
  std::set<Id> ways;
  for (const Id pin : pins) {
    for (const Id way : doorwaysOf(work_.quilt(), PinAt{work_.desk().map, pin})) ways.insert(way);
  }
  // What leads to or from them hangs loose then, and is said.
  const std::string loose = ways.empty() ? "" : ", " + std::to_string(ways.size()) + (ways.size() == 1 ? " way hangs loose" : " ways hang loose");
  work_.step("Delete " + called(pins) + loose, withoutPins(work_.quilt(), work_.desk().map, pins));
}

void PinVerbs::copy(bool cuts) {
  const std::set<Id> pins = work_.desk().chosenPins;
  if (pins.empty()) return work_.refuse("No pin is chosen");
  copied_ = heldPins(work_.quilt(), work_.desk().map, pins);
  if (!cuts) return;
  work_.step("Cut " + called(pins), withoutPins(work_.quilt(), work_.desk().map, pins));
}

void PinVerbs::paste(CellPos at) {
  if (copied_.empty() || !work_.map()) return work_.refuse("No pin was copied");
  const CellRect bounds = work_.map()->bounds;
  at = {std::clamp(at.x, bounds.x0, bounds.x1 - 1), std::clamp(at.y, bounds.y0, bounds.y1 - 1)};
  PinsAdded laid = withPinsLaid(work_.quilt(), work_.desk().activeAt(), copied_, at, work_.ids());
  if (laid.pins.empty()) return work_.refuse("No pin can lie there");
  const std::string count = laid.pins.size() == 1 ? "1 pin" : std::to_string(laid.pins.size()) + " pins";
  work_.step("Paste " + count, std::move(laid.quilt));
  choose(laid.pins);
}

void PinVerbs::rename(Id pin, const std::string& name) {
  const Pin* found = work_.quilt().pin({work_.desk().map, pin});
  if (!found || found->name == name) return;
  Pin renamed = *found;
  renamed.name = name;
  work_.step("Call " + pinText(*found) + " “" + name + "”", withPin(work_.quilt(), work_.desk().map, std::move(renamed)));
}

void PinVerbs::beginHere(std::optional<CellPos> at) {
  if (!work_.map()) return;
  PinAt start = chosen();
  Quilt after = work_.quilt();
  if (at && !work_.map()->bounds.contains(*at)) at.reset();
  if (start.empty() && !at) return work_.refuse("Point at the cell, or choose a pin");
  if (start.empty()) start = {work_.desk().map, pinAt(*at)};
  if (start.empty()) {
    // The spot of before comes along, where it lies on this map and is nothing else.
    const PinAt before = after.facts().start;
    const Pin* was = before.map == work_.desk().map ? after.pin(before) : nullptr;
    if (was && doorwaysOf(after, before).empty() && !was->edge) {
      Pin moved = *was;
      moved.cell = *at;
      after = withPin(after, before.map, std::move(moved));
      start = before;
    } else {
      Pin pin;
      pin.cell = *at;
      pin.name = "start";
      PinAdded added = addPin(after, work_.desk().activeAt(), std::move(pin), work_.ids());
      after = std::move(added.quilt);
      start = added.pin;
    }
  }
  work_.step("The player begins on " + work_.map()->name, withStart(after, start));
}

Id PinVerbs::lead(PinAt from, const WayTo& to) {
  DoorwayAdded added = addDoorway(work_.quilt(), from, to, work_.ids());
  if (added.doorway.empty()) {
    work_.refuse(!work_.quilt().pin(from) ? "The spot that leads there is gone" : "A way cannot lead to where it begins");
    return {};
  }
  const std::string name = doorwayText(added.quilt, *added.quilt.listed<Doorway>(added.doorway));
  const auto made = work_.make({name, std::move(added.quilt), work_.desk().activeAt()});
  return made && *made ? added.doorway : Id();
}

Id PinVerbs::leadToRoom(PinAt from, const RoomAsk& ask) {
  RoomAdded added = addRoom(work_.quilt(), from, ask, work_.ids());
  if (added.doorway.empty()) {
    work_.refuse("No map can be made there");
    return {};
  }
  const std::string name = doorwayText(added.quilt, *added.quilt.listed<Doorway>(added.doorway));
  const auto made = work_.make({name, std::move(added.quilt), work_.desk().activeAt()});
  return made && *made ? added.doorway : Id();
}

bool PinVerbs::moveEnd(Id doorway, PinAt end, const WayTo& to) {
  DoorwayAdded moved = withEndMoved(work_.quilt(), doorway, end, to, work_.ids());
  if (moved.doorway.empty()) {
    work_.refuse("A way cannot lead to where it begins");
    return false;
  }
  const std::string name = doorwayText(moved.quilt, *moved.quilt.listed<Doorway>(doorway));
  const auto made = work_.make({name, std::move(moved.quilt), work_.desk().activeAt()});
  return made && *made;
}

void PinVerbs::change(const Doorway& doorway) {
  Quilt after = work_.quilt().with(Doorway(doorway));
  const std::string name = doorwayText(after, doorway);
  work_.step(name, std::move(after));
}

void PinVerbs::removeDoorway(Id doorway) {
  const Doorway* gone = work_.quilt().listed<Doorway>(doorway);
  if (!gone) return;
  const Pin* from = work_.quilt().pin(gone->from);
  work_.step("Take the way from " + (from ? pinText(*from) : std::string("a spot that is gone")) + " out",
             work_.quilt().without<Doorway>(doorway));
}

void PinVerbs::mend(const LooseThread& thread) {
  work_.step(thread.mendText + ": " + thread.text, mended(work_.quilt(), thread));
}

void PinVerbs::goTo(PinAt pin) {
  arrived_ = pin;
  Desk desk = work_.desk();
  desk.onBoard = false;
  desk.map = pin.map;
  desk.chosenPins = {pin.pin};
  work_.setDesk(std::move(desk));
}

void PinVerbs::follow(PinAt from) {
  const auto to = arrivalFrom(work_.quilt(), from);
  if (!to) return work_.refuse("No way leads on from here");
  if (!work_.quilt().pin(to->at)) return work_.refuse("The way leads to a spot that is gone");
  if (work_.gesture()) (void)work_.finish();
  trail_.resize(std::min(onTrail_, trail_.size()));
  if (trail_.empty() || !(trail_.back() == from)) trail_.push_back(from);
  trail_.push_back(to->at);
  onTrail_ = trail_.size();
  goTo(to->at);
}

bool PinVerbs::canAlongTrail(int steps) const {
  return steps < 0 ? onTrail_ >= 2 && onTrail_ <= trail_.size() : onTrail_ < trail_.size();
}

void PinVerbs::alongTrail(int steps) {
  if (!canAlongTrail(steps)) return work_.refuse(steps < 0 ? "No way was gone through" : "No way was come back from");
  if (work_.gesture()) (void)work_.finish();
  onTrail_ += steps < 0 ? std::size_t(-1) : std::size_t(1);
  const PinAt at = trail_[onTrail_ - 1];
  if (!work_.quilt().pin(at)) return work_.refuse("That spot is gone");
  goTo(at);
}

}  // namespace uq
