// What became of a sheet's tiles when another program changed its picture: who stayed, who moved, whose pixels changed.
//
// Tiles are recognised by the marks of their pixels. A tile whose pixels stand elsewhere now has moved there — of twins
// each goes to the nearest place. A tile whose pixels stand nowhere any more stays where it was and has changed, or has
// changed and moved along with its neighbours. What is left over of the picture are new tiles; a tile that finds no
// place is gone: it keeps its number, and is drawn as a placeholder until it is there again.
// Cost: linear in the tiles, with a sort; twins cost their number squared in the worst case of few hundred at a time.
#pragma once

#include <vector>

#include "core/document/Sheet.h"

namespace uq {

struct PictureChange {
  Sheet sheet;                         // with its new picture size, places and marks
  std::vector<std::uint32_t> moved;    // numbers, rising
  std::vector<std::uint32_t> changed;  // whose pixels are others
  std::vector<std::uint32_t> added;
  std::vector<std::uint32_t> gone;
};

// `sheet` as it was, its marks known; `fresh` the same sheet with the new source and picture size, and new marks for
// its cells in cut order. Places of `fresh` are ignored. Not for collections, whose tiles are files.
PictureChange changedPicture(const Sheet& sheet, Sheet fresh);

// A collection's new marks tell which of its pictures changed; nobody moves.
PictureChange changedCollection(const Sheet& sheet, Sheet fresh);

// Whether two states of a sheet are made of the same picture in the same way, so that what was found out of one holds for
// the other.
bool sameMaking(const Sheet& a, const Sheet& b);
// The sheet with the picture of another state of it. What was said of the sheet meanwhile stays said.
Sheet withPictureOf(Sheet sheet, const Sheet& other);

}  // namespace uq
