// Board: the cloth on which all maps lie as pieces, and where each of them lies.
//
// A piece lies where its map says, in map pixels of the cloth: that is where map pixel 0, 0 lies, so a map that grows
// to the left or the top does not move. Maps that are sewn together lie together, as their seams say, around the one of
// them that says where it lies (the first by id); they move together. Pieces of maps that say nothing are laid out below
// those that do. Nothing here touches a cell. Cost: a few comparisons for each pair of pieces at most. Threads: any.
#pragma once

#include <optional>
#include <set>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

struct Piece {
  Id map;             // or the chalk piece
  PixelPos at;        // of map pixel 0, 0, on the cloth
  PixelRect covers;   // the box around its outline, on the cloth
  bool chalk = false;  // it is no map yet
  friend bool operator==(const Piece&, const Piece&) = default;
};

// All pieces, in the order of the maps, then those of chalk. A later map lies on an earlier one, chalk under all maps.
std::vector<Piece> piecesOf(const Quilt& quilt);
// The box around them all; empty where there is none.
PixelRect boxAround(const std::vector<Piece>& pieces);

// The topmost piece, of chalk too, whose real outline holds a pixel of the cloth.
std::optional<Id> pieceAt(const Quilt& quilt, const std::vector<Piece>& pieces, PixelPos at);
// Those whose boxes meet a rectangle of the cloth.
std::set<Id> piecesIn(const std::vector<Piece>& pieces, const PixelRect& frame);
// The nearest piece that lies in a direction, (±1, 0) or (0, ±1), from another one.
std::optional<Id> pieceBeside(const std::vector<Piece>& pieces, Id from, int dx, int dy);

// A doorway as it lies on the cloth, a button at each end.
struct LaidCord {
  struct End {
    PinAt pin;
    int number = 0;              // of the pin
    std::optional<PixelPos> at;  // the middle of its cell, on the cloth; nothing where its piece or pin is not there
  };
  Id doorway;
  End from;
  End to;
};
// All of them, in the order of the doorways.
std::vector<LaidCord> laidCords(const Quilt& quilt, const std::vector<Piece>& pieces);

// By how much pieces come to lie that are moved by `by`, and are drawn to edges of others that are no farther than
// `reach` pixels off; and the edges that meet then, as lines on the cloth.
struct BoardLine {
  PixelPos from;
  PixelPos to;
};
struct Aligned {
  PixelPos by;
  std::vector<BoardLine> lines;
};
Aligned aligned(const std::vector<Piece>& pieces, const std::set<Id>& moved, PixelPos by, int reach);

// These pieces, and all that are sewn to one of them.
std::set<Id> withSewn(const Quilt& quilt, const std::set<Id>& maps);

// With these pieces moved, and what is sewn to them; no farther than kFarthestOnBoard. Those that are `fixed` stay, and nothing is said of their
// maps.
Quilt withPiecesMoved(const Quilt& quilt, const std::set<Id>& maps, PixelPos by, const std::set<Id>& fixed = {});
// With each piece saying where it lies, as it does now.
Quilt withPlacesSaid(const Quilt& quilt, const std::set<Id>& fixed = {});
// With all pieces laid in rows, without overlaps, in the order of the maps; sewn ones as one.
Quilt withTidyBoard(const Quilt& quilt, const std::set<Id>& fixed = {});

}  // namespace uq
