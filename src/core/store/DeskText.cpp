#include "core/store/DeskText.h"

#include <algorithm>
#include <array>

#include "core/store/HandText.h"

namespace uq {

namespace {

constexpr std::array<std::pair<Tool, const char*>, 8> kTools = {{{Tool::brush, "brush"},
                                                                 {Tool::erase, "erase"},
                                                                 {Tool::box, "box"},
                                                                 {Tool::fill, "fill"},
                                                                 {Tool::select, "select"},
                                                                 {Tool::line, "line"},
                                                                 {Tool::oval, "oval"},
                                                                 {Tool::pins, "pins"}}};

constexpr std::array<std::pair<Tinting, const char*>, 3> kTintings = {
    {{Tinting::no, "no"}, {Tinting::byHeight, "byHeight"}, {Tinting::byWalker, "byWalker"}}};

template <class Ids>
Json idList(const Ids& ids) {
  Json::Array list;
  for (const Id id : ids) list.emplace_back(id.text());
  return list;
}

Id idOf(const Json* json) {
  const auto* text = json ? json->as<std::string>() : nullptr;
  return text ? Id::parse(*text).value_or(Id()) : Id();
}

std::vector<Id> idsOf(const Json* json) {
  std::vector<Id> ids;
  const auto* list = json ? json->as<Json::Array>() : nullptr;
  for (std::size_t i = 0; list && i < list->size(); ++i) {
    const Id id = idOf(&(*list)[i]);
    if (!id.empty() && std::find(ids.begin(), ids.end(), id) == ids.end()) ids.push_back(id);
  }
  return ids;
}

bool flagOf(const Json* json, bool otherwise) {
  const auto* flag = json ? json->as<bool>() : nullptr;
  return flag ? *flag : otherwise;
}

// What is too large to be kept is spelt as nothing.
Json keptJson(const InHand& hand, const Quilt& quilt) {
  std::size_t parts = 0;
  hand.forEachCell([&](Cell) { ++parts; });
  return parts > kMostKeptParts ? Json(Json::Object{}) : handJson(hand, quilt, SheetsBy::id);
}

InHand keptHand(const Json* json, const Quilt& quilt) {
  return json ? handFromJson(*json, quilt).value_or(InHand()) : InHand();
}

constexpr std::array<std::pair<SelectBy, const char*>, 4> kSelectBy = {{{SelectBy::box, "box"},
                                                                        {SelectBy::outline, "outline"},
                                                                        {SelectBy::touching, "touching"},
                                                                        {SelectBy::everywhere, "everywhere"}}};

template <class Table, class T>
const char* nameIn(const Table& table, T value) {
  return std::find_if(table.begin(), table.end(), [&](const auto& one) { return one.first == value; })->second;
}

template <class Table, class T>
void readName(const Table& table, const Json* json, T& value) {
  const auto* name = json ? json->as<std::string>() : nullptr;
  for (const auto& [one, text] : table) {
    if (name && *name == text) value = one;
  }
}

Json optionsJson(const ToolOptions& options) {
  Json::Object json{{"width", options.width},
                    {"halfCell", options.halfCell},
                    {"outlines", options.outlines},
                    {"throughCorners", options.throughCorners},
                    {"onlyThisMap", options.onlyThisMap},
                    {"joinsMet", options.joinsMet},
                    {"alike", nameIn(kAlikes, options.alike)},
                    {"swaps", options.swaps},
                    {"selectBy", nameIn(kSelectBy, options.selectBy)},
                    {"allLayers", options.allLayers}};
  if (options.asSeen) json.emplace_back("asSeen", *options.asSeen);
  return json;
}

ToolOptions optionsOf(const Json* json) {
  ToolOptions options;
  if (!json) return options;
  const Json* width = json->find("width");
  const auto* cells = width ? width->as<std::int64_t>() : nullptr;
  if (cells && isWidth(*cells)) {
    options.width = static_cast<int>(*cells);
  }
  options.halfCell = flagOf(json->find("halfCell"), false);
  options.outlines = flagOf(json->find("outlines"), false);
  options.throughCorners = flagOf(json->find("throughCorners"), false);
  options.onlyThisMap = flagOf(json->find("onlyThisMap"), false);
  options.joinsMet = flagOf(json->find("joinsMet"), true);
  if (flagOf(json->find("onlyThis"), false)) options.alike = Alike::tile;  // as it was said before
  readName(kAlikes, json->find("alike"), options.alike);
  options.swaps = flagOf(json->find("swaps"), false);
  options.allLayers = flagOf(json->find("allLayers"), false);
  if (const Json* seen = json->find("asSeen")) options.asSeen = flagOf(seen, false);
  readName(kSelectBy, json->find("selectBy"), options.selectBy);
  return options;
}

}  // namespace

Json deskJson(const Desk& desk, const Quilt& quilt) {
  Json::Object layers;
  for (const auto& [map, layer] : desk.activeLayer) layers.emplace_back(map.text(), layer.text());
  Json::Array piles;
  for (const std::string& pile : desk.foldedPiles) piles.emplace_back(pile);
  Json::Object cameras;
  for (const auto& [map, at] : desk.cameras) cameras.emplace_back(map.text(), Json::Array{at.x, at.y});
  Json::Array held;
  for (const InHand& hand : desk.held) held.push_back(keptJson(hand, quilt));
  return Json::Object{{"map", desk.map.text()},
                      {"onBoard", desk.onBoard},
                      {"openMaps", idList(desk.openMaps)},
                      {"activeLayers", std::move(layers)},
                      {"inHand", keptJson(desk.inHand, quilt)},
                      {"tool", nameIn(kTools, desk.tool)},
                      {"obeysLayer", desk.obeysLayer},
                      {"stretches", desk.stretches},
                      {"options", optionsJson(desk.options)},
                      {"hidden", idList(desk.hidden)},
                      {"locked", idList(desk.locked)},
                      {"gridLines", desk.gridLines},
                      {"fadesOthers", desk.fadesOthers},
                      {"othersShown", desk.othersShown},
                      {"tinting", nameIn(kTintings, desk.tinting)},
                      {"showsCovered", desk.showsCovered},
                      {"showsHoles", desk.showsHoles},
                      {"foldedUp", idList(desk.foldedUp)},
                      {"joined", idList(desk.joined)},
                      {"rulers", desk.rulers},
                      {"showsFrame", desk.showsFrame},
                      {"showsAllowance", desk.showsAllowance},
                      {"newRoom", std::string(newRoomName(desk.newRoom))},
                      {"linesOfLayer", desk.linesOfLayer},
                      {"cameras", std::move(cameras)},
                      {"playsFrames", desk.playsFrames},
                      {"showsJoints", desk.showsJoints},
                      {"foldedPiles", std::move(piles)},
                      {"held", std::move(held)},
                      {"planView", desk.planView}};
}

Desk readDesk(const Json& json, const Quilt& quilt) {
  Desk desk;
  desk.map = idOf(json.find("map"));
  desk.onBoard = flagOf(json.find("onBoard"), false);
  desk.openMaps = idsOf(json.find("openMaps"));
  const Json* layers = json.find("activeLayers");
  if (const auto* fields = layers ? layers->as<Json::Object>() : nullptr) {
    for (const auto& [map, layer] : *fields) {
      const Id id = Id::parse(map).value_or(Id());
      if (quilt.layer({id, idOf(&layer)})) desk.activeLayer[id] = idOf(&layer);
    }
  }
  desk.inHand = keptHand(json.find("inHand"), quilt);
  readName(kTools, json.find("tool"), desk.tool);
  desk.options = optionsOf(json.find("options"));
  desk.obeysLayer = flagOf(json.find("obeysLayer"), false);
  desk.stretches = flagOf(json.find("stretches"), false);
  for (const Id id : idsOf(json.find("hidden"))) desk.hidden.insert(id);
  for (const Id id : idsOf(json.find("locked"))) desk.locked.insert(id);
  desk.gridLines = flagOf(json.find("gridLines"), desk.gridLines);
  desk.fadesOthers = flagOf(json.find("fadesOthers"), false);
  readName(kTintings, json.find("tinting"), desk.tinting);
  desk.showsCovered = flagOf(json.find("showsCovered"), false);
  desk.showsHoles = flagOf(json.find("showsHoles"), false);
  for (const Id id : idsOf(json.find("foldedUp"))) desk.foldedUp.insert(id);
  for (const Id id : idsOf(json.find("joined"))) desk.joined.insert(id);
  desk.rulers = flagOf(json.find("rulers"), false);
  desk.showsFrame = flagOf(json.find("showsFrame"), false);
  const Json* room = json.find("newRoom");
  const auto* roomName = room ? room->as<std::string>() : nullptr;
  desk.newRoom = roomName ? newRoomFromName(*roomName).value_or(NewRoom::empty) : NewRoom::empty;
  desk.linesOfLayer = flagOf(json.find("linesOfLayer"), false);
  desk.showsAllowance = flagOf(json.find("showsAllowance"), false);
  if (const Json* others = json.find("othersShown")) {
    if (const auto* shown = others->as<std::int64_t>(); shown && *shown >= 0 && *shown <= 100)
      desk.othersShown = static_cast<int>(*shown);
  }
  if (const Json* all = json.find("cameras"); all && all->as<Json::Object>()) {
    for (const auto& [map, at] : *all->as<Json::Object>()) {
      const auto id = Id::parse(map);
      const auto* place = at.as<Json::Array>();
      const bool good = id && place && place->size() == 2 && place->front().as<std::int64_t>() &&
                        place->back().as<std::int64_t>();
      if (!good) continue;
      const auto within = [](std::int64_t pixel) {
        return static_cast<int>(std::clamp<std::int64_t>(pixel, -kFarthestPixel, kFarthestPixel));
      };
      desk.cameras[*id] = {within(*place->front().as<std::int64_t>()), within(*place->back().as<std::int64_t>())};
    }
  }
  desk.showsJoints = flagOf(json.find("showsJoints"), false);
  desk.playsFrames = flagOf(json.find("playsFrames"), false);
  desk.planView = flagOf(json.find("planView"), false);
  const Json* piles = json.find("foldedPiles");
  if (const auto* list = piles ? piles->as<Json::Array>() : nullptr) {
    for (const Json& one : *list) {
      if (const auto* name = one.as<std::string>()) desk.foldedPiles.insert(*name);
    }
  }
  const Json* held = json.find("held");
  if (const auto* list = held ? held->as<Json::Array>() : nullptr) {
    for (const Json& one : *list) {
      InHand hand = keptHand(&one, quilt);
      if (!hand.empty() && desk.held.size() < kMostHeld) desk.held.push_back(std::move(hand));
    }
  }
  return validDesk(std::move(desk), quilt);
}

}  // namespace uq
