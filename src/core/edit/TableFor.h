// TableFor: how the Table lies for a map — piles that the map uses first, then those whose cells fit it, then the others,
// each in the order in which somebody laid them.
//
// Cost: a look at some cells of every chunk of the map; of a large map a sheet that lies on few cells may be missed. Any
// thread.
#pragma once

#include <set>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

// The sheets of which tiles lie on a map.
std::set<Id> sheetsUsedOn(const Quilt& quilt, const Map& map);

// Whether a sheet's tiles lie well on cells of a map: as wide as they are, or single things of any size.
bool fitsMap(const Sheet& sheet, const Map& map);

// All sheets but Chalk, pile by pile. `map` may be nullptr: then as they were laid.
std::vector<Id> tableOrderFor(const Quilt& quilt, const Map* map, const std::set<Id>& used);

}  // namespace uq
