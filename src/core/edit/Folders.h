// Folders: putting the layers of a map in folders, folders in folders, and taking them out again.
//
// A plain folder only gathers; one with a rise is a level (see Levels). Whatever is done, the layers of a folder stay
// neighbours, no folder is left empty, and none lies deeper than kDeepestLayerFolder. Nothing changes where there is no such
// map, layer or folder, or where that would not hold.
#pragma once

#include <string>

#include "core/base/Id.h"
#include "core/document/Quilt.h"

namespace uq {

// Where something lies, or would come to lie, in the Stack: at `index` from the farthest, counted without it, in a
// folder (the map itself where it is empty).
struct StackPlace {
  std::size_t index = 0;
  Id folder;
  friend bool operator==(const StackPlace&, const StackPlace&) = default;
};

struct FolderAdded {
  Quilt quilt;
  Id folder;  // empty when none was added
};

// Gathers layers in a new folder, where the nearest of them lies: in the folder around all of them.
FolderAdded foldLayers(const Quilt& quilt, Id map, const std::vector<Id>& layers, IdSource& ids);
// Takes a folder away; what was in it lies where it lay.
Quilt unfold(const Quilt& quilt, Id map, Id folder);

// Moves a layer, or a folder with all that is in it. Only into a folder that is there, between its own things or at
// their edge; a folder never into itself.
Quilt moveLayer(const Quilt& quilt, LayerAt at, StackPlace to);
Quilt moveFolder(const Quilt& quilt, Id map, Id folder, StackPlace to);

// The folder of something that comes to lie at `index` when nobody says which: `own` where that may be, else the
// innermost around both neighbours.
Id folderAt(const Map& map, std::size_t index, Id own);

// Drops folders that hold nothing, and puts the others in the order of their layers.
void tidyFolders(Map& map);

}  // namespace uq
