// The trim sheet: what edgings bring along out of doors, and a hedge that joins along the way it is drawn.
#include "art/Pixels.h"
#include "art/Sheets.h"

namespace uq::art {

namespace {

constexpr const char* kEnds[] = {"left end", "middle", "right end", "alone"};

// How far a piece reaches from left to right, where its ends stop so many pixels off the middle of their cell.
std::pair<int, int> reachOf(int end, int off) {
  if (end == 3) return {12, 20};
  return {end == 0 ? kTile / 2 + off : 0, end == 2 ? kTile / 2 - off : kTile};
}

// Stones set on edge where lawn ends, their faces lit from above.
void kerb(Pixels& tile, int end, int look) {
  const auto [from, to] = reachOf(end, 5);
  tile.box(from, 12, to - from, 3, Ink::paleStone);
  tile.box(from, 15, to - from, 4, Ink::stone);
  tile.across(from, 12, to - from, Ink::linen);
  tile.across(from, 19, to - from, Ink::slate);
  for (int x = (look * 5) % 8; x < to; x += 8) {
    if (x >= from) tile.down(x, 12, 7, Ink::steel);
  }
  if (look == 1) tile.dithered(std::max(from, 18), 15, 5, 3, Ink::moss, 8);
  if (end == 0 || end == 3) tile.down(from, 12, 8, Ink::slate);
  if (end == 2 || end == 3) tile.down(to - 1, 12, 8, Ink::slate);
}

// Water that laps against a wall.
void foam(Pixels& tile, int end, int look) {
  const auto [from, to] = reachOf(end, -2);
  for (int x = from; x < to; ++x) {
    const int wave = (x + look * 11) % 9;
    if (wave < 6) tile.dot(x, 26 + (wave > 3 ? 1 : 0), Ink::linen);
    if (wave == 1 || wave == 2) tile.dot(x, 28, Ink::lightCanal);
    if ((x + look * 5) % 13 == 0) tile.box(x, 30, std::min(3, to - x), 1, Ink::lightCanal);
  }
}

// `sides`: over which it goes on, from the top and clockwise.
void hedge(Pixels& tile, unsigned sides) {
  const auto body = [&](int down, Ink ink) {
    tile.box(9, 8 + down, 14, 12, ink);
    if (sides & 1) tile.box(9, 0, 14, 10 + down, ink);
    if (sides & 2) tile.box(20, 8 + down, 12, 12, ink);
    if (sides & 4) tile.box(9, 16 + down, 14, kTile - 16 - down, ink);
    if (sides & 8) tile.box(0, 8 + down, 12, 12, ink);
  };
  body(6, Ink::deepMoss);
  body(0, Ink::moss);
  const Pixels shape = tile;
  const auto isTop = [&](int x, int y) { return x >= 0 && y >= 0 && x < kTile && y < kTile && shape.at(x, y) == Ink::moss; };
  for (int y = 0; y < kTile; ++y) {
    for (int x = 0; x < kTile; ++x) {
      // Clipped leaves, lighter towards the upper left.
      if (isTop(x, y) && ((x * 7 + y * 5) % 11 < 3 || (!isTop(x, y - 2) && y > 1))) tile.dot(x, y, Ink::leaf);
      if (isTop(x, y) && (x * 5 + y * 3) % 13 == 0) tile.dot(x, y, Ink::deepMoss);
    }
  }
  tile.outline(Ink::ink);
  tile.castShadow(2);
}

}  // namespace

DrawnSheet drawTrimSheet() {
  Pixels all(kTrimColumns * kTile, kTrimRows * kTile);
  DrawnSheet drawn;
  const auto put = [&](unsigned number, const std::string& name, const std::function<void(Pixels&)>& draw) {
    Pixels tile(kTile, kTile);
    draw(tile);
    all.paste(tile, static_cast<int>(number % kTrimColumns) * kTile, static_cast<int>(number / kTrimColumns) * kTile);
    drawn.names[number] = name;
  };
  for (int look = 0; look < 2; ++look) {
    for (int end = 0; end < 4; ++end) {
      const std::string which = std::string(kEnds[end]) + " " + std::to_string(look + 1);
      put(trim::kerb + static_cast<unsigned>(4 * look + end), "kerb, " + which, [=](Pixels& p) { kerb(p, end, look); });
      put(trim::foam + static_cast<unsigned>(4 * look + end), "foam, " + which, [=](Pixels& p) { foam(p, end, look); });
    }
  }
  for (unsigned sides = 0; sides < 16; ++sides) {
    std::string name = "hedge";
    const char* const ways[] = {"north", "east", "south", "west"};
    for (int i = 0; i < 4; ++i) {
      if (sides >> i & 1) name += std::string(name == "hedge" ? " " : "-") + ways[i];
    }
    put(trim::hedge + sides, sides == 0 ? "hedge, alone" : name, [=](Pixels& p) { hedge(p, sides); });
  }
  drawn.picture = all.image();
  return drawn;
}

}  // namespace uq::art
