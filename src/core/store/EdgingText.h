// EdgingText: an edging as the document in which it stands, edgings/<file>.json, and back; docs/format.md describes it.
//
// Materials are written by name. Lists of places go clockwise: on squares and flat hexagons sides from the top and corners
// from the upper left; on diamonds, staggered ones and pointy hexagons sides from the upper right, corners from the top.
#pragma once

#include "core/base/Error.h"
#include "core/base/Json.h"
#include "core/document/Edging.h"

namespace uq {

std::string edgingFile(const Edging& edging);
Json edgingDocument(const Edging& edging);
// Without `file`, which is the name of the file.
Result<Edging> readEdgingDocument(const Json& json, const std::string& file);

// A list of places in that order, from the grid's own, and back.
std::vector<MaterialIndex> placesWritten(GridKind grid, const std::vector<MaterialIndex>& places);
std::vector<MaterialIndex> placesRead(GridKind grid, const std::vector<MaterialIndex>& places);

// Members as they are written there, and by `uquilt edging guess`: names in place of numbers.
Json memberJson(const Edging& edging, const EdgingMember& member);

}  // namespace uq
