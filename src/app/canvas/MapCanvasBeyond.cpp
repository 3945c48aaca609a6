// What of MapCanvas lies beyond the map's edges: maps that are sewn there.
#include "app/canvas/MapCanvas.h"

namespace uq {

bool MapCanvas::paintsBeyond() const {
  return session_ && !selects() && !pins() && !session_->desk().options.onlyThisMap && !hangs();
}

std::optional<CellPos> MapCanvas::reached(CellPos cell) const {
  if (map()->bounds.contains(cell) || edgeToLead(cell)) return cell;
  return paintsBeyond() && neighbours_->at(cell) ? std::optional(cell) : std::nullopt;
}

bool MapCanvas::openBeyond(CellPos at) {
  const auto patch = map() ? neighbours_->at(at) : std::nullopt;
  if (!patch || session_->inGesture()) return false;
  // The picture stays where it is: only what is worked on changes.
  MapView next = sight();
  const Plane there(next, map()->grid, neighbours_->placeOf(*patch));
  next.origin -= there.shift();
  session_->verbs().maps.goTo(patch->map);
  if (!map()) return true;
  shownMap_ = map()->id;
  look(keptInSight(next));
  return true;
}

void MapCanvas::noteBeyond(bool made) {
  const bool isBeyond = map() && !map()->bounds.contains(pressed_);
  madeBeyond_ = made && isBeyond ? std::optional(session_->work().undoLine().steps().back().number) : std::nullopt;
}

bool MapCanvas::openBeyondTwice(QPointF at) {
  if (!map() || !neighbours_->at(cellAt(at))) return false;
  // What the first press laid there was no stroke, but half of the way.
  const auto made = std::exchange(madeBeyond_, std::nullopt);
  const auto& steps = session_->work().undoLine().steps();
  if (made && !steps.empty() && steps.back().number == *made) session_->work().undo();
  return openBeyond(cellAt(at));
}

}  // namespace uq
