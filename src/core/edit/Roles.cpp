#include "core/edit/Roles.h"

#include <algorithm>

namespace uq {

std::size_t layersOfRole(const Quilt& quilt, const std::string& role) {
  std::size_t count = 0;
  for (const Shared<Map>& map : quilt.maps()) {
    for (const Shared<Layer>& layer : map->layers) count += layer->role == role ? 1 : 0;
  }
  return count;
}

Quilt renameRole(const Quilt& quilt, const std::string& role, const std::string& name) {
  const std::vector<std::string>& roles = quilt.facts().roles;
  const auto has = [&](const std::string& one) { return std::find(roles.begin(), roles.end(), one) != roles.end(); };
  if (name.empty() || !has(role) || has(name)) return quilt;
  QuiltFacts facts = quilt.facts();
  std::replace(facts.roles.begin(), facts.roles.end(), role, name);
  Quilt after = quilt.with(std::move(facts));
  for (const Shared<Map>& map : quilt.maps()) {
    for (const Shared<Layer>& layer : map->layers) {
      if (layer->role != role) continue;
      Layer next = layer.read();
      next.role = name;
      after = after.with(LayerAt{map->id, layer->id}, std::move(next));
    }
  }
  for (const Shared<Stamp>& stamp : quilt.stamps()) {
    Stamp next = stamp.read();
    if (next.held.role == role) next.held.role = name;
    for (HandPart& part : next.held.others) {
      if (part.role == role) part.role = name;
    }
    if (!(next.held == stamp->held)) after = after.with(std::move(next));
  }
  for (const Shared<Edging>& edging : quilt.edgings()) {
    Edging next = edging.read();
    for (Hem& hem : next.hems) {
      if (hem.role == role) hem.role = name;
    }
    if (!(next.hems == edging->hems)) after = after.with(std::move(next));
  }
  return after;
}

Quilt moveRole(const Quilt& quilt, const std::string& role, std::size_t index) {
  QuiltFacts facts = quilt.facts();
  const auto at = std::find(facts.roles.begin(), facts.roles.end(), role);
  if (at == facts.roles.end()) return quilt;
  facts.roles.erase(at);
  index = std::min(index, facts.roles.size());
  facts.roles.insert(facts.roles.begin() + static_cast<std::ptrdiff_t>(index), role);
  return facts.roles == quilt.facts().roles ? quilt : quilt.with(std::move(facts));
}

Quilt dropRole(const Quilt& quilt, const std::string& role) {
  QuiltFacts facts = quilt.facts();
  if (layersOfRole(quilt, role) > 0 || std::erase(facts.roles, role) == 0) return quilt;
  return quilt.with(std::move(facts));
}

}  // namespace uq
