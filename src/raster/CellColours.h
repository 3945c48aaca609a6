// CellColours: tiles as averaged colours, for maps shown so small that a cell is less than kColoursBelow pixels.
//
// A tile of the cell's size is one colour; any other is one for each cell that its picture covers. Kept until clear().
// Cost: every pixel of a tile once, then a look-up.
#pragma once

#include <span>
#include <unordered_map>
#include <vector>

#include "core/grid/Grid.h"
#include "raster/TileArt.h"

namespace uq {

inline constexpr double kColoursBelow = 4;  // device pixels a cell, the shorter way

class CellColours {
 public:
  // One covered cell, as an offset from the tile's own cell, and its premultiplied colour.
  struct Patch {
    CellPos at;
    QRgb colour = 0;
  };

  void clear();

  // The colour of a tile that covers just its cell; else kPatched.
  static constexpr QRgb kPatched = 0x00fffffe;  // no premultiplied colour
  QRgb of(Cell cell, TileArt& art, const Grid& grid) {
    const TileRef tile = cell.tile();
    if (tile.slot < flat_.size() && tile.number < flat_[tile.slot].size()) {
      if (const QRgb colour = flat_[tile.slot][tile.number]; colour != kUnknown) return colour;
    }
    return found(cell, art, grid);
  }

  // The colours of a slot's tiles that are known by now, by number; kUnknown where one is not. Until another is found.
  std::span<const QRgb> known(std::uint32_t slot) const {
    return slot < flat_.size() ? std::span<const QRgb>(flat_[slot]) : std::span<const QRgb>();
  }
  static constexpr QRgb kUnknown = 0x00ffffff;  // no premultiplied colour either

  // What a tile covers that is not of the cell's size.
  const std::vector<Patch>& patches(Cell cell, TileArt& art, const Grid& grid);

 private:
  QRgb found(Cell cell, TileArt& art, const Grid& grid);

  std::vector<std::vector<QRgb>> flat_;  // by slot and number
  std::unordered_map<std::uint32_t, std::vector<Patch>> patches_;
};

}  // namespace uq
