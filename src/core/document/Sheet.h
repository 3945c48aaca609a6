// Sheet: one picture cut into tiles.
//
// The core knows a sheet's cut and the names of its tiles, never its pixels. A tile number names a tile for good; the
// sheet says where that tile stands in the picture. Numbers follow the cut, row by row, from 0.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/base/Id.h"
#include "core/base/Json.h"
#include "core/base/Revision.h"
#include "core/grid/Stance.h"

namespace uq {

inline constexpr int kLargestPictureSide = 1 << 15;  // pixels, each way

// How a picture is cut, in picture pixels: a border round the picture, then cells with a gap between them.
struct SheetCut {
  PixelSize cell{32, 32};
  int border = 0;
  int gap = 0;
  friend bool operator==(const SheetCut&, const SheetCut&) = default;
};

// The same thing seen from its sides: the tile that shows it turned by as many steps to the right as its place says,
// first the one that is not turned. 4 places on squares and diamonds, 6 on hexagons; at least two of them hold a tile.
using Facing = std::vector<std::optional<std::uint32_t>>;

// What a sheet says of one tile, by its number.
struct TileFacts {
  std::string name;              // may be empty
  std::optional<Stance> stance;  // else the sheet's
  Json::Object extra;            // fields that this version does not know
  friend bool operator==(const TileFacts&, const TileFacts&) = default;
};

struct Sheet {
  Id id;
  std::string name;
  std::string file;     // slug: sheets/<file>.json
  std::string code;     // capital letters by which .cells files call the sheet
  std::string picture;  // file name of the picture, beside the JSON
  PixelSize pictureSize;
  SheetCut cut;
  Stance stance;                             // of all tiles that say nothing else
  std::map<std::uint32_t, TileFacts> tiles;  // only those of which something is said
  std::vector<Facing> facings;               // no tile stands in two
  Json::Object extra;                        // fields that this version does not know
  Revision revision;

  int columns() const;
  int rows() const;
  // Tile numbers are 0 .. tileCount() - 1.
  int tileCount() const { return columns() * rows(); }

  // Where the tile stands in the picture; nothing for a number outside the cut.
  std::optional<PixelRect> place(std::uint32_t number) const;

  const Stance& stanceOf(std::uint32_t number) const;
  // The facing in which a tile stands; nullptr when in none.
  const Facing* facingOf(std::uint32_t number) const;

  // The tile's own name, else the sheet's name and the number.
  std::string tileName(std::uint32_t number) const;

  friend bool operator==(const Sheet&, const Sheet&) = default;
};

}  // namespace uq
