// Ward Board: the city of Tallowmere as a board of pointy hexagons — wards, parks, the canal, tram lines and their stops.
#include <cmath>
#include <set>

#include "art/Hexes.h"
#include "art/Scenery.h"
#include "art/Slanted.h"
#include "art/TileMaker.h"

namespace uq::art {

namespace {

constexpr int kColumns = 24;
constexpr int kRows = 20;
constexpr GridShape kGrid{GridKind::hexagonalPointy, {56, 64}, 32};
constexpr unsigned kAll = 63;
enum Sheets : std::size_t { kWards, kLines };

// A street two pixels broad runs along every side of a ward.
Ink street(const Hex& hex, int x, int y, Ink inside, unsigned sides = kAll) {
  const double edge = hex.fromSides(sides, x, y);
  if (edge < 1.2) return Ink::slate;
  if (edge < 2.6) return dither(x, y, 5) ? Ink::paleStone : Ink::stone;
  return inside;
}

struct Roof {
  Ink light, dark, joint;
};
constexpr Roof kRoofs[] = {{Ink::copper, Ink::brick, Ink::darkBrick}, {Ink::farSky, Ink::steel, Ink::slate}, {Ink::dusk, Ink::rose, Ink::plum}};

// A house seen from above at an angle: the roof in two halves, and the front below it.
void house(Pixels& p, int x, int y, int w, int depth, const Roof& roof, bool lit) {
  p.box(x, y, w, depth / 2, roof.dark);
  p.box(x, y + depth / 2, w, depth - depth / 2, roof.light);
  for (int i = 3; i < w; i += 4) p.down(x + i, y + 1, depth - 1, roof.dark);
  p.across(x, y + depth / 2, w, roof.joint);
  p.box(x + 1, y + depth, w - 2, 6, Ink::linen);
  p.across(x + 1, y + depth, w - 2, Ink::paleStone);
  for (int i = 3; i + 2 < w; i += 5) p.box(x + i, y + depth + 2, 2, 3, lit ? Ink::lamp : Ink::slate);
  p.frame(x - 1, y - 1, w + 2, depth + 8, Ink::ink);
  p.box(x + w - 5, y + 1, 3, 4, Ink::darkBrick);
  p.frame(x + w - 6, y, 5, 6, Ink::ink);
  for (int i = 0; i < 4; ++i) {  // its shadow
    for (int j = 3; j < depth + 8; ++j) {
      if (dither(x + i, y + j, 10)) p.dot(x + w + 1 + i, y + j, Ink::slate);
    }
  }
}

void tree(Pixels& p, int x, int y, int r) {
  p.box(x, y + r - 1, 2, 4, Ink::darkBrick);
  for (int i = 0; i < r; ++i) {
    if (dither(x + i, y, 9)) p.across(x + 2, y + r + 1, i, Ink::deepMoss);
  }
  p.disc(x, y, r + 1, Ink::ink);
  p.disc(x, y, r, Ink::deepMoss);
  p.disc(x - 1, y - 1, r - 2, Ink::moss);
  p.dot(x - 2, y - 2, Ink::leaf);
  p.dot(x - 1, y - 3, Ink::leaf);
}

Ink lawn(int x, int y, int seed) {
  const int tuft = scattered(x / 4, y / 4, seed, 8);
  if (tuft == 0 && x % 4 == 1 && y % 4 < 3) return Ink::leaf;
  if (tuft == 1 && y % 4 == 2) return Ink::deepMoss;
  return Ink::moss;
}

unsigned ward(TileMaker& make, int colour, int look) {
  const char* colours[] = {"copper ward ", "slate ward ", "rose ward "};
  return make.tile(colours[colour] + std::to_string(look + 1), [=](Pixels& p) {
    const Hex hex(p, kGrid);
    hex.fill([&](int x, int y) {
      const bool joint = y % 5 == 4 || (x + y / 5 % 2 * 4) % 8 == 7;
      return street(hex, x, y, joint ? Ink::steel : scattered(x / 8, y / 5, look, 5) == 0 ? Ink::paleStone : Ink::stone);
    });
    // Houses in two or three rows, a tree where there is room.
    const int plan = look % 3;
    const auto one = [&](int x, int y, int w, int depth) { house(p, x, y, w, depth, kRoofs[(colour + scattered(x, y, look, 7) / 6) % 3], scattered(x, y, look + 9, 3) > 0); };
    if (plan == 0) {
      one(21, 9, 15, 8);
      one(8, 26, 18, 9);
      one(32, 26, 15, 9);
      tree(p, 20 + look, 50, 4);
      tree(p, 32, 51, 4);
    } else if (plan == 1) {
      one(10, 19, 14, 10);
      one(30, 17, 16, 12);
      one(18, 39, 21, 9);
      tree(p, 27, 10, 4);
    } else {
      one(7, 18, 12, 18);
      one(25, 12, 14, 9);
      one(26, 33, 21, 10);
      tree(p, 42, 24, 4);
      tree(p, 17, 46, 4);
    }
  });
}

unsigned park(TileMaker& make, int look) {
  return make.tile("park " + std::to_string(look + 1), [=](Pixels& p) {
    const Hex hex(p, kGrid);
    hex.fill([&](int x, int y) {
      if (hex.fromSides(kAll, x, y) < 4 && hex.fromSides(kAll, x, y) >= 2.6) return Ink::deepMoss;
      return street(hex, x, y, lawn(x, y, look));
    });
    if (look % 2 == 0) {
      hex.way(look % 6, (look + 3) % 6, 6, [](int x, int y, double across) {
        return across > 2 || across < -2 ? Ink::stone : dither(x, y, 4) ? Ink::linen : Ink::paleStone;
      });
    } else {
      const int cx = 24 + look;
      hex.fill([&](int x, int y) {
        const double d = std::hypot((x - cx) / 11.0, (y - 34) / 7.0);
        return d > 1.15 ? Ink::none : d > 1 ? Ink::paleStone : y % 3 == 0 && (x + y) % 7 < 3 ? Ink::lightCanal : Ink::canal;
      });
    }
    for (int i = 0; i < 7; ++i) {
      const int x = 9 + scattered(i, look, 1, 38);
      const int y = 14 + scattered(i, look, 2, 34);
      if (std::abs(y - 33) < 10 && std::abs(x - 28) < 14) continue;
      if (hex.owns(x, y) && hex.fromSides(kAll, x, y) > 8) tree(p, x, y, 3 + scattered(i, look, 3, 3));
    }
  });
}

unsigned canal(TileMaker& make, unsigned banks, int look) {
  std::string name = "canal " + std::to_string(look + 1);
  if (banks > 0) name += ", banks";
  for (int side = 0; side < 6; ++side) {
    if (banks >> side & 1) name += " " + std::to_string(side + 1);
  }
  return make.tile(name, [=](Pixels& p) {
    const Hex hex(p, kGrid);
    hex.fill([&](int x, int y) {
      const double bank = hex.fromSides(banks, x, y);
      if (bank < 1.2) return Ink::slate;
      if (bank < 4) return dither(x, y, 5) ? Ink::linen : Ink::paleStone;
      if (bank < 6) return Ink::brick;
      if (bank < 7.2) return Ink::deepCanal;
      const int ripple = scattered((x + y * 3) / 9, y / 3, look, 7);
      const int along = (x + y * 3) % 9;
      if (ripple == 0 && y % 3 == 0 && along > 1 && along < 7) return Ink::lightCanal;
      if (ripple == 0 && y % 3 == 1 && along > 2 && along < 6) return Ink::deepCanal;
      return Ink::canal;
    });
    if (look == 3) {  // a boat
      p.box(21, 30, 16, 6, Ink::copper);
      p.box(22, 31, 9, 3, Ink::ink);
      p.box(32, 28, 4, 5, Ink::linen);
      p.across(22, 36, 14, Ink::darkBrick);
      p.frame(20, 29, 18, 8, Ink::ink);
    }
  });
}

unsigned special(TileMaker& make, const std::string& name) {
  return make.tile(name, [&](Pixels& p) {
    const Hex hex(p, kGrid);
    const bool green = name == "allotments";
    hex.fill([&](int x, int y) {
      const bool joint = y % 8 == 7 || (x + y / 8 % 2 * 4) % 8 == 7;
      return street(hex, x, y, green ? lawn(x, y, 3) : joint ? Ink::stone : Ink::paleStone);
    });
    if (name == "fountain square") {
      p.disc(28, 32, 13, Ink::stone);
      p.disc(28, 32, 12, Ink::linen);
      p.disc(28, 32, 10, Ink::canal);
      for (int i = 0; i < 12; ++i) p.across(21 + scattered(i, 1, 1, 12), 25 + i, 3, Ink::lightCanal);
      p.disc(28, 31, 3, Ink::paleStone);
      p.down(28, 20, 11, Ink::linen);
      p.dot(27, 19, Ink::lightCanal);
      p.dot(29, 19, Ink::lightCanal);
      for (const auto& [x, y] : {std::pair(28, 9), std::pair(10, 22), std::pair(46, 22), std::pair(10, 43), std::pair(46, 43)}) tree(p, x, y, 3);
    } else if (name == "market square") {
      for (int i = 0; i < 7; ++i) {
        const int x = 11 + i % 3 * 13 + (i / 3 % 2) * 4;
        const int y = 15 + i / 3 * 13;
        for (int s = 0; s < 10; ++s) p.down(x + s, y, 6, s / 2 % 2 ? Ink::linen : i % 3 == 0 ? Ink::rose : i % 3 == 1 ? Ink::lightCanal : Ink::amber);
        p.box(x, y + 6, 10, 3, Ink::darkBrick);
        p.frame(x - 1, y - 1, 12, 11, Ink::ink);
      }
    } else if (name == "tram depot") {
      p.box(9, 16, 38, 20, Ink::steel);
      for (int y = 16; y < 36; y += 4) p.across(9, y, 38, Ink::slate);
      for (int x = 14; x < 44; x += 11) {
        p.box(x, 20, 7, 8, Ink::lamp);
        p.dithered(x, 24, 7, 4, Ink::amber, 8);
        p.frame(x - 1, 19, 9, 10, Ink::ink);
      }
      p.box(9, 36, 38, 10, Ink::brick);
      for (int x = 12; x < 44; x += 12) {
        p.box(x, 38, 8, 8, Ink::ink);
        p.across(x, 37, 8, Ink::paleStone);
      }
      p.frame(8, 15, 40, 32, Ink::ink);
    } else if (name == "gasworks") {
      for (const auto& [x, y, r] : {std::tuple(19, 24, 10), std::tuple(37, 27, 9), std::tuple(26, 43, 9)}) {
        p.disc(x, y, r + 1, Ink::ink);
        p.disc(x, y, r, Ink::slate);
        p.disc(x - 2, y - 2, r - 3, Ink::steel);
        p.disc(x - 3, y - 3, r - 6, Ink::farSky);
      }
      p.box(40, 8, 5, 14, Ink::brick);
      p.down(40, 8, 14, Ink::copper);
      p.frame(39, 7, 7, 16, Ink::ink);
    } else if (name == "allotments") {
      for (int i = 0; i < 6; ++i) {
        const int x = 9 + i % 2 * 20;
        const int y = 16 + i / 2 * 12;
        p.box(x, y, 17, 9, Ink::darkBrick);
        for (int s = 1; s < 9; s += 3) {
          for (int d = 1; d < 16; d += 2) p.dot(x + d, y + s, i % 3 == 0 ? Ink::leaf : i % 3 == 1 ? Ink::dusk : Ink::lamp);
        }
        p.frame(x - 1, y - 1, 19, 11, Ink::deepMoss);
      }
    } else if (name == "town hall") {
      house(p, 9, 20, 38, 14, kRoofs[1], true);
      p.box(23, 8, 10, 30, Ink::paleStone);
      p.down(23, 8, 30, Ink::linen);
      p.disc(28, 15, 3, Ink::lamp);
      p.dot(28, 14, Ink::ink);
      p.dot(28, 15, Ink::ink);
      p.dot(29, 15, Ink::ink);
      for (int y = 0; y < 6; ++y) p.across(28 - y, 2 + y, 2 * y + 1, y % 2 ? Ink::canal : Ink::deepCanal);
      p.frame(22, 7, 12, 36, Ink::ink);
      p.box(26, 36, 4, 6, Ink::ink);
    } else if (name == "school") {
      house(p, 8, 16, 18, 14, kRoofs[0], true);
      house(p, 30, 16, 17, 14, kRoofs[0], true);
      p.box(14, 42, 28, 10, Ink::stone);
      p.frame(14, 42, 28, 10, Ink::linen);
      p.down(28, 42, 10, Ink::linen);
    }
  });
}

struct TramLine {
  const char* name;
  Ink light, dark;
};
constexpr TramLine kTrams[] = {{"copper line", Ink::amber, Ink::copper}, {"canal line", Ink::lightCanal, Ink::canal}, {"rose line", Ink::dusk, Ink::rose}};

unsigned track(TileMaker& make, int line, int from, int to) {
  if (from > to && to >= 0) std::swap(from, to);
  if (from < 0) std::swap(from, to);
  const std::string ends = to < 0 ? ", end " + std::to_string(from + 1) : " " + std::to_string(from + 1) + "-" + std::to_string(to + 1);
  return make.tile(kTrams[line].name + ends, [=](Pixels& p) {
    const Hex hex(p, kGrid);
    hex.way(from, to, 8.5, [=](int x, int y, double across) {
      const double off = std::abs(across);
      if (off > 3.2) return Ink::ink;
      if (off > 1.2 && off <= 2.4) return Ink::linen;
      return dither(x, y, 5) ? kTrams[line].light : kTrams[line].dark;
    });
  });
}

unsigned stop(TileMaker& make, int line, bool terminus) {
  return make.tile(std::string(kTrams[line].name) + (terminus ? ", terminus" : ", stop"), [=](Pixels& p) {
    const int r = terminus ? 10 : 7;
    p.disc(28, 32, r + 1, Ink::ink);
    p.disc(28, 32, r, Ink::linen);
    p.disc(28, 32, r - 2, kTrams[line].dark);
    p.disc(27, 31, r - 4, kTrams[line].light);
    if (terminus) {
      p.box(23, 28, 10, 7, Ink::linen);
      p.box(24, 29, 3, 3, Ink::slate);
      p.box(29, 29, 3, 3, Ink::slate);
      p.box(24, 35, 2, 2, Ink::ink);
      p.box(30, 35, 2, 2, Ink::ink);
    }
  });
}

}  // namespace

Scenery wardBoard() {
  TileMaker wards(56, 64, 8);
  TileMaker lines(56, 64, 8);
  MadeLayer ground{"Wards", "ground", 2, "", {}};
  MadeLayer tracks{"Tram lines", "things", 1, "", {}};
  MadeLayer over{"Copper line", "things", 5, "", {}};  // it crosses the others
  MadeLayer stops{"Stops", "in front", 0, "", {}};
  const auto grid = makeGrid(kGrid);
  const CellRect bounds{0, 0, kColumns, kRows};

  // The canal, from the north to the south-east, with a basin.
  std::set<CellPos> water;
  const auto dig = [&](CellPos from, CellPos to) {
    for (const CellPos at : grid->line(from, to)) water.insert(at);
  };
  dig({6, 0}, {8, 6});
  dig({8, 6}, {15, 9});
  dig({15, 9}, {17, 14});
  dig({17, 14}, {23, 17});
  dig({9, 7}, {9, 9});
  for (int side = 0; side < 6; ++side) water.insert(grid->across({17, 14}, side));
  const std::map<CellPos, const char*> specials = {
      {{11, 4}, "fountain square"}, {{13, 12}, "market square"}, {{4, 13}, "tram depot"}, {{20, 12}, "gasworks"},
      {{2, 4}, "allotments"},       {{21, 3}, "allotments"},     {{12, 10}, "town hall"}, {{17, 4}, "school"},
      {{6, 17}, "allotments"},      {{20, 7}, "market square"},  {{5, 7}, "school"},      {{10, 16}, "fountain square"}};
  for (int y = 0; y < kRows; ++y) {
    for (int x = 0; x < kColumns; ++x) {
      const CellPos at{x, y};
      if (water.contains(at)) {
        const unsigned banks =
            openSides(at, bounds, water, [&](CellPos from, int side) { return grid->across(from, side); });
        ground.lay(at, kWards, canal(wards, banks, scattered(x, y, 6, 9) == 0 ? 3 : scattered(x, y, 7, 3)));
        continue;
      }
      if (const auto known = specials.find(at); known != specials.end()) {
        ground.lay(at, kWards, special(wards, known->second));
        continue;
      }
      // Parks along the canal and at the rim; wards in quarters of a colour.
      bool byWater = false;
      for (int side = 0; side < 6; ++side) byWater = byWater || water.contains(grid->across(at, side));
      const bool green = (byWater && scattered(x, y, 5, 3) == 0) || scattered(x, y, 15, 8) == 0;
      if (green) {
        ground.lay(at, kWards, park(wards, scattered(x, y, 2, 6)));
      } else {
        const int quarter = (x + y / 2 + scattered(x / 3, y / 3, 1, 3)) / 8 % 3;
        ground.lay(at, kWards, ward(wards, quarter, scattered(x, y, 3, 9)));
      }
    }
  }

  const auto run = [&](int line, const std::vector<CellPos>& corners) {
    std::vector<CellPos> path;
    for (std::size_t i = 0; i + 1 < corners.size(); ++i) {
      for (const CellPos at : grid->line(corners[i], corners[i + 1])) {
        if (path.empty() || !(path.back() == at)) path.push_back(at);
      }
    }
    for (std::size_t i = 0; i < path.size(); ++i) {
      const int before = i == 0 ? -1 : sideTowards(*grid, path[i], path[i - 1]);
      const int after = i + 1 == path.size() ? -1 : sideTowards(*grid, path[i], path[i + 1]);
      (line == 0 ? over : tracks).lay(path[i], kLines, track(lines, line, before, after));
      const bool end = before < 0 || after < 0;
      if (end || (i % 4 == 2 && !water.contains(path[i]))) stops.lay(path[i], kLines, stop(lines, line, end));
    }
  };
  run(2, {{20, 2}, {18, 7}, {20, 10}, {14, 15}, {14, 18}});
  run(1, {{3, 2}, {4, 6}, {12, 8}, {11, 13}, {8, 18}});
  run(0, {{1, 11}, {5, 11}, {10, 11}, {16, 11}, {21, 9}, {22, 6}});
  return {"Ward Board",
          kGrid,
          bounds,
          {{"wards", "I", {56, 64}, {}, wards.drawn(), {}, {}}, {"lines", "J", {56, 64}, {}, lines.drawn(), {}, {}}},
          {ground, tracks, over, stops},
          {}};
}

}  // namespace uq::art
