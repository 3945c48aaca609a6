#include "core/store/HandText.h"

#include <algorithm>

namespace uq {

namespace {

constexpr std::size_t kMostOthers = 64;
constexpr std::size_t kLongestSpelt = 1000;  // bytes

tl::unexpected<Error> wrong(const std::string& what) {
  return fail(Error{Error::Cause::broken, what, {}, 0, "Nothing was taken into the hand", {}});
}

std::string sheetText(const Quilt& quilt, SheetSlot slot, SheetsBy by) {
  const Sheet* sheet = quilt.sheetAt(slot);
  if (by == SheetsBy::file && slot == kChalkSlot) return "chalk";
  if (by == SheetsBy::file && sheet) return sheet->file;
  return quilt.slots().sheet(slot).text();
}

std::optional<SheetSlot> slotOf(const Quilt& quilt, const std::string& text, const SheetNames& names) {
  if (const auto named = names.find(text); named != names.end()) return named->second;
  if (text == "chalk") return kChalkSlot;
  if (const auto id = Id::parse(text)) {
    if (const auto slot = quilt.slots().find(*id)) return slot;
  }
  for (const auto& sheet : quilt.sheets()) {
    if (sheet->file == text || sheet->name == text) return quilt.slots().find(sheet->id);
  }
  return std::nullopt;
}

Json blockJson(const Block& block, const Quilt& quilt, SheetsBy by) {
  Json::Array parts;
  for (const Block::Part& part : block.parts()) {
    const TileRef tile = part.cell.tile();
    Json::Array fields{part.at.u, part.at.v, sheetText(quilt, tile.slot, by), static_cast<int>(tile.number)};
    const int turn = static_cast<int>(part.cell.turn().code());
    if (turn != 0 || part.lift != 0) fields.emplace_back(turn);
    if (part.lift != 0) fields.emplace_back(part.lift);
    parts.emplace_back(std::move(fields));
  }
  return parts;
}

const std::int64_t* numberIn(const Json& json, std::int64_t least, std::int64_t most) {
  const auto* number = json.as<std::int64_t>();
  return number && *number >= least && *number <= most ? number : nullptr;
}

Result<Block> blockFrom(const Json* json, const Quilt& quilt, const SheetNames& names) {
  const auto* list = json ? json->as<Json::Array>() : nullptr;
  if (!list) return wrong("a block is a list of tiles");
  if (list->size() > kMostSpeltParts) return wrong("a block of more than 180,000 tiles");
  std::vector<Block::Part> parts;
  for (const Json& one : *list) {
    const auto* fields = one.as<Json::Array>();
    if (!fields || fields->size() < 4 || fields->size() > 6) return wrong("a tile is spelt [u, v, sheet, number]");
    const auto* u = numberIn((*fields)[0], -kFarthestCell, kFarthestCell);
    const auto* v = numberIn((*fields)[1], -kFarthestCell, kFarthestCell);
    if (!u || !v) return wrong("a place is spelt by two numbers");
    auto part = tileFromJson(Json::Array(fields->begin() + 2, fields->end()), quilt, names);
    if (!part) return fail(part.error());
    part->at = {static_cast<int>(*u), static_cast<int>(*v)};
    parts.push_back(*part);
  }
  Block block(parts);
  if (block.parts().size() != parts.size()) return wrong("two tiles of a block have one place");
  const CellRect extent = block.extent();
  if (std::max(extent.width(), extent.height()) > kWidestBlock) return wrong("a block is at most 8,192 cells wide and high");
  return block;
}

// Reads single fields, and keeps the first thing that is wrong.
class HandFields {
 public:
  std::string text(const Json& json, const char* field) {
    const Json* found = json.find(field);
    const auto* text = found ? found->as<std::string>() : nullptr;
    if (found && (!text || text->size() > kLongestSpelt)) refuse(field, "no text of at most 1,000 characters");
    return text ? *text : std::string();
  }
  int count(const Json& json, const char* field, int least, int most, int otherwise) {
    const Json* found = json.find(field);
    const auto* number = found ? numberIn(*found, least, most) : nullptr;
    if (found && !number) {
      refuse(field, "no whole number from " + std::to_string(least) + " to " + std::to_string(most));
    }
    return number ? static_cast<int>(*number) : otherwise;
  }
  bool flag(const Json& json, const char* field) {
    const Json* found = json.find(field);
    const auto* flag = found ? found->as<bool>() : nullptr;
    if (found && !flag) refuse(field, "neither true nor false");
    return flag && *flag;
  }
  const Json::Array& list(const Json& json, const char* field) {
    static const Json::Array none;
    const Json* found = json.find(field);
    const auto* list = found ? found->as<Json::Array>() : nullptr;
    if (found && !list) refuse(field, "no list");
    return list ? *list : none;
  }
  // Whatever this version does not know is misspelt.
  void only(const Json& json, std::initializer_list<std::string_view> known) {
    const auto* fields = json.as<Json::Object>();
    if (!fields) return refuse("a part of it", "not spelt by fields in braces");
    for (const Json::Field& field : *fields) {
      if (std::find(known.begin(), known.end(), field.first) == known.end()) refuse(field.first, "nothing that a hand has");
    }
  }
  const std::string& wrong() const { return wrong_; }

