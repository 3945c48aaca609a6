#include "core/edit/RenameLayer.h"

namespace uq {

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

}  // namespace uq
