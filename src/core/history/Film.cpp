#include "core/history/Film.h"

#include <algorithm>

namespace uq {

namespace {

constexpr double kHeldInTheEnd = 0.1;  // of the film

Id mapOf(const Step& step) {
  const auto isMap = [](const PartChange& one) { return one.key.kind == PartKinds::numberOf<Map>(); };
  const auto changed = std::find_if(step.changes.begin(), step.changes.end(), isMap);
  if (!step.tab.empty() && std::any_of(step.changes.begin(), step.changes.end(), isMap)) return step.tab;
  return changed == step.changes.end() ? Id() : changed->key.id;
}

}  // namespace

std::vector<FilmState> filmOf(UndoLine line, Quilt now, std::size_t most, Progress* progress) {
  std::vector<FilmState> states;
  if (line.inGesture()) now = line.cancel();
  if (progress) progress->expect(static_cast<std::int64_t>(std::min(most, line.steps().size())));
  while (!line.steps().empty() && states.size() < most && !(progress && progress->isCancelled())) {
    const Step& newest = line.steps().back();
    states.push_back({now, newest.name, mapOf(newest)});
    const std::uint64_t before = line.steps().size() > 1 ? line.steps()[line.steps().size() - 2].number : 0;
    auto outcome = line.takeBack(line.planReturn(before), newest.tab, now);
    if (!outcome) break;
    now = std::move(outcome->quilt);
    if (progress) progress->step(1);
  }
  states.push_back({now, {}, states.empty() ? Id() : states.back().map});
  std::reverse(states.begin(), states.end());
  return states;
}

std::size_t stateAt(std::size_t states, double moment) {
  if (states == 0) return 0;
  const double at = moment / (1 - kHeldInTheEnd) * static_cast<double>(states);
  return std::min(states - 1, static_cast<std::size_t>(std::max(0.0, at)));
}

}  // namespace uq
