#include "fuzz/Targets.h"

#include <gtest/gtest.h>

#include <QImage>
#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>

#include "core/edit/Board.h"
#include "core/edit/DrawnPiece.h"
#include "core/edit/Patchwork.h"
#include "core/edit/Seams.h"
#include "core/store/EdgingText.h"
#include "core/store/LinksText.h"
#include "core/store/PinsText.h"
#include "core/store/PlanText.h"
#include "core/Support.h"
#include "core/base/Squeezed.h"
#include "core/edit/LayCells.h"
#include "core/store/CellsPatch.h"
#include "core/store/CellsText.h"
#include "core/store/ClipText.h"
#include "core/store/DeskText.h"
#include "core/store/Documents.h"
#include "core/store/JsonText.h"
#include "core/store/Journal.h"
#include "core/store/KeptWork.h"
#include "core/store/PackedDisk.h"
#include "core/store/PackedQuilt.h"
#include "core/store/QuiltStore.h"
#include "core/store/StampText.h"
#include "core/store/TilesText.h"
#include "core/work/EditList.h"
#include "core/work/KeptSteps.h"
#include "raster/PictureFile.h"
#include "raster/SafeSvg.h"

namespace uq::test {

namespace {

namespace fs = std::filesystem;

constexpr const char* kFolder = "/quilts/yard";
constexpr const char* kPlace = "/state/kept/1";
constexpr std::size_t kLongestSeed = 40'000;

void mustHold(bool holds, const char* what) {
  if (holds) return;
  std::fprintf(stderr, "It does not hold that %s.\n", what);
  std::abort();
}

const Quilt& yard() {
  static const Quilt quilt = smallQuilt();
  return quilt;
}

// The files of the demo that end so, the short ones.
std::vector<std::string> demoFiles(std::string_view ending) {
  std::vector<std::string> found;
  for (const auto& one : fs::recursive_directory_iterator(fs::path(UQ_SOURCE_DIR) / "demo/copperline")) {
    if (!one.is_regular_file() || one.file_size() > kLongestSeed) continue;
    if (!one.path().string().ends_with(ending)) continue;
    std::ifstream stream(one.path(), std::ios::binary);
    found.emplace_back(std::istreambuf_iterator<char>(stream), std::istreambuf_iterator<char>());
  }
  std::sort(found.begin(), found.end());
  return found;
}

// Reads a document, and asks that it is written as what reads back as the same.
template <class Read, class Write>
void documentHolds(std::string_view bytes, Read read, Write write) {
  const auto json = readJson(bytes, "one.json");
  if (!json) return;
  const auto once = read(*json, std::string("one.json"));
  if (!once) return;
  const std::string text = writeJson(write(*once));
  const auto again = readJson(text, "two.json");
  mustHold(again.has_value(), "a document that was written is JSON");
  const auto twice = read(*again, std::string("two.json"));
  mustHold(twice.has_value(), "a document that was written reads back");
  mustHold(writeJson(write(*twice)) == text, "a document reads back as it was");
}

void readsPins(std::string_view bytes) { documentHolds(bytes, readPinsDocument, pinsDocument); }
void readsEdging(std::string_view bytes) { documentHolds(bytes, readEdgingDocument, edgingDocument); }
void readsLinks(std::string_view bytes) { documentHolds(bytes, readLinksDocument, linksDocument); }
void readsPlan(std::string_view bytes) { documentHolds(bytes, readPlanDocument, planDocument); }
void readsQuilt(std::string_view bytes) { documentHolds(bytes, readQuiltDocument, quiltDocument); }
void readsMap(std::string_view bytes) { documentHolds(bytes, readMapDocument, mapDocument); }
void readsSheet(std::string_view bytes) { documentHolds(bytes, readSheetDocument, sheetDocument); }

// A folder's files, in the order of their names; the first byte says which of them the others stand for.
std::map<std::string, std::string> yardFiles() {
  static const std::map<std::string, std::string> files = [] {
    auto disk = std::make_shared<MemoryDisk>();
    Quilt quilt = yard();
    Stamp stamp;
    stamp.id = IdSource(9).next();
    stamp.name = "Corner";
    stamp.file = "corner";
    stamp.held = Block::of(tileOf(quilt, "rails", 3));
    stamp.held.stamp = stamp.id;
    quilt = quilt.with(stamp);
    IdSource ids(23);
    quilt = sewn(quilt, quilt.mapNamed("Yard")->id, quilt.mapNamed("Loft")->id, {16, 0}, ids).quilt;
    quilt = wrapped(quilt, quilt.mapNamed("Yard")->id, true, ids).quilt;
    quilt = withChalk(quilt, {2000, 0, 640, 320}, ids);
    const auto made = QuiltStore::create(disk, kFolder, quilt);
    mustHold(made.has_value(), "the small quilt can be saved");
    return disk->quiltFiles();
  }();
  return files;
}

std::shared_ptr<MemoryDisk> yardDisk() {
  auto disk = std::make_shared<MemoryDisk>();
  for (const auto& [path, text] : yardFiles()) disk->put(path, text);
  return disk;
}

void readsFolder(std::string_view bytes) {
  if (bytes.empty()) return;
  const auto files = yardFiles();
  const auto which = std::next(files.begin(), static_cast<unsigned char>(bytes.front()) % files.size());
  auto disk = yardDisk();
  disk->put(which->first, std::string(bytes.substr(1)));
  const auto opened = QuiltStore::open(disk, kFolder, QuiltStore::Access::read);
  if (!opened) return;
  (void)test::bytes(opened->quilt);
  // Whatever the seams say, every map has one place, and no cell two maps.
  mustHold(piecesOf(opened->quilt).size() == opened->quilt.maps().size() + opened->quilt.chalkPieces().size(), "each piece lies somewhere");
  for (const Shared<Map>& map : opened->quilt.maps()) {
    const Patchwork canvas = Patchwork::across(opened->quilt, map->id);
    mustHold(!canvas.patches().empty() && canvas.patches().front().map == map->id, "a map lies on its own canvas");
  }
}

std::vector<std::string> folderSeeds() {
  std::vector<std::string> seeds;
  for (const auto& [path, text] : yardFiles()) seeds.push_back(static_cast<char>(seeds.size()) + text);
  return seeds;
}

void readsStamp(std::string_view bytes) {
  Quilt quilt = yard();
  const auto files = yardFiles();
  const std::string folder = "stamps/corner";  // its name goes without the first part
  const auto read = [&](const std::string& path) -> Result<std::optional<std::string>> {
    if (path == folder + "/stamp.json") return std::optional(std::string(bytes));
    const auto file = files.find(joined(kFolder, path));
    return file == files.end() ? std::nullopt : std::optional(file->second);
  };
  const auto stamp = readStamp("corner", quilt, read);
  if (stamp) mustHold(!stampFiles(*stamp, quilt).empty(), "a stamp that was read can be written");
}

void readsCellsText(std::string_view bytes) {
  Quilt quilt = yard();
  const CellsRead once = readCells(bytes, quilt, 4, "one.cells");
  const std::string text = writeCells(once.cells, quilt);
  const CellsRead twice = readCells(text, quilt, 4, "two.cells");
  mustHold(!twice.error, "cells that were written read back");
  mustHold(twice.cells == once.cells, "cells read back as they were");
}

void readsLifts(std::string_view bytes) {
  const NumbersRead once = readNumbers(bytes, kMostLift, "one.lift.cells");
  const NumbersRead twice = readNumbers(writeNumbers(once.numbers), kMostLift, "two.lift.cells");
  mustHold(!twice.error, "lifts that were written read back");
  mustHold(twice.numbers == once.numbers, "lifts read back as they were");
}

void readsTiles(std::string_view bytes) {
  Sheet once = yard().sheets().front().read();
  if (!readTiles(bytes, "one.tiles", once)) return;
  const std::string text = writeTiles(once);
  Sheet twice = yard().sheets().front().read();
  if (text.empty()) return;
  mustHold(readTiles(text, "two.tiles", twice).has_value(), "tiles that were written read back");
  mustHold(writeTiles(twice) == text, "tiles read back as they were");
}

void readsEdits(std::string_view bytes) {
  // Longer lists only repeat what short ones do, and may ask for hours of work.
  if (bytes.size() > 2000) return;
  const auto json = readJson(bytes, "edits.json");
  if (!json) return;
  const auto done = doEdits(yard(), *json, {}, "edits.json");
  if (done) mustHold(!whyNotKept(done->quilt), "what a list of edits makes can be saved");
}

std::vector<std::string> editSeeds() {
  const auto list = [](const std::string& steps) {
    return R"({"document": "edits", "version": 1, "seed": 7, "steps": [)" + steps + "]}";
  };
  const std::string at = R"("map": "Yard", "layer": "Paving", "tile": ["street", 4])";
  return {list(R"({"do": "box", )" + at + R"(, "from": [0, 0], "to": [9, 9]})"),
          list(R"({"do": "brush", )" + at + R"(, "path": [[0, 0], [3, 3], [5, 1]], "width": 3})"),
          list(R"({"do": "fill", )" + at + R"(, "at": [2, 2]})"),
          list(R"({"do": "oval", )" + at + R"(, "from": [0, 0], "to": [9, 9]}, {"do": "line", "from": [0, 0], "to": [5, 2]})"),
          list(R"({"do": "select", )" + at + R"(, "from": [0, 0], "to": [9, 2]}, {"do": "move", "by": [4, 0]}, {"do": "delete"})"),
          list(R"({"do": "box", "map": "Yard", "layer": "Sheds", "hand": {"tiles": [[0, 0, "rails", 1], [1, 0, "rails", 2, 1, 4]], "manner": "stretch"}, "from": [0, 0], "to": [9, 9]})")};
}

void readsClip(std::string_view bytes) {
  (void)isClipText(bytes);
  const auto hand = readClip(bytes, yard());
  if (!hand) return;
  const std::string text = clipText(*hand, yard());
  const auto again = readClip(text, yard());
  mustHold(again.has_value(), "a clip that was written reads back");
  mustHold(clipText(*again, yard()) == text, "a clip reads back as it was");
}

std::vector<std::string> clipSeeds() {
  const Quilt& quilt = yard();
  Block block = Block::of(tileOf(quilt, "rails", 3));
  return {clipText(block, quilt), clipText(Block::of(tileOf(quilt, "street", 5, {true, 1})), quilt)};
}

void readsDesk(std::string_view bytes) {
  const auto json = readJson(bytes, "desk.json");
  if (json) (void)deskJson(readDesk(*json, yard()), yard());
}

void readsJournal(std::string_view bytes) {
  MemoryDisk disk;
  disk.put(joined(kFolder, joined(kPrivateFolder, "journal.json")), std::string(bytes));
  disk.put("/outside", "treasure");
  const auto journal = readJournal(disk, kFolder);
  if (journal && *journal) (void)finishJournal(disk, kFolder, **journal);
  mustHold(disk.files.at("/outside") == "treasure", "a journal touches nothing outside");
}

std::vector<std::string> journalSeeds() {
  MemoryDisk disk;
  Journal journal;
  journal.writes = {"quilt.json", "maps/yard/paving.cells"};
  journal.moves = {{"maps/loft/map.json", "maps/attic/map.json"}};
  journal.removes = {"maps/loft/floor.cells"};
  mustHold(commitJournal(disk, kFolder, journal).has_value(), "a journal can be written");
  std::vector<std::string> seeds;
  for (const auto& [path, text] : disk.files) seeds.push_back(text);
  return seeds;
}

const std::map<std::string, std::string>& keptFiles() {
  static const std::map<std::string, std::string> files = [] {
    auto disk = yardDisk();
    const auto opened = QuiltStore::open(disk, kFolder, QuiltStore::Access::read);
    mustHold(opened.has_value(), "the small quilt opens");
    const std::vector<CellChange> paint = {{{1, 1}, tileOf(opened->quilt, "rails", 1)}};
    const Quilt now = layCells(opened->quilt, layerOf(opened->quilt, "Yard", "Awnings"), paint);
    KeptWork work(disk, kPlace);
    mustHold(work.keep(opened->quilt, now, {kFolder, "Yard", 3, 1'000'000}).has_value(), "work can be kept");
    auto all = disk->files;
    std::erase_if(all, [](const auto& file) { return !file.first.starts_with(kPlace); });
    return all;
  }();
  return files;
}

Quilt painted() {
  const std::vector<CellChange> paint = {{{1, 1}, tileOf(yard(), "rails", 1)}};
  return layCells(yard(), layerOf(yard(), "Yard", "Awnings"), paint);
}

// A stroke, and a map that was deleted and came back.
UndoLine yardLine() {
  UndoLine line;
  line.begin("Brush on Awnings", {}, yard(), {});
  mustHold(line.commit(painted(), {}), "a stroke is a step");
  line.begin("Delete Loft", {}, painted(), {});
  const Quilt less = painted().without<Map>(yard().mapNamed("Loft")->id);
  mustHold(line.commit(less, {}), "so is deleting a map");
  mustHold(line.takeBack(line.planReturn(1), {}, less).has_value(), "which can be taken back");
  return line;
}

void readsSteps(std::string_view bytes) {
  Quilt now = yard();
  UndoLine line;
  StepsRead read = readSteps({squeezed(bytes)}, lineToKeep(yardLine(), {}).ids, now);
  line.comeBack(std::move(read.steps), std::move(read.takenBack));
  if (const auto forth = line.planForth({}, now)) (void)line.layBack(*forth, now);
  const UndoLine::Plan back = line.planReturn(0);
  if (!back.steps.empty()) (void)line.takeBack(back, {}, now);
}

std::vector<std::string> stepsSeeds() {
  const UndoLine line = yardLine();
  return {*unsqueezed(stepsText(lineToKeep(line, {}), painted()), kMostClipBytes)};
}

// The first byte says which file of the kept work the others stand for.
void readsKept(std::string_view bytes) {
  if (bytes.empty()) return;
  auto disk = yardDisk();
  const auto which = std::next(keptFiles().begin(), static_cast<unsigned char>(bytes.front()) % keptFiles().size());
  for (const auto& [path, text] : keptFiles()) disk->put(path, text);
  disk->put(which->first, std::string(bytes.substr(1)));
  const auto kept = keptAt(*disk, kPlace);
  if (!kept || !*kept) return;
  for (const auto& [path, file] : (*kept)->files) {
    mustHold(file.path.starts_with(kPlace), "kept work names nothing outside its place");
  }
  (void)QuiltStore::open(withKept(disk, kFolder, **kept), kFolder, QuiltStore::Access::read);
}

std::vector<std::string> keptSeeds() {
  std::vector<std::string> seeds;
  for (const auto& [path, text] : keptFiles()) seeds.push_back(static_cast<char>(seeds.size()) + text);
  return seeds;
}

void readsPatch(std::string_view bytes) {
  static const std::string own = demoFiles(".cells").front();
  Quilt quilt = yard();
  const CellsRead patched = readCells(patchedCells(own, bytes, {{0, 0}, {1, 0}}), quilt, 4, "one.cells");
  const CellsRead turned = readCells(patchedCells(bytes, own, {{0, 0}}), quilt, 4, "two.cells");
  (void)patched;
  (void)turned;
}

void readsZip(std::string_view bytes) {
  const auto disk = PackedDisk::open(std::string(bytes), "/given.quilt");
  if (!disk) return;
  const auto opened = QuiltStore::open(*disk, "/given.quilt", QuiltStore::Access::read);
  if (opened) (void)opened->quilt.maps().size();
}

std::vector<std::string> zipSeeds() {
  const auto zip = packed(yard());
  mustHold(zip.has_value(), "the small quilt can be packed");
  return {*zip};
}

void readsPicture(std::string_view bytes) {
  const auto picture = decodePicture(bytes, "one.png");
  if (picture) mustHold(!picture->isNull(), "a picture that was read has pixels");
}

std::vector<std::string> pictureSeeds() {
  QImage small(4, 4, QImage::Format_ARGB32_Premultiplied);
  small.fill(0xff204060u);
  auto seeds = demoFiles(".png");
  std::erase_if(seeds, [](const std::string& one) { return one.size() > 4000; });
  seeds.push_back(pngOf(small));
  seeds.emplace_back("GIF89a\x01\0\x01\0\x80\0\0\xff\xff\xff\0\0\0!\xf9\x04\1\0\0\0\0,\0\0\0\0\1\0\1\0\0\x02\x02\x44\1\0;", 43);
  return seeds;
}

void readsDrawing(std::string_view bytes) {
  (void)isLineDrawing(bytes);
  const auto safe = safeSvg(bytes, "one.svg");
  if (safe) mustHold(safeSvg({safe->data(), static_cast<std::size_t>(safe->size())}, "two.svg").has_value(),
                     "a drawing that is safe stays so");
}

std::vector<std::string> drawingSeeds() {
  return {R"(<svg xmlns="http://www.w3.org/2000/svg" width="8" height="8"><rect width="8" height="8" fill="red"/></svg>)",
          R"(<svg xmlns="http://www.w3.org/2000/svg" width="8" height="8"><defs><g id="a"><path d="M0 0L4 4"/></g></defs><use href="#a"/></svg>)"};
}

std::vector<std::string> quiltSeeds() { return demoFiles("quilt.json"); }
std::vector<std::string> mapSeeds() { return demoFiles("map.json"); }
std::vector<std::string> pinsSeeds() {
  return {R"({"document": "pins", "version": "1.10", "pins": [{"id": "aaaaaaaaaaab", "number": 1, "name": "Gate", "cell": [3, 4], "over": [2, 1]},
    {"id": "aaaaaaaaaaac", "number": 2, "edge": "left", "beside": [3, -4], "note": "mind the step"}]})"};
}
std::vector<std::string> edgingSeeds() {
  return {R"({"document": "edging", "version": "1.12", "id": "aaaaaaaaaaab", "name": "Quay", "grid": "hexagonal-pointy", "decides": "both",
    "materials": [{"name": "canal", "colour": "#336699"}], "members": [{"sheet": "aaaaaaaaaaac", "tile": 3, "turn": 6, "middle": "canal", "weight": 4,
    "sides": ["canal", "canal", "nothing", "nothing", "canal", "canal"], "corners": ["canal", "canal", "nothing", "nothing", "nothing", "canal"]}],
    "hems": [{"name": "face", "material": "canal", "side": "lower left", "rows": 3, "grows": true, "stands": true, "tiles": [{"sheet": "aaaaaaaaaaac", "tile": 5, "turn": 6, "row": "foot",
    "piece": "alone", "weight": 2}]}, {"name": "walls", "material": "canal", "role": "things", "around": "aaaaaaaaaaad", "with": "wall"}]})"};
}
std::vector<std::string> linksSeeds() { return demoFiles("links.json"); }
std::vector<std::string> planSeeds() { return demoFiles("plan.json"); }
std::vector<std::string> sheetSeeds() {
  auto seeds = demoFiles(".json");
  std::erase_if(seeds, [](const std::string& one) { return one.find("\"sheet\"") == std::string::npos; });
  return seeds;
}
std::vector<std::string> stampSeeds() { return demoFiles("stamp.json"); }
std::vector<std::string> cellsSeeds() {
  const Quilt& quilt = yard();
  std::vector<std::string> seeds = {writeCells(quilt.layer(layerOf(quilt, "Yard", "Paving"))->cells, quilt)};
  for (std::string& one : demoFiles(".cells")) seeds.push_back(std::move(one));
  return seeds;
}
std::vector<std::string> liftSeeds() { return {"cells 1\n@0,0\n1: .3 4x6 12\n2-4: 1x64\nend\n", "cells 1\nend\n"}; }
std::vector<std::string> tilesSeeds() { return demoFiles(".tiles"); }
std::vector<std::string> deskSeeds() {
  Desk desk;
  desk.map = yard().maps().front()->id;
  desk.inHand = Block::of(tileOf(yard(), "rails", 3));
  return {writeJson(deskJson(desk, yard()))};
}

}  // namespace

