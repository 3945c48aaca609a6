#include "core/store/QuiltStore.h"

#include <algorithm>
#include <array>
#include <functional>

#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/JsonText.h"
#include "core/store/StampText.h"
#include "core/store/TilesText.h"

namespace uq {

namespace {

constexpr std::int64_t kLargestDocument = std::int64_t{64} << 20;  // bytes
constexpr std::int64_t kLargestCells = std::int64_t{2} << 30;
constexpr std::int64_t kLargestPictureFile = std::int64_t{512} << 20;
constexpr std::size_t kMostNames = 100'000;  // in one folder
constexpr std::string_view kJsonEnding = ".json";

// FNV-1a, 64 bits (Fowler, Noll, Vo): tells whether bytes changed by accident or by another program, not by malice.
std::uint64_t hashOf(std::string_view bytes) {
  std::uint64_t hash = 0xcbf29ce484222325u;
  for (char c : bytes) hash = (hash ^ static_cast<unsigned char>(c)) * 0x100000001b3u;
  return hash;
}

// One file of a layer and what is written into it; `path` is empty where the layer needs none.
struct LayerFile {
  std::string path;
  std::function<std::string()> text;
};

// What is laid, and what is lifted.
std::array<LayerFile, 2> filesOf(const Map& map, const Shared<Layer>& layer, const Quilt& quilt) {
  const bool lifts = !layer->lifts.empty();
  if (!layer->holdsTiles()) return {};
  return {LayerFile{cellsFile(map, layer.read()), [&layer, &quilt] { return writeCells(layer->cells, quilt); }},
          LayerFile{lifts ? liftsFile(map, layer.read()) : "", [&layer] { return writeNumbers(layer->lifts); }}};
}

// Calls visit(LayerFile) for each file of the layers of a quilt.
template <class Visit>
void forEachLayerFile(const Quilt& quilt, Visit&& visit) {
  for (const auto& map : quilt.maps()) {
    for (const Shared<Layer>& layer : map->layers) {
      for (const LayerFile& file : filesOf(map.read(), layer, quilt)) {
        if (!file.path.empty()) visit(file);
      }
    }
  }
}

// Calls visit(path, source) for each picture of a sheet.
template <class Visit>
void forEachPicture(const Sheet& sheet, Visit&& visit) {
  if (!sheet.isCollection()) visit(pictureFile(sheet), sheet.source);
  for (const CollectedPicture& one : sheet.collection) visit(pictureFile(sheet, one), one.source);
}

std::string jsonOf(const Sheet& sheet) { return writeJson(sheetDocument(sheet)); }

void addSheetFiles(const Sheet& sheet, std::set<std::string>& files) {
  files.insert(sheetFile(sheet));
  if (!writeTiles(sheet).empty()) files.insert(tilesFile(sheet));
  forEachPicture(sheet, [&files](const std::string& path, const PictureBytes&) { files.insert(path); });
}

std::string folderOf(const std::string& path) { return path.substr(0, path.rfind('/')); }

std::string nameOf(const std::string& path) {
  const auto end = path.find_last_not_of('/');
  if (end == std::string::npos) return path;
  return path.substr(path.find_last_of('/', end) + 1, end - path.find_last_of('/', end));
}

}  // namespace

QuiltStore::QuiltStore(std::shared_ptr<Disk> disk, std::string folder)
    : disk_(std::move(disk)), folder_(std::move(folder)) {}

Result<QuiltStore::Opened> QuiltStore::open(std::shared_ptr<Disk> disk, const std::string& folder, Access access,
                                            Progress* progress) {
  Progress unseen;
  Progress& steps = progress ? *progress : unseen;
  QuiltStore store(std::move(disk), folder);
  const auto there = store.disk_->stamp(store.full(std::string(kQuiltFile)));
  if (!there) return fail(there.error());
  if (!*there) {
    return fail(Error{Error::Cause::missing,
                      "there is no quilt here (no quilt.json)",
                      folder,
                      0,
                      {},
                      "Choose the folder that holds quilt.json"});
  }
  Errors problems;
  if (access == Access::write) store.readOnly_ = store.takeLock();
  if (auto settled = store.settleJournal(); !settled) return fail(settled.error());
  if (access == Access::write && !store.readOnly_) store.removeLeftovers();
  if (store.readOnly_) problems.push_back(*store.readOnly_);
  Quilt quilt = store.readAll(problems, steps);
  if (steps.isCancelled()) return fail(Error::Cause::cancelled, "opening was cancelled", folder);
  if (access == Access::read) {
    store.readOnly_ = Error{Error::Cause::notPermitted, "the quilt was opened for reading only", folder, 0, {}, {}};
  }
  store.saved_ = quilt;
  return Opened{std::move(store), std::move(quilt), std::move(problems)};
}

Result<QuiltStore::Opened> QuiltStore::create(std::shared_ptr<Disk> disk, const std::string& folder, const Quilt& quilt,
                                              Progress* progress) {
  Progress unseen;
  if (auto made = disk->makeFolder(folder); !made) return fail(made.error());
  const auto there = disk->list(folder, kMostNames);
  if (!there) return fail(there.error());
  if (!there->empty()) {
    return fail(Error{Error::Cause::notPermitted, "the folder is not empty", folder, 0, "Nothing was written",
                      "Choose an empty or a new folder"});
  }
  QuiltStore store(disk, folder);
  if (auto locked = store.takeLock()) return fail(*locked);

  const Planned planned = store.plan(quilt);
  bool committed = false;
  if (auto done = store.carryOut(planned, progress ? *progress : unseen, committed); !done) return fail(done.error());
  store.saved_ = quilt;
  return Opened{std::move(store), quilt, {}};
}

std::optional<Error> QuiltStore::takeLock() {
  const std::string folder = full(std::string(kPrivateFolder));
  auto made = disk_->makeFolder(folder);
  if (made) {
    auto lock = disk_->lock(joined(folder, "lock"));
    if (lock) {
      lock_ = std::move(*lock);
      // Keeps lock and journal out of every version-control repository.
      const std::string ignore = joined(folder, ".gitignore");
      const auto there = disk_->stamp(ignore);
      if (there && !*there) made = disk_->write(ignore, "*\n");
      if (made) return std::nullopt;
    } else {
      made = fail(lock.error());
    }
  }
  Error error = made.error();
  if (error.cause == Error::Cause::notPermitted) {
    error.file = folder_;
    error.reason = "nothing may be written in this folder";
  }
  error.kept = "The quilt can be looked at, but not saved here";
  if (error.todo.empty()) error.todo = "Save it somewhere else to change it";
  return error;
}

Result<void> QuiltStore::settleJournal() {
  auto journal = readJournal(*disk_, folder_);
  if (!journal) return fail(journal.error());
  if (!*journal) return {};
  std::unique_ptr<Disk::Lock> ours;
  if (!lock_) {
    auto lock = disk_->lock(full(joined(kPrivateFolder, "lock")));
    if (!lock) {
      pending_ = std::move(**journal);
      return {};
    }
    ours = std::move(*lock);
  }
  auto done = finishJournal(*disk_, folder_, **journal);
  if (done || lock_) return done;
  pending_ = std::move(**journal);
  return {};
}

// Reads a file of the quilt, through a committed save that could not be finished.
Result<std::string> QuiltStore::read(const std::string& path, std::int64_t most) {
  std::string source = path;
  if (pending_) {
    const auto& gone = pending_->removes;
    if (std::find(gone.begin(), gone.end(), path) != gone.end()) {
      return fail(Error::Cause::missing, "it does not exist", path);
    }
    for (const auto& move : pending_->moves) {
      if (move.to == path) source = move.from;
    }
    const auto& writes = pending_->writes;
    if (std::find(writes.begin(), writes.end(), path) != writes.end()) source = newNameFor(path);
    const auto there = disk_->stamp(full(source));
    if (there && !*there) source = path;
  }
  auto bytes = disk_->read(full(source), most);
  if (!bytes) {
    Error error = bytes.error();
    error.file = path;
    return fail(std::move(error));
  }
  remember(path, hashOf(*bytes));
  return bytes;
}

Result<std::vector<Disk::Entry>> QuiltStore::list(const std::string& path) {
  auto entries = disk_->list(full(path), kMostNames);
  if (!entries && entries.error().cause == Error::Cause::missing) return std::vector<Disk::Entry>{};
  if (!entries) {
    Error error = entries.error();
    error.file = path;
    return fail(std::move(error));
  }
  if (pending_) {
    const auto drop = [&](const std::string& gone) {
      std::erase_if(*entries, [&](const Disk::Entry& e) { return joined(path, e.name) == gone; });
    };
    const auto add = [&](const std::string& fresh) {
      if (folderOf(fresh) != path) return;
      drop(fresh);
      entries->push_back({nameOf(fresh), Disk::Kind::file});
    };
    for (const auto& write : pending_->writes) add(write);
    for (const auto& move : pending_->moves) {
      drop(move.from);
      add(move.to);
    }
    for (const auto& gone : pending_->removes) drop(gone);
    std::sort(entries->begin(), entries->end(), [](const auto& a, const auto& b) { return a.name < b.name; });
  }
  std::erase_if(*entries, [](const Disk::Entry& e) { return e.name.starts_with('.'); });
  return entries;
}

void QuiltStore::remember(const std::string& path, std::uint64_t hash) {
  const auto stamp = disk_->stamp(full(path));
  if (stamp && *stamp) seen_[path] = {**stamp, hash};
}

void QuiltStore::sawPicture(const std::string& path, std::string_view bytes) { remember(path, hashOf(bytes)); }

// New files of a save that never reached its commit.
void QuiltStore::removeLeftovers() {
  const auto sweep = [&](const std::string& folder) {
    const auto entries = disk_->list(full(folder), kMostNames);
    if (!entries) return;
    for (const auto& entry : *entries) {
      const bool ours = entry.kind == Disk::Kind::file && entry.name.starts_with('.') && entry.name.ends_with(".new");
      if (ours) (void)disk_->remove(full(joined(folder, entry.name)));
    }
  };
  sweep("");
  sweep("sheets");
  const auto sheets = disk_->list(full("sheets"), kMostNames);
  for (const auto& entry : sheets.value_or(std::vector<Disk::Entry>())) {
    if (entry.kind == Disk::Kind::folder) sweep(joined("sheets", entry.name));
  }
  for (const std::string parent : {"maps", "stamps"}) {
    const auto folders = disk_->list(full(parent), kMostNames);
    for (const auto& entry : folders.value_or(std::vector<Disk::Entry>())) {
      if (entry.kind == Disk::Kind::folder) sweep(joined(parent, entry.name));
    }
  }
}

void QuiltStore::notRead(Errors& problems, Error error) {
  whole_ = false;
  if (error.cause == Error::Cause::newer) error.todo = "Open the quilt with a newer version of Urban Quilt";
  problems.push_back(std::move(error));
}

Quilt QuiltStore::readAll(Errors& problems, Progress& progress) {
  const std::string file(kQuiltFile);
  Result<QuiltFacts> facts = fail(Error{});
  const auto text = read(file, kLargestDocument);
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
    notRead(problems, error);
    if (!readOnly_) readOnly_ = error;
    QuiltFacts standIn;
    standIn.name = nameOf(folder_);
    facts = std::move(standIn);
  }
  Quilt quilt(std::move(*facts));
  readSheets(quilt, problems);
  const auto maps = names("maps", Disk::Kind::folder, problems);
  for (const std::string& folder : maps) {
    const auto files = list("maps/" + folder);
    if (!files) continue;
    for (const Disk::Entry& entry : *files) {
      const auto stamp = disk_->stamp(full("maps/" + folder + "/" + entry.name));
      if (stamp && *stamp) progress.expect((*stamp)->size);
    }
  }
  for (const std::string& folder : maps) {
    if (!progress.isCancelled()) readMap(folder, quilt, problems, progress);
  }
  readStamps(quilt, problems);
  return quilt;
}

