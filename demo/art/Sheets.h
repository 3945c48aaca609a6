// The demo's sheets: each a picture of 32 × 32 px tiles, with names for its tiles.
#pragma once

#include <QImage>
#include <array>
#include <map>
#include <string>
#include <vector>

namespace uq::art {

inline constexpr int kTile = 32;  // pixels

struct DrawnSheet {
  QImage picture;
  std::map<unsigned, std::string> names;
};

// The grounds of the street sheet. Each has look-alikes; some pairs have the fourteen borders between them.
enum class Ground { setts, slabs, lawn, canal };
inline constexpr int kLookAlikes = 6;

DrawnSheet drawStreetSheet();
// Tile numbers on the street sheet.
unsigned groundTile(Ground ground, int lookAlike);
// The border tile whose corners (north-west, north-east, south-east, south-west) are `over` where set, else `under`.
// Pairs that exist: lawn over setts, slabs over setts, canal over slabs. Not for all four corners alike.
unsigned borderTile(Ground over, Ground under, const std::array<bool, 4>& corners);
bool hasBorder(Ground over, Ground under);
// Special grounds, one tile each.
unsigned settsLid();
unsigned settsStain();
unsigned slabsGrating();
unsigned canalLilies();

// Rails by the sides of a cell that they join; see-through.
enum class Rail {
  across,
  down,
  westSouth,
  southEast,
  eastNorth,
  northWest,  // straights and curves
  acrossWestSouth,
  acrossEastSouth,
  acrossEastNorth,
  acrossWestNorth,  // turnouts off a straight across
  downNorthEast,
  downSouthEast,
  downSouthWest,
  downNorthWest,  // turnouts off a straight down
  crossing,
  endWest,
  endEast,
  endNorth,
  endSouth,  // the buffer stop is on the side named
  acrossWorn,
  acrossDrain,
  downWorn,
  downDrain,
  acrossMoss,
};
inline constexpr int kRails = 24;
DrawnSheet drawRailsSheet();

// A thing of several tiles on the yard sheet: its rectangle in tiles.
struct Thing {
  int x;
  int y;
  int w;
  int h;
};
namespace thing {
inline constexpr Thing shed{0, 0, 9, 7};  // the last column and row hold only shadow
inline constexpr Thing copperTram{9, 0, 5, 3};
inline constexpr Thing canalTram{9, 3, 5, 3};
inline constexpr Thing bench{9, 6, 2, 1};
inline constexpr Thing railPile{11, 6, 3, 1};
inline constexpr Thing barge{0, 7, 7, 3};
inline constexpr Thing cabin{7, 7, 3, 4};      // the upper row is roof
inline constexpr Thing tree{10, 7, 3, 3};      // the upper two rows are crown
inline constexpr Thing lampPost{13, 7, 1, 2};  // the upper tile is the lamp
inline constexpr Thing bollard{13, 9, 1, 1};
inline constexpr Thing kiosk{0, 10, 3, 3};  // the upper row is awning
inline constexpr Thing crates{3, 10, 2, 2};
inline constexpr Thing smallTree{5, 10, 2, 2};  // the upper row is crown
inline constexpr Thing steps{10, 10, 2, 2};
inline constexpr Thing drain{12, 10, 1, 1};
inline constexpr Thing puddle{13, 10, 1, 1};
inline constexpr Thing sign{9, 11, 1, 1};
inline constexpr Thing barrel{12, 11, 1, 1};
inline constexpr Thing flowers{13, 11, 1, 1};
inline constexpr Thing hedge{3, 12, 5, 2};  // left end, three middles, right end
}  // namespace thing
inline constexpr int kYardColumns = 14;
inline constexpr int kYardRows = 14;
DrawnSheet drawYardSheet();

// The inside of the Signal Loft, with a border and gaps of two pixels.
inline constexpr int kLoftColumns = 6;
DrawnSheet drawLoftSheet();

// The number of the top of a wall that goes on over those sides, from the top and clockwise.
inline constexpr unsigned wallTop(unsigned sides) { return 24 + sides; }

// What edgings bring along out of doors, and a hedge.
namespace trim {
inline constexpr unsigned kerb = 0;    // left end, middle, right end, alone; twice
inline constexpr unsigned foam = 8;    // likewise
inline constexpr unsigned hedge = 16;  // by the sides over which it goes on, from the top and clockwise
}  // namespace trim
inline constexpr unsigned kTrimColumns = 8;
inline constexpr unsigned kTrimRows = 4;
DrawnSheet drawTrimSheet();

// Canal water with ripples: a row of frames for each.
inline constexpr int kRipples = 4;  // the last one with a leaf
inline constexpr int kRippleFrames = 4;
DrawnSheet drawRipplesSheet();

// Things on a quay, each a picture of its own size.
struct DrawnProp {
  std::string name;
  QImage picture;
};
std::vector<DrawnProp> drawQuayProps();

}  // namespace uq::art
