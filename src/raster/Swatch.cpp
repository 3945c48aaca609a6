#include "raster/Swatch.h"

namespace uq {

namespace {

bool isOpaque(const QImage& picture) {
  for (int y = 0; y < picture.height(); ++y) {
    const auto* row = reinterpret_cast<const QRgb*>(picture.constScanLine(y));
    QRgb all = 0xff000000u;
    for (int x = 0; x < picture.width(); ++x) all &= row[x];
    if (all != 0xff000000u) return false;
  }
  return true;
}

}  // namespace

void Swatch::settle() {
  if (!picture.isNull() && isOpaque(picture)) picture.reinterpretAsFormat(QImage::Format_RGB32);
}

void Swatch::open() {
  if (!picture.isNull()) picture.reinterpretAsFormat(QImage::Format_ARGB32_Premultiplied);
}

}  // namespace uq
