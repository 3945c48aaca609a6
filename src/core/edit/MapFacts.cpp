#include "core/edit/MapFacts.h"

#include "core/edit/ResizeMap.h"

#include <algorithm>

namespace uq {

namespace {

constexpr std::size_t kLongestTitle = 200;  // bytes

template <class Change>
Quilt changed(const Quilt& quilt, Id id, bool can, Change&& change) {
  const Map* map = quilt.map(id);
  if (!map || !can) return quilt;
  Map next = *map;
  change(next);
  return next == *map ? quilt : quilt.with(std::move(next));
}

bool canBe(PixelSize screen) {
  return screen.w >= 1 && screen.h >= 1 && screen.w <= kLargestScreen && screen.h <= kLargestScreen;
}

}  // namespace

Quilt withCloth(const Quilt& quilt, Id map, std::optional<Colour> cloth) {
  return changed(quilt, map, !cloth || *cloth <= 0xffffff, [&](Map& next) { next.cloth = cloth; });
}

Quilt withScreen(const Quilt& quilt, PixelSize screen) {
  if (!canBe(screen) || quilt.facts().screen == screen) return quilt;
  QuiltFacts facts = quilt.facts();
  facts.screen = screen;
  return quilt.with(std::move(facts));
}

Quilt withScreen(const Quilt& quilt, Id map, std::optional<PixelSize> screen) {
  return changed(quilt, map, !screen || canBe(*screen), [&](Map& next) { next.screen = screen; });
}

PixelSize screenOf(const Quilt& quilt, const Map& map) { return map.screen.value_or(quilt.facts().screen); }

Quilt withShownTimes(const Quilt& quilt, Id map, int times) {
  return changed(quilt, map, times >= 1 && times <= kMostShownTimes, [&](Map& next) { next.shownTimes = times; });
}

Quilt withSeen(const Quilt& quilt, Id map, Seen seen) {
  return changed(quilt, map, true, [&](Map& next) { next.seen = seen; });
}

Quilt withGrowing(const Quilt& quilt, Id map, bool grows) {
  return changed(quilt, map, true, [&](Map& next) { next.growsAsPainted = grows; });
}

Quilt withCameraFree(const Quilt& quilt, Id map, bool runsFree) {
  return changed(quilt, map, true, [&](Map& next) { next.cameraRunsFree = runsFree; });
}

Quilt withTitle(const Quilt& quilt, Id map, const std::string& title) {
  return changed(quilt, map, title.size() <= kLongestTitle, [&](Map& next) { next.title = title; });
}

Quilt withWalker(const Quilt& quilt, Id map, Id behind) {
  const bool known = behind.empty() || quilt.layer({map, behind});
  return changed(quilt, map, known, [&](Map& next) { next.walker = behind; });
}

DeadStrips deadStrips(const Map& map) {
  const CellRect used = usedBounds(map);
  if (used.empty()) return {};
  return {used.x0 - map.bounds.x0, map.bounds.x1 - used.x1, used.y0 - map.bounds.y0, map.bounds.y1 - used.y1};
}

}  // namespace uq
