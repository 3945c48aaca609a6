#include "core/store/EdgingText.h"

#include "core/document/EdgingShape.h"

#include <algorithm>

#include "core/store/Documents.h"
#include "core/store/Fields.h"

namespace uq {

namespace {

// By how many places the written lists begin after the grid's own.
std::ptrdiff_t firstWritten(GridKind grid) { return grid == GridKind::hexagonalPointy ? 1 : 0; }

Json namesOf(const Edging& edging, const std::vector<MaterialIndex>& places) {
  Json::Array names;
  for (const MaterialIndex one : placesWritten(edging.grid, places)) names.emplace_back(materialName(edging, one));
  return names;
}

class EdgingReading {
 public:
  EdgingReading(const Json& json, const std::string& file) : fields_(json, file), file_(file) {}

  Result<Edging> read() {
    fields_.document("edging");
    edging_.id = fields_.id("id");
    edging_.name = fields_.text("name");
    const auto kind = gridKindFromName(fields_.text("grid"));
    if (!kind) fields_.refuse(kind.error().reason, fields_.line("grid"));
    else edging_.grid = *kind;
    const auto decides = decidesFromName(fields_.text("decides"));
    if (!decides) fields_.refuse("\"decides\" is none of \"sides\", \"corners\", \"both\" and \"path\"", fields_.line("decides"));
    edging_.decides = decides.value_or(Decides::corners);
    for (const Json& one : fields_.list("materials", kMostMaterials)) {
      Fields material(one, file_);
      Material read{material.text("name"), material.colour("colour")};
      for (const Json& also : material.listIfAny("also", kMostAlso)) {
        const auto* text = also.as<std::string>();
        const auto colour = text ? colourFromText(*text) : std::nullopt;
        if (!colour) fields_.refuse("\"also\" are colours like \"#1b2030\"", also.line);
        read.also.push_back(colour.value_or(0));
      }
      fields_.takeFrom(material);
      edging_.materials.push_back(std::move(read));
    }
    for (const Json& one : fields_.list("members", kMostMembersOfEdging)) edging_.members.push_back(member(one));
    for (const Json& one : fields_.listIfAny("hems", kMostHems)) edging_.hems.push_back(hem(one));
    edging_.extra = fields_.rest();
    if (const std::string why = fields_.error() ? std::string() : whyNoEdging(edging_); !why.empty()) fields_.refuse(why, fields_.line("members"));
    return checked(fields_, std::move(edging_));
  }

 private:
  MaterialIndex named(const std::string& name, int line) {
    const auto found = materialNamed(edging_, name);
    if (!found) fields_.refuse("there is no material \"" + name + "\"", line);
    return found.value_or(kNothingSeen);
  }

  std::vector<MaterialIndex> places(Fields& member, const char* field) {
    std::vector<MaterialIndex> all;
    for (const Json& one : member.listIfAny(field, 6)) {
      const auto* name = one.as<std::string>();
      all.push_back(name ? named(*name, one.line) : kNothingSeen);
      if (!name) fields_.refuse("\"" + std::string(field) + "\" are names of materials", one.line);
    }
    return all.size() == static_cast<std::size_t>(placesOf(edging_.grid)) ? placesRead(edging_.grid, all) : all;
  }

  EdgingMember member(const Json& json) {
    Fields fields(json, file_);
    EdgingMember one;
    one.tile = {fields.id("sheet"), static_cast<std::uint32_t>(fields.number("tile", 0, static_cast<int>(kLastTileNumber)))};
    one.turn = Turn::fromCode(static_cast<std::uint32_t>(fields.numberIfAny("turn", 0, Turn::kCodes - 1, 0)));
    one.middle = named(fields.text("middle"), fields.line("middle"));
    one.sides = places(fields, "sides");
    one.corners = places(fields, "corners");
    one.weight = fields.numberIfAny("weight", 1, kMostMemberWeight, 1);
    one.told = fields.flagIfAny("told");
    fields_.takeFrom(fields);
    return one;
  }

  HemTile hemTile(const Json& json) {
    Fields fields(json, file_);
    HemTile one;
    one.tile = {fields.id("sheet"), static_cast<std::uint32_t>(fields.number("tile", 0, static_cast<int>(kLastTileNumber)))};
    one.turn = Turn::fromCode(static_cast<std::uint32_t>(fields.numberIfAny("turn", 0, Turn::kCodes - 1, 0)));
    const auto row = fields.has("row") ? hemRowFromName(fields.text("row")) : HemRow::middle;
    const auto piece = fields.has("piece") ? hemPieceFromName(fields.text("piece")) : HemPiece::middle;
    if (!row) fields_.refuse("\"row\" is none of \"top\", \"middle\" and \"foot\"", fields.line("row"));
    if (!piece) fields_.refuse("\"piece\" is none of \"left\", \"middle\", \"right\" and \"alone\"", fields.line("piece"));
    one.row = row.value_or(HemRow::middle);
    one.piece = piece.value_or(HemPiece::middle);
    one.weight = fields.numberIfAny("weight", 1, kMostHemWeight, 1);
    fields_.takeFrom(fields);
    return one;
  }

