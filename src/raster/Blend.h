// Blending premultiplied ARGB32 pixels, source over (W3C Compositing and Blending Level 1), with Qt's rounding, so that
// what is drawn here equals what QPainter would draw. For the many small pictures of a map, which a general painter
// handles at several times the cost.
#pragma once

#include <QImage>
#include <QRect>

#include "core/base/PixelView.h"
#include "core/document/Layer.h"

namespace uq {

// A view of a premultiplied ARGB32 picture, which must outlive it. Looks at every pixel to find whether it is opaque.
PixelView viewOf(const QImage& picture);
PixelView viewOf(const QImage& picture, const QRect& part);

// One channel-wise product with a / 255, rounded as Qt does.
inline QRgb scaledBy(QRgb x, unsigned a) {
  unsigned t = (x & 0xff00ff) * a;
  t = ((t + ((t >> 8) & 0xff00ff) + 0x800080) >> 8) & 0xff00ff;
  x = ((x >> 8) & 0xff00ff) * a;
  x = (x + ((x >> 8) & 0xff00ff) + 0x800080) & 0xff00ff00;
  return x | t;
}

inline QRgb over(QRgb source, QRgb below) { return source + scaledBy(below, 255 - qAlpha(source)); }

// Multiplies every pixel with a colour, 0xRRGGBB.
void tintBy(QImage& picture, QRgb colour);

// Lays a whole picture of the same size over another, with an opacity of 0 .. 1, to the nearest 1/255.
void layOver(QImage& below, const QImage& above, double opacity, Blend blend);

// Draws `source` with its upper left at `at`, clipped to the target; opacity 0 .. 255.
void blend(QImage& target, QPoint at, const PixelView& source, unsigned opacity = 255);

}  // namespace uq
