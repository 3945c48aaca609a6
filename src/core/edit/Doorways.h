// Doorways: the edits that make, change and take away ways between pins, and what people read of them.
//
// A way is made from a pin by saying where it leads; both ends are pins afterwards. The heading on arrival is proposed: the
// open side of the cell that is nearest to the direction of travel (Standing), which is the way out of the door at the one
// end; for the way back it is the other way round. Nothing changes where an end is not there. Threads: any.
#pragma once

#include <set>
#include <string>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

// Where a way is to lead: to a pin that is there, or to a cell of a map, on which a pin is made.
struct WayTo {
  Id map;
  Id pin;  // empty: `cell`
  CellPos cell;
  bool back = true;
  std::optional<Heading> arriving;  // else as proposed
};
struct DoorwayAdded {
  Quilt quilt;
  Id doorway;  // empty where nothing was made
};
DoorwayAdded addDoorway(const Quilt& quilt, PinAt from, const WayTo& to, IdSource& ids);

// One end of a doorway led to somewhere else, on its own map or another one. On a bare cell its pin goes along, name and all,
// unless something else needs it where it is: another way, the start, an edge. `to.back` counts for nothing; `to.arriving`
// is how one faces at that end.
DoorwayAdded withEndMoved(const Quilt& quilt, Id doorway, PinAt end, const WayTo& to, IdSource& ids);

// Which way somebody faces who goes from a pin to that cell.
Heading proposedArrival(const Quilt& quilt, PinAt from, Id map, CellPos cell);
// And who comes back to the pin.
Heading proposedReturn(const Quilt& quilt, PinAt from);

// The doorways that a pin is an end of, those that lead from it first; and all that have an end on a map.
std::vector<Id> doorwaysOf(const Quilt& quilt, PinAt pin);
std::vector<Id> doorwaysOf(const Quilt& quilt, Id map);
// Where somebody arrives who goes through at a pin, and which way they face there; nothing where no way leads on.
struct Arrival {
  Id doorway;
  PinAt at;
  Heading facing = Heading::south;
};
std::optional<Arrival> arrivalFrom(const Quilt& quilt, PinAt pin);

// The player begins there; empty: nowhere yet.
Quilt withStart(const Quilt& quilt, PinAt pin);

// “Gate leads to Lantern Row, arriving at “gate”, facing east, and back. Needs the brass key.” Seen from one of its ends;
// names longer than 60 bytes are shortened.
std::string doorwayText(const Quilt& quilt, const Doorway& doorway);
// What it takes to go through any doorway of the quilt, each once, in alphabetical order.
std::vector<std::string> needsSaid(const Quilt& quilt);

// A new map behind a pin: of the parent's grid and cell, its layers of the parent's roles, so large, its ground laid with
// that cell where one is given, with a way there and back through the middle of its lower edge.
struct RoomAsk {
  std::string name;
  PixelSize cells{12, 10};
  Cell floor;
  std::optional<PixelPos> onBoard;
};
struct RoomAdded {
  Quilt quilt;
  Id map;
  Id doorway;
};
RoomAdded addRoom(const Quilt& quilt, PinAt from, const RoomAsk& ask, IdSource& ids);

}  // namespace uq
