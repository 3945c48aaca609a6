#include "core/store/SavePlan.h"

#include <algorithm>
#include <memory>

#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/EdgingText.h"
#include "core/store/TargetText.h"
#include "core/store/JsonText.h"
#include "core/store/LinksText.h"
#include "core/store/PinsText.h"
#include "core/store/PlanText.h"
#include "core/store/StampText.h"
#include "core/store/StoreLimits.h"
#include "core/store/TilesText.h"

namespace uq {

namespace {

using QuiltFiles = std::map<std::string, QuiltFile>;  // by path

Error lostInReading(std::string what) {
  return Error{Error::Cause::other, "what would be written could not be read again: " + std::move(what), {}, 0, {}, {}};
}

// What a reader says of a text that would be written; `same` tells whether it understood what was meant.
template <class Part, class Same>
std::optional<Error> judged(const Result<Part>& read, Same&& same) {
  if (!read) return lostInReading(read.error().reason);
  if (!same(*read)) return lostInReading("it reads as something else");
  return std::nullopt;
}

template <class Part>
std::optional<Error> judgedJson(const std::string& text, Result<Part> (*read)(const Json&, const std::string&),
                                Json (*document)(const Part&)) {
  const auto json = readJson(text, {});
  if (!json) return lostInReading(json.error().reason);
  return judged(read(*json, {}), [&](const Part& part) { return writeJson(document(part)) == text; });
}

// Where the files lie that belong together: those of a map or stamp by their folder, those of a sheet by its name.
std::string partOf(const std::string& path) {
  if (path.starts_with("edgings/")) return path;
  if (!path.starts_with("sheets/")) return folderOf(path);
  const auto dot = path.find('.');
  return path.substr(0, dot);
}

// The files of a part, of each kind: `saved` is the part as it was saved last. Both quilts must live as long.
void addFiles(const Sheet& sheet, const Sheet* saved, const Quilt&, const Quilt&, QuiltFiles& files) {
  const auto add = [&](const std::string& path, QuiltFile file) {
    // Sheets may share a picture.
    const auto [known, isNew] = files.try_emplace(path, file);
    if (!isNew && known->second.isSaved) known->second = std::move(file);
  };
  const bool same = saved && saved->file == sheet.file && *saved == sheet;
  const bool sameText = same || (saved && saved->file == sheet.file &&
                                 writeJson(sheetDocument(*saved)) == writeJson(sheetDocument(sheet)));
  add(sheetFile(sheet),
      {[&sheet] { return writeJson(sheetDocument(sheet)); },
       [](const std::string& text) { return judgedJson<Sheet>(text, readSheetDocument, sheetDocument); },
       false,
       sameText,
       {}});
  const std::string tiles = writeTiles(sheet);
  if (!tiles.empty()) {
    const bool sameTiles = same || (saved && saved->file == sheet.file && writeTiles(*saved) == tiles);
    add(tilesFile(sheet),
        {[tiles] { return tiles; },
         [&sheet](const std::string& text) -> std::optional<Error> {
           Sheet again = sheet;
           const auto read = readTiles(text, {}, again);
           if (!read) return lostInReading(read.error().reason);
           return writeTiles(again) == text ? std::nullopt : std::optional(lostInReading("it reads as something else"));
         },
         false,
         sameTiles,
         {}});
  }
  std::map<std::string, PictureBytes> before;
  const auto forEachPicture = [](const Sheet& of, const auto& visit) {
    if (!of.isCollection()) visit(pictureFile(of), of.source);
    for (const CollectedPicture& one : of.collection) visit(pictureFile(of, one), one.source);
  };
  if (saved) forEachPicture(*saved, [&](const std::string& path, const PictureBytes& bytes) { before[path] = bytes; });
  forEachPicture(sheet, [&](const std::string& path, const PictureBytes& bytes) {
    const auto was = before.find(path);
    const bool samePicture = bytes.isBlank() || (was != before.end() && was->second == bytes);
    QuiltFile file{{}, {}, true, samePicture, {}};
    // A picture that was missing stays missing.
    if (!bytes.isBlank()) file.text = [bytes] { return bytes.read(); };
    add(path, std::move(file));
  });
}

void addFiles(const Stamp& stamp, const Stamp* before, const Quilt& quilt, const Quilt& saved, QuiltFiles& files) {
  const auto textsOf = [](const Stamp& of, const Quilt& in) {
    std::map<std::string, std::string> texts;
    for (TextFile& file : stampFiles(of, in)) texts.emplace(std::move(file.path), std::move(file.text));
    return texts;
  };
  const auto texts = std::make_shared<const std::map<std::string, std::string>>(textsOf(stamp, quilt));
  const auto was = before ? textsOf(*before, saved) : std::map<std::string, std::string>();
  for (const auto& [path, text] : *texts) {
    const auto old = was.find(path);
    QuiltFile file;
    file.text = [texts, of = path] { return texts->at(of); };
    file.isSaved = old != was.end() && old->second == text;
    if (path.ends_with(".json")) {
      // Its blocks are read along with it.
      file.readBack = [texts, &stamp, &quilt](const std::string&) {
        Quilt slots = quilt;
        const ReadFile read = [&](const std::string& of) -> Result<std::optional<std::string>> {
          const auto found = texts->find(of);
          return found == texts->end() ? std::nullopt : std::optional(found->second);
        };
        return judged(readStamp(stamp.file, slots, read), [&](const Stamp& again) { return again.held == stamp.held; });
      };
    }
    files.emplace(path, std::move(file));
  }
}

void addFiles(const Map& map, const Map* saved, const Quilt& quilt, const Quilt&, QuiltFiles& files) {
  const bool untouched = saved && saved->folder == map.folder && (saved->revision.is(map.revision) || *saved == map);
  const bool sameText = untouched || (saved && mapFile(*saved) == mapFile(map) &&
                                      writeJson(mapDocument(*saved)) == writeJson(mapDocument(map)));
  files.emplace(mapFile(map),
                QuiltFile{[&map] { return writeJson(mapDocument(map)); },
                          [](const std::string& text) { return judgedJson<Map>(text, readMapDocument, mapDocument); },
                          false,
                          sameText,
                          {}});
  for (const Shared<Layer>& shared : map.layers) {
    const Layer& layer = shared.read();
    const Layer* before = saved ? saved->layer(layer.id) : nullptr;
    if (layer.holdsPins() && !layer.file.empty()) {
      const std::string was = before && before->holdsPins() && !before->file.empty() ? pinsFile(*saved, *before) : "";
      QuiltFile pins;
      pins.text = [&layer] { return writeJson(pinsDocument(layer.pins.read())); };
      pins.readBack = [](const std::string& text) { return judgedJson<Pins>(text, readPinsDocument, pinsDocument); };
      const bool same = !was.empty() && (untouched || before->pins == layer.pins);
      pins.isSaved = same && was == pinsFile(map, layer);
      if (same && !pins.isSaved) pins.movesFrom = was;
      files.emplace(pinsFile(map, layer), std::move(pins));
    }
    if (!layer.holdsTiles()) continue;
    const auto add = [&](const std::string& path, const std::string& was, bool same, QuiltFile file) {
      file.isSaved = same && was == path;
      if (same && was != path) file.movesFrom = was;
      files.emplace(path, std::move(file));
    };
    QuiltFile cells;
    cells.text = [&layer, &quilt] { return writeCells(layer.cells, quilt); };
    cells.readBack = [&layer, &quilt, &map](const std::string& text) -> std::optional<Error> {
      Quilt slots = quilt;
      const CellsRead read = readCells(text, slots, makeGrid(map.grid)->turnOrder(), {});
      if (read.error) return lostInReading(read.error->reason);
      return read.cells == layer.cells ? std::nullopt : std::optional(lostInReading("it reads as something else"));
    };
    add(cellsFile(map, layer), before ? cellsFile(*saved, *before) : "",
        before && (untouched || before->cells == layer.cells), std::move(cells));
    const auto addNumbers = [&](const NumberGrid LayerCells::*beside, int most, std::string (*fileOf)(const Map&, const Layer&)) {
      const NumberGrid& own = layer.*beside;
      if (own.empty()) return;
      QuiltFile numbers;
      numbers.text = [&own] { return writeNumbers(own); };
      numbers.readBack = [&own, most](const std::string& text) -> std::optional<Error> {
        const NumbersRead read = readNumbers(text, most, {});
        if (read.error) return lostInReading(read.error->reason);
        return read.numbers == own ? std::nullopt : std::optional(lostInReading("it reads as something else"));
      };
      add(fileOf(map, layer), before ? fileOf(*saved, *before) : "", before && (untouched || before->*beside == own), std::move(numbers));
    };
    addNumbers(&LayerCells::lifts, kMostLift, liftsFile);
    addNumbers(&LayerCells::meant, NumberGrid::kMost, meantFile);
  }
}

// All of them stand in one document; see addLinks and addPlan.
void addFiles(const Seam&, const Seam*, const Quilt&, const Quilt&, QuiltFiles&) {}
void addFiles(const ChalkPiece&, const ChalkPiece*, const Quilt&, const Quilt&, QuiltFiles&) {}
void addFiles(const Edging& edging, const Edging* saved, const Quilt&, const Quilt&, QuiltFiles& files) {
  files.emplace(edgingFile(edging), QuiltFile{[&edging] { return writeJson(edgingDocument(edging)); },
                                              [](const std::string& text) { return judgedJson<Edging>(text, readEdgingDocument, edgingDocument); },
                                              false,
                                              saved && saved->file == edging.file && *saved == edging,
                                              {}});
}
void addFiles(const Target& target, const Target* saved, const Quilt&, const Quilt&, QuiltFiles& files) {
  files.emplace(targetFile(target), QuiltFile{[&target] { return writeJson(targetDocument(target)); },
                                              [](const std::string& text) { return judgedJson<Target>(text, readTargetDocument, targetDocument); },
                                              false,
                                              saved && saved->file == target.file && *saved == target,
                                              {}});
}
void addFiles(const Doorway&, const Doorway*, const Quilt&, const Quilt&, QuiltFiles&) {}

void addLinks(const Quilt& quilt, const Quilt& saved, QuiltFiles& files) {
  const auto hasLinks = [](const Quilt& of) { return !of.seams().empty() || !of.doorways().empty() || !of.facts().linksExtra.empty(); };
  if (!hasLinks(quilt)) return;
  const bool same = quilt.seams() == saved.seams() && quilt.doorways() == saved.doorways() && quilt.facts().linksExtra == saved.facts().linksExtra;
  files.emplace(kLinksFile, QuiltFile{[&quilt] { return writeJson(linksDocument(linksOf(quilt))); },
                                      [](const std::string& text) {
                                        return judgedJson<Links>(text, readLinksDocument, linksDocument);
                                      },
                                      false,
                                      same,
                                      {}});
}

void addPlan(const Quilt& quilt, const Quilt& saved, QuiltFiles& files) {
  if (quilt.chalkPieces().empty() && quilt.facts().planExtra.empty()) return;
  const bool same = quilt.chalkPieces() == saved.chalkPieces() && quilt.facts().planExtra == saved.facts().planExtra;
  files.emplace(kPlanFile, QuiltFile{[&quilt] { return writeJson(planDocument(planOf(quilt))); },
                                     [](const std::string& text) {
                                       return judgedJson<WorldPlan>(text, readPlanDocument, planDocument);
                                     },
                                     false,
                                     same,
                                     {}});
}

QuiltFiles filesOf(const Quilt& quilt, const Quilt& saved) {
  QuiltFiles files;
  files.emplace(kQuiltFile, QuiltFile{[&quilt] { return writeJson(quiltDocument(quilt.facts())); },
                                      [](const std::string& text) {
                                        return judgedJson<QuiltFacts>(text, readQuiltDocument, quiltDocument);
                                      },
                                      false,
                                      quilt.facts() == saved.facts(),
                                      {}});
  PartKinds::forEach([&]<class Part>() {
    for (const Shared<Part>& part : quilt.all<Part>()) {
      addFiles(part.read(), saved.listed<Part>(part->id), quilt, saved, files);
    }
  });
  addLinks(quilt, saved, files);
  addPlan(quilt, saved, files);
  return files;
}

}  // namespace

std::set<std::string> SavePlan::folders() const {
  std::set<std::string> all;
  for (const auto& path : journal.writes) {
    if (path.find('/') != std::string::npos) all.insert(folderOf(path));
  }
  for (const auto& move : journal.moves) all.insert(folderOf(move.to));
  return all;
}

std::set<std::string> SavePlan::standsOn() const {
  std::set<std::string> touched(journal.writes.begin(), journal.writes.end());
  touched.insert(journal.removes.begin(), journal.removes.end());
  for (const auto& move : journal.moves) touched.insert({move.from, move.to});
  std::set<std::string> parts;
  for (const std::string& path : touched) parts.insert(partOf(path));
  for (const auto& [path, file] : files) {
    if (!file.isPicture && parts.contains(partOf(path))) touched.insert(path);
  }
  return touched;
}

Result<SavePlan> planSave(const Quilt& saved, const Quilt& quilt, const SaveAsk& ask) {
  SavePlan planned;
  planned.files = filesOf(quilt, saved);
  std::set<std::string> old;
  for (const auto& [path, file] : filesOf(saved, saved)) old.insert(path);
  for (auto& [path, file] : planned.files) {
    const std::string from = file.movesFrom;
    // A file that only changes its name is moved where neither name is anybody else's; else it is written again.
    if (!from.empty() && !old.contains(path) && !planned.files.contains(from) && ask.isThere(from)) {
      planned.journal.moves.push_back({from, path});
      old.erase(from);
    } else if (!file.text || ask.damaged.contains(folderOf(path))) {
      continue;
    } else if (!file.isSaved || !ask.isThere(path)) {
      planned.journal.writes.push_back(path);
    }
  }
  for (const std::string& path : old) {
    if (!planned.files.contains(path)) planned.journal.removes.push_back(path);
  }
  const auto whyNot = [&](const std::string& path) -> Result<void> {
    const auto begins = [&](const std::string& prefix) {
      return path.starts_with(prefix) &&
             (prefix.ends_with('.') || path.size() == prefix.size() || path[prefix.size()] == '/');
    };
    if (!isQuiltFile(path)) return fail(Error::Cause::broken, "this is no name for a file of a quilt", path);
    if (std::none_of(ask.leftOut.begin(), ask.leftOut.end(), begins)) return {};
    return fail(Error{Error::Cause::changedOutside, "it could not be read when the quilt was opened", path, 0,
                      "Nothing was saved, and it stays as it is", "Mend it, or give what is new here another name"});
  };
  for (const auto* paths : {&planned.journal.writes, &planned.journal.removes}) {
    for (const std::string& path : *paths) {
      if (auto may = whyNot(path); !may) return fail(may.error());
    }
  }
  for (const auto& move : planned.journal.moves) {
    if (auto may = whyNot(move.to); !may) return fail(may.error());
  }
  return planned;
}

}  // namespace uq
