// Hemming: rows of a hem laid beside the cells at which a material ends, and taken away where it ends no more.
//
// A border is a cell that shows the material with one across the hem's side that does not; what comes to lie beside it is its
// column, row after row away from the border. Which end of a row a tile is follows from whether the hem goes on beside it, so a piece
// taken out leaves right ends. How many rows there are: on cells that are laid now as many as were said before, else as many as lie
// there already; a border that comes to be takes them over from the one that was there, or beside it.
// A hem lies on empty cells, on hems and — on the material's own layer — on members of its edging; all else stays as it is. What
// stands in a column, a door, does not end it.
//
// Cost: the cells asked about and their columns. One thread. Quilt, edging and grid must live as long, and stay where they are.
#pragma once

#include <functional>
#include <optional>
#include <unordered_map>
#include <vector>

#include "core/cells/LayerCells.h"
#include "core/document/Quilt.h"

namespace uq {

class Hemming {
 public:
  Hemming(const Quilt& quilt, const Edging& edging, const Grid& grid);

  // Whether a tile shows a material, where it ends: at its middle, or by corners at any of them.
  bool shows(Cell cell, MaterialIndex material) const;
  // Whether a tile belongs to a hem of the edging.
  bool isHem(Cell cell) const { return hemOf(cell) != nullptr; }

  struct Ask {
    std::size_t hem = 0;               // of the edging's list; rows
    const LayerCells& materials;       // as they lie now
    const LayerCells& materialsBefore;
    const LayerCells& before;          // the layer on which the hem comes to lie
    const CellSet& laid;               // cells that were given a material just now
    const CellSet& changed;            // all cells where another material may end than before
    int rows = 0;                      // on `laid`, of a hem that grows; 0: as the hem says
    bool asItLies = false;             // as many rows as lie there already count on `laid`, too
    bool ownLayer = false;             // the materials lie on the same layer, of which `onto` is the present state
    const std::function<bool(CellPos)>& may;       // whether a cell may be touched at all
    const std::function<bool(CellPos)>& isGround;  // whether ground lies there; may be empty: it does
  };
  struct Hemmed {
    CellSet changed;
    CellSet bared;  // on the materials' own layer: nothing belongs there now, and a material should
  };
  Hemmed lay(LayerCells& onto, const Ask& ask) const;

 private:
  struct Known {
    Cell cell;
    HemRow row = HemRow::middle;
    HemPiece piece = HemPiece::middle;
    int weight = 1;
    std::size_t hem = 0;
  };
  // Where a column begins, as steps from its border, and how many rows it has.
  struct Column {
    int from = 0;
    int rows = 0;
    bool isCut = false;  // something stands in its way: it may have more
  };
  class Work;

  const Known* hemOf(Cell cell) const;
  bool isMember(Cell cell) const;
  // The tile for a place; the nearest there is.
  const Known* chosen(std::size_t hem, HemRow row, HemPiece piece, CellPos at) const;

  const Edging& edging_;
  const Grid& grid_;
  std::size_t seed_;
  std::unordered_map<std::uint32_t, const EdgingMember*> members_;
  std::vector<Known> tiles_;
  std::unordered_map<std::uint32_t, std::size_t> byCell_;  // the first of tiles_ that it is
};

}  // namespace uq
