#include "core/edit/Camera.h"

#include <algorithm>
#include <cmath>

#include "core/edit/HangingPlace.h"
#include "core/edit/MapFacts.h"

namespace uq {

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
