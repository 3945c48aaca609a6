#include "raster/SheetGuess.h"

#include <algorithm>

namespace uq {

namespace {

// They point into pictures that `pixels` keeps.
std::vector<TileToGuess> toGuess(const Quilt& quilt, const PixelsOf& pixels, const std::vector<TileId>& tiles) {
  std::vector<TileToGuess> found;
  for (const TileId& tile : tiles) {
    const auto slot = quilt.slots().find(tile.sheet);
    const auto seen = slot ? pixels({*slot, tile.tile}) : std::nullopt;
    if (seen) found.push_back({tile, *seen});
  }
  return found;
}

std::vector<TileId> tilesOf(const Edging& edging) {
  std::vector<TileId> tiles;
  for (const EdgingMember& one : edging.members) tiles.push_back(one.tile);
  std::sort(tiles.begin(), tiles.end());
  tiles.erase(std::unique(tiles.begin(), tiles.end()), tiles.end());
  return tiles;
}

}  // namespace

Edging guessedFromTiles(const Quilt& quilt, const SheetPictures& pictures, const std::vector<TileId>& tiles, const GridShape& shape) {
  const PixelsOf pixels = pixelsOf(quilt, pictures);
  return guessedEdging(shape, toGuess(quilt, pixels, tiles));
}

Edging guessedFromSheet(const Quilt& quilt, const SheetPictures& pictures, const Sheet& sheet, const GridShape& shape, std::optional<CellRect> region) {
  const int columns = std::max(1, sheet.columns());
  std::vector<TileId> tiles;
  for (int cell = 0; cell < sheet.tileCount(); ++cell) {
    const std::uint32_t number = sheet.numberAt(static_cast<std::uint32_t>(cell));
    if ((!region || region->contains({cell % columns, cell / columns})) && sheet.offers(number)) tiles.push_back({sheet.id, number});
  }
  return guessedFromTiles(quilt, pictures, tiles, shape);
}

Edging guessedAnew(const Quilt& quilt, const SheetPictures& pictures, const Edging& now, const GridShape& shape) {
  const PixelsOf pixels = pixelsOf(quilt, pictures);
  return guessedAnew(now, shape, toGuess(quilt, pixels, tilesOf(now)));
}

Edging splitMaterial(const Quilt& quilt, const SheetPictures& pictures, const Edging& now, const GridShape& shape, MaterialIndex material) {
  const PixelsOf pixels = pixelsOf(quilt, pictures);
  return splitMaterial(now, shape, toGuess(quilt, pixels, tilesOf(now)), material);
}

}  // namespace uq
