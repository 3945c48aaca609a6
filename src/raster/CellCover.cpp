#include "raster/CellCover.h"

#include "core/grid/Stance.h"
#include "raster/Blend.h"

namespace uq {

namespace {

constexpr int kSampledSide = 64;  // of larger cells so many pixels each way are looked at, to tell whether they cover

}  // namespace

CellCover::Known CellCover::measured(const SheetPictures& pictures, const Quilt& quilt, const GridShape& shape,
                                     const Sheet& sheet, TileRef tile) {
  Known found{sheet.revision};
  const auto picture = pictures.tile(quilt, tile);
  if (!picture) return found;
  const QImage argb = picture->convertToFormat(QImage::Format_ARGB32_Premultiplied);
  const auto grid = makeGrid(shape);
  const PixelRect box = grid->cellBox({0, 0});
  const PixelRect place = standing(*grid, {0, 0}, {argb.width(), argb.height()}, sheet.stanceOf(tile.number));
  const int stepX = std::max(1, box.w / kSampledSide);
  const int stepY = std::max(1, box.h / kSampledSide);
  std::int64_t all = 0;
  std::int64_t solid = 0;
  found.hides = !sheet.framesOf(tile.number);
  for (int y = box.y; y < box.bottom(); ++y) {
    for (int x = box.x; x < box.right(); ++x) {
      if (grid->cellAt({x, y}) != CellPos{0, 0}) continue;
      const QPoint at(x - place.x, y - place.y);
      const int alpha = argb.rect().contains(at) ? qAlpha(argb.pixel(at)) : 0;
      found.hides = found.hides && alpha == 255;
      if ((x - box.x) % stepX != 0 || (y - box.y) % stepY != 0) continue;
      ++all;
      if (alpha >= 128) ++solid;
    }
  }
  found.covers = static_cast<double>(solid) >= kCoveringShare * static_cast<double>(all);
  found.fills = shape.kind == GridKind::orthogonal && box.w == box.h && place == box;
  found.keepsIn = !sheet.framesOf(tile.number);
  for (int y = 0; found.keepsIn && y < argb.height(); ++y) {
    for (int x = 0; found.keepsIn && x < argb.width(); ++x) {
      found.keepsIn = qAlpha(argb.pixel(x, y)) == 0 || grid->cellAt({place.x + x, place.y + y}) == CellPos{0, 0};
    }
  }
  return found;
}

CellCover::Known CellCover::known(const Quilt& quilt, const GridShape& shape, TileRef tile) {
  const Sheet* sheet = tile.slot == kChalkSlot ? nullptr : quilt.sheetAt(tile.slot);
  if (!sheet) return {};
  if (!(shape == shape_)) {
    shape_ = shape;
    known_.clear();
  }
  const auto kept = known_.find(tile);
  if (kept != known_.end() && kept->second.sheet.is(sheet->revision)) return kept->second;
  const Known found = measured(pictures_, quilt, shape, *sheet, tile);
  known_.insert_or_assign(tile, found);
  return found;
}

}  // namespace uq
