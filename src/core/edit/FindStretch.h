// Finding a stretch that lies on a map, from its cells alone, so that it can be fitted anew.
#pragma once

#include <optional>
#include <span>

#include "core/document/InHand.h"
#include "core/document/Quilt.h"

namespace uq {

inline constexpr int kMostFoundCells = 65536;

struct FoundStretch {
  InHand stretch;
  CellRect box;  // in side coordinates
};

// The stretch around a cell of a layer: one of `hands` (what is and was in hand), or a stamp of the quilt, laid so that
// every cell of its box is as it would be. Cost: the cells that hang together with that one and are of the stretch's tiles, for each candidate.
std::optional<FoundStretch> findStretch(const Quilt& quilt, LayerAt at, CellPos cell, std::span<const InHand> hands);

}  // namespace uq
