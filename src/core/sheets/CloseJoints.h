// CloseJoints: lays the tiles that belong at loose joints (LooseJoints).
//
// At a joint beside an empty cell the tile belongs on that cell; between two tiles it takes the place of one of them.
// Of all tiles that are made for the joint, and both places, that one is chosen which leaves the fewest sides of its
// cell loose or unlike, then the likest. Nothing is laid that would leave more sides loose than there were: such
// a joint needs a person.
//
// Cost of a joint: the tiles made for it, times the sides of a cell.
#pragma once

#include <optional>

#include "core/sheets/LooseJoints.h"

namespace uq {

// What belongs at a joint of that layer of the map, counted from the farthest.
struct Closing {
  CellPos at;
  Cell cell;
};
std::optional<Closing> closingOf(JointBook& book, const Map& map, std::size_t index, const LooseJoint& joint);

struct Closed {
  Map map;
  std::int64_t cells = 0;  // that were laid
  std::size_t left = 0;    // joints, of those that were looked for, that are still loose
};
// Lays what belongs at every loose joint of a layer whose two cells lie in `part` and, where that is not empty, in
// `within`; round by round, since one tile may call for the next, until nothing more can be closed. Of at most `most`
// joints a round. A unit of `progress` (may be nullptr) is a row; what is cancelled is given back as it was.
Closed closeJoints(JointBook& book, const Map& map, std::size_t index, CellRect part, const CellSet& within,
                   std::size_t most, Progress* progress = nullptr);

}  // namespace uq
