// Joiner: which member of an edging lies on a cell, so that tiles show the same at the places that they share.
//
// What lies on a map is told by its tiles: a member tells the material of its cell and of each place that decides, an empty
// cell *nothing* where the edging has that, any other tile is none of its business and stays. Laying a material says
// what the places of the laid cells show; the cells around them are chosen anew where a place that they share changed.
//  - By corners the material is laid on all corners of a cell; a cell all of whose corners were laid that way is as good as
//    laid itself, and stays when its neighbours are taken away.
//  - By sides, or both, a cell has a material, and a border between two is drawn by the one whose members show the other at
//    their sides; a corner beside a side that shows the other shows it, too.
//  - A path joins the cells that a stroke crossed one after the other, and keeps the joints it had.
// Where no member shows exactly what is wanted the one with the least cost is laid (EdgingShape.h). Among members that cost the
// same chance decides by weight, cell and edging, so the same materials come out as the same tiles in whatever order they were laid.
//
// Only cells that touch a laid one by side or corner ever change. One stroke's helper, on its thread: it remembers what was
// laid, so that cells may come bit by bit. Cost: for each cell laid, itself and its neighbours; for wants that were not seen
// before, the members. Quilt, edging and grid must live as long, and stay where they are.
#pragma once

#include <cstdint>
#include <functional>
#include <map>
#include <optional>
#include <span>
#include <unordered_map>
#include <vector>

#include "core/cells/CellSet.h"
#include "core/cells/LayerCells.h"
#include "core/document/Quilt.h"
#include "core/document/EdgingShape.h"

namespace uq {

// The tile that shows a material and nothing else, or else as much of it as any; nothing where no member does.
std::optional<Cell> plainTile(const Quilt& quilt, const Edging& edging, MaterialIndex material);

class Joiner {
 public:
  Joiner(const Quilt& quilt, const Edging& edging, const Grid& grid);

  // The material of what lies there; nothing where that is no member.
  std::optional<MaterialIndex> materialOf(Cell cell) const;

  struct Ask {
    const LayerCells& before;  // what lies around, as it was before the stroke
    const CellSet& cells;      // on which the material comes to lie, or is taken away
    MaterialIndex material = 0;
    bool takesAway = false;    // then what lies around comes there
    std::span<const CellPos> way = {};  // the cells in the order in which they were crossed, where that is known: a path joins along it
    std::function<bool(CellPos)> may;   // whether a cell may be touched at all
  };
  // A path goes on from where it ended, unless a new stroke is begun.
  void beginStroke() { last_.reset(); }
  // Lays it on `onto`; the cells beside those of the ask that changed.
  CellSet lay(LayerCells& onto, const Ask& ask);

  // What a cell is to show after what was laid so far; nothing where that is none of the edging's business.
  std::optional<EdgingShape> wantedAt(const LayerCells& before, CellPos at) const;
  const EdgingMember* memberAt(Cell cell) const;
  // The members nearest to a shape, the best first, at most so many.
  std::vector<const EdgingMember*> nearest(const EdgingShape& wanted, std::size_t most) const;

 private:
  struct Corner {
    CellPos cell;
    int corner = 0;
    friend constexpr bool operator==(const Corner&, const Corner&) = default;
    friend constexpr auto operator<=>(const Corner&, const Corner&) = default;
  };
  struct HashCell {
    std::size_t operator()(CellPos at) const { return std::hash<std::uint64_t>()(std::uint64_t(std::uint32_t(at.x)) << 32 | std::uint32_t(at.y)); }
  };

  // The same corner, as the first of the cells that meet there calls it.
  Corner canonical(CellPos cell, int corner) const;
  MaterialIndex ground(const Ask& ask) const;
  std::optional<MaterialIndex> middleOf(const LayerCells& before, CellPos at) const;
  MaterialIndex border(MaterialIndex own, MaterialIndex other) const;
  void layPlaces(const Ask& ask, MaterialIndex laid);
  void layLinks(const Ask& ask);
  void link(CellPos a, CellPos b, bool joins);
  bool isShown(const EdgingMember* member, Cell cell, const EdgingShape& wanted) const;
  std::optional<Cell> chosen(const EdgingShape& wanted, CellPos at);

  const Edging& edging_;
  const Grid& grid_;
  std::size_t places_;
  bool hasNothing_;
  std::unordered_map<std::uint32_t, const EdgingMember*> byCell_;
  std::vector<std::pair<const EdgingMember*, Cell>> members_;  // those whose tiles are there
  std::map<std::pair<MaterialIndex, MaterialIndex>, bool> draws_;  // a member of the first shows the second at a side
  std::vector<std::vector<std::vector<Corner>>> meets_;  // by odd x and y, by corner: the cells that meet there, from cell 0, 0
  std::unordered_map<CellPos, MaterialIndex, HashCell> laid_;
  std::map<Corner, MaterialIndex> laidCorners_;
  std::map<std::pair<CellPos, int>, bool> links_;  // over that side of that cell
  std::optional<CellPos> last_;                    // of a path
  std::map<EdgingShape, std::vector<std::pair<Cell, int>>> known_;  // the best members for a want, and their weights
};

}  // namespace uq
