// Landing: the layer that a stroke goes to, chosen so that nobody paints on the wrong one unseen.
//
// The active layer receives. Taking something moves the active layer to that thing's role, once. A layer that was added
// or chosen by hand (W, S, its card) is obeyed to the letter, take after take, as long as what is taken fits it; else the
// desk says in words where it goes and why. Otherwise what does not cover its cell never wipes out what does, nor does a
// block laid with the brush wipe out other things: the stroke goes to the next nearer layer on which it harms nothing,
// or to a new one that its first press makes. The further parts of a thing that lies on several layers go to layers of their role, else as
// many layers away as they were.
#pragma once

#include <functional>
#include <string>

#include "core/base/Id.h"
#include "core/document/Desk.h"

namespace uq {

// Whether a tile covers the ground of its cell, by its pixels; whoever decodes pictures knows.
using Covers = std::function<bool(TileRef)>;

// Whether all that a hand may lay on the landing layer covers.
bool covers(const InHand& hand, const Covers& covers);

struct LandingAsk {
  LayerAt active;
  const InHand& hand;
  bool obeys = false;      // the active layer to the letter
  bool takesAway = false;  // never makes a layer, and harms nothing it should not
  std::set<Id> shut;       // layers that are hidden or locked
  Covers covers;           // empty: everything does
  std::function<bool(const Layer&)> wipes{};  // whether a block would wipe out other things there; may be empty
};

struct Landing {
  Quilt quilt;                  // with the layers that the press makes
  std::vector<LayerAt> layers;  // by part of the hand, the landing layer first; an empty id where there is none
  std::string keeps;            // the layer that is kept from harm by landing nearer; empty when none is
  bool makesLayer = false;      // the landing layer is a new one
  std::string refusal;          // why nothing can be laid, in words; empty when it can
};

// Where a stroke over these cells lands. Cost: a look at what lies on them, only where the hand does not cover.
Landing landingOf(const Quilt& quilt, const LandingAsk& ask, const CellSet& cells, IdSource ids);

// The role of a layer that a thing belongs on: the one it was made for, else where its tiles are at home (TileHome, learnt
// first on that map; of a block by its first, middle and last one, if they agree and the map has such a layer), else by
// its looks: ground where it covers, in front where its Footing is overhead, else things.
std::string roleOf(const Quilt& quilt, Id map, const InHand& hand, const Covers& covers);

// Whether a layer chosen by hand keeps what is taken: what covers its cell fits layers for ground, what does not fits all
// others, and what lies there already fits. Cost: at most a look at all that lies on the layer, until one is found.
bool fitsLayer(const Layer& layer, const InHand& hand, const Covers& covers);

// The desk with the layer active on which a thing is to land. One that was chosen by hand stays while the thing fits it.
// Else a layer of the thing's role: of several the one on the level of the active layer, then the
// nearest to it in the Stack. The same where there is none.
Desk landingFor(Desk desk, const Quilt& quilt, const InHand& hand, const Covers& covers);

// The desk with the next layer towards the viewer (`steps` > 0) or away from it (< 0) active, that a stroke can land
// on; the same desk at the end of the stack.
Desk withNearerLayer(const Desk& desk, const Quilt& quilt, int steps);
// The desk with a layer active that somebody chose: it is obeyed until something is taken.
Desk withChosenLayer(Desk desk, LayerAt layer);

// Why a stroke would do nothing now, in words for the person at the pointer; empty when it would land.
std::string whyNoStroke(const Desk& desk, const Quilt& quilt, bool takesAway);

}  // namespace uq
