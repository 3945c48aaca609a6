#include "raster/CellCover.h"

#include "core/grid/Stance.h"
#include "raster/Blend.h"

namespace uq {

namespace {

constexpr int kSampledSide = 64;  // of larger cells so many pixels each way are looked at

bool measured(const SheetPictures& pictures, const Quilt& quilt, const GridShape& shape, const Sheet& sheet,
              TileRef tile) {
  const auto picture = pictures.tile(quilt, tile);
  if (!picture) return true;
  const QImage argb = picture->convertToFormat(QImage::Format_ARGB32_Premultiplied);
  const auto grid = makeGrid(shape);
  const PixelRect box = grid->cellBox({0, 0});
  const PixelRect place = standing(*grid, {0, 0}, {argb.width(), argb.height()}, sheet.stanceOf(tile.number));
  const int stepX = std::max(1, box.w / kSampledSide);
  const int stepY = std::max(1, box.h / kSampledSide);
  std::int64_t all = 0;
  std::int64_t solid = 0;
  for (int y = box.y; y < box.bottom(); y += stepY) {
    for (int x = box.x; x < box.right(); x += stepX) {
      if (grid->cellAt({x, y}) != CellPos{0, 0}) continue;
      ++all;
      const QPoint at(x - place.x, y - place.y);
      if (argb.rect().contains(at) && qAlpha(argb.pixel(at)) >= 128) ++solid;
    }
  }
  return static_cast<double>(solid) >= kCoveringShare * static_cast<double>(all);
}

}  // namespace

bool CellCover::covers(const Quilt& quilt, const GridShape& shape, TileRef tile) {
  const Sheet* sheet = tile.slot == kChalkSlot ? nullptr : quilt.sheetAt(tile.slot);
  if (!sheet) return true;
  if (!(shape == shape_)) {
    shape_ = shape;
    known_.clear();
  }
  const auto known = known_.find(tile);
  if (known != known_.end() && known->second.sheet.is(sheet->revision)) return known->second.covers;
  const bool covers = measured(pictures_, quilt, shape, *sheet, tile);
  known_.insert_or_assign(tile, Known{sheet->revision, covers});
  return covers;
}

}  // namespace uq
