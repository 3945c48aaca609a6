#include "core/edit/LinkGraph.h"

#include <map>

#include "core/edit/Doorways.h"
#include "core/edit/Pins.h"
#include "core/edit/Seams.h"

namespace uq {

namespace {

// From the map's upper left cell on, as people count them.
Json cellFromCorner(CellPos cell, CellRect bounds) { return Json::Array{cell.x - bounds.x0, cell.y - bounds.y0}; }

Json spotJson(const Pin& pin, const Map& map) {
  const CellRect cells = cellsOf(pin, map.bounds);
  Json::Object object{{"id", pin.id.text()}, {"number", pin.number}, {"name", pinText(pin)}, {"cell", cellFromCorner({cells.x0, cells.y0}, map.bounds)}};
  if (cells.width() > 1 || cells.height() > 1) object.emplace_back("over", Json::Array{cells.width(), cells.height()});
  if (pin.edge) object.emplace_back("edge", edgeName(*pin.edge));
  object.emplace_back("arrive", cellFromCorner(middleOf(pin, map.bounds), map.bounds));
  if (!pin.note.empty()) object.emplace_back("note", pin.note);
  return object;
}

Json mapWithSpots(const Map& map) {
  Json::Array spots;
  for (const Shared<Layer>& layer : map.layers) {
    for (const Pin& pin : layer->pins.read()) spots.push_back(spotJson(pin, map));
  }
  return Json::Object{{"id", map.id.text()},
                      {"name", map.name},
                      {"grid", gridName(map.grid.kind)},
                      {"cell", Json::Array{map.grid.cell.w, map.grid.cell.h}},
                      {"size", Json::Array{map.bounds.width(), map.bounds.height()}},
                      {"spots", std::move(spots)}};
}

Json idOrNull(const Quilt& quilt, Id map) { return quilt.map(map) ? Json(map.text()) : Json(); }

Json endJson(const Quilt& quilt, PinAt end) {
  if (!quilt.pin(end)) return {};
  return Json::Object{{"map", end.map.text()}, {"spot", end.pin.text()}};
}

}  // namespace

Json linkGraph(const Quilt& quilt) {
  Json::Array maps;
  for (const Shared<Map>& map : quilt.maps()) maps.push_back(mapWithSpots(map.read()));
  Json::Array seams;
  const auto sewn = SewnMaps::of(quilt);
  for (const Shared<Seam>& seam : quilt.seams()) {
    Json::Object object{{"id", seam->id.text()}, {"map", idOrNull(quilt, seam->map)}};
    const Map* map = quilt.map(seam->map);
    const Map* other = quilt.map(seam->other);
    if (seam->wraps()) {
      object.emplace_back("wraps", seam->by == kWrapsDown ? "down" : "across");
    } else {
      object.emplace_back("other", idOrNull(quilt, seam->other));
      // Where the other one's upper left cell lies, from that of the map on.
      if (map && other) object.emplace_back("at", cellFromCorner({other->bounds.x0 + seam->by.x, other->bounds.y0 + seam->by.y}, map->bounds));
    }
    object.emplace_back("right", sewn->whyWrong(seam->id).empty());
    seams.push_back(std::move(object));
  }
  Json::Array doorways;
  std::map<std::string, Json::Array> needs;
  for (const Shared<Doorway>& doorway : quilt.doorways()) {
    Json::Object object{{"id", doorway->id.text()},
                        {"from", endJson(quilt, doorway->from)},
                        {"to", endJson(quilt, doorway->to)},
                        {"facing", headingName(doorway->arriving)},
                        {"back", doorway->back ? Json(headingName(*doorway->back)) : Json()}};
    if (!doorway->needs.empty()) {
      object.emplace_back("needs", doorway->needs);
      needs[doorway->needs].emplace_back(doorway->id.text());
    }
    if (!doorway->sound.empty()) object.emplace_back("sound", doorway->sound);
    if (!doorway->note.empty()) object.emplace_back("note", doorway->note);
    object.emplace_back("sentence", doorwayText(quilt, doorway.read()));
    doorways.push_back(std::move(object));
  }
  Json::Array needed;
  for (auto& [what, by] : needs) needed.push_back(Json::Object{{"what", what}, {"doorways", std::move(by)}});
  return Json::Object{{"document", "link-graph"},
                      {"version", kLinkGraphVersion},
                      {"quilt", quilt.facts().name},
                      {"start", endJson(quilt, quilt.facts().start)},
                      {"maps", std::move(maps)},
                      {"seams", std::move(seams)},
                      {"doorways", std::move(doorways)},
                      {"needs", std::move(needed)}};
}

}  // namespace uq
