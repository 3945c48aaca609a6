// The `.cells` text: the cells of one tiles layer as lines, made for version control.
//
//   file = "cells 1" LF {code " " sheet-id LF} {"@" cx "," cy LF row {row}} "end" LF
//   row  = y ["-" y] ":" " " item {" " item} LF
//   item = "." [n] | [code] number [turn] ["x" n]
//
// docs/format.md explains it. Writing is canonical: the same cells give the same bytes, whatever the slots. Reading
// takes any order and unmerged runs, trusts nothing, and stops at the first wrong line with what it had read so far.
// Cost: linear in the text; writing is done by as many threads as there are cores.
#pragma once

#include <map>
#include <string>
#include <string_view>

#include "core/base/Error.h"
#include "core/document/Quilt.h"

namespace uq {

inline constexpr std::string_view kCellsMagic = "cells 1";
inline constexpr std::size_t kLongestCellsLine = 1024;  // bytes

// Whether cells can be written and read where they lie: at most kFarthestCell from 0, 0.
constexpr bool isWritable(CellRect cells) {
  return cells.x0 >= -kFarthestCell && cells.y0 >= -kFarthestCell && cells.x1 <= kFarthestCell &&
         cells.y1 <= kFarthestCell;
}

// `quilt` gives each slot its sheet's id and code. Of two sheets with one code, the one with the greater id is written
// with the next free one.
std::string writeCells(const CellGrid& cells, const Quilt& quilt);

struct CellsRead {
  CellGrid cells;
  std::optional<Error> error;  // where reading stopped; `cells` holds the lines before
};

// `quilt` gives slots to the sheets named in the text, missing ones too. `file` is named in the Error.
CellsRead readCells(std::string_view text, Quilt& quilt, int turnOrder, const std::string& file);

// The same text for plain numbers: no sheet lines, no codes, no turns.
std::string writeNumbers(const NumberGrid& numbers);

struct NumbersRead {
  NumberGrid numbers;
  std::optional<Error> error;  // where reading stopped; `numbers` holds the lines before
};

// Numbers of 1 to `most`.
NumbersRead readNumbers(std::string_view text, int most, const std::string& file);

// How many cells within bounds are of sheets that a quilt does not have, by slot.
std::map<SheetSlot, std::int64_t> missingOf(const CellGrid& cells, CellRect bounds, const Quilt& quilt);

}  // namespace uq
