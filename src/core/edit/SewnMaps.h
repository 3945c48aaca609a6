// SewnMaps: how the maps of a quilt hang together by their seams, worked out once.
//
// Maps that hang together lie on one canvas, each shifted by whole cells, so that every cell of the canvas is of one map
// at most. Seams count in the order of their ids; one that does not agree with those before it is wrong, says why in
// words, and joins nothing: no cell is ever found by a seam that is not certain. Wrong are a map that is not there, grids
// that differ, a map seen from above beside one seen side on, rows that would come to lie half a cell off, edges that do not meet, two maps on one cell, and a map that
// would lie at two places. A map sewn to itself makes the whole canvas repeat.
//
// A value that keeps nothing of the quilt. Cost: making it compares the maps that hang together, each with each; asking
// costs what is returned. Threads: any.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

// A map on the canvas of another one: canvas cell = cell of the map + by.
struct Sewn {
  Id map;
  CellPos by;
  friend constexpr bool operator==(const Sewn&, const Sewn&) = default;
};

// After how many cells a canvas repeats, each way; 0: it does not.
struct Period {
  int across = 0;
  int down = 0;
  bool any() const { return across > 0 || down > 0; }
  friend constexpr bool operator==(const Period&, const Period&) = default;
};

class SewnMaps {
 public:
  SewnMaps() = default;  // nothing hangs together
  explicit SewnMaps(const Quilt& quilt);
  // The same, worked out anew only where seams, bounds, grids, names or how maps are seen differ from what was asked for last on this thread.
  static std::shared_ptr<const SewnMaps> of(const Quilt& quilt);

  // All that hangs together with a map, the map itself first; on its own cells.
  std::vector<Sewn> around(Id map) const;
  // How the canvas on which the map lies repeats.
  Period period(Id map) const;
  // Whether one map can be reached from the other over seams.
  bool hangTogether(Id a, Id b) const;
  // Why a seam is wrong, in words; empty when it is right, and for one that is not there.
  const std::string& whyWrong(Id seam) const;
  bool anyWrong() const { return !wrong_.empty(); }

 private:
  struct Cloth {
    std::vector<Sewn> maps;
    Period period;
  };
  std::string sew(const Quilt& quilt, const Seam& seam);
  std::string wrap(const Map& map, bool down);
  std::string join(const Quilt& quilt, const Map& map, const Map& other, const Seam& seam);
  std::size_t clothOf(Id map);
  CellPos placeOf(Id map) const;

  std::vector<Cloth> cloths_;
  std::map<Id, std::size_t> of_;  // by map: its cloth
  std::map<Id, CellRect> bounds_;
  std::map<Id, std::string> names_;
  std::map<Id, std::string> wrong_;
};

// Why cells of two maps can never lie beside one another, in words that name what differs; empty when they can.
std::string whyNotSewable(const Map& map, const Map& other);
// Why no map can lie at such a step on the cells of another one, since their shifted rows or columns would not; empty when
// it can.
std::string whyNoStep(const Map& map, const Map& other, CellPos by);
// How far map pixel 0, 0 of the other one lies from that of the map then, in map pixels.
PixelPos pixelStep(const Map& map, const Map& other, CellPos by);

// The layer of another map on which what belongs on this one lies there: of the same role, if there are several the one of
// its name, else the one as near to the ground among them. Nothing where there is none.
std::optional<LayerAt> partnerOn(const Quilt& quilt, LayerAt layer, Id map);

// Whether two rectangles of cells on a grid touch along the side of a cell at least once. In straight rows of diamonds what
// lies beside one another in one row touches by corners only: two rows must be common there.
bool edgesMeet(GridKind kind, const CellRect& a, const CellRect& b);

// A side of a cell that lies on a stitch, in map pixels.
struct StitchSide {
  PixelPos from;
  PixelPos to;
};
// The sides of cells of the map across which a cell of the other lies, in the map's pixels; straight runs are one. Of a
// map that wraps both edges. Cost: the cells along the edges.
std::vector<StitchSide> stitchOf(const Map& map, const Map& other, CellPos by);

}  // namespace uq
