// BackdropArt: draws the picture of a backdrop layer, once or repeated, at any zoom.
//
// The copies lie edge to edge from map pixel 0, 0 of the layer's plane. Enlarged, each device pixel shows the pixel
// under its middle; made smaller, copies are area averages. Any part of a drawing has the same pixels as that part of
// the whole. Keeps scaled pictures between calls, kMostKept bytes of them; not for several threads at once.
// Cost: the device pixels drawn.
#pragma once

#include <QImage>
#include <QRect>
#include <list>
#include <optional>

#include "core/document/Quilt.h"
#include "raster/SheetPictures.h"
#include "raster/ViewScale.h"

namespace uq {

// Where the first copy of a backdrop lies on the layer's plane, in map pixels; nothing where no picture hangs or its
// sheet is missing.
std::optional<PixelRect> hungAt(const Quilt& quilt, const Map& map, const Backdrop& backdrop);

// What all copies cover of `within`, in map pixels of the layer's plane.
PixelRect hungOver(const Quilt& quilt, const Map& map, const Backdrop& backdrop, const PixelRect& within);

class BackdropArt {
 public:
  // Draws what lies in `device` (absolute device pixels of the layer's plane) onto a clear picture of that size. False
  // where nothing does.
  bool draw(QImage& target, const Quilt& quilt, const Map& map, const Backdrop& backdrop, const SheetPictures& pictures,
            ViewScale scale, const QRect& device);

 private:
  static constexpr std::size_t kMostKept = std::size_t{64} << 20;

  struct Scaled {
    qint64 of;  // the picture's key
    QImage picture;
  };
  const QImage& scaled(const QImage& picture, QSize size);

  std::list<Scaled> kept_;  // the newest first
};

}  // namespace uq
