#include "core/store/QuiltQuery.h"

#include <algorithm>
#include <array>

#include "core/store/ExchangeText.h"
#include "core/store/JsonText.h"

namespace uq {

namespace {

constexpr std::array<std::string_view, 7> kNames = {"facts", "maps", "layers", "cells", "tiles", "spots", "doorways"};

using Line = std::function<void(const std::string&)>;

const Json::Array& listIn(const Json& json, const char* name) {
  static const Json::Array kNone;
  const Json* found = json.find(name);
  const auto* list = found ? found->as<Json::Array>() : nullptr;
  return list ? *list : kNone;
}

Json without(const Json& json, std::initializer_list<std::string_view> names) {
  Json::Object kept;
  for (const Json::Field& field : *json.as<Json::Object>()) {
    if (std::find(names.begin(), names.end(), field.first) == names.end()) kept.push_back(field);
  }
  return kept;
}

// An object with what it lies in before its own fields.
void tell(const Line& line, Json::Object in, const Json& own) {
  Json all(std::move(in));
  for (const auto& [name, value] : *own.as<Json::Object>()) all.set(name, value);
  line(writeJsonLine(all));
}

void tellCells(const Quilt& quilt, const Map& map, const QueryAsk& ask, const Line& line) {
  const CellSet region(ask.region ? ask.region->intersected(map.bounds) : map.bounds);
  for (const Shared<Layer>& layer : map.layers) {
    if (!layer->holdsTiles() || (!ask.layer.empty() && layer->name != ask.layer)) continue;
    layer->forEachLaid(CellSet(layer->cells.usedBounds()).intersected(region), [&](CellPos at, const Laid& laid) {
      const TileRef tile = laid.cell.tile();
      const Sheet* sheet = quilt.sheetAt(tile.slot);
      Json::Object cell{{"map", map.name}, {"layer", layer->name}, {"x", at.x}, {"y", at.y}, {"sheet", sheet ? Json(sheet->name) : Json()}, {"tile", static_cast<int>(tile.number)}};
      if (sheet) cell.emplace_back("name", sheet->tileName(tile.number));
      if (laid.cell.turn() != Turn{}) cell.emplace_back("turn", static_cast<int>(laid.cell.turn().code()));
      if (laid.lift != 0) cell.emplace_back("lift", laid.lift);
      line(writeJsonLine(cell));
    });
  }
}

bool isIn(const Json& spot, const QueryAsk& ask) {
  if (!ask.region) return true;
  const auto& middle = listIn(spot, "middle");
  return ask.region->contains({static_cast<int>(*middle[0].as<std::int64_t>()), static_cast<int>(*middle[1].as<std::int64_t>())});
}

Result<void> tellOfMap(const Quilt& quilt, const Map& map, const QueryAsk& ask, const Line& line) {
  if (ask.what == Asked::cells) {
    tellCells(quilt, map, ask, line);
    return {};
  }
  ExchangeMapParts parts;
  parts.withCells = false;
  const Result<Json> told = readJson(exchangeMapText(quilt, map, parts), map.folder);
  if (!told) return fail(told.error());
  if (ask.what == Asked::maps) {
    line(writeJsonLine(without(*told, {"document", "version", "layers", "drawing", "turns", "footprints", "picture", "chalk"})));
    return {};
  }
  for (const Json& layer : listIn(*told, "layers")) {
    const std::string& name = *layer.find("name")->as<std::string>();
    if (!ask.layer.empty() && name != ask.layer) continue;
    if (ask.what == Asked::layers) tell(line, {{"map", map.name}}, without(layer, {"spots"}));
    if (ask.what != Asked::spots) continue;
    for (const Json& spot : listIn(layer, "spots")) {
      if (isIn(spot, ask)) tell(line, {{"map", map.name}, {"layer", name}}, spot);
    }
  }
  return {};
}

}  // namespace

std::string_view askedName(Asked asked) { return kNames[static_cast<std::size_t>(asked)]; }
std::optional<Asked> askedFromName(std::string_view name) {
  const auto found = std::find(kNames.begin(), kNames.end(), name);
  return found == kNames.end() ? std::nullopt : std::optional(kAsked[found - kNames.begin()]);
}

Result<void> queryQuilt(const Quilt& quilt, const QueryAsk& ask, const std::function<void(const std::string&)>& line) {
  if (ask.what == Asked::facts || ask.what == Asked::tiles || ask.what == Asked::doorways) {
    const Result<Json> told = readJson(exchangeQuiltText(quilt), "quilt.json");
    if (!told) return fail(told.error());
    if (ask.what == Asked::facts) line(writeJsonLine(without(*told, {"document", "version", "maps", "sheets", "edgings", "seams", "doorways"})));
    for (const Json& doorway : listIn(*told, "doorways")) {
      const auto joins = [&](const char* end) { return ask.map.empty() || *doorway.find(end)->find("map")->as<std::string>() == ask.map.text(); };
      if (ask.what == Asked::doorways && (joins("from") || joins("to"))) line(writeJsonLine(doorway));
    }
    for (const Json& sheet : listIn(*told, "sheets")) {
      if (ask.what != Asked::tiles) break;
      for (const Json& tile : listIn(sheet, "tiles")) tell(line, {{"sheet", *sheet.find("name")}, {"sheetNumber", *sheet.find("number")}, {"footing", *sheet.find("footing")}}, tile);
    }
    return {};
  }
  for (const Shared<Map>& map : quilt.maps()) {
    if (!ask.map.empty() && map->id != ask.map) continue;
    if (auto told = tellOfMap(quilt, map.read(), ask, line); !told) return told;
  }
  return {};
}

}  // namespace uq
