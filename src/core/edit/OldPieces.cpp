#include "core/edit/OldPieces.h"

#include <algorithm>

#include "core/edit/SwapTiles.h"

namespace uq {

namespace {

std::int64_t areaOf(PixelRect rect) { return std::int64_t{std::max(0, rect.w)} * std::max(0, rect.h); }

PixelRect common(PixelRect a, PixelRect b) {
  const int x0 = std::max(a.x, b.x);
  const int y0 = std::max(a.y, b.y);
  return {x0, y0, std::min(a.x + a.w, b.x + b.w) - x0, std::min(a.y + a.h, b.y + b.h) - y0};
}

// The cell of the cut that is as good as the piece: each covers most of the other.
std::optional<std::uint32_t> cellLike(const Sheet& sheet, PixelRect piece) {
  const auto at = sheet.cellAt({piece.x + piece.w / 2, piece.y + piece.h / 2});
  if (!at) return std::nullopt;
  const PixelRect cell = sheet.cellRect(*at);
  const std::int64_t both = areaOf(common(cell, piece));
  return both * 2 > areaOf(piece) && both * 2 > areaOf(cell) ? at : std::nullopt;
}

}  // namespace

OldPieces oldPiecesOf(const Quilt& quilt, Id id, const TileUses& all) {
  OldPieces pieces;
  const Sheet* sheet = quilt.sheet(id);
  const auto slot = quilt.slots().find(id);
  if (!sheet || !slot || sheet->isCollection() || sheet->places->retired.empty()) return pieces;
  TileUses uses;
  for (const auto& [number, rect] : sheet->places->retired) {
    const auto used = all.find({*slot, number});
    if (used != all.end()) uses.insert(*used);
  }
  // Two pieces that would become one tile were parts of it.
  std::map<std::uint32_t, int> wanted;
  for (const auto& [piece, count] : uses) {
    if (const auto cell = cellLike(*sheet, sheet->places->retired.at(piece.number))) ++wanted[*cell];
  }
  for (const auto& [piece, count] : uses) {
    const auto cell = cellLike(*sheet, sheet->places->retired.at(piece.number));
    if (cell && wanted[*cell] == 1 && sheet->offers(sheet->numberAt(*cell))) {
      pieces.meant[piece.number] = sheet->numberAt(*cell);
      pieces.meantCells += count;
    } else {
      pieces.unsure.push_back(piece.number);
      pieces.unsureCells += count;
    }
  }
  return pieces;
}

Quilt withMeantTiles(const Quilt& quilt, Id id, const OldPieces& pieces) {
  const auto slot = quilt.slots().find(id);
  if (!slot) return quilt;
  Quilt after = quilt;
  for (const auto& [piece, tile] : pieces.meant) {
    after = swapTiles(after, {{*slot, piece}, {*slot, tile}, SwapIn::allMaps, {}, {}}).quilt;
  }
  const auto meant = [&](const Block& block) {
    std::vector<Block::Part> parts = block.parts();
    for (Block::Part& part : parts) {
      const auto found = pieces.meant.find(part.cell.tile().number);
      if (part.cell.tile().slot == *slot && found != pieces.meant.end()) {
        part.cell = Cell({*slot, found->second}, part.cell.turn());
      }
    }
    return parts == block.parts() ? block : Block(std::move(parts));
  };
  for (const auto& stamp : quilt.stamps()) {
    Stamp changed = stamp.read();
    changed.held = changed.held.changed(meant);
    if (!(changed.held == stamp->held)) after = after.with(std::move(changed));
  }
  return after;
}

}  // namespace uq