std::vector<std::string> QuiltStore::names(const std::string& path, Disk::Kind kind, Errors& problems) {
  std::vector<std::string> found;
  const auto refuseLink = [&](const std::string& link) {
    notRead(problems, Error{Error::Cause::broken, std::string(kLinkReason), link, 0, "What it leads to was not read",
                            std::string(kLinkAdvice)});
  };
  const auto inQuilt = list("");
  const auto isLink = [&](const Disk::Entry& e) { return e.name == path && e.kind == Disk::Kind::link; };
  if (inQuilt && std::any_of(inQuilt->begin(), inQuilt->end(), isLink)) {
    refuseLink(path);
    return found;
  }
  const auto entries = list(path);
  if (!entries) {
    notRead(problems, entries.error());
    return found;
  }
  for (const auto& entry : *entries) {
    if (entry.kind == kind) found.push_back(entry.name);
    if (entry.kind == Disk::Kind::link) refuseLink(joined(path, entry.name));
  }
  return found;
}

void QuiltStore::readSheets(Quilt& quilt, Errors& problems) {
  for (const std::string& name : names("sheets", Disk::Kind::file, problems)) {
    if (!name.ends_with(kJsonEnding)) continue;
    const std::string file = joined("sheets", name);
    const auto text = read(file, kLargestDocument);
    const auto json = text ? readJson(*text, file) : Result<Json>(fail(text.error()));
    auto sheet = json ? readSheetDocument(*json, file) : Result<Sheet>(fail(json.error()));
    if (sheet && quilt.sheet(sheet->id)) {
      sheet = fail(Error::Cause::broken, "its id is that of the sheet \"" + quilt.sheet(sheet->id)->name + "\"", file);
    }
    if (!sheet) {
      notRead(problems, Error(sheet.error())
                            .keeping("Its tiles stay where they are painted, shown as labelled placeholders")
                            .advising("Mend the file and open the quilt again"));
      continue;
    }
    sheet->file = name.substr(0, name.size() - kJsonEnding.size());
    if (const auto tiles = readPlaces(*sheet); !tiles) {
      notRead(problems, Error(tiles.error())
                            .keeping("Its tiles stay where they are painted, shown as labelled placeholders")
                            .advising("Mend the file, or delete it if the sheet was never cut anew"));
      continue;
    }
    readPictures(*sheet, problems);
    quilt = quilt.with(std::move(*sheet));
  }
}

