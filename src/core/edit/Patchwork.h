// Patchwork: the maps that lie under a hand, as one canvas of cells.
//
// Whoever works on cells under a hand — strokes, fills, shapes, selections — asks the patchwork which cells there are
// and whose they are, never a map's bounds. Canvas cells are those of the map on which the gesture began; a map that
// lies beside it is shifted by a constant step, which is even where the grid's rows or columns are shifted. No two
// patches share a cell. Today a patchwork is one map; sewing maps together makes it more and changes nothing above.
//
// A value. Cost: `contains` looks through the patches, sets cost their cells. Any thread.
#pragma once

#include <functional>
#include <optional>
#include <vector>

#include "core/cells/CellSet.h"
#include "core/document/Quilt.h"

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
  explicit Patchwork(std::vector<Patch> patches);
  // What lies under a hand on a map; no cells where there is no such map.
  static Patchwork under(const Quilt& quilt, Id map);

  const std::vector<Patch>& patches() const { return patches_; }
  // The box around all its cells.
  CellRect bounds() const { return bounds_; }

  // The patch that has a cell; nullptr where there is none.
  const Patch* at(CellPos canvas) const;
  bool contains(CellPos canvas) const { return at(canvas) != nullptr; }
  // The cells of a set that lie on some map.
  CellSet among(const CellSet& canvas) const;
  // Calls `visit` for each patch with those of the cells that are its own, as cells of its map; not where it has none.
  void forEachPatch(const CellSet& canvas, const std::function<void(const Patch&, const CellSet& own)>& visit) const;

 private:
  std::vector<Patch> patches_;
  CellRect bounds_;
};

}  // namespace uq
