#include "raster/SheetGuess.h"

#include <algorithm>

#include "core/sheets/EdgingGuess.h"

namespace uq {

Edging guessedFromSheet(const Quilt& quilt, const SheetPictures& pictures, const Sheet& sheet, const GridShape& shape, std::optional<CellRect> region) {
  const auto slot = quilt.slots().find(sheet.id);
  const PixelsOf pixels = pixelsOf(quilt, pictures);
  const int columns = std::max(1, sheet.columns());
  std::vector<TileToGuess> tiles;
  for (int cell = 0; slot && cell < sheet.tileCount(); ++cell) {
    const std::uint32_t number = sheet.numberAt(static_cast<std::uint32_t>(cell));
    if ((region && !region->contains({cell % columns, cell / columns})) || !sheet.offers(number)) continue;
    if (const auto seen = pixels({*slot, number})) tiles.push_back({{sheet.id, number}, *seen});
  }
  return guessedEdging(shape, tiles);
}

}  // namespace uq
