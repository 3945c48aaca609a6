#include "core/store/DeskText.h"

#include <algorithm>
#include <array>

namespace uq {

namespace {

constexpr std::array<std::pair<Tool, const char*>, 3> kTools = {
    {{Tool::brush, "brush"}, {Tool::erase, "erase"}, {Tool::select, "select"}}};

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

Json blockJson(const Block& block, const Quilt& quilt) {
  Json::Array parts;
  if (block.parts().size() > kMostKeptParts) return parts;
  for (const Block::Part& part : block.parts()) {
    const TileRef tile = part.cell.tile();
    parts.push_back(Json::Array{part.at.u, part.at.v, quilt.slots().sheet(tile.slot).text(),
                                static_cast<int>(tile.number), static_cast<int>(part.cell.turn().code()), part.lift});
  }
  return parts;
}

Block blockOf(const Json* json, const Quilt& quilt) {
  std::vector<Block::Part> parts;
  const auto* list = json ? json->as<Json::Array>() : nullptr;
  if (!list || list->size() > kMostKeptParts) return {};
  for (const Json& one : *list) {
    const auto* fields = one.as<Json::Array>();
    // Before there were lifts, parts had five fields.
    if (!fields || fields->size() < 5 || fields->size() > 6) return {};
    std::array<std::int64_t, 5> numbers{};
    std::size_t count = 0;
    for (const std::size_t i : {0u, 1u, 3u, 4u, 5u}) {
      if (i >= fields->size()) break;
      const auto* number = (*fields)[i].as<std::int64_t>();
      if (!number || *number < -kFarthestCell || *number > kFarthestCell) return {};
      numbers[count++] = *number;
    }
    const auto slot = quilt.slots().find(idOf(&(*fields)[2]));
    const bool can = slot && numbers[2] >= 0 && numbers[2] <= kLastTileNumber && numbers[3] >= 0 && numbers[3] < 12 &&
                     numbers[4] >= 0 && numbers[4] <= kMostLift;
    if (!can) return {};
    parts.push_back({{static_cast<int>(numbers[0]), static_cast<int>(numbers[1])},
                     Cell({*slot, static_cast<std::uint32_t>(numbers[2])},
                          Turn::fromCode(static_cast<std::uint32_t>(numbers[3]))),
                     static_cast<int>(numbers[4])});
  }
  return Block(std::move(parts));
}

}  // namespace

Json deskJson(const Desk& desk, const Quilt& quilt) {
  Json::Object layers;
  for (const auto& [map, layer] : desk.activeLayer) layers.emplace_back(map.text(), layer.text());
  Json::Array piles;
  for (const std::string& pile : desk.foldedPiles) piles.emplace_back(pile);
  Json::Array held;
  for (const Block& block : desk.held) held.push_back(blockJson(block, quilt));
  const auto tool = std::find_if(kTools.begin(), kTools.end(), [&](const auto& t) { return t.first == desk.tool; });
  return Json::Object{{"map", desk.map.text()},
                      {"openMaps", idList(desk.openMaps)},
                      {"activeLayers", std::move(layers)},
                      {"inHand", blockJson(desk.inHand, quilt)},
                      {"handGrid", gridName(desk.handGrid)},
                      {"tool", tool->second},
                      {"hidden", idList(desk.hidden)},
                      {"locked", idList(desk.locked)},
                      {"gridLines", desk.gridLines},
                      {"fadesOthers", desk.fadesOthers},
                      {"rulers", desk.rulers},
                      {"playsFrames", desk.playsFrames},
                      {"foldedPiles", std::move(piles)},
                      {"held", std::move(held)},
                      {"planView", desk.planView}};
}

Desk readDesk(const Json& json, const Quilt& quilt) {
  Desk desk;
  desk.map = idOf(json.find("map"));
  desk.openMaps = idsOf(json.find("openMaps"));
  const Json* layers = json.find("activeLayers");
  if (const auto* fields = layers ? layers->as<Json::Object>() : nullptr) {
    for (const auto& [map, layer] : *fields) {
      const Id id = Id::parse(map).value_or(Id());
      if (quilt.layer({id, idOf(&layer)})) desk.activeLayer[id] = idOf(&layer);
    }
  }
  desk.inHand = blockOf(json.find("inHand"), quilt);
  const Json* handGrid = json.find("handGrid");
  if (const auto* name = handGrid ? handGrid->as<std::string>() : nullptr) {
    desk.handGrid = gridKindFromName(*name).value_or(GridKind::orthogonal);
  }
  if (const Json* tool = json.find("tool")) {
    const auto* name = tool->as<std::string>();
    for (const auto& [one, text] : kTools) {
      if (name && *name == text) desk.tool = one;
    }
  }
  for (const Id id : idsOf(json.find("hidden"))) desk.hidden.insert(id);
  for (const Id id : idsOf(json.find("locked"))) desk.locked.insert(id);
  desk.gridLines = flagOf(json.find("gridLines"), desk.gridLines);
  desk.fadesOthers = flagOf(json.find("fadesOthers"), false);
  desk.rulers = flagOf(json.find("rulers"), false);
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
      if (Block block = blockOf(&one, quilt); !block.empty() && desk.held.size() < kMostHeld) desk.held.push_back(std::move(block));
    }
  }
  return validDesk(std::move(desk), quilt);
}

}  // namespace uq
