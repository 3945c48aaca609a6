// CsvText: the cells of a layer as comma-separated values (RFC 4180), one line a row of the map.
//
// A cell is the number of the exchange (ExchangeText.h), 0 where nothing lies, or the name of its tile, empty where nothing lies. What a
// tile's turn, lift and layer are for a name cannot say. The whole of the map's bounds, whatever is painted. Cost: the cells.
#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/document/Quilt.h"

namespace uq {

enum class CsvAs { numbers, names };
std::string_view csvAsName(CsvAs as);
std::optional<CsvAs> csvAsFromName(std::string_view name);

// Lines end with CR LF. Of a layer that holds no tiles: empty lines.
std::string csvText(const Quilt& quilt, const Map& map, const Layer& layer, CsvAs as);

}  // namespace uq
