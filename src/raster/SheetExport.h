// SheetExport: the tiles of a sheet as one picture, with the columns, gap and order that somebody wants.
//
// Every tile that is offered takes one place; places are as large as the largest tile, which stands bottom left in its
// own. Animated tiles show their first frame.
#pragma once

#include <QImage>

#include "core/sheets/TileColours.h"
#include "core/sheets/TileUses.h"
#include "raster/SheetPictures.h"

namespace uq {

enum class ExportOrder { asCut, byNumber, byName, byUse, byColour };

struct SheetExportPlan {
  int columns = 8;  // 1 .. kMostExportColumns
  int gap = 0;      // pixels between tiles, 0 .. kLargestBorder
  int border = 0;   // pixels around them all
  ExportOrder order = ExportOrder::asCut;
  friend bool operator==(const SheetExportPlan&, const SheetExportPlan&) = default;
};
inline constexpr int kMostExportColumns = 4096;

// The tiles in the order in which they are laid.
std::vector<std::uint32_t> exportedTiles(const Sheet& sheet, const QImage& picture, ExportOrder order,
                                         const TileUses& uses, SheetSlot slot);

// An Error where there is no tile, no picture, or the result would be larger than a picture may be.
Result<QImage> exportedSheet(const Sheet& sheet, const QImage& picture, const SheetExportPlan& plan,
                             const std::vector<std::uint32_t>& tiles);

}  // namespace uq
