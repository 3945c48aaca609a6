// A picture to draw on: premultiplied, with nothing on it.
//
// Cleared by hand, since QImage::fill leaves the processor's wide registers in use, and on x86 all plain vector code
// that follows then waits for them: averaging colours took twice as long (measured with Frame/colours_swatch).
#pragma once

#include <QImage>
#include <cstring>

namespace uq {

// Null where the size is empty or there is no memory for it.
inline QImage blankPicture(QSize size) {
  QImage picture(size, QImage::Format_ARGB32_Premultiplied);
  if (!picture.isNull()) std::memset(picture.bits(), 0, static_cast<std::size_t>(picture.sizeInBytes()));
  return picture;
}

}  // namespace uq
