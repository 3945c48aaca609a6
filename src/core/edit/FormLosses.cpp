#include "core/edit/FormLosses.h"

#include <algorithm>
#include <set>

namespace uq {

namespace {

std::string counted(std::size_t count, const std::string& one, const std::string& many) { return std::to_string(count) + " " + (count == 1 ? one : many); }

std::string formTitle(Form form) {
  switch (form) {
    case Form::json: return "JSON";
    case Form::csv: return "CSV";
    case Form::png: return "PNG";
    case Form::ora: return "OpenRaster";
  }
  return {};
}

}  // namespace

std::string_view formName(Form form) {
  constexpr std::string_view kNames[] = {"json", "csv", "png", "ora"};
  return kNames[static_cast<std::size_t>(form)];
}

std::optional<Form> formFromName(std::string_view name) {
  const auto found = std::find_if(std::begin(kForms), std::end(kForms), [&](Form form) { return formName(form) == name; });
  return found == std::end(kForms) ? std::nullopt : std::optional(*found);
}

std::vector<std::string> formLosses(const Quilt& quilt, const Map& map, Form form) {
  std::vector<std::string> losses;
  if (form == Form::json) return losses;
  const auto counting = [&](auto&& has) {
    return static_cast<std::size_t>(std::count_if(map.layers.begin(), map.layers.end(), [&](const Shared<Layer>& layer) { return has(layer.read()); }));
  };
  std::set<TileRef> tiles;
  for (const Shared<Layer>& layer : map.layers) {
    for (const auto& one : layer->cells.tally(map.bounds)) tiles.insert(one.first);
  }
  const auto framed = static_cast<std::size_t>(std::count_if(tiles.begin(), tiles.end(), [&](TileRef tile) {
    const Sheet* sheet = quilt.sheetAt(tile.slot);
    return sheet && sheet->framesOf(tile.number);
  }));
  const bool isPicture = form == Form::png || form == Form::ora;
  if (form == Form::csv) {
    if (const auto count = counting([](const Layer& one) { return one.kind == LayerKind::backdrop; }); count > 0) losses.push_back(counted(count, "backdrop", "backdrops"));
    if (hasLevels(map)) losses.emplace_back("rises");
    if (counting([](const Layer& one) { return !one.lifts.empty(); }) > 0) losses.emplace_back("lifts of single cells");
    const auto hasLooks = [](const Layer& one) { return one.opacity != 100 || one.tint != kNoTint || one.blend != Blend::normal; };
    if (counting(hasLooks) > 0) losses.emplace_back("how layers are laid over one another");
  }
  if (counting([](const Layer& one) { return !(one.parallax == Parallax{}); }) > 0) losses.emplace_back("how layers move with the camera");
  if (isPicture && !tiles.empty()) losses.emplace_back("which tile lies where");
  if (framed > 0) losses.push_back(counted(framed, "tile that moves", "tiles that move"));
  std::size_t spots = 0;
  for (const Shared<Layer>& layer : map.layers) spots += layer->pins->size();
  if (spots > 0) losses.push_back(counted(spots, "spot", "spots"));
  const auto doorways = static_cast<std::size_t>(std::count_if(quilt.doorways().begin(), quilt.doorways().end(), [&](const Shared<Doorway>& one) { return one->joins(map.id); }));
  if (doorways > 0) losses.push_back(counted(doorways, "doorway", "doorways"));
  const auto seams = static_cast<std::size_t>(std::count_if(quilt.seams().begin(), quilt.seams().end(), [&](const Shared<Seam>& one) { return one->map == map.id || one->other == map.id; }));
  if (seams > 0) losses.push_back(counted(seams, "seam", "seams"));
  return losses;
}

std::string lossesInWords(const Quilt& quilt, const Map& map, Form form) {
  const std::vector<std::string> losses = formLosses(quilt, map, form);
  if (losses.empty()) return {};
  std::string list;
  for (std::size_t i = 0; i < losses.size(); ++i) list += (i == 0 ? "" : i + 1 == losses.size() ? " and " : ", ") + losses[i];
  return formTitle(form) + " of " + map.name + " has no place for " + list;
}

}  // namespace uq
