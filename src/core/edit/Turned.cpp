#include "core/edit/Turned.h"

#include <algorithm>

namespace uq {

Cell turnedCell(const Quilt& quilt, const Grid& grid, Cell cell, Turn turn) {
  const int order = grid.turnOrder();
  const Turn wanted = combined(cell.turn(), turn, order);
  const Sheet* sheet = quilt.sheetAt(cell.tile().slot);
  const Facing* facing = sheet ? sheet->facingOf(cell.tile().number) : nullptr;
  if (!facing || static_cast<int>(facing->size()) != order) return Cell(cell.tile(), wanted);
  const auto place = std::find(facing->begin(), facing->end(), std::optional(cell.tile().number));
  const int at = static_cast<int>(place - facing->begin());
  // Mirrored, a thing's sides come the other way round.
  const int way = wanted.mirror ? -1 : 1;
  const int side = (at + way * wanted.steps + order) % order;
  for (int steps = 0; steps < order; ++steps) {
    const auto& partner = (*facing)[static_cast<std::size_t>((side - way * steps + order) % order)];
    if (partner) return Cell({cell.tile().slot, *partner}, Turn{wanted.mirror, static_cast<std::uint8_t>(steps)});
  }
  return Cell(cell.tile(), wanted);
}

InHand turnedFor(const InHand& hand, const Grid& grid) {
  const int order = grid.turnOrder();
  const int own = makeGrid(nearestShape(hand.grid, {32, 32}))->turnOrder();
  if (own == order) return hand;
  return hand.changed([&](const Block& block) {
    std::vector<Block::Part> parts = block.parts();
    for (Block::Part& part : parts) {
      Turn turn = part.cell.turn();
      // Half a turn is one everywhere; of others only the mirror is left.
      turn.steps = static_cast<std::uint8_t>(turn.steps == own / 2 ? order / 2 : 0);
      part.cell = Cell(part.cell.tile(), turn);
    }
    return Block(std::move(parts));
  });
}

Block turnedBlock(const Quilt& quilt, const Grid& grid, const Block& block, Turning turning) {
  const Turn turn = turnOf(turning, grid.turnOrder());
  std::vector<Block::Part> parts;
  parts.reserve(block.parts().size());
  for (const Block::Part& part : block.parts()) {
    parts.push_back({grid.turned(part.at, turn), turnedCell(quilt, grid, part.cell, turn), part.lift});
  }
  return Block(std::move(parts));
}

int withoutOtherSide(const Grid& grid, const Block& block) {
  return static_cast<int>(std::count_if(block.parts().begin(), block.parts().end(), [&](const Block::Part& part) {
    return grid.pictureTurn(part.cell.turn()) != part.cell.turn();
  }));
}

std::string whyNoTurning(const Quilt& quilt, const Block& block, Turning turning) {
  for (const Block::Part& part : block.parts()) {
    const TileRef tile = part.cell.tile();
    const Sheet* sheet = quilt.sheetAt(tile.slot);
    if (!sheet || sheet->facingOf(tile.number)) continue;
    const TurnsAllowed& may = sheet->turns;
    if (turning == Turning::mirrorAcross && !may.mirrorAcross) return sheet->name + " may not be mirrored across";
    if (turning == Turning::mirrorDown && !may.mirrorDown) return sheet->name + " may not be mirrored down";
    const bool turns = turning == Turning::left || turning == Turning::right;
    if (turns && !may.turn) return sheet->name + " may not be turned";
  }
  return {};
}

}  // namespace uq
