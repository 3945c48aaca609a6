#include "raster/BackdropArt.h"

#include <algorithm>
#include <vector>

#include "core/edit/HangingPlace.h"
#include "core/edit/MapFacts.h"
#include "raster/Blend.h"

namespace uq {

namespace {

constexpr int kSmallestCopy = 4;  // device pixels, each way: smaller copies are drawn as their average

// The first and the number of the copies of length `size` that meet from .. to; only number 0 where it does not repeat.
std::pair<int, int> copiesIn(int from, int to, int size, bool repeats) {
  if (to <= from) return {0, 0};
  if (!repeats) return from < size && to > 0 ? std::pair(0, 1) : std::pair(0, 0);
  const int first = floorDiv(from, size);
  return {first, ceilDiv(to, size) - first};
}

QRgb averageOf(const QImage& picture) {
  const QImage one = picture.scaled(1, 1, Qt::IgnoreAspectRatio, Qt::SmoothTransformation)
                         .convertToFormat(QImage::Format_ARGB32_Premultiplied);
  return reinterpret_cast<const QRgb*>(one.constScanLine(0))[0];
}

}  // namespace

std::optional<PixelRect> hungAt(const Quilt& quilt, const Map& map, const Backdrop& backdrop) {
  const auto size = hungSize(quilt, map, backdrop);
  return size ? std::optional(PixelRect{0, 0, size->w, size->h}) : std::nullopt;
}

PixelRect hungOver(const Quilt& quilt, const Map& map, const Backdrop& backdrop, const PixelRect& within) {
  const auto place = hungAt(quilt, map, backdrop);
  if (!place) return {};
  PixelRect all = *place;
  if (backdrop.repeatsAcross) {
    all.x = within.x;
    all.w = within.w;
  }
  if (backdrop.repeatsDown) {
    all.y = within.y;
    all.h = within.h;
  }
  return all.intersected(within);
}

const QImage& BackdropArt::scaled(const QImage& picture, QSize size) {
  const auto known = std::find_if(kept_.begin(), kept_.end(), [&](const Scaled& one) {
    return one.of == picture.cacheKey() && one.picture.size() == size;
  });
  if (known != kept_.end()) {
    kept_.splice(kept_.begin(), kept_, known);
    return kept_.front().picture;
  }
  kept_.push_front({picture.cacheKey(), picture.scaled(size, Qt::IgnoreAspectRatio, Qt::SmoothTransformation)
                                            .convertToFormat(QImage::Format_ARGB32_Premultiplied)});
  std::size_t bytes = 0;
  for (auto one = kept_.begin(); one != kept_.end(); ++one) {
    bytes += static_cast<std::size_t>(one->picture.sizeInBytes());
    if (bytes > kMostKept && one != kept_.begin()) {
      kept_.erase(one, kept_.end());
      break;
    }
  }
  return kept_.front().picture;
}

bool BackdropArt::draw(QImage& target, const Quilt& quilt, const Map& map, const Backdrop& backdrop,
                       const SheetPictures& pictures, ViewScale scale, const QRect& device) {
  const auto place = hungAt(quilt, map, backdrop);
  const Sheet* sheet = quilt.sheet(backdrop.sheet);
  if (!place) return false;
  const QImage loaded = pictures.picture(*sheet);
  if (loaded.isNull()) return false;
  const QImage picture = loaded.format() == QImage::Format_ARGB32_Premultiplied
                             ? loaded
                             : loaded.convertToFormat(QImage::Format_ARGB32_Premultiplied);
  const PixelRect pixels = scale.covering(device);
  const auto [firstX, countX] = copiesIn(pixels.x, pixels.right(), place->w, backdrop.repeatsAcross);
  const auto [firstY, countY] = copiesIn(pixels.y, pixels.bottom(), place->h, backdrop.repeatsDown);
  if (countX == 0 || countY == 0) return false;
  if (place->w * scale.zoom < kSmallestCopy || place->h * scale.zoom < kSmallestCopy) {
    const PixelRect all{firstX * place->w, firstY * place->h, countX * place->w, countY * place->h};
    const QRect area = scale.toDevice(all).intersected(device).translated(-device.topLeft());
    const QRgb average = averageOf(picture);
    for (int y = area.top(); y <= area.bottom(); ++y) {
      QRgb* row = reinterpret_cast<QRgb*>(target.scanLine(y));
      std::fill(row + area.left(), row + area.right() + 1, average);
    }
    return true;
  }
  std::vector<int> columns;
  for (int j = firstY; j < firstY + countY; ++j) {
    for (int i = firstX; i < firstX + countX; ++i) {
      const QRect copy = scale.toDevice({i * place->w, j * place->h, place->w, place->h});
      const QRect shown = copy.intersected(device);
      if (shown.isEmpty()) continue;
      const bool smaller = copy.width() < picture.width() || copy.height() < picture.height();
      const QImage& from = smaller ? scaled(picture, copy.size()) : picture;
      columns.resize(static_cast<std::size_t>(shown.width()));
      for (int x = 0; x < shown.width(); ++x) {
        const std::int64_t off = 2 * std::int64_t{shown.x() + x - copy.x()} + 1;
        columns[static_cast<std::size_t>(x)] = static_cast<int>(off * from.width() / (2 * std::int64_t{copy.width()}));
      }
      for (int y = shown.top(); y <= shown.bottom(); ++y) {
        const std::int64_t off = 2 * std::int64_t{y - copy.y()} + 1;
        const auto line = static_cast<int>(off * from.height() / (2 * std::int64_t{copy.height()}));
        const QRgb* source = reinterpret_cast<const QRgb*>(from.constScanLine(line));
        QRgb* to = reinterpret_cast<QRgb*>(target.scanLine(y - device.y())) + (shown.x() - device.x());
        for (const int x : columns) *to++ = source[x];
      }
    }
  }
  return true;
}

}  // namespace uq
