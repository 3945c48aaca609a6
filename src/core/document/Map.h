// Map and LayerFolder: one place, and its levels of depth.
//
// A map is a rectangle of cells (`bounds`) in an endless grid, with its layers in stack order: the farthest first, the
// nearest last. Cells outside the bounds are seam allowance: saved, but no part of the map for any tool or count.
// A folder holds neighbouring layers, and folders of them; with a rise, which lifts all that is in it, it is a level.
// Invariants: every folder that a layer or a folder names is among the map's folders; none lies in itself; the layers of
// a folder are neighbours; every folder holds at least one layer.
// Layers and maps carry revisions that Quilt::with draws; never draw one yourself.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/Id.h"
#include "core/base/Json.h"
#include "core/base/Revision.h"
#include "core/base/Shared.h"
#include "core/document/Layer.h"
#include "core/grid/Grid.h"

namespace uq {

inline constexpr int kMostShownTimes = 8;
inline constexpr int kFarthestOnBoard = 1 << 22;  // map pixels
inline constexpr int kDeepestLayerFolder = 16;       // so many folders in one another
inline constexpr int kLargestScreen = 1 << 14;  // map pixels, each way

// How the layers of a folder, or those of the map that are in none, are drawn: layer by layer, or cell by cell from the
// back, so that what stands nearer covers what stands behind it on whichever layer. Nothing said: by depth on isometric
// maps, else by layers.
enum class DrawOrder { byLayers, byDepth };
DrawOrder usualOrder(GridKind kind);

// How what is drawn on a map is looked at: from above, be it straight or slanted, or side on, where up is up. Maps of the
// two cannot lie beside one another.
enum class Seen { fromAbove, sideOn };
std::string_view seenName(Seen seen);  // "from-above", "side-on"
std::optional<Seen> seenFromName(std::string_view name);

struct LayerFolder {
  Id id;
  Id in;  // the folder that it lies in; empty: in none
  std::string name;
  int rise = 0;  // map pixels above the ground, ±kFarthestOffset; below it where it is negative
  std::optional<DrawOrder> order;
  Json::Object extra;  // fields that this version does not know
  friend bool operator==(const LayerFolder&, const LayerFolder&) = default;
};

struct Map {
  Id id;
  std::string name;
  std::string folder;  // slug: maps/<folder>/map.json
  GridShape grid;
  Seen seen = Seen::fromAbove;
  CellRect bounds;
  std::vector<Shared<Layer>> layers;       // farthest first
  std::vector<LayerFolder> folders;        // in the order of their layers, one before those in it
  std::optional<DrawOrder> order;          // of the layers in no folder
  std::optional<Colour> cloth;             // the colour behind all layers; none: nothing is drawn there
  std::optional<PixelSize> screen;         // what the player's screen shows here, where that is not the quilt's
  int shownTimes = 1;                      // how many screen pixels a map pixel takes in the game, each way
  bool cameraRunsFree = false;             // else the camera stops at the map's edge
  std::optional<PixelPos> onBoard;         // where its map pixel 0, 0 lies there, ±kFarthestOnBoard; none: laid out
  bool growsAsPainted = false;             // a stroke beyond its edge makes it larger; see grownToHold
  std::string title;                       // the name that the player reads; may be empty
  Id walker;                               // the layer that the Walker is drawn right in front of; see walkerPlace
  Json::Object extra;                      // fields that this version does not know
  Revision revision;

  const Layer* layer(Id id) const;  // nullptr when there is none
  std::optional<std::size_t> layerIndex(Id id) const;
  // The layer of that name; nullptr when none or several have it.
  const Layer* layerNamed(std::string_view name) const;

  // A pin on any of its layers, and the layer that holds it; nullptr when there is none. Cost: a search of each layer for
  // pins, in logarithmic time.
  const Pin* pin(Id id) const;
  const Layer* layerOfPin(Id id) const;

  const LayerFolder* layerFolder(Id id) const;  // nullptr when there is none
  // The folders around what lies in `inner`, the outermost first and that itself last.
  std::vector<Id> foldersAround(Id inner) const;
  // Whether what lies in `inner` lies in `around`, too; all that is on the map lies in the folder without an id.
  bool isWithin(Id inner, Id around) const;
  // With the rises of all folders around it.
  int riseOf(const LayerFolder& inner) const;
  int riseOf(const Layer& layer) const;
  // Where map pixel 0, 0 of the layer is drawn: its offset, and its rise upwards.
  PixelPos planeOf(const Layer& layer) const;
  DrawOrder drawOrder() const { return order.value_or(usualOrder(grid.kind)); }
  DrawOrder drawOrder(const LayerFolder& one) const { return one.order.value_or(usualOrder(grid.kind)); }
  // How many layers lie behind the Walker: as the map says, else all up to the nearest one for ground or things.
  std::size_t walkerPlace() const;
  // How many levels up from the ground a layer lies: the levels of different rise from 0 to its own, negative below.
  int levelOf(const Layer& layer) const;

  friend bool operator==(const Map&, const Map&) = default;
};

// Whether anything on the map rises.
bool hasLevels(const Map& map);

}  // namespace uq
