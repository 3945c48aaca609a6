// Finding a stretch that lies on a map, from its cells alone, so that it can be fitted anew.
#pragma once

#include <optional>

#include "core/document/InHand.h"
#include "core/document/Quilt.h"

namespace uq {

inline constexpr int kMostFoundCells = 65536;

struct FoundStretch {
  InHand stretch;
  CellRect box;  // in side coordinates
};

// The stretch around a cell of a layer: what is in hand, or a stamp of the quilt, laid so that every cell of its box is
// as it would be. Cost: the cells that hang together with that one and are of the stretch's tiles, for each candidate.
std::optional<FoundStretch> findStretch(const Quilt& quilt, LayerAt at, CellPos cell, const InHand& hand);

// A stamp of one tile or more, laid as it is around a cell: the place of its grip.
struct FoundStamp {
  Id stamp;
  SidePos grip;
};
std::optional<FoundStamp> findStamp(const Quilt& quilt, LayerAt at, CellPos cell);

}  // namespace uq
