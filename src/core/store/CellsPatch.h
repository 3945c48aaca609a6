// CellsPatch: a `.cells` text in which some chunks are those of another text.
//
// For keeping work (KeptWork): of a large layer only the chunks are written that differ from the saved file. Both texts are
// `.cells` texts (CellsText); what comes of them reads as one, though it is not canonical. Cost: linear in the texts.
#pragma once

#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "core/cells/ChunkPos.h"
#include "core/cells/LayerCells.h"
#include "core/document/Quilt.h"

namespace uq {

// The chunks in which the cells of two layers differ; lifts apart.
std::vector<ChunkPos> chunksBetween(const CellGrid& before, const CellGrid& after);
// The text of those chunks of a layer alone; empty ones are not in it.
std::string writeChunks(const CellGrid& cells, const std::vector<ChunkPos>& chunks, const Quilt& quilt);
// `text` with the chunks that `patch` has for `chunks`; those that it lacks are empty. Codes that both use for different
// sheets are told apart. What is wrong with a text is found by its reader.
std::string patchedCells(std::string_view text, std::string_view patch, const std::set<std::pair<int, int>>& chunks);

}  // namespace uq
