// TilesText: what a sheet knows of the places and pixels of its tiles, as the line text of its `.tiles` file.
//
//   tiles 1
//   picture 0123456789abcdef    the mark of the picture's file
//   cells 0: 0-15 40 17-31      the numbers of the tiles from cell 0 of the cut on; only where out of order
//   retired 7: 64 32 16 16      a number whose rectangle is no cell any more: x, y, width, height
//   twin 12: 3                  a dropped twin and the tile it shows; "3 mirrored" where mirrored across
//   dropped: 4 9-12             numbers that are not offered any more
//   marks 0: 5f… 0 …            marks of the pixels from cell 0 on
//   end
//
// ASCII, lines of at most 1,024 bytes, in this order, each number once; canonical: equal sheets give equal bytes. A
// reader takes the lines in any order. See docs/format.md.
#pragma once

#include <string>
#include <string_view>

#include "core/base/Error.h"
#include "core/document/Sheet.h"

namespace uq {

// Empty where the sheet says nothing that its cut does not say already.
std::string writeTiles(const Sheet& sheet);

// Reads places and marks into `sheet`, which has its cut or collection. On an Error, which names the line, the sheet is
// as it was.
Result<void> readTiles(std::string_view text, const std::string& file, Sheet& sheet);

}  // namespace uq
