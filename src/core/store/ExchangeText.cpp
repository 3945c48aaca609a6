#include "core/store/ExchangeText.h"

#include <algorithm>
#include <set>
#include <thread>

#include "core/base/InShares.h"
#include "core/edit/MapFacts.h"
#include "core/store/ExchangeRows.h"
#include "core/store/Fields.h"
#include "core/store/JsonText.h"

namespace uq {

namespace {

constexpr std::uint32_t kMostSheetNumber = kLastSlot - 1;  // that of the chalk is the last slot

Json rect(const PixelRect& of) { return Json::Array{of.x, of.y, of.w, of.h}; }
Json rect(const CellRect& of) { return Json::Array{of.x0, of.y0, of.x1, of.y1}; }
Json textOrNull(const std::string& text) { return text.empty() ? Json() : Json(text); }
std::string_view footingText(Footing footing) { return footing == Footing::solid ? "solid" : footing == Footing::overhead ? "overhead" : "open"; }

std::string versionText() { return std::to_string(kExchangeMajor) + "." + std::to_string(kExchangeMinor); }

// What a code counts to: A 1, Z 26, AA 27.
std::uint32_t numberOf(const std::string& code) {
  std::uint32_t number = 0;
  for (const char letter : code) number = number * 26 + static_cast<std::uint32_t>(letter - 'A') + 1;
  return number;
}

Json tileJson(const Sheet& sheet, std::uint32_t number, const PixelRect& at) {
  const TileFacts& facts = sheet.factsOf(number);
  Json::Object tile{{"number", static_cast<int>(number)}, {"at", rect(at)}};
  if (!facts.name.empty()) tile.emplace_back("name", facts.name);
  if (!facts.tags.empty()) tile.emplace_back("tags", Json::Array(facts.tags.begin(), facts.tags.end()));
  if (facts.footing) tile.emplace_back("footing", footingText(*facts.footing));
  if (facts.stance) {
    tile.emplace_back("seat", pair(facts.stance->seat));
    tile.emplace_back("footprint", pair(facts.stance->footprint));
  }
  Json::Array frames;
  for (const Frame& one : facts.frames) frames.push_back(Json::Object{{"tile", static_cast<int>(one.tile)}, {"milliseconds", one.milliseconds}});
  if (!frames.empty()) tile.emplace_back("frames", std::move(frames));
  return tile;
}

Json sheetJson(const Sheet& sheet, std::uint32_t number) {
  Json::Array tiles;
  const std::uint32_t end = sheet.endOfNumbers();
  for (std::uint32_t tile = 0; tile < end; ++tile) {
    if (const auto at = sheet.place(tile)) tiles.push_back(tileJson(sheet, tile, *at));
  }
  return Json::Object{{"number", static_cast<std::int64_t>(number)},
                      {"code", sheet.code},
                      {"id", sheet.id.text()},
                      {"name", sheet.name},
                      {"picture", exchangePicture(sheet)},
                      {"size", pair(sheet.pictureSize)},
                      {"cell", pair(sheet.cut.cell)},
                      {"seat", pair(sheet.stance.seat)},
                      {"footprint", pair(sheet.stance.footprint)},
                      {"footing", footingText(sheet.footing)},
                      {"tiles", std::move(tiles)}};
}

Json doorwayEnd(const Quilt& quilt, const PinAt& end, std::optional<Heading> heading) {
  const Map* map = quilt.map(end.map);
  const Pin* pin = map ? map->pin(end.pin) : nullptr;
  Json::Object object{{"map", end.map.text()}, {"spot", end.pin.text()}};
  if (pin) {
    const CellPos middle = middleOf(*pin, map->bounds);
    object.emplace_back("mapName", map->name);
    object.emplace_back("spotName", textOrNull(pin->name));
    object.emplace_back("cell", Json::Array{middle.x, middle.y});
  }
  object.emplace_back("facing", heading ? Json(headingName(*heading)) : Json());
  return object;
}

Json doorwayJson(const Quilt& quilt, const Doorway& doorway) {
  return Json::Object{{"id", doorway.id.text()},
                      {"from", doorwayEnd(quilt, doorway.from, doorway.back)},
                      {"to", doorwayEnd(quilt, doorway.to, doorway.arriving)},
                      {"leadsBack", doorway.back.has_value()},
                      {"needs", textOrNull(doorway.needs)},
                      {"sound", textOrNull(doorway.sound)},
                      {"note", textOrNull(doorway.note)}};
}

Json edgingJson(const Quilt& quilt, const Edging& edging) {
  const auto numbers = exchangeNumbers(quilt);
  Json::Array materials;
  for (const Material& one : edging.materials) materials.push_back(Json::Object{{"name", one.name}, {"colour", colourText(one.colour)}});
  Json::Array tiles;
  for (const EdgingMember& one : edging.members) {
    const auto sheet = numbers.find(one.tile.sheet);
    if (sheet == numbers.end()) continue;
    tiles.push_back(Json::Object{{"sheet", static_cast<std::int64_t>(sheet->second)},
                                 {"tile", static_cast<int>(one.tile.tile)},
                                 {"turn", static_cast<int>(one.turn.code())},
                                 {"middle", materialName(edging, one.middle)}});
  }
  return Json::Object{{"id", edging.id.text()}, {"name", edging.name}, {"decides", decidesName(edging.decides)}, {"materials", std::move(materials)}, {"tiles", std::move(tiles)}};
}

// Where the box of a cell lies, as sums; see docs/exchange.md.
Json boxesJson(const Grid& grid) {
  const PixelRect first = grid.cellBox({0, 0});
  const auto way = [&](const PixelRect& to, int parts) { return PixelPos{(to.x - first.x) / parts, (to.y - first.y) / parts}; };
  const PixelPos column = way(grid.cellBox({2, 0}), 2);
  const PixelPos row = way(grid.cellBox({0, 2}), 2);
  const PixelPos oneRight = way(grid.cellBox({1, 0}), 1);
  const PixelPos oneDown = way(grid.cellBox({0, 1}), 1);
  return Json::Object{{"origin", pair(PixelPos{first.x, first.y})},
                      {"column", pair(column)},
                      {"row", pair(row)},
                      {"oddColumn", pair(PixelPos{oneRight.x - column.x, oneRight.y - column.y})},
                      {"oddRow", pair(PixelPos{oneDown.x - row.x, oneDown.y - row.y})},
                      {"size", pair(PixelSize{first.w, first.h})}};
}

Json turnsJson(const Grid& grid) {
  Json::Array turns;
  for (std::uint32_t code = 0; code < Turn::kCodes; ++code) {
    if (!Turn::isCode(code, grid.turnOrder())) {
      turns.emplace_back();
      continue;
    }
    const Turn drawn = grid.drawnTurn(Turn::fromCode(code));
    turns.push_back(Json::Array{drawn.mirror ? 1 : 0, static_cast<int>(drawn.steps)});
  }
  return turns;
}

// The footprints of all tiles that stand on several cells, both ways round, as ways from the cell that holds the tile: for cells of
// even and odd columns and rows.
Json footprintsJson(const Quilt& quilt, const Grid& grid) {
  std::set<std::pair<int, int>> sizes;
  const auto add = [&](const Stance& stance) {
    if (!stance.isWide()) return;
    sizes.insert({stance.footprint.w, stance.footprint.h});
    sizes.insert({stance.footprint.h, stance.footprint.w});
  };
  for (const Shared<Sheet>& sheet : quilt.sheets()) {
    add(sheet->stance);
    for (const auto& [number, facts] : sheet->tiles) {
      if (facts.stance) add(*facts.stance);
    }
  }
  Json::Array footprints;
  for (const auto& [w, h] : sizes) {
    Json::Array ways;
    for (int parity = 0; parity < 4; ++parity) {
      const CellPos at{parity & 1, parity >> 1};
      Json::Array cells;
      for (const CellPos cell : footprintOf(grid, at, {w, h})) {
        cells.emplace_back(cell.x - at.x);
        cells.emplace_back(cell.y - at.y);
      }
      ways.emplace_back(std::move(cells));
    }
    footprints.push_back(Json::Object{{"size", Json::Array{w, h}}, {"cells", std::move(ways)}});
  }
  return footprints;
}

Json pinsJson(const Map& map, const Grid& grid, const Layer& layer) {
  Json::Array pins;
  for (const Pin& pin : layer.pins.read()) {
    const CellRect cells = cellsOf(pin, map.bounds);
    const CellPos middle = middleOf(pin, map.bounds);
    const PixelRect box = grid.cellBox(middle);
    Json::Object one{{"id", pin.id.text()}, {"number", pin.number}, {"name", textOrNull(pin.name)}, {"cells", rect(cells)}, {"middle", Json::Array{middle.x, middle.y}}};
    if (pin.edge) one.emplace_back("edge", edgeName(*pin.edge));
    one.emplace_back("pixel", Json::Array{box.x + box.w / 2 + pin.beside.x, box.y + box.h / 2 + pin.beside.y});
    one.emplace_back("note", textOrNull(pin.note));
    pins.emplace_back(std::move(one));
  }
  return pins;
}

Json stepJson(const Map& map, const ExchangeStep& step) {
  Json::Array layers;
  Json::Array shifts;
  for (std::size_t i = 0; i < step.layers.size(); ++i) {
    layers.emplace_back(static_cast<int>(step.layers[i]));
    if (!step.shifts.empty()) shifts.push_back(pair(step.shifts[i]));
  }
  const Parallax parallax = map.layers[step.layers.front()]->parallax;
  Json::Object one{{"layers", std::move(layers)},
                   {"order", step.byDepth ? "by-depth" : "by-layers"},
                   {"offset", pair(step.offset)},
                   {"parallax", Json::Array{parallax.across, parallax.down}},
                   {"opacity", step.opacity},
                   {"blend", blendName(step.blend)},
                   {"tint", colourText(step.tint)}};
  if (!shifts.empty()) one.emplace_back("shifts", std::move(shifts));
  return one;
}

// The text of a map, of which the cells are spelt later, band by band and several at once: they are nearly all of it.
class Out {
 public:
  void add(std::string_view text) {
    text_ += text;
    last_ = text.back();
  }
  // The text of a value without the line feed after it.
  void value(const Json& json) {
    std::string text = writeJson(json);
    while (!text.empty() && text.back() == '\n') text.pop_back();
    add(text);
  }
  void field(std::string_view name, const Json& json) {
    add(last_ == '{' ? "\n\"" : ",\n\"");
    add(name);
    add("\": ");
    value(json);
  }
  void rows(const ExchangeRows& rows) {
    if (rows.as != CellsAs::packed) add("[");
    const int all = rows.area.y1 - rows.area.y0;
    const int band = rows.as == CellsAs::packed ? std::max(1, all) : std::max(1, kCellsOfBand / std::max(1, rows.area.width()));
    for (int y = rows.area.y0; y < rows.area.y1 || (all <= 0 && y == rows.area.y0 && rows.as == CellsAs::packed); y += band) {
      bands_.push_back({std::move(text_), rows, y, std::min(y + band, rows.area.y1)});
      text_.clear();
    }
    if (rows.as != CellsAs::packed) add("]");
    last_ = ']';
  }
  // All of it, in order.
  Result<void> give(const TextPiece& add) const {
    const std::size_t batch = 4 * std::max(1u, std::thread::hardware_concurrency());
    for (std::size_t from = 0; from < bands_.size(); from += batch) {
      const std::size_t count = std::min(batch, bands_.size() - from);
      const auto shares = inShares(count, 1, [&](std::size_t first, std::size_t end) {
        std::vector<std::string> spelt;
        for (std::size_t i = first; i < end; ++i) {
          const Band& band = bands_[from + i];
          spelt.push_back(band.before);
          addExchangeRows(spelt.back(), band.rows, band.from, band.to);
        }
        return spelt;
      });
      for (const auto& share : shares) {
        for (const std::string& text : share) {
          if (auto done = add(text); !done) return done;
        }
      }
    }
    return add(text_);
  }

