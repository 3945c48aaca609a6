// Patchwork: the maps that lie under a hand, as one canvas of cells.
//
// Whoever works on cells under a hand — strokes, fills, shapes, selections — asks the patchwork which cells there are
// and whose they are, never a map's bounds. Canvas cells are those of the map on which the gesture began; a map that
// is sewn to it is shifted by a constant step, which is even where the grid's rows or columns are shifted. Where a map
// wraps, the canvas repeats: each patch comes again after each period, as other canvas cells of the same map cells.
// No two patches share a cell.
//
// A value. Cost: `contains` looks through the patches, sets cost their cells. Any thread.
#pragma once

#include <functional>
#include <optional>
#include <set>
#include <vector>

#include "core/cells/CellSet.h"
#include "core/cells/FloodFill.h"
#include "core/document/Quilt.h"
#include "core/edit/SewnMaps.h"

namespace uq {

struct Patch {
  Id map;
  CellRect cells;  // on the canvas
  CellPos by;      // canvas cell = cell of the map + by

  CellPos onMap(CellPos canvas) const { return {canvas.x - by.x, canvas.y - by.y}; }
};

class Patchwork {
 public:
  Patchwork() = default;  // no cells
  explicit Patchwork(std::vector<Patch> patches, Period period = {});
  // One map alone; no cells where there is no such map.
  static Patchwork under(const Quilt& quilt, Id map);
  // A map, the first patch, and all that is reached from it over seams without crossing a map that is `closed`.
  static Patchwork across(const Quilt& quilt, Id map, const std::set<Id>& closed = {});

  // Each once, as they lie around the map on which the gesture began.
  const std::vector<Patch>& patches() const { return patches_; }
  const Period& period() const { return period_; }
  // Whether there is nothing but one map, whose cells are the canvas's.
  bool isPlain() const { return patches_.size() < 2 && !period_.any(); }
  // The box around all its cells; of what repeats one period.
  CellRect bounds() const { return bounds_; }
  // The same with one period more each way: as far as a hand reaches.
  CellRect reach() const;

  bool contains(CellPos canvas) const;
  // The patch that has a cell, where it lies there; nothing where there is none.
  std::optional<Patch> at(CellPos canvas) const;
  // The patches that meet a rectangle, each as often as it comes there.
  std::vector<Patch> meeting(CellRect canvas) const;
  // The cells of a set that lie on some map.
  CellSet among(const CellSet& canvas) const;
  // Calls `visit` for each patch with those of the cells that are its own, as cells of its map; not where it has none.
  void forEachPatch(const CellSet& canvas, const std::function<void(const Patch&, const CellSet& own)>& visit) const;

 private:
  std::vector<Patch> patches_;
  Period period_;
  CellRect bounds_;
};

// Cells shifted by a step.
CellSet shifted(const CellSet& cells, CellPos by);

// The cells of the canvas that pass the test of the map on which they lie: `tests` by patch, in the patches' order; such
// cells count only where the patchwork has them. The tests must live as long.
ChunkTest onCanvas(const Patchwork& patchwork, std::vector<ChunkTest> tests);

}  // namespace uq
