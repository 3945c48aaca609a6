#include "core/sheets/TileColours.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cstdlib>

namespace uq {

namespace {

constexpr int kMostSamples = 16;  // pixels of a tile that are looked at, each way

std::array<int, 3> channels(std::uint32_t rgb) {
  return {static_cast<int>(rgb >> 16 & 0xff), static_cast<int>(rgb >> 8 & 0xff), static_cast<int>(rgb & 0xff)};
}

}  // namespace

TileColours coloursOf(const Sheet& sheet, const PixelView& picture) {
  const auto count = static_cast<std::uint32_t>(sheet.tileCount());
  TileColours colours(count, 0);
  for (std::uint32_t cell = 0; cell < count; ++cell) {
    const PixelRect part = sheet.cellRect(cell);
    if (part.right() > picture.w || part.bottom() > picture.h) continue;
    const int stepX = std::max(1, part.w / kMostSamples);
    const int stepY = std::max(1, part.h / kMostSamples);
    std::array<std::uint64_t, 4> sums{};
    for (int y = part.y; y < part.bottom(); y += stepY) {
      for (int x = part.x; x < part.right(); x += stepX) {
        const std::uint32_t pixel = picture.at(x, y);
        for (std::size_t c = 0; c < 4; ++c) sums[c] += pixel >> (8 * c) & 0xff;
      }
    }
    if (sums[3] == 0) continue;
    // Premultiplied sums over the sum of alphas are the colour itself.
    std::uint32_t colour = 0xff000000u;
    for (std::size_t c = 0; c < 3; ++c) {
      colour |= static_cast<std::uint32_t>(std::min<std::uint64_t>(255, sums[c] * 255 / sums[3])) << (8 * c);
    }
    colours[cell] = colour;
  }
  return colours;
}

const std::vector<std::string>& colourWords() {
  static const std::vector<std::string> words = {"red",  "orange", "brown", "yellow", "green", "teal",
                                                 "blue", "violet", "pink",  "white",  "grey",  "black"};
  return words;
}

int colourWord(std::uint32_t rgb) {
  enum { red, orange, brown, yellow, green, teal, blue, violet, pink, white, grey, black };
  const auto [r, g, b] = channels(rgb);
  const int most = std::max({r, g, b});
  const int least = std::min({r, g, b});
  const int chroma = most - least;
  if (most < 48) return black;
  if (chroma * 100 < most * 16 || chroma < 18) return most > 215 ? white : most < 60 ? black : grey;
  int hue = 0;  // degrees
  if (most == r) {
    hue = 60 * (g - b) / chroma;
  } else if (most == g) {
    hue = 120 + 60 * (b - r) / chroma;
  } else {
    hue = 240 + 60 * (r - g) / chroma;
  }
  if (hue < 0) hue += 360;
  if (hue >= 6 && hue < 14 && most < 130) return brown;
  if (hue < 14 || hue >= 345) return most > 190 && least > 110 ? pink : red;
  if (hue < 48) return most < 175 ? brown : orange;
  if (hue < 68) return most < 130 ? brown : yellow;
  if (hue < 155) return green;
  if (hue < 195) return teal;
  if (hue < 255) return blue;
  return hue < 300 ? violet : most > 130 ? pink : violet;
}

std::optional<std::uint32_t> parsedColour(std::string_view text) {
  std::uint32_t rgb = 0;
  const char* end = text.data() + text.size();
  if (text.size() != 7 || text[0] != '#' || std::from_chars(text.data() + 1, end, rgb, 16).ptr != end)
    return std::nullopt;
  return rgb;
}

bool isNearColour(std::uint32_t a, std::uint32_t b) {
  const auto one = channels(a);
  const auto other = channels(b);
  int far = 0;
  for (std::size_t c = 0; c < 3; ++c) far += std::abs(one[c] - other[c]);
  return far <= 72;
}

}  // namespace uq
