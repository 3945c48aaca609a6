#include "raster/Swatch.h"

namespace uq {

namespace {

bool isOpaque(const QImage& picture) {
  const int width = picture.width();
  for (int y = 0; y < picture.height(); ++y) {
    const auto* row = reinterpret_cast<const QRgb*>(picture.constScanLine(y));
    QRgb all = 0xff000000u;
    for (int x = 0; x < width; ++x) all &= row[x];
    if (all != 0xff000000u) return false;
  }
  return true;
}

}  // namespace

QImage Swatch::settled(QImage picture) {
  if (picture.isNull() || !isOpaque(picture)) return picture;
  // Where that fails it is laid as any other.
  (void)picture.reinterpretAsFormat(QImage::Format_RGB32);
  return picture;
}

void Swatch::open() {
  constexpr auto kUsual = QImage::Format_ARGB32_Premultiplied;
  if (picture.isNull() || picture.reinterpretAsFormat(kUsual)) return;
  picture = picture.convertToFormat(kUsual);
}

}  // namespace uq
