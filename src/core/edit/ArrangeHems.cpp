#include "core/edit/ArrangeHems.h"

#include <algorithm>

#include "core/document/EdgingShape.h"

namespace uq {

namespace {

// A name that no other hem of the edging has.
std::string freeName(const Edging& edging, const std::string& wanted) {
  const auto taken = [&](const std::string& name) {
    return std::any_of(edging.hems.begin(), edging.hems.end(), [&](const Hem& one) { return one.name == name; });
  };
  std::string name = wanted;
  for (int i = 2; taken(name); ++i) name = wanted + " " + std::to_string(i);
  return name;
}

bool isBelow(GridKind grid, int side) {
  const auto below = sidesBelow(grid);
  return std::find(below.begin(), below.end(), side) != below.end();
}

bool follows(const Edging& edging, std::size_t hem) {
  const Hem& own = edging.hems[hem];
  if (hem == 0 || own.isAround()) return false;
  const Hem& ahead = edging.hems[hem - 1];
  return !ahead.isAround() && ahead.material == own.material && ahead.side == own.side && ahead.inside == own.inside;
}

Edging settled(Edging edging) {
  for (std::size_t i = 0; i < edging.hems.size(); ++i) edging.hems[i].follows = edging.hems[i].follows && follows(edging, i);
  return edging;
}

}  // namespace

std::vector<int> sidesBelow(GridKind grid) {
  switch (grid) {
    case GridKind::orthogonal: return {2};
    case GridKind::diamond:
    case GridKind::staggered: return {2, 1};  // lower left and lower right
    case GridKind::hexagonalPointy: return {4, 3};
    case GridKind::hexagonalFlat: return {3, 4, 2};
  }
  return {2};
}

HemOfHand hemOfHand(const Quilt& quilt, const Edging& edging, MaterialIndex along, const InHand& hand) {
  HemOfHand found;
  Hem& hem = found.hem;
  hem.material = along;
  if (edging.hems.size() >= kMostHems) found.why = "It brings as much along as it can: 64 things";
  else if (hand.empty()) found.why = "Take what it is to bring along: tiles from the Table, or a material";
  else if (!areOfOneFamily(hand.grid, edging.grid)) found.why = "What is in hand is of " + std::string(cellsCalled(hand.grid)) + ", and these are " + std::string(cellsCalled(edging.grid));
  else if (hand.edging == edging.id) found.why = "This material is one of its own: take tiles, or a material of something else that joins";
  if (!found.why.empty()) return found;
  if (hand.joins()) {
    const Edging* around = quilt.edging(hand.edging);
    if (!around || !showsNothing(*around)) {
      // Taken away it would leave another of its materials behind.
      found.why = "All around lies only what can end: no tile of this shows nothing beside it";
      return found;
    }
    hem.around = hand.edging;
    hem.aroundMaterial = materialName(*around, hand.material);
    hem.name = freeName(edging, hem.aroundMaterial);
    hem.role = "things";
    return found;
  }
  const auto grid = makeGrid(nearestShape(edging.grid, {32, 32}));
  std::optional<CellRect> box;
  for (const Block::Part& part : hand.block.parts()) {
    const CellPos at = grid->fromSide(part.at);
    const CellRect own = CellRect::around(at, at);
    box = box ? box->united(own) : own;
  }
  if (!box || box->width() > 64 || box->height() > kMostHemRows) {
    found.why = "Tiles for it are at most 64 across and 32 down";
    return found;
  }
  std::vector<std::vector<std::optional<HemTile>>> rows(static_cast<std::size_t>(box->height()), std::vector<std::optional<HemTile>>(static_cast<std::size_t>(box->width())));
  for (const Block::Part& part : hand.block.parts()) {
    const Sheet* sheet = quilt.sheetAt(part.cell.tile().slot);
    if (!sheet) continue;
    const CellPos at = grid->fromSide(part.at);
    rows[static_cast<std::size_t>(at.y - box->y0)][static_cast<std::size_t>(at.x - box->x0)] = HemTile{{sheet->id, part.cell.tile().number}, part.cell.turn()};
  }
  hem.tiles = hemTilesOf(rows);
  if (hem.tiles.empty()) found.why = "No sheet has the tiles in hand any more";
  hem.side = sidesBelow(edging.grid).front();
  hem.rows = std::clamp(box->height(), 1, kMostHemRows);
  hem.grows = box->height() > 1;
  hem.name = freeName(edging, hem.grows ? "face" : "hem");
  // After what hangs there already.
  hem.follows = !edging.hems.empty() && !edging.hems.back().isAround() && edging.hems.back().material == along && edging.hems.back().side == hem.side && !edging.hems.back().inside;
  return found;
}

Edging withoutHem(const Edging& edging, std::size_t hem) {
  Edging without = edging;
  if (hem < without.hems.size()) without.hems.erase(without.hems.begin() + static_cast<std::ptrdiff_t>(hem));
  return settled(std::move(without));
}

Edging withHemAt(const Edging& edging, std::size_t hem, int side, bool inside) {
  Edging next = edging;
  if (hem >= next.hems.size()) return next;
  Hem& own = next.hems[hem];
  // From the border on, rows run the other way round above it, and inside it.
  const bool wasDown = isBelow(edging.grid, own.side) != own.inside;
  const bool isDown = isBelow(edging.grid, side) != inside;
  own.side = side;
  own.inside = inside;
  if (inside && own.role.empty()) own.role = "things";
  if (wasDown != isDown) {
    for (HemTile& one : own.tiles) one.row = one.row == HemRow::top ? HemRow::foot : one.row == HemRow::foot ? HemRow::top : HemRow::middle;
  }
  return settled(std::move(next));
}

std::string hemPlaceInWords(const Edging& edging, const Hem& hem) {
  const std::string material = materialName(edging, hem.material);
  if (hem.isAround()) return "all around " + material;
  const std::string side = placeName(edging.grid, false, hem.side);
  if (hem.inside) return "on " + material + ", from its " + side;
  const bool straight = edging.grid == GridKind::orthogonal || edging.grid == GridKind::hexagonalFlat;
  if (straight && side == "bottom") return "below " + material;
  if (straight && side == "top") return "above " + material;
  return side + " of " + material;
}

}  // namespace uq
