// Cord: the way that is being made on the Board, from a pin to where it is dropped.
//
// While a cord is in hand, what the pointer is over opens in a small look of its own, at a zoom on which cells can be hit:
// the cell or pin under the pointer is where it will be dropped. On bare cloth a new room is made there. Without the mouse
// the cord goes from piece to piece, and its cell by the keys. Knows places and words; the Board paints and presses.
// Threads: the interface's.
#pragma once

#include <QPainter>
#include <optional>

#include "app/canvas/MapView.h"
#include "app/workroom/Session.h"
#include "core/edit/Board.h"

namespace uq {

class Cord {
 public:
  // Where it would be dropped.
  struct Target {
    Id map;        // empty: on bare cloth
    CellPos cell;  // of that map
    Id pin;        // that is there; empty: none
    PixelPos at;   // on the cloth, in map pixels
  };

  Cord(Session& session, PinAt from) : session_(session), from_(from) {}

  const PinAt& from() const { return from_; }
  // The pointer is over a place of the cloth, in map pixels; `hit`: the piece there. One that is no map is bare cloth.
  void pointAt(const std::vector<Piece>& pieces, std::optional<Id> hit, PixelPos at);
  // By keys: onto the middle of a piece, and then by a cell.
  void pointAt(const Piece& piece);
  void stepBy(int dx, int dy);
  const std::optional<Target>& target() const { return target_; }
  bool both() const { return both_; }
  void setBoth(bool both) { both_ = both; }
  // Another heading on arrival than the proposed one: the grid's next, or the one before.
  void turn(int by);
  Heading heading() const;

  // What dropping it does, in words.
  QString words() const;
  // Drops it; the doorway, empty where it was refused. `floor`: what a new room's ground is laid with.
  Id drop(Cell floor);

  // The line from its pin to the pointer, and the look at what is there, beside the pointer within `room`.
  void paint(QPainter& painter, const MapView& view, const std::vector<Piece>& pieces, const QRectF& room) const;

 private:
  Session& session_;
  PinAt from_;
  std::optional<Target> target_;
  bool both_ = true;
  int turned_ = 0;
};

}  // namespace uq
