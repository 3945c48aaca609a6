#include "core/edit/LayerFacts.h"

#include <cstdlib>

namespace uq {

namespace {

template <class Change>
Quilt changed(const Quilt& quilt, LayerAt at, bool can, Change&& change) {
  const TilesLayer* layer = quilt.layer(at);
  if (!layer || !can) return quilt;
  TilesLayer next = *layer;
  change(next);
  return quilt.with(at, std::move(next));
}

}  // namespace

Quilt renameLayer(const Quilt& quilt, LayerAt at, const std::string& name) {
  const TilesLayer* layer = quilt.layer(at);
  if (!layer || name.empty() || layer->name == name) return quilt;
  std::vector<std::string> taken;
  for (const auto& other : quilt.map(at.map)->layers) {
    if (other->id != at.layer) taken.push_back(other->file);
  }
  TilesLayer renamed = *layer;
  renamed.name = name;
  renamed.file = slugFor(name, taken);
  return quilt.with(at, std::move(renamed));
}

Quilt withRole(const Quilt& quilt, LayerAt at, const std::string& role) {
  return changed(quilt, at, !role.empty(), [&](TilesLayer& layer) { layer.role = role; });
}

Quilt withOffset(const Quilt& quilt, LayerAt at, PixelPos offset) {
  const bool can = std::abs(offset.x) <= kFarthestOffset && std::abs(offset.y) <= kFarthestOffset;
  return changed(quilt, at, can, [&](TilesLayer& layer) { layer.offset = offset; });
}

Quilt withOpacity(const Quilt& quilt, LayerAt at, int opacity) {
  return changed(quilt, at, opacity >= 0 && opacity <= 100, [&](TilesLayer& layer) { layer.opacity = opacity; });
}

Quilt withNote(const Quilt& quilt, LayerAt at, const std::string& note) {
  return changed(quilt, at, note.size() <= kLongestNote, [&](TilesLayer& layer) { layer.note = note; });
}

}  // namespace uq
