// LayerCells: all that lies on the cells of one layer: its tiles, by how much they are lifted, and what was meant where a tile stands
// in for a shape that is missing (edit/Meant.h).
//
// Whoever lays, moves, takes away or compares cells does it here, so that what lies on a cell stays together and one more
// thing that can lie there (a grid beside `cells` and `lifts`) is no new code elsewhere. Invariants, kept by lay and
// move: an empty cell is not lifted, and what is laid means itself, unless something else is said afterwards. Reading one grid alone is fine.
//
// A value of copy-on-write grids; see CellGrid for costs. Different values may be used on different threads.
#pragma once

#include <functional>
#include <optional>
#include <vector>

#include "core/cells/CellGrid.h"
#include "core/cells/CellSet.h"
#include "core/cells/NumberGrid.h"

namespace uq {

// What lies, or is laid, on one cell.
struct Laid {
  Cell cell;
  int lift = 0;  // map pixels, 0 .. kMostLift; 0 where empty
  friend bool operator==(const Laid&, const Laid&) = default;
};

struct LayerCells {
  CellGrid cells;
  NumberGrid lifts;  // by how many map pixels single cells lie above their layer
  NumberGrid meant;  // what was meant where a tile stands in; 0 where what lies there is meant

  Laid laidAt(CellPos at) const { return {cells.at(at), lifts.empty() ? 0 : lifts.at(at)}; }

  // Lays one thing on one cell or on many; what is empty takes away.
  void lay(CellPos at, const Laid& laid);
  void lay(CellRect where, const Laid& laid);
  void lay(const CellSet& where, const Laid& laid);
  void lay(CellPos at, Cell cell, int lift) { lay(at, Laid{cell, lift}); }

  // Calls `visit` for each painted cell of a set, or everywhere. It must change nothing here.
  using Visit = std::function<void(CellPos, const Laid&)>;
  void forEachLaid(const CellSet& which, const Visit& visit) const;
  void forEachLaid(const Visit& visit) const;

  // Takes away what lies on `which`, and lays it on `to`, which may be this, where `place` says; what has no place is
  // gone. Things that come to one cell: which of them lies there is not said.
  using Place = std::function<std::optional<CellPos>(CellPos)>;
  void move(const CellSet& which, LayerCells& to, const Place& place);

  // Whether both are one and the same value; false does not mean that they differ. Constant time.
  bool sameAs(const LayerCells& other) const {
    return cells.sameAs(other.cells) && lifts.cells().sameAs(other.lifts.cells()) && meant.cells().sameAs(other.meant.cells());
  }
  friend bool operator==(const LayerCells&, const LayerCells&) = default;

  // Boxes that hold all cells on which something differs, none across the border of a chunk. Cost: the chunks that are
  // not shared.
  static std::vector<CellRect> differences(const LayerCells& a, const LayerCells& b);
};

}  // namespace uq
