// The street sheet: setts, slabs, lawn and canal, six look-alikes each, and the borders between them by corners.
#include <algorithm>

#include "art/Pixels.h"
#include "art/Sheets.h"

namespace uq::art {

namespace {

constexpr int kColumns = 14;

struct Mark {
  int x;
  int y;
};

int wrapped(int v) { return ((v % kTile) + kTile) % kTile; }

// Which of the sixteen setts of a look-alike are light (1), dark (2) or cracked (3).
constexpr int kSettTones[kLookAlikes][16] = {
    {0, 1, 0, 0, 0, 0, 2, 0, 1, 0, 0, 0, 0, 2, 0, 1}, {1, 0, 0, 2, 0, 0, 0, 1, 0, 2, 0, 0, 0, 0, 1, 0},
    {0, 0, 2, 0, 1, 0, 0, 0, 0, 0, 1, 2, 0, 1, 0, 0}, {0, 2, 0, 1, 0, 0, 1, 0, 2, 0, 0, 0, 1, 0, 0, 3},
    {0, 0, 1, 0, 0, 3, 0, 2, 0, 1, 0, 0, 2, 0, 0, 0}, {2, 0, 0, 0, 0, 1, 0, 0, 0, 0, 2, 0, 0, 1, 0, 2}};

Ink settsAt(int x, int y, int look) {
  const int row = y / 8;
  const int shifted = wrapped(x + (row % 2) * 4);
  const int sett = row * 4 + shifted / 8;
  const int lx = shifted % 8;
  const int ly = y % 8;
  const bool mossy = look == 3 && row == 2 && ly == 7 && x > 4 && x < 17;
  if (mossy) return dither(x, y, 10) ? Ink::moss : Ink::steel;
  if (ly == 7) return Ink::steel;
  if (lx == 7) return ly < 6 && dither(x, y, 12) ? Ink::steel : Ink::stone;
  const int tone = kSettTones[look][sett];
  if (tone == 3 && lx == ly) return Ink::steel;
  if (lx == 0 && ly == 0) return Ink::stone;
  if (ly == 0 || (lx == 0 && ly < 4)) return tone == 2 ? Ink::stone : Ink::paleStone;
  if (tone == 1) return dither(lx, ly, 5) ? Ink::paleStone : Ink::stone;
  if (tone == 2) return dither(lx, ly, 5) ? Ink::steel : Ink::stone;
  return Ink::stone;
}

Ink slabsAt(int x, int y, int look) {
  const int lx = x % 16;
  const int ly = y % 16;
  const int slab = (y / 16) * 2 + x / 16;
  if (lx == 15 || ly == 15)
    return look == 2 && x > 10 && x < 22 && ly == 15 && dither(x, y, 9) ? Ink::leaf : Ink::stone;
  if (lx == 0 || ly == 0) return dither(x, y, 12) ? Ink::linen : Ink::paleStone;
  const bool crack = look == 1 && slab == 2 && (lx == 5 + ly / 4 || (ly == 9 && lx > 7 && lx < 12));
  const bool chip = look == 4 && slab == 1 && lx + ly > 26;
  if (crack || chip) return Ink::stone;
  const bool light = (look * 5 + slab * 3) % 7 == 1;
  const bool worn = (look * 3 + slab * 5) % 7 == 2;
  if (light && dither(x, y, 4)) return Ink::linen;
  if (worn && dither(x, y, 3)) return Ink::stone;
  return Ink::paleStone;
}

constexpr Mark kTufts[kLookAlikes][5] = {
    {{4, 6}, {19, 3}, {12, 15}, {26, 20}, {6, 26}},   {{9, 4}, {24, 9}, {3, 17}, {17, 24}, {28, 29}},
    {{14, 5}, {28, 13}, {7, 12}, {20, 19}, {12, 28}}, {{3, 3}, {21, 12}, {10, 20}, {29, 23}, {18, 29}},
    {{16, 8}, {5, 14}, {26, 4}, {22, 26}, {8, 23}},   {{11, 10}, {27, 16}, {4, 28}, {19, 2}, {15, 21}}};

Ink lawnAt(int x, int y, int look) {
  static constexpr Mark kTuft[] = {{0, 0}, {1, 1}, {2, 0}, {3, 1}, {4, 0}, {1, 2}, {3, 2}};
  for (int t = 0; t < 5; ++t) {
    const Mark tuft = kTufts[look][t];
    for (const Mark& blade : kTuft) {
      if (x == wrapped(tuft.x + blade.x) && y == wrapped(tuft.y + blade.y)) {
        return blade.y == 2 ? Ink::deepMoss : Ink::leaf;
      }
    }
    const bool flower = (look == 2 || look == 5) && t == (look == 2 ? 1 : 3);
    if (flower && x == wrapped(tuft.x + 2) && y == wrapped(tuft.y - 1)) return look == 2 ? Ink::lamp : Ink::dusk;
  }
  // Soft mown patches, the same in every look-alike so that they meet.
  const int wave = (x / 4 + y / 4) % 8;
  if (wave == 0 && dither(x, y, 2)) return Ink::leaf;
  if (wave == 4 && dither(x, y, 2)) return Ink::deepMoss;
  return Ink::moss;
}

constexpr Mark kRipples[kLookAlikes][3] = {{{3, 5}, {18, 15}, {8, 25}},   {{12, 3}, {25, 12}, {2, 21}},
                                           {{20, 6}, {6, 14}, {22, 27}},  {{1, 9}, {15, 20}, {27, 29}},
                                           {{9, 12}, {24, 22}, {14, 30}}, {{28, 4}, {11, 18}, {19, 9}}};

Ink canalAt(int x, int y, int look) {
  for (const Mark& ripple : kRipples[look]) {
    const int dx = wrapped(x - ripple.x);
    const int dy = wrapped(y - ripple.y);
    if (dy == 0 && dx > 1 && dx < 7) return Ink::lightCanal;
    if (dy == 1 && (dx < 3 || (dx > 5 && dx < 9))) return Ink::lightCanal;
    if (dy == 2 && dx > 1 && dx < 8) return Ink::deepCanal;
  }
  const int band = (y / 4) % 8;
  if (band == 1 && dither(x, y, 3)) return Ink::deepCanal;
  return Ink::canal;
}

Ink groundAt(Ground ground, int x, int y, int look) {
  switch (ground) {
    case Ground::setts: return settsAt(x, y, look);
    case Ground::slabs: return slabsAt(x, y, look);
    case Ground::lawn: return lawnAt(x, y, look);
    case Ground::canal: return canalAt(x, y, look);
  }
  return Ink::none;
}

// Where the upper ground lies in a border tile: rounded for lawn, square for what is built.
class Shape {
 public:
  Shape(const std::array<bool, 4>& corners, bool rounded) : corners_(corners), rounded_(rounded) {}

