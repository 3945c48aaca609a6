#include "art/Slanted.h"

#include <cmath>

namespace uq::art {

namespace {

constexpr int kHalf = kSlantW / 2;     // pixels across for one cell along a way
constexpr int kQuarter = kSlantH / 2;  // and down

// What lies at a pixel on the plane of height z: u and v in cells.
struct Ground {
  double u, v;
};
Ground groundAt(const Stand& stand, int x, int y, int z) {
  const double across = (x + 0.5 - stand.x) / kHalf;
  const double down = (y + 0.5 - stand.y + z) / kQuarter;
  return {(down + across) / 2, (down - across) / 2};
}

int pixelOf(double cells) { return static_cast<int>(std::floor(cells * kHalf)); }

}  // namespace

Stand standOf(Pixels& pixels, int across, int down) {
  return {pixels, down * kHalf + (pixels.width() - (across + down) * kHalf) / 2,
          pixels.height() - (across + down) * kQuarter};
}

Spot spot(const Stand& stand, double u, double v, int z) {
  return {stand.x + static_cast<int>(std::lround((u - v) * kHalf)),
          stand.y + static_cast<int>(std::lround((u + v) * kQuarter)) - z};
}

void sheet(const Stand& stand, const Box& at, const Texture& top) {
  for (int y = 0; y < stand.pixels.height(); ++y) {
    for (int x = 0; x < stand.pixels.width(); ++x) {
      const Ground on = groundAt(stand, x, y, at.z + at.height);
      if (on.u < at.u0 || on.u >= at.u1 || on.v < at.v0 || on.v >= at.v1) continue;
      const Ink ink = top(pixelOf(on.u - at.u0), pixelOf(on.v - at.v0), x, y);
      if (ink != Ink::none) stand.pixels.dot(x, y, ink);
    }
  }
}

void box(const Stand& stand, const Box& at, const Texture& top, const Texture& left, const Texture& right) {
  for (int y = 0; y < stand.pixels.height(); ++y) {
    for (int x = 0; x < stand.pixels.width(); ++x) {
      const Ground above = groundAt(stand, x, y, at.z + at.height);
      if (above.u >= at.u0 && above.u < at.u1 && above.v >= at.v0 && above.v < at.v1) {
        const Ink ink = top(pixelOf(above.u - at.u0), pixelOf(above.v - at.v0), x, y);
        if (ink != Ink::none) stand.pixels.dot(x, y, ink);
        continue;
      }
      const double across = (x + 0.5 - stand.x) / kHalf;
      const auto side = [&](double u, double v, double along, const Texture& texture) {
        const double foot = stand.y + (u + v) * kQuarter;
        const int depth = static_cast<int>(std::floor(at.z + at.height - (foot - (y + 0.5))));
        if (depth < 0 || depth >= at.height) return false;
        const Ink ink = texture(pixelOf(along), depth, x, y);
        if (ink != Ink::none) stand.pixels.dot(x, y, ink);
        return true;
      };
      const double u = across + at.v1;
      if (u >= at.u0 && u < at.u1 && side(u, at.v1, u - at.u0, left)) continue;
      const double v = at.u1 - across;
      if (v >= at.v0 && v < at.v1) side(at.u1, v, v - at.v0, right);
    }
  }
}

void groundShadow(const Stand& stand, const Box& at, double length) {
  for (int y = 0; y < stand.pixels.height(); ++y) {
    for (int x = 0; x < stand.pixels.width(); ++x) {
      if (stand.pixels.covered(x, y)) continue;
      const Ground on = groundAt(stand, x, y, at.z);
      const double beyond = on.u - at.u1;
      if (beyond < 0 || beyond >= length || on.v < at.v0 + beyond * 0.4 || on.v >= at.v1 + beyond * 0.4) continue;
      const bool soft = beyond > length - 0.12;
      stand.pixels.dot(x, y, static_cast<Ink>(((soft ? 40u : 104u) << 24) | 0x1B2030u));
    }
  }
}

int scattered(int a, int b, int seed, int below) {
  unsigned mixed = static_cast<unsigned>(a) * 2654435761u ^ static_cast<unsigned>(b) * 2246822519u ^
                   static_cast<unsigned>(seed) * 3266489917u;
  mixed = (mixed ^ mixed >> 15) * 2246822519u;
  return static_cast<int>((mixed ^ mixed >> 13) % static_cast<unsigned>(below));
}

Texture plain(Ink ink) {
  return [=](int, int, int, int) { return ink; };
}

Texture mixed(Ink ink, Ink other, int level) {
  return [=](int, int, int x, int y) { return dither(x, y, level) ? other : ink; };
}

Texture setts(int seed) {
  return [=](int a, int b, int x, int y) {
    const int row = b / 8;
    const int shifted = a + row % 2 * 4;
    const int stone = scattered(shifted / 8, row, seed, 12);
    if (b % 8 == 7 || shifted % 8 == 7) return stone == 3 && dither(x, y, 6) ? Ink::moss : Ink::steel;
    if (b % 8 == 0 && stone > 3) return Ink::paleStone;
    if (stone == 0) return dither(x, y, 8) ? Ink::steel : Ink::stone;
    if (stone < 3) return dither(x, y, 5) ? Ink::paleStone : Ink::stone;
    return Ink::stone;
  };
}

Texture slabs(int seed) {
  return [=](int a, int b, int x, int y) {
    const int stone = scattered(a / 16, b / 16, seed, 8);
    if (a % 16 == 15 || b % 16 == 15) return Ink::stone;
    if ((a % 16 == 0 || b % 16 == 0) && stone > 1) return Ink::linen;
    if (stone == 0 && a % 16 == 4 + b % 16 / 3) return Ink::stone;  // a crack
    if (stone == 1) return dither(x, y, 5) ? Ink::stone : Ink::paleStone;
    if (stone == 2) return dither(x, y, 3) ? Ink::linen : Ink::paleStone;
    return Ink::paleStone;
  };
}

Texture planks(Ink ink, Ink joint, Ink light) {
  return [=](int a, int b, int x, int y) {
    const int plank = b / 5;
    if (b % 5 == 4) return joint;
    if ((a + plank * 11) % 24 == 0) return joint;
    if (b % 5 == 0 && dither(x, y, 9)) return light;
    if ((a + plank * 11) % 24 == 2 && b % 5 == 2) return joint;  // a nail
    return ink;
  };
}

Texture courses(Ink stone, Ink joint, Ink light, int height, int length) {
  return [=](int a, int b, int x, int y) {
    const int row = b / height;
    const bool isJoint = b % height == height - 1 || (a + row % 2 * (length / 2)) % length == length - 1;
    if (isJoint) return joint;
    if (b % height == 0 && dither(x, y, 9)) return light;
    return stone;
  };
}

Texture grass(int seed) {
  return [=](int a, int b, int x, int y) {
    const int tuft = scattered(a / 5, b / 5, seed, 9);
    const int inA = a % 5;
    const int inB = b % 5;
    if (tuft == 0 && inA == 2 && inB >= 1 && inB <= 3) return Ink::leaf;
    if (tuft == 1 && inB == 2 && inA >= 1 && inA <= 3) return Ink::deepMoss;
    if (tuft == 2 && inA == 2 && inB == 2) return Ink::lamp;
    return dither(x, y, 2) ? Ink::deepMoss : Ink::moss;
  };
}

Texture water(int seed) {
  return [=](int a, int b, int x, int y) {
    // Ripples lie across the picture, a few pixels long, with a darker trough under each.
    const int ripple = scattered((x + y * 3) / 9, y / 3, seed, 11);
    const int along = (x + y * 3) % 9;
    if (ripple == 0 && y % 3 == 0 && along > 1 && along < 7) return Ink::lightCanal;
    if (ripple == 0 && y % 3 == 1 && along > 2 && along < 6) return Ink::deepCanal;
    if (ripple == 5 && y % 3 == 1 && along > 3 && along < 7) return Ink::deepCanal;
    return (a + b) % 11 == 0 && dither(x, y, 3) ? Ink::deepCanal : Ink::canal;
  };
}

}  // namespace uq::art
