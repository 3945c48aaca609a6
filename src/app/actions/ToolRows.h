// The rows of the action table that stand in no menu: tools, their options, and gestures of the hand.
#pragma once

#include <span>

#include "app/actions/ActionTable.h"

namespace uq {

std::span<const ActionRow> toolRows();

}  // namespace uq
