#include "core/store/EdgingText.h"

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
  append(object, edging.extra);
  return object;
}

Result<Edging> readEdgingDocument(const Json& json, const std::string& file) { return EdgingReading(json, file).read(); }

}  // namespace uq