 private:
  void refuse(const std::string& field, const std::string& is) {
    if (wrong_.empty()) wrong_ = "“" + field + "” is " + is;
  }
  std::string wrong_;
};

}  // namespace

Result<Block::Part> tileFromJson(const Json::Array& fields, const Quilt& quilt, const SheetNames& names) {
  const auto* sheet = fields.size() >= 2 && fields.size() <= 4 ? fields[0].as<std::string>() : nullptr;
  if (!sheet) return wrong("a tile is spelt [sheet, number]");
  const auto slot = slotOf(quilt, *sheet, names);
  if (!slot) return wrong("there is no sheet “" + *sheet + "”");
  const auto* number = numberIn(fields[1], 0, kLastTileNumber);
  if (!number) return wrong("a tile's number is 0 to " + std::to_string(kLastTileNumber));
  std::uint32_t turn = 0;
  if (fields.size() > 2) {
    const auto* code = numberIn(fields[2], 0, Turn::kCodes - 1);
    if (!code) return wrong("a turn's code is 0 to 11");
    turn = static_cast<std::uint32_t>(*code);
  }
  int lift = 0;
  if (fields.size() > 3) {
    const auto* pixels = numberIn(fields[3], 0, kMostLift);
    if (!pixels) return wrong("a lift is 0 to " + std::to_string(kMostLift) + " pixels");
    lift = static_cast<int>(*pixels);
  }
  return Block::Part{{}, Cell({*slot, static_cast<std::uint32_t>(*number)}, Turn::fromCode(turn)), lift};
}

Json endsJson(const StretchEnds& ends) {
  Json::Object json{{"left", ends.left}, {"right", ends.right}, {"top", ends.top}, {"bottom", ends.bottom}};
  if (ends.stepAcross != 0) json.emplace_back("stepAcross", ends.stepAcross);
  if (ends.stepDown != 0) json.emplace_back("stepDown", ends.stepDown);
  if (ends.shuffles) json.emplace_back("shuffles", true);
  return json;
}

Json handJson(const InHand& hand, const Quilt& quilt, SheetsBy by) {
  Json::Object json{{"tiles", blockJson(hand.block, quilt, by)}, {"grid", gridName(hand.grid)}};
  if (!hand.role.empty()) json.emplace_back("role", hand.role);
  if (hand.manner != Manner::asItIs) json.emplace_back("manner", mannerName(hand.manner));
  if (hand.ends != StretchEnds()) json.emplace_back("ends", endsJson(hand.ends));
  if (!hand.members.empty()) {
    Json::Array members;
    for (const MixMember& member : hand.members) {
      Json::Object one{{"tiles", blockJson(member.block, quilt, by)}, {"weight", member.weight}};
      if (member.keepsOffRim) one.emplace_back("keepsOffRim", true);
      members.emplace_back(std::move(one));
    }
    json.emplace_back("mix", std::move(members));
  }
  if (hand.neverAlike) json.emplace_back("neverAlike", true);
  if (hand.turnsByChance) json.emplace_back("turnsByChance", true);
  if (!hand.others.empty()) {
    Json::Array others;
    for (const HandPart& part : hand.others) {
      others.push_back(
          Json::Object{{"role", part.role}, {"above", part.above}, {"tiles", blockJson(part.block, quilt, by)}});
    }
    json.emplace_back("others", std::move(others));
  }
  if (!hand.stamp.empty()) json.emplace_back("stamp", hand.stamp.text());
  return json;
}

Result<InHand> handFromJson(const Json& json, const Quilt& quilt, const SheetNames& names) {
  if (!json.as<Json::Object>()) return wrong("what is in hand is spelt by fields in braces");
  const Json* tiles = json.find("tiles");
  HandFields fields;
  fields.only(json, {"tiles", "grid", "role", "manner", "ends", "mix", "neverAlike", "turnsByChance", "others", "stamp"});
  const bool byMembers = !tiles && json.find("mix");
  auto block = byMembers ? Result<Block>(Block()) : blockFrom(tiles, quilt, names);
  if (!block) return fail(block.error());
  InHand hand(std::move(*block));
  if (const Json* grid = json.find("grid")) {
    const auto* name = grid->as<std::string>();
    const auto kind = gridKindFromName(name ? *name : std::string());
    if (!kind) return fail(kind.error());
    hand.grid = *kind;
  }
  hand.role = fields.text(json, "role");
  if (json.find("manner")) {
    const auto manner = mannerFromName(fields.text(json, "manner"));
    if (!manner) return wrong("there is no manner “" + fields.text(json, "manner") + "”");
    hand.manner = *manner;
  }
  if (const Json* ends = json.find("ends")) {
    fields.only(*ends, {"left", "right", "top", "bottom", "stepAcross", "stepDown", "shuffles"});
    const auto count = [&](const char* field) { return fields.count(*ends, field, 0, kFarthestCell, 0); };
    hand.ends = {count("left"),     count("right"),           count("top"), count("bottom"), count("stepAcross"),
                 count("stepDown"), fields.flag(*ends, "shuffles")};
  } else if (hand.manner == Manner::stretch) {
    hand.ends = usualEnds(hand.block);
  }
  const Json::Array& mix = fields.list(json, "mix");
  if (mix.size() > kMostMembers) return wrong("a mix of more than 256 members");
  for (const Json& one : mix) {
    fields.only(one, {"tiles", "weight", "keepsOffRim"});
    auto member = blockFrom(one.find("tiles"), quilt, names);
    if (!member) return fail(member.error());
    hand.members.push_back(
        {std::move(*member), fields.count(one, "weight", 1, kMostWeight, 1), fields.flag(one, "keepsOffRim")});
  }
  hand.neverAlike = fields.flag(json, "neverAlike");
  hand.turnsByChance = fields.flag(json, "turnsByChance");
  const Json::Array& others = fields.list(json, "others");
  if (others.size() > kMostOthers) return wrong("a thing on more than 64 layers");
  for (const Json& one : others) {
    fields.only(one, {"tiles", "role", "above"});
    auto part = blockFrom(one.find("tiles"), quilt, names);
    if (!part) return fail(part.error());
    hand.others.push_back({fields.text(one, "role"), fields.count(one, "above", -1024, 1024, 1), std::move(*part)});
  }
  if (const auto id = Id::parse(fields.text(json, "stamp"))) hand.stamp = quilt.stamp(*id) ? *id : Id();
  if (!fields.wrong().empty()) return wrong(fields.wrong());
  if (hand.manner == Manner::mix && hand.members.empty()) hand = hand.inManner(Manner::mix);
  if (hand.manner == Manner::mix && hand.block.empty()) {
    // A mix is held by its first member that is something.
    const auto held = std::find_if(hand.members.begin(), hand.members.end(),
                                   [](const MixMember& member) { return !member.block.empty(); });
    if (held != hand.members.end()) hand.block = held->block;
  }
  return hand;
}

}  // namespace uq