void QuiltStore::readStamps(Quilt& quilt, Errors& problems) {
  const ReadFile readFile = [this](const std::string& path) -> Result<std::optional<std::string>> {
    auto text = read(path, kLargestCells);
    if (text) return std::optional(std::move(*text));
    if (text.error().cause == Error::Cause::missing) return std::optional<std::string>();
    return fail(text.error());
  };
  for (const std::string& folder : names("stamps", Disk::Kind::folder, problems)) {
    const auto left = list("stamps/" + folder);
    if (left && left->empty()) continue;  // what a stamp that was deleted leaves behind
    auto stamp = readStamp(folder, quilt, readFile);
    if (stamp && quilt.stamp(stamp->id)) {
      stamp = fail(Error::Cause::broken, "its id is that of the stamp \"" + quilt.stamp(stamp->id)->name + "\"",
                   "stamps/" + folder + "/stamp.json");
    }
    if (!stamp) {
      notRead(problems, Error(stamp.error())
                            .keeping("The stamp is left out, and its files stay as they are")
                            .advising("Mend the file and open the quilt again"));
      continue;
    }
    quilt = quilt.with(std::move(*stamp));
  }
}

Result<void> QuiltStore::readPlaces(Sheet& sheet) {
  const std::string file = tilesFile(sheet);
  const auto text = read(file, kLargestDocument);
  if (!text && text.error().cause == Error::Cause::missing) return {};
  return text ? readTiles(*text, file, sheet) : Result<void>(fail(text.error()));
}

