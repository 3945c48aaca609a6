// Verbs: all that a person can do with a Work, parted by what it is done to. They keep next to nothing of their own: what
// they change is the Work's.
#pragma once

#include "core/work/EdgeDrag.h"
#include "core/work/FolderVerbs.h"
#include "core/work/HandVerbs.h"
#include "core/work/HeldBar.h"
#include "core/work/LayerVerbs.h"
#include "core/work/LinesDrag.h"
#include "core/work/MapVerbs.h"
#include "core/work/PinVerbs.h"
#include "core/work/SelectionVerbs.h"
#include "core/work/StampVerbs.h"
#include "core/work/Strokes.h"

namespace uq {

struct Verbs {
  // `work` must live as long, and stay where it is.
  explicit Verbs(Work& work)
      : strokes(work),
        hand(work),
        selection(work),
        bar(work),
        layers(work, bar),
        folders(work, bar, layers),
        maps(work),
        edge(work),
        lines(work, maps),
        stamps(work),
        pins(work) {}
  Verbs(const Verbs&) = delete;
  Verbs& operator=(const Verbs&) = delete;

  Strokes strokes;
  HandVerbs hand;
  SelectionVerbs selection;
  HeldBar bar;
  LayerVerbs layers;
  FolderVerbs folders;
  MapVerbs maps;
  EdgeDrag edge;
  LinesDrag lines;
  StampVerbs stamps;
  PinVerbs pins;
};

}  // namespace uq
