#include "art/Ways.h"

#include <QtGlobal>

#include "core/edit/Doorways.h"
#include "core/edit/Pins.h"

namespace uq::art {

namespace {

struct End {
  const char* map;
  const char* name;
  CellPos cell;
};

struct Way {
  End from;
  End to;
  bool back = true;
  bool meantSo = false;
  const char* needs = "";
};

// The hatch leads up to the market and nothing leads down again: one thread that hangs loose on purpose.
const Way kWays[] = {
    {{"Depot Yard", "gate", {0, 15}}, {"Lantern Row", "door", {23, 27}}},
    {{"Depot Yard", "steps", {20, 24}}, {"Quayside", "landing", {14, 9}}},
    {{"Depot Yard", "loft stair", {12, 11}}, {"Signal Loft", "stair", {6, 8}}, true, false, "the brass key"},
    {{"Ferry Street", "alley", {30, 3}}, {"Quayside", "alley's end", {6, 14}}, false, true},
    {{"Lantern Row", "hatch", {52, 27}}, {"Roof Market", "hatch", {9, 20}}, false},
    {{"Ferry Street", "tram stop", {24, 17}}, {"Ward Board", "Ferry ward", {12, 10}}},
    {{"Ward Board", "towpath", {5, 6}}, {"Canal Locks", "towpath", {6, 6}}}};

PinAt placed(Quilt& quilt, const End& end, IdSource& ids) {
  const Map* map = quilt.mapNamed(end.map);
  Pin pin;
  pin.name = end.name;
  pin.cell = end.cell;
  PinAdded added = addPin(quilt, {map->id, {}}, pin, ids);
  if (added.pin.empty()) qFatal("no pin on %s", end.map);
  quilt = std::move(added.quilt);
  return added.pin;
}

}  // namespace

Quilt withWays(Quilt quilt, IdSource& ids) {
  for (const Way& way : kWays) {
    const PinAt from = placed(quilt, way.from, ids);
    const PinAt to = placed(quilt, way.to, ids);
    const DoorwayAdded added = addDoorway(quilt, from, {to.map, to.pin, {}, way.back, {}}, ids);
    Doorway doorway = *added.quilt.listed<Doorway>(added.doorway);
    doorway.meantSo = way.meantSo;
    doorway.needs = way.needs;
    quilt = added.quilt.with(std::move(doorway));
  }
  quilt = withStart(quilt, placed(quilt, {"Depot Yard", "start", {22, 15}}, ids));
  QuiltFacts facts = quilt.facts();
  facts.silenced["sizes that disagree"] = "Tall tiles stand on several cells, and the loft is smaller than a screen";
  return quilt.with(std::move(facts));
}

}  // namespace uq::art
