// Adding, duplicating, renaming and deleting the maps of a quilt.
//
// A new map comes with layers for the ground and for things, so that painting can begin. Nothing changes where there is
// no such map.
#pragma once

#include <map>
#include <set>

#include "core/base/Id.h"
#include "core/document/Quilt.h"

namespace uq {

struct MapAdded {
  Quilt quilt;
  Id map;  // empty when nothing was added
  std::map<Id, Id> pins{};  // of a copy: its pins, by those that were copied
};

// What is asked of somebody who wants a map.
struct MapPlan {
  std::string name;
  GridShape grid;
  int width = 0;   // cells
  int height = 0;  // cells
  Seen seen = Seen::fromAbove;
  friend bool operator==(const MapPlan&, const MapPlan&) = default;
};

// A plan that fits the quilt: grid, size and how it is seen as of `like` (else of a map 48 × 32 cells of 32 px), the cell as large as
// the tiles of `sheet`, where there is one, and a name that no map has.
MapPlan proposedMap(const Quilt& quilt, const Map* like, const Sheet* sheet);

// Why no such map can be made, in words; empty when it can.
std::string whyNoMap(const MapPlan& plan);

// Cells count from 0, 0. Nothing is added where whyNoMap says why.
MapAdded addMap(const Quilt& quilt, const MapPlan& plan, IdSource& ids);

// A copy with ids of its own for itself and its layers, and a free name. It wraps as the map does, and is sewn to nothing;
// doorways from the map to itself lead within the copy, others stay with what was copied.
MapAdded duplicateMap(const Quilt& quilt, Id map, IdSource& ids);
// Copies of several maps, sewn and joined by doorways among themselves as those are.
struct MapsAdded {
  Quilt quilt;
  std::map<Id, Id> copies;  // by the map that was copied
};
MapsAdded duplicateMaps(const Quilt& quilt, const std::set<Id>& maps, IdSource& ids);

Quilt renameMap(const Quilt& quilt, Id map, const std::string& name);

// What stays as it is where a map gets other cells: its cells, so that it reaches farther or less far; or how far it reaches,
// so that it has more cells or fewer.
enum class CellsKeep { cells, reach };

// Gives a map cells of the size that comes nearest to `cell` on its grid; what is painted stays on its cells, and what
// comes to lie outside is seam allowance.
Quilt withCell(const Quilt& quilt, Id map, PixelSize cell, CellsKeep keeps = CellsKeep::cells);
// Why that cannot be, in words; empty where it can.
std::string whyNoCell(const Map& map, PixelSize cell, CellsKeep keeps);

// Deletes a map with its layers.
Quilt deleteMap(const Quilt& quilt, Id map);

// Makes a map the one that the quilt opens with for somebody who sees it first, or none where it is that already.
Quilt withOpeningMap(const Quilt& quilt, Id map);

}  // namespace uq
