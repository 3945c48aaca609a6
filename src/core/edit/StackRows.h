// StackRows: the layers and folders of a map as the Stack lists them, nearest first, and where something comes to lie that
// is dropped between them.
#pragma once

#include <set>
#include <vector>

#include "core/edit/Folders.h"

namespace uq {

// A folder's row stands above those of what is in it.
struct StackRow {
  Id id;
  bool isFolder = false;
  bool foldedUp = false;  // of a folder: its rows are not listed
  int depth = 0;          // how many folders are around it
  Id in;                  // the innermost of them
  std::size_t from = 0;   // its layers, as indices from the farthest: [from, to)
  std::size_t to = 0;
  friend bool operator==(const StackRow&, const StackRow&) = default;
};

std::vector<StackRow> stackRows(const Map& map, const std::set<Id>& foldedUp);

// The place in the upper half of a row, in front of it, or in the lower half: behind a layer or a folder that is folded
// up, else the nearest place in the folder. Counted as if `moved`, a layer or a folder, did not lie there.
StackPlace placeAtRow(const Map& map, const StackRow& row, bool lowerHalf, Id moved);

}  // namespace uq
