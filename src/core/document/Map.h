// Map and TilesLayer: one place, and one level of depth in it.
//
// A map is a rectangle of cells (`bounds`) in an endless grid, with its layers in draw order: the farthest first, the
// nearest last. Cells outside the bounds are seam allowance: saved, but no part of the map for any tool or count.
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
#include "core/document/Thread.h"
#include "core/grid/Grid.h"

namespace uq {

inline constexpr int kFarthestOffset = 1 << 16;
inline constexpr std::size_t kLongestNote = 10'000;  // bytes

struct TilesLayer {
  Id id;
  std::string name;
  std::string role;  // "ground", "things", "in front", …; layers of one role are partners across maps
  Thread thread;
  std::string file;  // slug: maps/<folder>/<file>.cells
  CellGrid cells;
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
  Json::Object extra;                      // fields that this version does not know
  Revision revision;

  const TilesLayer* layer(Id id) const;  // nullptr when there is none
  std::optional<std::size_t> layerIndex(Id id) const;
  // The layer of that name; nullptr when none or several have it.
  const TilesLayer* layerNamed(std::string_view name) const;

  friend bool operator==(const Map&, const Map&) = default;
};

}  // namespace uq
