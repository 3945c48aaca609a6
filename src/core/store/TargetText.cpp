#include "core/store/TargetText.h"

#include <algorithm>

#include "core/store/Documents.h"
#include "core/store/Fields.h"

namespace uq {

namespace {

constexpr std::size_t kMostMapsOfTarget = 100'000;

Json linesOf(const std::string& text) {
  Json::Array lines;
  for (std::size_t at = 0; at <= text.size();) {
    const std::size_t end = std::min(text.find('\n', at), text.size());
    lines.emplace_back(text.substr(at, end - at));
    at = end + 1;
  }
  return lines;
}

}  // namespace

std::string targetFile(const Target& target) { return std::string(kFolderOf<Target>) + "/" + target.file + ".json"; }

Json targetDocument(const Target& target) {
  const Target usual;
  Json::Object object = documentBegun("target");
  append(object, {{"id", target.id.text()}, {"name", target.name}, {"form", targetFormName(target.form)}});
  Json::Array maps;
  for (const Id map : target.maps) maps.emplace_back(map.text());
  if (!maps.empty()) object.emplace_back("maps", std::move(maps));
  const auto put = [&](const char* name, const auto& value, const auto& otherwise) {
    if (!(value == otherwise)) object.emplace_back(name, value);
  };
  put("folder", target.folder, usual.folder);
  put("cells", target.cells, usual.cells);
  if (target.of != usual.of) object.emplace_back("of", pictureOfName(target.of));
  put("scale", target.scale, usual.scale);
  put("hidden", target.hidden, usual.hidden);
  put("order", target.order, usual.order);
  put("columns", target.columns, usual.columns);
  put("bleed", target.bleed, usual.bleed);
  put("powersOfTwo", target.powersOfTwo, usual.powersOfTwo);
  if (!target.text.empty()) object.emplace_back("text", linesOf(target.text));
  put("naming", target.naming, usual.naming);
  put("ending", target.ending, usual.ending);
  put("escape", target.escape, usual.escape);
  append(object, target.extra);
  return object;
}

Result<Target> readTargetDocument(const Json& json, const std::string& file) {
  Fields fields(json, file);
  Target target;
  fields.document("target");
  target.id = fields.id("id");
  target.name = fields.text("name");
  const auto form = targetFormFromName(fields.text("form"));
  if (!form) fields.refuse("\"form\" is none of json, csv, png, ora, svg, sheet, links and own", fields.line("form"));
  target.form = form.value_or(TargetForm::json);
  for (const Json& one : fields.listIfAny("maps", kMostMapsOfTarget)) {
    const auto* text = one.as<std::string>();
    const auto id = text ? Id::parse(*text) : std::nullopt;
    if (!id) fields.refuse("\"maps\" are ids of maps", one.line);
    else if (std::find(target.maps.begin(), target.maps.end(), *id) == target.maps.end()) target.maps.push_back(*id);
  }
  target.folder = fields.textIfAny("folder", kLongestPath);
  target.cells = fields.textIfAny("cells");
  if (const std::string of = fields.textIfAny("of"); !of.empty()) {
    const auto read = pictureOfFromName(of);
    if (!read) fields.refuse("\"of\" is none of map, layer and screen", fields.line("of"));
    target.of = read.value_or(PictureOf::map);
  }
  target.scale = fields.numberIfAny("scale", 1, kLargestTargetScale, 1);
  target.hidden = fields.flagIfAny("hidden");
  target.order = fields.textIfAny("order");
  target.columns = fields.numberIfAny("columns", 0, kMostTargetColumns, 0);
  target.bleed = fields.numberIfAny("bleed", 0, kMostBleed, target.bleed);
  target.powersOfTwo = fields.flagIfAny("powersOfTwo");
  bool isFirst = true;
  for (const Json& line : fields.listIfAny("text", kLongestTargetText + 1)) {
    const auto* text = line.as<std::string>();
    if (!text || text->find('\n') != std::string::npos) fields.refuse("\"text\" is a list of lines", line.line);
    if (!std::exchange(isFirst, false)) target.text += '\n';
    if (text) target.text += *text;
  }
  target.naming = fields.textIfAny("naming");
  target.ending = fields.textIfAny("ending");
  target.escape = fields.textIfAny("escape");
  target.extra = fields.rest();
  if (const std::string why = fields.error() ? std::string() : whyNoTarget(target); !why.empty()) fields.refuse(why, fields.line("name"));
  return checked(fields, std::move(target));
}

}  // namespace uq
