// Sewing and ripping: the edits that make, keep and take away seams.
//
// An edit leaves no seam wrong that was right before (SewnMaps says which are): it refuses in words, or takes the seam out
// and names it. Cost: that of SewnMaps. Threads: any.
#pragma once

#include <set>
#include <string>
#include <vector>

#include "core/edit/SewnMaps.h"

namespace uq {

struct Sewing {
  Quilt quilt;
  std::string why;  // why nothing was sewn, in words; empty when it was
};
// Sews `other` to `map`: cell (0, 0) of it comes to lie at `by`.
Sewing sewn(const Quilt& quilt, Id map, Id other, CellPos by, IdSource& ids);
// Sews a map to itself, across or down; nothing changes where it is already.
Sewing wrapped(const Quilt& quilt, Id map, bool down, IdSource& ids);
bool wraps(const Quilt& quilt, Id map, bool down);

Quilt ripped(const Quilt& quilt, const std::set<Id>& seams);
// The seams between some maps and all others; without those of a map to itself.
std::set<Id> seamsAround(const Quilt& quilt, const std::set<Id>& maps);
// All seams that join a map to others or to itself.
std::set<Id> seamsOf(const Quilt& quilt, Id map);

// "Depot Yard ~ Ferry Street", "Canal Locks wraps across".
std::string seamText(const Quilt& quilt, const Seam& seam);
// What is sewn along any part of an edge of a map: the name of the first such map, its own where it wraps; empty: nothing.
std::string sewnAlong(const Quilt& quilt, Id map, MapEdge edge);
// How far two maps touch: "32 cells".
int cellsSewn(const Quilt& quilt, const Seam& seam);

// After an edit that moved edges, changed grids or took maps away: what was sewn stays sewn where it can. A map whose
// neighbour's edge moved moves along; seams that were right and cannot stay are taken out and named in `opened`.
struct SeamsKept {
  Quilt quilt;
  std::vector<std::string> opened;
};
SeamsKept withSeamsKept(const Quilt& before, Quilt after);

}  // namespace uq
