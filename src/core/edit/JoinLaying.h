// JoinLaying: how a material of an edging comes to lie: what lies beside it is mended, and its hems come along.
//
// The first part of the stroke is the material's own layer; the others are the layers of the roles on which hems lie, in the order
// of `hemParts`, which says what a hand with a material lays there. A hem on the own layer is laid with the first part. A material
// all around is laid with its own hems, but brings no further material.
//
// Cost: Joiner's and Hemming's; with hems, a look at what lies on the cells. One stroke's helper; see Laying for lifetimes.
#pragma once

#include <memory>

#include "core/document/Edging.h"
#include "core/edit/Laying.h"

namespace uq {

// What a hand with a material lays beside its own layer: nothing but roles. Layers are made for hems of the material itself; for
// those of others only where a map has one already, and never where something is taken away.
std::vector<HandPart> hemParts(const Quilt& quilt, const Edging& edging, MaterialIndex material, const Map& map, bool takesAway);

std::unique_ptr<Laying> joinLaying(const LayingPlan& plan, const Edging& edging);

// Whether ground lies on a cell of a map: anything on a layer of that role.
bool hasGround(const Map& map, CellPos at);

// The hems of an edging mended on all layers of a map, after cells of one layer of it have changed: laid where they belong now, with as
// many rows as lie there or lay there before, and taken away where they belong no more. `before`: the map as it was. No layer is made.
struct HemsMended {
  Quilt quilt;
  CellSet changed;  // on any layer
  CellSet wrong;    // those of them on which something lay that is brought along
};
HemsMended withHemsMended(const Quilt& before, const Quilt& now, LayerAt at, const Edging& edging, const CellSet& changed, const std::function<bool(CellPos)>& may);

// Materials as they look with all that they bring along: first their own layer, then one for each role on which hems lie. Ground
// counts as lying everywhere. What a test patch shows.
std::vector<LayerCells> withHemsShown(const Quilt& quilt, const Edging& edging, const Grid& grid, const LayerCells& materials, CellRect bounds);

}  // namespace uq
