// Picture files: reading pixels that nobody vouches for, and writing PNG.
//
// Reading looks at the header first and refuses what is larger than kLargestPictureSide (Sheet.h) or
// kMostPictureMegabytes before any pixel is decoded. Pixels are premultiplied ARGB, 32 bits.
#pragma once

#include <QImage>
#include <string>
#include <string_view>

#include "core/base/Error.h"
#include "core/document/Sheet.h"
#include "core/store/Disk.h"

namespace uq {

inline constexpr int kMostPictureMegabytes = 512;  // of decoded pixels

// `file` is named in the Error. A drawing of lines (SVG) is made `enlarge` times its own size.
Result<QImage> decodePicture(std::string_view bytes, const std::string& file, int enlarge = 1);
// Whether the bytes are those of a drawing of lines, which has no pixels of its own.
bool isLineDrawing(std::string_view bytes);

// The picture as the bytes of a PNG file.
std::string pngOf(QImage picture);

// Writes a PNG, whole or not at all.
Result<void> writePng(Disk& disk, QImage picture, const std::string& path);

}  // namespace uq
