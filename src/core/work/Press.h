// Press: what a button that goes down on the map means, before anything is done; and where its drag would begin.
//
// A function of the work and of where and how is pressed. The canvas asks it for every press and does what it says, so
// that no widget knows the rules of the tools.
// Cost: a few comparisons. Threads: those of the Work.
#pragma once

#include <optional>

#include "core/work/SelectionVerbs.h"

namespace uq {

struct Press {
  enum class Button { left, right, middle };

  Button button = Button::left;
  bool ctrl = false;
  bool shift = false;
  bool space = false;      // is held down: the hand moves the view
  bool exchanged = false;  // the user wants right to take away, and Ctrl+left to take
  bool onHandle = false;   // of the stretch that was laid last
  bool onFrame = false;    // the edge of the player's screen
  bool onEdge = false;     // of the map, or right outside it
  bool onRuler = false;    // where rows and columns come in or go
  std::optional<CellPos> cell;  // only on the map, or where a stroke goes over a stitch
};

enum class PressMeans {
  nothing,
  look,          // the view is moved
  refit,         // an end of the stretch is dragged
  frame,         // the player's screen is moved
  edge,          // the map is resized
  lines,         // rows or columns come in or go
  take,          // into the hand; with Select a click looks what lies there
  hang,          // the active backdrop is moved
  select,        // cells are spanned
  moveSelected,  // the selected cells are dragged
  pins,          // placed, chosen, moved or followed
  lay,
  takeAway
};

PressMeans meaningOf(const Work& work, const Press& press);

// How cells that are spanned change the selection.
Selecting selectingBy(const Press& press);

// Whether a stroke takes away whatever the button: Erase is chosen, or Ctrl is down and means that.
bool takesAway(const Work& work, bool ctrl, bool exchanged);

// The layer that a drag would move: a backdrop that is active, seen and not locked; nullptr where there is none.
const Layer* hangingLayer(const Work& work);

}  // namespace uq
