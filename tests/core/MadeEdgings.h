// MadeEdgings: sheets of joining tiles, made by rule from a seed, with what each tile shows known. What guessing is held to.
//
// Fixed before any guessing was written, and not to be changed to suit it. Squares, diamonds and hexagons; by corners, sides,
// both, and paths; two to four materials; full sets, small sets with inner corners, platforms of three tiles; laid out as
// people lay them out, or shuffled with gaps; plain, rough and striped textures, outlines, and nothing as a material.
#pragma once

#include <string>
#include <vector>

#include "core/base/PixelView.h"
#include "core/document/Edging.h"

namespace uq::test {

enum class MadeSet { full, small, platform };

struct MadeEdging {
  GridShape shape;
  Edging truth;  // members by the number of their tile, row by row; no ids
  MadeSet set = MadeSet::full;
  bool arranged = false;
  bool outlined = false;
  int columns = 0;
  int rows = 0;
  std::vector<std::uint32_t> pixels;  // premultiplied 0xAARRGGBB
  std::string called;                 // "full corners on squares, 2 materials, arranged"

  PixelView view() const { return {pixels.data(), columns * shape.cell.w, columns * shape.cell.w, rows * shape.cell.h, false}; }
  PixelRect place(std::uint32_t tile) const {
    const int at = static_cast<int>(tile);
    return {at % columns * shape.cell.w, at / columns * shape.cell.h, shape.cell.w, shape.cell.h};
  }
};

// `drawn`: with its pixels, which take longest.
MadeEdging madeEdging(std::uint64_t seed, bool drawn = true);

}  // namespace uq::test
