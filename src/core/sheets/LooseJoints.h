// LooseJoints: sides at which a picture is cut off although its sheets have the tile that belongs there.
//
// Two neighbours of one layer, or a tile and an empty cell, are a loose joint when what they show at their common side
// differs (TileSides) and a tile of their one sheet is made for the place between: it joins the one at one side and the
// other at the opposite side, as an end, an edge or a corner does. Without such a tile a hard border is how the
// pictures are meant. No joint is loose where a tile reaches beyond its cell, has hardly anything at the side, is
// carried on by another layer there, or is hidden by a lifted tile. Cells that are lifted differently are not beside
// each other. The map's edge is no joint.
//
// Cost: for each pair of tiles that was not seen before, the tiles of their sheets; else a look-up a side.
#pragma once

#include "core/base/Progress.h"
#include "core/sheets/TileSides.h"

namespace uq {

struct LooseJoint {
  CellPos cell;
  int side = 0;     // of that cell, as Grid counts them
  TileRef between;  // a tile that belongs there
};

// Knows of pairs of tiles whether they are loose beside each other. Good for one grid and the sheets of one quilt.
class JointBook {
 public:
  explicit JointBook(TileSides sides) : sides_(std::move(sides)) {}

  TileSides& sides() { return sides_; }
  // The tile that belongs between a cell and what lies beyond its side; nothing where the joint holds.
  const std::optional<TileRef>& between(Cell cell, int side, Cell beyond);
  // All of them, turned as they belong there; of a joint that holds none. Good until the book goes.
  const std::vector<Cell>& madeFor(Cell cell, int side, Cell beyond);
  // Whether what the two show at that side is the same, and is something.
  bool carriesOn(Cell cell, int side, Cell beyond);
  // Whether the tile is painted all along its sides, so that nothing is seen behind it.
  bool isSolid(Cell cell);

 private:
  std::vector<Cell> lookedUp(Cell cell, int side, Cell beyond, std::size_t most);

  struct Pair {
    std::uint64_t cells = 0;
    int side = -1;
    friend bool operator==(const Pair&, const Pair&) = default;
  };
  struct Hash {
    std::size_t operator()(const Pair& pair) const {
      return std::hash<std::uint64_t>()(pair.cells * 0x9e3779b97f4a7c15u + static_cast<std::uint64_t>(pair.side));
    }
  };
  TileSides sides_;
  std::unordered_map<Pair, std::optional<TileRef>, Hash> known_;
  std::unordered_map<Pair, std::vector<Cell>, Hash> made_;
};

// The loose joints of one layer of a map, `index` counted from the farthest, whose cell lies in `part`; row by row, at
// most `most`. Stops early when `progress` (may be nullptr) is cancelled; a unit of it is a row of the part.
std::vector<LooseJoint> looseJoints(JointBook& book, const Map& map, std::size_t index, CellRect part, std::size_t most,
                                    Progress* progress = nullptr);

}  // namespace uq
