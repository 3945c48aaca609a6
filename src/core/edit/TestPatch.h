// TestPatch: a small map on which an edging shows at once what was understood of it: an island with a hole, a strip, a lone
// cell, a diagonal touch, and every two materials that border on one another, as far as there is room for twelve of them; of a path a ring, a crossing, ends.
//
// One may paint on it; every cell says what it was to show and what it does, so a wrong spot can be put right where it is wrong.
// It is part of no quilt. Cost to make: a few hundred cells joined. The quilt is a value of its own; one thread at a time.
#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "core/document/Map.h"
#include "core/edit/Joiner.h"

namespace uq {

// Cells of a patch in the order in which they were crossed, and what was laid there.
struct PatchStroke {
  std::vector<CellPos> cells;
  MaterialIndex material = 0;
  bool takesAway = false;
};

class TestPatch {
 public:
  // `own`: what somebody painted on it before, again. The shape is of the edging's family.
  TestPatch(Quilt quilt, Edging edging, const GridShape& shape, const std::vector<PatchStroke>& own = {});
  TestPatch(const TestPatch&) = delete;
  TestPatch& operator=(const TestPatch&) = delete;

  void paint(const PatchStroke& stroke);

  // One layer of tiles, and those of what the edging brings along; in no quilt, and drawn with the sheets of `quilt()`.
  const Map& map() const { return map_; }
  const Quilt& quilt() const { return quilt_; }
  const Edging& edging() const { return edging_; }
  const LayerCells& cells() const { return cells_; }

  struct Spot {
    EdgingShape wanted;
    const EdgingMember* member = nullptr;  // what lies there; nullptr: nothing
    int cost = 0;                          // 0: it shows what it was to show
  };
  // Nothing outside the patch, and where nothing was laid nor had to be.
  std::optional<Spot> spotAt(CellPos at) const;
  // Tiles that might show what is wanted there, the likeliest first; the one that lies there among them.
  std::vector<const EdgingMember*> candidates(CellPos at, std::size_t most) const;

 private:
  void plan();
  void planScene(CellPos corner, MaterialIndex material, MaterialIndex ground);
  void planPath(MaterialIndex path);
  void update();
  void add(std::vector<CellPos> cells, MaterialIndex material) { plan_.push_back({std::move(cells), material, false}); }

  Quilt quilt_;
  Edging edging_;
  std::unique_ptr<const Grid> grid_;
  Joiner joiner_;
  MaterialIndex ground_;
  std::vector<PatchStroke> plan_;
  LayerCells cells_;
  Map map_;
};

// The material on which the others lie: *nothing* where the edging has it, else that which most members show.
MaterialIndex groundOf(const Edging& edging);

}  // namespace uq
