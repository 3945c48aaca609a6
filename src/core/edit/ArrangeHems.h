// ArrangeHems: what an edging brings along, taken from what is in hand and changed as a person says it. No map is touched by any of
// them: hems come along with what is laid from then on, and with Check > Join anew. Threads: any.
#pragma once

#include <optional>
#include <string>

#include "core/document/Quilt.h"

namespace uq {

// A hem along a material, of what is in hand: tiles as they lie there come below it, row by row, and a material of another edging all
// around. `why`: why that is none, in words; empty where it is one.
struct HemOfHand {
  Hem hem;
  std::string why;
};
HemOfHand hemOfHand(const Quilt& quilt, const Edging& edging, MaterialIndex along, const InHand& hand);

// Without one; what followed it begins at the border, or follows the one before.
Edging withoutHem(const Edging& edging, std::size_t hem);
// At another side, there or on the material itself; rows that lay from above to below still do.
Edging withHemAt(const Edging& edging, std::size_t hem, int side, bool inside);
// "below wall", "all around floor", "on wall, from its top".
std::string hemPlaceInWords(const Edging& edging, const Hem& hem);
// The sides that lie below a cell: the first is where a wall's face hangs.
std::vector<int> sidesBelow(GridKind grid);

}  // namespace uq
