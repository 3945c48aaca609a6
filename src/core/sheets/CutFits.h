// CutFits: every cell size, border and gap is tried on what the columns and rows of a picture say; see CutMeasure.h, which
// chooses among them.
#pragma once

#include <optional>
#include <vector>

#include "core/sheets/CutMeasure.h"

namespace uq {

// Cuts with their weights, in no order and without reasons. `between`: a colour that counts as nothing, 0xAARRGGBB.
std::vector<CutProposal> cutsThatFit(const PixelView& picture, std::optional<std::uint32_t> between, PixelSize usual);

// The colour of columns and rows that are of one colour throughout, or that of most flat places.
std::optional<std::uint32_t> colourBetween(const PixelView& picture);

// How much a cell's size speaks for itself.
double usualness(int cell);

}  // namespace uq
