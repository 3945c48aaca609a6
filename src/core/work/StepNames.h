// StepNames: what steps are called, on the tag at the pointer and in the list of steps.
#pragma once

#include <optional>
#include <set>
#include <string>
#include <string_view>

#include "core/edit/Landing.h"

namespace uq {

// "Brush on Paving". `landing`: where the stroke lands, if that is not the active layer.
std::string strokeName(const Desk& desk, const Quilt& quilt, Tool tool, bool takesAway, const Landing* landing = nullptr);
// "Turn on Paving", or "… on all layers" where a verb for a selection is meant for them.
std::string verbName(const Desk& desk, const Quilt& quilt, std::string_view verb);

// "Depot Yard and Ferry Street", "Depot Yard and 3 other maps", by name.
std::string mapNames(const Quilt& quilt, const std::set<Id>& maps);

}  // namespace uq
