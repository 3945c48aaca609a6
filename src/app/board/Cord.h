// Cord: the way that is being made on the Board, from a pin to where it is dropped.
//
// While a cord is in hand, what the pointer is over opens in a small look of its own, at a zoom on which cells can be hit:
// the cell or pin under the pointer is where it will be dropped. On bare cloth a new room is made there. Without the mouse
// the cord goes from piece to piece, and its cell by the keys. One end of a doorway that is there is moved likewise. Knows places and words; the Board paints and presses.
// Threads: the interface's.
#pragma once

#include <QPainter>
#include <optional>

#include "app/canvas/CellLook.h"
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
  // One end of a doorway that is there, taken from its pin; the cord hangs at the other one.
  Cord(Session& session, const Doorway& doorway, PinAt end) : session_(session), from_(doorway.beyond(end)), moves_(doorway.id), end_(end) {}

  const PinAt& from() const { return from_; }
  bool movesEnd() const { return !moves_.empty(); }
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
  // What the cord hangs on is there still.
  bool isHeld() const;
  // Drops it; the doorway, empty where it was refused. `floor`: what a new room's ground is laid with.
  Id drop(Cell floor);

  // The line from its pin to the pointer, and the look at what is there, beside the pointer within `room`.
  void paint(QPainter& painter, const MapView& view, const std::vector<Piece>& pieces, const QRectF& room);

 private:
  Session& session_;
  PinAt from_;
  Id moves_;   // the doorway of which one end is moved; empty: a new one is made
  PinAt end_;  // that end
  std::optional<Target> target_;
  bool both_ = true;
  int turned_ = 0;
  CellLook look_;
};

}  // namespace uq
