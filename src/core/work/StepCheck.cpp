#include "core/work/StepCheck.h"

#include <algorithm>
#include <map>

#include "core/base/Shortened.h"
#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/EdgingText.h"
#include "core/store/TargetText.h"
#include "core/store/LinksText.h"
#include "core/store/PlanText.h"
#include "core/store/StampText.h"

namespace uq {

namespace {

Error refused(Error::Cause cause, std::string reason) {
  return Error{cause, std::move(reason), {}, 0, "Nothing was changed", {}};
}

// What a reader of our own files said of a part that was not even written yet.
Error unkeepable(const Error& reader, const std::string& part) {
  return refused(Error::Cause::tooLarge, "“" + shortened(part) + "” could not be kept: " + reader.reason);
}

bool sameLaid(const LayerCells& a, const LayerCells& b) { return a.sameAs(b) || a == b; }

// Whether what lies on a layer can be written and read: where it differs from `before`, or all of it.
std::optional<Error> whyNoCells(const Map& map, const Layer& layer, const Layer* before) {
  static const CellGrid kNone;
  const CellGrid& old = before ? before->cells : kNone;
  if (layer.cells.sameAs(old)) return std::nullopt;
  const int order = makeGrid(map.grid)->turnOrder();
  std::optional<Error> wrong;
  layer.cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    if (wrong || chunk.key() == old.chunk(chunk.at).key()) return;
    if (!isWritable(chunk.at.cells())) {
      wrong = refused(Error::Cause::tooLarge, "a cell of “" + shortened(layer.name) + "” lies farther from 0, 0 than is kept");
    }
    const auto isForeign = [order](Cell cell) { return !cell.empty() && !Turn::isCode(cell.turn().code(), order); };
    if (!wrong && chunk.any(isForeign)) {
      wrong = refused(Error::Cause::broken, "a tile on “" + shortened(layer.name) + "” is turned as its grid does not turn");
    }
  });
  return wrong;
}

// Whether the pins of a layer can be written and read, where they are others than before.
std::optional<Error> whyNoPins(const Layer& layer, const Layer* before) {
  if (before && before->pins == layer.pins) return std::nullopt;
  const Pins& pins = layer.pins.read();
  const auto within = [](int value, int most) { return value >= -most && value <= most; };
  const auto isWritable = [&](const Pin& pin) {
    return pin.number >= 1 && pin.number <= kMostPinNumber && pin.name.size() <= kLongestPinName && pin.note.size() <= kLongestNote &&
           within(pin.cell.x, kFarthestCell) && within(pin.cell.y, kFarthestCell) && pin.over.w >= 1 && pin.over.h >= 1 &&
           pin.over.w <= kFarthestCell && pin.over.h <= kFarthestCell && within(pin.beside.x, kFarthestBeside) &&
           within(pin.beside.y, kFarthestBeside);
  };
  if (pins.size() > kMostPins) return refused(Error::Cause::tooLarge, "a layer holds at most 200,000 pins");
  const auto wrong = std::find_if_not(pins.begin(), pins.end(), isWritable);
  if (wrong == pins.end()) return std::nullopt;
  return refused(Error::Cause::tooLarge, "the pin “" + shortened(wrong->name) + "” lies farther out or says more than is kept");
}

// What is said of a map, without what lies on its layers: equal documents need no second look.
std::optional<Error> whyNoPart(const Map& map, const Map* before, const Quilt&) {
  const Json document = mapDocument(map);
  if (!before || !(mapDocument(*before) == document)) {
    const auto read = readMapDocument(document, mapFile(map));
    if (!read) return unkeepable(read.error(), map.name);
  }
  for (const Shared<Layer>& layer : map.layers) {
    const Layer* old = before && before->grid == map.grid ? before->layer(layer->id) : nullptr;
    if (old && old->revision.is(layer->revision)) continue;
    if (auto wrong = whyNoCells(map, layer.read(), old)) return wrong;
    if (auto wrong = whyNoPins(layer.read(), old)) return wrong;
  }
  return std::nullopt;
}

std::optional<Error> whyNoPart(const Sheet& sheet, const Sheet*, const Quilt&) {
  const auto read = readSheetDocument(sheetDocument(sheet), sheetFile(sheet));
  return read ? std::nullopt : std::optional(unkeepable(read.error(), sheet.name));
}

std::optional<Error> whyNoPart(const Stamp& stamp, const Stamp*, const Quilt& quilt) {
  std::map<std::string, std::string> files;
  for (TextFile& file : stampFiles(stamp, quilt)) files.emplace(std::move(file.path), std::move(file.text));
  const ReadFile readFile = [&](const std::string& path) -> Result<std::optional<std::string>> {
    const auto found = files.find(path);
    return found == files.end() ? std::nullopt : std::optional(found->second);
  };
  Quilt slots = quilt;
  const auto read = readStamp(stamp.file, slots, readFile);
  return read ? std::nullopt : std::optional(unkeepable(read.error(), stamp.name));
}

