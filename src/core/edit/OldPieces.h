// OldPieces: what was painted with a sheet before it was cut otherwise, and what becomes of it.
//
// A cut that is put right leaves the tiles that were painted with the old one as retired pieces, so no cell changes by
// itself. Where the new cut has a tile in the place of a piece — most of the piece, and most of the tile — that tile is
// what was meant; where pieces were parts of a tile or held several, nobody can tell. Cost: the retired
// tiles.
#pragma once

#include <map>
#include <vector>

#include "core/document/Quilt.h"
#include "core/sheets/TileUses.h"

namespace uq {

struct OldPieces {
  std::map<std::uint32_t, std::uint32_t> meant;  // by the number of a piece that is painted: the tile that was meant
  std::vector<std::uint32_t> unsure;             // other painted pieces
  std::int64_t meantCells = 0;                   // on all maps
  std::int64_t unsureCells = 0;
};
// `uses` are those of the whole quilt (usesIn).
OldPieces oldPiecesOf(const Quilt& quilt, Id sheet, const TileUses& uses);

// The quilt with the meant tiles in the place of the pieces, on all maps and in stamps, turned and lifted as they were.
Quilt withMeantTiles(const Quilt& quilt, Id sheet, const OldPieces& pieces);

}  // namespace uq
