// TileColours: the average colour of every tile of a sheet, and colours as people call them.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/PixelView.h"
#include "core/document/Sheet.h"

namespace uq {

// By cell, 0xAARRGGBB of what is not see-through; 0 where nothing is. Cost: of large tiles a sample of their pixels.
using TileColours = std::vector<std::uint32_t>;
TileColours coloursOf(const Sheet& sheet, const PixelView& picture);

// The plain words for colours: red, orange, brown, yellow, green, teal, blue, violet, pink, white, grey, black.
const std::vector<std::string>& colourWords();
// The word for a colour, as an index into colourWords().
int colourWord(std::uint32_t rgb);

// "#a0563f"; nothing for anything else.
std::optional<std::uint32_t> parsedColour(std::string_view text);
// Whether two colours are near enough to be called the same when one looks for tiles.
bool isNearColour(std::uint32_t a, std::uint32_t b);

}  // namespace uq
