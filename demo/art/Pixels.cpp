#include "art/Pixels.h"

namespace uq::art {

bool dither(int x, int y, int level) {
  static constexpr int matrix[4][4] = {{0, 8, 2, 10}, {12, 4, 14, 6}, {3, 11, 1, 9}, {15, 7, 13, 5}};
  return matrix[y & 3][x & 3] < level;
}

Pixels::Pixels(int w, int h) : image_(w, h, QImage::Format_ARGB32) { image_.fill(0u); }

void Pixels::dot(int x, int y, Ink ink) {
  if (image_.rect().contains(x, y)) image_.setPixel(x, y, static_cast<unsigned>(ink));
}

Ink Pixels::at(int x, int y) const {
  return image_.rect().contains(x, y) ? static_cast<Ink>(image_.pixel(x, y)) : Ink::none;
}

void Pixels::box(int x, int y, int w, int h, Ink ink) { dithered(x, y, w, h, ink, 16); }

void Pixels::dithered(int x, int y, int w, int h, Ink ink, int level) {
  for (int py = y; py < y + h; ++py) {
    for (int px = x; px < x + w; ++px) {
      if (dither(px, py, level)) dot(px, py, ink);
    }
  }
}

void Pixels::frame(int x, int y, int w, int h, Ink ink) {
  across(x, y, w, ink);
  across(x, y + h - 1, w, ink);
  down(x, y, h, ink);
  down(x + w - 1, y, h, ink);
}

void Pixels::disc(int cx, int cy, int radius, Ink ink) {
  for (int y = -radius; y <= radius; ++y) {
    for (int x = -radius; x <= radius; ++x) {
      if (x * x + y * y <= radius * radius + radius / 2) dot(cx + x, cy + y, ink);
    }
  }
}

void Pixels::each(const std::function<Ink(int, int)>& colour) {
  for (int y = 0; y < height(); ++y) {
    for (int x = 0; x < width(); ++x) {
      const Ink ink = colour(x, y);
      if (ink != Ink::none) dot(x, y, ink);
    }
  }
}

void Pixels::paste(const Pixels& other, int x, int y) {
  for (int py = 0; py < other.height(); ++py) {
    for (int px = 0; px < other.width(); ++px) {
      if (other.covered(px, py)) dot(x + px, y + py, other.at(px, py));
    }
  }
}

void Pixels::outline(Ink ink) {
  const Pixels before = *this;
  each([&](int x, int y) {
    if (before.covered(x, y)) return Ink::none;
    const bool edge =
        before.covered(x - 1, y) || before.covered(x + 1, y) || before.covered(x, y - 1) || before.covered(x, y + 1);
    return edge ? ink : Ink::none;
  });
}

void Pixels::castShadow(int length) {
  const Pixels before = *this;
  const auto shade = [](unsigned alpha) { return static_cast<Ink>((alpha << 24) | 0x1B2030u); };
  each([&](int x, int y) {
    if (before.covered(x, y)) return Ink::none;
    for (int k = 1; k <= length; ++k) {
      if (!before.covered(x - k, y - (k + 1) / 2)) continue;
      if (k <= length - 3) return shade(104);
      return dither(x, y, 8) ? shade(104) : shade(40);
    }
    return Ink::none;
  });
}

}  // namespace uq::art
