// Roles: what layers may be for, as the quilt lists them.
//
// A layer's own role is set by withRole (LayerFacts.h). Nothing changes for a role that the quilt does not list.
#pragma once

#include <string>

#include "core/document/Quilt.h"

namespace uq {

// The roles of the quilt: one renamed everywhere, on layers, in stamps and on what edgings bring along (not to the empty name nor to another one that
// is there); one offered at another place among them; one that no layer has dropped.
Quilt renameRole(const Quilt& quilt, const std::string& role, const std::string& name);
Quilt moveRole(const Quilt& quilt, const std::string& role, std::size_t index);
Quilt dropRole(const Quilt& quilt, const std::string& role);
// How many layers have a role.
std::size_t layersOfRole(const Quilt& quilt, const std::string& role);

}  // namespace uq
