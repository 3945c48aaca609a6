// Canal Locks: meadows of flat hexagons along a canal that goes round from east to west, with two lock gates, towpaths
// and a keeper's cottage.
#include <cmath>
#include <set>

#include "art/Hexes.h"
#include "art/Scenery.h"
#include "art/Slanted.h"
#include "art/TileMaker.h"

namespace uq::art {

namespace {

constexpr int kSide = 12;
constexpr GridShape kGrid{GridKind::hexagonalFlat, {64, 56}, 32};
enum Sheets : std::size_t { kMeadows, kLocks };

Ink meadow(int x, int y, int seed) {
  const int tuft = scattered(x / 5, y / 5, seed, 9);
  const int inX = x % 5;
  const int inY = y % 5;
  if (tuft == 0 && inX == 2 && inY > 0 && inY < 4) return Ink::leaf;
  if (tuft == 1 && inX == 1 && inY > 1) return Ink::deepMoss;
  if (tuft == 1 && inX == 3 && inY > 0) return Ink::deepMoss;
  if (tuft == 2 && seed % 3 == 0 && inX == 2 && inY == 2) return Ink::lamp;
  if (tuft == 3 && seed % 3 == 1 && inX == 2 && inY == 2) return Ink::dusk;
  return dither(x, y, 1) ? Ink::leaf : Ink::moss;
}

unsigned grassTile(TileMaker& make, int look) {
  return make.tile("meadow " + std::to_string(look + 1), [=](Pixels& p) {
    const Hex hex(p, kGrid);
    hex.fill([&](int x, int y) { return meadow(x, y, look); });
    if (look == 6) {
      for (int i = 0; i < 4; ++i) {
        const int x = 16 + scattered(i, 1, 2, 30);
        const int y = 14 + scattered(i, 2, 2, 28);
        p.disc(x, y, 3, Ink::ink);
        p.disc(x, y, 2, Ink::stone);
        p.dot(x - 1, y - 1, Ink::paleStone);
      }
    }
  });
}

unsigned field(TileMaker& make, int look) {
  return make.tile("field " + std::to_string(look + 1), [=](Pixels& p) {
    const Hex hex(p, kGrid);
    const bool ploughed = look == 2;
    hex.fill([&](int x, int y) {
      if (hex.fromSides(63, x, y) < 3) return meadow(x, y, 2);
      const int furrow = (y + (look == 1 ? x / 2 : 0)) % 6;
      if (ploughed) return furrow < 2 ? Ink::darkBrick : dither(x, y, 4) ? Ink::copper : Ink::brick;
      if (furrow == 0) return Ink::copper;
      return furrow < 3 && dither(x, y, 9) ? Ink::lamp : Ink::amber;
    });
  });
}

// `banks` of earth, `walls` of stone, `open` sides go on.
unsigned canalTile(TileMaker& make, unsigned banks, unsigned walls, int look) {
  std::string name = (walls ? "lock chamber " : "canal ") + std::to_string(look + 1);
  for (int side = 0; side < 6; ++side) {
    if (banks >> side & 1) name += ", bank " + std::to_string(side + 1);
    if (walls >> side & 1) name += ", wall " + std::to_string(side + 1);
  }
  return make.tile(name, [=](Pixels& p) {
    const Hex hex(p, kGrid);
    hex.fill([&](int x, int y) {
      const double wallAt = hex.fromSides(walls, x, y);
      if (wallAt < 9) {
        const bool joint = (x + y) % 11 == 0 || static_cast<int>(wallAt) == 8;
        return joint ? Ink::stone : dither(x, y, 4) ? Ink::linen : Ink::paleStone;
      }
      if (wallAt < 14) return (y / 3 + x / 6) % 2 ? Ink::slate : Ink::steel;
      const double bank = hex.fromSides(banks, x, y) + scattered(x / 6, y / 6, 3, 4) - 1;
      if (bank < 5) return meadow(x, y, 4);
      if (bank < 7.5) return dither(x, y, 8) ? Ink::darkBrick : Ink::brick;
      if (bank < 9) return Ink::deepCanal;
      const int ripple = scattered((x + y * 3) / 9, y / 3, look, 8);
      const int along = (x + y * 3) % 9;
      if (ripple == 0 && y % 3 == 0 && along > 1 && along < 7) return Ink::lightCanal;
      if (ripple == 0 && y % 3 == 1 && along > 2 && along < 6) return Ink::deepCanal;
      return walls && dither(x, y, 5) ? Ink::deepCanal : Ink::canal;
    });
  });
}

unsigned pathTile(TileMaker& make, int from, int to) {
  if (from > to && to >= 0) std::swap(from, to);
  if (from < 0) std::swap(from, to);
  const std::string name = to < 0 ? "path, end " + std::to_string(from + 1) : "path " + std::to_string(from + 1) + "-" + std::to_string(to + 1);
  return make.tile(name, [=](Pixels& p) {
    const Hex hex(p, kGrid);
    hex.way(from, to, 15, [](int x, int y, double across) {
      const double edge = std::abs(across) + scattered(x / 3, y / 3, 5, 3);
      if (edge > 6.5) return dither(x, y, 8) ? Ink::none : Ink::leaf;
      if (std::abs(std::abs(across) - 3) < 0.9) return dither(x, y, 9) ? Ink::copper : Ink::dusk;
      return scattered(x / 2, y / 2, 9, 11) == 0 ? Ink::linen : dither(x, y, 4) ? Ink::amber : Ink::dusk;
    });
  });
}

void leaves(Pixels& p, int x, int y, int r) {
  p.disc(x, y, r, Ink::deepMoss);
  p.disc(x - r / 5, y - r / 5, r * 3 / 4, Ink::moss);
  for (int i = 0; i < r; ++i) {
    const int lx = x - r / 5 + scattered(i, r, 4, r) - r / 2;
    const int ly = y - r / 4 + scattered(i, r, 5, r) - r / 2;
    if (p.at(lx, ly) == Ink::moss) p.across(lx, ly, 2, Ink::leaf);
  }
}

// Things stand in the middle of the foot of a picture of 96 × 104 px; the ground is its lowest 28 px.
unsigned lockThing(TileMaker& make, const std::string& name) {
  return make.tile(name, [&](Pixels& p) {
    const int cx = 48;
    const int foot = 84;
    int shadow = 8;
    if (name == "oak" || name == "birch" || name == "willow") {
      const bool birch = name == "birch";
      p.box(cx - (birch ? 1 : 3), foot - 30, birch ? 4 : 7, 31, birch ? Ink::linen : Ink::darkBrick);
      p.down(cx - (birch ? 1 : 2), foot - 30, 31, birch ? Ink::paleStone : Ink::brick);
      if (birch) {
        for (int i = 0; i < 5; ++i) p.across(cx, foot - 26 + i * 6, 2, Ink::slate);
        leaves(p, cx, foot - 40, 13);
        leaves(p, cx - 4, foot - 54, 9);
      } else if (name == "oak") {
        for (const auto& [x, y, r] : {std::tuple(0, -46, 20), std::tuple(-15, -36, 13), std::tuple(15, -36, 13), std::tuple(2, -58, 13)}) leaves(p, cx + x, foot + y, r);
      } else {
        leaves(p, cx, foot - 46, 17);
        for (int i = 0; i < 15; ++i) {
          const int x = cx - 20 + i * 3;
          p.box(x, foot - 46 - (7 - std::abs(i - 7)), 2, 30 + scattered(i, 1, 1, 10), i % 2 ? Ink::leaf : Ink::moss);
        }
      }
    } else if (name == "bush") {
      leaves(p, cx - 9, foot - 7, 9);
      leaves(p, cx + 8, foot - 8, 10);
      for (int i = 0; i < 6; ++i) p.disc(cx - 13 + i * 5, foot - 6 - scattered(i, 2, 2, 8), 1, i % 2 ? Ink::rose : Ink::dusk);
    } else if (name == "reeds") {
      for (int i = 0; i < 16; ++i) {
        const int x = cx - 20 + scattered(i, 1, 3, 40);
        const int y = foot - 12 + scattered(i, 2, 3, 18);
        const int h = 12 + scattered(i, 3, 3, 8);
        p.down(x, y - h, h, i % 2 ? Ink::leaf : Ink::deepMoss);
        if (i % 3 == 0) p.box(x - 1, y - h - 3, 2, 5, Ink::darkBrick);
      }
      shadow = 0;
    } else if (name == "gate") {
      // Two leaves that meet in a blunt wedge against the stream, with a foot plank and balance beams.
      for (int i = 0; i < 46; ++i) {
        const int y = foot - 24 + i;
        const int x = cx + (i < 23 ? -(22 - i) / 3 : -(i - 23) / 3) - 2;
        p.box(x, y - 18, 6, 19, i % 6 == 5 ? Ink::ink : Ink::darkBrick);
        p.box(x, y - 18, 2, 3, Ink::copper);
        p.box(x + 1, y - 18, 4, 3, Ink::amber);
      }
      for (const int y : {foot - 44, foot + 2}) {
        p.box(cx - 40, y, 38, 5, Ink::slate);
        p.across(cx - 40, y, 38, Ink::steel);
        p.box(cx - 44, y - 1, 6, 7, Ink::linen);
        p.box(cx - 12, y + 4, 4, 8, Ink::slate);
      }
      p.outline(Ink::ink);
      shadow = 0;
    } else if (name == "cottage") {
      for (int y = 0; y < 30; ++y) {
        for (int x = -34; x <= 34; ++x) {
          const bool joint = y % 4 == 3 || (x + 40 + y / 4 % 2 * 4) % 8 == 7;
          p.dot(cx + x, foot - 30 + y, joint ? Ink::stone : y < 3 ? Ink::stone : Ink::linen);
        }
      }
      for (int y = 0; y < 26; ++y) {
        const int half = 38 - (25 - y) / 3;
        for (int x = -half; x <= half; ++x) p.dot(cx + x, foot - 56 + y, y % 5 == 4 || (x + 60 + y / 5 % 2 * 4) % 8 == 7 ? Ink::darkBrick : y < 8 ? Ink::copper : Ink::brick);
      }
      for (const int x : {-26, -8, 14}) {
        p.box(cx + x, foot - 23, 11, 12, Ink::lamp);
        p.dithered(cx + x, foot - 17, 11, 6, Ink::amber, 8);
        p.frame(cx + x, foot - 23, 11, 12, Ink::darkBrick);
        p.down(cx + x + 5, foot - 23, 12, Ink::darkBrick);
        p.across(cx + x - 1, foot - 10, 13, Ink::copper);
      }
      p.box(cx + 28, foot - 22, 0, 0, Ink::none);
      p.box(cx + 4, foot - 20, 8, 20, Ink::canal);
      p.frame(cx + 4, foot - 20, 8, 20, Ink::ink);
      p.box(cx + 18, foot - 68, 8, 18, Ink::brick);
      p.box(cx + 17, foot - 70, 10, 3, Ink::paleStone);
      for (int i = 0; i < 12; ++i) p.disc(cx - 32 + i * 6, foot - 1, 2, i % 3 == 0 ? Ink::rose : i % 3 == 1 ? Ink::leaf : Ink::moss);
    } else if (name == "boat") {
      for (int y = 0; y < 14; ++y) {
        const int in = std::abs(y - 6) / 2 + (y > 8 ? (y - 8) * 2 : 0);
        p.box(cx - 40 + in, foot - 18 + y, 80 - 2 * in, 1, y < 9 ? Ink::darkBrick : y < 11 ? Ink::amber : Ink::plum);
      }
      p.box(cx - 30, foot - 30, 40, 16, Ink::deepMoss);
      p.box(cx - 30, foot - 30, 40, 4, Ink::moss);
      for (int i = 0; i < 5; ++i) p.box(cx - 27 + i * 8, foot - 24, 4, 6, Ink::lamp);
      p.box(cx + 16, foot - 24, 14, 10, Ink::copper);
      p.box(cx + 2, foot - 37, 4, 8, Ink::slate);
      p.outline(Ink::ink);
      shadow = 0;
    } else if (name == "footbridge") {
      // From bank to bank, up and down the picture: planks across, a rail on either side.
      for (int i = 0; i < 66; ++i) {
        const int y = foot + 8 - i;
        const int rise = (33 * 33 - (i - 33) * (i - 33)) / 120;
        p.box(cx - 9, y - rise, 19, 1, i % 4 == 3 ? Ink::darkBrick : i % 4 == 0 ? Ink::amber : Ink::copper);
        for (const int side : {-10, 9}) {
          p.box(cx + side, y - rise - 10, 2, 2, Ink::linen);
          if (i % 11 == 0) p.box(cx + side, y - rise - 10, 2, 11, Ink::paleStone);
        }
      }
      p.outline(Ink::ink);
      shadow = 0;
    } else if (name == "bollards") {
      for (const int x : {-14, 12}) {
        p.box(cx + x, foot - 10, 5, 10, Ink::slate);
        p.down(cx + x, foot - 10, 10, Ink::steel);
        p.box(cx + x - 1, foot - 12, 7, 3, Ink::linen);
      }
    } else if (name == "sheep") {
      for (const auto& [x, y] : {std::pair(-16, -6), std::pair(6, 0), std::pair(14, -14)}) {
        p.disc(cx + x, foot + y, 5, Ink::linen);
        p.disc(cx + x + 3, foot + y - 1, 4, Ink::paleStone);
        p.disc(cx + x - 6, foot + y - 2, 2, Ink::slate);
        for (const int leg : {-3, 3}) p.down(cx + x + leg, foot + y + 5, 3, Ink::slate);
      }
    } else if (name == "haystack") {
      for (int y = 0; y < 24; ++y) {
        const int half = y < 8 ? 5 + y * 2 : 20 + (y - 8) / 4;
        for (int x = -half; x <= half; ++x) p.dot(cx + x, foot - 24 + y, (x + y * 3) % 7 == 0 ? Ink::copper : x < 0 ? Ink::lamp : Ink::amber);
      }
    } else if (name == "signpost") {
      p.box(cx - 1, foot - 30, 3, 30, Ink::darkBrick);
      p.box(cx - 14, foot - 30, 20, 6, Ink::linen);
      p.box(cx - 6, foot - 21, 18, 6, Ink::linen);
      p.dot(cx - 15, foot - 28, Ink::linen);
      p.dot(cx + 12, foot - 19, Ink::linen);
    } else if (name == "milestone") {
      p.box(cx - 4, foot - 13, 9, 13, Ink::paleStone);
      p.down(cx + 3, foot - 13, 13, Ink::stone);
      p.across(cx - 3, foot - 14, 7, Ink::linen);
    }
    if (shadow > 0) p.outline(Ink::ink);
    if (shadow > 0) p.castShadow(shadow);
  });
}

}  // namespace

Scenery canalLocks() {
  TileMaker meadows(64, 56, 7);
  TileMaker locks(96, 104, 4);
  MadeLayer ground{"Meadows & canal", "ground", 2, "", {}};
  MadeLayer paths{"Towpaths", "things", 5, "", {}};
  MadeLayer things{"Locks & trees", "things", 1, "", {}};
  const auto grid = makeGrid(kGrid);
  const CellRect bounds{0, 0, kSide, kSide};
  // Round from east to west: the last column borders on the first.
  const auto beyond = [&](CellPos at, int side) {
    CellPos next = grid->across(at, side);
    next.x = (next.x + kSide) % kSide;
    return next;
  };

  std::set<CellPos> water;
  std::set<CellPos> chamber;
  for (int x = 0; x < kSide; ++x) {
    water.insert({x, 5});
    if (x < 3 || x > 8) water.insert({x, 6});
  }
  chamber = {{5, 5}, {6, 5}};
  for (const CellPos at : {CellPos{2, 9}, CellPos{3, 9}, CellPos{3, 10}, CellPos{2, 10}, CellPos{4, 10}}) water.insert(at);
  for (int y = 0; y < kSide; ++y) {
    for (int x = 0; x < kSide; ++x) {
      const CellPos at{x, y};
      if (!water.contains(at)) {
        const bool crops = (x >= 7 && x <= 9 && y >= 9) || (x <= 2 && y <= 1) || (x >= 9 && y <= 2 && y >= 1);
        ground.lay(at, kMeadows, crops ? field(meadows, (x * 7 + y / 2) % 3) : grassTile(meadows, scattered(x, y, 2, 14)));
        continue;
      }
      const unsigned edges = openSides(at, bounds, water, beyond);
      const bool stone = chamber.contains(at);
      ground.lay(at, kMeadows, canalTile(meadows, stone ? 0 : edges, stone ? edges : 0, scattered(x, y, 3, 5)));
    }
  }

  const auto walk = [&](std::vector<CellPos> path, bool round) {
    for (std::size_t i = 0; i < path.size(); ++i) {
      const auto towards = [&](std::size_t other) {
        for (int side = 0; side < 6; ++side) {
          if (beyond(path[i], side) == path[other]) return side;
        }
        return -1;
      };
      const std::size_t last = path.size() - 1;
      const int before = i > 0 ? towards(i - 1) : round ? towards(last) : -1;
      const int after = i < last ? towards(i + 1) : round ? towards(0) : -1;
      paths.lay(path[i], kMeadows, pathTile(meadows, before, after));
    }
  };
  // The towpath goes round with the canal; a lane leads north from the cottage, another south to the pond.
  walk({{0, 7}, {1, 7}, {2, 7}, {3, 6}, {4, 6}, {5, 6}, {6, 6}, {7, 6}, {8, 7}, {9, 7}, {10, 7}, {11, 7}}, true);
  walk({{6, 4}, {6, 3}, {6, 2}, {5, 1}, {5, 0}}, false);
  walk({{5, 7}, {5, 8}, {6, 9}, {6, 10}, {5, 10}, {5, 11}}, false);

  const auto put = [&](int x, int y, const char* name, bool mirrored = false) { things.lay({x, y}, kLocks, lockThing(locks, name), mirrored); };
  put(4, 5, "gate");
  put(7, 5, "gate", true);
  put(5, 3, "cottage");
  put(10, 6, "boat");
  put(1, 5, "boat", true);
  for (const auto& [x, y] : {std::pair(2, 3), std::pair(8, 2), std::pair(10, 10), std::pair(0, 9)}) put(x, y, "oak");
  for (const auto& [x, y] : {std::pair(3, 2), std::pair(9, 4), std::pair(11, 9), std::pair(7, 8)}) put(x, y, "birch");
  for (const auto& [x, y] : {std::pair(1, 9), std::pair(4, 9), std::pair(3, 4)}) put(x, y, "willow");
  for (const auto& [x, y] : {std::pair(4, 2), std::pair(7, 3), std::pair(10, 4), std::pair(0, 3), std::pair(4, 11), std::pair(8, 8)}) put(x, y, "bush");
  for (const auto& [x, y] : {std::pair(2, 6), std::pair(9, 6), std::pair(3, 10), std::pair(0, 6)}) put(x, y, "reeds");
  put(4, 6, "bollards");
  put(7, 6, "bollards");
  put(1, 4, "sheep");
  put(11, 4, "sheep", true);
  put(3, 0, "sheep");
  put(7, 10, "haystack");
  put(9, 10, "haystack");
  put(6, 1, "signpost");
  put(6, 8, "milestone");
  put(10, 8, "milestone");
  put(3, 5, "footbridge");
  return {"Canal Locks",
          kGrid,
          bounds,
          {{"meadows", "K", {64, 56}, {}, meadows.drawn(), {}, {}}, {"locks", "L", {96, 104}, {}, locks.drawn(), {}, {}}},
          {ground, paths, things},
          {}};
}

}  // namespace uq::art
