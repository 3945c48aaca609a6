// EdgingShape: what a cell shows at its places, or is wanted to show, apart from any tile. Whether a member suits it, and how
// badly where none does exactly, is decided here and nowhere else.
//
// A value; lists are those of its edging (EdgingMember): one entry for each place that decides. Threads: any.
#pragma once

#include <compare>
#include <optional>
#include <string>
#include <vector>

#include "core/document/Edging.h"

namespace uq {

// Stands where anything will do.
inline constexpr MaterialIndex kAnything = -2;

struct EdgingShape {
  MaterialIndex middle = kAnything;
  std::vector<MaterialIndex> sides;
  std::vector<MaterialIndex> corners;
  friend auto operator<=>(const EdgingShape&, const EdgingShape&) = default;
};

EdgingShape shapeOf(const EdgingMember& member);

// What it costs to lay a member where a shape is wanted; 0 where it suits exactly. A wrong corner costs 16, a wrong side 64, a
// wrong middle 1024; a place that should face nothing and does not, a quarter less; a piece that joins nowhere where one was
// wanted that does, 512 more.
int costOf(const Edging& edging, const EdgingMember& member, const EdgingShape& wanted);

// Whether an empty cell shows it.
bool isNothing(const EdgingShape& shape);

// The same, mirrored and turned as a tile is that lies so. The grid's outline says which place goes where.
EdgingShape turnedShape(const Grid& grid, const EdgingShape& shape, Turn turn);

// "lawn", or "lawn, but its upper left and top are canal"; places of which nothing is said are left out.
std::string shapeInWords(const Edging& edging, const EdgingShape& shape);
// "upper left", of the edging's grid; `corner`: of corners, else of sides.
std::string placeName(GridKind grid, bool corner, int place);

}  // namespace uq
