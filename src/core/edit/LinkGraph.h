// LinkGraph: how the maps of a quilt hang together, as one JSON object for other programs: maps with their spots, seams,
// doorways, what these need, and where the player begins.
//
// docs/links.md and docs/links.schema.json describe it. It says what there is, wrong or right: an end that is gone is null.
// Made from a quilt, never read back. Cost: maps, pins, seams and doorways, each once. Threads: any.
#pragma once

#include "core/base/Json.h"
#include "core/document/Quilt.h"

namespace uq {

inline constexpr int kLinkGraphVersion = 1;

Json linkGraph(const Quilt& quilt);

}  // namespace uq
