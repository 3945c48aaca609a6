#include "core/edit/LayerFacts.h"

#include <algorithm>
#include <cstdlib>

namespace uq {

namespace {

template <class Change>
Quilt changed(const Quilt& quilt, LayerAt at, bool can, Change&& change) {
  const Layer* layer = quilt.layer(at);
  if (!layer || !can) return quilt;
  Layer next = *layer;
  change(next);
  return quilt.with(at, std::move(next));
}

}  // namespace

Quilt renameLayer(const Quilt& quilt, LayerAt at, const std::string& name) {
  const Layer* layer = quilt.layer(at);
  if (!layer || name.empty() || layer->name == name) return quilt;
  std::vector<std::string> taken;
  for (const auto& other : quilt.map(at.map)->layers) {
    if (other->id != at.layer) taken.push_back(other->file);
  }
  Layer renamed = *layer;
  renamed.name = name;
  renamed.file = slugFor(name, taken);
  return quilt.with(at, std::move(renamed));
}

Quilt withRole(const Quilt& quilt, LayerAt at, const std::string& role) {
  Quilt after = changed(quilt, at, !role.empty(), [&](Layer& layer) { layer.role = role; });
  const std::vector<std::string>& roles = quilt.facts().roles;
  const bool known = role.empty() || !quilt.layer(at) || std::find(roles.begin(), roles.end(), role) != roles.end();
  if (known) return after;
  QuiltFacts facts = after.facts();
  facts.roles.push_back(role);
  return after.with(std::move(facts));
}

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
      if (layer->role == role) after = changed(after, {map->id, layer->id}, true, [&](Layer& one) { one.role = name; });
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

Quilt withOffset(const Quilt& quilt, LayerAt at, PixelPos offset) {
  const bool can = std::abs(offset.x) <= kFarthestOffset && std::abs(offset.y) <= kFarthestOffset;
  return changed(quilt, at, can, [&](Layer& layer) { layer.offset = offset; });
}

Quilt withOpacity(const Quilt& quilt, LayerAt at, int opacity) {
  return changed(quilt, at, opacity >= 0 && opacity <= 100, [&](Layer& layer) { layer.opacity = opacity; });
}

Quilt withParallax(const Quilt& quilt, LayerAt at, Parallax parallax) {
  const auto can = [](int hundredths) { return hundredths >= 0 && hundredths <= kMostParallax; };
  return changed(quilt, at, can(parallax.across) && can(parallax.down),
                 [&](Layer& layer) { layer.parallax = parallax; });
}

Quilt withTint(const Quilt& quilt, LayerAt at, Colour tint) {
  return changed(quilt, at, tint <= kNoTint, [&](Layer& layer) { layer.tint = tint; });
}

Quilt withBlend(const Quilt& quilt, LayerAt at, Blend blend) {
  return changed(quilt, at, true, [&](Layer& layer) { layer.blend = blend; });
}

Quilt withInGame(const Quilt& quilt, LayerAt at, bool inGame) {
  return changed(quilt, at, true, [&](Layer& layer) { layer.inGame = inGame; });
}

Quilt withBackdrop(const Quilt& quilt, LayerAt at, const Backdrop& backdrop) {
  const Layer* layer = quilt.layer(at);
  const bool can = layer && layer->kind == LayerKind::backdrop && backdrop.shownAt >= kLeastShownAt &&
                   backdrop.shownAt <= kMostShownAt;
  return changed(quilt, at, can, [&](Layer& next) { next.backdrop = backdrop; });
}

Quilt withNote(const Quilt& quilt, LayerAt at, const std::string& note) {
  return changed(quilt, at, note.size() <= kLongestNote, [&](Layer& layer) { layer.note = note; });
}

}  // namespace uq
