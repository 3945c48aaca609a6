// Stroke: what one press, drag and release of a painting tool does to a quilt.
//
// A stroke is a function of its plan — the tool and its options, what is in hand, the landing, a seed — the quilt
// before it and the path of the pointer. Made move by move it gives the same as made at once, and what it gives is also
// what its ghost shows. Brush and Erase grow with the path: cells between two moves are joined by the grid's line, so a
// fast hand leaves no gaps. Line, Box, Oval and a stretch are laid anew at each move, from the press to the pointer;
// Fill is laid by the press. Over seams it goes into every map that is reached there, except what is asked of one map alone
// (a selection, Swap, all such cells of a layer). Cells outside the maps' bounds, or beyond the selection, are never touched; a map that grows
// as it is painted has larger bounds then, by whole screens on the sides where what is laid reaches beyond them.
//
// Cost of a move: the cells it newly crosses, or those of the shape; whole chunks of one tile cost no more than one
// cell. A copy of each chunk that is touched.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <set>

#include "core/edit/Landing.h"
#include "core/edit/Pattern.h"

namespace uq {

struct StrokePlan {
  Tool tool = Tool::brush;  // any but select
  ToolOptions options;
  std::optional<BoxShape> box;  // how boxes lie; empty: as is usual on the grid
  bool takesAway = false;
  InHand hand;
  LayerAt layer;              // the active one
  bool obeys = false;         // it is obeyed to the letter
  CellSet within;             // where not empty, only these cells are touched
  int lift = 0;               // added to what is lifted, in map pixels; together at most kMostLift
  std::uint64_t seed = 0;     // of all that chance decides
  std::uint64_t ids = 0;      // seed of the ids of layers that are made
  std::set<Id> shut;          // layers that are hidden or locked
  std::set<Id> hidden;        // layers that are not seen
  CellSet given;              // where not empty, Fill fills these cells instead of a region
  std::int64_t mostLaid = 0;  // a shape of more cells that are not all alike is laid by finish() only; 0: at once
  bool everywhere = false;    // Fill takes all such cells of the layer, not only those that hang together
  Covers covers;
  std::map<Id, std::string> unchangeable{};  // maps at whose stitches it stops, and why, in words
};

// The stroke as the desk would make it now.
StrokePlan planOf(const Desk& desk, const Quilt& quilt, bool takesAway);
// Brush with a block, on a layer that is obeyed.
StrokePlan layingOn(LayerAt layer, InHand hand);
StrokePlan takingAway(LayerAt layer, InHand hand);

// Where the pointer was on its way.
struct StrokeMove {
  CellPos cell;
  bool even = false;  // Shift: Line snaps to the grid's ways, Box and Oval have equal sides
  int corner = 0;     // of the cell, that a brush of half a cell lays
  friend bool operator==(const StrokeMove&, const StrokeMove&) = default;
};

class Stroke {
 public:
  Stroke(Quilt before, StrokePlan plan);
  ~Stroke();
  Stroke(Stroke&&) noexcept;
  Stroke& operator=(Stroke&&) noexcept;

  // Presses (first call) or moves to a cell.
  void moveTo(CellPos cell, bool even = false) { follow({cell, even}); }
  void follow(const StrokeMove& move);
  // Whether a tool could lay single corners of cells of what is in hand; and whether it does.
  static bool mayLayCorners(const Quilt& quilt, Id map, Tool tool, const InHand& hand);
  static bool laysCorners(const Quilt& quilt, Id map, Tool tool, const ToolOptions& options, const InHand& hand) { return options.halfCell && mayLayCorners(quilt, map, tool, hand); }
  // The map's own cells are the canvas's; those beyond a stitch are of other maps. Which maps it reaches there.
  std::set<Id> mapsLaidOn() const;
  // What lies on a cell of the canvas on the layer where it lands, or that layer's partner there.
  Laid laidAt(CellPos canvas) const;
  // Why it stops at a stitch that it reaches, in words; empty where it does not.
  std::string stopsAt() const;
  // Whether something was to be laid beyond the edge of a map that does not grow.
  bool reachesBeyond() const;
  // Lays what was put off for being large; see StrokePlan::mostLaid.
  void finish();
  // Fits the stretch into another box of places, after it was laid.
  void refit(CellRect box);

  const StrokePlan& plan() const;
  const Quilt& before() const;
  // The quilt with the stroke as far as it has come.
  const Quilt& quilt() const;
  // Where it lands; as the first move found it, or for shapes the last one.
  const Landing& landing() const;
  // The cells that it lays or takes away, on any layer.
  const CellSet& cells() const;
  // The cells of the tool's shape, also where what is in hand leaves them as they are.
  const CellSet& shape() const;
  // Where a stretch was fitted in, in side coordinates.
  std::optional<CellRect> stretchBox() const;
  // How many cells were kept, since what lies there covers and what is in hand does not.
  std::int64_t kept() const;
  // Why it lays nothing, in words; empty when it does.
  const std::string& refusal() const;

 private:
  void grow();

  class Work;
  std::unique_ptr<Work> work_;  // on the quilt before, or on one whose map has grown
  Quilt before_;
  std::vector<StrokeMove> moves_;  // where the map may grow
};

// Broader or thinner by so many steps; thinner than a cell comes half of one, where there is that.
ToolOptions withWidthStepped(ToolOptions options, int steps, bool hasHalves);

// The whole stroke at once.
Quilt stroked(const Quilt& before, const StrokePlan& plan, const std::vector<CellPos>& path);

}  // namespace uq
