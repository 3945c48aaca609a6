// CutPicture: a small picture of a picture with a cut laid over it in stitches, for choosing among cuts by eye.
#pragma once

#include <QImage>
#include <QPixmap>

#include "core/document/Sheet.h"

namespace uq {

// `size` in logical pixels. Where the cut's tiles would be smaller than some pixels, a few of them are shown, enlarged.
QPixmap cutPicture(const QImage& picture, const SheetCut& cut, QSize size, double ratio);

}  // namespace uq
