#include "core/store/QuiltReader.h"

#include <algorithm>
#include <deque>
#include <future>
#include <memory>
#include <thread>

#include "core/edit/SewnMaps.h"
#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/JsonText.h"
#include "core/store/LinksText.h"
#include "core/store/PinsText.h"
#include "core/store/PlanText.h"
#include "core/store/StampText.h"
#include "core/store/StoreLimits.h"
#include "core/store/TilesText.h"

namespace uq {

void QuiltReader::notRead(Error error) {
  read_.isWhole = false;
  if (error.cause == Error::Cause::newer) error.todo = "Open the quilt with a newer version of Urban Quilt";
  read_.problems.push_back(std::move(error));
}

void QuiltReader::leaveOut(const std::string& prefix, std::string_view text) {
  read_.leftOut.insert(prefix);
  TakenNames taken = read_.quilt.taken();
  const std::string folder = folderOf(prefix);
  const std::string name = nameOf(prefix);
  PartKinds::forEach([&]<class Part>() {
    if (folder != kFolderOf<Part>) return;
    // A sheet is several files of one name.
    const std::string own = std::is_same_v<Part, Sheet> ? name.substr(0, name.find('.')) : name;
    taken.byKind[PartKinds::numberOf<Part>()].push_back(own);
  });
  // A text that is broken somewhere else still tells its ids.
  for (auto at = text.find("\"id\""); at != std::string_view::npos; at = text.find("\"id\"", at + 4)) {
    const auto quote = text.find('"', at + 4);
    if (quote == std::string_view::npos) break;
    if (const auto id = Id::parse(text.substr(quote + 1, Id::kLength))) taken.ids.insert(*id);
  }
  read_.quilt.setTaken(std::move(taken));
}

void QuiltReader::leaveOut(const std::string& prefix, std::string_view text, Error why, std::string kept) {
  leaveOut(prefix, text);
  if (why.todo.empty()) why.todo = "Mend the file and open the quilt again";
  notRead(std::move(why).keeping(std::move(kept)));
}

QuiltRead QuiltReader::readAll() {
  const std::string file(kQuiltFile);
  Result<QuiltFacts> facts = fail(Error{});
  const auto text = folder_.read(file, kLargestDocument);
  if (!text) {
    facts = fail(text.error());
  } else if (const auto json = readJson(*text, file); !json) {
    facts = fail(json.error());
  } else {
    facts = readQuiltDocument(*json, file);
  }
  if (!facts) {
    Error error = facts.error();
    error.kept = "The maps and sheets that can be read are shown, and nothing will be written";
    if (error.todo.empty()) error.todo = "Mend the file and open the quilt again";
    notRead(error);
    read_.unwritable = error;
    QuiltFacts standIn;
    standIn.name = nameOf(folder_.path());
    facts = std::move(standIn);
  }
  read_.quilt = Quilt(std::move(*facts));
  const SheetSlots slots = before_ ? before_->quilt.slots() : SheetSlots();
  for (SheetSlot slot = 1; slot <= slots.count(); ++slot) (void)read_.quilt.slotFor(slots.sheet(slot), slots.code(slot));
  readSheets();
  readStamps();
  readEdgings();
  readTargets();
  readLinks();
  readPlan();
  for (const std::string& folder : names(std::string(kFolderOf<Map>), Disk::Kind::folder)) {
    if (!progress_.isCancelled()) readMap(folder);
  }
  if (!progress_.isCancelled()) checkSeams();
  readAllCells();
  return std::move(read_);
}

std::int64_t QuiltReader::sizeOf(const Map& map) {
  std::int64_t size = 0;
  for (const Shared<Layer>& layer : map.layers) {
    const auto stamp = folder_.stamp(cellsFile(map, layer.read()));
    if (stamp && *stamp) size += (*stamp)->size;
  }
  return size;
}

void QuiltReader::readAllCells() {
  struct ToRead {
    Id map;
    std::int64_t size;
  };
  std::vector<ToRead> maps;
  std::set<Id> coming;
  std::int64_t left = 0;
  for (const Shared<Map>& map : read_.quilt.maps()) {
    maps.push_back({map->id, sizeOf(map.read())});
    coming.insert(map->id);
    left += maps.back().size;
  }
  progress_.expect(left);
  if (onlooker_.looks()) {
    const Id first = onlooker_.first(read_.quilt);
    std::stable_partition(maps.begin(), maps.end(), [&](const ToRead& one) { return one.map == first; });
  }
  for (const ToRead& one : maps) {
    if (progress_.isCancelled()) return;
    Map map = *read_.quilt.map(one.map);
    readCellsOf(map);
    read_.quilt = read_.quilt.with(std::move(map));
    coming.erase(one.map);
    left -= one.size;
    if (onlooker_.looks() && !coming.empty() && left >= onlooker_.worth && !progress_.isCancelled())
      onlooker_.see({read_.quilt, coming, read_.damaged});
  }
}

std::vector<std::string> QuiltReader::names(const std::string& path, Disk::Kind kind) {
  std::vector<std::string> found;
  const auto refuseLink = [&](const std::string& link) {
    leaveOut(link, {});
    notRead(Error{Error::Cause::broken, std::string(kLinkReason), link, 0, "What it leads to was not read",
                  std::string(kLinkAdvice)});
  };
  const auto inQuilt = folder_.list("");
  const auto isLink = [&](const Disk::Entry& e) { return e.name == path && e.kind == Disk::Kind::link; };
  if (inQuilt && std::any_of(inQuilt->begin(), inQuilt->end(), isLink)) {
    refuseLink(path);
    return found;
  }
  const auto entries = folder_.list(path);
  if (!entries) {
    notRead(entries.error());
    return found;
  }
  for (const auto& entry : *entries) {
    if (entry.kind == Disk::Kind::link) refuseLink(joined(path, entry.name));
    if (entry.kind != kind) continue;
    if (isPlainName(entry.name)) {
      found.push_back(entry.name);
    } else {
      leaveOut(joined(path, entry.name), {});
      notRead(Error{Error::Cause::broken, "a name in it is no text of at most 200 bytes in UTF-8", path, 0,
                    "What has that name is left out, and stays as it is", "Give it another name"});
    }
  }
  return found;
}

void QuiltReader::readMap(const std::string& folder) {
  const std::string file = "maps/" + folder + "/map.json";
  const auto text = folder_.read(file, kLargestDocument);
  if (!text && text.error().cause == Error::Cause::missing) {
    // What a map that was deleted leaves behind is no broken map.
    const auto left = folder_.list("maps/" + folder);
    if (left && left->empty()) return;
  }
  const auto json = text ? readJson(*text, file) : Result<Json>(fail(text.error()));
  auto map = unlessTaken(json ? readMapDocument(*json, file) : Result<Map>(fail(json.error())), file);
  if (!map) {
    leaveOut("maps/" + folder, text ? *text : std::string(), map.error(), "The map is left out, and its files stay as they are");
    return;
  }
  map->folder = folder;
  read_.quilt = read_.quilt.with(std::move(*map));
}

void QuiltReader::readCellsOf(Map& map) {
  const std::size_t most = std::max(1u, std::thread::hardware_concurrency());
  std::deque<UnderWay> underWay;
  const auto take = [&] {
    UnderWay one = std::move(underWay.front());
    underWay.pop_front();
    takeCells(map, one);
  };
  for (std::size_t i = 0; i < map.layers.size() && !progress_.isCancelled(); ++i) {
    const Layer& layer = map.layers[i].read();
    if (layer.kind == LayerKind::backdrop) checkBackdrop(map, layer);
    const bool holdsTiles = layer.holdsTiles();
    if (layer.holdsPins()) readPinsOf(map, i);  // which leaves `layer` behind
    if (!holdsTiles || takesAsBefore(map, i)) continue;
    while (underWay.size() >= most) take();
    underWay.push_back(beginCells(map, i));
  }
  while (!underWay.empty()) take();
}

void QuiltReader::readPinsOf(Map& map, std::size_t at) {
  if (map.layers[at]->file.empty()) return;  // before 1.10 there were none
  const std::string file = pinsFile(map, map.layers[at].read());
  auto pins = readPins(folder_.read(file, kLargestDocument), file);
  if (pins) return map.layers[at].edit([&](Layer& layer) { layer.pins = Shared(std::move(*pins)); });
  takeDamage(map.id, pins.error());
}

void QuiltReader::takeDamage(Id map, Error error) {
  error.kept = "What could be read of the map is shown; it cannot be changed, and its files stay as they are";
  error.todo = "Mend the file and open the quilt again";
  notRead(error);
  read_.damaged.emplace(map, std::move(error));
}

void QuiltReader::checkBackdrop(const Map& map, const Layer& layer) {
  const Id hung = layer.backdrop.sheet;
  if (hung.empty() || read_.quilt.sheet(hung)) return;
  read_.problems.push_back(Error{Error::Cause::missing, "the sheet " + hung.text() + " is not in this quilt",
                                 mapFile(map), 0, "The backdrop \"" + layer.name + "\" stays, and shows nothing",
                                 "Bring the sheet's files back into the folder \"sheets\""});
}

bool QuiltReader::takesAsBefore(Map& map, std::size_t at) {
  if (!before_ || !before_->isSame) return false;
  const Map* was = before_->quilt.map(map.id);
  const Layer* layer = was ? was->layer(map.layers[at]->id) : nullptr;
  if (!layer || !layer->holdsTiles() || was->grid != map.grid) return false;
  const std::string file = cellsFile(*was, *layer);
  const std::string lifts = liftsFile(*was, *layer);
  const std::string meant = meantFile(*was, *layer);
  const Layer& here = map.layers[at].read();
  if (cellsFile(map, here) != file || liftsFile(map, here) != lifts || !before_->isSame(lifts) || !before_->isSame(meant)) return false;
  CellGrid cells = layer->cells;
  if (!before_->isSame(file)) {
    const auto patch = before_->patch ? before_->patch(file) : std::nullopt;
    if (!patch) return false;
    const CellsRead read = readCells(patch->text, read_.quilt, makeGrid(map.grid)->turnOrder(), file);
    if (read.error) return false;  // told when it is read as a whole
    for (const auto& [x, y] : patch->chunks) cells.setChunk({x, y}, read.cells.chunk({x, y}).cells());
  }
  const auto stamp = folder_.stamp(file);
  if (stamp && *stamp) progress_.step((*stamp)->size);
  map.layers[at].edit([&](Layer& now) {
    now.cells = std::move(cells);
    now.lifts = layer->lifts;
    now.meant = layer->meant;
  });
  return true;
}

// Reads the files of a layer here, and begins to parse them on another thread.
QuiltReader::UnderWay QuiltReader::beginCells(const Map& map, std::size_t layer) {
  UnderWay one;
  one.layer = layer;
  one.path = cellsFile(map, map.layers[layer].read());
  one.liftsPath = liftsFile(map, map.layers[layer].read());
  one.meantPath = meantFile(map, map.layers[layer].read());
  auto cells = folder_.read(one.path, kLargestCells);
  auto lifts = folder_.read(one.liftsPath, kLargestCells);
  auto meant = folder_.read(one.meantPath, kLargestCells);
  if (!cells) one.failed = cells.error();
  if (!lifts && lifts.error().cause != Error::Cause::missing) one.liftsFailed = lifts.error();
  if (!meant && meant.error().cause != Error::Cause::missing) one.meantFailed = meant.error();
  if (cells) one.text = std::make_shared<const std::string>(std::move(*cells));
  one.parsing =
      std::async(std::launch::async,
                 [quilt = read_.quilt, text = one.text, path = one.path,
                  lifted = lifts ? std::move(*lifts) : std::string(), hasLifts = lifts.has_value(),
                  meantText = meant ? std::move(*meant) : std::string(), hasMeant = meant.has_value(), meantPath = one.meantPath,
                  liftsPath = one.liftsPath, order = makeGrid(map.grid)->turnOrder(), bounds = map.bounds]() mutable {
                   Parsed parsed;
                   if (text) parsed.cells = readCells(*text, quilt, order, path);
                   if (hasLifts) parsed.lifts = readNumbers(lifted, kMostLift, liftsPath);
                   if (hasMeant) parsed.meant = readNumbers(meantText, NumberGrid::kMost, meantPath);
                   parsed.missing = missingOf(parsed.cells.cells, bounds, quilt);
                   parsed.slots = quilt.slots();
                   return parsed;
                 });
  return one;
}

void QuiltReader::takeCells(Map& map, UnderWay& one) {
  Parsed parsed = one.parsing.get();
  if (one.text) progress_.step(static_cast<std::int64_t>(one.text->size()));
  if (one.text && !(parsed.slots == read_.quilt.slots())) {
    // It names sheets that this quilt does not have: their slots are given in the order of the layers.
    parsed.cells = readCells(*one.text, read_.quilt, makeGrid(map.grid)->turnOrder(), one.path);
    parsed.missing = missingOf(parsed.cells.cells, map.bounds, read_.quilt);
  }
  if (one.failed) parsed.cells.error = one.failed;
  if (one.liftsFailed) parsed.lifts.error = one.liftsFailed;
  if (one.meantFailed) parsed.meant.error = one.meantFailed;
  for (auto* error : {&parsed.cells.error, &parsed.lifts.error, &parsed.meant.error}) {
    if (*error) takeDamage(map.id, std::move(**error));
  }
  for (const auto& [slot, count] : parsed.missing) {
    read_.problems.push_back(
        Error{Error::Cause::missing, "the sheet " + read_.quilt.slots().sheet(slot).text() + " is not in this quilt",
              one.path, 0, std::to_string(count) + " cells painted with it are kept and shown as placeholders",
              "Bring the sheet's files back into the folder \"sheets\""});
  }
  map.layers[one.layer].edit([&](Layer& layer) {
    layer.cells = std::move(parsed.cells.cells);
    layer.lifts = std::move(parsed.lifts.numbers);
    layer.meant = std::move(parsed.meant.numbers);
  });
}

QuiltRead readQuilt(QuiltFolder& folder, Progress& progress, const Onlooker& onlooker, const ReadBefore* before) {
  return QuiltReader(folder, progress, onlooker, before).readAll();
}

}  // namespace uq
