// Run and DrawGroup: which layers of a map are drawn together, in which order, and kept as one picture.
//
// A group is drawn layer by layer, or by depth: cell by cell from the back, whichever layer a cell is on, so that what
// stands nearer covers what stands behind it. A run is what is kept as one picture: a single layer, or as much of a group
// by depth as moves and looks alike. Offset, camera, opacity and blend are applied when a run is laid; its kept pictures
// know none of them, nor the order of the layers, so moving, fading, hiding and reordering draw no tile anew. Only in a
// run by depth whose layers are not shifted alike — levels that rise above one another — each layer's shift is part of
// the picture.
#pragma once

#include <optional>
#include <map>
#include <set>
#include <vector>

#include "core/document/Desk.h"
#include "raster/ViewScale.h"

namespace uq {

inline constexpr int kFaint = 22;  // per cent

// Which layers of a map somebody wants to see.
struct Seeing {
  std::set<Id> hidden;
  Id clear;  // all other layers are faint; empty: none is
  // Where the upper left of the player's screen is, in map pixels: layers are moved by their parallax. Nothing said:
  // every layer lies at its offset.
  std::optional<PixelPos> camera{};
  int faint = kFaint;  // per cent, how much of the others shows
  std::map<Id, Colour> tints{};  // of layers, beside their own; layers are then drawn one by one
};

// What the player sees of a map, with the upper left of the screen at `camera`, or the whole unmoved map.
Seeing inGame(const Map& map, std::optional<PixelPos> camera = {});

// The colours that tell where layers lie: cool behind the active one or the Walker, warm in front, the stronger the
// farther away. None where nothing is to be coloured.
std::map<Id, Colour> tintsFor(const Map& map, Tinting tinting, Id active);

struct DrawGroup {
  std::vector<const Layer*> layers;  // as drawn: the farthest first, by depth the lowest first
  bool byDepth = false;
};

// The map's layers in the groups of its folders, farthest first: a folder that is drawn by depth joins a map that is,
// and layers that follow one another layer by layer make one group.
std::vector<DrawGroup> drawGroups(const Map& map);

struct Run {
  std::vector<Id> layers;         // in the order of their group
  PixelPos offset{};              // map pixels
  int opacity = 100;              // per cent
  bool byDepth = false;           // only of several layers
  std::vector<PixelPos> shifts{};  // of each layer beside the offset, in map pixels; empty: none is shifted further
  PixelPos moved{};                // by the camera, in map pixels
  Blend blend = Blend::normal;
  Colour tint = kNoTint;
  std::optional<Backdrop> backdrop{};  // of a backdrop layer; then the run has that one layer
  bool endless = false;                // a repeated backdrop goes on beyond the map

  PixelPos shiftOf(std::size_t layer) const { return shifts.empty() ? PixelPos{} : shifts[layer]; }
  // By how many device pixels the run is shifted.
  QPoint shift(ViewScale scale) const;
  // The opacity as Blend.h counts it, 0 .. 255.
  unsigned alpha() const { return static_cast<unsigned>((opacity * 255 + 50) / 100); }
  // Whether the kept pictures of one run are those of the other.
  bool drawsAs(const Run& other) const {
    return layers == other.layers && byDepth == other.byDepth && shifts == other.shifts && tint == other.tint &&
           backdrop == other.backdrop;
  }
  friend bool operator==(const Run&, const Run&) = default;
};

// By how many device pixels a thing is drawn away from its place for so many map pixels.
QPoint deviceShift(PixelPos shift, ViewScale scale);

// The runs of the layers to be seen, farthest first; none where nothing is.
std::vector<Run> runsOf(const Map& map, const Seeing& seeing = {});

}  // namespace uq
