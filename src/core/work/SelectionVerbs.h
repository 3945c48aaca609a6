// SelectionVerbs: selecting, and what can be done with the selected cells of the active layer, or of all seen ones
// (ToolOptions::allLayers); and with single cells of any layer, and all cells of a tile.
//
// Each that changes the quilt is one step; nothing happens, and the reason is said, where a layer takes no change.
// Threads: those of the Work.
#pragma once

#include <functional>
#include <optional>

#include "core/edit/SwapTiles.h"
#include "core/edit/Turned.h"
#include "core/work/Work.h"

namespace uq {

// How cells change the selection: they become it, come to it, or leave it.
enum class Selecting { anew, more, less };

class SelectionVerbs {
 public:
  // `work` must live as long.
  explicit SelectionVerbs(Work& work) : work_(work) {}

  void select(const CellSet& cells, Selecting how);
  void selectAll();
  // Selects the laid stamp around a cell of the active layer, or else of any that is seen, as one; false where none is.
  bool selectStampAt(CellPos at);
  void grow();
  void shrink();
  void invert();

  // The cells that are the same as one, as the options of Select say.
  CellSet alike(CellPos at) const;
  // Those of a box between two cells, as boxes lie on the desk; empty where that is more than can be held at once.
  CellSet boxed(CellPos from, CellPos to) const;

  // What copying holds; nothing, and why is said, where nothing lies there or too much.
  std::optional<InHand> copied() const;
  void remove();
  // The step of cutting, without copying.
  void cut();
  void nudge(SidePos by);
  void turn(Turning turning);
  // Lays what is in hand on the selected cells.
  void fill();
  // Moves the selected cells to the next layer nearer (1) or farther (-1), or to any; the layer becomes the active one.
  void toLayer(int steps);
  void toLayer(Id layer);

  // Moving the selected cells, from press to release, which is Work::finish().
  void beginMove();
  void moveBy(SidePos by);

  // Single cells of any layer; each one step.
  void removeCell(Id layer, CellPos at);
  void moveCell(Id layer, CellPos at, Id to);
  // One tile becomes another; one step. How many cells that were.
  std::int64_t swap(TileRef from, TileRef to, SwapIn in);
  SwapAsk swapAsk(TileRef from, TileRef to, SwapIn in) const;

 private:
  bool joins() const;  // what is moved, turned or taken away joins what it meets
  // Whether a set of all cells of the map can be worked with; says why not.
  bool mayHoldAll() const;
  void step(std::string_view verb, const std::function<Quilt()>& edit, std::optional<CellSet> selection = {});

  Work& work_;
  std::optional<TurnGrip> turnGrip_;  // of the last turn
};

}  // namespace uq
