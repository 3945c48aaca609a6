// Stitch: where a piece that is dragged on the Board would be sewn.
//
// Edges that belong together and come near one another offer a stitch: the nearest step of whole cells at which they
// meet, flush at an end where that is near enough, too. What can never be sewn and comes as near says why. Nothing is
// sewn by looking. Cost: the pieces near those that are moved; `sewnAt` that of SewnMaps for each edge that meets.
// Threads: any.
#pragma once

#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/edit/Board.h"
#include "core/edit/SewnMaps.h"

namespace uq {

struct Stitch {
  Id map;         // that stays
  Id other;       // of those that are moved
  CellPos by;     // on the cells of the map
  PixelPos move;  // by how much all that is moved comes to lie then, on the cloth
  std::string why;  // why it cannot be sewn, in words; empty where it can
};

// The stitch that is nearest when some pieces are moved by `by`, within `reach` map pixels; nothing where none is near.
// Which of the pieces move must hold for all that is sewn together.
std::optional<Stitch> stitchNear(const Quilt& quilt, const std::vector<Piece>& pieces, const std::set<Id>& moved, PixelPos by,
                                 int reach);

// With the pieces moved there, and sewn wherever edges that belong together meet exactly; `fixed` stay. The quilt is as it
// was, and `stitch.why` says so, where they cannot be.
Quilt sewnAt(const Quilt& quilt, const std::set<Id>& moved, Stitch& stitch, IdSource& ids, const std::set<Id>& fixed = {});

// The sides of cells on which a seam lies, on the cloth; nothing where it joins nothing.
std::vector<StitchSide> seamOnBoard(const Quilt& quilt, const std::vector<Piece>& pieces, const Seam& seam);

}  // namespace uq
