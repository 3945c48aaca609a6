// EdgingCoverage: which shapes an edging needs so that every map painted with it joins, which of them it has, and what could
// stand in for the others.
//
// Needed is every shape that cells of two materials can come to show that the edging's members border on one another somewhere;
// a third material at one cell is no need. Where sides draw a border, it is drawn by the material whose members show the other.
// Cost: 16 shapes for each two materials on four-sided cells, 47 where both decide, 64 on hexagons, and the members, turned.
// Threads: any.
#pragma once

#include <optional>
#include <vector>

#include "core/document/Quilt.h"
#include "core/document/EdgingShape.h"

namespace uq {

struct MissingShape {
  EdgingShape shape;
  std::optional<EdgingMember> turned;  // a tile of it that shows this when it is mirrored or turned as its sheet allows
  std::vector<TileId> parts;           // else, for each corner, a tile whose part near it can be cut out for this; none where one is missing, and beyond the first 1,024
};

// For each corner of a cell a tile that lies straight and shows there, and along the sides that run to it, what the shape does, so that
// all of them cut together show it; empty where there is none for one. Two of four-sided cells meet in the middle of a side.
std::vector<TileId> partsFor(const Edging& edging, const EdgingShape& shape);

struct EdgingCoverage {
  int needed = 0;
  std::vector<MissingShape> missing;
  // How many pictures are really needed for what is missing: shapes that are turns of one another count once where the sheet of
  // the first member may be turned so, and none that turning gives.
  int pictures = 0;

  int there() const { return needed - static_cast<int>(missing.size()); }
  int byTurning() const;
  int fromParts() const;
};

EdgingCoverage coverageOf(const Quilt& quilt, const Edging& edging, const Grid& grid);

// With a member for each missing shape that turning gives.
Edging withTurned(const Edging& edging, const EdgingCoverage& coverage);

}  // namespace uq
