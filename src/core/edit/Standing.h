// Standing: whether somebody can stand on a cell of a map, as its tiles say so far.
//
// A cell can be stood on that lies within the bounds and on which no tile is solid: one of a layer of the game that moves
// with the ground, unlifted, whether the tile lies there or reaches there with its footprint. What nobody said is open.
// Cost: making one asks every sheet; asking looks at the cell on each layer, and where a sheet has tiles on several cells
// at as many cells as these. It refers to the quilt and the map, which must live as long. Threads: any.
#pragma once

#include "core/document/Quilt.h"
#include "core/grid/Heading.h"

namespace uq {

class Standing {
 public:
  Standing(const Quilt& quilt, const Map& map);

  bool canStand(CellPos cell) const;
  // The headings across whose side of the cell one can stand.
  std::vector<Heading> openSides(CellPos cell) const;
  // Which way somebody faces who arrives on a cell, travelling that way: the open side nearest to it, else the nearest side.
  Heading facing(CellPos cell, Heading travel) const;
  // Which way somebody goes who leaves by a cell: away from its open side where there is one only, out over the map's edge
  // where it lies at one, else away from the first open side, the lower ones first.
  Heading leaving(CellPos cell) const;

 private:
  bool isSolid(const Layer& layer, CellPos at, CellPos covers) const;

  const Quilt& quilt_;
  const Map& map_;
  std::shared_ptr<const Grid> grid_;
  std::vector<const Layer*> layers_;
  PixelSize widest_{1, 1};  // footprint of any tile
};

}  // namespace uq
