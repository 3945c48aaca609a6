#include "core/work/MapVerbs.h"

#include <algorithm>

#include "core/edit/Camera.h"
#include "core/edit/MapFacts.h"

namespace uq {

void MapVerbs::add(const MapPlan& plan) {
  const MapAdded added = addMap(work_.quilt(), plan, work_.ids());
  if (!added.map.empty()) work_.step("New map " + plan.name, added.quilt, {added.map, {}});
}

void MapVerbs::duplicate() {
  if (!work_.map()) return;
  const MapAdded added = duplicateMap(work_.quilt(), work_.desk().map, work_.ids());
  work_.step("Duplicate " + work_.map()->name, added.quilt, {added.map, {}});
}

void MapVerbs::rename(Id id, const std::string& name) {
  const Map* renamed = work_.quilt().map(id);
  if (renamed) work_.step("Rename " + renamed->name, renameMap(work_.quilt(), id, name));
}

void MapVerbs::remove(Id id) {
  const Map* gone = work_.quilt().map(id);
  if (!gone) return;
  // The next tab, else the one before, else any other map.
  const Desk& desk = work_.desk();
  Id next = desk.map;
  if (id == desk.map) {
    const auto tab = std::find(desk.openMaps.begin(), desk.openMaps.end(), id);
    next = tab + 1 != desk.openMaps.end() ? *(tab + 1) : tab != desk.openMaps.begin() ? *(tab - 1) : Id();
    for (const auto& other : work_.quilt().maps()) {
      if (next.empty() && other->id != id) next = other->id;
    }
  }
  const auto active = desk.activeLayer.find(next);
  work_.step("Delete " + gone->name, deleteMap(work_.quilt(), id),
             {next, active == desk.activeLayer.end() ? Id() : active->second});
}

void MapVerbs::setCell(PixelSize cell) {
  if (work_.map()) work_.step("Cells of " + work_.map()->name, withCell(work_.quilt(), work_.desk().map, cell));
}

void MapVerbs::setOpening() {
  if (!work_.map()) return;
  const bool is = work_.quilt().facts().opensWith == work_.desk().map;
  work_.step(is ? "Open with any map" : "Open with " + work_.map()->name,
             withOpeningMap(work_.quilt(), work_.desk().map));
}

void MapVerbs::resize(CellRect bounds, NewRoom room) {
  if (!work_.map()) return;
  if (const std::string why = whyNoBounds(*work_.map(), bounds, room); !why.empty()) return work_.refuse(why);
  work_.step("Resize " + work_.map()->name, withBounds(work_.quilt(), work_.desk().map, bounds, room));
}

void MapVerbs::cutToUsed(const HeldEdge& sides) {
  const Map* map = work_.map();
  if (!map) return;
  const CellRect used = usedBounds(*map);
  if (used.empty()) return work_.refuse("Nothing is painted on this map");
  CellRect to = map->bounds;
  if (sides.left) to.x0 = used.x0;
  if (sides.top) to.y0 = used.y0;
  if (sides.right) to.x1 = used.x1;
  if (sides.bottom) to.y1 = used.y1;
  if (to == map->bounds) return work_.refuse("What is used reaches to the edge already");
  work_.step("Cut " + map->name + " to what is used", withBounds(work_.quilt(), map->id, to));
}

void MapVerbs::dropAllowance() {
  if (!work_.map()) return;
  if (allowanceCells(*work_.map()) == 0) return work_.refuse("Nothing is painted outside this map's edges");
  work_.step("Drop the seam allowance of " + work_.map()->name, withoutAllowance(work_.quilt(), work_.desk().map));
}

void MapVerbs::change(const std::string& what, Quilt after) {
  if (work_.map()) work_.step(what + " of " + work_.map()->name, std::move(after));
}

void MapVerbs::goTo(Id id) {
  if (!work_.quilt().map(id)) return;
  (void)work_.finish();
  Desk desk = work_.desk();
  desk.map = id;
  work_.setDesk(std::move(desk));
}

void MapVerbs::closeTab(Id id) {
  if (work_.desk().openMaps.size() < 2) return;
  (void)work_.finish();
  Desk desk = work_.desk();
  const auto tab = std::find(desk.openMaps.begin(), desk.openMaps.end(), id);
  if (tab == desk.openMaps.end()) return;
  if (id == desk.map) desk.map = tab + 1 != desk.openMaps.end() ? *(tab + 1) : *(tab - 1);
  desk.openMaps.erase(tab);
  work_.setDesk(std::move(desk));
}

void MapVerbs::setCamera(PixelPos at) {
  if (!work_.map()) return;
  Desk desk = work_.desk();
  desk.cameras[desk.map] = cameraNear(work_.quilt(), *work_.map(), at);
  work_.setDesk(std::move(desk));
}

}  // namespace uq
