#include "core/store/Documents.h"

#include "core/store/Fields.h"
#include "core/store/PinsText.h"
#include "core/store/StampText.h"

namespace uq {

namespace {

constexpr std::size_t kMostRoles = 256;
constexpr std::size_t kMostSilenced = 256;
constexpr std::size_t kMostSheets = 1022;

}  // namespace

Json::Object documentBegun(const char* document) {
  return {{"document", document}, {"version", std::to_string(kFormatMajor) + "." + std::to_string(kFormatMinor)}};
}

std::optional<Error> checkDocument(const Json& json, const char* document, const std::string& file) {
  Fields fields(json, file);
  fields.document(document);
  return fields.error();
}

Json quiltDocument(const QuiltFacts& facts) {
  Json::Object object = documentBegun("quilt");
  Json::Array roles;
  for (const std::string& role : facts.roles) roles.emplace_back(role);
  append(object,
         {{"id", facts.id.text()}, {"name", facts.name}, {"roles", std::move(roles)}, {"screen", pair(facts.screen)}});
  putTurns(object, facts.turns);
  if (!facts.silenced.empty()) {
    Json::Array silenced;
    for (const auto& [kind, reason] : facts.silenced) silenced.push_back(Json::Object{{"kind", kind}, {"reason", reason}});
    object.emplace_back("silenced", std::move(silenced));
  }
  if (!facts.start.empty()) object.emplace_back("start", pinAtJson(facts.start));
  if (!facts.opensWith.empty()) object.emplace_back("opensWith", facts.opensWith.text());
  if (!facts.table.empty()) {
    Json::Array table;
    for (const Id sheet : facts.table) table.emplace_back(sheet.text());
    object.emplace_back("table", std::move(table));
  }
  if (!facts.shelf.empty()) {
    Json::Array shelf;
    for (const Id stamp : facts.shelf) shelf.emplace_back(stamp.text());
    object.emplace_back("shelf", std::move(shelf));
  }
  append(object, facts.extra);
  return object;
}

Result<QuiltFacts> readQuiltDocument(const Json& json, const std::string& file) {
  Fields fields(json, file);
  fields.document("quilt");
  QuiltFacts facts;
  facts.id = fields.id("id");
  facts.name = fields.text("name");
  // Version 1.0 has neither.
  if (fields.has("roles")) facts.roles = fields.names("roles", kMostRoles);
  if (fields.has("screen")) {
    const auto screen = fields.numbers("screen", 2, 1, kLargestScreen);
    facts.screen = {screen[0], screen[1]};
  }
  readTurns(fields, facts.turns);
  for (const Json& one : fields.listIfAny("silenced", kMostSilenced)) {
    Fields said(one, file);
    const std::string kind = said.text("kind");
    facts.silenced[kind] = said.textIfAny("reason", kLongestNote);
    fields.takeFrom(said);
  }
  if (const Json* start = fields.any("start")) facts.start = readPinAt(*start, file, fields);
  if (fields.has("opensWith")) facts.opensWith = fields.id("opensWith");
  if (fields.has("table")) {
    for (const std::string& text : fields.names("table", kMostSheets)) {
      const auto sheet = Id::parse(text);
      if (!sheet) fields.refuse("\"table\" holds something that is no id", fields.line("table"));
      facts.table.push_back(sheet.value_or(Id{}));
    }
  }
  if (fields.has("shelf")) {
    for (const std::string& text : fields.names("shelf", kMostStamps)) {
      const auto stamp = Id::parse(text);
      if (!stamp) fields.refuse("\"shelf\" holds something that is no id", fields.line("shelf"));
      facts.shelf.push_back(stamp.value_or(Id{}));
    }
  }
  facts.extra = fields.rest();
  return checked(fields, std::move(facts));
}

std::string mapFile(const Map& map) { return "maps/" + map.folder + "/map.json"; }
std::string cellsFile(const Map& map, const Layer& layer) {
  return "maps/" + map.folder + "/" + layer.file + ".cells";
}

std::string liftsFile(const Map& map, const Layer& layer) {
  return "maps/" + map.folder + "/" + layer.file + ".lift.cells";
}
std::string meantFile(const Map& map, const Layer& layer) { return "maps/" + map.folder + "/" + layer.file + ".meant.cells"; }
std::string sheetFile(const Sheet& sheet) { return "sheets/" + sheet.file + ".json"; }
std::string pictureFile(const Sheet& sheet) { return "sheets/" + sheet.picture; }
std::string pictureFile(const Sheet& sheet, const CollectedPicture& one) { return "sheets/" + sheet.file + "/" + one.file; }
std::string tilesFile(const Sheet& sheet) { return "sheets/" + sheet.file + ".tiles"; }

}  // namespace uq