// A picture that is missing or cannot be read stays blank, and its tiles stay.
void QuiltStore::readPictures(Sheet& sheet, Errors& problems) {
  const auto readOne = [&](const std::string& path, PictureBytes& source) {
    auto bytes = read(path, kLargestPictureFile);
    if (bytes) {
      source = PictureBytes(std::move(*bytes));
    } else {
      Error error = bytes.error();
      error.kept = "The tiles of \"" + sheet.name + "\" stay where they are painted, shown as labelled placeholders";
      error.todo = "Put the picture back, or point to it on the Table";
      problems.push_back(std::move(error));
    }
  };
  if (!sheet.isCollection()) readOne(pictureFile(sheet), sheet.source);
  for (CollectedPicture& one : sheet.collection) readOne(pictureFile(sheet, one), one.source);
}

void QuiltStore::readMap(const std::string& folder, Quilt& quilt, Errors& problems, Progress& progress) {
  const std::string file = "maps/" + folder + "/map.json";
  const auto text = read(file, kLargestDocument);
  if (!text && text.error().cause == Error::Cause::missing) {
    // What a map that was deleted leaves behind is no broken map.
    const auto left = list("maps/" + folder);
    if (left && left->empty()) return;
  }
  const auto json = text ? readJson(*text, file) : Result<Json>(fail(text.error()));
  auto map = json ? readMapDocument(*json, file) : Result<Map>(fail(json.error()));
  if (map && quilt.map(map->id)) {
    map = fail(Error::Cause::broken, "its id is that of the map \"" + quilt.map(map->id)->name + "\"", file);
  }
  if (!map) {
    notRead(problems, Error(map.error())
                          .keeping("The map is left out, and its files stay as they are")
                          .advising("Mend the file and open the quilt again"));
    return;
  }
  map->folder = folder;
  const int turnOrder = makeGrid(map->grid)->turnOrder();
  for (Shared<Layer>& layer : map->layers) {
    if (progress.isCancelled()) return;
    if (!layer->holdsTiles()) {
      const Id hung = layer->backdrop.sheet;
      if (!hung.empty() && !quilt.sheet(hung)) {
        problems.push_back(Error{Error::Cause::missing, "the sheet " + hung.text() + " is not in this quilt",
                                 mapFile(*map), 0, "The backdrop \"" + layer->name + "\" stays, and shows nothing",
                                 "Bring the sheet's files back into the folder \"sheets\""});
      }
      continue;
    }
    const std::string cellsPath = cellsFile(*map, layer.read());
    const auto cellsText = read(cellsPath, kLargestCells);
    CellsRead cells;
    if (cellsText) {
      cells = readCells(*cellsText, quilt, turnOrder, cellsPath);
      progress.step(static_cast<std::int64_t>(cellsText->size()));
    } else {
      cells.error = cellsText.error();
    }
    const std::string liftsPath = liftsFile(*map, layer.read());
    const auto liftsText = read(liftsPath, kLargestCells);
    NumbersRead lifts;
    if (liftsText) {
      lifts = readNumbers(*liftsText, kMostLift, liftsPath);
    } else if (liftsText.error().cause != Error::Cause::missing) {
      lifts.error = liftsText.error();
    }
    for (auto* error : {&cells.error, &lifts.error}) {
      if (!*error) continue;
      (*error)->kept = "What could be read of the map is shown; it cannot be changed, and its files stay as they are";
      (*error)->todo = "Mend the file and open the quilt again";
      notRead(problems, **error);
      damaged_.emplace(map->id, **error);
    }
    std::map<SheetSlot, std::int64_t> missing;
    for (const auto& [ref, count] : cells.cells.tally(map->bounds)) {
      if (!quilt.sheetAt(ref.slot)) missing[ref.slot] += count;
    }
    for (const auto& [slot, count] : missing) {
      problems.push_back(Error{Error::Cause::missing,
                               "the sheet " + quilt.slots().sheet(slot).text() + " is not in this quilt", cellsPath, 0,
                               std::to_string(count) + " cells painted with it are kept and shown as placeholders",
                               "Bring the sheet's files back into the folder \"sheets\""});
    }
    layer.edit([&](Layer& l) {
      l.cells = std::move(cells.cells);
      l.lifts = std::move(lifts.numbers);
    });
  }
  quilt = quilt.with(std::move(*map));
}

