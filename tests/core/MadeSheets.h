// Sheets drawn at random, with the cut that they were drawn in: what measuring is measured by.
//
// The kinds of art were fixed before any measuring was written. Seeds below kFirstUnseenSeed are for looking at while
// measuring is worked on; those from there on are used by the test alone.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "core/document/Sheet.h"

namespace uq::test {

enum class Art {
  ground,   // covers its tile: flat colours under ordered texture, most tiles with two look-alikes
  objects,  // on see-through, inset by some pixels or touching; some over two tiles
  framed,   // covers its tile, with an outline of one or two pixels
  mixture,  // each row of another kind
};
inline constexpr Art kArts[] = {Art::ground, Art::objects, Art::framed, Art::mixture};
inline constexpr std::uint64_t kFirstUnseenSeed = 1'000'000;

struct MadeSheet {
  Art art = Art::ground;
  SheetCut cut;
  PixelSize size;
  std::vector<std::uint32_t> pixels;  // 0xAARRGGBB, row by row
  std::string text() const;           // "objects, 24 × 32, border 1, gap 1"
};

// The same seed gives the same sheet. Cells are 8 to 128 pixels each way: half of them squares of a usual size, a
// quarter of two usual sizes, a quarter of any. A third has a gap of 1 to 4, a quarter a border of 1 to 8; up to a
// third of the tiles is empty. What lies between the tiles is see-through, or one colour.
MadeSheet madeSheet(std::uint64_t seed);

}  // namespace uq::test