const std::vector<FuzzTarget>& fuzzTargets() {
  static const std::vector<FuzzTarget> targets = {
      {"quilt", readsQuilt, quiltSeeds},       {"map", readsMap, mapSeeds},
      {"sheet", readsSheet, sheetSeeds},       {"stamp", readsStamp, stampSeeds},
      {"pins", readsPins, pinsSeeds},         {"links", readsLinks, linksSeeds},       {"edging", readsEdging, edgingSeeds},       {"plan", readsPlan, planSeeds},
      {"folder", readsFolder, folderSeeds}, {"cells", readsCellsText, cellsSeeds},
      {"lifts", readsLifts, liftSeeds},        {"tiles", readsTiles, tilesSeeds},
      {"edits", readsEdits, editSeeds},        {"clip", readsClip, clipSeeds},
      {"desk", readsDesk, deskSeeds},          {"journal", readsJournal, journalSeeds},
      {"kept", readsKept, keptSeeds},     {"steps", readsSteps, stepsSeeds},
      {"patch", readsPatch, cellsSeeds},
      {"zip", readsZip, zipSeeds},        {"picture", readsPicture, pictureSeeds},
      {"drawing", readsDrawing, drawingSeeds}};
  return targets;
}

const FuzzTarget* fuzzTargetNamed(std::string_view name) {
  const auto& all = fuzzTargets();
  const auto found = std::find_if(all.begin(), all.end(), [&](const FuzzTarget& one) { return name == one.name; });
  return found == all.end() ? nullptr : &*found;
}

}  // namespace uq::test
