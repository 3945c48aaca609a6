// FormLosses: what an open form cannot hold of a map, in words, so that nobody finds it out in the game.
//
// Only what the map has is told. Cost: a count of the tiles that lie on its layers.
#pragma once

#include <string>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

// "3 doorways", "rises", …: each a part of a sentence that says they have no place there.
std::vector<std::string> formLosses(const Quilt& quilt, const Map& map, TargetForm form);
// "CSV of Depot Yard has no place for rises and 3 doorways"; empty where nothing is lost.
std::string lossesInWords(const Quilt& quilt, const Map& map, TargetForm form);

// Of several maps together, without the form: "rises, 3 doorways and 5 spots". Doorways and seams count for each map at their ends.
std::string lossesInWords(const Quilt& quilt, const std::vector<const Map*>& maps, TargetForm form);

}  // namespace uq
