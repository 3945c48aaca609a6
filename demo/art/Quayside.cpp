// Quayside: a canal basin of diamonds, with a quay of blocks one rise up, a crane, a warehouse, boats and crates.
#include <cmath>

#include "art/Scenery.h"
#include "art/Slanted.h"
#include "art/TileMaker.h"

namespace uq::art {

namespace {

constexpr int kSide = 28;   // cells of the map, each way
constexpr int kRise = 32;   // height of a quay block
enum Sheets : std::size_t { kQuay, kWharf, kHarbour };

// True where the quay stands; everything else is water.
bool isQuay(int x, int y) {
  if (x < 0 || y < 0 || x >= kSide || y >= kSide) return true;  // it goes on beyond the map
  if (y < 13 && x < 19) return true;             // the wharf
  if (x >= 4 && x < 8 && y < 22) return true;    // the pier
  if (x >= 19 && y < 5) return true;             // the back of the basin
  if (x >= 21 && y >= 19) return true;           // the garden across the water
  if (x >= 13 && x < 16 && y >= 19 && y < 23) return true;  // the island of the beacon
  return false;
}
bool isInside(int x, int y) { return x >= 0 && y >= 0 && x < kSide && y < kSide; }
// Whether there is an open edge of the quay towards a neighbour.
bool edge(int x, int y, int dx, int dy) { return isInside(x + dx, y + dy) && !isQuay(x + dx, y + dy); }

const Texture& leftStone() {
  static const Texture stone = courses(Ink::stone, Ink::steel, Ink::paleStone, 8, 16);
  return stone;
}
const Texture& rightStone() {
  static const Texture stone = courses(Ink::steel, Ink::slate, Ink::stone, 8, 16);
  return stone;
}

// Stones that stand in water: weed and wet below.
Texture wet(const Texture& dry) {
  return [dry](int a, int b, int x, int y) {
    if (b > 28) return dither(x, y, 8) ? Ink::deepMoss : Ink::deepCanal;
    if (b > 23 && scattered(a / 3, b, 5, 4) == 0) return Ink::deepMoss;
    if (b < 3) return b == 2 ? Ink::darkBrick : b == 0 ? Ink::dusk : Ink::copper;  // the coping
    return dry(a, b, x, y);
  };
}

void drawBlock(Pixels& p, int mask, const Texture& top, int fitting) {
  const Stand stand = standOf(p);
  const auto coped = [=](int a, int b, int x, int y) {
    // The coping runs along open edges: 1 right, 2 left, 4 upper left, 8 upper right.
    const int depth = std::min({mask & 1 ? 31 - a : 99, mask & 2 ? 31 - b : 99, mask & 4 ? a : 99, mask & 8 ? b : 99});
    if (depth == 4) return Ink::steel;
    if (depth > 4) return top(a, b, x, y);
    const int along = (mask & 1 && 31 - a == depth) || (mask & 4 && a == depth) ? b : a;
    if (along % 16 == 15) return Ink::darkBrick;
    return depth == 0 ? Ink::dusk : depth == 3 ? Ink::brick : Ink::copper;
  };
  box(stand, {0, 0, 1, 1, 0, kRise}, coped, wet(leftStone()), wet(rightStone()));
  if (fitting == 1) {  // a ring to moor at
    p.disc(16, 40, 3, Ink::ink);
    p.disc(16, 40, 1, Ink::steel);
    p.dot(16, 36, Ink::ink);
  } else if (fitting == 2) {  // a ladder into the water
    for (const int x : {40, 50}) {
      for (int y = 0; y < 28; ++y) p.dot(x, 29 - (x - 32) / 2 + y, Ink::ink);
    }
    for (int y = 2; y < 27; y += 4) {
      for (int x = 41; x < 50; ++x) p.dot(x, 29 - (x - 32) / 2 + y, Ink::copper);
    }
  } else if (fitting == 3) {  // a drain that runs
    p.disc(18, 42, 3, Ink::ink);
    p.box(17, 44, 3, 17, Ink::lightCanal);
    p.down(18, 44, 18, Ink::linen);
  }
}

unsigned waterTile(TileMaker& make, int look) {
  return make.tile("canal " + std::to_string(look + 1), [=](Pixels& p) { sheet(standOf(p), {0, 0, 1, 1}, water(look)); });
}

unsigned lilies(TileMaker& make) {
  return make.tile("canal, lilies", [](Pixels& p) {
    const Stand stand = standOf(p);
    sheet(stand, {0, 0, 1, 1}, water(9));
    for (const auto& [x, y] : {std::pair(26, 48), std::pair(37, 51), std::pair(30, 55)}) {
      p.disc(x, y, 3, Ink::moss);
      p.across(x - 3, y - 1, 6, Ink::leaf);
      p.dot(x + 1, y, Ink::deepCanal);
    }
    p.disc(37, 50, 1, Ink::rose);
  });
}

// --- Things of one cell, 64 × 96 px

void crate(const Stand& stand, double u, double v, double side, int z, int height) {
  const auto boards = [](Ink ink, Ink joint, Ink rim) {
    return [=](int a, int b, int, int) { return a < 2 || b < 2 ? rim : a % 5 == 4 ? joint : ink; };
  };
  box(stand, {u, v, u + side, v + side, z, height}, boards(Ink::amber, Ink::copper, Ink::lamp),
      boards(Ink::copper, Ink::brick, Ink::amber), boards(Ink::brick, Ink::darkBrick, Ink::copper));
}

void finish(Pixels& p, const Stand& stand, const Box& foot, double shadow) {
  p.outline(Ink::ink);
  if (shadow > 0) groundShadow(stand, foot, shadow);
}

unsigned wharfThing(TileMaker& make, const std::string& name) {
  return make.tile(name, [&](Pixels& p) {
    const Stand stand = standOf(p);
    const auto round = [&](double u, double v, int radius, int height, Ink light, Ink dark, Ink top) {
      const Spot foot = spot(stand, u, v);
      for (int y = 0; y <= height; ++y) {
        for (int x = -radius; x <= radius; ++x) {
          const int bend = static_cast<int>(std::lround(std::sqrt(radius * radius - x * x) / 2));
          p.dot(foot.x + x, foot.y - y + bend, x < radius / 3 ? light : dark);
        }
      }
      for (int y = -radius / 2; y <= radius / 2; ++y) {
        for (int x = -radius; x <= radius; ++x) {
          if (x * x + 4 * y * y <= radius * radius) p.dot(foot.x + x, foot.y - height + y, top);
        }
      }
    };
    if (name == "crate") {
      crate(stand, 0.25, 0.25, 0.5, 0, 18);
      finish(p, stand, {0.25, 0.25, 0.75, 0.75}, 0.3);
    } else if (name == "crates, stacked") {
      crate(stand, 0.1, 0.1, 0.45, 0, 16);
      crate(stand, 0.5, 0.08, 0.42, 0, 14);
      crate(stand, 0.12, 0.52, 0.42, 0, 14);
      crate(stand, 0.2, 0.2, 0.42, 16, 15);
      finish(p, stand, {0.1, 0.1, 0.92, 0.92}, 0.08);
    } else if (name == "crates, two") {
      crate(stand, 0.12, 0.3, 0.38, 0, 14);
      crate(stand, 0.54, 0.36, 0.36, 0, 13);
      finish(p, stand, {0.12, 0.3, 0.9, 0.72}, 0.1);
    } else if (name == "barrels") {
      round(0.35, 0.35, 8, 17, Ink::brick, Ink::darkBrick, Ink::copper);
      round(0.68, 0.35, 8, 17, Ink::brick, Ink::darkBrick, Ink::copper);
      round(0.4, 0.72, 8, 17, Ink::copper, Ink::brick, Ink::amber);
      finish(p, stand, {0.2, 0.2, 0.85, 0.85}, 0.12);
    } else if (name == "barrel") {
      round(0.5, 0.5, 8, 17, Ink::copper, Ink::brick, Ink::amber);
      finish(p, stand, {0.35, 0.35, 0.65, 0.65}, 0.25);
    } else if (name == "bollard") {
      round(0.5, 0.5, 5, 11, Ink::steel, Ink::slate, Ink::stone);
      finish(p, stand, {0.4, 0.4, 0.6, 0.6}, 0.2);
    } else if (name == "rope") {
      const Spot middle = spot(stand, 0.5, 0.5);
      for (const int r : {9, 6, 3}) {
        for (int x = -r; x <= r; ++x) {
          const int bend = static_cast<int>(std::lround(std::sqrt(r * r - x * x) / 2));
          p.dot(middle.x + x, middle.y - bend, Ink::copper);
          p.dot(middle.x + x, middle.y + bend, Ink::amber);
        }
      }
      p.outline(Ink::darkBrick);
    } else if (name == "lamp") {
      const Spot foot = spot(stand, 0.5, 0.5);
      p.disc(foot.x, foot.y, 4, Ink::slate);
      p.box(foot.x - 1, foot.y - 58, 3, 58, Ink::slate);
      p.down(foot.x - 1, foot.y - 58, 58, Ink::steel);
      p.box(foot.x - 6, foot.y - 62, 13, 3, Ink::slate);
      p.box(foot.x - 4, foot.y - 74, 9, 12, Ink::lamp);
      p.box(foot.x + 1, foot.y - 74, 4, 12, Ink::amber);
      p.down(foot.x, foot.y - 74, 12, Ink::copper);
      p.box(foot.x - 6, foot.y - 77, 13, 3, Ink::slate);
      p.box(foot.x - 2, foot.y - 80, 5, 3, Ink::slate);
      finish(p, stand, {0.42, 0.42, 0.58, 0.58}, 0.45);
    } else if (name == "tree in a tub") {
      box(stand, {0.25, 0.25, 0.75, 0.75, 0, 12}, plain(Ink::darkBrick), plain(Ink::copper), plain(Ink::brick));
      const Spot foot = spot(stand, 0.5, 0.5, 12);
      p.box(foot.x - 2, foot.y - 18, 4, 20, Ink::darkBrick);
      for (const auto& [x, y, r] : {std::tuple(0, -30, 15), std::tuple(-8, -24, 10), std::tuple(9, -23, 10)}) {
        p.disc(foot.x + x, foot.y + y, r, Ink::deepMoss);
      }
      for (const auto& [x, y, r] : {std::tuple(-3, -33, 11), std::tuple(-9, -26, 7), std::tuple(6, -27, 7)}) {
        p.disc(foot.x + x, foot.y + y, r, Ink::moss);
      }
      for (int i = 0; i < 26; ++i) {
        const int x = foot.x - 12 + scattered(i, 1, 3, 22);
        const int y = foot.y - 42 + scattered(i, 2, 3, 22);
        if (p.at(x, y) == Ink::moss) p.across(x, y, 2, Ink::leaf);
      }
      finish(p, stand, {0.25, 0.25, 0.75, 0.75}, 0.28);
    } else if (name.starts_with("bench")) {
      // Turned to the right by so many quarters about the middle of the cell: (u, v) becomes (1 - v, u).
      const int quarters = name == "bench" ? 0 : name.back() - '0';
      const auto part = [&](double u0, double v0, double u1, double v1, int z, int height, const Texture& top, Ink left, Ink right) {
        Box at{u0, v0, u1, v1, z, height};
        for (int i = 0; i < quarters; ++i) at = {1 - at.v1, at.u0, 1 - at.v0, at.u1, z, height};
        box(stand, at, top, plain(left), plain(right));
      };
      const auto legs = [&](double u) {
        for (const double v : {0.12, 0.78}) part(u, v, u + 0.1, v + 0.1, 0, 7, plain(Ink::slate), Ink::steel, Ink::slate);
      };
      const auto seat = [&] { part(0.3, 0.1, 0.68, 0.9, 7, 3, planks(Ink::copper, Ink::brick, Ink::amber), Ink::brick, Ink::darkBrick); };
      const auto back = [&] { part(0.3, 0.1, 0.42, 0.9, 8, 14, plain(Ink::amber), Ink::copper, Ink::brick); };
      // The farther part first.
      legs(0.32);
      legs(0.56);
      if (quarters < 2) {
        back();
        seat();
      } else {
        seat();
        back();
      }
      finish(p, stand, {0.25, 0.2, 0.75, 0.8}, 0.18);
    } else if (name == "sacks") {
      for (const auto& [u, v, z] : {std::tuple(0.35, 0.35, 0), std::tuple(0.65, 0.4, 0), std::tuple(0.42, 0.68, 0), std::tuple(0.5, 0.48, 9)}) {
        const Spot foot = spot(stand, u, v, z);
        p.disc(foot.x, foot.y - 6, 8, Ink::paleStone);
        p.disc(foot.x - 2, foot.y - 8, 5, Ink::linen);
        p.across(foot.x - 2, foot.y - 14, 4, Ink::stone);
        p.dithered(foot.x + 2, foot.y - 8, 6, 8, Ink::stone, 8);
      }
      finish(p, stand, {0.2, 0.2, 0.8, 0.8}, 0.15);
    } else if (name == "flower tub") {
      box(stand, {0.2, 0.3, 0.8, 0.7, 0, 10}, grass(4), plain(Ink::copper), plain(Ink::brick));
      for (int i = 0; i < 9; ++i) {
        const Spot at = spot(stand, 0.25 + scattered(i, 0, 1, 50) / 100.0, 0.35 + scattered(i, 1, 1, 30) / 100.0, 13);
        p.disc(at.x, at.y, 1, i % 3 == 0 ? Ink::rose : i % 3 == 1 ? Ink::lamp : Ink::dusk);
        p.dot(at.x, at.y + 2, Ink::leaf);
      }
      finish(p, stand, {0.2, 0.3, 0.8, 0.7}, 0.2);
    } else if (name == "handcart") {
      for (const double v : {0.25, 0.75}) {
        const Spot wheel = spot(stand, 0.55, v, 7);
        p.disc(wheel.x, wheel.y, 7, Ink::darkBrick);
        p.disc(wheel.x, wheel.y, 5, Ink::copper);
        p.disc(wheel.x, wheel.y, 1, Ink::slate);
      }
      box(stand, {0.2, 0.3, 0.85, 0.7, 10, 4}, planks(Ink::amber, Ink::copper, Ink::lamp), plain(Ink::copper), plain(Ink::brick));
      crate(stand, 0.3, 0.34, 0.3, 14, 11);
      finish(p, stand, {0.2, 0.25, 0.85, 0.75}, 0.15);
    }
  });
}

// Rails, planks and marks that lie on the quay.
unsigned deckTile(TileMaker& make, const std::string& name) {
  return make.tile(name, [&](Pixels& p) {
    const Stand stand = standOf(p);
    if (name == "rails along" || name == "rails down" || name == "rails cross") {
      const auto rails = [](bool along) {
        return [=](int a, int b, int x, int y) {
          const int across = along ? b : a;
          const int way = along ? a : b;
          for (const int rail : {9, 22}) {
            if (across == rail) return Ink::linen;
            if (across == rail + 1) return Ink::slate;
            if (across == rail - 1) return Ink::steel;
          }
          if (way % 8 < 3 && across > 5 && across < 27) return dither(x, y, 9) ? Ink::darkBrick : Ink::none;
          return Ink::none;
        };
      };
      if (name != "rails down") sheet(stand, {0, 0, 1, 1}, rails(true));
      if (name != "rails along") sheet(stand, {0, 0, 1, 1}, rails(false));
    } else if (name == "lid") {
      sheet(stand, {0, 0, 1, 1}, [](int a, int b, int, int) {
        const int d = (a - 16) * (a - 16) + (b - 16) * (b - 16);
        if (d > 90) return Ink::none;
        if (d > 62) return Ink::slate;
        return a % 4 == 0 || b % 4 == 0 ? Ink::slate : Ink::steel;
      });
    } else if (name == "puddle") {
      sheet(stand, {0, 0, 1, 1}, [](int a, int b, int x, int y) {
        const int d = (a - 15) * (a - 15) + (b - 17) * (b - 17) * 2 + scattered(a / 4, b / 4, 3, 40);
        return d > 150 ? Ink::none : dither(x, y, 4) ? Ink::farSky : Ink::steel;
      });
    } else if (name == "planks") {
      sheet(stand, {0.04, 0.04, 0.96, 0.96}, planks(Ink::copper, Ink::darkBrick, Ink::amber));
    }
  });
}

// --- Large things, 192 × 176 px, on several cells

void drawCrane(Pixels& p) {
  const Stand stand = standOf(p, 2, 2);
  const auto iron = [](Ink ink, Ink joint) {
    return [=](int a, int b, int, int) { return (a + b) % 11 == 0 || (a - b + 200) % 11 == 0 ? joint : ink; };
  };
  box(stand, {0.25, 0.25, 1.75, 1.75, 0, 12}, slabs(2), courses(Ink::stone, Ink::steel, Ink::paleStone, 6, 14), courses(Ink::steel, Ink::slate, Ink::stone, 6, 14));
  for (const auto& [u, v] : {std::pair(0.4, 0.4), std::pair(1.4, 0.4), std::pair(0.4, 1.4), std::pair(1.4, 1.4)}) {
    box(stand, {u, v, u + 0.2, v + 0.2, 12, 44}, plain(Ink::copper), iron(Ink::brick, Ink::darkBrick), iron(Ink::darkBrick, Ink::ink));
  }
  box(stand, {0.3, 0.3, 1.7, 1.7, 56, 6}, planks(Ink::copper, Ink::darkBrick, Ink::amber), plain(Ink::brick), plain(Ink::darkBrick));
  // The cabin.
  box(stand, {0.5, 0.45, 1.45, 1.35, 62, 30}, plain(Ink::slate), plain(Ink::canal), plain(Ink::deepCanal));
  box(stand, {0.44, 0.39, 1.51, 1.41, 92, 4}, mixed(Ink::steel, Ink::farSky, 3), plain(Ink::slate), plain(Ink::ink));
  const Spot pane = spot(stand, 0.62, 1.35, 84);
  for (int x = 0; x < 22; ++x) p.down(pane.x + x, pane.y + x / 2, 12, x % 11 == 10 ? Ink::deepCanal : x < 11 ? Ink::lamp : Ink::amber);
  const Spot door = spot(stand, 1.45, 1.2, 84);
  for (int x = 0; x < 9; ++x) p.down(door.x + x, door.y - x / 2, 18, Ink::ink);
  // The jib, out over the water, with its rope and hook.
  const Spot root = spot(stand, 1.2, 0.9, 92);
  const Spot head{root.x + 84, root.y - 34};
  for (int i = 0; i <= 84; ++i) {
    const int y = root.y - i * 34 / 84;
    p.box(root.x + i, y - 1, 2, 3, Ink::copper);
    p.box(root.x + i, y + 6 - i * 5 / 84, 2, 2, Ink::brick);
    if (i % 7 == 0) p.down(root.x + i, y, 7 - i * 5 / 84, Ink::darkBrick);
  }
  for (int i = 0; i <= 84; ++i) p.dot(root.x - 8 + i * 92 / 84, root.y - 26 - i * 8 / 84, Ink::slate);
  p.down(head.x, head.y, 62, Ink::slate);
  p.disc(head.x, head.y, 3, Ink::steel);
  p.box(head.x - 2, head.y + 60, 5, 4, Ink::steel);
  p.down(head.x + 2, head.y + 63, 5, Ink::steel);
  p.across(head.x - 1, head.y + 68, 4, Ink::steel);
  finish(p, stand, {0.25, 0.25, 1.75, 1.75}, 0.0);
}

void drawWarehouse(Pixels& p) {
  const Stand stand = standOf(p, 3, 3);
  const auto front = [](bool lit) {
    const Texture wall = lit ? courses(Ink::brick, Ink::darkBrick, Ink::copper, 4, 8) : courses(Ink::darkBrick, Ink::ink, Ink::brick, 4, 8);
    return [=](int a, int b, int x, int y) {
      if (b < 4) return b == 3 ? Ink::stone : Ink::paleStone;
      if (b > 50) return lit ? Ink::stone : Ink::steel;
      const int bay = a % 30;
      if (b > 12 && b < 26 && bay > 8 && bay < 22) {
        if (bay == 9 || bay == 21 || b == 13 || b == 25) return Ink::ink;
        if (bay == 15 || b == 19) return Ink::darkBrick;
        return b < 18 ? Ink::lamp : dither(x, y, 6) ? Ink::amber : Ink::lamp;
      }
      if (b == 27 && bay > 7 && bay < 23) return Ink::paleStone;
      const int gate = a - 33;
      if (gate >= 0 && gate < 28 && b > 30) {
        if (gate == 0 || gate == 27 || b == 31) return Ink::ink;
        if (gate == 13 || gate == 14) return Ink::ink;
        return gate % 6 == 0 ? Ink::deepCanal : Ink::canal;
      }
      return wall(a, b, x, y);
    };
  };
  box(stand, {0.1, 0.1, 2.9, 2.9, 0, 54}, plain(Ink::slate), front(true), front(false));
  // The roof: two slopes down from a ridge along u.
  for (int step = 0; step < 22; ++step) {
    const double inset = step * 0.062;
    const auto tiles = [step](int a, int b, int, int) {
      const bool joint = step % 4 == 3 || (a + step / 4 % 2 * 4) % 8 == 7;
      return b < 34 ? (joint ? Ink::slate : Ink::farSky) : joint ? Ink::ink : Ink::steel;
    };
    const auto slope = [step](int a, int, int x, int y) {
      const bool joint = step % 4 == 3 || (a + step / 4 % 2 * 4) % 8 == 7;
      if (joint) return Ink::slate;
      return dither(x, y, 4) ? Ink::farSky : Ink::steel;
    };
    box(stand, {0.02, 0.02 + inset, 2.98, 2.98 - inset, 54 + step, 1}, tiles, slope, [](int, int b, int x, int y) {
          return b == 0 && dither(x, y, 6) ? Ink::brick : Ink::darkBrick;
        });
  }
  box(stand, {0.0, 1.42, 3.0, 1.58, 75, 3}, plain(Ink::paleStone), plain(Ink::stone), plain(Ink::steel));
  for (const double u : {0.6, 2.2}) {
    box(stand, {u, 0.9, u + 0.22, 1.12, 66, 24}, plain(Ink::ink), courses(Ink::brick, Ink::darkBrick, Ink::copper, 4, 6), courses(Ink::darkBrick, Ink::ink, Ink::brick, 4, 6));
    box(stand, {u - 0.04, 0.86, u + 0.26, 1.16, 88, 3}, plain(Ink::slate), plain(Ink::paleStone), plain(Ink::stone));
  }
  p.outline(Ink::ink);
}

void drawBarge(Pixels& p) {
  const Stand stand = standOf(p, 4, 2);
  const auto hull = [](bool lit) {
    return [=](int a, int b, int, int) {
      if (b < 3) return lit ? Ink::amber : Ink::copper;
      if (b < 5) return Ink::ink;
      if (b > 14) return lit ? Ink::plum : Ink::darkBrick;
      return (a + b / 5 * 9) % 22 == 0 ? Ink::darkBrick : lit ? Ink::copper : Ink::brick;
    };
  };
  // The bow tapers towards the upper left.
  for (int i = 0; i < 12; ++i) {
    const double cut = (11 - i) * (11 - i) / 121.0 * 0.42;
    box(stand, {0.25 + i * 0.05, 0.45 + cut, 0.31 + i * 0.05, 1.55 - cut, 0, 18}, planks(Ink::copper, Ink::darkBrick, Ink::amber), hull(true), hull(false));
  }
  box(stand, {0.84, 0.45, 3.75, 1.55, 0, 18}, planks(Ink::copper, Ink::darkBrick, Ink::amber), hull(true), hull(false));
  // The hold with coal, then the cabin.
  sheet(stand, {1.0, 0.62, 2.6, 1.38, 18, 0}, [](int a, int b, int x, int y) {
    if (a < 2 || b < 2) return Ink::darkBrick;
    return scattered(a / 3, b / 3, 2, 3) == 0 ? Ink::slate : dither(x, y, 2) ? Ink::steel : Ink::ink;
  });
  for (int i = 0; i < 12; ++i) {
    const Spot lump = spot(stand, 1.2 + i % 6 * 0.22, 0.8 + i / 6 * 0.3, 21 + scattered(i, 3, 1, 4));
    p.disc(lump.x, lump.y, 5, Ink::ink);
    p.dot(lump.x - 2, lump.y - 2, Ink::steel);
    p.dot(lump.x - 1, lump.y - 2, Ink::slate);
  }
  const auto cabin = [](Ink wall, Ink rim) {
    return [=](int a, int b, int, int) {
      if (b < 2 || b > 17) return rim;
      const int pane = a % 13;
      if (b > 5 && b < 12 && pane > 3 && pane < 10) return b < 8 ? Ink::lamp : Ink::amber;
      return wall;
    };
  };
  box(stand, {2.75, 0.6, 3.5, 1.4, 18, 20}, plain(Ink::slate), cabin(Ink::linen, Ink::brick), cabin(Ink::paleStone, Ink::brick));
  box(stand, {2.69, 0.54, 3.56, 1.46, 38, 3}, mixed(Ink::brick, Ink::copper, 4), plain(Ink::darkBrick), plain(Ink::darkBrick));
  const Spot pipe = spot(stand, 2.95, 0.8, 41);
  p.box(pipe.x - 2, pipe.y - 13, 5, 13, Ink::ink);
  p.down(pipe.x - 1, pipe.y - 13, 13, Ink::steel);
  p.outline(Ink::ink);
  // The wash along the hull.
  for (int x = 1; x < p.width(); ++x) {
    for (int y = p.height() - 2; y > 60; --y) {
      if (p.covered(x, y) && !p.covered(x, y + 1) && dither(x, y, 9)) {
        p.dot(x, y + 1, Ink::lightCanal);
        break;
      }
    }
  }
}

void drawRowingBoat(Pixels& p) {
  const Stand stand = standOf(p, 2, 1);
  for (int i = 0; i < 30; ++i) {
    const double t = (i - 14.5) / 15;
    const double half = 0.3 * std::sqrt(1 - t * t);
    const double u = 0.2 + i * 0.053;
    box(stand, {u, 0.5 - half, u + 0.054, 0.5 + half, 0, 10},
        [half](int, int b, int, int) {
          const int across = static_cast<int>(half * 64);
          return b < 2 || b > across - 3 ? Ink::amber : Ink::darkBrick;
        },
        [](int, int b, int, int) { return b < 2 ? Ink::lamp : Ink::copper; },
        [](int, int b, int, int) { return b < 2 ? Ink::amber : Ink::brick; });
  }
  for (const double u : {0.6, 1.1}) box(stand, {u, 0.24, u + 0.14, 0.76, 8, 2}, plain(Ink::copper), plain(Ink::brick), plain(Ink::brick));
  p.outline(Ink::ink);
}

void drawBeacon(Pixels& p) {
  const Stand stand = standOf(p, 1, 1);
  const Spot foot = spot(stand, 0.5, 0.5);
  for (int y = 0; y < 96; ++y) {
    const int radius = 20 - y / 12;
    for (int x = -radius; x <= radius; ++x) {
      const int bend = static_cast<int>(std::lround(std::sqrt(radius * radius - x * x) / 2));
      const bool band = (y - bend) / 16 % 2 == 0;
      const Ink light = band ? Ink::linen : Ink::copper;
      const Ink dark = band ? Ink::paleStone : Ink::brick;
      p.dot(foot.x + x, foot.y - y + bend, x < -radius / 3 ? light : x < radius / 3 && dither(x + 40, y, 8) ? light : dark);
    }
  }
  p.box(foot.x - 16, foot.y - 102, 33, 5, Ink::slate);
  p.across(foot.x - 16, foot.y - 102, 33, Ink::steel);
  p.box(foot.x - 8, foot.y - 120, 17, 18, Ink::lamp);
  p.dithered(foot.x + 1, foot.y - 120, 8, 18, Ink::amber, 9);
  for (const int x : {-8, 0, 8}) p.down(foot.x + x, foot.y - 120, 18, Ink::slate);
  for (int y = 0; y < 10; ++y) p.across(foot.x - 11 + y, foot.y - 121 - y, 23 - 2 * y, y < 5 ? Ink::canal : Ink::deepCanal);
  p.box(foot.x - 4, foot.y - 6, 9, 16, Ink::ink);
  p.outline(Ink::ink);
}

}  // namespace

Scenery quayside() {
  TileMaker quay(kSlantW, 64, 7);
  TileMaker wharf(kSlantW, 96, 7);
  TileMaker harbour(224, 176, 2);

  MadeLayer ground{"Canal & quay", "ground", 2, "", {}};
  MadeLayer boats{"Boats", "things", 1, "", {}};
  MadeLayer deck{"Deck", "ground", 4, "Quay", {}};
  MadeLayer goods{"Goods", "things", 0, "Quay", {}};

  for (int y = 0; y < kSide; ++y) {
    for (int x = 0; x < kSide; ++x) {
      if (!isQuay(x, y)) {
        const bool lily = scattered(x, y, 77, 61) == 0;
        ground.lay({x, y}, kQuay, lily ? lilies(quay) : waterTile(quay, scattered(x, y, 4, 6)));
        continue;
      }
      const int mask = (edge(x, y, 1, 0) ? 1 : 0) | (edge(x, y, 0, 1) ? 2 : 0) | (edge(x, y, -1, 0) ? 4 : 0) |
                       (edge(x, y, 0, -1) ? 8 : 0);
      // Slabs near the water, setts farther in.
      bool nearWater = false;
      for (int dy = -2; dy <= 2; ++dy) {
        for (int dx = -2; dx <= 2; ++dx) nearWater = nearWater || (isInside(x + dx, y + dy) && !isQuay(x + dx, y + dy));
      }
      const bool garden = x >= 23 && y >= 21 && !nearWater && x != 25;
      const int look = scattered(x, y, 8, mask == 0 ? 6 : 2);
      const int chance = scattered(x, y, 21, 5);
      const int fitting = (mask & 2) && chance == 0 ? 1 : (mask & 1) && chance == 1 ? 2 : (mask & 2) && chance == 2 ? 3 : 0;
      const char* fittings[] = {"", ", ring", ", ladder", ", drain"};
      const char* edges[] = {"", ", edge 1", ", edge 2", ", edge 1 2", ", edge 3", ", edge 1 3", ", edge 2 3", ", edge 1 2 3",
                             ", edge 4", ", edge 1 4", ", edge 2 4", ", edge 1 2 4", ", edge 3 4", ", edge 1 3 4", ", edge 2 3 4", ", edge all"};
      const std::string name = std::string(garden ? "lawn " : nearWater ? "quay slabs " : "quay setts ") + std::to_string(look + 1) + edges[mask] + fittings[fitting];
      ground.lay({x, y}, kQuay, quay.tile(name, [&](Pixels& p) {
        drawBlock(p, mask, garden ? grass(look) : nearWater ? slabs(look) : setts(look), fitting);
      }));
    }
  }

  const auto on = [&](int x, int y, const char* name, bool mirrored = false) {
    goods.lay({x, y}, kWharf, wharfThing(wharf, name), mirrored);
  };
  const auto lie = [&](int x, int y, const char* name) { deck.lay({x, y}, kQuay, deckTile(quay, name)); };
  const auto large = [&](MadeLayer& layer, int x, int y, const char* name, void (*draw)(Pixels&), bool mirrored = false) {
    layer.lay({x, y}, kHarbour, harbour.tile(name, draw), mirrored);
  };
  for (int x = 0; x < 19; ++x) lie(x, 8, x == 6 ? "rails cross" : "rails along");
  for (int y = 9; y < 20; ++y) lie(6, y, "rails down");
  for (const auto& [x, y] : {std::pair(2, 10), std::pair(11, 6), std::pair(16, 10), std::pair(9, 2)}) lie(x, y, "lid");
  for (const auto& [x, y] : {std::pair(12, 10), std::pair(3, 6), std::pair(17, 6)}) lie(x, y, "puddle");
  for (const auto& [x, y] : {std::pair(4, 20), std::pair(5, 21), std::pair(4, 21)}) lie(x, y, "planks");

  large(goods, 4, 4, "warehouse", drawWarehouse);
  large(goods, 9, 4, "warehouse", drawWarehouse);
  large(goods, 17, 12, "crane", drawCrane);
  large(goods, 14, 21, "beacon", drawBeacon);
  large(boats, 15, 15, "barge", drawBarge);
  large(boats, 25, 9, "barge", drawBarge, true);
  large(boats, 11, 19, "rowing boat", drawRowingBoat);
  large(boats, 17, 23, "rowing boat", drawRowingBoat, true);
  large(boats, 2, 16, "rowing boat", drawRowingBoat);

  for (const int x : {1, 10, 14}) on(x, 12, "bollard");
  for (const int y : {14, 18, 21}) on(7, y, "bollard");
  for (const int y : {15, 19}) on(4, y, "bollard");
  for (const int x : {3, 9, 13}) on(x, 11, "lamp");
  on(5, 17, "lamp");
  on(18, 4, "lamp");
  on(24, 2, "lamp");
  for (const auto& [x, y] : {std::pair(12, 2), std::pair(14, 2), std::pair(16, 2), std::pair(0, 6), std::pair(22, 3), std::pair(26, 3)}) on(x, y, "tree in a tub");
  for (const auto& [x, y] : {std::pair(12, 7), std::pair(12, 9), std::pair(1, 9)}) on(x, y, "crates, stacked");
  for (const auto& [x, y] : {std::pair(13, 7), std::pair(2, 9), std::pair(13, 9), std::pair(18, 9)}) on(x, y, "crate");
  for (const auto& [x, y] : {std::pair(11, 9), std::pair(10, 6), std::pair(18, 10)}) on(x, y, "crates, two");
  for (const auto& [x, y] : {std::pair(15, 6), std::pair(4, 7), std::pair(4, 17)}) on(x, y, "barrels");
  for (const auto& [x, y] : {std::pair(16, 6), std::pair(5, 7), std::pair(7, 20)}) on(x, y, "barrel");
  for (const auto& [x, y] : {std::pair(10, 10), std::pair(8, 7), std::pair(5, 19)}) on(x, y, "sacks");
  for (const auto& [x, y] : {std::pair(11, 12), std::pair(4, 14), std::pair(15, 12)}) on(x, y, "rope");
  on(13, 4, "bench");
  on(15, 4, "bench");
  on(20, 2, "bench, turned 1");
  on(14, 9, "handcart");
  on(3, 10, "handcart", true);
  for (const auto& [x, y] : {std::pair(11, 2), std::pair(17, 2), std::pair(20, 4), std::pair(24, 4)}) on(x, y, "flower tub", y == 4);
  for (const auto& [x, y] : {std::pair(23, 23), std::pair(27, 21), std::pair(24, 26), std::pair(27, 24), std::pair(26, 27)}) on(x, y, "tree in a tub");
  for (const auto& [x, y] : {std::pair(22, 20), std::pair(26, 20), std::pair(22, 24)}) on(x, y, "lamp");
  on(24, 22, "bench");
  on(24, 24, "bench, turned 3");
  on(26, 22, "flower tub");
  on(23, 25, "flower tub", true);
  on(27, 26, "flower tub");
  for (const auto& [x, y] : {std::pair(21, 21), std::pair(21, 25), std::pair(24, 19)}) on(x, y, "bollard");
  large(boats, 20, 25, "barge", drawBarge, true);
  // Crates on crates: lifted above their layer.
  goods.lay({13, 10}, kWharf, wharfThing(wharf, "crates, stacked"));
  goods.lay({12, 8}, kWharf, wharfThing(wharf, "crate"));
  goods.lay({14, 7}, kWharf, wharfThing(wharf, "crates, two"), false, 14);

  // The bench from its four sides; the map uses two of them.
  Facing bench;
  for (const char* name : {"bench", "bench, turned 1", "bench, turned 2", "bench, turned 3"}) bench.emplace_back(wharfThing(wharf, name));
  MadeSheet large3{"harbour", "F", {224, 176}, {}, harbour.drawn(), {}, {}};
  large3.stances[harbour.tile("warehouse", drawWarehouse)] = {{0, 0}, {3, 3}};
  large3.stances[harbour.tile("crane", drawCrane)] = {{0, 0}, {2, 2}};
  large3.stances[harbour.tile("barge", drawBarge)] = {{0, 0}, {4, 2}};
  large3.stances[harbour.tile("rowing boat", drawRowingBoat)] = {{0, 0}, {2, 1}};
  return {"Quayside",
          nearestShape(GridKind::diamond, {kSlantW, kSlantH}),
          {0, 0, kSide, kSide},
          {{"quay", "D", {kSlantW, 64}, {}, quay.drawn(), {}, {}}, {"wharf", "E", {kSlantW, 96}, {}, wharf.drawn(), {bench}, {}}, large3},
          {ground, boats, deck, goods},
          {{"Quay", kRise}}};
}

}  // namespace uq::art
