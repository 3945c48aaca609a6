#include "core/work/KeptSteps.h"

#include <algorithm>
#include <charconv>
#include <map>

#include "core/base/Squeezed.h"
#include "core/store/CellsPatch.h"
#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/JsonText.h"
#include "core/store/StampText.h"
#include "core/store/TilesText.h"

namespace uq {

namespace {

constexpr std::string_view kMagic = "steps 1\n";
constexpr std::size_t kMostBytes = std::size_t{256} << 20;  // of one text, unpacked
constexpr std::size_t kMostStretches = 2'000;               // of a selection; a larger one is not kept
constexpr std::string_view kFactsKind = "quilt";

// One step: what is said of it, and texts that belong to it, by number.
struct Record {
  Json said;
  std::vector<std::string_view> texts;
};

// What is written of a change, and where its texts go.
struct Writing {
  Json::Object said;
  std::vector<std::string>& texts;
  const Quilt& slots;

  void add(const char* field, std::string text) {
    said.emplace_back(field, static_cast<std::int64_t>(texts.size()));
    texts.push_back(std::move(text));
  }
};

std::int64_t wholeOf(const Json& json, std::string_view field, std::int64_t otherwise = -1) {
  const Json* found = json.find(field);
  const auto* number = found ? found->as<std::int64_t>() : nullptr;
  return number ? *number : otherwise;
}

std::string textOf(const Json& json, std::string_view field) {
  const Json* found = json.find(field);
  const auto* text = found ? found->as<std::string>() : nullptr;
  return text ? *text : std::string();
}

Id idOf(const Json& json, std::string_view field) { return Id::parse(textOf(json, field)).value_or(Id()); }

const Json::Array& listOf(const Json& json, std::string_view field) {
  static const Json::Array none;
  const Json* found = json.find(field);
  const auto* list = found ? found->as<Json::Array>() : nullptr;
  return list ? *list : none;
}

// The text that a field names by its number; nothing where there is none.
std::optional<std::string> textIn(const Record& record, const Json& json, std::string_view field) {
  const std::int64_t number = wholeOf(json, field);
  if (number < 0 || number >= static_cast<std::int64_t>(record.texts.size())) return std::nullopt;
  return std::string(record.texts[static_cast<std::size_t>(number)]);
}

// Whole numbers, as many as come `each` time; nothing where one is none.
std::optional<std::vector<int>> numbersIn(const Json::Array& list, std::size_t each) {
  if (list.size() % each != 0) return std::nullopt;
  std::vector<int> numbers;
  for (const Json& one : list) {
    const auto* number = one.as<std::int64_t>();
    if (!number || std::abs(*number) > kFarthestCell) return std::nullopt;
    numbers.push_back(static_cast<int>(*number));
  }
  return numbers;
}

template <class Read>
auto documentIn(const std::optional<std::string>& text, Read read) {
  const std::string file = "steps";
  const auto json = text ? readJson(*text, file) : Result<Json>(fail(Error::Cause::missing, "it is missing", file));
  return json ? read(*json, file) : decltype(read(*json, file))(fail(json.error()));
}

// ---- by kind: what is written of what was before, and how it is read; `after` may be nullptr

void write(const QuiltFacts& before, const QuiltFacts*, Writing& to) {
  to.add("document", writeJson(quiltDocument(before)));
}

void write(const Map& before, const Map* after, Writing& to) {
  to.add("document", writeJson(mapDocument(before)));
  to.said.emplace_back("file", before.folder);
  Json::Array layers;
  for (const Shared<Layer>& layer : before.layers) {
    const Layer* now = after ? after->layer(layer->id) : nullptr;
    if (!layer->holdsTiles() || (now && now->sameAs(layer.read()))) continue;
    Writing one{{{"layer", layer->id.text()}}, to.texts, to.slots};
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
    layers.emplace_back(std::move(one.said));
  }
  to.said.emplace_back("layers", std::move(layers));
}

void write(const Sheet& before, const Sheet* after, Writing& to) {
  to.add("document", writeJson(sheetDocument(before)));
  to.said.emplace_back("file", before.file);
  to.add("tiles", writeTiles(before));
  Json::Array pictures;
  const auto add = [&](const PictureBytes& own, const PictureBytes* now) {
    Writing one{{}, to.texts, to.slots};
    if (own.isBlank()) {
      one.said.emplace_back("blank", true);
    } else if (!now || !(own == *now)) {
      one.add("bytes", own.read());
    }
    pictures.emplace_back(std::move(one.said));
  };
  if (!before.isCollection()) add(before.source, after && !after->isCollection() ? &after->source : nullptr);
  for (std::size_t i = 0; i < before.collection.size(); ++i) {
    const bool isThere = after && i < after->collection.size();
    add(before.collection[i].source, isThere ? &after->collection[i].source : nullptr);
  }
  to.said.emplace_back("pictures", std::move(pictures));
}

void write(const Stamp& before, const Stamp*, Writing& to) {
  to.said.emplace_back("file", before.file);
  Json::Array files;
  for (TextFile& file : stampFiles(before, to.slots)) {
    Writing one{{{"path", file.path}}, to.texts, to.slots};
    one.add("text", std::move(file.text));
    files.emplace_back(std::move(one.said));
  }
  to.said.emplace_back("files", std::move(files));
}

std::optional<QuiltFacts> read(KindTag<QuiltFacts>, const Json& said, const Record& record, const QuiltFacts*, Quilt&) {
  auto facts = documentIn(textIn(record, said, "document"), readQuiltDocument);
  return facts ? std::optional(std::move(*facts)) : std::nullopt;
}

// The cells that a layer had before; false where they cannot be read.
bool readLayer(const Json& said, const Record& record, int turnOrder, Quilt& slots, Layer& layer) {
  const auto text = textIn(record, said, "cells");
  const auto places = numbersIn(listOf(said, "chunks"), 2);
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
  if (const auto lifted = textIn(record, said, "lifts")) {
    NumbersRead lifts = readNumbers(*lifted, kMostLift, {});
    if (lifts.error) return false;
    layer.lifts = std::move(lifts.numbers);
  }
  return true;
}

std::optional<Map> read(KindTag<Map>, const Json& said, const Record& record, const Map* after, Quilt& slots) {
  auto map = documentIn(textIn(record, said, "document"), readMapDocument);
  if (!map) return std::nullopt;
  map->folder = textOf(said, "file");
  const int turnOrder = makeGrid(map->grid)->turnOrder();
  std::map<Id, const Json*> written;
  for (const Json& one : listOf(said, "layers")) written[idOf(one, "layer")] = &one;
  for (Shared<Layer>& shared : map->layers) {
    const auto* now = after ? after->layer(shared->id) : nullptr;
    const auto own = written.find(shared->id);
    if (shared->holdsTiles() && !now && own == written.end()) return std::nullopt;
    Layer layer = shared.read();
    if (now) static_cast<LayerCells&>(layer) = *now;
    if (own != written.end() && !readLayer(*own->second, record, turnOrder, slots, layer)) return std::nullopt;
    // One that is as it is later is the same one, so that what is known of it goes on.
    if (now && layer == *now) {
      shared = after->layers[*after->layerIndex(shared->id)];
    } else {
      layer.revision = Revision::next();
      shared = Shared(std::move(layer));
    }
  }
  return std::move(*map);
}

std::optional<Sheet> read(KindTag<Sheet>, const Json& said, const Record& record, const Sheet* after, Quilt&) {
  auto sheet = documentIn(textIn(record, said, "document"), readSheetDocument);
  if (!sheet) return std::nullopt;
  sheet->file = textOf(said, "file");
  const auto tiles = textIn(record, said, "tiles");
  if (!tiles || (!tiles->empty() && !readTiles(*tiles, {}, *sheet))) return std::nullopt;
  const Json::Array& pictures = listOf(said, "pictures");
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
  if (!sheet->isCollection() && !take(sheet->source, after ? &after->source : nullptr)) return std::nullopt;
  for (std::size_t i = 0; i < sheet->collection.size(); ++i) {
    const bool isThere = after && i < after->collection.size();
    if (!take(sheet->collection[i].source, isThere ? &after->collection[i].source : nullptr)) return std::nullopt;
  }
  return std::move(*sheet);
}

std::optional<Stamp> read(KindTag<Stamp>, const Json& said, const Record& record, const Stamp*, Quilt& slots) {
  std::map<std::string, std::string> files;
  for (const Json& one : listOf(said, "files")) {
    if (auto text = textIn(record, one, "text")) files[textOf(one, "path")] = std::move(*text);
  }
  const ReadFile file = [&](const std::string& path) -> Result<std::optional<std::string>> {
    const auto found = files.find(path);
    return found == files.end() ? std::nullopt : std::optional(found->second);
  };
  auto stamp = readStamp(textOf(said, "file"), slots, file);
  return stamp ? std::optional(std::move(*stamp)) : std::nullopt;
}

// ---- a step

template <class Part>
std::string_view kindOf() {
  if constexpr (std::is_same_v<Part, QuiltFacts>) {
    return kFactsKind;
  } else {
    return kNounOf<Part>;
  }
}

Json markJson(const DeskMark& mark) {
  Json::Object said{{"map", mark.active.map.text()}, {"layer", mark.active.layer.text()}};
  Json::Array cells;
  if (mark.selection) {
    mark.selection->forEachStretch([&](CellPos first, int count) {
      for (const int number : {first.x, first.y, count}) cells.emplace_back(number);
    });
    if (cells.size() <= 3 * kMostStretches) said.emplace_back("selection", std::move(cells));
  }
  return said;
}

DeskMark markIn(const Json& json) {
  DeskMark mark(LayerAt{idOf(json, "map"), idOf(json, "layer")});
  const auto numbers = numbersIn(listOf(json, "selection"), 3);
  if (!json.find("selection") || !numbers) return mark;
  CellSet cells;
  for (std::size_t i = 0; i < numbers->size(); i += 3) {
    const int x = (*numbers)[i];
    const int y = (*numbers)[i + 1];
    const int count = (*numbers)[i + 2];
    if (count > 0) cells = cells.united(CellSet(CellRect{x, y, x + count, y + 1}));
  }
  mark.selection = std::move(cells);
  return mark;
}

void writeStep(const Step& step, const Quilt& slots, std::string& out) {
  std::vector<std::string> texts;
  Json::Array changes;
  for (const PartChange& change : step.changes) {
    Writing one{{}, texts, slots};
    const auto put = [&]<class Part>() {
      if (change.key.kind != PartKey::of<Part>(change.key.id).kind) return;
      one.said.emplace_back("kind", std::string(kindOf<Part>()));
      const auto* before = std::get_if<Shared<Part>>(&change.before);
      const auto* after = std::get_if<Shared<Part>>(&change.after);
      if (before) write(before->read(), after ? &after->read() : nullptr, one);
    };
    PartKinds::forEach(put);
    if (change.key.kind == PartKey::kFacts) {
      one.said.emplace_back("kind", std::string(kFactsKind));
      if (const auto* before = std::get_if<Shared<QuiltFacts>>(&change.before)) write(before->read(), nullptr, one);
    }
    one.said.emplace_back("id", change.key.id.text());
    changes.emplace_back(std::move(one.said));
  }
  const std::string said = writeJson(Json::Object{{"number", static_cast<std::int64_t>(step.number)},
                                                  {"name", step.name},
                                                  {"tab", step.tab.text()},
                                                  {"deskBefore", markJson(step.deskBefore)},
                                                  {"deskAfter", markJson(step.deskAfter)},
                                                  {"changes", std::move(changes)}});
  out += std::to_string(texts.size() + 1);
  const auto addLength = [&](const std::string& text) { out += " " + std::to_string(text.size()); };
  addLength(said);
  std::for_each(texts.begin(), texts.end(), addLength);
  out += "\n" + said;
  for (const std::string& text : texts) out += text;
}

// The records in a text, by the numbers of their steps. What follows on something that is no record is left out.
void recordsIn(std::string_view text, std::map<std::uint64_t, Record>& records) {
  if (!text.starts_with(kMagic)) return;
  text.remove_prefix(kMagic.size());
  while (!text.empty()) {
    const auto end = text.find('\n');
    if (end == std::string_view::npos) return;
    std::vector<std::size_t> lengths;
    for (const char *at = text.data(), *last = text.data() + end; at < last; ++at) {
      std::size_t number = 0;
      const auto read = std::from_chars(at, last, number);
      if (read.ec != std::errc() || number > kMostBytes) return;
      lengths.push_back(number);
      at = read.ptr;
    }
    text.remove_prefix(end + 1);
    if (lengths.size() < 2 || lengths.front() != lengths.size() - 1) return;
    std::vector<std::string_view> texts;
    for (std::size_t i = 1; i < lengths.size(); ++i) {
      if (lengths[i] > text.size()) return;
      texts.push_back(text.substr(0, lengths[i]));
      text.remove_prefix(lengths[i]);
    }
    auto said = readJson(texts.front(), "steps");
    if (!said) return;
    texts.erase(texts.begin());
    const std::int64_t number = wholeOf(*said, "number");
    if (number > 0) records[static_cast<std::uint64_t>(number)] = {std::move(*said), std::move(texts)};
  }
}

// The value that a part has in a quilt.
PartValue valueIn(const Quilt& quilt, const PartKey& key) {
  if (key.kind == PartKey::kFacts) return quilt.sharedFacts();
  PartValue value;
  PartKinds::forEach([&]<class Part>() {
    if (key.kind != PartKey::of<Part>(key.id).kind) return;
    for (const Shared<Part>& part : quilt.all<Part>()) {
      if (part->id == key.id) value = part;
    }
  });
  return value;
}

using Values = std::vector<std::pair<PartKey, PartValue>>;

PartValue& valueOf(Values& values, const PartKey& key, const Quilt& now) {
  const auto known = std::find_if(values.begin(), values.end(), [&](const auto& one) { return one.first == key; });
  if (known != values.end()) return known->second;
  return values.emplace_back(key, valueIn(now, key)).second;
}

template <class Part>
bool readChange(const Json& said, const Record& record, Quilt& slots, PartChange& change) {
  change.before = std::monostate{};
  if (said.find("file") == nullptr && said.find("document") == nullptr) return true;  // it was not there
  const auto* after = std::get_if<Shared<Part>>(&change.after);
  auto part = read(KindTag<Part>{}, said, record, after ? &after->read() : nullptr, slots);
  if (!part) return false;
  if constexpr (!std::is_same_v<Part, QuiltFacts>) {
    if (part->id != change.key.id) return false;
  }
  part->revision = Revision::next();
  change.before = Shared(std::move(*part));
  return true;
}

std::optional<Step> readStep(const Record& record, Values& values, Quilt& now) {
  Step step;
  step.number = static_cast<std::uint64_t>(wholeOf(record.said, "number"));
  step.name = textOf(record.said, "name");
  step.tab = idOf(record.said, "tab");
  const Json none = Json::Object();
  const auto mark = [&](const char* field) {
    const Json* json = record.said.find(field);
    return markIn(json ? *json : none);
  };
  step.deskBefore = mark("deskBefore");
  step.deskAfter = mark("deskAfter");
  for (const Json& said : listOf(record.said, "changes")) {
    const std::string kind = textOf(said, "kind");
    PartChange change;
    bool isRead = false;
    const auto take = [&]<class Part>() {
      if (kind != kindOf<Part>()) return;
      if constexpr (!std::is_same_v<Part, QuiltFacts>) change.key = PartKey::of<Part>(idOf(said, "id"));
      change.after = valueOf(values, change.key, now);
      isRead = !step.touches(change.key) && readChange<Part>(said, record, now, change);
    };
    PartKinds::forEach(take);
    take.template operator()<QuiltFacts>();
    if (!isRead) return std::nullopt;
    step.changes.push_back(std::move(change));
  }
  if (step.changes.empty()) return std::nullopt;
  for (const PartChange& change : step.changes) valueOf(values, change.key, now) = change.before;
  return step;
}

}  // namespace

LineToKeep lineToKeep(const UndoLine& line, const std::set<std::uint64_t>& known) {
  LineToKeep keep;
  const auto isAtHand = [](const PartChange& change) { return change.packed == nullptr; };
  for (auto step = line.steps().rbegin(); step != line.steps().rend(); ++step) {
    if (keep.numbers.size() == kMostKeptSteps) break;
    if (!known.contains(step->number)) {
      if (!std::all_of(step->changes.begin(), step->changes.end(), isAtHand)) break;
      keep.fresh.push_back(*step);
    }
    keep.numbers.push_back(step->number);
  }
  std::reverse(keep.numbers.begin(), keep.numbers.end());
  std::reverse(keep.fresh.begin(), keep.fresh.end());
  return keep;
}

std::string stepsText(const std::vector<Step>& steps, const Quilt& slots) {
  std::string out(kMagic);
  for (const Step& step : steps) writeStep(step, slots, out);
  return squeezed(out);
}

StepsRead readSteps(const std::vector<std::string>& texts, const std::vector<std::uint64_t>& numbers, Quilt& now) {
  std::vector<std::string> whole;
  for (const std::string& text : texts) {
    if (auto one = unsqueezed(text, kMostBytes)) whole.push_back(std::move(*one));
  }
  std::map<std::uint64_t, Record> records;  // they look into `whole`
  for (const std::string& text : whole) recordsIn(text, records);
  StepsRead read;
  Values values;
  for (auto number = numbers.rbegin(); number != numbers.rend(); ++number) {
    const auto record = records.find(*number);
    auto step = record == records.end() ? std::nullopt : readStep(record->second, values, now);
    // Numbers count up along the line.
    if (!step || (!read.steps.empty() && step->number >= read.steps.back().number)) {
      read.whole = false;
      break;
    }
    read.steps.push_back(std::move(*step));
  }
  std::reverse(read.steps.begin(), read.steps.end());
  return read;
}

}  // namespace uq
