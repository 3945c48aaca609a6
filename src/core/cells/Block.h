// Block: tiles at places around a grip cell — what is held, copied and pasted.
//
// Places are side coordinates relative to the grip (0, 0), so a block keeps its shape wherever it is laid, on any grid
// of its family. Parts are sorted by place and no place occurs twice. A block is small; all work is linear in its
// parts.
#pragma once

#include <vector>

#include "core/cells/Cell.h"
#include "core/grid/Grid.h"

namespace uq {

inline constexpr int kWidestBlock = 8192;  // cells each way of what is held, kept or pasted

class Block {
 public:
  struct Part {
    SidePos at;
    Cell cell;
    int lift = 0;  // above the layer on which it is laid, in map pixels
    friend constexpr auto operator<=>(const Part&, const Part&) = default;
  };

  // A block of nothing.
  Block() = default;

  // One tile, held by itself.
  static Block of(Cell cell);

  // Of several parts for one place the last counts; empty cells are left out.
  explicit Block(std::vector<Part> parts);

  const std::vector<Part>& parts() const { return parts_; }
  bool empty() const { return parts_.empty(); }

  // The smallest rectangle of places that holds all parts, as columns u and rows v.
  CellRect extent() const;

  // The block grown or cut from the rectangle `from` to `to`: what lies outside `to` goes, and new columns and rows are
  // like the outermost one of `from`.
  Block fitted(CellRect from, CellRect to) const;

  // The block with every picture laid straight; places stay.
  Block straightened() const;

  friend bool operator==(const Block&, const Block&) = default;

 private:
  std::vector<Part> parts_;
};

}  // namespace uq
