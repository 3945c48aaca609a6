// CellLines: rows or columns of cells that are put in among the others, or taken out from among them.
//
// `whereTo` is the one place that tells where a cell goes then. Whatever lies on cells, or refers to one by its place,
// asks it: the cells of layers, what is selected, where a picture hangs, what a screen shows. Nothing before `at`
// moves; what follows moves away by as many as come in, or up to `at` where some go. Values. Cost of moving a grid: the
// chunks behind `at`, each written once; those before it stay shared. Threads: any.
#pragma once

#include <cstdint>
#include <optional>

#include "core/cells/CellSet.h"
#include "core/cells/LayerCells.h"

namespace uq {

struct CellLines {
  enum class Which { columns, rows };

  Which which = Which::columns;
  int at = 0;     // the first of them: column x, or row y
  int count = 0;  // that come in; that go where negative
  friend bool operator==(const CellLines&, const CellLines&) = default;

  bool areColumns() const { return which == Which::columns; }
  // The other way: what came in goes, empty ones come in for what went.
  CellLines undone() const { return {which, at, -count}; }
  // Those that come in, or go, within some bounds: where they lie then, or lay.
  CellRect within(CellRect bounds) const;
};

// Where a cell goes; nothing where it is one of those that go. Sums must not overflow.
std::optional<CellPos> whereTo(const CellLines& lines, CellPos cell);
// The nearest place to where a cell goes that there is: the first one behind it for one of those that go.
CellPos nearestTo(const CellLines& lines, CellPos cell);
CellSet whereTo(const CellLines& lines, const CellSet& cells);
// Bounds that hold as many lines more, or less.
CellRect whereTo(const CellLines& lines, CellRect bounds);

CellGrid whereTo(const CellLines& lines, const CellGrid& cells);
LayerCells whereTo(const CellLines& lines, const LayerCells& cells);

}  // namespace uq
