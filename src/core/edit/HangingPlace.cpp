#include "core/edit/HangingPlace.h"

#include <cstdlib>

#include "core/edit/MapFacts.h"

namespace uq {

namespace {

struct Line {
  int at;  // where the picture's first pixel would lie
  const char* name;
};

// Moves `place` to the nearest of the lines in reach, and tells its name.
std::string drawnTo(int& place, int reach, std::initializer_list<Line> lines) {
  const Line* nearest = nullptr;
  for (const Line& line : lines) {
    const int off = std::abs(line.at - place);
    if (off <= reach && (!nearest || off < std::abs(nearest->at - place))) nearest = &line;
  }
  if (!nearest) return {};
  place = nearest->at;
  return nearest->name;
}

}  // namespace

HangingPlace hangingPlace(const Quilt& quilt, LayerAt at, PixelPos wished, int reach) {
  HangingPlace place{wished, {}};
  const Layer* layer = quilt.layer(at);
  if (!layer || layer->kind != LayerKind::backdrop) return place;
  const Map& map = *quilt.map(at.map);
  const auto size = hungSize(quilt, map, layer->backdrop);
  if (!size) return place;
  const PixelRect all = makeGrid(map.grid)->pixelBounds(map.bounds);
  const int rise = map.riseOf(*layer);
  int x = wished.x;
  int y = wished.y - rise;
  place.at = drawnTo(
      x, reach,
      {{all.x, "west edge"}, {all.right() - size->w, "east edge"}, {all.x + (all.w - size->w) / 2, "middle across"}});
  const std::string down = drawnTo(
      y, reach,
      {{all.y, "upper edge"}, {all.bottom() - size->h, "lower edge"}, {all.y + (all.h - size->h) / 2, "middle down"}});
  if (!place.at.empty() && !down.empty()) place.at += ", ";
  place.at += down;
  place.offset = {x, y + rise};
  return place;
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

}  // namespace uq
