// Levels: folders of layers that lie higher or lower than the ground, and the order in which folders are drawn.
//
// Nothing changes where there is no such map, layer or folder, or for a value that cannot be.
#pragma once

#include <string>

#include "core/edit/ArrangeLayers.h"

namespace uq {

// The rise from one level to the next on a map: as between its two highest ones, else the height of a cell.
int levelStep(const Map& map);

// Adds a level above the one on which the layer lies, a step higher, with one layer for its ground; the levels above
// rise by a step, too. It comes named after its number.
LayerAdded addLevel(const Quilt& quilt, LayerAt above, IdSource& ids);

// Takes a level, or any folder, away with all its layers; the levels above it sink by what it rose above the one below.
Quilt deleteFolder(const Quilt& quilt, Id map, Id folder);

// Not the empty name.
Quilt renameFolder(const Quilt& quilt, Id map, Id folder, const std::string& name);

// Map pixels, ±kFarthestOffset.
Quilt withRise(const Quilt& quilt, Id map, Id folder, int rise);

// Of a folder, or of the layers in none where `folder` is empty.
Quilt withDrawOrder(const Quilt& quilt, Id map, Id folder, DrawOrder order);

}  // namespace uq
