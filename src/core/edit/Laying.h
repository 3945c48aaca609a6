// Laying: how what is in hand comes to lie on cells that were chosen: one thing everywhere, a block again and again, a
// stretch fitted into a box, or a mix thrown cell by cell.
//
// A strategy of the stroke: the stroke says which cells, the laying what lies there, and it says what it touched. That
// may be fewer cells (what covers was kept), or more (a member of a mix is larger than a cell); whoever needs
// neighbours to change with a cell does it here, too. A laid cell need not be final: laid again, on the same cells of
// the layer as it was before, the outcome depends on nothing but the plan.
//
// Cost: `lay` those of Pattern and Mixing for each cell; one thing everywhere is filled chunk by chunk. One thread at a
// time. Quilt and grid of the plan must live as long.
#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <span>
#include <vector>

#include "core/cells/LayerCells.h"
#include "core/edit/Landing.h"
#include "core/grid/CellCorner.h"

namespace uq {

struct LayingPlan {
  const Quilt& quilt;  // before the stroke
  const Grid& grid;
  const InHand& hand;
  bool takesAway = false;
  int lift = 0;                       // added to what is lifted, in map pixels; together at most kMostLift
  SidePos anchor;                     // where the grip of a copy lies
  std::optional<CellRect> stretched;  // a stretch: the box of places that it is fitted into
  std::uint64_t seed = 0;
  bool joinsMet = false;  // a block that is laid, and is no stamp, joins what it meets, by the edgings of its tiles
  std::function<bool(CellPos)> isGround{};  // whether ground lies there now; hems that stand lie only there. Empty: it does
  Covers spares{};  // where set, what covers stays under what does not, on the landing layer
};

class Laying {
 public:
  virtual ~Laying() = default;

  // What lies on every cell of the landing layer, where that is one thing.
  virtual std::optional<Laid> alike() const { return std::nullopt; }
  // The cells that are laid when these are crossed: of a block whole copies.
  virtual CellSet whole(const CellSet& crossed) const { return crossed; }

  struct Ask {
    std::size_t part = 0;              // of the hand's layers; 0 is the landing layer
    const Layer* before = nullptr;     // that layer before the stroke; nullptr where the stroke made it
    const CellSet& cells;              // to be laid now
    const CellSet& laid;               // by the stroke so far
    std::function<CellSet()> shape;    // the whole shape, by which its rim is told; asked only where a mix keeps off it
    bool reaches = false;              // what is larger than a cell may reach beyond `cells`
    std::function<bool(CellPos)> may;  // whether a cell may be touched at all
    std::span<const CellPos> way = {};  // the cells in the order in which they are crossed, where that is known
    bool onLanding = false;             // a further part that comes to lie on the landing layer, too
    std::span<const CellCorner> corners = {};  // with half a cell: `cells` are those around them, and only they are laid
  };
  struct Touched {
    CellSet cells;
    CellSet kept;      // since what lies there covers and what would be laid does not
    CellSet beside{};  // others, that changed along with them
  };
  virtual Touched lay(LayerCells& onto, const Ask& ask) = 0;
  // Edgings whose hems are laid, on all layers, once all parts of the hand are (withHemsMended). They live as long as the plan's quilt.
  virtual std::vector<const Edging*> bringsAlong() const { return {}; }
};

// The strategy that suits what is in hand. A hand that takes away lays nothing on the places of its block.
std::unique_ptr<Laying> layingFor(const LayingPlan& plan);

}  // namespace uq
