// HandVerbs: what is done to what is in hand — taking, gathering, turning, pasting and putting it down again.
//
// None but setPartner and takeCells, where it cuts, makes a step: the hand belongs to the desk. What cannot be done is
// refused in words. Threads: those of the Work.
#pragma once

#include <optional>

#include "core/edit/Facings.h"
#include "core/work/Work.h"

namespace uq {

class HandVerbs {
 public:
  // `work` must live as long.
  explicit HandVerbs(Work& work) : work_(work) {}

  // Takes into the hand, readies Brush, and goes to the layer where such a thing belongs.
  void take(InHand thing);
  // A block that was put together for the desk's map.
  void take(Block block) { take(InHand(std::move(block), gridHere())); }
  // Takes the tile of one cell of a layer and goes to that layer.
  void takeCell(Id layer, CellPos at);
  // Takes what lies on these cells: of the active layer, or of all that are seen; `cuts` empties them, in one step.
  void takeCells(const CellSet& cells, bool allSeen, bool cuts);
  // What is selected, of all layers that are seen; it may be laid anywhere then.
  void takeSelected();
  // Takes a copy of the selected cells beside what was copied, to be laid once and put down.
  void duplicateSelected();

  // Adds to what is in hand: the tiles then are a mix.
  void gather(const Block& more);
  // Changes what is in hand to something that is still the same thing: turned, in another manner.
  void change(InHand changed);
  void turn(Turning turning);
  void straighten();
  // A material is no manner of laying its tile: another manner lays the tile by which it is seen.
  void setManner(Manner manner);
  // The material that the tile in hand shows; nothing happens where it joins by none.
  void setJoins();
  void setChance(bool on);
  // How high what a material brings along is laid; 1 .. kMostHemRows.
  void setRows(int rows);

  // By how many map pixels the next stroke lies above its layer; 0 again when another layer is chosen or something else
  // is taken.
  void setLift(int lift);

  // Takes into the hand what was copied; what was held before comes back with dropPaste.
  void paste(InHand thing);
  bool holdsPaste() const { return heldBefore_.has_value(); }
  void dropPaste();
  // What Esc does: drops the gesture, else what is awaited, else the paste, else the selection; else chooses Select.
  void dropWork();

  // The other sides of the tile in hand: which tile shows it turned by so many steps to the right. Each is one step.
  // While one is awaited, the next tile that is taken becomes it instead of coming into the hand.
  void setPartner(int side, std::optional<TileRef> partner);
  void awaitPartner(std::optional<int> side);
  std::optional<int> awaitedPartner() const { return awaitedPartner_; }

 private:
  GridKind gridHere() const { return work_.map() ? work_.map()->grid.kind : GridKind::orthogonal; }

  Work& work_;
  std::optional<InHand> heldBefore_;  // what a paste put aside
  std::optional<int> awaitedPartner_;
  // An Esc that found nothing to drop, and what was so then.
  struct Escaped {
    std::uint64_t gestures = 0;
    Tool tool = Tool::brush;
    Id map;
    friend bool operator==(const Escaped&, const Escaped&) = default;
  };
  std::optional<Escaped> escaped_;
};

}  // namespace uq
