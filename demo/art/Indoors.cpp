// The sheets of the Signal Loft and of the canal's edge: rooms, ripples that move, and props that are pictures of their
// own.
#include <algorithm>
#include <cmath>

#include "art/Pixels.h"
#include "art/Sheets.h"

namespace uq::art {

namespace {

using Draw = std::function<void(Pixels&)>;

void boards(Pixels& tile, int look) {
  tile.box(0, 0, kTile, kTile, Ink::brick);
  for (int y = 0; y < kTile; y += 8) {
    tile.across(0, y + 7, kTile, Ink::darkBrick);
    tile.dithered(0, y + 1, kTile, 2, Ink::copper, 5 + look % 3);
    const int joint = (y / 8 * 13 + look * 9) % kTile;
    tile.down(joint, y, 7, Ink::darkBrick);
    tile.dot((joint + 2) % kTile, y + 2, Ink::darkBrick);
    tile.dot((joint + kTile - 3) % kTile, y + 5, Ink::darkBrick);
  }
  if (look == 1) tile.dithered(9, 10, 11, 5, Ink::darkBrick, 4);
  if (look == 2) {
    tile.across(20, 20, 5, Ink::darkBrick);
    tile.across(21, 19, 2, Ink::darkBrick);
  }
}

// A wall seen from above: its top as a strip, its papered front below.
void wall(Pixels& tile, int side) {
  tile.box(0, 0, kTile, 10, Ink::slate);
  tile.across(0, 0, kTile, Ink::steel);
  tile.across(0, 9, kTile, Ink::ink);
  tile.box(0, 10, kTile, 22, Ink::moss);
  for (int x = 3; x < kTile; x += 8) {
    tile.dithered(x, 10, 3, 14, Ink::leaf, 7);
    tile.down(x, 10, 14, Ink::deepMoss);
  }
  tile.box(0, 24, kTile, 8, Ink::darkBrick);
  tile.across(0, 24, kTile, Ink::copper);
  tile.across(0, 31, kTile, Ink::ink);
  for (int x = 7; x < kTile; x += 16) tile.down(x, 25, 6, Ink::ink);
  if (side < 0) tile.box(0, 0, 6, kTile, Ink::slate);
  if (side < 0) tile.down(6, 10, 22, Ink::ink);
  if (side > 0) tile.box(26, 0, 6, kTile, Ink::slate);
  if (side > 0) tile.down(25, 10, 22, Ink::ink);
}

// The top of a wall, over which sides it goes on, from the top and clockwise.
void top(Pixels& tile, unsigned sides) {
  tile.box(0, 0, kTile, kTile, Ink::slate);
  tile.dithered(0, 0, kTile, kTile, Ink::ink, 2);
  if (!(sides & 1)) tile.box(0, 0, kTile, 2, Ink::steel);
  if (!(sides & 8)) tile.box(0, 0, 2, kTile, Ink::steel);
  if (!(sides & 2)) tile.down(kTile - 1, 0, kTile, Ink::ink);
  if (!(sides & 4)) tile.box(0, kTile - 2, kTile, 2, Ink::ink);
  // Caps of plaster run along it.
  if (sides & 10 && !(sides & 5)) tile.dithered(2, 6, kTile - 4, 2, Ink::steel, 5);
  if (sides & 5 && !(sides & 10)) tile.dithered(6, 2, 2, kTile - 4, Ink::steel, 5);
}

void window(Pixels& tile) {
  wall(tile, 0);
  tile.box(6, 11, 20, 14, Ink::ink);
  tile.box(7, 12, 18, 12, Ink::plum);
  tile.dithered(7, 12, 18, 5, Ink::rose, 6);
  tile.dithered(7, 17, 18, 4, Ink::dusk, 7);
  tile.box(7, 21, 18, 3, Ink::slate);
  for (const int x : {9, 14, 20}) tile.dot(x, 21, Ink::lamp);
  tile.down(15, 12, 12, Ink::linen);
  tile.across(7, 17, 18, Ink::linen);
  tile.box(5, 25, 22, 2, Ink::linen);
}

void door(Pixels& tile) {
  wall(tile, 0);
  tile.box(7, 10, 18, 22, Ink::ink);
  tile.box(8, 11, 16, 21, Ink::canal);
  tile.dithered(8, 11, 16, 4, Ink::lightCanal, 6);
  for (const int y : {13, 22}) tile.frame(10, y, 12, 7, Ink::deepCanal);
  tile.box(20, 21, 2, 2, Ink::amber);
}

void clock(Pixels& tile) {
  wall(tile, 0);
  tile.disc(16, 16, 6, Ink::ink);
  tile.disc(16, 16, 5, Ink::linen);
  tile.down(16, 12, 5, Ink::ink);
  tile.across(16, 16, 4, Ink::brick);
}

void chart(Pixels& tile) {
  wall(tile, 0);
  tile.box(5, 11, 22, 13, Ink::ink);
  tile.box(6, 12, 20, 11, Ink::linen);
  tile.across(8, 15, 12, Ink::copper);
  tile.down(19, 15, 5, Ink::copper);
  tile.across(11, 19, 9, Ink::canal);
  for (const int x : {8, 13, 19}) tile.box(x - 1, 14, 3, 3, Ink::brick);
}

void rug(Pixels& tile, int part) {
  boards(tile, 0);
  const int left = part == 0 ? 4 : 0;
  const int right = part == 2 ? 28 : kTile;
  tile.box(left, 5, right - left, 22, Ink::plum);
  tile.across(left, 5, right - left, Ink::rose);
  tile.across(left, 26, right - left, Ink::ink);
  tile.across(left, 8, right - left, Ink::dusk);
  tile.across(left, 23, right - left, Ink::dusk);
  for (int x = left + 3; x + 4 < right; x += 8) {
    tile.box(x, 14, 4, 4, Ink::rose);
    tile.box(x + 1, 15, 2, 2, Ink::amber);
  }
  if (part == 0) {
    for (int y = 6; y < 26; y += 2) tile.across(2, y, 2, Ink::linen);
  }
  if (part == 2) {
    for (int y = 6; y < 26; y += 2) tile.across(28, y, 2, Ink::linen);
  }
}

void finish(Pixels& tile) {
  tile.outline(Ink::ink);
  tile.castShadow(3);
}

void desk(Pixels& tile, bool left) {
  const int from = left ? 3 : 0;
  const int to = left ? kTile : 29;
  tile.box(from, 7, to - from, 11, Ink::copper);
  tile.dithered(from, 7, to - from, 3, Ink::amber, 6);
  tile.box(from, 18, to - from, 8, Ink::brick);
  tile.across(from, 18, to - from, Ink::darkBrick);
  if (left) {
    tile.box(8, 9, 10, 7, Ink::linen);
    for (int y = 11; y < 16; y += 2) tile.across(9, y, 8, Ink::farSky);
    tile.box(22, 9, 4, 5, Ink::canal);
  } else {
    tile.box(12, 3, 5, 4, Ink::lamp);
    tile.box(14, 7, 2, 5, Ink::steel);
    tile.box(11, 11, 8, 2, Ink::slate);
    tile.frame(19, 20, 8, 5, Ink::darkBrick);
  }
  finish(tile);
}

void levers(Pixels& tile, bool set) {
  tile.box(3, 15, 26, 12, Ink::slate);
  tile.box(3, 15, 26, 3, Ink::steel);
  const Ink knobs[] = {Ink::brick, Ink::amber, Ink::canal, Ink::brick};
  for (int i = 0; i < 4; ++i) {
    const int x = 6 + i * 6;
    const int lean = set == (i % 2 == 0) ? 2 : -1;
    for (int k = 0; k < 11; ++k) tile.box(x + lean * k / 10, 16 - k, 2, 1, Ink::paleStone);
    tile.box(x + lean - 1, 3, 4, 4, knobs[i]);
  }
  finish(tile);
}

void stove(Pixels& tile) {
  tile.box(13, 0, 5, 10, Ink::slate);
  tile.box(7, 9, 18, 17, Ink::slate);
  tile.box(7, 9, 18, 3, Ink::steel);
  tile.box(11, 16, 10, 6, Ink::ink);
  tile.box(12, 17, 8, 4, Ink::copper);
  tile.dithered(12, 18, 8, 3, Ink::lamp, 9);
  finish(tile);
}

void shelf(Pixels& tile) {
  tile.box(4, 3, 24, 24, Ink::brick);
  for (const int y : {5, 12, 19}) {
    tile.box(6, y, 20, 6, Ink::darkBrick);
    const Ink books[] = {Ink::canal, Ink::amber, Ink::rose, Ink::moss, Ink::linen, Ink::farSky};
    for (int i = 0; i < 6; ++i) {
      if ((i + y) % 5 != 0) tile.box(7 + i * 3, y + 1 + (i + y) % 2, 2, 5 - (i + y) % 2, books[(i + y) % 6]);
    }
  }
  finish(tile);
}

void chair(Pixels& tile) {
  tile.box(10, 6, 12, 9, Ink::brick);
  tile.box(12, 8, 8, 5, Ink::copper);
  tile.box(10, 15, 12, 5, Ink::copper);
  tile.box(11, 20, 2, 6, Ink::darkBrick);
  tile.box(19, 20, 2, 6, Ink::darkBrick);
  finish(tile);
}

void stair(Pixels& tile) {
  boards(tile, 0);
  tile.box(4, 3, 24, 27, Ink::ink);
  for (int i = 0; i < 5; ++i) {
    tile.box(6, 5 + i * 5, 20, 3, i < 2 ? Ink::copper : i < 4 ? Ink::brick : Ink::darkBrick);
    tile.across(6, 5 + i * 5, 20, i < 3 ? Ink::amber : Ink::copper);
  }
}

void lantern(Pixels& tile) {
  tile.box(14, 3, 4, 3, Ink::steel);
  tile.box(11, 6, 10, 12, Ink::lamp);
  tile.frame(11, 6, 10, 12, Ink::slate);
  tile.down(16, 7, 10, Ink::amber);
  tile.box(10, 18, 12, 3, Ink::steel);
  finish(tile);
}

void plant(Pixels& tile) {
  tile.disc(16, 11, 8, Ink::moss);
  for (const auto& [x, y] :
       {std::pair(12, 7), std::pair(18, 5), std::pair(21, 11), std::pair(13, 13), std::pair(17, 10)}) {
    tile.box(x, y, 3, 2, Ink::leaf);
  }
  tile.box(11, 18, 10, 8, Ink::brick);
  tile.box(11, 18, 10, 2, Ink::copper);
  finish(tile);
}

void trunk(Pixels& tile) {
  tile.box(5, 10, 22, 15, Ink::brick);
  tile.box(5, 10, 22, 5, Ink::copper);
  for (const int x : {9, 21}) tile.box(x, 10, 2, 15, Ink::slate);
  tile.box(14, 14, 4, 4, Ink::amber);
  finish(tile);
}

const std::pair<const char*, Draw>& roomTile(std::size_t index) {
  static const std::vector<std::pair<const char*, Draw>> all = {
      {"boards 1", [](Pixels& t) { boards(t, 0); }},
      {"boards 2", [](Pixels& t) { boards(t, 1); }},
      {"boards 3", [](Pixels& t) { boards(t, 2); }},
      {"rug, left end", [](Pixels& t) { rug(t, 0); }},
      {"rug, middle", [](Pixels& t) { rug(t, 1); }},
      {"rug, right end", [](Pixels& t) { rug(t, 2); }},
      {"wall, left corner", [](Pixels& t) { wall(t, -1); }},
      {"wall", [](Pixels& t) { wall(t, 0); }},
      {"wall, right corner", [](Pixels& t) { wall(t, 1); }},
      {"window at dusk", window},
      {"door", door},
      {"wall with a clock", clock},
      {"wall with a chart", chart},
      {"desk, left", [](Pixels& t) { desk(t, true); }},
      {"desk, right", [](Pixels& t) { desk(t, false); }},
      {"levers", [](Pixels& t) { levers(t, false); }},
      {"levers, set", [](Pixels& t) { levers(t, true); }},
      {"stove", stove},
      {"shelf", shelf},
      {"chair", chair},
      {"stair down", stair},
      {"lantern", lantern},
      {"plant", plant},
      {"trunk", trunk},
  };
  return all[index];
}

std::string topName(unsigned sides) {
  std::string name;
  const char* const ways[] = {"north", "east", "south", "west"};
  for (int i = 0; i < 4; ++i) {
    if (sides >> i & 1) name += std::string(name.empty() ? "" : "-") + ways[i];
  }
  return "wall top" + (name.empty() ? ", alone" : " " + name);
}

}  // namespace

DrawnSheet drawLoftSheet() {
  constexpr int kBorder = 2;
  constexpr int kGap = 2;
  constexpr int kRows = 7;
  Pixels all(2 * kBorder + kLoftColumns * (kTile + kGap) - kGap, 2 * kBorder + kRows * (kTile + kGap) - kGap);
  DrawnSheet drawn;
  const auto put = [&](unsigned number, const std::string& name, const Draw& draw) {
    Pixels tile(kTile, kTile);
    draw(tile);
    const int i = static_cast<int>(number);
    all.paste(tile, kBorder + i % kLoftColumns * (kTile + kGap), kBorder + i / kLoftColumns * (kTile + kGap));
    drawn.names[number] = name;
  };
  for (unsigned i = 0; i < wallTop(0); ++i) {
    const auto& [name, draw] = roomTile(i);
    put(i, name, draw);
  }
  for (unsigned sides = 0; sides < 16; ++sides) put(wallTop(sides), topName(sides), [sides](Pixels& tile) { top(tile, sides); });
  drawn.picture = all.image();
  return drawn;
}

DrawnSheet drawRipplesSheet() {
  const QImage street = drawStreetSheet().picture;
  const int wide = street.width() / kTile;
  Pixels all(kRippleFrames * kTile, kRipples * kTile);
  DrawnSheet drawn;
  constexpr std::pair<int, int> middles[] = {{11, 12}, {20, 18}, {14, 21}, {19, 10}};
  for (int look = 0; look < kRipples; ++look) {
    const int ground = static_cast<int>(groundTile(Ground::canal, look));
    for (int frame = 0; frame < kRippleFrames; ++frame) {
      Pixels tile(kTile, kTile);
      tile.each([&](int x, int y) {
        return static_cast<Ink>(street.pixel(ground % wide * kTile + x, ground / wide * kTile + y));
      });
      // Rings that widen and thin out, and a glint that wanders.
      const auto [cx, cy] = middles[look];
      for (int ring = 0; ring < 2; ++ring) {
        const int age = (frame + ring * 2) % kRippleFrames;
        const double radius = 2 + age * 2.5;
        for (int y = 0; y < kTile; ++y) {
          for (int x = 0; x < kTile; ++x) {
            const double far = std::hypot(x + 0.5 - cx, (y + 0.5 - cy) * 1.7);
            const bool thin = age < 2 || dither(x, y, 14 - age * 3);
            if (std::abs(far - radius) < 0.75 && thin) tile.dot(x, y, y < cy ? Ink::deepCanal : Ink::lightCanal);
          }
        }
      }
      tile.across((4 + look * 7 + frame * 2) % 26, (5 + look * 9) % 28, 4, Ink::lightCanal);
      if (look == 3) {  // a leaf drifts by
        tile.box(5 + frame * 5, 20 + frame % 2, 3, 2, Ink::amber);
        tile.dot(8 + frame * 5, 20 + frame % 2, Ink::copper);
      }
      all.paste(tile, frame * kTile, look * kTile);
      const char* kind = look == 3 ? "ripples with a leaf" : "ripples ";
      drawn.names[static_cast<unsigned>(look * kRippleFrames + frame)] =
          std::string(kind) + (look == 3 ? "" : std::to_string(look + 1)) + ", frame " + std::to_string(frame + 1);
    }
  }
  drawn.picture = all.image();
  return drawn;
}

std::vector<DrawnProp> drawQuayProps() {
  std::vector<DrawnProp> props;
  const auto add = [&props](const char* name, int w, int h, const Draw& draw) {
    Pixels canvas(w, h);
    draw(canvas);
    finish(canvas);
    props.push_back({name, canvas.image()});
  };
  add("fish crate", 32, 30, [](Pixels& p) {
    p.box(2, 6, 25, 19, Ink::copper);
    for (int y = 6; y < 25; y += 5) p.across(2, y + 4, 25, Ink::darkBrick);
    p.box(4, 7, 21, 7, Ink::slate);
    for (int i = 0; i < 4; ++i) {
      p.box(6 + i * 5, 8 + i % 2 * 2, 4, 2, Ink::paleStone);
      p.dot(9 + i * 5, 8 + i % 2 * 2, Ink::ink);
    }
  });
  add("tar barrel", 24, 30, [](Pixels& p) {
    p.box(3, 5, 15, 21, Ink::brick);
    p.box(2, 9, 17, 13, Ink::brick);
    p.dithered(4, 6, 4, 19, Ink::copper, 9);
    for (const int y : {8, 20}) p.across(2, y, 17, Ink::slate);
    p.box(5, 4, 11, 3, Ink::ink);
  });
  add("mooring ring", 18, 16, [](Pixels& p) {
    p.disc(8, 7, 5, Ink::steel);
    p.disc(8, 7, 2, Ink::none);
    p.box(6, 1, 5, 4, Ink::slate);
  });
  add("coil of rope", 28, 22, [](Pixels& p) {
    for (int r = 9; r > 2; r -= 2) {
      p.each([&](int x, int y) {
        const double far = std::hypot(x + 0.5 - 12, (y + 0.5 - 10) * 1.5);
        if (std::abs(far - r) < 1.1) return dither(x, y, 5) ? Ink::copper : Ink::linen;
        return static_cast<Ink>(p.image().pixel(x, y));
      });
    }
    p.box(18, 14, 6, 2, Ink::linen);
  });
  add("heap of nets", 40, 28, [](Pixels& p) {
    for (int x = 2; x < 36; ++x) {
      const int high = static_cast<int>(9 + 8 * std::sin(x * 0.085 * 3.1));
      p.box(x, 24 - high, 1, high, Ink::moss);
      for (int y = 24 - high; y < 24; ++y) {
        if ((x + y) % 4 == 0 || (x - y + 64) % 4 == 0) p.dot(x, y, Ink::deepMoss);
      }
    }
    for (const auto& [x, y] : {std::pair(7, 17), std::pair(16, 10), std::pair(26, 15), std::pair(32, 19)})
      p.box(x, y, 3, 3, Ink::copper);
  });
  add("anchor", 30, 34, [](Pixels& p) {
    p.box(12, 6, 3, 20, Ink::slate);
    p.disc(13, 4, 3, Ink::slate);
    p.dot(13, 4, Ink::none);
    p.box(7, 9, 13, 2, Ink::steel);
    for (int i = 0; i < 9; ++i) {
      p.box(13 - i, 25 - i * i / 12, 2, 2, Ink::slate);
      p.box(13 + i, 25 - i * i / 12, 2, 2, Ink::slate);
    }
  });
  add("striped buoy", 22, 30, [](Pixels& p) {
    p.box(9, 1, 2, 5, Ink::steel);
    p.box(6, 6, 8, 6, Ink::brick);
    p.box(4, 12, 12, 5, Ink::linen);
    p.box(3, 17, 14, 6, Ink::brick);
    p.box(5, 23, 10, 2, Ink::darkBrick);
    p.dithered(4, 7, 4, 15, Ink::lamp, 3);
  });
  add("lobster pot", 32, 24, [](Pixels& p) {
    p.box(3, 8, 24, 12, Ink::copper);
    p.box(6, 4, 18, 4, Ink::copper);
    for (int x = 5; x < 27; x += 4) p.down(x, 5, 15, Ink::darkBrick);
    for (int y = 8; y < 20; y += 4) p.across(3, y, 24, Ink::darkBrick);
    p.disc(15, 14, 4, Ink::ink);
  });
  add("harbour lamp", 20, 52, [](Pixels& p) {
    p.box(8, 14, 3, 33, Ink::slate);
    p.box(5, 45, 9, 4, Ink::slate);
    p.box(4, 4, 11, 11, Ink::lamp);
    p.frame(4, 4, 11, 11, Ink::slate);
    p.box(3, 2, 13, 2, Ink::canal);
    p.dithered(5, 5, 9, 4, Ink::linen, 8);
  });
  return props;
}

}  // namespace uq::art
