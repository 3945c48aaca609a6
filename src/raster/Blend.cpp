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

void tintBy(QImage& picture, QRgb colour) {
  const auto times = [](unsigned channel, unsigned by) {
    const unsigned t = channel * by;
    return (t + (t >> 8) + 0x80) >> 8;
  };
  for (int y = 0; y < picture.height(); ++y) {
    QRgb* row = reinterpret_cast<QRgb*>(picture.scanLine(y));
    for (int x = 0; x < picture.width(); ++x) {
      const QRgb p = row[x];
      row[x] = (p & 0xff000000u) | times(p >> 16 & 255, colour >> 16 & 255) << 16 |
               times(p >> 8 & 255, colour >> 8 & 255) << 8 | times(p & 255, colour & 255);
    }
  }
}

namespace {

// Premultiplied channels, 0 .. 1, of what is laid and what is below, and the alpha of both.
template <class Mix>
void layEach(QImage& below, const QImage& above, float opacity, Mix&& mix) {
  for (int y = 0; y < below.height(); ++y) {
    QRgb* to = reinterpret_cast<QRgb*>(below.scanLine(y));
    const QRgb* from = reinterpret_cast<const QRgb*>(above.constScanLine(y));
    for (int x = 0; x < below.width(); ++x) {
      if (from[x] == 0) continue;
      const float as = static_cast<float>(from[x] >> 24) / 255 * opacity;
      const float ab = static_cast<float>(to[x] >> 24) / 255;
      QRgb result = 0;
      for (int shift = 0; shift < 32; shift += 8) {
        const float s = static_cast<float>(from[x] >> shift & 255) / 255 * opacity;
        const float b = static_cast<float>(to[x] >> shift & 255) / 255;
        const float laid = std::clamp(mix(s, b, as, ab), 0.0f, 1.0f);
        result |= static_cast<QRgb>(laid * 255 + 0.5f) << shift;
      }
      to[x] = result;
    }
  }
}

}  // namespace

// The formulas of W3C Compositing and Blending Level 1, for premultiplied colours; alpha is a channel like the others.
void layOver(QImage& below, const QImage& above, double opacity, Blend blend) {
  const auto share = static_cast<float>(opacity);
  switch (blend) {
    case Blend::normal:
      return layEach(below, above, share, [](float s, float b, float as, float) { return s + b * (1 - as); });
    case Blend::multiply:
      return layEach(below, above, share,
                     [](float s, float b, float as, float ab) { return s * b + s * (1 - ab) + b * (1 - as); });
    case Blend::screen:
      return layEach(below, above, share, [](float s, float b, float, float) { return s + b - s * b; });
    case Blend::add: return layEach(below, above, share, [](float s, float b, float, float) { return s + b; });
  }
}

}  // namespace uq