  Hem hem(const Json& json) {
    Fields fields(json, file_);
    Hem one;
    one.name = fields.text("name");
    one.material = named(fields.text("material"), fields.line("material"));
    one.role = fields.textIfAny("role");
    if (fields.has("around")) {
      one.around = fields.id("around");
      one.aroundMaterial = fields.text("with");
    } else {
      const std::string side = fields.text("side");
      one.side = -1;
      for (int i = 0; i < placesOf(edging_.grid); ++i) {
        if (placeName(edging_.grid, false, i) == side) one.side = i;
      }
      if (one.side < 0) fields_.refuse("cells have no side called \"" + side + "\"", fields.line("side"));
      one.inside = fields.flagIfAny("inside");
      one.stands = fields.flagIfAny("stands");
      one.follows = fields.flagIfAny("follows");
      one.rows = fields.numberIfAny("rows", 1, kMostHemRows, 1);
      one.grows = fields.flagIfAny("grows");
      for (const Json& tile : fields.list("tiles", kMostHemTiles)) one.tiles.push_back(hemTile(tile));
    }
    fields_.takeFrom(fields);
    return one;
  }

  Fields fields_;
  const std::string& file_;
  Edging edging_;
};

}  // namespace

std::vector<MaterialIndex> placesWritten(GridKind grid, const std::vector<MaterialIndex>& places) {
  std::vector<MaterialIndex> written = places;
  if (!written.empty()) std::rotate(written.begin(), written.begin() + firstWritten(grid), written.end());
  return written;
}

std::vector<MaterialIndex> placesRead(GridKind grid, const std::vector<MaterialIndex>& places) {
  std::vector<MaterialIndex> read = places;
  if (!read.empty()) std::rotate(read.begin(), read.end() - firstWritten(grid), read.end());
  return read;
}

std::string edgingFile(const Edging& edging) { return std::string(kFolderOf<Edging>) + "/" + edging.file + ".json"; }

Json memberJson(const Edging& edging, const EdgingMember& member) {
  Json::Object object{{"tile", static_cast<int>(member.tile.tile)}};
  if (member.turn.code() != 0) object.emplace_back("turn", static_cast<int>(member.turn.code()));
  object.emplace_back("middle", materialName(edging, member.middle));
  if (!member.sides.empty()) object.emplace_back("sides", namesOf(edging, member.sides));
  if (!member.corners.empty()) object.emplace_back("corners", namesOf(edging, member.corners));
  if (member.weight != 1) object.emplace_back("weight", member.weight);
  if (member.told) object.emplace_back("told", true);
  return object;
}

namespace {

Json hemJson(const Edging& edging, const Hem& hem) {
  Json::Object object{{"name", hem.name}, {"material", materialName(edging, hem.material)}};
  if (!hem.role.empty()) object.emplace_back("role", hem.role);
  if (hem.isAround()) {
    append(object, {{"around", hem.around.text()}, {"with", hem.aroundMaterial}});
    return object;
  }
  object.emplace_back("side", placeName(edging.grid, false, hem.side));
  if (hem.inside) object.emplace_back("inside", true);
  if (hem.stands) object.emplace_back("stands", true);
  if (hem.follows) object.emplace_back("follows", true);
  if (hem.rows != 1) object.emplace_back("rows", hem.rows);
  if (hem.grows) object.emplace_back("grows", true);
  Json::Array tiles;
  for (const HemTile& one : hem.tiles) {
    Json::Object tile{{"sheet", one.tile.sheet.text()}, {"tile", static_cast<int>(one.tile.tile)}};
    if (one.turn.code() != 0) tile.emplace_back("turn", static_cast<int>(one.turn.code()));
    if (one.row != HemRow::middle) tile.emplace_back("row", hemRowName(one.row));
    if (one.piece != HemPiece::middle) tile.emplace_back("piece", hemPieceName(one.piece));
    if (one.weight != 1) tile.emplace_back("weight", one.weight);
    tiles.emplace_back(std::move(tile));
  }
  object.emplace_back("tiles", std::move(tiles));
  return object;
}

}  // namespace

Json edgingDocument(const Edging& edging) {
  Json::Object object = documentBegun("edging");
  Json::Array materials;
  for (const Material& one : edging.materials) {
    Json::Object material{{"name", one.name}, {"colour", colourText(one.colour)}};
    Json::Array also;
    for (const std::uint32_t colour : one.also) also.emplace_back(colourText(colour));
    if (!also.empty()) material.emplace_back("also", std::move(also));
    materials.push_back(std::move(material));
  }
  Json::Array members;
  for (const EdgingMember& one : edging.members) {
    Json::Object member{{"sheet", one.tile.sheet.text()}};
    const Json rest = memberJson(edging, one);
    append(member, *rest.as<Json::Object>());
    members.emplace_back(std::move(member));
  }
  append(object, {{"id", edging.id.text()},
                  {"name", edging.name},
                  {"grid", gridName(edging.grid)},
                  {"decides", decidesName(edging.decides)},
                  {"materials", std::move(materials)},
                  {"members", std::move(members)}});
  Json::Array hems;
  for (const Hem& one : edging.hems) hems.push_back(hemJson(edging, one));
  if (!hems.empty()) object.emplace_back("hems", std::move(hems));
  append(object, edging.extra);
  return object;
}

Result<Edging> readEdgingDocument(const Json& json, const std::string& file) { return EdgingReading(json, file).read(); }

}  // namespace uq
