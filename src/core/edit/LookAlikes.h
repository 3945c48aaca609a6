// LookAlikes: other tiles that can stand in for a part of a stretch.
//
// What looks alike is told by the mixes that the quilt keeps: members of one mix can stand in for one another, blocks
// of equal size as well as single tiles; the first mix that has a tile decides. Cost: the members of all kept mixes, for
// each tile asked about.
#pragma once

#include "core/document/InHand.h"
#include "core/document/Quilt.h"

namespace uq {

// A part of a stretch: -1 the left or upper end, 1 the right or lower end, 0 all of it that way, as is an end that the
// stretch does not have.
struct StretchPart {
  int across = 0;
  int down = 0;
  friend constexpr bool operator==(const StretchPart&, const StretchPart&) = default;
};

// One of the tiles that look alike, and how often it comes up among them (1 .. kMostWeight).
struct Look {
  Cell cell;
  int weight = 1;
  friend bool operator==(const Look&, const Look&) = default;
};
// All that can lie in the place of a tile, itself among them; none where no kept mix knows of another one.
std::vector<Look> looksOf(const Quilt& quilt, Cell cell);
// One of them, by a number thrown for the place.
Cell thrownLook(const std::vector<Look>& looks, std::uint64_t thrown);

// The places of a block that belong to a part of the stretch.
CellRect placesOf(const InHand& stretch, StretchPart part);

// The stretch with the next look-alike in the place of a part, `steps` further (or back), round and round; of a corner
// that has none, in the place of the whole end across, else of the one down. The same where no kept mix knows of any.
InHand withLookAlike(const Quilt& quilt, const InHand& stretch, StretchPart part, int steps);

}  // namespace uq
