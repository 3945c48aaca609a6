// Two maps with a pin each and a way between them, for tests of pins and doorways.
#pragma once

#include "core/SavedQuilt.h"
#include "core/check/Checks.h"
#include "core/edit/Doorways.h"
#include "core/edit/Pins.h"

namespace uq::test {

// Yard and Loft with a gate and a hatch, and a way between them.
struct Joined2 {
  IdSource ids{7};
  Quilt quilt = smallQuilt();
  Id yard = quilt.mapNamed("Yard")->id;
  Id loft = quilt.mapNamed("Loft")->id;
  PinAt gate;
  PinAt hatch;
  Id way;

  Joined2() {
    gate = place(yard, {4, 5}, "Gate");
    hatch = place(loft, {2, 3}, "hatch");
    const DoorwayAdded added = addDoorway(quilt, gate, {loft, hatch.pin, {}, true, {}}, ids);
    quilt = added.quilt;
    way = added.doorway;
  }
  PinAt place(Id map, CellPos cell, const std::string& name = {}) {
    Pin pin;
    pin.cell = cell;
    pin.name = name;
    const PinAdded added = addPin(quilt, {map, {}}, pin, ids);
    quilt = added.quilt;
    return added.pin;
  }
  const Doorway& doorway() const { return *quilt.listed<Doorway>(way); }
  std::vector<LooseThread> threads(std::string_view kind = {}) const {
    Checks checks;
    std::vector<LooseThread> all = checks.of(quilt).threads;
    std::erase_if(all, [&](const LooseThread& one) { return !kind.empty() && one.kind != kind; });
    return all;
  }
};

}  // namespace uq::test
