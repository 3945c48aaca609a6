// InHand: what the next stroke lays, and in which manner.
//
// One block for the layer that the stroke lands on, and others for layers nearer or farther. As it is, the block is
// repeated at multiples of its size; as a stretch, its ends are laid once and its middle as often as there is room; as
// a mix, every cell takes one of its members by chance. A stamp is something in hand that was kept (see Stamp.h).
//
// A value; equal things in hand lay equal cells for the same seed.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/Id.h"
#include "core/cells/Block.h"

namespace uq {

enum class Manner { asItIs, stretch, mix };

// The name of a manner in files, and back.
std::string_view mannerName(Manner manner);
std::optional<Manner> mannerFromName(std::string_view name);

// What is laid beside the landing layer.
struct HandPart {
  std::string role;  // the layer's for which it was made; may be empty
  int above = 1;     // how many layers nearer than the landing layer; farther where negative
  Block block;       // places count from the same grip
  bool onlyRole = false;  // it goes to a layer of the role, made where there is none, and to no other
  friend bool operator==(const HandPart&, const HandPart&) = default;
};

// How many columns and rows at each end of a block are laid once. What is between them repeats; where nothing is, the
// block cannot grow that way.
struct StretchEnds {
  int left = 0;
  int right = 0;
  int top = 0;
  int bottom = 0;
  int stepAcross = 0;     // cells from one repeat of the middle to the next, ≤ kMostStretchStep; 0: its own size;
                          // more leaves gaps in which cells stay as they are
  int stepDown = 0;       // likewise
  bool shuffles = false;  // the middle's columns and rows come by chance, not in turn
  friend bool operator==(const StretchEnds&, const StretchEnds&) = default;
};

inline constexpr int kMostStretchStep = 99;

// Ends of one where the block has three columns or more, with two only the first; rows likewise.
StretchEnds usualEnds(const Block& block);
// The ends cut to what the block has.
StretchEnds fittingEnds(StretchEnds ends, CellRect extent);

// One outcome of a mix: a tile, a block, or nothing (which leaves the cell as it is).
struct MixMember {
  Block block;
  int weight = 1;            // 1 .. kMostWeight
  bool keepsOffRim = false;  // never where the shape ends
  friend bool operator==(const MixMember&, const MixMember&) = default;
};
inline constexpr int kMostWeight = 100;
inline constexpr std::size_t kMostMembers = 256;

struct InHand {
  Block block;
  std::vector<HandPart> others;
  GridKind grid = GridKind::orthogonal;  // on which it was put together
  std::string role;                      // of the layer for which `block` was made; may be empty
  Manner manner = Manner::asItIs;
  StretchEnds ends;                // counts with Manner::stretch
  std::vector<MixMember> members;  // likewise with Manner::mix
  bool neverAlike = false;         // of a mix: never the same two side by side
  bool turnsByChance = false;      // each cell, or each copy of a block, comes turned
  Id stamp;                        // of which it was taken; empty: of none
  Id edging;                       // it is a material of that edging, and `block` the tile by which it is seen; empty: it is not
  int material = 0;                // by its place in the edging's list; counts with an edging
  int rows = 0;                    // of what it brings along and grows: how high a wall's face is; 0: as the hem says

  InHand() = default;
  InHand(Block held) : block(std::move(held)) {}  // NOLINT: a block is a thing in hand
  InHand(Block held, GridKind on) : block(std::move(held)), grid(on) {}

  bool empty() const { return block.empty() && others.empty(); }
  // Whether it is laid with its neighbours mended.
  bool joins() const { return !edging.empty(); }
  // The block for the landing layer.
  const std::vector<Block::Part>& parts() const { return block.parts(); }
  CellRect extent() const { return block.extent(); }
  // Around the blocks for all layers.
  CellRect wholeExtent() const;
  // Whether it is one tile and nothing more.
  bool isOneTile() const { return !joins() && others.empty() && block.parts().size() == 1 && manner != Manner::mix; }
  // Whether chance decides anything.
  bool byChance() const;

  // The same thing in another manner, with the ends or members that suggest themselves where it has none yet.
  InHand inManner(Manner other) const;
  // The same grown or cut to other columns and rows, around all its blocks; not for mixes. See Block::fitted.
  InHand fittedTo(CellRect extent) const;
  // With one more outcome: what was held and what is gathered make a mix. A member gathered again weighs one more.
  InHand gathering(const Block& more) const;
  // Every block in it changed by `change`.
  template <class Change>
  InHand changed(Change&& change) const {
    InHand next = *this;
    next.block = change(block);
    for (HandPart& part : next.others) part.block = change(part.block);
    for (MixMember& member : next.members) member.block = change(member.block);
    return next;
  }
  // Calls visit(Block) for each block that it may lay.
  template <class Visit>
  void forEachBlock(Visit&& visit) const {
    visit(block);
    for (const HandPart& part : others) visit(part.block);
    for (const MixMember& member : members) visit(member.block);
  }
  // Calls visit(Cell) for each cell that it may lay.
  template <class Visit>
  void forEachCell(Visit&& visit) const {
    forEachBlock([&visit](const Block& one) {
      for (const Block::Part& part : one.parts()) visit(part.cell);
    });
  }

  friend bool operator==(const InHand&, const InHand&) = default;
};

}  // namespace uq
