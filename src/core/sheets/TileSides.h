// TileSides: what the pictures of tiles show along the sides of their cells, remembered.
//
// Along each side of a cell kSideSamples small patches of pixels just inside are looked at, by their average. Two tiles
// join at a side when what the one shows ends as the other begins: their patches are nearly the same, or both are
// see-through. Sides are counted as the grid counts them. Good for one grid and the sheets of one quilt.
// Cost of a tile that was not seen before: at most 3 × 3 pixels a patch, inside and outside; of any other, a look-up.
#pragma once

#include <array>
#include <functional>
#include <memory>
#include <optional>
#include <unordered_map>
#include <vector>

#include "core/base/PixelView.h"
#include "core/document/Quilt.h"

namespace uq {

inline constexpr int kSideSamples = 8;

// A tile's picture, straight: its sheet's picture and its place in it; nothing for a placeholder.
struct TilePixels {
  PixelView picture;
  PixelRect part;
};
using PixelsOf = std::function<std::optional<TilePixels>(TileRef)>;

// What a tile shows along one side.
struct TileSide {
  std::array<std::uint32_t, kSideSamples> patches{};  // clockwise about the tile, each an averaged pixel
  int solid = 0;                                      // how many of them have an alpha of at least 128
  bool goesOn = false;                                // the tile's own picture reaches beyond the side

  bool isClear() const;
};

// How far apart what two sides that face each other show is: 0 the same; about 56 a patch is still the same to the eye.
int differenceOf(const TileSide& one, const TileSide& facing);
inline constexpr int kMostDifference = 56 * kSideSamples;

class TileSides {
 public:
  TileSides(Quilt quilt, const GridShape& shape, PixelsOf pixels);

  const Quilt& quilt() const { return quilt_; }
  const Grid& grid() const { return *grid_; }

  // How many sides a cell has, and which of them faces one across it.
  int count() const { return static_cast<int>(places_.size()); }
  int facing(int side) const { return (side + count() / 2) % count(); }

  // What lies on a cell shows, turned as it lies; nullptr for placeholders and chalk. An empty cell shows nothing,
  // which is clear. Good until the TileSides goes.
  const TileSide* of(Cell cell, int side);

 private:
  struct Places {
    std::array<std::vector<PixelPos>, kSideSamples> inside;
    std::array<std::vector<PixelPos>, kSideSamples> outside;
  };
  std::vector<TileSide> lookedAt(Cell cell) const;

  Quilt quilt_;
  std::shared_ptr<const Grid> grid_;
  PixelsOf pixels_;
  std::vector<Places> places_;
  std::unordered_map<std::uint32_t, std::vector<TileSide>> known_;  // by the cell's bits; empty: no picture
  std::vector<TileSide> nothing_;
};

}  // namespace uq
