// Roof Market: flat roofs over narrow lanes, staggered diamonds, with stalls one level up and planks from roof to roof.
#include "art/Scenery.h"
#include "art/Slanted.h"
#include "art/TileMaker.h"

namespace uq::art {

namespace {

constexpr int kColumns = 20;
constexpr int kRows = 40;
constexpr int kRise = 32;
enum Sheets : std::size_t { kRoofs, kMarket };

constexpr GridShape kGrid{GridKind::staggered, {kSlantW, kSlantH}};

int wrapped(int a, int by) { return (a % by + by) % by; }

// A house is 7 × 6 cells of side coordinates, with a lane of three along two of its sides.
struct House {
  bool inside = false;
  int id = 0;
  int u = 0;  // inside the house
  int v = 0;
};
constexpr int kHouseU = 7;
constexpr int kHouseV = 6;
House houseAt(SidePos at) {
  const int u = at.u + 1;
  const int v = at.v + 30;
  House house{false, floorDiv(u, 10) * 16 + floorDiv(v, 9), wrapped(u, 10), wrapped(v, 9)};
  house.inside = house.u < kHouseU && house.v < kHouseV;
  return house;
}

Texture roofOf(int style, int seed) {
  switch (style) {
    case 0: return [seed](int a, int b, int x, int y) {  // tar in sheets
      if (a % 16 == 15) return Ink::ink;
      if (scattered(a / 6, b / 6, seed, 13) == 0) return dither(x, y, 8) ? Ink::steel : Ink::slate;
      return dither(x, y, 2) ? Ink::steel : Ink::slate;
    };
    case 1: return courses(Ink::brick, Ink::darkBrick, Ink::copper, 8, 16);  // clay slabs
    case 2: return planks(Ink::copper, Ink::darkBrick, Ink::amber);
    default: return slabs(seed);
  }
}

Texture wall(bool lit, int style, int windows) {
  const bool pale = style == 1 || style == 3;
  const Texture stones = lit ? (pale ? courses(Ink::paleStone, Ink::stone, Ink::linen, 6, 12) : courses(Ink::brick, Ink::darkBrick, Ink::copper, 4, 8))
                             : (pale ? courses(Ink::stone, Ink::steel, Ink::paleStone, 6, 12) : courses(Ink::darkBrick, Ink::ink, Ink::brick, 4, 8));
  return [=](int a, int b, int x, int y) {
    if (b < 3) return b == 2 ? Ink::ink : lit ? Ink::paleStone : Ink::stone;
    if (b > 28) return Ink::slate;
    if (windows == 1 && a > 9 && a < 22 && b > 8 && b < 22) {
      if (a == 10 || a == 21 || b == 9 || b == 21) return Ink::ink;
      if (a == 15 || b == 15) return Ink::darkBrick;
      return b < 14 || dither(x, y, 7) ? Ink::lamp : Ink::amber;
    }
    if (windows == 1 && b == 22 && a > 8 && a < 23) return Ink::linen;
    if (windows == 2 && a > 10 && a < 23 && b > 7) {
      if (a == 11 || a == 22 || b == 8) return Ink::ink;
      if (a == 20 && b == 19) return Ink::lamp;
      return a % 4 == 0 ? Ink::deepCanal : Ink::canal;
    }
    if (windows == 3 && a > 7 && a < 25 && b > 9 && b < 20) {  // shutters
      if (a == 8 || a == 24 || b == 10 || b == 19 || a == 16) return Ink::ink;
      return b % 3 == 0 ? Ink::plum : Ink::rose;
    }
    return stones(a, b, x, y);
  };
}

unsigned roofBlock(TileMaker& make, int style, int look, int mask, int windows) {
  const char* styles[] = {"tar roof", "clay roof", "plank roof", "slab roof"};
  std::string name = std::string(styles[style]) + " " + std::to_string(look + 1);
  if (mask > 0) name += ", rim " + std::to_string(mask);
  const char* openings[] = {"", ", window", ", door", ", shutters"};
  name += openings[windows];
  return make.tile(name, [=](Pixels& p) {
    const Texture top = roofOf(style, look);
    const auto rimmed = [=](int a, int b, int x, int y) {
      const bool rim = (mask & 1 && a > 27) || (mask & 2 && b > 27) || (mask & 4 && a < 4) || (mask & 8 && b < 4);
      if (!rim) return top(a, b, x, y);
      const bool edge = (mask & 1 && a == 27) || (mask & 2 && b == 27) || (mask & 4 && a == 4) || (mask & 8 && b == 4);
      if (edge) return Ink::ink;
      return dither(x, y, 4) ? Ink::linen : Ink::paleStone;
    };
    box(standOf(p), {0, 0, 1, 1, 0, kRise}, rimmed, wall(true, style, windows), wall(false, style, windows == 2 ? 1 : windows));
  });
}

unsigned laneTile(TileMaker& make, int look) {
  return make.tile("lane " + std::to_string(look + 1), [=](Pixels& p) {
    const Texture stones = setts(look + 20);
    sheet(standOf(p), {0, 0, 1, 1}, [=](int a, int b, int x, int y) {
      // In the shade of the houses.
      const Ink ink = stones(a, b, x, y);
      return ink == Ink::paleStone ? Ink::stone : ink == Ink::stone ? Ink::steel : Ink::slate;
    });
    if (look == 4) {
      sheet(standOf(p), {0, 0, 1, 1}, [](int a, int b, int x, int y) {
        const int d = (a - 15) * (a - 15) * 2 + (b - 17) * (b - 17) + scattered(a / 4, b / 4, 3, 40);
        return d > 140 ? Ink::none : dither(x, y, 6) ? Ink::amber : Ink::farSky;
      });
    }
  });
}

unsigned flatTile(TileMaker& make, const std::string& name) {
  return make.tile(name, [&](Pixels& p) {
    const Stand stand = standOf(p);
    if (name == "plank bridge" || name == "plank bridge, other way") {
      const bool other = name != "plank bridge";
      const Box over = other ? Box{-0.02, 0.22, 1.02, 0.78, 0, 0} : Box{0.22, -0.02, 0.78, 1.02, 0, 0};
      const Texture boards = planks(Ink::copper, Ink::darkBrick, Ink::amber);
      sheet(stand, over, other ? Texture([=](int a, int b, int x, int y) { return b < 2 || b > 15 ? Ink::darkBrick : boards(b, a, x, y); })
                               : Texture([=](int a, int b, int x, int y) { return a < 2 || a > 15 ? Ink::darkBrick : boards(a, b, x, y); }));
    } else if (name.starts_with("rug")) {
      const Ink field = name == "rug, rose" ? Ink::rose : name == "rug, canal" ? Ink::canal : Ink::copper;
      const Ink rim = name == "rug, rose" ? Ink::plum : name == "rug, canal" ? Ink::deepCanal : Ink::darkBrick;
      sheet(stand, {0.12, 0.22, 0.88, 0.78, 0, 0}, [=](int a, int b, int, int) {
        if (a < 2 || b < 2 || a > 21 || b > 15) return a % 2 ? Ink::linen : rim;
        if ((a - 12) * (a - 12) + (b - 9) * (b - 9) * 2 < 26) return Ink::lamp;
        return (a + b) % 6 == 0 || (a - b + 60) % 6 == 0 ? rim : field;
      });
    } else if (name == "skylight") {
      box(stand, {0.2, 0.2, 0.8, 0.8, 0, 5},
          [](int a, int b, int x, int y) { return a % 6 == 0 || b % 9 == 0 ? Ink::slate : dither(x, y, 6) ? Ink::amber : Ink::lamp; },
          plain(Ink::paleStone), plain(Ink::stone));
      p.outline(Ink::ink);
    } else if (name == "hatch") {
      sheet(stand, {0.25, 0.25, 0.75, 0.75, 0, 0}, [](int a, int b, int, int) {
        return a < 1 || b < 1 || a > 14 || b > 14 ? Ink::ink : b % 4 == 0 ? Ink::darkBrick : Ink::copper;
      });
    } else if (name == "chalk marks") {
      sheet(stand, {0, 0, 1, 1}, [](int a, int b, int x, int y) {
        const bool line = (a == 8 || a == 20) ? b > 4 && b < 28 : (b == 5 || b == 16 || b == 27) && a >= 8 && a <= 20;
        return line && dither(x, y, 12) ? Ink::linen : Ink::none;
      });
    }
  });
}

// --- Things on the roofs, 64 × 96 px

struct Stall {
  const char* name;
  Ink stripe;
  Ink dark;
  Ink wares[3];
};
constexpr Stall kStalls[] = {{"stall, fruit", Ink::rose, Ink::plum, {Ink::amber, Ink::leaf, Ink::brick}},
                             {"stall, fish", Ink::lightCanal, Ink::canal, {Ink::farSky, Ink::steel, Ink::linen}},
                             {"stall, bread", Ink::amber, Ink::copper, {Ink::copper, Ink::lamp, Ink::brick}},
                             {"stall, greens", Ink::leaf, Ink::moss, {Ink::leaf, Ink::moss, Ink::lamp}},
                             {"stall, cloth", Ink::dusk, Ink::brick, {Ink::rose, Ink::canal, Ink::amber}},
                             {"stall, books", Ink::farSky, Ink::steel, {Ink::darkBrick, Ink::deepMoss, Ink::plum}}};

void drawStall(Pixels& p, const Stall& stall) {
  const Stand stand = standOf(p);
  for (const auto& [u, v] : {std::pair(0.1, 0.12), std::pair(0.82, 0.12)}) {
    box(stand, {u, v, u + 0.08, v + 0.08, 0, 44}, plain(Ink::copper), plain(Ink::brick), plain(Ink::darkBrick));
  }
  box(stand, {0.1, 0.45, 0.9, 0.85, 0, 15},
      [&](int a, int b, int, int) {
        const int heap = (a / 8 + b / 6) % 3;
        return a % 8 == 7 || b % 6 == 5 ? Ink::darkBrick : stall.wares[heap];
      },
      planks(Ink::copper, Ink::darkBrick, Ink::amber), planks(Ink::brick, Ink::darkBrick, Ink::copper));
  for (int i = 0; i < 14; ++i) {  // wares stand up a little
    const Spot at = spot(stand, 0.16 + scattered(i, 0, 2, 66) / 100.0, 0.5 + scattered(i, 1, 2, 26) / 100.0, 17);
    p.disc(at.x, at.y, 1, stall.wares[i % 3]);
  }
  for (const auto& [u, v] : {std::pair(0.1, 0.8), std::pair(0.82, 0.8)}) {
    box(stand, {u, v, u + 0.08, v + 0.08, 0, 34}, plain(Ink::copper), plain(Ink::brick), plain(Ink::darkBrick));
  }
  // The awning falls towards the lower left, in stripes.
  for (int step = 0; step < 14; ++step) {
    const double v = 0.05 + step * 0.064;
    const int z = 46 - step;
    const auto stripes = [&, step](int a, int, int x, int y) {
      const bool coloured = a / 5 % 2 == 0;
      if (step == 13) return coloured ? stall.dark : Ink::paleStone;
      if (coloured) return dither(x, y, step / 2) ? stall.dark : stall.stripe;
      return dither(x, y, step / 2) ? Ink::paleStone : Ink::linen;
    };
    box(stand, {0.02, v, 0.98, v + 0.066, z, 1}, stripes, stripes, plain(stall.dark));
  }
  // Its hem.
  for (int x = 0; x < p.width(); ++x) {
    for (int y = p.height() - 1; y > 0; --y) {
      const Ink ink = p.at(x, y);
      if (ink != stall.dark && ink != Ink::paleStone) continue;
      if (y < p.height() - 30 && x < 33) {
        for (int drop = 1; drop <= (x / 2 % 5 < 3 ? 4 : 3); ++drop) p.dot(x, y + drop, ink);
      }
      break;
    }
  }
  p.outline(Ink::ink);
  groundShadow(stand, {0.1, 0.1, 0.9, 0.9}, 0.1);
}

unsigned marketThing(TileMaker& make, const std::string& name) {
  for (const Stall& stall : kStalls) {
    if (name == stall.name) return make.tile(name, [&](Pixels& p) { drawStall(p, stall); });
  }
  return make.tile(name, [&](Pixels& p) {
    const Stand stand = standOf(p);
    const Spot foot = spot(stand, 0.5, 0.5);
    Box shade{0.3, 0.3, 0.7, 0.7};
    double length = 0.3;
    if (name == "chimney") {
      box(stand, {0.3, 0.3, 0.7, 0.7, 0, 34}, plain(Ink::ink), courses(Ink::brick, Ink::darkBrick, Ink::copper, 4, 8), courses(Ink::darkBrick, Ink::ink, Ink::brick, 4, 8));
      box(stand, {0.25, 0.25, 0.75, 0.75, 34, 4}, plain(Ink::slate), plain(Ink::paleStone), plain(Ink::stone));
      for (const double u : {0.36, 0.56}) box(stand, {u, 0.42, u + 0.1, 0.56, 38, 7}, plain(Ink::ink), plain(Ink::copper), plain(Ink::brick));
    } else if (name == "water tank") {
      for (const auto& [u, v] : {std::pair(0.2, 0.2), std::pair(0.72, 0.2), std::pair(0.2, 0.72), std::pair(0.72, 0.72)}) {
        box(stand, {u, v, u + 0.08, v + 0.08, 0, 20}, plain(Ink::slate), plain(Ink::steel), plain(Ink::slate));
      }
      for (int y = 20; y <= 56; ++y) {
        for (int x = -20; x <= 20; ++x) {
          const int bend = (400 - x * x) / 42;
          const bool hoop = y % 12 == 8;
          p.dot(foot.x + x, foot.y - y + bend, hoop ? Ink::slate : x % 5 == 0 ? Ink::darkBrick : x < -4 ? Ink::copper : Ink::brick);
        }
      }
      for (int y = 0; y < 18; ++y) {
        const int half = 23 - y * 23 / 18;
        for (int x = -half; x <= half; ++x) p.dot(foot.x + x, foot.y - 54 - y + (half * half - x * x) / 60, x < 0 ? Ink::steel : Ink::slate);
      }
      shade = {0.15, 0.15, 0.85, 0.85};
      length = 0.12;
    } else if (name == "lantern string") {
      for (const int x : {6, 57}) {
        p.box(x, foot.y - 56, 2, 56 - 0, Ink::darkBrick);
        p.down(x, foot.y - 56, 56, Ink::copper);
      }
      for (int x = 7; x <= 57; ++x) p.dot(x, foot.y - 55 + (25 * 25 - (x - 32) * (x - 32)) / 62, Ink::ink);
      for (const auto& [x, ink] : {std::pair(15, Ink::lamp), std::pair(26, Ink::dusk), std::pair(38, Ink::lamp), std::pair(49, Ink::amber)}) {
        const int y = foot.y - 52 + (25 * 25 - (x - 32) * (x - 32)) / 62;
        p.disc(x, y + 2, 3, ink);
        p.dot(x - 1, y + 1, Ink::linen);
      }
      length = 0;
    } else if (name == "washing") {
      for (const int x : {5, 58}) p.box(x, foot.y - 50, 2, 50, Ink::darkBrick);
      for (int x = 6; x <= 58; ++x) p.dot(x, foot.y - 49 + (26 * 26 - (x - 32) * (x - 32)) / 110, Ink::ink);
      for (const auto& [x, w, h, ink, fold] : {std::tuple(10, 11, 17, Ink::linen, Ink::paleStone), std::tuple(23, 8, 12, Ink::dusk, Ink::brick), std::tuple(33, 12, 19, Ink::farSky, Ink::steel), std::tuple(47, 8, 13, Ink::lamp, Ink::amber)}) {
        const int y = foot.y - 46 + (26 * 26 - (x + w / 2 - 32) * (x + w / 2 - 32)) / 110;
        p.box(x, y, w, h, ink);
        p.down(x + w - 3, y + 2, h - 2, fold);
        p.across(x, y + h - 1, w, fold);
      }
      length = 0;
    } else if (name == "palm in a pot") {
      box(stand, {0.34, 0.34, 0.66, 0.66, 0, 11}, plain(Ink::darkBrick), plain(Ink::copper), plain(Ink::brick));
      p.box(foot.x - 1, foot.y - 40, 3, 30, Ink::copper);
      for (int i = 0; i < 7; ++i) {
        const int side = i - 3;
        for (int t = 0; t < 20; ++t) {
          const int x = foot.x + side * t / 3;
          const int y = foot.y - 41 - (side == 0 ? t : t * (4 - std::abs(side)) / 5) + t * t / 26;
          p.box(x, y, 2, 2, t % 3 == 0 ? Ink::leaf : side < 0 ? Ink::moss : Ink::deepMoss);
        }
      }
    } else if (name == "flower boxes") {
      for (const double v : {0.2, 0.55}) {
        box(stand, {0.15, v, 0.85, v + 0.22, 0, 8}, grass(3), plain(Ink::copper), plain(Ink::brick));
        for (int i = 0; i < 7; ++i) {
          const Spot at = spot(stand, 0.2 + i * 0.09, v + 0.1, 11 + i % 2 * 2);
          p.disc(at.x, at.y, 1, i % 3 == 0 ? Ink::rose : i % 3 == 1 ? Ink::lamp : Ink::dusk);
        }
      }
      shade = {0.15, 0.2, 0.85, 0.77};
      length = 0.15;
    } else if (name == "table") {
      p.box(foot.x - 1, foot.y - 14, 3, 14, Ink::darkBrick);
      p.disc(foot.x, foot.y - 15, 3, Ink::copper);
      for (int y = -6; y <= 6; ++y) {
        for (int x = -14; x <= 14; ++x) {
          if (x * x + 4 * y * y <= 190) p.dot(foot.x + x, foot.y - 16 + y, (x + y) % 6 < 3 ? Ink::linen : Ink::rose);
        }
      }
      p.box(foot.x - 3, foot.y - 22, 4, 5, Ink::lightCanal);
      p.disc(foot.x + 5, foot.y - 17, 2, Ink::amber);
      for (const auto& [x, y] : {std::pair(-20, 4), std::pair(19, 4)}) {
        p.box(foot.x + x - 4, foot.y + y - 9, 9, 3, Ink::copper);
        p.box(foot.x + x - 3, foot.y + y - 6, 2, 6, Ink::darkBrick);
        p.box(foot.x + x + 2, foot.y + y - 6, 2, 6, Ink::darkBrick);
      }
      length = 0.2;
    } else if (name == "baskets") {
      for (const auto& [u, v, ink] : {std::tuple(0.3, 0.35, Ink::brick), std::tuple(0.65, 0.4, Ink::leaf), std::tuple(0.45, 0.7, Ink::amber)}) {
        const Spot at = spot(stand, u, v);
        for (int y = 0; y < 8; ++y) p.across(at.x - 7 + y / 4, at.y - y, 15 - y / 2, y % 2 ? Ink::copper : Ink::amber);
        p.disc(at.x, at.y - 9, 5, ink);
        p.dot(at.x - 2, at.y - 12, Ink::linen);
      }
    } else if (name == "pigeon loft") {
      for (const auto& [u, v] : {std::pair(0.2, 0.2), std::pair(0.72, 0.72), std::pair(0.2, 0.72), std::pair(0.72, 0.2)}) {
        box(stand, {u, v, u + 0.08, v + 0.08, 0, 14}, plain(Ink::copper), plain(Ink::brick), plain(Ink::darkBrick));
      }
      const auto holes = [](Ink wallInk, Ink joint) {
        return [=](int a, int b, int, int) {
          const int d = (a % 9 - 4) * (a % 9 - 4) + (b % 10 - 5) * (b % 10 - 5);
          return d < 6 ? Ink::ink : b % 10 == 9 ? joint : wallInk;
        };
      };
      box(stand, {0.15, 0.15, 0.85, 0.85, 14, 30}, plain(Ink::slate), holes(Ink::linen, Ink::paleStone), holes(Ink::paleStone, Ink::stone));
      for (int step = 0; step < 12; ++step) {
        const double in = step * 0.036;
        box(stand, {0.06 + in, 0.06 + in, 0.94 - in, 0.94 - in, 44 + step, 1}, plain(Ink::brick), mixed(Ink::copper, Ink::brick, step % 3 * 5), plain(Ink::darkBrick));
      }
      const Spot perch = spot(stand, 0.5, 0.5, 58);
      p.disc(perch.x, perch.y, 3, Ink::linen);
      p.disc(perch.x + 3, perch.y - 3, 1, Ink::linen);
      shade = {0.15, 0.15, 0.85, 0.85};
      length = 0.12;
    } else if (name == "street lamp") {
      p.box(foot.x - 1, foot.y - 40, 3, 40, Ink::slate);
      p.box(foot.x - 4, foot.y - 52, 9, 12, Ink::lamp);
      p.box(foot.x + 1, foot.y - 52, 4, 12, Ink::amber);
      p.box(foot.x - 5, foot.y - 54, 11, 3, Ink::slate);
      length = 0.2;
    } else if (name == "handrail") {
      for (const double u : {0.02, 0.48, 0.94}) box(stand, {u, 0.9, u + 0.05, 0.95, 0, 16}, plain(Ink::steel), plain(Ink::steel), plain(Ink::slate));
      for (const int z : {8, 15}) box(stand, {0.0, 0.91, 1.0, 0.94, z, 2}, plain(Ink::stone), plain(Ink::steel), plain(Ink::slate));
      length = 0;
    }
    p.outline(Ink::ink);
    if (length > 0) groundShadow(stand, shade, length);
  });
}

}  // namespace

Scenery roofMarket() {
  TileMaker roofs(kSlantW, 64, 7);
  TileMaker market(kSlantW, 96, 7);
  MadeLayer lanes{"Lanes & houses", "ground", 2, "", {}};
  MadeLayer below{"Lane things", "things", 1, "", {}};
  MadeLayer mats{"Planks & rugs", "ground", 5, "Roofs", {}};
  MadeLayer stalls{"Stalls", "things", 0, "Roofs", {}};

  const auto grid = makeGrid(kGrid);
  for (int row = 0; row < kRows; ++row) {
    for (int column = 0; column < kColumns; ++column) {
      const CellPos at{column, row};
      const SidePos side = grid->toSide(at);
      const House house = houseAt(side);
      if (!house.inside) {
        lanes.lay(at, kRoofs, laneTile(roofs, scattered(column, row, 3, 40) == 0 ? 4 : scattered(column, row, 4, 4)));
        if (scattered(column, row, 41, 17) == 0) below.lay(at, kMarket, marketThing(market, "street lamp"));
        if (scattered(column, row, 42, 23) == 0) below.lay(at, kMarket, marketThing(market, "baskets"));
        continue;
      }
      const int style = scattered(house.id, 5, 9, 4);
      const int mask = (house.u == kHouseU - 1 ? 1 : 0) | (house.v == kHouseV - 1 ? 2 : 0) | (house.u == 0 ? 4 : 0) | (house.v == 0 ? 8 : 0);
      const bool front = mask & 3;
      const int look = scattered(column, row, 6, mask == 0 ? 4 : 1);
      const int windows = front ? scattered(column, row, 12, 4) : 0;
      lanes.lay(at, kRoofs, roofBlock(roofs, style, look, mask, windows));
    }
  }

  // What stands on each roof, by its own plan: two rows of stalls with a way between, or a garden, or a yard.
  const char* const kRugs[] = {"rug, rose", "rug, canal", "rug, copper"};
  for (int row = 0; row < kRows; ++row) {
    for (int column = 0; column < kColumns; ++column) {
      const CellPos at{column, row};
      const House house = houseAt(grid->toSide(at));
      const auto on = [&](const char* name, bool mirrored = false) { stalls.lay(at, kMarket, marketThing(market, name), mirrored); };
      const auto lie = [&](const char* name) { mats.lay(at, kRoofs, flatTile(roofs, name)); };
      if (!house.inside) {
        // Planks over the lanes, two for each house.
        if (house.u >= kHouseU && house.v == 2) lie("plank bridge, other way");
        if (house.v >= kHouseV && house.u == 3) lie("plank bridge");
        continue;
      }
      const int kind = scattered(house.id, 3, 31, 3);
      if (kind == 0) {
        if (house.v == 1 && house.u > 0 && house.u < 6) on(kStalls[scattered(house.u, house.id, 2, 6)].name);
        if (house.v == 4 && house.u % 2 == 1) on(kStalls[scattered(house.u, house.id, 7, 6)].name);
        if (house.v == 4 && house.u % 2 == 0 && house.u > 0) on("baskets");
        if (house.v == 2 && house.u == 0) on("lantern string");
        if (house.v == 3 && (house.u == 2 || house.u == 4)) lie(kRugs[scattered(house.id, house.u, 8, 3)]);
      } else if (kind == 1) {
        if (house.u == 1 && house.v > 0 && house.v < 5) on(kStalls[scattered(house.v, house.id, 3, 6)].name, true);
        if (house.u == 4 && (house.v == 1 || house.v == 4)) on("table");
        if (house.u == 5 && house.v == 0) on("palm in a pot");
        if (house.u == 6 && house.v == 0) on("palm in a pot");
        if (house.u == 3 && house.v == 3) lie(kRugs[scattered(house.id, 1, 8, 3)]);
        if (house.u == 5 && house.v == 3) lie("skylight");
        if (house.u == 3 && house.v == 0) on("chimney");
        if (house.u == 6 && house.v == 5) on("flower boxes");
      } else {
        const int turn = scattered(house.id, 2, 5, 3);
        if (house.u == 1 && house.v == 1) on(turn == 1 ? "pigeon loft" : "water tank");
        if (house.u == 4 && house.v == 1 + turn % 2) on("washing", turn == 2);
        if (house.u == 5 && house.v == 4) on(turn == 1 ? "water tank" : "pigeon loft");
        if (house.u == 2 && house.v == 3 + turn % 2) on("flower boxes");
        if (house.u == 6 && house.v == 2) on(turn == 0 ? "chimney" : "lantern string");
        if (house.u == 3 && house.v == 2) lie("chalk marks");
        if (house.u == 0 && house.v == 4) lie("hatch");
        if (house.u == 6 && house.v == 0) on("palm in a pot");
      }
    }
  }
  return {"Roof Market",
          kGrid,
          {0, 0, kColumns, kRows},
          {{"roofs", "G", {kSlantW, 64}, {}, roofs.drawn(), {}, {}}, {"market", "H", {kSlantW, 96}, {}, market.drawn(), {}, {}}},
          {lanes, below, mats, stalls},
          {{"Roofs", kRise}}};
}

}  // namespace uq::art
