#include "raster/SheetExport.h"

#include <QPainter>
#include <algorithm>

#include "raster/BlankPicture.h"
#include "raster/Blend.h"
#include "raster/PictureFile.h"

namespace uq {

std::vector<std::uint32_t> exportedTiles(const Sheet& sheet, const QImage& picture, ExportOrder order,
                                         const TileUses& uses, SheetSlot slot) {
  std::vector<std::uint32_t> tiles;
  const auto count = static_cast<std::uint32_t>(sheet.tileCount());
  for (std::uint32_t cell = 0; cell < count; ++cell) {
    if (sheet.offers(sheet.numberAt(cell))) tiles.push_back(sheet.numberAt(cell));
  }
  const auto sortBy = [&tiles](auto&& key) {
    std::stable_sort(tiles.begin(), tiles.end(), [&](std::uint32_t a, std::uint32_t b) { return key(a) < key(b); });
  };
  switch (order) {
    case ExportOrder::asCut: break;
    case ExportOrder::byNumber: std::sort(tiles.begin(), tiles.end()); break;
    case ExportOrder::byName:
      sortBy([&](std::uint32_t n) { return std::pair(sheet.factsOf(n).name.empty(), sheet.factsOf(n).name); });
      break;
    case ExportOrder::byUse:
      sortBy([&](std::uint32_t n) {
        const auto used = uses.find({slot, n});
        return used == uses.end() ? 0 : -used->second;
      });
      break;
    case ExportOrder::byColour: {
      const TileColours colours = picture.isNull() ? TileColours(count, 0) : coloursOf(sheet, viewOf(picture));
      sortBy([&](std::uint32_t n) {
        const std::uint32_t colour = colours[*sheet.cellOf(n)];
        return std::pair(colour == 0 ? 99 : colourWord(colour), colour);
      });
      break;
    }
  }
  return tiles;
}

Result<QImage> exportedSheet(const Sheet& sheet, const QImage& picture, const SheetExportPlan& plan,
                             const std::vector<std::uint32_t>& tiles) {
  const auto refuse = [&](Error::Cause cause, const char* why, const char* todo) {
    return fail(Error{cause, why, sheet.name, 0, "Nothing was written", todo});
  };
  if (picture.isNull())
    return refuse(Error::Cause::missing, "the sheet's picture is missing", "Point to it on the Table first");
  if (tiles.empty()) return refuse(Error::Cause::notFound, "the sheet has no tile to export", "Cut it otherwise");
  PixelSize place{1, 1};
  for (const std::uint32_t tile : tiles) {
    const PixelRect rect = *sheet.place(tile);
    place = {std::max(place.w, rect.w), std::max(place.h, rect.h)};
  }
  const int columns = std::clamp(plan.columns, 1, std::min(kMostExportColumns, static_cast<int>(tiles.size())));
  const int rows = (static_cast<int>(tiles.size()) + columns - 1) / columns;
  const std::int64_t wide = 2 * plan.border + std::int64_t{columns} * (place.w + plan.gap) - plan.gap;
  const std::int64_t high = 2 * plan.border + std::int64_t{rows} * (place.h + plan.gap) - plan.gap;
  if (wide > kLargestPictureSide || high > kLargestPictureSide ||
      wide * high * 4 > std::int64_t{kMostPictureMegabytes} << 20) {
    return refuse(Error::Cause::tooLarge, "the picture would be larger than 32,768 pixels or 512 MB",
                  "Choose other columns or a smaller gap");
  }
  QImage out = blankPicture({static_cast<int>(wide), static_cast<int>(high)});
  QPainter painter(&out);
  painter.setCompositionMode(QPainter::CompositionMode_Source);
  for (std::size_t i = 0; i < tiles.size(); ++i) {
    const PixelRect from = *sheet.place(tiles[i]);
    const int column = static_cast<int>(i) % columns;
    const int row = static_cast<int>(i) / columns;
    painter.drawImage(plan.border + column * (place.w + plan.gap),
                      plan.border + row * (place.h + plan.gap) + place.h - from.h, picture, from.x, from.y, from.w,
                      from.h);
  }
  return out;
}

}  // namespace uq
