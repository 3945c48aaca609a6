#include "raster/Blend.h"

#include <algorithm>
#include <cstring>

namespace uq {

namespace {

bool isOpaque(const PixelView& view) {
  for (int y = 0; y < view.h; ++y) {
    const QRgb* row = view.row(y);
    if (!std::all_of(row, row + view.w, [](QRgb pixel) { return qAlpha(pixel) == 255; })) return false;
  }
  return true;
}

}  // namespace

PixelView viewOf(const QImage& picture) { return viewOf(picture, picture.rect()); }

PixelView viewOf(const QImage& picture, const QRect& part) {
  Q_ASSERT(picture.format() == QImage::Format_ARGB32_Premultiplied);
  PixelView view;
  view.stride = picture.bytesPerLine() / qsizetype{sizeof(QRgb)};
  view.pixels = reinterpret_cast<const QRgb*>(picture.constBits()) + part.y() * view.stride + part.x();
  view.w = part.width();
  view.h = part.height();
  view.opaque = isOpaque(view);
  return view;
}

void blend(QImage& target, QPoint at, const PixelView& source, unsigned opacity) {
  const int left = std::max(0, -at.x());
  const int top = std::max(0, -at.y());
  const int right = std::min(source.w, target.width() - at.x());
  const int bottom = std::min(source.h, target.height() - at.y());
  if (left >= right || top >= bottom) return;
  const qsizetype stride = target.bytesPerLine() / qsizetype{sizeof(QRgb)};
  QRgb* to = reinterpret_cast<QRgb*>(target.bits()) + (at.y() + top) * stride + at.x();
  for (int y = top; y < bottom; ++y, to += stride) {
    const QRgb* from = source.row(y);
    if (opacity != 255) {
      for (int x = left; x < right; ++x) to[x] = over(scaledBy(from[x], opacity), to[x]);
    } else if (source.opaque) {
      std::memcpy(to + left, from + left, static_cast<std::size_t>(right - left) * sizeof(QRgb));
    } else {
      for (int x = left; x < right; ++x) {
        const unsigned alpha = static_cast<unsigned>(qAlpha(from[x]));
        if (alpha == 255) {
          to[x] = from[x];
        } else if (alpha != 0) {
          to[x] = over(from[x], to[x]);
        }
      }
    }
  }
}

}  // namespace uq
