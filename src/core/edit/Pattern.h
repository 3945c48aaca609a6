// Pattern: what lies on each place when what is in hand is laid again and again.
//
// As it is, the block repeats at multiples of its size from an anchor; as a stretch, it is fitted into a box, and where
// its middle comes by chance, each of its tiles is one of those that look alike (see LookAlikes). Chance turns each cell,
// or each copy of a block, if what is in hand says so. A mix is thrown cell by cell (see Mixing). What lies on a place
// depends on nothing but the hand, the anchor or box, the seed and the place, so a stroke may come by as often as it
// likes. Places are side coordinates. Cost: a place takes a binary search among the parts.
#pragma once

#include <functional>

#include "core/document/InHand.h"
#include "core/document/Quilt.h"
#include "core/edit/LookAlikes.h"

namespace uq {

// The turns of a cell that chance may choose from: those that its sheet allows and that can be drawn exactly.
std::vector<Cell> turnsOf(const Quilt& quilt, const Grid& grid, Cell cell);

class Pattern {
 public:
  // `anchor` is where the grip of one copy lies.
  Pattern(const Quilt& quilt, const Grid& grid, const InHand& hand, SidePos anchor, std::uint64_t seed);
  // Fits the hand, a stretch, into a box of places, for which stretchFits must hold.
  void stretchOver(CellRect box) { box_ = box; }

  // The hand's layers: 0 is the landing layer's, then the others in turn.
  std::size_t layers() const { return blocks_.front().size(); }
  // What lies on a place; nothing where the hand leaves it as it is.
  std::optional<Laid> at(std::size_t layer, SidePos place) const;
  // Whether a cell is what lies on a place, or might with another seed.
  bool mayLie(std::size_t layer, SidePos place, Cell cell) const;
  // What lies on every place, where that is the same.
  std::optional<Laid> everywhere(std::size_t layer) const;

  // The places of the copy that a pointer is on. Of a stretch, of its box.
  std::vector<SidePos> copyUnder(SidePos pointer) const;

 private:
  struct Places;
  std::optional<Laid> found(const std::vector<Block::Part>& parts, SidePos at) const;
  std::optional<Laid> stretched(const std::vector<Block::Part>& parts, SidePos place) const;
  bool isMiddleAcross(SidePos place) const;
  bool isMiddleDown(SidePos place) const;
  bool isThrown(SidePos place) const;
  std::vector<int> lines(int at, int from, int size, int blockSize, int first, int last, int step,
                         std::uint32_t kind) const;

  InHand hand_;
  SidePos anchor_;
  std::uint64_t seed_;
  CellRect extent_;
  std::optional<CellRect> box_;
  std::vector<std::vector<Block>> blocks_;  // by turn, then layer; one turn where chance decides nothing
  std::vector<Cell> turns_;                 // of a hand that is one tile
  std::map<std::uint32_t, std::vector<Look>> looks_;  // by cell, of a stretch whose middle comes by chance
};

// How large a stretch can be, each way: at least, and where its middle is empty, at most.
struct StretchSizes {
  int least = 1;
  std::optional<int> most;
};
StretchSizes widthsOf(const InHand& stretch);
StretchSizes heightsOf(const InHand& stretch);
// "at least 2 × 1 cells": why a stretch cannot be that large; empty when it can.
std::string whyNoStretch(const InHand& stretch, int width, int height);

// Throws the members of a mix onto places, one after another: a place that was laid is never laid again.
class Mixing {
 public:
  Mixing(const Quilt& quilt, const Grid& grid, const InHand& mix, std::uint64_t seed);

  // What a throw needs to know of the place where it falls.
  struct Around {
    std::function<Cell(SidePos)> cell;  // what lies on the layer by now
    std::function<bool(SidePos)> free;  // whether a place may be laid
    bool atRim = false;
    std::vector<SidePos> beside;  // the places across the sides
  };
  // Calls `lay` for each place that the throw covers; none where it says that the place stays as it is.
  void throwAt(SidePos place, const Around& around, const std::function<void(SidePos, Laid)>& lay) const;

 private:
  InHand mix_;
  std::uint64_t seed_;
  std::map<std::uint32_t, std::vector<Cell>> turns_;  // by cell
};

}  // namespace uq
