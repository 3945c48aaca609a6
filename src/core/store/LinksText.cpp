#include "core/store/LinksText.h"

#include "core/store/Documents.h"
#include "core/store/Fields.h"
#include "core/store/OwnIds.h"
#include "core/store/PinsText.h"

namespace uq {

namespace {

constexpr int kFarthestSewn = 1 << 22;  // cells, each way: two maps at opposite ends of all there is

Heading readHeading(Fields& fields, const char* name) {
  const std::optional<Heading> heading = headingFromName(fields.text(name));
  if (!heading) fields.refuse("\"" + std::string(name) + "\" is no heading: \"north\", \"north-east\" and so on", fields.line(name));
  return heading.value_or(Heading::south);
}

// Reads what lies in a list, by id. `noun`: "seams".
template <class Part>
std::vector<Part> readAll(Fields& fields, const char* noun, std::size_t most, const std::string& file,
                          Result<Part> (*readOne)(const Json&, const std::string&)) {
  std::vector<Part> all;
  for (const Json& json : fields.listIfAny(noun, most)) {
    auto one = readOne(json, file);
    if (!one) {
      fields.take(one.error());
      return all;
    }
    all.push_back(std::move(*one));
  }
  giveOwnIds(all);
  return all;
}

}  // namespace

Links linksOf(const Quilt& quilt) {
  Links links{{}, {}, quilt.facts().linksExtra};
  for (const Shared<Seam>& seam : quilt.seams()) links.seams.push_back(seam.read());
  for (const Shared<Doorway>& doorway : quilt.doorways()) links.doorways.push_back(doorway.read());
  return links;
}

Json seamJson(const Seam& seam) {
  Json::Object object{{"id", seam.id.text()}, {"map", seam.map.text()}};
  if (seam.wraps()) {
    object.emplace_back("wraps", seam.by == kWrapsDown ? "down" : "across");
  } else {
    append(object, {{"other", seam.other.text()}, {"at", Json::Array{seam.by.x, seam.by.y}}});
  }
  append(object, seam.extra);
  return object;
}

Result<Seam> readSeam(const Json& json, const std::string& file) {
  Fields fields(json, file);
  Seam seam;
  seam.id = fields.id("id");
  seam.map = fields.id("map");
  if (fields.has("wraps")) {
    const std::string way = fields.text("wraps");
    if (way != "across" && way != "down") fields.refuse("\"wraps\" is neither \"across\" nor \"down\"", fields.line("wraps"));
    seam.other = seam.map;
    seam.by = way == "down" ? kWrapsDown : kWrapsAcross;
  } else {
    seam.other = fields.id("other");
    const auto at = fields.numbers("at", 2, -kFarthestSewn, kFarthestSewn);
    seam.by = {at[0], at[1]};
    if (seam.other == seam.map && !fields.error()) {
      fields.refuse("a map is sewn to itself by \"wraps\" only", fields.line("other"));
    }
  }
  seam.extra = fields.rest();
  return checked(fields, std::move(seam));
}

Json doorwayJson(const Doorway& doorway) {
  Json::Object object{{"id", doorway.id.text()},
                      {"from", pinAtJson(doorway.from)},
                      {"to", pinAtJson(doorway.to)},
                      {"arriving", headingName(doorway.arriving)}};
  if (doorway.back) object.emplace_back("back", headingName(*doorway.back));
  if (doorway.meantSo) object.emplace_back("meantSo", true);
  if (!doorway.needs.empty()) object.emplace_back("needs", doorway.needs);
  if (doorway.picture) object.emplace_back("picture", Json::Object{{"sheet", doorway.picture->sheet.text()}, {"tile", static_cast<int>(doorway.picture->tile)}});
  if (!doorway.sound.empty()) object.emplace_back("sound", doorway.sound);
  if (!doorway.note.empty()) object.emplace_back("note", doorway.note);
  append(object, doorway.extra);
  return object;
}

Result<Doorway> readDoorway(const Json& json, const std::string& file) {
  Fields fields(json, file);
  Doorway doorway;
  doorway.id = fields.id("id");
  for (const auto& [name, end] : {std::pair("from", &doorway.from), std::pair("to", &doorway.to)}) {
    if (const Json* at = fields.field(name)) *end = readPinAt(*at, file, fields);
  }
  doorway.arriving = readHeading(fields, "arriving");
  if (fields.has("back")) doorway.back = readHeading(fields, "back");
  doorway.meantSo = fields.flagIfAny("meantSo");
  doorway.needs = fields.textIfAny("needs", kLongestOfDoorway);
  if (const Json* shown = fields.any("picture")) {
    Fields picture(*shown, file);
    doorway.picture = {picture.id("sheet"), static_cast<std::uint32_t>(picture.number("tile", 0, static_cast<int>(kLastTileNumber)))};
    fields.takeFrom(picture);
  }
  doorway.sound = fields.textIfAny("sound", kLongestOfDoorway);
  doorway.note = fields.textIfAny("note", kLongestOfDoorway);
  doorway.extra = fields.rest();
  return checked(fields, std::move(doorway));
}

Json linksDocument(const Links& links) {
  Json::Object object = documentBegun("links");
  Json::Array seams;
  for (const Seam& seam : links.seams) seams.push_back(seamJson(seam));
  object.emplace_back("seams", std::move(seams));
  if (!links.doorways.empty()) {
    Json::Array doorways;
    for (const Doorway& doorway : links.doorways) doorways.push_back(doorwayJson(doorway));
    object.emplace_back("doorways", std::move(doorways));
  }
  append(object, links.extra);
  return object;
}

Result<Links> readLinksDocument(const Json& json, const std::string& file) {
  Fields fields(json, file);
  fields.document("links");
  Links links;
  links.seams = readAll<Seam>(fields, "seams", kMostSeams, file, readSeam);
  links.doorways = readAll<Doorway>(fields, "doorways", kMostDoorways, file, readDoorway);
  links.extra = fields.rest();
  return checked(fields, std::move(links));
}

}  // namespace uq
