// QuiltQuery: what a quilt holds, one JSON object a line, for scripts: what a list of edits (core/work/EditList.h) is made from.
//
// The objects are those of the exchange (ExchangeText.h), each with the names of what it lies in. Cost: what is asked for; cells one by
// one, the others with the JSON of the quilt or the map they are of.
#pragma once

#include <functional>
#include <optional>
#include <string>
#include <string_view>

#include "core/base/Error.h"
#include "core/document/Quilt.h"

namespace uq {

enum class Asked { facts, maps, layers, cells, tiles, spots, doorways };
inline constexpr Asked kAsked[] = {Asked::facts, Asked::maps, Asked::layers, Asked::cells, Asked::tiles, Asked::spots, Asked::doorways};
std::string_view askedName(Asked asked);  // "cells"
std::optional<Asked> askedFromName(std::string_view name);

struct QueryAsk {
  Asked what = Asked::maps;
  Id map{};                          // empty: all
  std::string layer{};               // name; empty: all
  std::optional<CellRect> region{};  // of cells and spots: those in it
};

// Calls `line` for each object, without a line feed: maps as the quilt lists them, layers from the farthest, cells row by row.
Result<void> queryQuilt(const Quilt& quilt, const QueryAsk& ask, const std::function<void(const std::string&)>& line);

}  // namespace uq