  bool over(int x, int y) const {
    x = std::clamp(x, 0, kTile - 1);
    y = std::clamp(y, 0, kTile - 1);
    if (!rounded_) return corners_[y < 16 ? (x < 16 ? 0 : 1) : (x < 16 ? 3 : 2)];
    const double u = (x + 0.5) / kTile;
    const double v = (y + 0.5) / kTile;
    const double field =
        corner(0) * (1 - u) * (1 - v) + corner(1) * u * (1 - v) + corner(2) * u * v + corner(3) * (1 - u) * v;
    return field > 0.5;
  }
  // True when the nearest pixel of the other ground lies within `reach` pixels, straight or slanted.
  bool within(int x, int y, int reach) const {
    for (int dy = -reach; dy <= reach; ++dy) {
      for (int dx = -reach; dx <= reach; ++dx) {
        if (dx * dx + dy * dy <= reach * reach && over(x + dx, y + dy) != over(x, y)) return true;
      }
    }
    return false;
  }

 private:
  double corner(int i) const { return corners_[static_cast<std::size_t>(i)] ? 1 : 0; }
  std::array<bool, 4> corners_;
  bool rounded_;
};

Ink brickCourse(int x, int y, int row) {
  if (row % 4 == 3) return Ink::darkBrick;
  if ((x + (row / 4) * 4) % 8 == 7) return Ink::darkBrick;
  return dither(x, y, 3) ? Ink::copper : Ink::brick;
}

Ink borderAt(Ground over, Ground under, const Shape& shape, int x, int y) {
  const bool isOver = shape.over(x, y);
  if (over == Ground::canal) {
    if (!isOver) {
      if (!shape.within(x, y, 4)) return slabsAt(x, y, 0);
      // Coping stones along the quay.
      if (shape.within(x, y, 1)) return Ink::steel;
      return (x % 16 == 7 && y % 16 != 7) || y % 16 == 7 ? Ink::stone : Ink::linen;
    }
    // The wall of the quay is seen where the water lies south of it.
    for (int up = 1; up <= 13; ++up) {
      if (shape.over(x, y - up)) continue;
      if (y - up < 0) break;
      if (up <= 10) return brickCourse(x, y, up);
      return dither(x, y, 10) ? Ink::deepCanal : Ink::canal;
    }
    const bool westWall = !shape.over(x - 3, y);
    if (westWall) return dither(x, y, 10) ? Ink::deepCanal : Ink::canal;
    return canalAt(x, y, 0);
  }
  if (isOver) {
    if (shape.within(x, y, 1)) return Ink::paleStone;
    if (shape.within(x, y, 3)) {
      const bool lit = !shape.over(x - 3, y) || !shape.over(x, y - 3);
      return lit ? Ink::linen : Ink::paleStone;
    }
    if (over == Ground::lawn && shape.within(x, y, 4)) return Ink::deepMoss;
    return groundAt(over, x, y, 0);
  }
  // The kerb's shadow falls to its lower right.
  const bool shaded = shape.over(x - 1, y) || shape.over(x, y - 1) || shape.over(x - 1, y - 1);
  if (shaded) return Ink::slate;
  if ((shape.over(x - 2, y) || shape.over(x, y - 2)) && dither(x, y, 8)) return Ink::steel;
  return groundAt(under, x, y, 0);
}

struct Pair {
  Ground over;
  Ground under;
  const char* name;
};
constexpr Pair kPairs[] = {{Ground::lawn, Ground::setts, "lawn kerb"},
                           {Ground::slabs, Ground::setts, "footway kerb"},
                           {Ground::canal, Ground::slabs, "quay edge"}};
constexpr const char* kGroundNames[] = {"setts", "slabs", "lawn", "canal"};
constexpr int kBorders = 14;
constexpr unsigned kFirstBorder = 28;  // the grounds fill two rows

int cornerCode(const std::array<bool, 4>& corners) {
  return (corners[0] ? 1 : 0) | (corners[1] ? 2 : 0) | (corners[2] ? 4 : 0) | (corners[3] ? 8 : 0);
}

int pairIndex(Ground over, Ground under) {
  for (int i = 0; i < 3; ++i) {
    if (kPairs[i].over == over && kPairs[i].under == under) return i;
  }
  return -1;
}

std::string cornersInWords(int code) {
  static constexpr const char* kWords[] = {"NW", "NE", "SE", "SW"};
  std::string words;
  for (int i = 0; i < 4; ++i) {
    if (code & (1 << i)) words += (words.empty() ? " " : " ") + std::string(kWords[i]);
  }
  return words;
}

constexpr unsigned kFirstExtra = 24;
constexpr const char* kExtraNames[] = {"setts, iron lid", "setts, oil stain", "slabs, grating", "canal, lilies"};

Pixels drawExtra(int extra) {
  constexpr Ground kUnder[] = {Ground::setts, Ground::setts, Ground::slabs, Ground::canal};
  Pixels tile(kTile, kTile);
  tile.each([&](int x, int y) { return groundAt(kUnder[extra], x, y, 0); });
  switch (extra) {
    case 0:
      tile.disc(16, 16, 10, Ink::slate);
      tile.disc(16, 15, 9, Ink::steel);
      for (int i = 10; i < 23; i += 4) tile.across(10, i, 13, Ink::slate), tile.down(i, 9, 13, Ink::slate);
      break;
    case 1:
      tile.each([](int x, int y) {
        const int d = (x - 15) * (x - 15) + 2 * (y - 17) * (y - 17);
        return d < 110 && dither(x, y, d < 50 ? 9 : 4) ? Ink::slate : Ink::none;
      });
      break;
    case 2:
      tile.box(8, 8, 15, 15, Ink::steel);
      for (int x = 10; x < 22; x += 3) tile.box(x, 10, 2, 11, Ink::ink);
      break;
    default:
      for (const Mark& leaf : {Mark{9, 10}, Mark{14, 15}, Mark{22, 12}, Mark{19, 22}}) {
        tile.disc(leaf.x, leaf.y + 1, 3, Ink::deepCanal);
        tile.disc(leaf.x, leaf.y, 3, Ink::moss);
        tile.across(leaf.x - 2, leaf.y - 1, 3, Ink::leaf);
      }
      tile.box(14, 13, 2, 2, Ink::dusk);
      break;
  }
  return tile;
}

}  // namespace

unsigned settsLid() { return kFirstExtra; }
unsigned settsStain() { return kFirstExtra + 1; }
unsigned slabsGrating() { return kFirstExtra + 2; }
unsigned canalLilies() { return kFirstExtra + 3; }

bool hasBorder(Ground over, Ground under) { return pairIndex(over, under) >= 0; }

unsigned groundTile(Ground ground, int lookAlike) {
  return static_cast<unsigned>(static_cast<int>(ground) * kLookAlikes + lookAlike);
}

unsigned borderTile(Ground over, Ground under, const std::array<bool, 4>& corners) {
  return kFirstBorder + static_cast<unsigned>(pairIndex(over, under) * kBorders + cornerCode(corners) - 1);
}

DrawnSheet drawStreetSheet() {
  Pixels sheet(kColumns * kTile, 5 * kTile);
  DrawnSheet drawn;
  const auto place = [&](unsigned number, const Pixels& tile, std::string name) {
    sheet.paste(tile, static_cast<int>(number) % kColumns * kTile, static_cast<int>(number) / kColumns * kTile);
    drawn.names[number] = std::move(name);
  };
  for (int g = 0; g < 4; ++g) {
    for (int look = 0; look < kLookAlikes; ++look) {
      const auto ground = static_cast<Ground>(g);
      Pixels tile(kTile, kTile);
      tile.each([&](int x, int y) { return groundAt(ground, x, y, look); });
      place(groundTile(ground, look), tile, std::string(kGroundNames[g]) + " " + std::to_string(look + 1));
    }
  }
  for (int extra = 0; extra < 4; ++extra) {
    place(kFirstExtra + static_cast<unsigned>(extra), drawExtra(extra), kExtraNames[extra]);
  }
  for (const Pair& pair : kPairs) {
    for (int code = 1; code <= kBorders; ++code) {
      const std::array<bool, 4> corners = {(code & 1) != 0, (code & 2) != 0, (code & 4) != 0, (code & 8) != 0};
      const Shape shape(corners, pair.over == Ground::lawn);
      Pixels tile(kTile, kTile);
      tile.each([&](int x, int y) { return borderAt(pair.over, pair.under, shape, x, y); });
      place(borderTile(pair.over, pair.under, corners), tile, pair.name + cornersInWords(code));
    }
  }
  drawn.picture = sheet.image();
  return drawn;
}

}  // namespace uq::art
