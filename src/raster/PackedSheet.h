// PackedSheet: the tiles of a sheet that lie on maps, and no others, side by side in one picture, with a list of where each stands.
//
// Every place is as large as the largest tile, in rows; a tile stands at the lower left of its own. The rim of each tile is drawn
// on outwards by some pixels, so that a game that draws tiles between pixels never shows the neighbour. Frames of tiles that move
// are used, too. Cost: the pixels. Threads: any.
#pragma once

#include <QImage>
#include <set>

#include "core/document/Target.h"
#include "core/sheets/TileUses.h"
#include "raster/SheetPictures.h"

namespace uq {

struct PackedSheet {
  QImage picture;  // null where none of its tiles is used
  struct Place {
    std::uint32_t tile = 0;
    PixelRect at;  // without the rim
  };
  std::vector<Place> places;  // in their order
};

// The numbers of a sheet's tiles that are laid, with their frames, twins as what they show.
std::set<std::uint32_t> usedTiles(const Sheet& sheet, const TileUses& uses, SheetSlot slot);

// Those in the order that a target says.
std::vector<std::uint32_t> inOrder(const Sheet& sheet, const std::set<std::uint32_t>& tiles, const TileUses& uses, SheetSlot slot, const Target& how);

// `how`: columns, bleed, powersOfTwo. An Error where the picture is missing or would be too large.
Result<PackedSheet> packedSheet(const Sheet& sheet, const QImage& picture, const std::vector<std::uint32_t>& tiles, const Target& how);

// The places as an object of JSON: docs/exchange.md. `number`: of the sheet in the exchange.
Json packedPlaces(const Sheet& sheet, std::uint32_t number, const PackedSheet& packed, const std::string& picture, int bleed);

}  // namespace uq
