// Pin: a thing placed on a map that is no tile of its grid. Layers for pins hold them.
//
// So far a pin is a spot: a cell, a box of cells or a whole edge of the map, to which a way may lead or from which one may
// go (Doorway), or where the player begins (QuiltFacts::start). Where it is, is said in cells, so it goes along with them;
// a pin that was placed beside the middle of its cell keeps by how much, and counts as on that cell all the same.
//
// Invariants of a layer's pins: they lie by id, no two have the same one. A number is given once, the lowest that is free
// on the map, and then stays, so that people can call a pin by it; after a join two may have the same.
#pragma once

#include <algorithm>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/Id.h"
#include "core/base/Json.h"
#include "core/grid/CellPos.h"
#include "core/grid/Pixels.h"

namespace uq {

inline constexpr std::size_t kMostPins = 200'000;          // on a layer
inline constexpr std::size_t kLongestPinName = 16'384;     // bytes; long ones are shown shortened
inline constexpr int kFarthestBeside = 512;                // map pixels, each way: the largest cell
inline constexpr int kMostPinNumber = 1'000'000'000;

// An edge of a map as a whole, wherever it comes to lie.
enum class MapEdge { left, top, right, bottom };
inline constexpr MapEdge kMapEdges[] = {MapEdge::left, MapEdge::top, MapEdge::right, MapEdge::bottom};
std::string_view edgeName(MapEdge edge);  // "left"
std::optional<MapEdge> edgeFromName(std::string_view name);
// The edge that a cell lies straight out of, at most that many cells; nothing within the bounds, and at corners.
std::optional<MapEdge> edgeBeyond(CellRect bounds, CellPos cell, int within);

struct Pin {
  Id id;
  int number = 1;     // 1 .. kMostPinNumber
  std::string name;   // may be empty
  CellPos cell;       // the upper left one of its box
  PixelSize over{1, 1};         // cells, each way
  std::optional<MapEdge> edge;  // it is that edge, and the box counts for nothing
  PixelPos beside;    // map pixels from the middle of its cell, ±kFarthestBeside
  std::string note;   // may be empty
  Json::Object extra;  // fields that this version does not know
  friend bool operator==(const Pin&, const Pin&) = default;

  CellRect box() const { return {cell.x, cell.y, cell.x + over.w, cell.y + over.h}; }
};

// The pins of a layer, by id.
using Pins = std::vector<Pin>;

// nullptr where there is none.
const Pin* pinIn(const Pins& pins, Id id);

// The cells that a pin is: its box, or the row or column along that edge of `bounds`.
CellRect cellsOf(const Pin& pin, CellRect bounds);
// The cell in the middle of them, where somebody arrives who comes to it.
CellPos middleOf(const Pin& pin, CellRect bounds);

}  // namespace uq
