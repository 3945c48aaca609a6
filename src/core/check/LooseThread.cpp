#include "core/check/LooseThread.h"

#include "core/edit/Doorways.h"
#include "core/edit/Pins.h"
#include "core/edit/Rejoin.h"
#include "core/edit/Seams.h"
#include "core/edit/SizeFindings.h"
#include "core/edit/Standing.h"
#include "core/grid/Heading.h"

namespace uq {

namespace {

// The heading that somebody takes who arrives there and cannot face as was said.
Heading facingAt(const Quilt& quilt, PinAt at, Heading said) {
  const Map* map = quilt.map(at.map);
  const Pin* pin = quilt.pin(at);
  if (!map || !pin) return said;
  return Standing(quilt, *map).facing(middleOf(*pin, map->bounds), said);
}

Quilt mendedDoorway(const Quilt& quilt, Doorway doorway, LooseThread::Mend mend) {
  if (mend == LooseThread::Mend::takeWayOut) return quilt.without<Doorway>(doorway.id);
  if (mend == LooseThread::Mend::makeWayBack) {
    doorway.back = proposedReturn(quilt, doorway.from);
  } else {
    doorway.arriving = facingAt(quilt, doorway.to, doorway.arriving);
    if (doorway.back) doorway.back = facingAt(quilt, doorway.from, *doorway.back);
  }
  return quilt.with(std::move(doorway));
}

}  // namespace

Quilt mended(const Quilt& quilt, const LooseThread& thread) {
  switch (thread.mend) {
    case LooseThread::Mend::nothing: return quilt;
    case LooseThread::Mend::makeWayBack:
    case LooseThread::Mend::turnArrival:
    case LooseThread::Mend::takeWayOut: {
      const Doorway* doorway = quilt.listed<Doorway>(thread.about);
      return doorway ? mendedDoorway(quilt, *doorway, thread.mend) : quilt;
    }
    case LooseThread::Mend::openSeam: return ripped(quilt, {thread.about});
    case LooseThread::Mend::renumber: return withPinRenumbered(quilt, {thread.map, thread.about});
    case LooseThread::Mend::joinAnew: {
      const Map* map = quilt.map(thread.map);
      const LayerAt at{thread.map, thread.about};
      return map && quilt.layer(at) ? quilt.with(at, rejoined(quilt, at, CellSet(map->bounds)).cells) : quilt;
    }
    case LooseThread::Mend::agreeSizes: {
      const Map* map = quilt.map(thread.map);
      if (!map) return quilt;
      for (SizeFinding& one : sizeFindings(quilt, *map)) {
        if (one.text == thread.text) return std::move(one.mended);
      }
      return quilt;
    }
  }
  return quilt;
}

void SeamSight::forEachPair(const std::function<void(CellPos here, CellPos there, int side)>& visit) const {
  const auto grid = makeGrid(map.grid);
  const int sides = static_cast<int>(headingsOf(map.grid.kind).size());
  const CellRect beyond{other.bounds.x0 + by.x, other.bounds.y0 + by.y, other.bounds.x1 + by.x, other.bounds.y1 + by.y};
  const CellRect strip = beyond.grown(1).intersected(map.bounds);
  for (int y = strip.y0; y < strip.y1; ++y) {
    for (int x = strip.x0; x < strip.x1; ++x) {
      for (int side = 0; side < sides; ++side) {
        const CellPos next = grid->across({x, y}, side);
        if (beyond.contains(next) && !map.bounds.contains(next)) visit({x, y}, {next.x - by.x, next.y - by.y}, side);
      }
    }
  }
}

std::string SeamSight::called(int cells) const {
  return std::to_string(cells) + (cells == 1 ? " cell" : " cells") + " at the stitch " + seamText(quilt, seam);
}

}  // namespace uq
