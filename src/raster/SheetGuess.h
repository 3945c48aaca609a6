// SheetGuess: what tiles of a quilt join, guessed from their pictures (core/sheets/EdgingGuess.h).
//
// Cost: that of guessing. Threads: any, with pictures of its own.
#pragma once

#include <optional>

#include "core/sheets/EdgingGuess.h"
#include "raster/SheetPictures.h"

namespace uq {

// `region`: columns and rows of the cut; nothing: all of it. No members where no tile is there or its picture is missing.
Edging guessedFromSheet(const Quilt& quilt, const SheetPictures& pictures, const Sheet& sheet, const GridShape& shape, std::optional<CellRect> region = std::nullopt);
Edging guessedFromTiles(const Quilt& quilt, const SheetPictures& pictures, const std::vector<TileId>& tiles, const GridShape& shape);

// guessedAnew and splitMaterial with the pictures of the edging's own tiles.
Edging guessedAnew(const Quilt& quilt, const SheetPictures& pictures, const Edging& now, const GridShape& shape);
Edging splitMaterial(const Quilt& quilt, const SheetPictures& pictures, const Edging& now, const GridShape& shape, MaterialIndex material);

}  // namespace uq
