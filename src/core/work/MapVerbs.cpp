#include "core/work/MapVerbs.h"

#include <algorithm>

#include "core/edit/Camera.h"
#include "core/edit/MapFacts.h"
#include "core/edit/RowsAndColumns.h"
#include "core/edit/Seams.h"

namespace uq {

namespace {

std::string piecesNamed(const Quilt& quilt, const std::set<Id>& maps) {
  const Map* one = maps.size() == 1 ? quilt.map(*maps.begin()) : nullptr;
  const ChalkPiece* chalk = maps.size() == 1 ? quilt.listed<ChalkPiece>(*maps.begin()) : nullptr;
  return one ? one->name : chalk ? chalk->name : std::to_string(maps.size()) + " pieces";
}

bool isPiece(const Quilt& quilt, Id id) { return quilt.map(id) || quilt.listed<ChalkPiece>(id); }

}  // namespace

void MapVerbs::add(const MapPlan& plan) {
  const MapAdded added = addMap(work_.quilt(), plan, work_.ids());
  if (!added.map.empty()) work_.step("New map " + plan.name, added.quilt, {added.map, {}});
}

void MapVerbs::duplicate() {
  if (!work_.map()) return;
  const MapAdded added = duplicateMap(work_.quilt(), work_.desk().map, work_.ids());
  work_.step("Duplicate " + work_.map()->name, added.quilt, {added.map, {}});
}

std::set<Id> MapVerbs::duplicate(const std::set<Id>& maps) {
  if (maps.empty()) return {};
  MapsAdded added = duplicateMaps(work_.quilt(), maps, work_.ids());
  Quilt after = std::move(added.quilt);
  std::set<Id> copies;
  for (const auto& [map, copied] : added.copies) copies.insert(copied);
  for (const Id one : maps) {
    const ChalkPiece* chalk = after.listed<ChalkPiece>(one);
    if (!chalk) continue;
    ChalkPiece copy = *chalk;
    copy.id = freshId(after, work_.ids());
    copy.name += " copy";
    copy.at.y += copy.at.h;
    copies.insert(copy.id);
    after = after.with(std::move(copy));
  }
  const auto done = work_.make({"Duplicate " + piecesNamed(work_.quilt(), maps), std::move(after), work_.desk().activeAt()});
  return done && *done ? copies : std::set<Id>();
}

void MapVerbs::rename(Id id, const std::string& name) {
  const Map* renamed = work_.quilt().map(id);
  if (renamed) work_.step("Rename " + renamed->name, renameMap(work_.quilt(), id, name));
}

void MapVerbs::remove(Id id) { remove(std::set<Id>{id}); }

void MapVerbs::remove(const std::set<Id>& maps) {
  Quilt after = work_.quilt();
  for (const Id map : maps) after = deleteMap(after, map).without<ChalkPiece>(map);
  if (after == work_.quilt()) return;
  // The next tab, else the one before, else any other map.
  const Desk& desk = work_.desk();
  Id next = desk.map;
  if (maps.contains(next)) {
    const auto stays = [&](Id map) { return !maps.contains(map); };
    const auto own = std::find(desk.openMaps.begin(), desk.openMaps.end(), desk.map);
    const auto later = std::find_if(own, desk.openMaps.end(), stays);
    const auto earlier = std::find_if(std::make_reverse_iterator(own), desk.openMaps.rend(), stays);
    next = later != desk.openMaps.end() ? *later : earlier != desk.openMaps.rend() ? *earlier : Id();
    if (next.empty() && !after.maps().empty()) next = after.maps().front()->id;
  }
  const auto active = desk.activeLayer.find(next);
  work_.step("Delete " + piecesNamed(work_.quilt(), maps), std::move(after),
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
  desk.onBoard = on;
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
  if (maps.empty() || !isPiece(work_.quilt(), *maps.begin())) return;
  work_.step("Move " + piecesNamed(work_.quilt(), maps) + " on the Board", withPiecesMoved(work_.quilt(), maps, by, fixedPieces()));
}

MapVerbs::Dragged MapVerbs::dragPieces(const std::set<Id>& maps, PixelPos by, const PieceDrag& how) {
  if (maps.empty() || !isPiece(work_.quilt(), *maps.begin())) return {};
  if (!work_.gesture() && !work_.begin("Move on the Board", Gesture::changing(work_.quilt()))) return {};
  const Quilt before = work_.gesture()->before();
  const std::set<Id> fixed = fixedPieces();
  const std::set<Id> moved = how.rips ? maps : withSewn(before, maps);
  const std::set<Id> torn = how.rips ? seamsAround(before, maps) : std::set<Id>();
  const Quilt from = torn.empty() ? before : ripped(withPlacesSaid(before, fixed), torn);
  const std::vector<Piece> pieces = piecesOf(from);
  Dragged dragged;
  if (how.sews && how.reach >= 0) dragged.stitch = stitchNear(from, pieces, moved, by, how.reach);
  Quilt now = from;
  const std::string what = piecesNamed(before, maps);
  std::string name = (torn.empty() ? "Move " : "Rip off and move ") + what + " on the Board";
  if (dragged.stitch) {
    if (dragged.stitch->why.empty()) now = sewnAt(from, moved, *dragged.stitch, work_.ids(), fixed);
    const Map* to = before.map(dragged.stitch->map);
    if (dragged.stitch->why.empty()) name = "Sew " + what + " to " + to->name;
  }
  if (!dragged.stitch || !dragged.stitch->why.empty()) {
    const Aligned to = how.reach < 0 ? Aligned{by, {}} : aligned(pieces, moved, by, how.reach);
    dragged.lines = to.lines;
    now = withPiecesMoved(from, moved, to.by, fixed);
  }
  work_.undoLine().rename(std::move(name));
  work_.gesture()->become(std::move(now));
  work_.show();
  return dragged;
}

void MapVerbs::sewNearest(const std::set<Id>& maps, int reach) {
  const Quilt& quilt = work_.quilt();
  const std::set<Id> moved = withSewn(quilt, maps);
  auto stitch = stitchNear(quilt, piecesOf(quilt), moved, {}, reach);
  if (!stitch) return work_.refuse("No edge that could be sewn is near: move the piece beside another one first");
  Quilt after = stitch->why.empty() ? sewnAt(quilt, moved, *stitch, work_.ids(), fixedPieces()) : quilt;
  if (!stitch->why.empty()) return work_.refuse(stitch->why);
  work_.step("Sew " + piecesNamed(quilt, maps) + " to " + quilt.map(stitch->map)->name, std::move(after));
}

void MapVerbs::rip(const std::set<Id>& maps) {
  const Quilt& quilt = work_.quilt();
  const std::set<Id> torn = seamsAround(quilt, maps);
  if (torn.empty()) return work_.refuse("Nothing is sewn to it");
  work_.step("Rip off " + piecesNamed(quilt, maps), ripped(withPlacesSaid(quilt, fixedPieces()), torn));
}

void MapVerbs::wrap(Id id, bool down) {
  const Map* map = work_.quilt().map(id);
  if (!map) return;
  const std::string way = down ? " down" : " across";
  if (wraps(work_.quilt(), id, down)) {
    std::set<Id> torn;
    for (const Shared<Seam>& seam : work_.quilt().seams()) {
      if (seam->wraps() && seam->map == id && (seam->by == kWrapsDown) == down) torn.insert(seam->id);
    }
    return work_.step(map->name + " wraps no longer" + way, ripped(work_.quilt(), torn));
  }
  Sewing done = wrapped(work_.quilt(), id, down, work_.ids());
  if (!done.why.empty()) return work_.refuse(done.why);
  work_.step("Wrap " + map->name + way, std::move(done.quilt));
}

void MapVerbs::tidyBoard() { work_.step("Tidy the Board", withTidyBoard(work_.quilt(), fixedPieces())); }

Id MapVerbs::addDrawn(const DrawnPiece& drawn, const MapPlan& plan, int carried) {
  if (const std::string why = whyNoMap(plan); !why.empty()) {
    work_.refuse(why);
    return {};
  }
  std::string unsewn;
  const MapAdded added = uq::addDrawn(work_.quilt(), drawn, plan, carried, work_.ids(), &unsewn);
  if (added.map.empty()) return {};
  const LayerAt active = work_.desk().activeAt();
  const auto done = work_.make({(drawn.chalk.empty() ? "New map " : "Cut ") + plan.name, added.quilt,
                                active.map.empty() ? LayerAt{added.map, {}} : active});
  if (!unsewn.empty()) work_.refuse(unsewn);
  return done && *done ? added.map : Id();
}

Id MapVerbs::addChalk(const PixelRect& at) {
  Id made;
  Quilt after = withChalk(work_.quilt(), at, work_.ids(), &made);
  const std::string name = after.listed<ChalkPiece>(made)->name;
  const auto done = work_.make({"Chalk " + name, std::move(after), work_.desk().activeAt()});
  return done && *done ? made : Id();
}

void MapVerbs::sayChalk(Id chalk, const std::string& name, const std::string& note) {
  const ChalkPiece* piece = work_.quilt().listed<ChalkPiece>(chalk);
  if (!piece) return;
  const bool renames = piece->name != name;
  work_.step((renames ? "Rename " : "Note on ") + piece->name, withChalkSaid(work_.quilt(), chalk, name, note, piece->done));
}

void MapVerbs::tick(const std::set<Id>& chalk) {
  Quilt after = work_.quilt();
  std::set<Id> ticked;
  bool all = true;
  for (const Id id : chalk) {
    const ChalkPiece* piece = after.listed<ChalkPiece>(id);
    if (piece) ticked.insert(id);
    all = all && (!piece || piece->done);
  }
  for (const Id id : ticked) {
    const ChalkPiece piece = *after.listed<ChalkPiece>(id);
    after = withChalkSaid(after, id, piece.name, piece.note, !all);
  }
  work_.step((all ? "No tick on " : "Tick ") + piecesNamed(work_.quilt(), ticked), std::move(after));
}

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
