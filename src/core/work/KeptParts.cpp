#include "core/work/KeptParts.h"

#include <algorithm>
#include <map>

#include "core/store/CellsPatch.h"
#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/EdgingText.h"
#include "core/store/TargetText.h"
#include "core/store/LinksText.h"
#include "core/store/PinsText.h"
#include "core/store/PlanText.h"
#include "core/store/StampText.h"
#include "core/store/TilesText.h"

namespace uq {

namespace {

constexpr const char* kSame = "sameDocument";  // as the one beside it

// The text that a field names by its number; nothing where there is none.
std::optional<std::string> textIn(const KeptRecord& record, const Json& json, std::string_view field) {
  const std::int64_t number = keptWhole(json, field);
  if (number < 0 || number >= static_cast<std::int64_t>(record.texts.size())) return std::nullopt;
  return std::string(record.texts[static_cast<std::size_t>(number)]);
}

template <class Read>
auto documentIn(const std::optional<std::string>& text, Read read) {
  const std::string file = "steps";
  const auto json = text ? readJson(*text, file) : Result<Json>(fail(Error::Cause::missing, "it is missing", file));
  return json ? read(*json, file) : decltype(read(*json, file))(fail(json.error()));
}

// The cells of a layer; false where they cannot be read.
bool readLayer(const Json& said, const KeptRecord& record, int turnOrder, Quilt& slots, Layer& layer) {
  const auto text = textIn(record, said, "cells");
  const auto places = keptNumbers(keptList(said, "chunks"), 2);
  if (!text || !places) return false;
  CellsRead cells = readCells(*text, slots, turnOrder, {});
  if (cells.error) return false;
  if (said.find("chunks")) {
    for (std::size_t i = 0; i < places->size(); i += 2) {
      const ChunkPos at{(*places)[i], (*places)[i + 1]};
      layer.cells.setChunk(at, cells.cells.chunk(at).cells());
    }
  } else {
    layer.cells = std::move(cells.cells);
  }
  const std::tuple<const char*, int, NumberGrid*> besides[] = {{"lifts", kMostLift, &layer.lifts}, {"meant", NumberGrid::kMost, &layer.meant}};
  for (const auto& [field, most, numbers] : besides) {
    const auto written = textIn(record, said, field);
    if (!written) continue;
    NumbersRead read = readNumbers(*written, most, {});
    if (read.error) return false;
    *numbers = std::move(read.numbers);
  }
  return true;
}

// The pins of a layer; false where they cannot be read. What is not said is as beside, and there alone nothing.
bool readPinsOf(const Json* said, const KeptRecord& record, const Layer* beside, Layer& layer) {
  layer.pins = beside && !said ? beside->pins : Shared<Pins>();
  if (!said) return true;
  auto pins = documentIn(textIn(record, *said, "pins"), readPinsDocument);
  if (pins) layer.pins = Shared(std::move(*pins));
  return pins.has_value();
}

}  // namespace

void KeptWriting::add(const char* field, std::string text) {
  said.emplace_back(field, static_cast<std::int64_t>(texts.size()));
  texts.push_back(std::move(text));
}

std::int64_t keptWhole(const Json& json, std::string_view field, std::int64_t otherwise) {
  const Json* found = json.find(field);
  const auto* number = found ? found->as<std::int64_t>() : nullptr;
  return number ? *number : otherwise;
}

std::string keptText(const Json& json, std::string_view field) {
  const Json* found = json.find(field);
  const auto* text = found ? found->as<std::string>() : nullptr;
  return text ? *text : std::string();
}

Id keptId(const Json& json, std::string_view field) { return Id::parse(keptText(json, field)).value_or(Id()); }

const Json::Array& keptList(const Json& json, std::string_view field) {
  static const Json::Array none;
  const Json* found = json.find(field);
  const auto* list = found ? found->as<Json::Array>() : nullptr;
  return list ? *list : none;
}

std::optional<std::vector<int>> keptNumbers(const Json::Array& list, std::size_t each) {
  if (list.size() % each != 0) return std::nullopt;
  std::vector<int> numbers;
  for (const Json& one : list) {
    const auto* number = one.as<std::int64_t>();
    if (!number || std::abs(*number) > kFarthestCell) return std::nullopt;
    numbers.push_back(static_cast<int>(*number));
  }
  return numbers;
}

void writePart(const QuiltFacts& part, const QuiltFacts*, KeptWriting& to) {
  to.add("document", writeJson(quiltDocument(part)));
}

void writePart(const Map& part, const Map* beside, KeptWriting& to) {
  std::string document = writeJson(mapDocument(part));
  if (beside && beside->folder == part.folder && writeJson(mapDocument(*beside)) == document) {
    to.said.emplace_back(kSame, true);  // as for any stroke
  } else {
    to.add("document", std::move(document));
  }
  to.said.emplace_back("file", part.folder);
  Json::Array layers;
  for (const Shared<Layer>& layer : part.layers) {
    const Layer* now = beside ? beside->layer(layer->id) : nullptr;
    if (layer->holdsPins() && !layer->pins->empty() && !(now && now->pins == layer->pins)) {
      KeptWriting one{{{"layer", layer->id.text()}}, to.texts, to.slots};
      one.add("pins", writeJson(pinsDocument(layer->pins.read())));
      layers.emplace_back(std::move(one.said));
    }
    if (!layer->holdsTiles() || (now && now->sameAs(layer.read()))) continue;
    KeptWriting one{{{"layer", layer->id.text()}}, to.texts, to.slots};
    if (now) {
      const auto chunks = chunksBetween(layer->cells, now->cells);
      Json::Array places;
      for (const ChunkPos at : chunks) {
        places.emplace_back(at.cx);
        places.emplace_back(at.cy);
      }
      one.said.emplace_back("chunks", std::move(places));
      one.add("cells", writeChunks(layer->cells, chunks, to.slots));
    } else {
      one.add("cells", writeCells(layer->cells, to.slots));
    }
    if (!now || !(now->lifts == layer->lifts)) one.add("lifts", writeNumbers(layer->lifts));
    if (now ? !(now->meant == layer->meant) : !layer->meant.empty()) one.add("meant", writeNumbers(layer->meant));
    layers.emplace_back(std::move(one.said));
  }
  to.said.emplace_back("layers", std::move(layers));
}

void writePart(const Sheet& part, const Sheet* beside, KeptWriting& to) {
  to.add("document", writeJson(sheetDocument(part)));
  to.said.emplace_back("file", part.file);
  to.add("tiles", writeTiles(part));
  Json::Array pictures;
  const auto add = [&](const PictureBytes& own, const PictureBytes* now) {
    KeptWriting one{{}, to.texts, to.slots};
    if (own.isBlank()) {
      one.said.emplace_back("blank", true);
    } else if (!now || !(own == *now)) {
      one.add("bytes", own.read());
    }
    pictures.emplace_back(std::move(one.said));
  };
  if (!part.isCollection()) add(part.source, beside && !beside->isCollection() ? &beside->source : nullptr);
  for (std::size_t i = 0; i < part.collection.size(); ++i) {
    const bool isThere = beside && i < beside->collection.size();
    add(part.collection[i].source, isThere ? &beside->collection[i].source : nullptr);
  }
  to.said.emplace_back("pictures", std::move(pictures));
}

void writePart(const Stamp& part, const Stamp*, KeptWriting& to) {
  to.said.emplace_back("file", part.file);
  Json::Array files;
  for (TextFile& file : stampFiles(part, to.slots)) {
    KeptWriting one{{{"path", file.path}}, to.texts, to.slots};
    one.add("text", std::move(file.text));
    files.emplace_back(std::move(one.said));
  }
  to.said.emplace_back("files", std::move(files));
}

void writePart(const Seam& part, const Seam*, KeptWriting& to) { to.add("document", writeJson(seamJson(part))); }

void writePart(const ChalkPiece& part, const ChalkPiece*, KeptWriting& to) {
  to.add("document", writeJson(chalkJson(part)));
}

void writePart(const Doorway& part, const Doorway*, KeptWriting& to) {
  to.add("document", writeJson(doorwayJson(part)));
}

void writePart(const Edging& part, const Edging*, KeptWriting& to) {
  to.said.emplace_back("file", part.file);
  to.add("document", writeJson(edgingDocument(part)));
}

void writePart(const Target& part, const Target*, KeptWriting& to) {
  to.said.emplace_back("file", part.file);
  to.add("document", writeJson(targetDocument(part)));
}

std::optional<QuiltFacts> readPart(KindTag<QuiltFacts>, const Json& said, const KeptRecord& record, const QuiltFacts*,
                                   Quilt&) {
  auto facts = documentIn(textIn(record, said, "document"), readQuiltDocument);
  return facts ? std::optional(std::move(*facts)) : std::nullopt;
}

std::optional<Map> readPart(KindTag<Map>, const Json& said, const KeptRecord& record, const Map* beside, Quilt& slots) {
  const bool isSame = beside && said.find(kSame);
  auto map = isSame ? Result<Map>(*beside) : documentIn(textIn(record, said, "document"), readMapDocument);
  if (!map) return std::nullopt;
  map->folder = keptText(said, "file");
  const int turnOrder = makeGrid(map->grid)->turnOrder();
  std::map<Id, const Json*> written;
  for (const Json& one : keptList(said, "layers")) written[keptId(one, "layer")] = &one;
  for (Shared<Layer>& shared : map->layers) {
    const auto* now = beside ? beside->layer(shared->id) : nullptr;
    const auto own = written.find(shared->id);
    if (shared->holdsTiles() && !now && own == written.end()) return std::nullopt;
    Layer layer = shared.read();
    if (now) static_cast<LayerCells&>(layer) = *now;
    if (layer.holdsPins()) {
      if (!readPinsOf(own == written.end() ? nullptr : own->second, record, now, layer)) return std::nullopt;
    } else if (own != written.end() && !readLayer(*own->second, record, turnOrder, slots, layer)) return std::nullopt;
    // One that is as it is beside is the same one, so that what is known of it goes on.
    if (now && layer == *now) {
      shared = beside->layers[*beside->layerIndex(shared->id)];
    } else {
      layer.revision = Revision::next();
      shared = Shared(std::move(layer));
    }
  }
  return std::move(*map);
}

std::optional<Sheet> readPart(KindTag<Sheet>, const Json& said, const KeptRecord& record, const Sheet* beside, Quilt&) {
  auto sheet = documentIn(textIn(record, said, "document"), readSheetDocument);
  if (!sheet) return std::nullopt;
  sheet->file = keptText(said, "file");
  const auto tiles = textIn(record, said, "tiles");
  if (!tiles || (!tiles->empty() && !readTiles(*tiles, {}, *sheet))) return std::nullopt;
  const Json::Array& pictures = keptList(said, "pictures");
  std::size_t next = 0;
  const auto take = [&](PictureBytes& own, const PictureBytes* now) {
    if (next >= pictures.size()) return false;
    const Json& one = pictures[next++];
    if (one.find("blank")) return true;
    auto bytes = textIn(record, one, "bytes");
    if (!bytes && !now) return false;
    own = bytes ? PictureBytes(std::move(*bytes)) : *now;
    return true;
  };
  if (!sheet->isCollection() && !take(sheet->source, beside ? &beside->source : nullptr)) return std::nullopt;
  for (std::size_t i = 0; i < sheet->collection.size(); ++i) {
    const bool isThere = beside && i < beside->collection.size();
    if (!take(sheet->collection[i].source, isThere ? &beside->collection[i].source : nullptr)) return std::nullopt;
  }
  return std::move(*sheet);
}

std::optional<Stamp> readPart(KindTag<Stamp>, const Json& said, const KeptRecord& record, const Stamp*, Quilt& slots) {
  std::map<std::string, std::string> files;
  for (const Json& one : keptList(said, "files")) {
    if (auto text = textIn(record, one, "text")) files[keptText(one, "path")] = std::move(*text);
  }
  const ReadFile file = [&](const std::string& path) -> Result<std::optional<std::string>> {
    const auto found = files.find(path);
    return found == files.end() ? std::nullopt : std::optional(found->second);
  };
  auto stamp = readStamp(keptText(said, "file"), slots, file);
  return stamp ? std::optional(std::move(*stamp)) : std::nullopt;
}

std::optional<Seam> readPart(KindTag<Seam>, const Json& said, const KeptRecord& record, const Seam*, Quilt&) {
  auto seam = documentIn(textIn(record, said, "document"), readSeam);
  return seam ? std::optional(std::move(*seam)) : std::nullopt;
}

std::optional<ChalkPiece> readPart(KindTag<ChalkPiece>, const Json& said, const KeptRecord& record, const ChalkPiece*,
                                   Quilt&) {
  auto piece = documentIn(textIn(record, said, "document"), readChalkPiece);
  return piece ? std::optional(std::move(*piece)) : std::nullopt;
}

std::optional<Doorway> readPart(KindTag<Doorway>, const Json& said, const KeptRecord& record, const Doorway*, Quilt&) {
  auto doorway = documentIn(textIn(record, said, "document"), readDoorway);
  return doorway ? std::optional(std::move(*doorway)) : std::nullopt;
}

std::optional<Edging> readPart(KindTag<Edging>, const Json& said, const KeptRecord& record, const Edging*, Quilt&) {
  auto edging = documentIn(textIn(record, said, "document"), readEdgingDocument);
  if (!edging) return std::nullopt;
  edging->file = keptText(said, "file");
  return std::move(*edging);
}

std::optional<Target> readPart(KindTag<Target>, const Json& said, const KeptRecord& record, const Target*, Quilt&) {
  auto target = documentIn(textIn(record, said, "document"), readTargetDocument);
  if (!target) return std::nullopt;
  target->file = keptText(said, "file");
  return std::move(*target);
}

}  // namespace uq
