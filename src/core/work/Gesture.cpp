#include "core/work/Gesture.h"

#include "core/edit/Rejoin.h"

namespace uq {

namespace {

constexpr std::int64_t kMostJoinedWhileMoving = 1 << 14;  // cells

}  // namespace

Gesture Gesture::painting(Stroke stroke, Moves moves) {
  Gesture gesture(Kind::stroke);
  gesture.stroke_.emplace(std::move(stroke));
  gesture.moves_ = std::move(moves);
  return gesture;
}

Gesture Gesture::moving(Quilt before, SelectedCells cells, bool joins) {
  Gesture gesture(Kind::move);
  gesture.now_ = before;
  gesture.before_ = std::move(before);
  gesture.cells_ = std::move(cells);
  gesture.joins_ = joins;
  gesture.moved_ = gesture.now_;
  return gesture;
}

Gesture Gesture::changing(Quilt before) {
  Gesture gesture(Kind::change);
  gesture.now_ = before;
  gesture.before_ = std::move(before);
  return gesture;
}

void Gesture::follow(const StrokeMove& move) {
  if (!stroke_) return;
  stroke_->follow(move);
  moves_.push_back(move);
}

void Gesture::refit(CellRect box) {
  if (stroke_) stroke_->refit(box);
}

void Gesture::relay(Stroke stroke) {
  if (stroke_) stroke_ = std::move(stroke);
}

void Gesture::moveBy(SidePos by) {
  const Map* map = kind_ == Kind::move && !cells_.layers.empty() ? before_.map(cells_.layers.front().at.map) : nullptr;
  if (!map) return;
  now_ = moved_ = moveCells(before_, cells_, by);
  if (joins_) now_ = joinedWhereChanged(before_, moved_, map->id, kMostJoinedWhileMoving);
  selected_ = movedSelection(*map, cells_.all, by);
}

void Gesture::become(Quilt now) {
  if (kind_ == Kind::change) now_ = std::move(now);
}

void Gesture::finish() {
  if (stroke_) stroke_->finish();
  if (joins_ && !cells_.layers.empty()) now_ = joinedWhereChanged(before_, moved_, cells_.layers.front().at.map);
}

}  // namespace uq
