// TilePlaces: which tile stands where on a sheet, wherever that is not simply the order of its cut.
//
// A tile's number is its name for good. As long as nothing happened to a sheet, number n is the tile on the n-th cell
// of its cut, row by row. When it is cut anew, its picture is rearranged or it is tidied, only this table changes:
// the cells get the numbers of the tiles that stand on them now, a number whose rectangle is gone is kept as a retired
// tile, a twin that was dropped shows the tile it equals, and what was dropped otherwise is no longer offered. So no
// painted cell ever changes its meaning.
//
// Invariants: no number stands on two cells, nor on a cell and among the retired; a twin's tile is no twin itself.
// Cost: looking up is constant for numbers on the cut, logarithmic for the others.
#pragma once

#include <cstdint>
#include <map>
#include <optional>
#include <set>
#include <vector>

#include "core/grid/Pixels.h"

namespace uq {

class TilePlaces {
 public:
  static constexpr std::uint32_t kNone = 0xffffffff;

  struct Twin {
    std::uint32_t of = 0;
    bool mirrored = false;  // shows its tile mirrored across
    friend bool operator==(const Twin&, const Twin&) = default;
  };

  // The tile on a cell of the cut.
  std::uint32_t numberAt(std::uint32_t cell) const {
    return numbers_.empty() || cell >= numbers_.size() ? cell : numbers_[cell];
  }
  // The cell of the cut on which a tile stands; kNone when on none.
  std::uint32_t cellOf(std::uint32_t number) const {
    if (numbers_.empty()) return number;
    return number < cells_.size() ? cells_[number] : kNone;
  }
  // Says what stands on every cell; cut order where that is what they say. The numbers must differ.
  void setNumbers(std::vector<std::uint32_t> numbers);
  const std::vector<std::uint32_t>& numbers() const { return numbers_; }

  std::map<std::uint32_t, PixelRect> retired;  // with the rectangles in the picture that they keep
  std::map<std::uint32_t, Twin> twins;
  std::set<std::uint32_t> dropped;

  bool empty() const { return numbers_.empty() && retired.empty() && twins.empty() && dropped.empty(); }
  friend bool operator==(const TilePlaces&, const TilePlaces&) = default;

 private:
  std::vector<std::uint32_t> numbers_;  // by cell
  std::vector<std::uint32_t> cells_;    // by number
};

}  // namespace uq