const Error* QuiltStore::damage(Id map) const {
  const auto found = damaged_.find(map);
  return found == damaged_.end() ? nullptr : &found->second;
}

QuiltStore::Planned QuiltStore::plan(const Quilt& quilt) const {
  Planned planned;
  if (!(quilt.facts() == saved_.facts()))
    planned.write(std::string(kQuiltFile), [&quilt] { return writeJson(quiltDocument(quilt.facts())); });

  std::set<std::string> old;
  std::set<std::string> now;
  for (const auto& sheet : saved_.sheets()) addSheetFiles(sheet.read(), old);
  for (const auto& sheet : quilt.sheets()) {
    addSheetFiles(sheet.read(), now);
    const Sheet* before = saved_.sheet(sheet->id);
    planSheet(sheet.read(), before, planned);
  }
  for (const auto& stamp : saved_.stamps()) {
    for (const TextFile& file : stampFiles(stamp.read(), saved_)) old.insert(file.path);
  }
  for (const auto& stamp : quilt.stamps()) {
    const Stamp* before = saved_.stamp(stamp->id);
    std::map<std::string, std::string> was;
    if (before) {
      for (TextFile& file : stampFiles(*before, saved_)) was.emplace(std::move(file.path), std::move(file.text));
    }
    for (TextFile& file : stampFiles(stamp.read(), quilt)) {
      now.insert(file.path);
      const auto same = was.find(file.path);
      if (same != was.end() && same->second == file.text) continue;
      planned.write(file.path, [text = std::move(file.text)] { return text; });
    }
  }
  for (const auto& map : saved_.maps()) old.insert(mapFile(map.read()));
  forEachLayerFile(saved_, [&](const LayerFile& file) { old.insert(file.path); });
  forEachLayerFile(quilt, [&](const LayerFile& file) { now.insert(file.path); });
  for (const auto& map : quilt.maps()) {
    now.insert(mapFile(map.read()));
    const Map* before = saved_.map(map->id);
    if (before && (before->revision.is(map->revision) || *before == map.read())) continue;
    planMap(map.read(), before, quilt, planned);
  }

  // A file that only changes its name is moved where neither name is anybody else's; else it is written again.
  auto& moves = planned.journal.moves;
  for (auto move = moves.begin(); move != moves.end();) {
    if (!old.contains(move->to) && !now.contains(move->from)) {
      old.erase(move->from);
      ++move;
      continue;
    }
    forEachLayerFile(quilt, [&](const LayerFile& file) {
      if (file.path == move->to) planned.write(file.path, file.text);
    });
    move = moves.erase(move);
  }
  for (const std::string& path : old) {
    if (!now.contains(path)) planned.journal.removes.push_back(path);
  }
  return planned;
}

