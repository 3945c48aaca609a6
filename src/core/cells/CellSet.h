// CellSet: a set of cells — what is selected.
//
// One bit a cell, in chunks of 64 × 64 like CellGrid, at absolute positions. A value: copying it is one pointer.
// Invariant: no chunk is empty, so equal sets are equal structures. Cost: set operations work on rows of 64 cells.
#pragma once

#include <array>
#include <cstdint>
#include <functional>
#include <map>
#include <vector>

#include "core/base/Shared.h"
#include "core/grid/CellPos.h"

namespace uq {

class CellSet {
 public:
  CellSet() = default;
  // All cells of a rectangle.
  explicit CellSet(CellRect cells);

  bool contains(CellPos at) const;
  bool empty() const { return chunks_.read().empty(); }
  std::int64_t count() const;
  // The smallest rectangle that holds the set.
  CellRect bounds() const;

  void insert(CellPos at);
  CellSet united(const CellSet& other) const;
  CellSet without(const CellSet& other) const;
  CellSet intersected(const CellSet& other) const;

  // Calls `visit` for stretches of neighbouring cells in one row. A long stretch may come in parts.
  void forEachStretch(const std::function<void(CellPos first, int count)>& visit) const;

  // The border between cells in the set and others, as lines between corners of cells: corner (x, y) is the upper left
  // one of cell (x, y). For grids of squares; only borders of cells in `within`.
  struct Border {
    CellPos from;
    CellPos to;
    friend constexpr auto operator<=>(const Border&, const Border&) = default;
  };
  std::vector<Border> borders(CellRect within) const;

  // Calls `visit` for each cell of the set, in `within`, whose neighbour is no cell of the set. `step` is the way to
  // the neighbour from a cell, which may depend on whether its column and row are odd; at most 64 columns away.
  void forEachWithoutNeighbour(const std::function<CellPos(bool oddColumn, bool oddRow)>& step, CellRect within,
                               const std::function<void(CellPos)>& visit) const;

  friend bool operator==(const CellSet&, const CellSet&) = default;

 private:
  using Rows = std::array<std::uint64_t, 64>;          // bit x of row y
  using Chunks = std::map<std::pair<int, int>, Rows>;  // by cy, cx

  template <class Combine>
  CellSet combined(const CellSet& other, Combine&& combine) const;

  Shared<Chunks> chunks_;
};

}  // namespace uq