std::optional<Error> whyNoPart(const Seam& seam, const Seam*, const Quilt&) {
  const auto read = readSeam(seamJson(seam), std::string(kLinksFile));
  return read ? std::nullopt : std::optional(unkeepable(read.error(), "a seam"));
}

std::optional<Error> whyNoPart(const ChalkPiece& piece, const ChalkPiece*, const Quilt&) {
  const auto read = readChalkPiece(chalkJson(piece), std::string(kPlanFile));
  return read ? std::nullopt : std::optional(unkeepable(read.error(), piece.name));
}

std::optional<Error> whyNoPart(const Doorway& doorway, const Doorway*, const Quilt&) {
  const auto read = readDoorway(doorwayJson(doorway), std::string(kLinksFile));
  return read ? std::nullopt : std::optional(unkeepable(read.error(), "a doorway"));
}

std::optional<Error> whyNoPart(const Edging& edging, const Edging*, const Quilt&) {
  const auto read = readEdgingDocument(edgingDocument(edging), edgingFile(edging));
  return read ? std::nullopt : std::optional(unkeepable(read.error(), edging.name));
}

std::optional<Error> whyNoPart(const Target& target, const Target*, const Quilt&) {
  const auto read = readTargetDocument(targetDocument(target), targetFile(target));
  return read ? std::nullopt : std::optional(unkeepable(read.error(), target.name));
}

std::optional<Error> whyNoParts(const Quilt& after, const Quilt* before) {
  if (!before || !(before->facts() == after.facts())) {
    const auto read = readQuiltDocument(quiltDocument(after.facts()), std::string(kQuiltFile));
    if (!read) return unkeepable(read.error(), after.facts().name);
  }
  if (after.stamps().size() > kMostStamps && (!before || before->stamps().size() < after.stamps().size())) {
    return refused(Error::Cause::tooLarge, "a quilt holds at most 4,096 stamps");
  }
  if (after.seams().size() > kMostSeams && (!before || before->seams().size() < after.seams().size())) {
    return refused(Error::Cause::tooLarge, "a quilt holds at most 20,000 seams");
  }
  if (after.doorways().size() > kMostDoorways && (!before || before->doorways().size() < after.doorways().size())) {
    return refused(Error::Cause::tooLarge, "a quilt holds at most 20,000 doorways");
  }
  if (after.all<Target>().size() > kMostTargets && (!before || before->all<Target>().size() < after.all<Target>().size())) {
    return refused(Error::Cause::tooLarge, "a quilt holds at most 256 targets");
  }
  if (after.edgings().size() > kMostEdgings && (!before || before->edgings().size() < after.edgings().size())) {
    return refused(Error::Cause::tooLarge, "a quilt holds at most 1,024 edgings");
  }
  const bool morePlanned = !before || before->chalkPieces().size() < after.chalkPieces().size();
  if (after.chalkPieces().size() > kMostChalkPieces && morePlanned) {
    return refused(Error::Cause::tooLarge, "a quilt holds at most 4,096 chalk pieces");
  }
  std::optional<Error> wrong;
  PartKinds::forEach([&]<class Part>() {
    for (const Shared<Part>& part : after.all<Part>()) {
      if (wrong) return;
      const Part* old = before ? before->listed<Part>(part->id) : nullptr;
      if (!old || !old->revision.is(part->revision)) wrong = whyNoPart(part.read(), old, after);
    }
  });
  return wrong;
}

bool differInMapsOnly(const Quilt& before, const Quilt& after) {
  if (!(before.facts() == after.facts()) || !(before.slots() == after.slots())) return false;
  bool only = true;
  PartKinds::forEach([&]<class Part>() {
    if constexpr (!std::is_same_v<Part, Map>) only = only && before.all<Part>() == after.all<Part>();
  });
  return only;
}

}  // namespace

std::optional<Error> whyNoStep(const Quilt& before, const Quilt& after, const StepRules& rules) {
  if (rules.nothing) return *rules.nothing;
  if (rules.mapsOnly && !differInMapsOnly(before, after)) {
    return refused(Error::Cause::inUse, "the quilt is still being opened");
  }
  for (const auto& map : before.maps()) {
    const Map* now = after.map(map->id);
    if (now && now->revision.is(map->revision)) continue;
    if (const Error* damage = rules.damage ? rules.damage(map->id) : nullptr) return *damage;
    for (const Shared<Layer>& layer : map->layers) {
      const Layer* then = now && rules.locked.contains(layer->id) ? now->layer(layer->id) : nullptr;
      if (then && !then->revision.is(layer->revision) && !sameLaid(*then, layer.read())) {
        return refused(Error::Cause::notPermitted, shortened(layer->name) + " is locked");
      }
    }
  }
  return whyNoParts(after, &before);
}

std::optional<Error> whyNotKept(const Quilt& quilt) { return whyNoParts(quilt, nullptr); }

}  // namespace uq
