#include "core/store/KeptReading.h"

#include <algorithm>
#include <set>

#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/EdgingText.h"
#include "core/store/PinsText.h"
#include "core/store/StampText.h"
#include "core/store/StoreLimits.h"
#include "core/store/TargetText.h"

namespace uq {

namespace {

std::string placeOf(const Map& map) { return mapFile(map); }
std::string placeOf(const Sheet& sheet) { return sheetFile(sheet); }
std::string placeOf(const Stamp& stamp) { return stampFolder(stamp); }
std::string placeOf(const Seam& seam) { return seam.id.text(); }
std::string placeOf(const ChalkPiece& piece) { return piece.id.text(); }
std::string placeOf(const Doorway& doorway) { return doorway.id.text(); }
std::string placeOf(const Edging& edging) { return edgingFile(edging); }
std::string placeOf(const Target& target) { return targetFile(target); }

// A `.cells` text up to the last chunk that begins in or before that line; the chunks before it are whole.
std::string_view wholeChunks(std::string_view text, int line) {
  std::size_t end = 0;
  for (std::size_t at = 0; line > 0 && at != std::string_view::npos; --line) {
    if (text.substr(at).starts_with('@')) end = at;
    const auto next = text.find('\n', at);
    at = next == std::string_view::npos ? next : next + 1;
  }
  return text.substr(0, end);
}

// The cells of a layer as they are saved, with the chunks of a damaged kept file that are whole.
CellGrid mendedCells(const CellGrid& saved, const Kept::File& file, Disk& disk, int turnOrder, Quilt& slots) {
  const auto text = disk.read(file.path, kLargestCells);
  if (!text) return saved;
  const CellsRead all = readCells(*text, slots, turnOrder, file.path);
  const CellsRead whole = all.error ? readCells(wholeChunks(*text, all.error->line), slots, turnOrder, file.path) : all;
  CellGrid mended = saved;
  whole.cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    const bool belongs = !file.chunks || file.chunks->contains({chunk.at.cx, chunk.at.cy});
    if (belongs) mended.setChunk(chunk.at, chunk.cells());
  });
  return mended;
}

// Mends a damaged map layer by layer; false where more than cells of its layers is damaged.
bool mendLayers(Map& map, const Map& saved, const std::set<std::string>& broken, Disk& disk, const Kept& kept, Quilt& slots) {
  if (broken.contains(mapFile(map)) || map.grid != saved.grid) return false;
  for (Shared<Layer>& shared : map.layers) {
    const bool areCells = broken.contains(cellsFile(map, shared.read()));
    const bool areLifts = broken.contains(liftsFile(map, shared.read()));
    const bool isMeant = broken.contains(meantFile(map, shared.read()));
    const Layer* was = saved.layer(shared->id);
    if (shared->holdsPins() && broken.contains(pinsFile(map, shared.read()))) {
      shared.edit([&](Layer& layer) {
        layer.revision = Revision::next();
        layer.pins = was ? was->pins : Shared<Pins>();
      });
    }
    if (!(areCells || areLifts || isMeant) || !shared->holdsTiles()) continue;
    const auto file = kept.files.find(cellsFile(map, shared.read()));
    const CellGrid before = was ? was->cells : CellGrid();
    const bool isPatch = file != kept.files.end() && file->second.chunks && !was;
    if (isPatch) return false;
    shared.edit([&](Layer& layer) {
      layer.revision = Revision::next();
      if (areLifts) layer.lifts = was ? was->lifts : NumberGrid();
      if (isMeant) layer.meant = was ? was->meant : NumberGrid();
      if (!areCells) return;
      layer.cells = file == kept.files.end() ? before
                                             : mendedCells(before, file->second, disk, makeGrid(map.grid)->turnOrder(), slots);
    });
  }
  map.revision = Revision::next();
  return true;
}

// Puts the saved parts in the place of those that could not be read; false where another part has the place of one.
bool mend(Quilt& quilt, const QuiltStore& read, const QuiltStore::Opened& saved, Disk& disk, const Kept& kept,
          const std::set<std::string>& broken) {
  bool mended = true;
  // What stands in for facts that could not be read has no id.
  if (quilt.facts().id.empty()) quilt = quilt.restoring(saved.quilt.sharedFacts());
  PartKinds::forEach([&]<class Part>() {
    std::set<std::string> places;
    for (const Shared<Part>& part : quilt.all<Part>()) places.insert(placeOf(part.read()));
    for (const Shared<Part>& part : saved.quilt.all<Part>()) {
      const Part* now = quilt.listed<Part>(part->id);
      const bool isDamaged = now && read.damage(part->id) && !saved.store.damage(part->id);
      if (now && !isDamaged) continue;
      if constexpr (std::is_same_v<Part, Map>) {
        if (now) {
          Map map = *now;
          if (mendLayers(map, part.read(), broken, disk, kept, quilt)) {
            quilt = quilt.with(map);
            continue;
          }
        }
      }
      if (!now && !places.insert(placeOf(part.read())).second) mended = false;
      quilt = quilt.restoring(part);
    }
  });
  return mended;
}

}  // namespace

Result<KeptBack> readKept(const std::shared_ptr<Disk>& disk, const std::string& folder, const Kept& kept,
                          const QuiltStore::Opened& saved, Progress* progress) {
  // What was not read whole is read again, to be told again.
  const ReadBefore before = saved.store.isWhole() ? savedBefore(saved.quilt, disk, kept) : ReadBefore{saved.quilt};
  auto read = QuiltStore::open(withKept(disk, folder, kept), folder, QuiltStore::Access::read, progress, {}, &before);
  if (!read) return fail(read.error());
  KeptBack back{std::move(read->quilt), {}};
  std::set<std::string> broken;
  for (Error& problem : read->problems) {
    const auto same = [&](const Error& one) { return one.text() == problem.text(); };
    if (std::any_of(saved.problems.begin(), saved.problems.end(), same)) continue;
    broken.insert(problem.file);
    problem.kept = problem.file.ends_with(".cells") ? "What is before it came back, the rest of the layer is as it was saved; what was kept lies aside"
                                                    : "This part is shown as it was saved; what was kept of it lies aside";
    problem.todo = "‘uquilt recover --list’ names it";
    back.problems.push_back(std::move(problem));
  }
  back.whole = back.problems.empty();
  if (!back.whole && !mend(back.quilt, read->store, saved, *disk, kept, broken)) {
    return fail(Error{Error::Cause::broken, "what was kept is damaged, and does not fit what is saved", folder, 0,
                      "The quilt is shown as it was saved; what was kept lies aside", "‘uquilt recover --list’ names it"});
  }
  return back;
}

}  // namespace uq
