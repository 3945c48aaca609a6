// SamplePicture: what comes out of a target, drawn for a card: the beginning of a text, or a picture.
#pragma once

#include <QPixmap>

#include "raster/TargetExport.h"

namespace uq {

class Session;

struct SamplePicture {
  QPixmap pixmap;
  QString file;   // or what is wrong
};
// Of the map that is worked on, where it goes out. `size` in logical pixels. Cost: the map, or as much of it as a sample takes.
SamplePicture samplePicture(Session& session, const Target& target, QSize size, double ratio);

}  // namespace uq
