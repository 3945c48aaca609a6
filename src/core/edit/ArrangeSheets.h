// Bringing sheets in, cutting them anew, saying what they are, and laying them on the Table.
//
// Everything here is a function from a quilt to a quilt. No cell of a map is ever touched: only the sheet says where
// its tiles stand. Nothing changes where there is no such sheet, and never Chalk.
#pragma once

#include <functional>
#include <set>

#include "core/base/Id.h"
#include "core/document/Quilt.h"
#include "core/sheets/PictureChange.h"

namespace uq {

struct SheetAdded {
  Quilt quilt;
  Id sheet;  // empty when nothing was added: all slots are taken
};

// Adds a sheet that has everything but what makes it one of this quilt's: its id, a free code, and free file names for
// it and its pictures are given here. `pictureName` is the name of the file it came from, as somebody gave it.
SheetAdded addSheet(const Quilt& quilt, Sheet sheet, const std::string& pictureName, IdSource& ids);

// Another cut. A tile whose rectangle is one of the new cells keeps its number there; other tiles that are in use (see
// numbersInUse) stay as retired ones with the rectangle they had; new cells get numbers that nobody had, as long as
// there are any. Where no tile is in use, numbers follow the new cut. `marks` are those of the new cells.
Quilt cutAnew(const Quilt& quilt, Id sheet, const SheetCut& cut, SheetMarks marks,
              const std::set<std::uint32_t>& inUse);

// Other care for the pixels, after which the picture has `size`. Where it shrinks or grows, the cut does so with it if
// it can.
Quilt withCare(const Quilt& quilt, Id sheet, const PixelCare& care, PixelSize size);
// The cut as it is at another scale; the same where that is no whole number.
SheetCut scaledCut(const SheetCut& cut, int from, int to);

Quilt deleteSheet(const Quilt& quilt, Id sheet);
// The name only: files keep the names by which whoever draws knows them.
Quilt renameSheet(const Quilt& quilt, Id sheet, const std::string& name);

// A name for a tile that no other tile of its sheet has: with a number behind it where somebody gave it twice.
std::string freeTileName(const Sheet& sheet, std::uint32_t number, const std::string& name);

// Changes what is said of a sheet, or of some of its tiles; tiles of which nothing is said any more are forgotten.
Quilt changedSheet(const Quilt& quilt, Id sheet, const std::function<void(Sheet&)>& change);
Quilt changedTiles(const Quilt& quilt, Id sheet, const std::set<std::uint32_t>& numbers,
                   const std::function<void(TileFacts&)>& change);

// The sheets in the order in which they lie on the Table: pile by pile, those without one last; in a pile as the
// quilt's facts say, then by code.
std::vector<Id> tableOrder(const Quilt& quilt);
// The piles in that order; an empty name for sheets in none.
std::vector<std::string> pilesOf(const Quilt& quilt);
// Lays a sheet into a pile, before another one of it, or last.
Quilt movedOnTable(const Quilt& quilt, Id sheet, const std::string& pile, Id before);

}  // namespace uq
