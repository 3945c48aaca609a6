#include "core/store/LinksText.h"

#include <algorithm>
#include <set>

#include "core/store/Documents.h"
#include "core/store/Fields.h"

namespace uq {

namespace {

constexpr int kFarthestSewn = 1 << 22;  // cells, each way: two maps at opposite ends of all there is

}  // namespace

Links linksOf(const Quilt& quilt) {
  Links links{{}, quilt.facts().linksExtra};
  for (const Shared<Seam>& seam : quilt.seams()) links.seams.push_back(seam.read());
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

Json linksDocument(const Links& links) {
  Json::Object object = documentBegun("links");
  Json::Array seams;
  for (const Seam& seam : links.seams) seams.push_back(seamJson(seam));
  object.emplace_back("seams", std::move(seams));
  append(object, links.extra);
  return object;
}

Result<Links> readLinksDocument(const Json& json, const std::string& file) {
  Fields fields(json, file);
  fields.document("links");
  Links links;
  std::set<Id> known;
  for (const Json& one : fields.listIfAny("seams", kMostSeams)) {
    auto seam = readSeam(one, file);
    if (!seam) return fail(seam.error());
    if (!known.insert(seam->id).second) fields.refuse("two seams have the id " + seam->id.text(), one.line);
    links.seams.push_back(std::move(*seam));
  }
  std::sort(links.seams.begin(), links.seams.end(), [](const Seam& a, const Seam& b) { return a.id < b.id; });
  links.extra = fields.rest();
  return checked(fields, std::move(links));
}

}  // namespace uq
