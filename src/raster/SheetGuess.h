// SheetGuess: what the tiles of a sheet of a quilt join, guessed from its picture (core/sheets/EdgingGuess.h).
//
// Cost: that of guessing. Threads: any, with pictures of its own.
#pragma once

#include <optional>

#include "core/document/Edging.h"
#include "raster/SheetPictures.h"

namespace uq {

// `region`: columns and rows of the cut; nothing: all of it. No members where no tile is there or its picture is missing.
Edging guessedFromSheet(const Quilt& quilt, const SheetPictures& pictures, const Sheet& sheet, const GridShape& shape, std::optional<CellRect> region = std::nullopt);

}  // namespace uq
