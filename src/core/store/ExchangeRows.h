// ExchangeRows: the cells of an area as the exchange spells them (ExchangeText.h), appended to a text.
//
// Plain and as runs: a list of rows; packed: one string. Cost: the cells. Threads: any.
#pragma once

#include <string>

#include "core/store/ExchangeText.h"

namespace uq {

// The rows `from` to `to` (without it) of an area, between the brackets of the list; packed all of the area, whatever is said of rows.
// `numbers`: what cells are called; nullptr for a grid of plain numbers, such as lifts.
struct ExchangeRows {
  const CellGrid& cells;
  CellRect area;
  CellsAs as = CellsAs::plain;
  const ExchangeCells* numbers = nullptr;
};
void addExchangeRows(std::string& out, const ExchangeRows& rows, int from, int to);

}  // namespace uq
