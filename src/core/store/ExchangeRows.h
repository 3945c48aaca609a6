// ExchangeRows: the cells of an area as the exchange spells them (ExchangeText.h), appended to a text.
//
// Plain and as runs: a list of rows; packed: one string. Cost: the cells. Threads: any.
#pragma once

#include <string>

#include "core/store/ExchangeText.h"

namespace uq {

// `numbers`: what cells are called; nullptr for a grid of plain numbers, such as lifts.
void addExchangeRows(std::string& out, const CellGrid& cells, const CellRect& area, CellsAs as, const ExchangeCells* numbers);

}  // namespace uq
