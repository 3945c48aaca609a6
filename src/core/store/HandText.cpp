#include "core/store/HandText.h"

#include <algorithm>

#include "core/edit/Edgings.h"
#include "core/store/Fields.h"

namespace uq {

namespace {

constexpr std::size_t kMostOthers = 64;

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

// Whatever this version does not know is misspelt.
void refuseRest(Fields& fields) {
  const Json::Object rest = fields.rest();
  if (!rest.empty()) fields.refuse("\"" + rest.front().first + "\" is nothing that a hand has", rest.front().second.line);
}

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
  if (const Edging* edging = quilt.edging(hand.edging)) {
    json.emplace_back("edging", by == SheetsBy::id ? edging->id.text() : edging->name);
    json.emplace_back("material", materialName(*edging, hand.material));
    if (hand.rows > 0) json.emplace_back("rows", hand.rows);
  }
  return json;
}

void readHandFacts(Fields& fields, InHand& hand) {
  if (fields.has("grid")) {
    const auto kind = gridKindFromName(fields.textIfAny("grid"));
    if (!kind) fields.refuse("\"grid\" is no grid that this version knows", fields.line("grid"));
    hand.grid = kind.value_or(hand.grid);
  }
  hand.role = fields.textIfAny("role");
  if (fields.has("manner")) {
    const auto manner = mannerFromName(fields.textIfAny("manner"));
    if (!manner) fields.refuse("\"manner\" is none that this version knows", fields.line("manner"));
    hand.manner = manner.value_or(Manner::asItIs);
  }
  hand.neverAlike = fields.flagIfAny("neverAlike");
  hand.turnsByChance = fields.flagIfAny("turnsByChance");
}

StretchEnds readEnds(Fields& ends) {
  const auto count = [&](const char* field) { return ends.numberIfAny(field, 0, kFarthestCell, 0); };
  return {count("left"),     count("right"),           count("top"), count("bottom"), count("stepAcross"),
          count("stepDown"), ends.flagIfAny("shuffles")};
}

namespace {

// A material of an edging, by their names; how it is seen follows from the edging.
Result<InHand> materialFrom(Fields& fields, const Quilt& quilt) {
  const std::string called = fields.textIfAny("edging");
  const auto id = Id::parse(called);
  const Edging* edging = id && quilt.edging(*id) ? quilt.edging(*id) : edgingNamed(quilt, called);
  if (!edging) return wrong("there is no edging “" + called + "”");
  const std::string name = fields.textIfAny("material");
  const auto material = materialNamed(*edging, name);
  if (!material || *material == kNothingSeen) return wrong("“" + edging->name + "” has no material “" + name + "”");
  InHand hand = materialInHand(quilt, *edging, *material);
  if (hand.empty()) return wrong("no tile that is there shows “" + name + "”");
  hand.rows = fields.numberIfAny("rows", 1, kMostHemRows, 0);
  return checked(fields, std::move(hand));
}

}  // namespace

Result<InHand> handFromJson(const Json& json, const Quilt& quilt, const SheetNames& names) {
  if (!json.as<Json::Object>()) return wrong("what is in hand is spelt by fields in braces");
  Fields fields(json, {});
  InHand hand;
  if (fields.has("edging")) return materialFrom(fields, quilt);
  const auto blockIn = [&](Fields& of, const Json& in) {
    auto block = blockFrom(of.any("tiles"), quilt, names);
    if (!block) of.refuse(block.error().reason, in.line);
    return block ? std::move(*block) : Block();
  };
  const bool byMembers = !fields.has("tiles") && fields.has("mix");
  if (!byMembers) hand.block = blockIn(fields, json);
  readHandFacts(fields, hand);
  if (fields.has("ends")) {
    Fields ends(fields.objectIfAny("ends"), {});
    hand.ends = readEnds(ends);
    refuseRest(ends);
    fields.takeFrom(ends);
  } else if (hand.manner == Manner::stretch) {
    hand.ends = usualEnds(hand.block);
  }
  for (const Json& one : fields.listIfAny("mix", kMostMembers)) {
    Fields member(one, {});
    Block block = blockIn(member, one);
    hand.members.push_back(
        {std::move(block), member.numberIfAny("weight", 1, kMostWeight, 1), member.flagIfAny("keepsOffRim")});
    refuseRest(member);
    fields.takeFrom(member);
  }
  for (const Json& one : fields.listIfAny("others", kMostOthers)) {
    Fields part(one, {});
    Block block = blockIn(part, one);
    hand.others.push_back({part.textIfAny("role"), part.numberIfAny("above", -1024, 1024, 1), std::move(block)});
    refuseRest(part);
    fields.takeFrom(part);
  }
  if (const auto id = Id::parse(fields.textIfAny("stamp"))) hand.stamp = quilt.stamp(*id) ? *id : Id();
  refuseRest(fields);
  if (fields.error()) return wrong(fields.error()->reason);
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
