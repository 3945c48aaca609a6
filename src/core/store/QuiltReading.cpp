// What of QuiltStore reads a quilt's folder.
#include <algorithm>

#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/JsonText.h"
#include "core/store/QuiltStore.h"
#include "core/store/StampText.h"
#include "core/store/StoreLimits.h"
#include "core/store/TilesText.h"

namespace uq {

namespace {
constexpr std::string_view kJsonEnding = ".json";
}

void QuiltStore::notRead(Errors& problems, Error error) {
  whole_ = false;
  if (error.cause == Error::Cause::newer) error.todo = "Open the quilt with a newer version of Urban Quilt";
  problems.push_back(std::move(error));
}

void QuiltStore::leaveOut(Quilt& quilt, const std::string& prefix, std::string_view text) {
  leftOut_.insert(prefix);
  TakenNames taken = quilt.taken();
  const std::string folder = folderOf(prefix);
  const std::string name = nameOf(prefix);
  if (folder == "maps") taken.maps.push_back(name);
  if (folder == "sheets") taken.sheets.push_back(name.substr(0, name.find('.')));
  if (folder == "stamps") taken.stamps.push_back(name);
  // A text that is broken somewhere else still tells its ids.
  for (auto at = text.find("\"id\""); at != std::string_view::npos; at = text.find("\"id\"", at + 4)) {
    const auto quote = text.find('"', at + 4);
    if (quote == std::string_view::npos) break;
    if (const auto id = Id::parse(text.substr(quote + 1, Id::kLength))) taken.ids.insert(*id);
  }
  quilt.setTaken(std::move(taken));
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
  const auto maps = names("maps", Disk::Kind::folder, quilt, problems);
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

std::vector<std::string> QuiltStore::names(const std::string& path, Disk::Kind kind, Quilt& quilt, Errors& problems) {
  std::vector<std::string> found;
  const auto refuseLink = [&](const std::string& link) {
    leaveOut(quilt, link, {});
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
    if (entry.kind == Disk::Kind::link) refuseLink(joined(path, entry.name));
    if (entry.kind != kind) continue;
    if (isPlainName(entry.name)) {
      found.push_back(entry.name);
    } else {
      leaveOut(quilt, joined(path, entry.name), {});
      notRead(problems, Error{Error::Cause::broken, "a name in it is no text of at most 200 bytes in UTF-8", path, 0,
                              "What has that name is left out, and stays as it is", "Give it another name"});
    }
  }
  return found;
}

void QuiltStore::readSheets(Quilt& quilt, Errors& problems) {
  for (const std::string& name : names("sheets", Disk::Kind::file, quilt, problems)) {
    if (!name.ends_with(kJsonEnding)) continue;
    const std::string file = joined("sheets", name);
    const auto text = read(file, kLargestDocument);
    const auto json = text ? readJson(*text, file) : Result<Json>(fail(text.error()));
    auto sheet = json ? readSheetDocument(*json, file) : Result<Sheet>(fail(json.error()));
    if (sheet && quilt.sheet(sheet->id)) {
      sheet = fail(Error::Cause::broken, "its id is that of the sheet \"" + quilt.sheet(sheet->id)->name + "\"", file);
    }
    if (!sheet) {
      leaveOut(quilt, file.substr(0, file.size() - kJsonEnding.size()) + ".", text ? *text : std::string());
      notRead(problems, Error(sheet.error())
                            .keeping("Its tiles stay where they are painted, shown as labelled placeholders")
                            .advising("Mend the file and open the quilt again"));
      continue;
    }
    sheet->file = name.substr(0, name.size() - kJsonEnding.size());
    if (const auto tiles = readPlaces(*sheet); !tiles) {
      leaveOut(quilt, "sheets/" + sheet->file + ".", *text);
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
  for (const std::string& folder : names("stamps", Disk::Kind::folder, quilt, problems)) {
    const auto left = list("stamps/" + folder);
    if (left && left->empty()) continue;  // what a stamp that was deleted leaves behind
    auto stamp = readStamp(folder, quilt, readFile);
    if (stamp && quilt.stamp(stamp->id)) {
      stamp = fail(Error::Cause::broken, "its id is that of the stamp \"" + quilt.stamp(stamp->id)->name + "\"",
                   "stamps/" + folder + "/stamp.json");
    }
    if (!stamp) {
      const auto text = read("stamps/" + folder + "/stamp.json", kLargestDocument);
      leaveOut(quilt, "stamps/" + folder, text ? *text : std::string());
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
    leaveOut(quilt, "maps/" + folder, text ? *text : std::string());
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

}  // namespace uq
