// SwatchBookParts: what the files of SwatchBook share.
#pragma once

#include <algorithm>
#include <map>
#include <memory>
#include <optional>
#include <vector>

#include "raster/RunSketch.h"
#include "raster/Swatch.h"
#include "raster/SwatchBook.h"
#include "raster/SwatchWorkers.h"

namespace uq {

// How long a swatch may take to draw: measured on a slow machine, dense layers, with tiles and with colours.
std::chrono::nanoseconds likelyCost(const Map& map, const Run& run, ViewScale scale, const QRect& device);

// Calls f for each place whose swatch meets a device rectangle.
template <class F>
void forEachPlace(const QRect& device, F&& f) {
  if (device.isEmpty()) return;
  const int right = floorDiv(device.right(), kSwatchSide);
  const int bottom = floorDiv(device.bottom(), kSwatchSide);
  for (int y = floorDiv(device.top(), kSwatchSide); y <= bottom; ++y) {
    for (int x = floorDiv(device.left(), kSwatchSide); x <= right; ++x) f(std::pair(x, y));
  }
}

struct SwatchBook::Level {
  std::map<Place, Swatch> swatches;
};

struct SwatchBook::RunBook {
  explicit RunBook(MadeFrom from) : made(std::move(from)) {}

  MadeFrom made;  // what the swatches show, apart from their dirty rectangles
  const Run& run() const { return made.run(); }
  const Map& map() const { return made.map(); }

  std::map<double, Level> levels;  // by zoom
  RunSketch sketch;
};

struct SwatchBook::MapBook {
  std::vector<std::unique_ptr<RunBook>> runs;
  std::vector<RunBook*> shown;
  std::vector<Run> runsShown;
  // Of the map as it was shown last, what is not in its runs.
  struct Around {
    CellRect bounds;
    GridShape grid;
    PixelSize screen;
    std::optional<Colour> cloth;
    friend bool operator==(const Around&, const Around&) = default;
  };
  std::optional<Around> around;
};

}  // namespace uq