void QuiltStore::planSheet(const Sheet& sheet, const Sheet* old, Planned& planned) const {
  const auto planText = [&](const std::string& path, std::string text, const std::string& was) {
    if (!text.empty() && text != was) planned.write(path, [text = std::move(text)] { return text; });
  };
  if (!old || !(*old == sheet)) {
    planText(sheetFile(sheet), jsonOf(sheet), old ? jsonOf(*old) : "");
    planText(tilesFile(sheet), writeTiles(sheet), old ? writeTiles(*old) : "");
  }
  std::map<std::string, PictureBytes> before;
  if (old) forEachPicture(*old, [&](const std::string& path, const PictureBytes& bytes) { before[path] = bytes; });
  forEachPicture(sheet, [&](const std::string& path, const PictureBytes& bytes) {
    const auto was = before.find(path);
    const bool same = was != before.end() && was->second == bytes;
    // A picture that somebody deleted is written again.
    const auto there = same && !bytes.isBlank() ? disk_->stamp(full(path)) : Result<std::optional<Disk::Stamp>>(Disk::Stamp());
    const bool isThere = !there || *there;
    if ((same && isThere) || bytes.isBlank() || planned.texts.contains(path)) return;
    planned.write(path, [bytes] { return bytes.read(); });
  });
}

void QuiltStore::planMap(const Map& map, const Map* old, const Quilt& quilt, Planned& planned) const {
  std::string document = writeJson(mapDocument(map));
  if (!old || mapFile(*old) != mapFile(map) || writeJson(mapDocument(*old)) != document) {
    planned.write(mapFile(map), [document] { return document; });
  }
  for (const Shared<Layer>& layer : map.layers) {
    const auto [cells, lifts] = filesOf(map, layer, quilt);
    if (cells.path.empty()) continue;
    const Layer* before = old ? old->layer(layer->id) : nullptr;
    const auto planFile = [&](const LayerFile& file, bool same, const std::string& was) {
      if (!same) {
        planned.write(file.path, file.text);
      } else if (was != file.path) {
        planned.journal.moves.push_back({was, file.path});
      }
    };
    planFile(cells, before && before->cells == layer->cells, before ? cellsFile(*old, *before) : "");
    if (lifts.path.empty()) continue;
    planFile(lifts, before && before->lifts == layer->lifts, before ? liftsFile(*old, *before) : "");
  }
}

Result<void> QuiltStore::checkUnchanged(const Planned& planned) {
  const auto check = [&](const std::string& path) -> Result<void> {
    const auto stamp = disk_->stamp(full(path));
    if (!stamp) return fail(stamp.error());
    const auto seen = seen_.find(path);
    const bool expected = seen != seen_.end();
    if (stamp->has_value() == expected && (!expected || **stamp == seen->second.stamp)) return {};
    if (*stamp && expected) {
      const auto bytes = disk_->read(full(path), kLargestCells);
      if (!bytes) return fail(bytes.error());
      if (hashOf(*bytes) == seen->second.hash) return {};
    }
    if (!*stamp && expected) return {};  // somebody removed it; writing it again loses nothing
    return fail(Error{Error::Cause::changedOutside, "another program wrote this file since the quilt was opened", path,
                      0, "Nothing was saved, and your work is still in the window",
                      "Save the quilt somewhere else, then compare the two"});
  };
  for (const auto& path : planned.journal.writes) {
    if (auto done = check(path); !done) return done;
  }
  for (const auto& path : planned.journal.removes) {
    if (auto done = check(path); !done) return done;
  }
  for (const auto& move : planned.journal.moves) {
    for (const auto& path : {move.from, move.to}) {
      if (auto done = check(path); !done) return done;
    }
  }
  return {};
}

