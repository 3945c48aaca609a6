#include "core/work/LinesDrag.h"

#include <algorithm>
#include <cstdlib>

namespace uq {

CellLines spannedLines(const RulerPlace& from, int to, int even, CellRect bounds) {
  const bool columns = from.which == CellLines::Which::columns;
  const int first = columns ? bounds.x0 : bounds.y0;
  const int end = columns ? bounds.x1 : bounds.y1;
  const auto evened = [even](int count) { return (count + even - 1) / even * even; };
  if (!from.removes) return {from.which, from.at, evened(std::max(1, std::abs(to - from.at)))};
  int begin = std::clamp(std::min(from.at, to), first, end - 1);
  const int last = std::clamp(std::max(from.at, to), first, end - 1);
  const int count = std::min(evened(last + 1 - begin), end - first);
  begin = std::min(begin, end - count);
  return {from.which, begin, -count};
}

void LinesDrag::point(const std::optional<RulerPlace>& at, bool oneByOne) {
  if (isHeld()) return;
  held_ = false;
  const bool known =
      from_ == at && map_ == work_.desk().map && only_ == linesLayer(work_.desk()) && oneByOne_ == oneByOne;
  if (known && (!at || (countedMap_ && work_.map() && countedMap_->revision.is(work_.map()->revision)))) return;
  from_ = at;
  oneByOne_ = oneByOne;
  if (!from_ || !work_.map()) return drop();
  map_ = work_.desk().map;
  only_ = linesLayer(work_.desk());
  countedMap_ = *work_.map();
  Map counted = *countedMap_;
  if (!only_.empty()) std::erase_if(counted.layers, [&](const Shared<Layer>& one) { return one->id != only_; });
  count_.emplace(std::move(counted));
  to_ = from_->at;
  span();
}

void LinesDrag::dragTo(int at, bool oneByOne) {
  if (!isHeld() || (to_ == at && oneByOne_ == oneByOne)) return;
  to_ = at;
  oneByOne_ = oneByOne;
  span();
}

void LinesDrag::span() {
  const int even = oneByOne_ ? 1 : evenLines(countedMap_->grid.kind, from_->which);
  lines_ = spannedLines(*from_, to_, even, countedMap_->bounds);
  painted_ = lines_.count < 0 ? count_->in(lines_.within(countedMap_->bounds)) : 0;
}

void LinesDrag::leave() {
  const auto lines = isHeld() ? this->lines() : std::nullopt;
  drop();
  if (lines) maps_.changeLines(*lines);
}

void LinesDrag::changeSelected(CellLines::Which which, bool remove) {
  const CellRect all = work_.desk().selection().bounds();
  if (!work_.map() || all.empty()) return work_.refuse("Nothing is selected");
  const bool columns = which == CellLines::Which::columns;
  const int begin = columns ? all.x0 : all.y0;
  const int end = columns ? all.x1 : all.y1;
  maps_.changeLines(spannedLines({which, remove, begin}, remove ? end - 1 : end,
                                 evenLines(work_.map()->grid.kind, which), work_.map()->bounds));
}

void LinesDrag::drop() {
  held_ = false;
  from_.reset();
  countedMap_.reset();
  count_.reset();
  painted_ = 0;
}

std::optional<CellLines> LinesDrag::lines() const {
  return from_ && countedMap_ && work_.desk().map == map_ ? std::optional(lines_) : std::nullopt;
}

bool LinesDrag::shifts() const {
  return lines() && lines_.count % evenLines(countedMap_->grid.kind, lines_.which) != 0;
}

std::string LinesDrag::refusal() const { return lines() ? maps_.whyNoLines(lines_) : std::string(); }

}  // namespace uq