 private:
  static constexpr int kCellsOfBand = 1 << 19;
  struct Band {
    std::string before;
    ExchangeRows rows;
    int from = 0;
    int to = 0;
  };
  std::vector<Band> bands_;
  std::string text_;  // after the last of them
  char last_ = 0;
};

void addCells(Out& out, const Map& map, const Layer& layer, const ExchangeCells& numbers, const ExchangeMapParts& parts) {
  const CellsAs as = parts.cells;
  CellRect area = parts.wholeMap ? map.bounds : layer.cells.usedBounds().intersected(map.bounds);
  if (area.empty()) area = {};
  out.field("area", rect(area));
  out.field("as", cellsAsName(as));
  out.add(",\n\"cells\": ");
  out.rows({layer.cells, area, as, &numbers});
  if (layer.lifts.empty()) return;
  out.add(",\n\"lifts\": ");
  out.rows({layer.lifts.cells(), area, as, nullptr});
}

void addLayer(Out& out, const Map& map, const Grid& grid, std::size_t index, const ExchangeCells& numbers, const ExchangeMapParts& parts) {
  const Layer& layer = map.layers[index].read();
  Json::Array folders;
  for (const Id folder : map.foldersAround(layer.folder)) folders.emplace_back(map.layerFolder(folder)->name);
  out.add("{");
  out.field("id", layer.id.text());
  out.field("name", layer.name);
  out.field("role", textOrNull(layer.role));
  out.field("kind", layerKindName(layer.kind));
  out.field("folders", std::move(folders));
  out.field("rise", map.riseOf(layer));
  out.field("level", map.levelOf(layer));
  out.field("plane", pair(map.planeOf(layer)));
  out.field("parallax", Json::Array{layer.parallax.across, layer.parallax.down});
  out.field("opacity", layer.opacity);
  out.field("blend", blendName(layer.blend));
  out.field("tint", colourText(layer.tint));
  out.field("inGame", layer.inGame);
  out.field("note", textOrNull(layer.note));
  if (layer.holdsPins()) out.field("spots", pinsJson(map, grid, layer));
  if (layer.kind == LayerKind::backdrop) {
    const auto hung = parts.backdrops.find(index);
    const bool hangs = hung != parts.backdrops.end() && !hung->second.picture.empty();
    out.field("backdrop", hangs ? Json(Json::Object{{"picture", hung->second.picture},
                                                    {"size", pair(hung->second.size)},
                                                    {"repeatsAcross", layer.backdrop.repeatsAcross},
                                                    {"repeatsDown", layer.backdrop.repeatsDown}})
                                : Json());
  }
  if (layer.holdsTiles() && parts.withCells) addCells(out, map, layer, numbers, parts);
  out.add("\n}");
}

}  // namespace

std::string_view cellsAsName(CellsAs as) {
  constexpr std::string_view kNames[] = {"plain", "runs", "packed"};
  return kNames[static_cast<std::size_t>(as)];
}
std::optional<CellsAs> cellsAsFromName(std::string_view name) {
  for (const CellsAs as : {CellsAs::plain, CellsAs::runs, CellsAs::packed}) {
    if (name == cellsAsName(as)) return as;
  }
  return std::nullopt;
}

std::map<Id, std::uint32_t> exchangeNumbers(const Quilt& quilt) {
  std::map<Id, std::uint32_t> numbers;
  std::set<std::uint32_t> taken;
  std::map<std::pair<std::string, Id>, Id> byCode;  // in an order that is always the same
  for (const Shared<Sheet>& sheet : quilt.sheets()) byCode[{sheet->code, sheet->id}] = sheet->id;
  for (const auto& [key, id] : byCode) {
    const std::uint32_t number = numberOf(key.first);
    if (number >= 1 && number <= kMostSheetNumber && taken.insert(number).second) numbers[id] = number;
  }
  std::uint32_t next = 1;
  for (const auto& [key, id] : byCode) {
    if (numbers.contains(id)) continue;
    while (taken.contains(next)) ++next;
    if (next > kMostSheetNumber) break;
    taken.insert(numbers[id] = next);
  }
  return numbers;
}

ExchangeCells::ExchangeCells(const Quilt& quilt) : bySlot_(kLastSlot + 1) {
  bySlot_[kChalkSlot] = kChalkSlot;
  for (const auto& [id, number] : exchangeNumbers(quilt)) {
    if (const auto slot = quilt.slots().find(id)) bySlot_[*slot] = number;
  }
}

std::string exchangeFile(const Map& map) { return "maps/" + map.folder + ".json"; }
std::string exchangePicture(const Sheet& sheet) { return "sheets/" + sheet.file + ".png"; }

std::string exchangeQuiltText(const Quilt& quilt) {
  const auto numbers = exchangeNumbers(quilt);
  Json::Array maps;
  for (const Shared<Map>& map : quilt.maps()) {
    const PixelRect pixels = makeGrid(map->grid)->pixelBounds(map->bounds);
    maps.push_back(Json::Object{{"id", map->id.text()}, {"name", map->name}, {"title", textOrNull(map->title)}, {"file", exchangeFile(map.read())}, {"pixels", Json::Array{pixels.w, pixels.h}}});
  }
  Json::Array sheets;
  for (const Shared<Sheet>& sheet : quilt.sheets()) {
    if (const auto number = numbers.find(sheet->id); number != numbers.end()) sheets.push_back(sheetJson(sheet.read(), number->second));
  }
  Json::Array edgings;
  for (const Shared<Edging>& edging : quilt.edgings()) edgings.push_back(edgingJson(quilt, edging.read()));
  Json::Array seams;
  for (const Shared<Seam>& seam : quilt.seams()) {
    seams.push_back(Json::Object{{"id", seam->id.text()}, {"map", seam->map.text()}, {"other", seam->other.text()}, {"at", Json::Array{seam->by.x, seam->by.y}}});
  }
  Json::Array doorways;
  for (const Shared<Doorway>& doorway : quilt.doorways()) doorways.push_back(doorwayJson(quilt, doorway.read()));
  const QuiltFacts& facts = quilt.facts();
  const Map* start = quilt.map(facts.start.map);
  const bool starts = start && start->pin(facts.start.pin);
  return writeJson(Json::Object{{"document", "exchange-quilt"},
                                {"version", versionText()},
                                {"id", facts.id.text()},
                                {"name", facts.name},
                                {"screen", pair(facts.screen)},
                                {"start", starts ? doorwayEnd(quilt, facts.start, std::nullopt) : Json()},
                                {"maps", std::move(maps)},
                                {"sheets", std::move(sheets)},
                                {"edgings", std::move(edgings)},
                                {"seams", std::move(seams)},
                                {"doorways", std::move(doorways)}});
}

std::string exchangeMapText(const Quilt& quilt, const Map& map, const ExchangeMapParts& parts) {
  std::string text;
  (void)giveExchangeMap(quilt, map, parts, [&](std::string_view piece) -> Result<void> {
    text += piece;
    return {};
  });
  return text;
}

Result<void> giveExchangeMap(const Quilt& quilt, const Map& map, const ExchangeMapParts& parts, const TextPiece& add) {
  const auto grid = makeGrid(map.grid);
  const ExchangeCells numbers(quilt);
  Json::Object shape{{"kind", gridName(map.grid.kind)}, {"cell", pair(map.grid.cell)}, {"side", map.grid.side}, {"firstShift", map.grid.firstShift}};
  Json::Array drawing;
  for (const ExchangeStep& step : parts.drawing) drawing.push_back(stepJson(map, step));
  const PixelSize screen = map.screen.value_or(quilt.facts().screen);
  Out out;
  out.add("{");
  out.field("document", "exchange-map");
  out.field("version", versionText());
  out.field("id", map.id.text());
  out.field("name", map.name);
  out.field("title", textOrNull(map.title));
  out.field("seen", seenName(map.seen));
  out.field("grid", std::move(shape));
  out.field("bounds", rect(map.bounds));
  out.field("size", Json::Array{map.bounds.width(), map.bounds.height()});
  out.field("pixels", rect(grid->pixelBounds(map.bounds)));
  out.field("picture", rect(parts.picture));
  out.field("boxes", boxesJson(*grid));
  out.field("stands", map.grid.kind == GridKind::orthogonal ? "left" : "middle");
  out.field("turns", turnsJson(*grid));
  out.field("footprints", footprintsJson(quilt, *grid));
  out.field("cloth", map.cloth ? Json(colourText(*map.cloth)) : Json());
  out.field("screen", pair(screen));
  out.field("shownTimes", map.shownTimes);
  out.field("cameraRunsFree", map.cameraRunsFree);
  out.field("walker", static_cast<int>(map.walkerPlace()));
  out.field("chalk", textOrNull(parts.chalk));
  out.field("drawing", std::move(drawing));
  out.add(",\n\"layers\": [");
  for (std::size_t i = 0; i < map.layers.size(); ++i) {
    if (i > 0) out.add(",\n");
    addLayer(out, map, *grid, i, numbers, parts);
  }
  out.add("]\n}\n");
  return out.give(add);
}

Result<Json> templateData(const Quilt& quilt, const Map& map, const ExchangeMapParts& parts) {
  Result<Json> data = readJson(exchangeMapText(quilt, map, parts), map.folder);
  if (!data) return data;
  const Result<Json> whole = readJson(exchangeQuiltText(quilt), "quilt.json");
  if (!whole) return whole;
  const PixelRect pixels = makeGrid(map.grid)->pixelBounds(map.bounds);
  data->set("columns", map.bounds.width());
  data->set("rows", map.bounds.height());
  data->set("pixelWidth", pixels.w);
  data->set("pixelHeight", pixels.h);
  data->set("file", map.folder);
  data->set("quilt", *whole);
  return data;
}

}  // namespace uq