Result<void> QuiltStore::carryOut(const Planned& planned, Progress& progress, bool& committed) {
  const auto undo = [&](Error error) -> Result<void> {
    for (const auto& path : planned.journal.writes) (void)disk_->remove(full(newNameFor(path)));
    error.kept = "The quilt on the disk is as it was, and your work is still in the window";
    return fail(std::move(error));
  };
  std::set<std::string> folders;
  for (const auto& path : planned.journal.writes) {
    if (path.find('/') != std::string::npos) folders.insert(folderOf(path));
  }
  for (const auto& move : planned.journal.moves) folders.insert(folderOf(move.to));
  for (const auto& folder : folders) {
    if (auto made = disk_->makeFolder(full(folder)); !made) return undo(made.error());
  }
  const auto cancelled = [] { return Error{Error::Cause::cancelled, "saving was cancelled", {}, 0, {}, {}}; };
  std::map<std::string, std::uint64_t> hashes;
  progress.expect(static_cast<std::int64_t>(planned.journal.writes.size()));
  for (const auto& path : planned.journal.writes) {
    if (progress.isCancelled()) return undo(cancelled());
    const std::string text = planned.texts.at(path)();
    hashes[path] = hashOf(text);
    if (auto written = disk_->write(full(newNameFor(path)), text); !written) return undo(written.error());
    progress.step(1);
  }
  if (progress.isCancelled()) return undo(cancelled());
  for (const auto& folder : folders) {
    if (auto synced = disk_->syncFolder(full(folder)); !synced) return undo(synced.error());
  }
  if (auto commit = commitJournal(*disk_, folder_, planned.journal); !commit) return undo(commit.error());
  committed = true;
  // A stamp that no file has: until the new files stand in their places, only their content can be recognised.
  for (const auto& path : planned.journal.writes) seen_[path] = {{-1, -1}, hashes[path]};
  for (const auto& move : planned.journal.moves) {
    seen_[move.to] = seen_[move.from];
    seen_.erase(move.from);
  }
  for (const auto& path : planned.journal.removes) seen_.erase(path);
  if (auto finished = finishJournal(*disk_, folder_, planned.journal); !finished) {
    Error error = finished.error();
    error.kept = "Everything is written, and the save is finished when the quilt is saved or opened again";
    return fail(std::move(error));
  }
  for (const auto& path : planned.journal.writes) remember(path, hashes[path]);
  return {};
}

Result<QuiltStore::Saved> QuiltStore::save(const Quilt& quilt, Progress* progress) {
  Progress unseen;
  if (readOnly_) return fail(*readOnly_);
  for (const auto& [id, error] : damaged_) {
    const Map* before = saved_.map(id);
    const Map* now = quilt.map(id);
    if (!now || !(*before == *now)) return fail(error);
  }
  const auto there = disk_->stamp(full(std::string(kQuiltFile)));
  if (!there) return fail(there.error());
  if (!*there) {
    return fail(Error{Error::Cause::missing, "the quilt's folder is gone, or is no quilt any more", folder_, 0,
                      "Nothing was saved, and your work is still in the window", "Save the quilt in a new folder"});
  }
  if (auto settled = settleJournal(); !settled) return fail(settled.error());
  const Planned planned = plan(quilt);
  Saved saved{planned.journal.writes, {}, planned.journal.removes};
  for (const auto& move : planned.journal.moves) saved.moved.push_back(move.to);
  if (!planned.journal.empty()) {
    if (auto unchanged = checkUnchanged(planned); !unchanged) return fail(unchanged.error());
    bool committed = false;
    const auto done = carryOut(planned, progress ? *progress : unseen, committed);
    if (committed) saved_ = quilt;
    if (!done) return fail(done.error());
  }
  saved_ = quilt;
  return saved;
}

}  // namespace uq
