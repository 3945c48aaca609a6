// The rails sheet: grooved rails for the middle of a paved cell, see-through between them.
#include <algorithm>
#include <cmath>

#include "art/Pixels.h"
#include "art/Sheets.h"

namespace uq::art {

namespace {

constexpr int kColumns = 8;
constexpr double kGauge = 6.0;  // pixels from the middle of the track to a rail

// How far a pixel lies outside (+) or inside (−) the nearer rail, by its distance from the middle of the track.
Ink railAt(double fromMiddle, int x, int y, bool bright) {
  const double d = std::abs(fromMiddle) - kGauge;
  if (d > -0.5 && d <= 0.5) return bright ? Ink::linen : Ink::paleStone;
  if (d > 0.5 && d <= 1.5) return Ink::slate;
  if (d > -1.5 && d <= -0.5) return Ink::ink;
  if (d > 1.5 && d <= 2.5 && dither(x, y, 6)) return Ink::steel;
  return Ink::none;
}

void across(Pixels& tile, int from = 0, int to = kTile) {
  tile.each([&](int x, int y) { return x >= from && x < to ? railAt(y + 0.5 - 16, x, y, y < 16) : Ink::none; });
}

void down(Pixels& tile, int from = 0, int to = kTile) {
  tile.each([&](int x, int y) { return y >= from && y < to ? railAt(x + 0.5 - 16, x, y, x < 16) : Ink::none; });
}

// A quarter circle about a corner of the tile.
void curve(Pixels& tile, int cornerX, int cornerY) {
  tile.each([&](int x, int y) {
    const double distance = std::hypot(x + 0.5 - cornerX, y + 0.5 - cornerY);
    return railAt(distance - 16, x, y, distance < 16);
  });
}

void bufferStop(Pixels& tile, int x, int y, bool upright) {
  Pixels stop(upright ? 6 : 22, upright ? 22 : 8);
  stop.box(0, 0, stop.width(), stop.height(), Ink::brick);
  for (int i = 0; i < std::max(stop.width(), stop.height()); i += 6) {
    stop.box(upright ? 0 : i, upright ? i : 0, upright ? stop.width() : 3, upright ? 3 : stop.height(), Ink::linen);
  }
  stop.frame(0, 0, stop.width(), stop.height(), Ink::ink);
  tile.paste(stop, x, y);
}

Pixels drawRail(Rail rail) {
  Pixels tile(kTile, kTile);
  constexpr int kWest = 0, kEast = kTile, kNorth = 0, kSouth = kTile;
  switch (rail) {
    case Rail::acrossWorn:
      across(tile);
      tile.dithered(4, 13, 24, 6, Ink::steel, 3);
      break;
    case Rail::acrossDrain:
      across(tile);
      tile.box(12, 12, 8, 8, Ink::slate);
      for (int x = 13; x < 19; x += 2) tile.down(x, 13, 6, Ink::steel);
      break;
    case Rail::acrossMoss:
      across(tile);
      tile.dithered(3, 19, 12, 2, Ink::moss, 9);
      tile.dithered(18, 12, 10, 2, Ink::moss, 9);
      break;
    case Rail::across: across(tile); break;
    case Rail::downWorn:
      down(tile);
      tile.dithered(13, 4, 6, 24, Ink::steel, 3);
      break;
    case Rail::downDrain:
      down(tile);
      tile.box(12, 12, 8, 8, Ink::slate);
      for (int y = 13; y < 19; y += 2) tile.across(13, y, 6, Ink::steel);
      break;
    case Rail::down: down(tile); break;
    case Rail::westSouth: curve(tile, kWest, kSouth); break;
    case Rail::southEast: curve(tile, kEast, kSouth); break;
    case Rail::eastNorth: curve(tile, kEast, kNorth); break;
    case Rail::northWest: curve(tile, kWest, kNorth); break;
    case Rail::acrossWestSouth: across(tile), curve(tile, kWest, kSouth); break;
    case Rail::acrossEastSouth: across(tile), curve(tile, kEast, kSouth); break;
    case Rail::acrossEastNorth: across(tile), curve(tile, kEast, kNorth); break;
    case Rail::acrossWestNorth: across(tile), curve(tile, kWest, kNorth); break;
    case Rail::downNorthEast: down(tile), curve(tile, kEast, kNorth); break;
    case Rail::downSouthEast: down(tile), curve(tile, kEast, kSouth); break;
    case Rail::downSouthWest: down(tile), curve(tile, kWest, kSouth); break;
    case Rail::downNorthWest: down(tile), curve(tile, kWest, kNorth); break;
    case Rail::crossing: across(tile), down(tile); break;
    case Rail::endWest:
      across(tile, 10);
      bufferStop(tile, 6, 5, true);
      break;
    case Rail::endEast:
      across(tile, 0, 22);
      bufferStop(tile, 20, 5, true);
      break;
    case Rail::endNorth:
      down(tile, 10);
      bufferStop(tile, 5, 6, false);
      break;
    case Rail::endSouth:
      down(tile, 0, 22);
      bufferStop(tile, 5, 18, false);
      break;
  }
  return tile;
}

constexpr const char* kNames[kRails] = {"rails across",
                                        "rails down",
                                        "curve west-south",
                                        "curve south-east",
                                        "curve east-north",
                                        "curve north-west",
                                        "turnout across, west-south",
                                        "turnout across, east-south",
                                        "turnout across, east-north",
                                        "turnout across, west-north",
                                        "turnout down, north-east",
                                        "turnout down, south-east",
                                        "turnout down, south-west",
                                        "turnout down, north-west",
                                        "rail crossing",
                                        "buffer stop west",
                                        "buffer stop east",
                                        "buffer stop north",
                                        "buffer stop south",
                                        "rails across, worn",
                                        "rails across, drain",
                                        "rails down, worn",
                                        "rails down, drain",
                                        "rails across, mossy"};

}  // namespace

DrawnSheet drawRailsSheet() {
  Pixels sheet(kColumns * kTile, kRails / kColumns * kTile);
  DrawnSheet drawn;
  for (int i = 0; i < kRails; ++i) {
    sheet.paste(drawRail(static_cast<Rail>(i)), i % kColumns * kTile, i / kColumns * kTile);
    drawn.names[static_cast<unsigned>(i)] = kNames[i];
  }
  drawn.picture = sheet.image();
  return drawn;
}

}  // namespace uq::art
