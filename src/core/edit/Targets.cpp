#include "core/edit/Targets.h"

#include <algorithm>

namespace uq {

const Target* targetNamed(const Quilt& quilt, std::string_view name) {
  for (const Shared<Target>& one : quilt.all<Target>()) {
    if (one->name == name || one->file == name) return &one.read();
  }
  return nullptr;
}

TargetAdded addTarget(const Quilt& quilt, Target target, IdSource& ids) {
  if (!whyNoTarget(target).empty() || quilt.all<Target>().size() >= kMostTargets) return {quilt, {}};
  const std::string wanted = target.name;
  for (int n = 2; targetNamed(quilt, target.name); ++n) target.name = wanted + " " + std::to_string(n);
  std::vector<std::string> taken = quilt.taken().names<Target>();
  for (const Shared<Target>& other : quilt.all<Target>()) taken.push_back(other->file);
  target.id = freshId(quilt, ids);
  target.file = slugFor(target.name, taken);
  const Id id = target.id;
  return {quilt.with(std::move(target)), id};
}

std::vector<const Map*> mapsOf(const Quilt& quilt, const Target& target) {
  std::vector<const Map*> maps;
  for (const Shared<Map>& map : quilt.maps()) {
    const bool isChosen = target.maps.empty() || std::find(target.maps.begin(), target.maps.end(), map->id) != target.maps.end();
    if (isChosen) maps.push_back(&map.read());
  }
  return maps;
}

Target newTarget(const Quilt& quilt, TargetForm form) {
  static constexpr const char* kNames[] = {"Maps for the game", "Tables", "Pictures", "Layered pictures", "Outlines", "Packed sheets", "Links", "Own form"};
  Target target;
  target.form = form;
  const std::string wanted = kNames[static_cast<int>(form)];
  target.name = wanted;
  for (int n = 2; targetNamed(quilt, target.name); ++n) target.name = wanted + " " + std::to_string(n);
  std::vector<std::string> taken;
  for (const Shared<Target>& other : quilt.all<Target>()) {
    if (other->folder.starts_with("exports/")) taken.push_back(other->folder.substr(8));
  }
  target.folder = "exports/" + slugFor(target.name, taken);
  return target;
}

}  // namespace uq
