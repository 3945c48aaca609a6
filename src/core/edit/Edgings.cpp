#include "core/edit/Edgings.h"

#include <algorithm>

#include "core/edit/Joiner.h"

namespace uq {

EdgingAdded addEdging(const Quilt& quilt, Edging edging, const std::string& name, IdSource& ids) {
  if (!whyNoEdging(edging).empty()) return {quilt, {}};
  const std::string wanted = name.empty() ? "Edging" : name;
  edging.name = wanted;
  for (int n = 2; edgingNamed(quilt, edging.name); ++n) edging.name = wanted + " " + std::to_string(n);
  std::vector<std::string> taken = quilt.taken().names<Edging>();
  for (const auto& other : quilt.edgings()) taken.push_back(other->file);
  edging.id = freshId(quilt, ids);
  edging.file = slugFor(edging.name, taken);
  const Id id = edging.id;
  return {quilt.with(std::move(edging)), id};
}

GridShape gridOfSheet(const Quilt& quilt, const Sheet& sheet, std::optional<GridKind> kind) {
  for (const auto& map : quilt.maps()) {
    if (map->grid.cell == sheet.cut.cell && (!kind || map->grid.kind == *kind)) return map->grid;
  }
  return nearestShape(kind.value_or(GridKind::orthogonal), sheet.cut.cell);
}

InHand materialInHand(const Quilt& quilt, const Edging& edging, MaterialIndex material) {
  const auto shown = plainTile(quilt, edging, material);
  if (!shown || material < 0) return {};
  InHand hand(Block::of(*shown), edging.grid);
  hand.edging = edging.id;
  hand.material = material;
  return hand;
}

const Edging* edgingNamed(const Quilt& quilt, std::string_view name) {
  const auto found = std::find_if(quilt.edgings().begin(), quilt.edgings().end(), [name](const Shared<Edging>& one) { return one->name == name || one->file == name; });
  return found == quilt.edgings().end() ? nullptr : &found->read();
}

}  // namespace uq
