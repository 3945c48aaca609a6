#include "core/work/StepNames.h"

#include "core/edit/LaidStamps.h"

namespace uq {

namespace {

std::string toolName(Tool tool) {
  switch (tool) {
    case Tool::brush: return "Brush";
    case Tool::erase: return "Erase";
    case Tool::box: return "Box";
    case Tool::fill: return "Fill";
    case Tool::select: return "Select";
    case Tool::line: return "Line";
    case Tool::oval: return "Oval";
    case Tool::pins: return "Pins";
  }
  return {};
}

}  // namespace

std::string strokeName(const Desk& desk, const Quilt& quilt, Tool tool, bool takesAway, const Landing* landing) {
  const bool lands = landing && !landing->layers.empty();
  const Layer* layer = lands ? landing->quilt.layer(landing->layers.front()) : quilt.layer(desk.activeAt());
  const std::string on = layer ? layer->name : std::string();
  if (takesAway && tool != Tool::erase && tool != Tool::select) return "Take away on " + on;
  const bool swaps = tool == Tool::fill && desk.options.swaps;
  std::string name = (swaps ? "Swap" : toolName(tool)) + (landing && landing->makesLayer ? " on a new layer" : " on " + on);
  if (landing && !landing->keeps.empty()) name += ", keeps " + landing->keeps;
  return name;
}

std::string verbName(const Desk& desk, const Quilt& quilt, std::string_view verb) {
  const Layer* layer = quilt.layer(desk.activeAt());
  if (const auto laid = laidOn(quilt, desk.map, desk.selectedStamp, desk.selection())) {
    return std::string(verb) + " " + quilt.stamp(laid->stamp)->name;
  }
  const bool all = desk.options.allLayers && !desk.selection().empty();
  return std::string(verb) + (all ? " on all layers" : " on " + (layer ? layer->name : std::string()));
}

std::string mapNames(const Quilt& quilt, const std::set<Id>& maps) {
  std::vector<std::string> names;
  for (const Shared<Map>& map : quilt.maps()) {
    if (maps.contains(map->id)) names.push_back(map->name);
  }
  if (names.size() == 2) return names[0] + " and " + names[1];
  return names.size() < 2 ? (names.empty() ? "" : names[0]) : names[0] + " and " + std::to_string(names.size() - 1) + " other maps";
}

}  // namespace uq
