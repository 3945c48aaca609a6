// What of Documents concerns sheets and their tiles.
#include <array>
#include <set>
#include <type_traits>

#include "core/store/Documents.h"
#include "core/store/Fields.h"

namespace uq {

namespace {

constexpr std::size_t kMostTags = 256;  // of one tile

void putStance(Json::Object& object, const Stance& stance, const Stance& plain) {
  if (stance.seat != plain.seat) object.emplace_back("seat", pair(stance.seat));
  if (stance.footprint != plain.footprint) object.emplace_back("footprint", pair(stance.footprint));
}

Stance readStance(Fields& fields, Stance plain) {
  if (fields.has("seat")) {
    const auto seat = fields.numbers("seat", 2, -kFarthestSeat, kFarthestSeat);
    plain.seat = {seat[0], seat[1]};
  }
  if (fields.has("footprint")) {
    const auto cells = fields.numbers("footprint", 2, 1, kLargestFootprint);
    plain.footprint = {cells[0], cells[1]};
  }
  return plain;
}

Json texts(const std::vector<std::string>& list) {
  Json::Array array;
  for (const std::string& text : list) array.emplace_back(text);
  return array;
}

constexpr std::pair<const char*, Footing> kFootings[] = {
    {"open", Footing::open}, {"solid", Footing::solid}, {"overhead", Footing::overhead}};

const char* footingName(Footing footing) { return kFootings[static_cast<int>(footing)].first; }

Footing readFooting(Fields& fields) {
  const std::string text = fields.text("footing");
  for (const auto& [name, one] : kFootings) {
    if (text == name) return one;
  }
  fields.refuse("\"footing\" is neither \"open\" nor \"solid\" nor \"overhead\"", fields.line("footing"));
  return Footing::open;
}

Frames readFrames(Fields& fields) {
  Frames frames;
  for (const Json& item : fields.list("frames", kMostFrames)) {
    const auto* both = item.as<Json::Array>();
    const auto* number = both && both->size() == 2 ? (*both)[0].as<std::int64_t>() : nullptr;
    const auto* time = number ? (*both)[1].as<std::int64_t>() : nullptr;
    if (!time || *number < 0 || *number > kLastTileNumber || *time < 1 || *time > kLongestFrame) {
      fields.refuse("\"frames\" holds something that is no tile with 1 to 60,000 milliseconds", item.line);
      break;
    }
    frames.push_back({static_cast<std::uint32_t>(*number), static_cast<int>(*time)});
  }
  return frames;
}

// The facts that are written under a name of their own, each with its place in the sheet.
template <class Turns>
auto flagsOf(Turns& turns) {
  using Flag = std::conditional_t<std::is_const_v<Turns>, const bool, bool>;
  return std::array<std::pair<const char*, Flag&>, 3>{
      {{"mayTurn", turns.turn}, {"mayMirrorAcross", turns.mirrorAcross}, {"mayMirrorDown", turns.mirrorDown}}};
}
}  // namespace

void putTurns(Json::Object& object, const TurnsAllowed& turns) {
  for (const auto& [name, flag] : flagsOf(turns)) {
    if (!flag) object.emplace_back(name, false);
  }
}

void readTurns(Fields& fields, TurnsAllowed& turns) {
  for (const auto& [name, flag] : flagsOf(turns)) {
    if (fields.has(name)) flag = fields.flag(name);
  }
}

namespace {

template <class Origin>
auto textsOf(Origin& origin) {
  using Text = std::conditional_t<std::is_const_v<Origin>, const std::string, std::string>;
  return std::array<std::pair<const char*, Text&>, 4>{
      {{"pile", origin.pile}, {"from", origin.from}, {"by", origin.by}, {"licence", origin.licence}}};
}

void readCollection(Fields& fields, const std::string& file, Sheet& sheet) {
  std::set<std::string> files;
  for (const Json& item : fields.list("collection", kLastTileNumber + 1)) {
    Fields of(item, file);
    CollectedPicture one;
    one.number = static_cast<std::uint32_t>(of.number("number", 0, static_cast<int>(kLastTileNumber)));
    one.file = of.fileName("picture", "");
    const auto size = of.numbers("size", 2, 1, kLargestPictureSide);
    one.size = {size[0], size[1]};
    one.extra = of.rest();
    if (of.error()) return fields.take(*of.error());
    if (!sheet.collection.empty() && sheet.collection.back().number >= one.number) {
      return fields.refuse("the numbers in \"collection\" do not rise", item.line);
    }
    if (!files.insert(one.file).second) return fields.refuse("two tiles have the same picture", item.line);
    sheet.collection.push_back(std::move(one));
  }
  if (sheet.collection.empty()) return fields.refuse("\"collection\" holds no picture", fields.line("collection"));
  layOutCollection(sheet);
  if (sheet.pictureSize.w > kLargestPictureSide || sheet.pictureSize.h > kLargestPictureSide) {
    fields.refuse("the pictures of the collection take more room than there is", fields.line("collection"));
  }
}

void readFacings(Fields& fields, Sheet& sheet) {
  std::set<std::int64_t> known;
  for (const Json& item : fields.list("facings", kLastTileNumber + 1)) {
    const auto* sides = item.as<Json::Array>();
    Facing facing;
    std::size_t tiles = 0;
    bool good = sides && (sides->size() == 4 || sides->size() == 6);
    for (std::size_t i = 0; good && i < sides->size(); ++i) {
      const Json& side = (*sides)[i];
      facing.emplace_back();
      if (side.as<std::nullptr_t>()) continue;
      const auto* number = side.as<std::int64_t>();
      good = number && *number >= 0 && *number <= kLastTileNumber && known.insert(*number).second;
      if (good) facing.back() = static_cast<std::uint32_t>(*number);
      ++tiles;
    }
    if (!good || tiles < 2) {
      return fields.refuse(
          "\"facings\" holds something that is no list of 4 or 6 tiles, of which at least two are there "
          "and none is in two lists",
          item.line);
    }
    sheet.facings.push_back(std::move(facing));
  }
}

}  // namespace

Json sheetDocument(const Sheet& sheet) {
  Json::Array tiles;
  for (const auto& [number, facts] : sheet.tiles) {
    Json::Object fields = {{"number", static_cast<int>(number)}};
    if (!facts.name.empty()) fields.emplace_back("name", facts.name);
    if (!facts.tags.empty()) fields.emplace_back("tags", texts(facts.tags));
    if (facts.stance) putStance(fields, *facts.stance, sheet.stance);
    if (facts.footing) fields.emplace_back("footing", footingName(*facts.footing));
    if (!facts.frames.empty()) {
      Json::Array frames;
      for (const Frame& frame : facts.frames) {
        frames.emplace_back(Json::Array{static_cast<int>(frame.tile), frame.milliseconds});
      }
      fields.emplace_back("frames", std::move(frames));
    }
    if (!facts.belongs.empty()) fields.emplace_back("belongs", facts.belongs);
    if (facts.keep) fields.emplace_back("keep", true);
    append(fields, facts.extra);
    tiles.emplace_back(std::move(fields));
  }
  Json::Object object = documentBegun("sheet");
  append(object, {{"id", sheet.id.text()}, {"name", sheet.name}, {"code", sheet.code}});
  if (sheet.isCollection()) {
    Json::Array all;
    for (const CollectedPicture& one : sheet.collection) {
      Json::Object item{{"number", static_cast<int>(one.number)}, {"picture", one.file}, {"size", pair(one.size)}};
      append(item, one.extra);
      all.emplace_back(std::move(item));
    }
    object.emplace_back("collection", std::move(all));
  } else {
    append(object, {{"picture", sheet.picture}, {"size", pair(sheet.pictureSize)}});
  }
  append(object,
         {{"cell", pair(sheet.cut.cell)}, {"border", sheet.cut.border}, {"gap", sheet.cut.gap}});
  if (sheet.cut.offset != PixelPos{}) object.emplace_back("offset", pair(sheet.cut.offset));
  if (sheet.care.seeThrough) object.emplace_back("seeThrough", colourText(*sheet.care.seeThrough));
  if (sheet.care.shrink != 1) object.emplace_back("shrink", sheet.care.shrink);
  if (sheet.care.enlarge != 1) object.emplace_back("enlarge", sheet.care.enlarge);
  if (sheet.care.closesRims) object.emplace_back("closesRims", true);
  if (sheet.care.odd != OddSizes::asTheyAre) object.emplace_back("oddSizes", std::string(oddSizesName(sheet.care.odd)));
  putStance(object, sheet.stance, {});
  if (sheet.footing != Footing::open) object.emplace_back("footing", footingName(sheet.footing));
  putTurns(object, sheet.turns);
  for (const auto& [name, text] : textsOf(sheet.origin)) {
    if (!text.empty()) object.emplace_back(name, text);
  }
  if (sheet.origin.maySell) object.emplace_back("maySell", *sheet.origin.maySell);
  if (!sheet.follows.empty()) object.emplace_back("follows", sheet.follows);
  if (!sheet.facings.empty()) {
    Json::Array facings;
    for (const Facing& facing : sheet.facings) {
      Json::Array sides;
      for (const auto& side : facing) {
        sides.emplace_back();
        if (side) sides.back() = static_cast<int>(*side);
      }
      facings.emplace_back(std::move(sides));
    }
    object.emplace_back("facings", std::move(facings));
  }
  object.emplace_back("tiles", std::move(tiles));
  append(object, sheet.extra);
  return object;
}

Result<Sheet> readSheetDocument(const Json& json, const std::string& file) {
  Fields fields(json, file);
  fields.document("sheet");
  Sheet sheet;
  sheet.id = fields.id("id");
  sheet.name = fields.text("name");
  sheet.code = fields.text("code");
  if (!fields.error() && !isSheetCode(sheet.code)) {
    fields.refuse("\"code\" is not one to three capital letters", fields.line("code"));
  }
  if (fields.has("collection")) {
    readCollection(fields, file, sheet);
  } else {
    sheet.picture = fields.fileName("picture", "");
    const auto size = fields.numbers("size", 2, 1, kLargestPictureSide);
    sheet.pictureSize = {size[0], size[1]};
  }
  const auto cell = fields.numbers("cell", 2, kSmallestCell, kLargestCell);
  sheet.cut = {{cell[0], cell[1]}, fields.number("border", 0, kLargestBorder), fields.number("gap", 0, kLargestBorder), {}};
  // Version 1.2 knows none of these.
  if (fields.has("offset")) {
    const auto offset = fields.numbers("offset", 2, 0, kLargestBorder);
    sheet.cut.offset = {offset[0], offset[1]};
  }
  if (!fields.error() && sheet.tileCount() > static_cast<int>(kLastTileNumber) + 1) {
    fields.refuse("the sheet has more than 262,144 tiles", fields.line("cell"));
  }
  if (fields.has("seeThrough")) sheet.care.seeThrough = fields.colour("seeThrough");
  if (fields.has("shrink")) sheet.care.shrink = fields.number("shrink", 1, kMostShrink);
  if (fields.has("enlarge")) sheet.care.enlarge = fields.number("enlarge", 1, kMostShrink);
  if (fields.has("closesRims")) sheet.care.closesRims = fields.flag("closesRims");
  if (fields.has("oddSizes")) {
    const auto odd = oddSizesFromName(fields.text("oddSizes"));
    if (!odd) fields.refuse("\"oddSizes\" is none that this version knows", fields.line("oddSizes"));
    sheet.care.odd = odd.value_or(OddSizes::asTheyAre);
  }
  sheet.stance = readStance(fields, {});
  if (fields.has("footing")) sheet.footing = readFooting(fields);
  readTurns(fields, sheet.turns);
  for (const auto& [name, text] : textsOf(sheet.origin)) {
    if (fields.has(name)) text = fields.text(name);
  }
  if (fields.has("maySell")) sheet.origin.maySell = fields.flag("maySell");
  if (fields.has("follows")) sheet.follows = fields.text("follows", kLongestPath);
  if (fields.has("facings")) readFacings(fields, sheet);
  for (const Json& item : fields.list("tiles", kLastTileNumber + 1)) {
    Fields tile(item, file);
    const auto number = static_cast<std::uint32_t>(tile.number("number", 0, static_cast<int>(kLastTileNumber)));
    TileFacts facts;
    if (tile.has("name")) facts.name = tile.text("name");
    if (tile.has("tags")) facts.tags = tile.names("tags", kMostTags);
    if (tile.has("seat") || tile.has("footprint")) facts.stance = readStance(tile, sheet.stance);
    if (tile.has("footing")) facts.footing = readFooting(tile);
    if (tile.has("frames")) facts.frames = readFrames(tile);
    if (tile.has("belongs")) facts.belongs = tile.text("belongs");
    if (tile.has("keep")) facts.keep = tile.flag("keep");
    facts.extra = tile.rest();
    if (tile.error()) return fail(*tile.error());
    if (!sheet.tiles.emplace(number, std::move(facts)).second) fields.refuse("a tile's number stands twice", item.line);
  }
  sheet.extra = fields.rest();
  return checked(fields, std::move(sheet));
}

}  // namespace uq
