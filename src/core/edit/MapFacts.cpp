#include "core/edit/MapFacts.h"

#include <algorithm>
#include <cmath>

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

PixelPos cameraNear(const Quilt& quilt, const Map& map, PixelPos wished) {
  if (map.cameraRunsFree) return wished;
  const PixelRect all = makeGrid(map.grid)->pixelBounds(map.bounds);
  const PixelSize screen = screenOf(quilt, map);
  const auto near = [](int at, int from, int to, int size) {
    return to - from <= size ? from + (to - from - size) / 2 : std::clamp(at, from, to - size);
  };
  return {near(wished.x, all.x, all.right(), screen.w), near(wished.y, all.y, all.bottom(), screen.h)};
}

PixelPos cameraOnItsWay(const PixelRect& map, PixelSize screen, int way) {
  const int wide = std::max(0, map.w - screen.w);
  const int high = std::max(0, map.h - screen.h);
  const int round = 2 * (wide + high);
  int left = round > 0 ? way % round : 0;
  if (left < wide) return {map.x + left, map.y};
  left -= wide;
  if (left < high) return {map.x + wide, map.y + left};
  left -= high;
  if (left < wide) return {map.x + wide - left, map.y + high};
  return {map.x, map.y + high - (left - wide)};
}

std::optional<PixelSize> hungSize(const Quilt& quilt, const Map& map, const Backdrop& backdrop) {
  const Sheet* sheet = quilt.sheet(backdrop.sheet);
  if (!sheet || sheet->pictureSize.w <= 0 || sheet->pictureSize.h <= 0) return std::nullopt;
  double high = sheet->pictureSize.h;
  if (backdrop.fit == Backdrop::Fit::map) high = makeGrid(map.grid)->pixelBounds(map.bounds).h;
  if (backdrop.fit == Backdrop::Fit::screen) high = screenOf(quilt, map).h;
  const double times = high / sheet->pictureSize.h * backdrop.shownAt / 100;
  const auto rounded = [](double value) { return std::max(1, static_cast<int>(std::lround(value))); };
  return PixelSize{rounded(sheet->pictureSize.w * times), rounded(sheet->pictureSize.h * times)};
}

DeadStrips deadStrips(const Map& map) {
  CellRect used;
  for (const Shared<Layer>& layer : map.layers) {
    const CellRect all = layer->cells.usedBounds();
    if (all.intersected(map.bounds) == all) {
      used = used.united(all);
      continue;
    }
    // Cells in the seam allowance do not count.
    layer->cells.forEachPainted(map.bounds, [&](CellPos at, Cell) {
      used = used.united({at.x, at.y, at.x + 1, at.y + 1});
    });
  }
  if (used.empty()) return {};
  return {used.x0 - map.bounds.x0, map.bounds.x1 - used.x1, used.y0 - map.bounds.y0, map.bounds.y1 - used.y1};
}

std::vector<BackdropGap> backdropGaps(const Quilt& quilt, const Map& map) {
  std::vector<BackdropGap> gaps;
  const PixelSize screen = screenOf(quilt, map);
  const PixelRect all = makeGrid(map.grid)->pixelBounds(map.bounds);
  // Where the camera stops; a camera that runs free may go anywhere, and nobody can ask for a picture there.
  const PixelPos first = cameraNear(quilt, map, {all.x, all.y});
  const PixelPos last = cameraNear(quilt, map, {all.right(), all.bottom()});
  for (const Shared<Layer>& layer : map.layers) {
    const auto size = layer->kind == LayerKind::backdrop ? hungSize(quilt, map, layer->backdrop) : std::nullopt;
    if (!size || layer->backdrop.repeatsAcross) continue;
    const int plane = map.planeOf(layer.read()).x;
    const auto add = [&](int pixels, const char* does, const char* where) {
      if (pixels > 0) gaps.push_back({layer->id, pixels, layer->name + does + std::to_string(pixels) + " px " + where});
    };
    // Of the screen: where the picture begins and ends at both ends of the camera's way.
    add(plane + scrolledBy(layer->parallax, first).x - first.x, " begins ", "after the west edge");
    add(screen.w - (plane + size->w + scrolledBy(layer->parallax, last).x - last.x), " ends ", "before the east edge");
  }
  return gaps;
}

}  // namespace uq
