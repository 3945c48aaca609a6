// Lantern Row: a street seen from the side, at dusk, before roofs, towers and the sky; wires hang in front.
#include <algorithm>
#include <cmath>

#include "art/Scenery.h"
#include "art/TileMaker.h"

namespace uq::art {

namespace {

constexpr int kWide = 96;    // cells
constexpr int kHigh = 32;    // cells
constexpr int kStreet = 28;  // the row of the pavement

// A fixed scatter, 0 .. range - 1.
int scattered(int x, int y, int range) {
  const unsigned mixed = (static_cast<unsigned>(x) * 2654435761u) ^ (static_cast<unsigned>(y) * 2246822519u);
  return static_cast<int>((mixed ^ mixed >> 13) * 3266489917u >> 16) % range;
}

// The colours of a house: its bricks, their joints, and single lighter ones.
struct House {
  const char* name;
  Ink brick;
  Ink joint;
  Ink light;
};
constexpr House kHouses[] = {{"brick", Ink::brick, Ink::darkBrick, Ink::copper},
                             {"plum", Ink::plum, Ink::slate, Ink::rose},
                             {"teal", Ink::canal, Ink::deepCanal, Ink::lightCanal},
                             {"stone", Ink::stone, Ink::steel, Ink::paleStone}};

void bricks(Pixels& p, const House& house, int look) {
  p.box(0, 0, kTile, kTile, house.brick);
  for (int y = 0; y < kTile; y += 8) {
    p.across(0, y + 7, kTile, house.joint);
    for (int x = (y / 8 % 2) * 8; x < kTile; x += 16) p.down(x, y, 7, house.joint);
  }
  for (int i = 0; i < 2 + look; ++i) {
    const int row = scattered(i, look * 7 + 3, 4);
    const int x = scattered(i * 5, look + 11, 2) * 16 + (row % 2) * 8;
    p.dithered(x % kTile + 1, row * 8, 14, 6, house.light, 5);
  }
}

unsigned wall(TileMaker& maker, const House& house, int look) {
  return maker.tile(std::string(house.name) + " wall " + std::to_string(look + 1),
                    [&](Pixels& p) { bricks(p, house, look); });
}

// Quoins at a house's corner: left or right.
unsigned corner(TileMaker& maker, const House& house, bool right) {
  return maker.tile(std::string(house.name) + (right ? " wall, right corner" : " wall, left corner"), [&](Pixels& p) {
    bricks(p, house, 0);
    for (int y = 0; y < kTile; y += 16) {
      for (const int step : {0, 8}) {
        const int long_ = step == 0 ? 9 : 6;
        const int x = right ? kTile - long_ : 0;
        p.box(x, y + step, long_, 7, Ink::paleStone);
        p.across(x, y + step, long_, Ink::linen);
        p.across(x, y + step + 7, long_, Ink::stone);
      }
    }
    p.down(right ? kTile - 1 : 0, 0, kTile, Ink::ink);
  });
}

unsigned window(TileMaker& maker, const House& house, bool lit, int look) {
  const std::string name = std::string(house.name) + (lit ? " window, lit " : " window ") + std::to_string(look + 1);
  return maker.tile(name, [&](Pixels& p) {
    bricks(p, house, 0);
    p.box(7, 2, 18, 3, Ink::paleStone);
    p.across(7, 2, 18, Ink::linen);
    p.box(8, 5, 16, 22, Ink::ink);
    p.box(9, 6, 14, 20, lit ? Ink::amber : Ink::slate);
    if (lit) {
      p.box(9, 6, 14, 9, Ink::lamp);
      p.dithered(9, 14, 14, 6, Ink::lamp, 8);
      if (look == 0) p.box(10, 19, 4, 7, Ink::darkBrick);  // somebody's plant
      if (look == 0) p.disc(12, 17, 3, Ink::moss);
      if (look == 1) p.dithered(9, 6, 5, 20, Ink::copper, 9);  // a curtain
      if (look == 1) p.dithered(18, 6, 5, 20, Ink::copper, 9);
    } else {
      p.dithered(9, 6, 14, 8, Ink::farSky, 6);
      p.dithered(10, 8, 5, 10, Ink::steel, 8);
    }
    p.down(15, 6, 20, Ink::ink);
    p.across(9, 15, 14, Ink::ink);
    p.box(6, 27, 20, 3, Ink::paleStone);
    p.across(6, 27, 20, Ink::linen);
    p.across(6, 30, 20, house.joint);
  });
}

unsigned cornice(TileMaker& maker, const House& house) {
  return maker.tile(std::string(house.name) + " cornice", [&](Pixels& p) {
    bricks(p, house, 1);
    p.box(0, 8, kTile, 8, Ink::paleStone);
    p.across(0, 8, kTile, Ink::linen);
    p.across(0, 15, kTile, Ink::stone);
    for (int x = 2; x < kTile; x += 8) {
      p.box(x, 16, 4, 5, Ink::stone);
      p.down(x, 16, 5, Ink::paleStone);
    }
    p.dithered(0, 21, kTile, 4, Ink::ink, 5);
  });
}

// Slates: -1 the left slope, 0 between, 1 the right slope, 2 with a dormer.
unsigned roof(TileMaker& maker, int part) {
  static constexpr const char* kNames[] = {"roof, left", "roof", "roof, right", "roof, dormer"};
  return maker.tile(kNames[part + 1], [&](Pixels& p) {
    p.each([&](int x, int y) {
      const bool inside = part == -1 ? x >= 24 - y * 3 / 4 : part == 1 ? x < 8 + y * 3 / 4 : true;
      if (!inside) return Ink::none;
      if (y % 6 == 5) return Ink::ink;
      return (x + y / 6 * 5) % 10 == 0 ? Ink::ink : dither(x, y, 5) && y < 14 ? Ink::steel : Ink::slate;
    });
    if (part == 0 || part == 2) p.across(0, 0, kTile, Ink::steel);
    if (part == 2) {
      p.box(8, 8, 16, 24, Ink::darkBrick);
      p.box(10, 13, 12, 15, Ink::ink);
      p.box(11, 14, 10, 13, Ink::lamp);
      p.dithered(11, 20, 10, 7, Ink::amber, 9);
      p.down(15, 14, 13, Ink::ink);
      for (int i = 0; i < 10; ++i) p.box(15 - i, 3 + i / 2, 2 + 2 * i, 2, Ink::steel);
      p.across(6, 9, 20, Ink::ink);
    }
  });
}

unsigned chimney(TileMaker& maker, bool top) {
  return maker.tile(top ? "chimney, top" : "chimney", [&](Pixels& p) {
    const int y = top ? 10 : 0;
    p.box(9, y, 14, kTile - y, Ink::darkBrick);
    for (int row = y; row < kTile; row += 6) p.across(9, row + 5, 14, Ink::ink);
    p.down(9, y, kTile - y, Ink::brick);
    p.down(10, y, kTile - y, Ink::brick);
    if (top) {
      p.box(7, 10, 18, 4, Ink::stone);
      p.across(7, 10, 18, Ink::paleStone);
      p.box(11, 4, 4, 6, Ink::copper);
      p.box(17, 5, 4, 5, Ink::copper);
    }
  });
}

unsigned door(TileMaker& maker, const House& house, bool top) {
  return maker.tile(std::string(house.name) + (top ? " door, fanlight" : " door"), [&](Pixels& p) {
    bricks(p, house, 0);
    if (top) {
      p.disc(15, 20, 12, Ink::paleStone);
      p.disc(15, 20, 10, Ink::ink);
      p.disc(15, 20, 9, Ink::lamp);
      p.box(4, 20, 24, 12, Ink::paleStone);
      p.box(6, 20, 20, 12, Ink::deepCanal);
      for (int i = -8; i <= 8; i += 4) p.down(15 + i, 12 + std::abs(i) / 2, 8 - std::abs(i) / 2, Ink::ink);
      p.across(6, 20, 20, Ink::ink);
    } else {
      p.box(4, 0, 24, kTile, Ink::paleStone);
      p.box(6, 0, 20, kTile, Ink::deepCanal);
      p.box(8, 2, 7, 12, Ink::canal);
      p.box(17, 2, 7, 12, Ink::canal);
      p.box(8, 17, 7, 13, Ink::canal);
      p.box(17, 17, 7, 13, Ink::canal);
      p.down(15, 0, kTile, Ink::ink);
      p.disc(13, 16, 1, Ink::lamp);
    }
  });
}

// A shop window, lit from inside.
unsigned shop(TileMaker& maker, int part) {
  return maker.tile(
      part == 0   ? "shop, bread"
      : part == 1 ? "shop, lamps"
                  : "shop, cloth",
      [&](Pixels& p) {
        p.box(0, 0, kTile, kTile, Ink::darkBrick);
        p.box(2, 2, 28, 22, Ink::ink);
        p.box(3, 3, 26, 20, Ink::lamp);
        p.dithered(3, 12, 26, 11, Ink::amber, 8);
        p.across(3, 14, 26, Ink::copper);
        for (int i = 0; i < 4; ++i) {
          const int x = 5 + i * 6;
          if (part == 0) p.disc(x + 2, 12, 2, Ink::copper), p.box(x, 19, 5, 4, Ink::brick);
          if (part == 1)
            p.disc(x + 2, 9, 2, Ink::linen), p.down(x + 2, 11, 3, Ink::ink), p.disc(x + 2, 20, 2, Ink::rose);
          if (part == 2)
            p.box(x, 5, 4, 9, i % 2 ? Ink::rose : Ink::canal), p.box(x, 17, 4, 6, i % 2 ? Ink::leaf : Ink::plum);
        }
        p.box(0, 24, kTile, 8, Ink::brick);
        p.across(0, 24, kTile, Ink::copper);
        p.frame(3, 26, 11, 5, Ink::darkBrick);
        p.frame(18, 26, 11, 5, Ink::darkBrick);
      });
}

unsigned awning(TileMaker& maker, int part, bool green) {
  const std::string side = part < 0 ? ", left" : part > 0 ? ", right" : "";
  return maker.tile(std::string(green ? "green" : "red") + " awning" + side, [&](Pixels& p) {
    for (int x = 0; x < kTile; ++x) {
      const bool stripe = x / 8 % 2 == 0;
      const Ink ink = stripe ? Ink::linen : green ? Ink::moss : Ink::brick;
      const Ink shade = stripe ? Ink::paleStone : green ? Ink::deepMoss : Ink::darkBrick;
      const int from = part < 0 ? std::max(0, 10 - x) : part > 0 ? std::max(0, x - 21) : 0;
      p.down(x, 8 + from, 14 - from, ink);
      p.down(x, 22, 4, shade);
      if (x % 8 != 0) p.dot(x, 26, shade);
    }
    p.across(0, 7, kTile, Ink::ink);
    p.dithered(0, 27, kTile, 5, Ink::ink, 6);
  });
}

// Balconies one can jump through: a slab, and the railing above it.
unsigned slab(TileMaker& maker, int part) {
  return maker.tile(part < 0   ? "balcony, left"
                    : part > 0 ? "balcony, right"
                               : "balcony",
                    [&](Pixels& p) {
                      const int from = part < 0 ? 4 : 0;
                      const int to = part > 0 ? kTile - 4 : kTile;
                      p.box(from, 0, to - from, 5, Ink::paleStone);
                      p.across(from, 0, to - from, Ink::linen);
                      p.box(from, 5, to - from, 3, Ink::stone);
                      p.across(from, 8, to - from, Ink::ink);
                      for (const int x : {8, 22}) {
                        for (int i = 0; i < 8; ++i) p.across(x, 9 + i, std::max(1, 7 - i), Ink::slate);
                      }
                      p.dithered(from, 17, to - from, 6, Ink::ink, 4);
                    });
}

unsigned railing(TileMaker& maker, int part) {
  return maker.tile(part < 0   ? "railing, left"
                    : part > 0 ? "railing, right"
                               : "railing",
                    [&](Pixels& p) {
                      const int from = part < 0 ? 5 : 0;
                      const int to = part > 0 ? kTile - 5 : kTile;
                      p.box(from, 14, to - from, 2, Ink::slate);
                      p.across(from, 13, to - from, Ink::steel);
                      for (int x = from + 2; x < to; x += 5) {
                        p.down(x, 16, 15, Ink::slate);
                        p.dot(x + 1, 22, Ink::slate);
                        p.dot(x - 1, 23, Ink::slate);
                      }
                      p.across(from, 30, to - from, Ink::slate);
                      if (part < 0) p.down(from, 12, 20, Ink::steel);
                      if (part > 0) p.down(to - 1, 12, 20, Ink::steel);
                    });
}

unsigned flowers(TileMaker& maker, int look) {
  return maker.tile("flower box " + std::to_string(look + 1), [&](Pixels& p) {
    p.box(3, 24, 26, 7, Ink::darkBrick);
    p.across(3, 24, 26, Ink::brick);
    for (int x = 4; x < 28; x += 3) {
      const int high = 3 + scattered(x, look, 5);
      p.disc(x + 1, 23 - high / 2, 2 + high / 3, x % 2 ? Ink::moss : Ink::leaf);
      if (scattered(x, look + 5, 3) > 0) p.disc(x + 1, 22 - high, 1, look ? Ink::lamp : Ink::rose);
    }
  });
}

unsigned lantern(TileMaker& maker, int part) {
  static constexpr const char* kNames[] = {"lantern on a bracket", "lamp post, lantern", "lamp post",
                                           "lamp post, foot"};
  return maker.tile(kNames[part], [&](Pixels& p) {
    const auto glass = [&](int x, int y) {
      p.box(x, y, 10, 12, Ink::ink);
      p.box(x + 1, y + 1, 8, 10, Ink::lamp);
      p.box(x + 3, y + 4, 4, 6, Ink::linen);
      p.down(x + 4, y + 1, 10, Ink::amber);
      p.box(x - 1, y - 2, 12, 2, Ink::slate);
      p.box(x + 2, y - 5, 6, 3, Ink::slate);
      p.box(x + 1, y + 12, 8, 2, Ink::slate);
    };
    if (part == 0) {
      p.box(0, 6, 15, 2, Ink::slate);
      for (int i = 0; i < 10; ++i) p.box(i, 16 - i, 2, 1, Ink::slate);
      p.down(15, 7, 6, Ink::slate);
      glass(10, 15);
    }
    if (part == 1) {
      glass(11, 12);
      p.box(14, 26, 4, 6, Ink::slate);
      p.down(14, 26, 6, Ink::steel);
    }
    if (part == 2 || part == 3) {
      p.box(14, 0, 4, kTile, Ink::slate);
      p.down(14, 0, kTile, Ink::steel);
      if (part == 2) p.box(12, 14, 8, 3, Ink::slate);
      if (part == 3) {
        p.box(12, 18, 8, 6, Ink::slate);
        p.box(10, 24, 12, 8, Ink::slate);
        p.across(10, 24, 12, Ink::steel);
      }
    }
  });
}

// A quarter of the light around a lantern: column and row 0 .. 2 of nine tiles.
unsigned glow(TileMaker& maker, int column, int row) {
  return maker.tile("glow " + std::to_string(column + 1) + ", " + std::to_string(row + 1), [&](Pixels& p) {
    p.each([&](int x, int y) {
      const double dx = (column - 1) * kTile + x - 15.5;
      const double dy = (row - 1) * kTile + y - 15.5;
      const double far = std::sqrt(dx * dx + dy * dy) / 44;
      if (far >= 1) return Ink::none;
      return dither(x, y, static_cast<int>((1 - far) * (1 - far) * 15)) ? Ink::copper : Ink::none;
    });
  });
}

unsigned street(TileMaker& maker, int row, int look) {
  static constexpr const char* kNames[] = {"pavement ", "kerb stones ", "cellar wall ", "deep wall "};
  return maker.tile(kNames[row] + std::to_string(look + 1), [&](Pixels& p) {
    p.box(0, 0, kTile, kTile, row == 0 ? Ink::stone : row == 1 ? Ink::steel : Ink::slate);
    const int high = row == 0 ? 10 : 16;
    for (int y = row == 0 ? 8 : 0; y < kTile; y += high) {
      p.across(0, y + high - 1, kTile, row < 2 ? Ink::slate : Ink::ink);
      const int shift = (y / high * 11 + look * 7) % 16;
      for (int x = shift; x < kTile; x += 16) p.down(x, y, high - 1, row < 2 ? Ink::slate : Ink::ink);
      p.dithered(0, y, kTile, 3, row == 0 ? Ink::paleStone : row == 1 ? Ink::stone : Ink::steel, 5);
    }
    if (row == 0) {
      p.box(0, 0, kTile, 7, Ink::paleStone);
      p.across(0, 0, kTile, Ink::linen);
      p.across(0, 7, kTile, Ink::slate);
      p.down((look * 13 + 5) % kTile, 1, 6, Ink::stone);
    }
    if (row == 2 && look == 1) {
      p.box(9, 6, 14, 12, Ink::ink);
      for (int x = 11; x < 23; x += 4) p.down(x, 6, 12, Ink::steel);
    }
    if (row == 3) p.dithered(0, 0, kTile, kTile, Ink::ink, 9);
  });
}

unsigned pipe(TileMaker& maker) {
  return maker.tile("drain pipe", [&](Pixels& p) {
    p.box(13, 0, 5, kTile, Ink::steel);
    p.down(13, 0, kTile, Ink::paleStone);
    p.down(17, 0, kTile, Ink::slate);
    p.box(11, 12, 9, 3, Ink::slate);
  });
}

unsigned stander(TileMaker& maker, const char* name) {
  const std::string what = name;
  return maker.tile(what, [&](Pixels& p) {
    if (what == "crate") {
      p.box(4, 8, 24, 24, Ink::copper);
      p.frame(4, 8, 24, 24, Ink::darkBrick);
      p.frame(5, 9, 22, 22, Ink::brick);
      for (int i = 0; i < 20; ++i) p.box(6 + i, 10 + i, 2, 1, Ink::darkBrick);
    } else if (what == "barrel") {
      p.box(7, 8, 18, 24, Ink::brick);
      p.dithered(9, 8, 5, 24, Ink::copper, 10);
      for (const int y : {11, 26}) p.box(6, y, 20, 3, Ink::slate);
      p.frame(7, 8, 18, 24, Ink::darkBrick);
    } else if (what == "bench") {
      p.box(2, 18, 28, 3, Ink::copper);
      p.box(2, 12, 28, 3, Ink::copper);
      for (const int x : {5, 25}) p.box(x, 10, 2, 22, Ink::slate);
      p.across(2, 21, 28, Ink::darkBrick);
    } else if (what == "tub with a tree") {
      p.box(8, 20, 16, 12, Ink::darkBrick);
      p.across(8, 20, 16, Ink::brick);
      p.disc(16, 10, 10, Ink::moss);
      p.disc(13, 7, 6, Ink::leaf);
      p.dithered(8, 10, 16, 9, Ink::deepMoss, 8);
    } else if (what == "washing") {
      p.across(0, 6, kTile, Ink::paleStone);
      p.box(3, 7, 7, 11, Ink::linen);
      p.box(12, 7, 6, 14, Ink::rose);
      p.box(20, 7, 9, 9, Ink::lightCanal);
      p.dithered(3, 13, 7, 5, Ink::paleStone, 8);
      p.dithered(12, 14, 6, 7, Ink::plum, 6);
    } else if (what == "ladder") {
      p.box(8, 0, 2, kTile, Ink::slate);
      p.box(22, 0, 2, kTile, Ink::slate);
      for (int y = 3; y < kTile; y += 8) p.box(8, y, 16, 2, Ink::steel);
    } else if (what == "cat") {
      p.box(10, 22, 12, 8, Ink::ink);
      p.disc(22, 20, 4, Ink::ink);
      p.dot(20, 15, Ink::ink), p.dot(24, 15, Ink::ink), p.dot(20, 16, Ink::ink), p.dot(24, 16, Ink::ink);
      p.dot(23, 20, Ink::lamp);
      p.down(9, 16, 9, Ink::ink);
      for (const int x : {11, 20}) p.box(x, 29, 2, 3, Ink::ink);
    }
  });
}

struct Plan {
  TileMaker maker{kTile, kTile, 10};
  MadeLayer walls{"Walls", "ground", 2, "", {}};
  MadeLayer ground{"Street & balconies", "things", 1, "", {}};
  MadeLayer things{"Things", "things", 0, "", {}};
  MadeLayer lights{"Glow", "in front", 5, "", {}};

