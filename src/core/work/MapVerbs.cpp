#include "core/work/MapVerbs.h"

#include <algorithm>

#include "core/edit/Camera.h"
#include "core/edit/MapFacts.h"
#include "core/edit/RowsAndColumns.h"

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

std::string MapVerbs::whyNoLines(const CellLines& lines) const {
  if (!work_.map()) return "This quilt has no map";
  return uq::whyNoLines(*work_.map(), lines, linesLayer(work_.desk()), work_.desk().locked);
}

void MapVerbs::changeLines(const CellLines& lines) {
  const Map* map = work_.map();
  if (!map) return;
  if (const std::string why = whyNoLines(lines); !why.empty()) return work_.refuse(why);
  const Desk before = work_.desk();
  const Id only = linesLayer(before);
  const GridShape grid = map->grid;
  const std::string what = linesText(lines);
  Work::Made made{(lines.count > 0 ? "Insert " + what + " in " : "Remove " + what + " of ") + map->name,
                  withLines(work_.quilt(), map->id, lines, only), before.activeAt()};
  if (only.empty()) {
    made.lines = lines;
    if (!before.selection().empty()) made.selected = whereTo(lines, before.selection());
  }
  const auto done = work_.make(std::move(made));
  if (!done || !*done || !only.empty()) return;
  Desk desk = work_.desk();
  const auto camera = desk.cameras.find(desk.map);
  if (camera == desk.cameras.end()) return;
  camera->second = cameraNear(work_.quilt(), *work_.map(), whereTo(grid, lines, camera->second));
  work_.setDesk(std::move(desk));
}

CellRect MapVerbs::leftByCutting(const HeldEdge& sides) const {
  const Map* map = work_.map();
  const CellRect used = map ? usedBounds(*map) : CellRect();
  CellRect to = map ? map->bounds : CellRect();
  if (used.empty()) return to;
  if (sides.left) to.x0 = used.x0;
  if (sides.top) to.y0 = used.y0;
  if (sides.right) to.x1 = used.x1;
  if (sides.bottom) to.y1 = used.y1;
  return to;
}

void MapVerbs::cutToUsed(const HeldEdge& sides) {
  const Map* map = work_.map();
  if (!map) return;
  if (usedBounds(*map).empty()) return work_.refuse("Nothing is painted on this map");
  const CellRect to = leftByCutting(sides);
  if (to == map->bounds) return work_.refuse("What is used reaches to the edge already");
  work_.step("Cut " + map->name + " to what is used", withBounds(work_.quilt(), map->id, to));
}

void MapVerbs::dropAllowance() {
  if (!work_.map()) return;
  const std::int64_t cells = allowanceCells(*work_.map());
  if (cells == 0) return work_.refuse("Nothing is painted outside this map's edges");
  work_.step("Drop " + std::to_string(cells) + " cells of the seam allowance of " + work_.map()->name, withoutAllowance(work_.quilt(), work_.desk().map));
}

void MapVerbs::mend(const SizeFinding& finding) {
  if (work_.map()) work_.step(finding.mend + " on " + work_.map()->name, finding.mended);
}

void MapVerbs::change(const std::string& what, Quilt after) {
  if (work_.map()) work_.step(what + " of " + work_.map()->name, std::move(after));
}

void MapVerbs::showBoard(bool on) {
  (void)work_.finish();
  Desk desk = work_.desk();
  desk.onBoard = on && !work_.quilt().maps().empty();
  work_.setDesk(std::move(desk));
}

std::set<Id> MapVerbs::fixedPieces() const {
  std::set<Id> fixed;
  for (const Shared<Map>& map : work_.quilt().maps()) {
    if (work_.damage(map->id)) fixed.insert(map->id);
  }
  return fixed;
}

void MapVerbs::movePieces(const std::set<Id>& maps, PixelPos by) {
  const Map* one = maps.empty() ? nullptr : work_.quilt().map(*maps.begin());
  if (!one) return;
  const std::string what = maps.size() == 1 ? one->name : std::to_string(maps.size()) + " pieces";
  work_.step("Move " + what + " on the Board", withPiecesMoved(work_.quilt(), maps, by, fixedPieces()));
}

std::vector<BoardLine> MapVerbs::dragPieces(const std::set<Id>& maps, PixelPos by, int reach) {
  const Map* one = maps.empty() ? nullptr : work_.quilt().map(*maps.begin());
  if (!one) return {};
  if (!work_.gesture()) {
    const std::string what = maps.size() == 1 ? one->name : std::to_string(maps.size()) + " pieces";
    if (!work_.begin("Move " + what + " on the Board", Gesture::changing(work_.quilt()))) return {};
  }
  const Quilt before = work_.gesture()->before();
  const Aligned to = reach < 0 ? Aligned{by, {}} : aligned(piecesOf(before), maps, by, reach);
  work_.gesture()->become(withPiecesMoved(before, maps, to.by, fixedPieces()));
  work_.show();
  return to.lines;
}

void MapVerbs::tidyBoard() { work_.step("Tidy the Board", withTidyBoard(work_.quilt(), fixedPieces())); }

void MapVerbs::goTo(Id id) {
  if (!work_.quilt().map(id)) return;
  (void)work_.finish();
  Desk desk = work_.desk();
  desk.map = id;
  desk.onBoard = false;
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
