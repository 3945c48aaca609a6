// Resizing a map: its edges are moved over the endless grid on which its cells lie.
//
// Cells have absolute places, so no cell is touched and nothing that stays moves, to whichever side a map grows. What an
// edge leaves outside stays as seam allowance (Map.h) and is there again when the map grows back.
// A side is one of the grid's own: on a diamond map `left` is its upper left, `top` its upper right, `right` its lower
// right, `bottom` its lower left.
// Cost: moving an edge touches no cell; new room is filled cell by cell.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/cells/CellLines.h"
#include "core/document/NewRoom.h"
#include "core/document/Quilt.h"

namespace uq {

// What one more cell adds to a map along each axis, in map pixels: not a cell's own size where cells interlock.
PixelSize cellsPitch(const GridShape& shape);

// By how many cells each edge moves outwards; inwards where negative.
struct EdgeMoves {
  int left = 0, top = 0, right = 0, bottom = 0;
  friend bool operator==(const EdgeMoves&, const EdgeMoves&) = default;
};
// Bounds with their edges moved; beyond all limits where a sum would overflow, so that whyNoBounds says so.
CellRect moved(CellRect bounds, const EdgeMoves& by);

// More new room is not filled.
inline constexpr std::int64_t kMostNewRoom = std::int64_t{1} << 22;  // cells of one layer

// Why a map cannot have these bounds, with new room filled so, in words; empty when it can.
std::string whyNoBounds(const Map& map, CellRect bounds, NewRoom room = NewRoom::empty);

// Cells that come back from the allowance are left as they are, whatever new room gets. Nothing changes where whyNoBounds says why.
Quilt withBounds(const Quilt& quilt, Id map, CellRect bounds, NewRoom room = NewRoom::empty);

// What is asked of a map's size by words instead of by hand, in this order.
struct ResizeAsk {
  std::vector<CellLines> lines;  // first these come in, or go, one after the other
  Id linesOf;                    // of that layer alone; empty: of all
  bool toUsed = false;          // then to what is used
  EdgeMoves by;                 // then these edges move
  std::optional<int> width;     // then the right and the lower edge, to so many cells
  std::optional<int> height;
  bool dropsAllowance = false;  // and what lies outside then is taken away
  NewRoom room = NewRoom::empty;
};
struct Resized {
  Quilt quilt;
  CellRect bounds;
  std::int64_t cut = 0;  // painted cells, on all layers
  std::int64_t broughtBack = 0;
  std::int64_t dropped = 0;
  std::int64_t gone = 0;  // with rows and columns
  std::string why = {};  // why it cannot be, in words; then nothing is changed
};
Resized resized(const Quilt& quilt, Id map, const ResizeAsk& ask);

// The map's bounds, larger by whole screens on each side where `wanted` lies beyond them; as they are where the map cannot
// be so large.
CellRect grownToHold(const Quilt& quilt, const Map& map, CellRect wanted);

// What stands on cells of the map and would lie outside these bounds, in words: cells that are selected, the places where
// backdrops hang.
std::vector<std::string> leftOutside(const Map& map, CellRect to, const CellSet& selected);

// The least bounds around all that is painted within the map's; empty where nothing is.
CellRect usedBounds(const Map& map);

// How many cells are painted in the allowance, on all layers; and the map without them.
std::int64_t allowanceCells(const Map& map);
Quilt withoutAllowance(const Quilt& quilt, Id map);

// Counts painted cells of a map, on all layers, for somebody who asks again and again while an edge is dragged: each chunk
// is looked at once. The map must not change meanwhile.
class PaintedCount {
 public:
  explicit PaintedCount(Map map) : map_(std::move(map)) {}

  std::int64_t in(CellRect cells);
  // What newly lies outside, and what comes back, when the map gets these bounds.
  std::int64_t cutBy(CellRect bounds);
  std::int64_t broughtBackBy(CellRect bounds);

 private:
  std::int64_t inChunk(std::size_t layer, const CellGrid::ChunkView& chunk, CellRect cells);

  Map map_;
  std::map<std::pair<std::size_t, std::pair<int, int>>, std::int64_t> whole_;  // by layer and chunk
};

// An edge or corner in the hand: which sides move.
struct HeldEdge {
  bool left = false, top = false, right = false, bottom = false;
  bool any() const { return left || top || right || bottom; }
  friend bool operator==(const HeldEdge&, const HeldEdge&) = default;
};
// The edge that a cell outside the bounds lies beyond; none for a cell within.
HeldEdge edgeBeyond(CellRect bounds, CellPos outside);

struct EdgeWay {
  int across = 0;  // cells that the hand has moved, along the grid's own axes
  int down = 0;
  bool bothSides = false;               // the opposite edge goes as far the other way
  std::optional<PixelSize> screen = {};  // the map is to be whole screens of so many map pixels along what moves
};
// The bounds as far as an edge was dragged: at least one cell is left.
CellRect dragged(const Map& map, const HeldEdge& edge, const EdgeWay& way);

}  // namespace uq
