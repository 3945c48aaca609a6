// Pins on a map: the edits that place, move, change, copy and take them away, and finding them by their cells.
//
// Nothing changes where there is no such map, layer or pin. Cost: copying the pins of a layer that changes. Threads: any.
#pragma once

#include <set>
#include <string>
#include <vector>

#include "core/document/Quilt.h"
#include "core/grid/Heading.h"

namespace uq {

struct PinAdded {
  Quilt quilt;
  PinAt pin;  // empty where nothing was added
};
// A pin as given, with an id and the lowest free number of its own; on that layer if it is for pins, else on the nearest
// layer for pins of the same level, which is made in front of all others there where there is none.
PinAdded addPin(const Quilt& quilt, LayerAt on, Pin pin, IdSource& ids);
// In place of the one with its id.
Quilt withPin(const Quilt& quilt, Id map, Pin pin);
// With the lowest number that no pin of the map has.
Quilt withPinRenumbered(const Quilt& quilt, PinAt pin);
Quilt withoutPins(const Quilt& quilt, Id map, const std::set<Id>& pins);
// Moved by whole cells along the sides of the grid. An edge stays where it is; nothing is moved farther than cells lie.
Quilt withPinsMoved(const Quilt& quilt, Id map, const std::set<Id>& pins, SidePos by);

// The pins that a cell belongs to, the smallest box first, then those of nearer layers; those on layers of `hidden` are
// passed over.
std::vector<Id> pinsOn(const Map& map, CellPos cell, const std::set<Id>& hidden = {});
// Those that lie wholly within a rectangle of cells, edges never.
std::set<Id> pinsWithin(const Map& map, CellRect cells, const std::set<Id>& hidden = {});

// What people call it: its name, else "edge 3" or "spot 3".
std::string pinText(const Pin& pin);
// The way that leads out over an edge of a map of that grid; and what people call the edge: "south-east edge" on diamonds.
Heading outOver(GridKind kind, MapEdge edge);
std::string edgeText(GridKind kind, MapEdge edge);

// Pins as they were copied, with the ways among them: where each lies from the first one's cell, in side coordinates.
struct PinsHeld {
  struct One {
    Pin pin;
    SidePos from;
  };
  std::vector<One> pins;
  std::vector<Doorway> doorways;  // both ends are among them
  bool empty() const { return pins.empty(); }
};
PinsHeld heldPins(const Quilt& quilt, Id map, const std::set<Id>& pins);
struct PinsAdded {
  Quilt quilt;
  std::set<Id> pins;
};
// The first on `cell`: copies with ids and numbers of their own, whose ways lead among the copies; pins that are not in the
// quilt any more, as those that were cut, come back themselves, and ways to and from them, and the start, lead to where they are.
PinsAdded withPinsLaid(const Quilt& quilt, LayerAt on, const PinsHeld& held, CellPos cell, IdSource& ids);

}  // namespace uq
