// SafeSvg: a line drawing as it may be drawn, whoever sent it.
//
// An SVG can ask for other files to be read and drawn, name itself a style sheet on the disk, or unpack to more than
// there is memory. What is handed to the picture reader is the drawing itself: compressed ones are unpacked as far as
// kMostSvgBytes; references to anything but a part of the drawing or a picture inside it, style sheets beside it and
// document types go. Cost: one pass over the text.
#pragma once

#include <QByteArray>
#include <string>
#include <string_view>

#include "core/base/Error.h"

namespace uq {

inline constexpr std::size_t kMostSvgBytes = std::size_t{32} << 20;

// Whether the picture readers would take bytes for an SVG, packed or not.
bool mayBeSvg(std::string_view bytes);

// An Error where it is too large or no XML.
Result<QByteArray> safeSvg(std::string_view bytes, const std::string& file);

}  // namespace uq
