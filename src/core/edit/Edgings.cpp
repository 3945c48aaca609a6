#include "core/edit/Edgings.h"

#include <algorithm>

#include "core/edit/Joiner.h"
#include "core/edit/Rejoin.h"

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
  // Tiles that stand up from slanted cells are as wide as these, and higher.
  for (const auto& map : quilt.maps()) {
    const GridShape& grid = map->grid;
    const bool isSlanted = grid.kind == GridKind::diamond || grid.kind == GridKind::staggered;
    if (isSlanted && grid.cell.w == sheet.cut.cell.w && grid.cell.h < sheet.cut.cell.h && (!kind || areOfOneFamily(grid.kind, *kind))) return grid;
  }
  return nearestShape(kind.value_or(GridKind::orthogonal), sheet.cut.cell);
}

Edging mergedMaterials(const Edging& edging, MaterialIndex keep, MaterialIndex gone) {
  const auto count = static_cast<MaterialIndex>(edging.materials.size());
  if (keep == gone || keep < 0 || gone < 0 || keep >= count || gone >= count) return edging;
  Edging merged = edging;
  Material& kept = merged.materials[static_cast<std::size_t>(keep)];
  const Material& lost = edging.materials[static_cast<std::size_t>(gone)];
  kept.also.push_back(lost.colour);
  kept.also.insert(kept.also.end(), lost.also.begin(), lost.also.end());
  if (kept.also.size() > kMostAlso) kept.also.resize(kMostAlso);
  merged.materials.erase(merged.materials.begin() + gone);
  const auto now = [&](MaterialIndex one) {
    if (one == gone) one = keep;
    return one > gone ? one - 1 : one;
  };
  for (EdgingMember& member : merged.members) {
    member.middle = now(member.middle);
    for (MaterialIndex& side : member.sides) side = now(side);
    for (MaterialIndex& corner : member.corners) corner = now(corner);
  }
  for (Hem& hem : merged.hems) hem.material = now(hem.material);
  return merged;
}

Quilt withEdging(const Quilt& quilt, Edging edging) {
  const Edging* was = quilt.edging(edging.id);
  Quilt after = quilt;
  if (was && was->materials.size() == edging.materials.size()) {
    for (const Shared<Edging>& one : quilt.edgings()) {
      Edging next = one.read();
      for (Hem& hem : next.hems) {
        const auto named = hem.around == edging.id && hem.isAround() ? materialNamed(*was, hem.aroundMaterial) : std::nullopt;
        if (named && *named >= 0) hem.aroundMaterial = edging.materials[static_cast<std::size_t>(*named)].name;
      }
      if (!(next.hems == one->hems)) after = after.with(std::move(next));
    }
  }
  after = after.with(edging);
  return withStandInsMended(after, edging);
}

Edging toldMember(const Edging& edging, const TileId& tile, Turn turn, const EdgingShape& shape) {
  Edging told = edging;
  const auto member = std::find_if(told.members.begin(), told.members.end(), [&](const EdgingMember& one) { return one.tile == tile && one.turn == turn; });
  if (member == told.members.end()) return told;
  const auto take = [](std::vector<MaterialIndex>& places, const std::vector<MaterialIndex>& wanted, MaterialIndex path, MaterialIndex other) {
    for (std::size_t i = 0; i < places.size() && i < wanted.size(); ++i) {
      if (wanted[i] != kAnything) places[i] = wanted[i];
      else if (places[i] == path) places[i] = other;
    }
  };
  if (shape.middle != kAnything) member->middle = shape.middle;
  // Of a path what was not crossed shows something else.
  MaterialIndex other = kNothingSeen;
  for (const EdgingMember& one : edging.members) {
    for (const MaterialIndex side : one.sides) other = side != member->middle ? side : other;
  }
  const bool isPath = edging.decides == Decides::path;
  take(member->sides, shape.sides, isPath ? member->middle : kAnything, other);
  take(member->corners, shape.corners, kAnything, other);
  if (edging.decides == Decides::corners) {
    // The middle is what most corners show.
    std::size_t most = 0;
    for (const MaterialIndex one : member->corners) {
      const auto times = static_cast<std::size_t>(std::count(member->corners.begin(), member->corners.end(), one));
      if (times > most) most = times, member->middle = one;
    }
  }
  member->told = true;
  return told;
}

InHand materialInHand(const Quilt& quilt, const Edging& edging, MaterialIndex material) {
  const auto shown = plainTile(quilt, edging, material);
  if (!shown || material < 0) return {};
  InHand hand(Block::of(*shown), edging.grid);
  hand.edging = edging.id;
  hand.material = material;
  // What another brings along lies on the layers to which that brings it.
  for (const Shared<Edging>& one : quilt.edgings()) {
    for (const Hem& hem : one->hems) {
      if (hand.role.empty() && hem.around == edging.id && hem.isAround()) hand.role = hem.role;
    }
  }
  return hand;
}

std::optional<MaterialOfTile> materialOfTile(const Quilt& quilt, GridKind grid, Cell cell, Id first) {
  const Sheet* sheet = cell.empty() ? nullptr : quilt.sheetAt(cell.tile().slot);
  if (!sheet) return std::nullopt;
  std::optional<MaterialOfTile> found;
  for (const Shared<Edging>& one : quilt.edgings()) {
    if (!areOfOneFamily(one->grid, grid) || (found && one->id != first)) continue;
    const auto member = std::find_if(one->members.begin(), one->members.end(), [&](const EdgingMember& own) {
      return own.tile.tile == cell.tile().number && own.tile.sheet == sheet->id && own.turn == cell.turn() && own.middle >= 0;
    });
    if (member != one->members.end()) found = MaterialOfTile{&one.read(), member->middle};
  }
  return found;
}

std::optional<int> rowsInHand(const Quilt& quilt, const InHand& hand) {
  const Edging* edging = hand.joins() ? quilt.edging(hand.edging) : nullptr;
  if (!edging) return std::nullopt;
  const auto rowsOf = [&](const Edging& of, MaterialIndex material) -> std::optional<int> {
    for (const Hem& hem : of.hems) {
      if (!hem.isAround() && hem.material == material && hem.grows) return hand.rows > 0 ? hand.rows : hem.rows;
    }
    return std::nullopt;
  };
  if (const auto own = rowsOf(*edging, hand.material)) return own;
  for (const Hem& hem : edging->hems) {
    const Edging* around = hem.material == hand.material && hem.isAround() ? quilt.edging(hem.around) : nullptr;
    const auto material = around ? materialNamed(*around, hem.aroundMaterial) : std::nullopt;
    if (!material) continue;
    if (const auto rows = rowsOf(*around, *material)) return rows;
  }
  return std::nullopt;
}

const Edging* edgingNamed(const Quilt& quilt, std::string_view name) {
  const auto found = std::find_if(quilt.edgings().begin(), quilt.edgings().end(), [name](const Shared<Edging>& one) { return one->name == name || one->file == name; });
  return found == quilt.edgings().end() ? nullptr : &found->read();
}

}  // namespace uq
