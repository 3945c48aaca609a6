// LayerVerbs: what is done to the layers of the desk's map, each with one step, and which of them are worked on.
//
// A new or copied layer becomes the active one. `index` counts from the farthest. What is said of layers may be said by
// a held bar (see HeldBar.h). Threads: those of the Work.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/edit/ArrangeLayers.h"
#include "core/edit/Covered.h"
#include "core/edit/Folders.h"
#include "core/work/HeldBar.h"
#include "core/work/Work.h"

namespace uq {

// On which side of the Walker a layer comes that is added just where the Walker stands.
enum class BesideWalker { asUsual, inFront, behind };

class LayerVerbs {
 public:
  // Both must live as long.
  LayerVerbs(Work& work, HeldBar& bar) : work_(work), bar_(bar) {}

  // Makes a layer the active one, which is obeyed until something is taken.
  void choose(Id layer);
  // Chooses a layer beside the active one, or no longer.
  void alsoChoose(Id layer);
  // The active layer and those chosen beside it, farthest first.
  std::vector<LayerAt> chosen() const;

  // Adds a layer; where its place is at the Walker, the Walker comes to stand as said.
  void add(StackPlace place, BesideWalker beside = BesideWalker::asUsual);
  // Layers that show the pictures of sheets, each behind all others, or one at a place; one for pins.
  void hangBackdrops(const std::vector<Id>& sheets, std::size_t index = 0);
  void addPins(std::size_t index);
  void duplicate();
  void remove();
  void rename(Id layer, const std::string& name);
  // To the neighbouring place, `by` places nearer; or anywhere.
  void move(Id layer, int by);
  void move(Id layer, StackPlace to);
  // The active layer is made one with that behind it.
  void mergeDown();

  // Changes what is said of the chosen layers; `what` is said in the step's name.
  using Edit = std::function<Quilt(const Quilt&, LayerAt)>;
  void change(const std::string& what, const Edit& edit);
  void setNote(LayerAt layer, const std::string& note);
  // Draws the Walker right in front of a layer.
  void setWalker(Id behind);

  // What the tiles hide on the cells of the desk's map, which there must be.
  Hiding hiding() const;
  // Takes the cells of the active layer away that nearer ones hide.
  void stripCovered();
  // Makes what was worked out of these layers' cells a step of that name; refused where one of them takes no change.
  void takeCells(const std::string& name, const std::vector<LayerAt>& layers, Quilt after);

 private:
  const Layer* active() const { return work_.quilt().layer(work_.desk().activeAt()); }
  const Layer* here(Id layer) const { return work_.quilt().layer({work_.desk().map, layer}); }

  Work& work_;
  HeldBar& bar_;
};

}  // namespace uq
