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
// Where two materials have no border of their own but both have one with a third, that is laid between them, one cell wide: on the
// cells that touch what was laid, so that only cells within two of it ever change. Else only cells that touch a laid one do.
// Where no member shows exactly what is wanted the one with the least cost is laid (EdgingShape.h). Among members that cost the
// same chance decides by weight, cell and edging, so the same materials come out as the same tiles in whatever order they were laid.
// What was meant there is kept beside it (Meant.h), and counts instead of what the tile shows.
//
// One stroke's helper, on its thread: it remembers what was laid, so that cells may come bit by bit. Cost: cells that have only laid
// ones around them are laid chunk by chunk; others by what lies around them, and for wants that were not seen before, the members.
// Quilt, edging and grid must live as long, and stay where they are.
#pragma once

#include <array>
#include <cstdint>
#include <functional>
#include <optional>
#include <span>
#include <unordered_map>
#include <vector>

#include "core/cells/CellReader.h"
#include "core/cells/CellSet.h"
#include "core/cells/LayerCells.h"
#include "core/cells/SparseBytes.h"
#include "core/document/Quilt.h"
#include "core/document/EdgingShape.h"
#include "core/grid/CellCorner.h"

namespace uq {

// A tile as it lies on a map; nothing where its sheet, or it, is not there.
std::optional<Cell> cellOf(const Quilt& quilt, const TileId& tile, Turn turn);
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
    std::optional<std::vector<std::pair<CellPos, CellPos>>> joints = {};  // where said: which cells a path joins, whatever the way
    std::span<const CellCorner> corners = {};  // where corners decide: these alone are laid or taken away; `cells` are none then
  };
  // A path goes on from where it ended, unless a new stroke is begun.
  void beginStroke() { last_.reset(); }
  // Lays it on `onto`; the cells beside those of the ask that changed.
  CellSet lay(LayerCells& onto, const Ask& ask);

  // Takes what the tiles on `cells` show for laid, and chooses them and what touches them anew, where they do not show what is
  // wanted; the cells that changed. At a corner on which they do not agree most of them decide; of a path those joints stay to
  // which something runs on both sides. `isNew`: they were laid there just now, and what they showed towards an empty place that
  // means nothing to the edging, or beyond the map, counts for nothing.
  CellSet mend(LayerCells& onto, const CellSet& cells, const std::function<bool(CellPos)>& may, bool isNew);

  // What a cell is to show after what was laid so far; nothing where that is none of the edging's business.
  std::optional<EdgingShape> wantedAt(const LayerCells& before, CellPos at) const;
  const EdgingMember* memberAt(Cell cell) const {
    const auto found = cell.empty() ? byCell_.end() : byCell_.find(cell.bits());
    return found == byCell_.end() ? nullptr : found->second;
  }
  // Puts tiles that show what was meant better in the place of those that stand in; the cells that changed.
  CellSet layMeant(LayerCells& onto);
  // The members nearest to a shape, the best first, at most so many.
  std::vector<const EdgingMember*> nearest(const EdgingShape& wanted, std::size_t most) const;

 private:
  // What lies there, with what was meant.
  class Seen {
   public:
    explicit Seen(const LayerCells& layer) : cells_(layer.cells), meant_(layer.meant.empty() ? nullptr : &layer.meant) {}
    Cell at(CellPos pos) { return cells_.at(pos); }
    bool hasMeant() const { return meant_ != nullptr; }
    int meant(CellPos pos) const { return meant_ ? meant_->at(pos) : 0; }

   private:
    CellReader cells_;
    const NumberGrid* meant_;
  };
  // The member that lies there, or, of one that stands in, one that shows what was meant.
  const EdgingMember* shownAt(Seen& before, CellPos at) const { return shown(before, before.at(at), at); }
  const EdgingMember* shown(const Seen& before, Cell there, CellPos at) const {
    const EdgingMember* member = memberAt(there);
    return member && before.hasMeant() ? meantAt(before, *member, at) : member;
  }
  const EdgingMember* meantAt(const Seen& before, const EdgingMember& member, CellPos at) const;
  // What is wanted at a cell, to be looked up fast: middle, sides, corners.
  struct Want {
    std::array<std::int8_t, 16> places;
    friend bool operator==(const Want&, const Want&) = default;
  };
  struct HashWant {
    std::size_t operator()(const Want& want) const;
  };
  // The best members for a want.
  struct Known {
    std::vector<std::pair<Cell, int>> cells;  // and their weights
    int weights = 0;
    int cost = 0;
  };
  // What lies around a cell, by whether its column and row are odd, as ways from it.
  struct Around {
    std::vector<CellPos> across;
    std::vector<std::optional<CellPos>> acrossCorner;
    std::vector<std::vector<CellPos>> atCorner;
    std::vector<CellCorner> canonical;  // each corner, as the first of the cells that meet there calls it
  };

  const Around& around(CellPos at) const { return around_[static_cast<std::size_t>((at.x & 1) + 2 * (at.y & 1))]; }
  static CellPos on(CellPos at, CellPos way) { return {at.x + way.x, at.y + way.y}; }
  CellPos across(CellPos at, std::size_t side) const { return on(at, around(at).across[side]); }
  std::int8_t cornerLaid(CellPos at, std::size_t corner) const;
  void layCorner(CellPos at, std::size_t corner, MaterialIndex material);
  MaterialIndex ground(Seen& before, const CellSet& ring, MaterialIndex taken) const;
  std::optional<MaterialIndex> middleOf(Seen& before, CellPos at) const;
  std::optional<MaterialIndex> cornerOf(Seen& before, CellPos at, std::size_t corner) const;
  // At a corner round which something lies of which nothing is known: what a cell of the same material shows there of it yet.
  MaterialIndex rememberedAtCorner(Seen& before, CellPos at, std::size_t corner, MaterialIndex middle) const;
  std::size_t cornerOn(CellPos beside, CellPos at, std::size_t corner) const;
  MaterialIndex border(MaterialIndex own, MaterialIndex other) const { return borders_[index(own)][index(other)]; }
  // Whether a path is drawn of it: some of its members show something else beside it.
  bool runs(MaterialIndex material) const { return runs_[index(material)]; }
  bool meet(MaterialIndex a, MaterialIndex b) const { return a == b || meets_[index(a)][index(b)]; }
  std::optional<MaterialIndex> between(MaterialIndex a, MaterialIndex b) const;
  static std::size_t index(MaterialIndex material) { return static_cast<std::size_t>(material + 1); }
  // Cells beside those of a set, and those of the set that have one beside them that is none of it.
  struct Rim {
    CellSet ring;
    CellSet inner;
  };
  Rim rimOf(const CellSet& cells) const;
  CellSet cellsAt(std::span<const CellCorner> corners) const;
  void layPlaces(Seen& before, const Ask& ask, MaterialIndex laid, const Rim& rim);
  void layLinks(const Ask& ask);
  void layBetween(Seen& before, const Ask& ask, MaterialIndex laid, CellSet& ring);
  void link(CellPos a, CellPos b, bool joins);
  void takeForLaid(Seen& before, const CellSet& cells, const std::function<bool(CellPos)>& may, bool isNew);
  MaterialIndex mostAtCorner(Seen& before, CellPos at, std::size_t corner, const CellSet& cells) const;
  // What comes to lie on a cell, with what was meant there.
  struct Next {
    Cell cell;
    int meant = 0;
    friend bool operator==(const Next&, const Next&) = default;
  };
  // Nothing where `now` stays; what shows what is wanted already stays if `keeps`.
  std::optional<Next> nextAt(Seen& before, Next now, CellPos at, bool keeps);
  // Lays that on those of the cells that may be touched; the cells that changed.
  CellSet layWanted(Seen& before, LayerCells& onto, const CellSet& cells, const std::function<bool(CellPos)>& may, bool keeps);
  std::optional<Want> wanted(Seen& before, CellPos at) const;
  bool isNothingWanted(const Want& want) const;
  EdgingShape shapeFor(const Want& want) const;
  const Known& knownFor(const Want& want);
  std::optional<Cell> chosen(const Known& known, CellPos at) const;

  const Edging& edging_;
  const Grid& grid_;
  std::size_t places_;
  bool hasNothing_;
  std::size_t seed_;
  std::unordered_map<std::uint32_t, const EdgingMember*> byCell_;
  std::vector<std::pair<const EdgingMember*, Cell>> members_;  // those whose tiles are there
  static constexpr std::size_t kCodes = kMostMaterials + 1;
  std::array<std::array<MaterialIndex, kCodes>, kCodes> borders_{};  // what is seen where the first lies beside the second
  std::array<std::array<bool, kCodes>, kCodes> meets_{};             // a member shows both
  std::array<bool, kCodes> runs_{};
  std::array<Around, 4> around_;
  SparseBytes laid_;
  std::array<SparseBytes, 6> laidCorners_;  // by the canonical corner's number
  SparseBytes linked_;                      // one bit a side: a stroke said something of it
  SparseBytes joined_;                      // one bit a side: it joins there
  std::optional<CellPos> last_;             // of a path
  std::unordered_map<Want, Known, HashWant> known_;
  mutable std::unordered_map<int, std::optional<EdgingMember>> meant_;
};

}  // namespace uq
