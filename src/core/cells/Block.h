// Block: tiles at places around a grip cell — what is held, copied and pasted.
//
// Places are side coordinates relative to the grip (0, 0), so a block keeps its shape wherever it is laid, on any grid
// of its family. Parts are sorted by place and no place occurs twice. Parts are shared: a copy costs nothing, and nor does
// telling that it is one; what is made anew costs the sorting of its parts. Extent and sheets are worked out then.
#pragma once

#include <vector>

#include "core/base/Shared.h"
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

  const std::vector<Part>& parts() const { return held_->parts; }
  bool empty() const { return parts().empty(); }

  // The smallest rectangle of places that holds all parts, as columns u and rows v.
  CellRect extent() const { return held_->extent; }
  // The slots of the sheets that its tiles are of, each once, in order.
  const std::vector<SheetSlot>& slots() const { return held_->slots; }

  // The block grown or cut from the rectangle `from` to `to`: what lies outside `to` goes, and new columns and rows are
  // like the outermost one of `from`.
  Block fitted(CellRect from, CellRect to) const;

  // The block with every picture laid straight; places stay.
  Block straightened() const;

  friend bool operator==(const Block&, const Block&) = default;

 private:
  struct Held {
    std::vector<Part> parts;
    CellRect extent;
    std::vector<SheetSlot> slots;
    friend bool operator==(const Held& a, const Held& b) { return a.parts == b.parts; }
  };
  Shared<Held> held_;  // never edited
};

}  // namespace uq