  void light(int x, int y) {
    for (int row = 0; row < 3; ++row) {
      for (int column = 0; column < 3; ++column) lights.lay({x + column - 1, y + row - 1}, 0, glow(maker, column, row));
    }
  }
  void house(int x, int width, int top, const House& house, bool lit) {
    for (int y = top; y < kStreet; ++y) {
      for (int i = 0; i < width; ++i) {
        const CellPos at{x + i, y};
        const bool windows = i % 2 == 1 && i < width - 1 && (kStreet - y) % 3 == 1 && y < kStreet - 2 && y > top;
        unsigned tile = wall(maker, house, scattered(x + i, y, 3));
        if (i == 0) tile = corner(maker, house, false);
        if (i == width - 1) tile = corner(maker, house, true);
        if (y == top) tile = cornice(maker, house);
        if (windows)
          tile = window(maker, house, scattered(x + i, y + (lit ? 1 : 9), lit ? 5 : 3) < 2, scattered(i, y, 2));
        walls.lay(at, 0, tile);
      }
    }
    for (int i = 0; i < width; ++i) {
      const int part = i == 0 ? -1 : i == width - 1 ? 1 : i % 3 == 2 && i < width - 2 ? 2 : 0;
      walls.lay({x + i, top - 1}, 0, roof(maker, part));
    }
    const int stack = x + 1 + scattered(x, top, std::max(1, width - 3));
    things.lay({stack, top - 2}, 0, chimney(maker, true));
  }
  void balcony(int x, int y, int width, int look) {
    for (int i = 0; i < width; ++i) {
      const int part = i == 0 ? -1 : i == width - 1 ? 1 : 0;
      ground.lay({x + i, y}, 0, slab(maker, part));
      things.lay({x + i, y - 1}, 0,
                 part == 0 && scattered(x + i, y, 3) == 0 ? flowers(maker, look) : railing(maker, part));
    }
  }
  void lampPost(int x) {
    things.lay({x, kStreet - 1}, 0, lantern(maker, 3));
    things.lay({x, kStreet - 2}, 0, lantern(maker, 2));
    things.lay({x, kStreet - 3}, 0, lantern(maker, 1));
    light(x, kStreet - 3);
  }
};

Ink skyAt(int y, int high, int x) {
  static constexpr Ink kBands[] = {Ink::slate, Ink::plum, Ink::rose, Ink::dusk, Ink::lamp};
  const double at = std::min(3.999, std::pow(static_cast<double>(y) / high, 0.9) * 4);
  const int band = static_cast<int>(at);
  return dither(x, y, static_cast<int>((at - band) * 16)) ? kBands[band + 1] : kBands[band];
}

DrawnSheet sky() {
  Pixels p(448, 288);
  p.each([](int x, int y) { return skyAt(y, 288, x); });
  for (int i = 0; i < 26; ++i) p.dot(scattered(i, 1, 448), scattered(i, 2, 90), i % 3 ? Ink::farSky : Ink::linen);
  // Long clouds, lit from below.
  for (int i = 0; i < 7; ++i) {
    const int cx = scattered(i, 5, 448);
    const int cy = 60 + i * 26;
    for (int x = -70; x < 70; ++x) {
      const int thick =
          static_cast<int>(5 * std::sqrt(std::max(0.0, 1 - x * x / 4900.0)) + std::sin(x * 0.35 + i) * 1.5);
      for (int y = -thick; y <= thick / 2; ++y) {
        const int px = (cx + x + 448) % 448;
        if (dither(px, cy + y, y < 0 ? 11 : 7))
          p.dot(px, cy + y, y < 0 ? (cy < 130 ? Ink::plum : Ink::rose) : Ink::dusk);
      }
    }
  }
  return {p.image(), {{0, "sky"}}};
}

// Towers of the far city, in haze; wraps.
DrawnSheet towers() {
  constexpr int kW = 576;
  constexpr int kH = 420;
  Pixels p(kW, kH);
  for (int layer = 0; layer < 2; ++layer) {
    const Ink body = layer == 0 ? Ink::rose : Ink::plum;
    for (int i = 0; i < 16; ++i) {
      const int x = i * 36 + layer * 17;
      const int w = 18 + scattered(i, layer + 3, 18);
      const int top = 30 + layer * 40 + scattered(i, layer + 7, 80);
      for (int dx = 0; dx < w; ++dx) {
        const int px = (x + dx) % kW;
        p.down(px, top, kH - top, body);
        if (dx < 2) p.down(px, top, kH - top, layer == 0 ? Ink::dusk : Ink::rose);
      }
      if (scattered(i, layer, 3) == 0) {
        for (int y = 0; y < 22; ++y) p.dot((x + w / 2) % kW, top - y, body);
        p.dot((x + w / 2) % kW, top - 23, Ink::lamp);
      } else if (scattered(i, layer, 3) == 1) {
        for (int y = 0; y < 10; ++y) {
          for (int dx = y; dx < w - y; ++dx) p.dot((x + dx) % kW, top - y, body);
        }
      }
      for (int wy = top + 8; wy < kH - 40; wy += 9) {
        for (int wx = 4; wx < w - 3; wx += 6) {
          if (scattered(i * 31 + wx, wy + layer, 7) == 0)
            p.box((x + wx) % kW, wy, 2, 3, layer == 0 ? Ink::lamp : Ink::amber);
        }
      }
    }
    p.dithered(0, 250 + layer * 20, kW, 60, layer == 0 ? Ink::dusk : Ink::rose, 5);
    p.dithered(0, 310 + layer * 20, kW, kH, layer == 0 ? Ink::dusk : Ink::rose, 9);
  }
  return {p.image(), {{0, "far towers"}}};
}

// Roofs and chimneys across the yard behind the street; wraps.
DrawnSheet chimneys() {
  constexpr int kW = 640;
  constexpr int kH = 600;
  Pixels p(kW, kH);
  for (int i = 0; i < 8; ++i) {
    const int x = i * 80;
    const int top = 70 + scattered(i, 3, 50);
    const int w = 92;
    for (int dx = 0; dx < w; ++dx) {
      const int rise = std::min(dx, w - 1 - dx) * 3 / 5;
      const int px = (x + dx) % kW;
      const int ridge = top + 28 - rise;
      p.down(px, ridge, kH - ridge, Ink::slate);
      p.dot(px, ridge, Ink::steel);
      for (int y = ridge + 5; y < top + 34; y += 6) {
        if ((dx + y) % 7 != 0) p.dot(px, y, Ink::ink);
      }
    }
    for (int stack = 0; stack < 2; ++stack) {
      const int cx = x + 14 + stack * 38 + scattered(i, stack + 9, 12);
      const int high = 46 + scattered(i, stack + 13, 26);
      for (int dx = 0; dx < 11; ++dx) {
        p.down((cx + dx) % kW, top + 22 - high + 20, high, dx < 2 ? Ink::steel : Ink::slate);
        if (dx % 4 != 3) p.down((cx + dx) % kW, top + 38 - high, 5, Ink::darkBrick);
      }
      for (int y = 0; y < 34; ++y) {
        const int px = (cx + 5 + y / 3 + static_cast<int>(std::sin(y * 0.4) * 3) + kW) % kW;
        for (int dx = -1 - y / 10; dx <= 1 + y / 10; ++dx) {
          if (dither(px + dx, y, 6)) p.dot((px + dx + kW) % kW, top + 36 - high - y, Ink::steel);
        }
      }
    }
    for (int wy = top + 48; wy < kH - 30; wy += 34) {
      for (int wx = 8; wx < 78; wx += 24) {
        const bool lit = scattered(i * 13 + wx, wy, 4) == 0;
        p.box((x + wx) % kW, wy, 10, 16, Ink::ink);
        p.box((x + wx + 1) % kW, wy + 1, 8, 14, lit ? Ink::amber : Ink::deepCanal);
        p.down((x + wx + 5) % kW, wy, 16, Ink::ink);
      }
    }
  }
  return {p.image(), {{0, "chimneys"}}};
}

// Wires with small lamps close to the eye, see-through between; wraps.
DrawnSheet wires() {
  constexpr int kW = 512;
  constexpr int kH = 96;
  Pixels p(kW, kH);
  for (int line = 0; line < 3; ++line) {
    for (int x = 0; x < kW; ++x) {
      const double t = (x % 256) / 256.0;
      const int y = 10 + line * 16 + static_cast<int>((16 + line * 5) * 4 * t * (1 - t));
      p.box(x, y, 1, line == 1 ? 2 : 3, Ink::ink);
      if (line == 1 && x % 64 == 32) {
        p.down(x, y, 9, Ink::ink);
        p.box(x - 3, y + 9, 7, 9, Ink::ink);
        p.box(x - 2, y + 10, 5, 7, Ink::lamp);
        p.box(x - 1, y + 12, 3, 4, Ink::linen);
      }
    }
  }
  for (const int x : {0, 256}) {
    p.box(x, 0, 5, 62, Ink::ink);
    p.box(x + 1, 4, 12, 3, Ink::ink);
    p.box(x + 1, 20, 10, 3, Ink::ink);
  }
  return {p.image(), {{0, "near wires"}}};
}

MadeLayer hung(const char* name, int colour, std::size_t sheet, Parallax parallax, PixelPos offset) {
  MadeLayer layer{name, "backdrop", colour, "", {}};
  layer.hung = sheet;
  layer.parallax = parallax;
  layer.offset = offset;
  return layer;
}

}  // namespace

Scenery lanternRow() {
  Plan plan;
  for (int x = 0; x < kWide; ++x) {
    plan.ground.lay({x, kStreet}, 0, street(plan.maker, 0, scattered(x, 1, 3)));
    plan.ground.lay({x, kStreet + 1}, 0, street(plan.maker, 1, scattered(x, 2, 2)));
    plan.ground.lay({x, kStreet + 2}, 0, street(plan.maker, 2, x % 7 == 3 ? 1 : 0));
    plan.ground.lay({x, kStreet + 3}, 0, street(plan.maker, 3, 0));
  }
  struct Lot {
    int x, width, top, house;
    bool lit;
  };
  constexpr Lot kLots[] = {{0, 7, 13, 0, true},   {7, 9, 17, 2, false}, {18, 7, 10, 1, true}, {25, 8, 15, 3, true},
                           {35, 9, 12, 0, true},  {44, 7, 18, 2, true}, {54, 9, 9, 1, false}, {63, 8, 16, 0, true},
                           {71, 7, 12, 3, false}, {81, 8, 14, 2, true}, {89, 7, 11, 0, true}};
  for (const Lot& lot : kLots) {
    plan.house(lot.x, lot.width, lot.top, kHouses[lot.house], lot.lit);
    const int shopX = lot.x + 1;
    const bool green = lot.house % 2 == 0;
    for (int i = 0; i < 3; ++i) {
      plan.walls.lay({shopX + i, kStreet - 1}, 0, shop(plan.maker, lot.house % 3));
      plan.things.lay({shopX + i, kStreet - 2}, 0, awning(plan.maker, i == 0 ? -1 : i == 2 ? 1 : 0, green));
    }
    plan.walls.lay({lot.x + lot.width - 2, kStreet - 2}, 0, door(plan.maker, kHouses[lot.house], true));
    plan.walls.lay({lot.x + lot.width - 2, kStreet - 1}, 0, door(plan.maker, kHouses[lot.house], false));
    plan.things.lay({lot.x + lot.width - 1, lot.top + 3}, 0, lantern(plan.maker, 0));
    plan.light(lot.x + lot.width - 1, lot.top + 3);
    for (int y = lot.top + 1; y < kStreet; ++y) plan.things.lay({lot.x, y}, 0, pipe(plan.maker));
  }
  // Balconies to climb by, and ladders between them.
  constexpr int kBalconies[][4] = {{2, 23, 4, 0},  {9, 21, 5, 1},  {14, 24, 6, 0}, {20, 19, 4, 1}, {23, 22, 6, 0},
                                   {31, 24, 5, 1}, {37, 20, 5, 0}, {41, 24, 4, 1}, {45, 21, 5, 0}, {50, 23, 5, 1},
                                   {56, 18, 5, 0}, {60, 22, 6, 1}, {66, 19, 4, 0}, {69, 23, 5, 1}, {76, 20, 6, 0},
                                   {83, 23, 4, 1}, {86, 18, 5, 0}, {90, 22, 4, 1}};
  for (const auto& [x, y, width, look] : kBalconies) plan.balcony(x, y, width, look);
  for (const auto& [x, from, to] :
       {std::tuple(16, 24, 28), std::tuple(33, 24, 28), std::tuple(52, 23, 28), std::tuple(79, 20, 28)}) {
    for (int y = from; y < to; ++y) plan.things.lay({x, y}, 0, stander(plan.maker, "ladder"));
  }
  for (const int x : {5, 17, 29, 41, 53, 65, 77, 87}) plan.lampPost(x);
  constexpr std::pair<int, const char*> kThings[] = {
      {16, "crate"},  {24, "barrel"}, {13, "bench"},           {34, "crate"},
      {47, "bench"},  {52, "crate"},  {58, "tub with a tree"}, {70, "bench"},
      {79, "barrel"}, {80, "crate"},  {93, "tub with a tree"}, {3, "tub with a tree"}};
  for (const auto& [x, name] : kThings) plan.things.lay({x, kStreet - 1}, 0, stander(plan.maker, name));
  plan.things.lay({52, kStreet - 2}, 0, stander(plan.maker, "cat"));
  for (const auto& [x, y] :
       {std::pair(16, 18), std::pair(17, 18), std::pair(33, 17), std::pair(34, 17), std::pair(52, 17),
        std::pair(53, 17), std::pair(78, 15), std::pair(79, 15), std::pair(80, 15)})
    plan.things.lay({x, y}, 0, stander(plan.maker, "washing"));

  plan.lights.blend = Blend::add;
  plan.lights.opacity = 60;
  // With the camera at the street (736 px down) roofs lie behind the houses' feet, towers above them.
  MadeLayer far = hung("Far towers", 3, 2, {20, 20}, {0, 127});
  MadeLayer near = hung("Chimneys", 4, 3, {45, 45}, {0, 321});
  MadeLayer cables = hung("Near wires", 6, 4, {140, 100}, {0, 752});
  MadeLayer above = hung("Sky", 7, 1, {0, 0}, {});
  above.repeatsDown = true;
  for (MadeLayer* one : {&above, &far, &near}) one->level = "Far away";
  return {"Lantern Row",
          {GridKind::orthogonal, {kTile, kTile}},
          {0, 0, kWide, kHigh},
          {{"row", "P", {kTile, kTile}, {}, plan.maker.drawn(), {}, {}},
           {"sky", "Q", {448, 288}, {}, sky(), {}, {}},
           {"towers", "R", {288, 210}, {}, towers(), {}, {}},
           {"chimneys", "S", {320, 300}, {}, chimneys(), {}, {}},
           {"wires", "T", {512, 96}, {}, wires(), {}, {}}},
          {above, far, near, plan.walls, plan.ground, plan.things, plan.lights, cables},
          {{"Far away", 0}},
          Seen::sideOn};
}

}  // namespace uq::art
