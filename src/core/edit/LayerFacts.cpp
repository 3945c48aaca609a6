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
