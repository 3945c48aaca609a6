// Adding, duplicating, deleting and reordering the layers of a map.
//
// A new layer comes named, coloured and with a role: nothing has to be asked before painting goes on. Ids and threads
// of the others stay. Nothing changes where there is no such map or layer.
#pragma once

#include "core/base/Id.h"
#include "core/document/Quilt.h"

namespace uq {

struct LayerAdded {
  Quilt quilt;
  Id layer;  // empty when nothing was added
};

// Adds an empty layer so that it lies at `index` from the farthest (0 .. number of layers): for the ground of a map
// that has none yet, in front of everything where it is the nearest, else for things.
// `role`, where it is not empty, counts instead.
// In the folder of the layer behind it, where none is said (`folder`, empty for the map itself).
LayerAdded addLayer(const Quilt& quilt, Id map, std::size_t index, IdSource& ids, const std::string& role = {},
                    std::optional<Id> folder = {});

// Adds a layer that holds no tiles at `index`: a backdrop that shows the picture of a sheet, called after it, or one for
// pins. A backdrop hung behind all others moves half as far as the one in front of it that moves least.
LayerAdded addBackdrop(const Quilt& quilt, Id map, std::size_t index, Id sheet, IdSource& ids);
LayerAdded addPinsLayer(const Quilt& quilt, Id map, std::size_t index, IdSource& ids, std::optional<Id> folder = {});

// Lays the tiles of a layer over those of the tiles layer behind it, which it becomes one with. Why that cannot be, in
// words; empty when it can.
std::string whyNoMerge(const Quilt& quilt, LayerAt at);
Quilt mergeDown(const Quilt& quilt, LayerAt at);

// Adds a copy in front of the layer.
LayerAdded duplicateLayer(const Quilt& quilt, LayerAt at, IdSource& ids);

Quilt deleteLayer(const Quilt& quilt, LayerAt at);

// Moves a layer to `index` from the farthest, counted without it; it stays in its folder where it can.
Quilt moveLayer(const Quilt& quilt, LayerAt at, std::size_t index);

// The first thread that no layer of the map has: another colour as long as there is one, then another pattern.
Thread freeThread(const Map& map);

}  // namespace uq
