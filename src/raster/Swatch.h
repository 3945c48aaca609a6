// Swatch: one drawn piece of a run, of kSwatchSide × kSwatchSide device pixels, as the book keeps it.
//
// A picture that nothing shines through says so by its format (RGB32): it is copied several times as fast, and what lies
// behind it need not be laid at all. Threads: those of the book.
#pragma once

#include <QImage>
#include <QRect>
#include <cstdint>
#include <utility>

namespace uq {

struct Swatch {
  QImage picture;  // null where nothing is painted
  QRect dirty;     // absolute device pixels that miss an edit
  std::uint64_t used = 0;

  std::size_t bytes() const { return sizeof(Swatch) + static_cast<std::size_t>(picture.sizeInBytes()); }

  // To be called before something is drawn on the picture, and when it was drawn.
  void open();
  void settle() { picture = settled(std::move(picture)); }
  // A picture as a swatch keeps it; costs a look at its pixels, so that workers do it for theirs.
  static QImage settled(QImage picture);
  // Whether nothing that lies behind it is seen.
  bool hides() const { return picture.format() == QImage::Format_RGB32 && dirty.isEmpty(); }
};

}  // namespace uq
