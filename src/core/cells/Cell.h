// Cell and TileRef: what lies on one cell of one layer.
//
// A TileRef names a tile: the sheet (by its slot, a small number that stands for the sheet's id while the quilt is
// open) and the tile's number in that sheet. A tile number is a name, never a position in the picture. A Cell is empty
// or holds one tile and its turn, in 32 bits: slot 10, number 18, turn code 4. Value 0 is the empty cell; slot 0 is
// never a sheet. Slots never reach a file.
#pragma once

#include <cassert>
#include <compare>
#include <cstdint>

#include "core/grid/Turn.h"

namespace uq {

using SheetSlot = std::uint32_t;

inline constexpr SheetSlot kLastSlot = (1u << 10) - 1;
inline constexpr std::uint32_t kLastTileNumber = (1u << 18) - 1;

struct TileRef {
  SheetSlot slot = 0;        // 1 .. kLastSlot
  std::uint32_t number = 0;  // 0 .. kLastTileNumber
  friend constexpr auto operator<=>(const TileRef&, const TileRef&) = default;
};

class Cell {
 public:
  constexpr Cell() = default;
  constexpr Cell(TileRef tile, Turn turn) : bits_(tile.slot << 22 | tile.number << 4 | turn.code()) {
    assert(tile.slot >= 1 && tile.slot <= kLastSlot && tile.number <= kLastTileNumber);
  }

  constexpr bool empty() const { return bits_ == 0; }
  // The tile and its turn; meaningless for an empty cell.
  constexpr TileRef tile() const { return {bits_ >> 22, bits_ >> 4 & kLastTileNumber}; }
  constexpr Turn turn() const { return Turn::fromCode(bits_ & 15); }

  constexpr std::uint32_t bits() const { return bits_; }
  friend constexpr auto operator<=>(Cell, Cell) = default;

 private:
  std::uint32_t bits_ = 0;
};

}  // namespace uq
