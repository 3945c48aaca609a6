// LaidStamps: the places on the maps where stamps lie, so that what was laid stays known as one thing.
//
// Nothing is kept of them: a stamp lies where its own block lies whole on one layer, as it was kept; its further parts
// belong to it where they lie whole, too, each on the layer nearest to where it would be laid. So places are also found
// in maps that were painted elsewhere, and one that somebody painted over is none any more. Only stamps of one tile or
// more that are laid as they are have places; stretches and mixes do not.
#pragma once

#include <optional>
#include <vector>

#include "core/edit/Selected.h"

namespace uq {

struct LaidStamp {
  Id stamp;
  Id map;
  SidePos grip;            // where the grip of its block lies, in side coordinates
  std::vector<Id> layers;  // of its parts, its own block's first; empty ids where a part does not lie
  friend bool operator==(const LaidStamp&, const LaidStamp&) = default;
};

// The largest stamp of several tiles one of whose cells, of whichever part, lies on that cell of the layer. Cost: for
// each stamp its parts, for each of its tiles that lies there.
std::optional<LaidStamp> laidStampAt(const Quilt& quilt, LayerAt at, CellPos cell);
// Where a stamp lies, map by map. Cost: the painted cells, and the block where its first tile is found.
std::vector<LaidStamp> placesOf(const Quilt& quilt, const Stamp& stamp);
// The stamp that lies just on these cells of a map; nothing where it does not.
std::optional<LaidStamp> laidOn(const Quilt& quilt, Id map, Id stamp, const CellSet& cells);

// The cells of a laid stamp, layer by layer, as a selection.
SelectedCells cellsOf(const Quilt& quilt, const LaidStamp& laid);

// The quilt with what lay at these places of a stamp taken away, and another thing laid so that what both have in
// common stays where it is. Parts come to the layers on which parts of their role lay. Nothing changes where there is
// no such place.
Quilt relaid(const Quilt& quilt, const std::vector<LaidStamp>& places, const InHand& was, const InHand& now,
             std::uint64_t ids);

}  // namespace uq
