// Map, TilesLayer and LayerFolder: one place, and its levels of depth.
//
// A map is a rectangle of cells (`bounds`) in an endless grid, with its layers in stack order: the farthest first, the
// nearest last. Cells outside the bounds are seam allowance: saved, but no part of the map for any tool or count.
// A folder holds neighbouring layers that share a rise: a level. Invariants: every folder that a layer names is among
// the map's folders; the layers of a folder are neighbours; every folder holds at least one layer.
// Layers and maps carry revisions that Quilt::with draws; never draw one yourself.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/Id.h"
#include "core/base/Json.h"
#include "core/base/Revision.h"
#include "core/base/Shared.h"
#include "core/cells/CellGrid.h"
#include "core/cells/NumberGrid.h"
#include "core/document/Thread.h"
#include "core/grid/Grid.h"

namespace uq {

inline constexpr int kFarthestOffset = 1 << 16;
inline constexpr int kMostLift = 1024;               // map pixels
inline constexpr std::size_t kLongestNote = 10'000;  // bytes

// How the layers of a folder, or those of the map that are in none, are drawn: layer by layer, or cell by cell from the
// back, so that what stands nearer covers what stands behind it on whichever layer. Nothing said: by depth on isometric
// maps, else by layers.
enum class DrawOrder { byLayers, byDepth };
DrawOrder usualOrder(GridKind kind);

struct LayerFolder {
  Id id;
  std::string name;
  int rise = 0;  // map pixels above the ground, ±kFarthestOffset; below it where it is negative
  std::optional<DrawOrder> order;
  Json::Object extra;  // fields that this version does not know
  friend bool operator==(const LayerFolder&, const LayerFolder&) = default;
};

struct TilesLayer {
  Id id;
  Id folder;  // empty: in none
  std::string name;
  std::string role;  // "ground", "things", "in front", …; layers of one role are partners across maps
  Thread thread;
  std::string file;  // slug: maps/<folder>/<file>.cells
  CellGrid cells;
  NumberGrid lifts;    // by how many map pixels single cells lie above their layer, 0 .. kMostLift; 0 where empty
  PixelPos offset;     // the layer's shift in map pixels, ±kFarthestOffset
  int opacity = 100;   // per cent
  std::string note;    // may be empty
  Json::Object extra;  // fields that this version does not know
  Revision revision;
  friend bool operator==(const TilesLayer&, const TilesLayer&) = default;
};

struct Map {
  Id id;
  std::string name;
  std::string folder;  // slug: maps/<folder>/map.json
  GridShape grid;
  CellRect bounds;
  std::vector<Shared<TilesLayer>> layers;  // farthest first
  std::vector<LayerFolder> folders;        // in the order of their layers
  std::optional<DrawOrder> order;          // of the layers in no folder
  Json::Object extra;                      // fields that this version does not know
  Revision revision;

  const TilesLayer* layer(Id id) const;  // nullptr when there is none
  std::optional<std::size_t> layerIndex(Id id) const;
  // The layer of that name; nullptr when none or several have it.
  const TilesLayer* layerNamed(std::string_view name) const;

  const LayerFolder* layerFolder(Id id) const;  // nullptr when there is none
  int riseOf(const TilesLayer& layer) const;
  // Where map pixel 0, 0 of the layer is drawn: its offset, and its rise upwards.
  PixelPos planeOf(const TilesLayer& layer) const;
  DrawOrder drawOrder() const { return order.value_or(usualOrder(grid.kind)); }
  DrawOrder drawOrder(const LayerFolder& one) const { return one.order.value_or(usualOrder(grid.kind)); }
  // How many levels up from the ground a layer lies: the levels of different rise from 0 to its own, negative below.
  int levelOf(const TilesLayer& layer) const;

  friend bool operator==(const Map&, const Map&) = default;
};

}  // namespace uq
