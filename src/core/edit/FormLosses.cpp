#include "core/edit/FormLosses.h"

#include <algorithm>
#include <set>

namespace uq {

namespace {

std::string formTitle(TargetForm form) {
  switch (form) {
    case TargetForm::json: return "JSON";
    case TargetForm::csv: return "CSV";
    case TargetForm::png: return "PNG";
    case TargetForm::ora: return "OpenRaster";
    case TargetForm::svg: return "SVG";
    case TargetForm::sheet: return "A packed sheet";
    case TargetForm::links: return "The link graph";
    case TargetForm::own: return "A form of one's own";
  }
  return {};
}

}  // namespace

namespace {

// What has no place: how many of what, or, where they cannot be counted, just that.
struct Loss {
  std::size_t count = 0;
  std::string one;
  std::string many{};
};

std::vector<Loss> lossesOf(const Quilt& quilt, const Map& map, TargetForm form) {
  std::vector<Loss> losses;
  // A sheet and the graph are none of a map, and of a form of one's own its text decides.
  constexpr TargetForm kLosing[] = {TargetForm::csv, TargetForm::png, TargetForm::ora, TargetForm::svg};
  if (std::find(std::begin(kLosing), std::end(kLosing), form) == std::end(kLosing)) return losses;
  const auto counting = [&](auto&& has) {
    return static_cast<std::size_t>(std::count_if(map.layers.begin(), map.layers.end(), [&](const Shared<Layer>& layer) { return has(layer.read()); }));
  };
  const auto counted = [&](std::size_t count, const char* one, const char* many) {
    if (count > 0) losses.push_back({count, one, many});
  };
  std::set<TileRef> tiles;
  for (const Shared<Layer>& layer : map.layers) {
    for (const auto& one : layer->cells.tally(map.bounds)) tiles.insert(one.first);
  }
  const auto framed = static_cast<std::size_t>(std::count_if(tiles.begin(), tiles.end(), [&](TileRef tile) {
    const Sheet* sheet = quilt.sheetAt(tile.slot);
    return sheet && sheet->framesOf(tile.number);
  }));
  if (form == TargetForm::csv || form == TargetForm::svg) {
    counted(counting([](const Layer& one) { return one.kind == LayerKind::backdrop; }), "backdrop", "backdrops");
    if (hasLevels(map)) losses.push_back({0, "rises"});
    if (counting([](const Layer& one) { return !one.lifts.empty(); }) > 0) losses.push_back({0, "lifts of single cells"});
    const auto hasLooks = [](const Layer& one) { return one.opacity != 100 || one.tint != kNoTint || one.blend != Blend::normal; };
    if (counting(hasLooks) > 0) losses.push_back({0, "how layers are laid over one another"});
  }
  if (counting([](const Layer& one) { return !(one.parallax == Parallax{}); }) > 0) losses.push_back({0, "how layers move with the camera"});
  if (form != TargetForm::csv && !tiles.empty()) losses.push_back({0, "which tile lies where"});
  counted(framed, "tile that moves", "tiles that move");
  std::size_t spots = 0;
  for (const Shared<Layer>& layer : map.layers) spots += layer->pins->size();
  counted(spots, "spot", "spots");
  counted(static_cast<std::size_t>(std::count_if(quilt.doorways().begin(), quilt.doorways().end(), [&](const Shared<Doorway>& one) { return one->joins(map.id); })), "doorway", "doorways");
  counted(static_cast<std::size_t>(std::count_if(quilt.seams().begin(), quilt.seams().end(), [&](const Shared<Seam>& one) { return one->map == map.id || one->other == map.id; })), "seam", "seams");
  return losses;
}

std::string inWords(const Loss& loss) { return loss.count == 0 ? loss.one : std::to_string(loss.count) + " " + (loss.count == 1 ? loss.one : loss.many); }

std::string listed(const std::vector<Loss>& losses) {
  std::string list;
  for (std::size_t i = 0; i < losses.size(); ++i) list += (i == 0 ? "" : i + 1 == losses.size() ? " and " : ", ") + inWords(losses[i]);
  return list;
}

}  // namespace

std::vector<std::string> formLosses(const Quilt& quilt, const Map& map, TargetForm form) {
  std::vector<std::string> words;
  for (const Loss& loss : lossesOf(quilt, map, form)) words.push_back(inWords(loss));
  return words;
}

std::string lossesInWords(const Quilt& quilt, const Map& map, TargetForm form) {
  const std::string list = listed(lossesOf(quilt, map, form));
  return list.empty() ? std::string() : formTitle(form) + " of " + map.name + " has no place for " + list;
}

std::string lossesInWords(const Quilt& quilt, const std::vector<const Map*>& maps, TargetForm form) {
  std::vector<Loss> all;
  for (const Map* map : maps) {
    for (const Loss& loss : lossesOf(quilt, *map, form)) {
      const auto known = std::find_if(all.begin(), all.end(), [&](const Loss& one) { return one.one == loss.one; });
      if (known == all.end()) all.push_back(loss);
      else known->count += loss.count;
    }
  }
  return listed(all);
}

}  // namespace uq
