#include "core/sheets/FitsHere.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>

namespace uq {

namespace {

constexpr int kDeep = 3;             // pixels from a side that are looked at
constexpr int kMostDifference = 56;  // of a pixel, summed over its channels, on the average of all that are compared

using SideColours = std::array<std::uint32_t, kSideSamples>;

// The sides of the cells of a grid: where their samples lie, and which side of which neighbour faces them.
class Sides {
 public:
  explicit Sides(const Grid& grid) : grid_(grid) {
    const PixelRect box = grid.cellBox({0, 0});
    const std::vector<PixelPos> corners = grid.outline({0, 0});
    const double middleX = box.x + box.w / 2.0;
    const double middleY = box.y + box.h / 2.0;
    for (std::size_t i = 0; i < corners.size(); ++i) {
      const PixelPos a = corners[i];
      const PixelPos b = corners[(i + 1) % corners.size()];
      const double length = std::hypot((a.x + b.x) / 2.0 - middleX, (a.y + b.y) / 2.0 - middleY);
      const double inX = (middleX - (a.x + b.x) / 2.0) / length;
      const double inY = (middleY - (a.y + b.y) / 2.0) / length;
      // The pixels from the side inwards that are averaged; fewer in small cells.
      const int deep = std::clamp(static_cast<int>(length / 4), 1, kDeep);
      std::array<std::vector<PixelPos>, kSideSamples> samples;
      for (int k = 0; k < kSideSamples; ++k) {
        for (int along = 0; along < deep; ++along) {
          const double t = (k + (along + 0.5) / deep) / kSideSamples;
          for (int in = 0; in < deep; ++in) {
            samples[static_cast<std::size_t>(k)].push_back(
                {static_cast<int>(std::floor(a.x + (b.x - a.x) * t + (in + 0.5) * inX)),
                 static_cast<int>(std::floor(a.y + (b.y - a.y) * t + (in + 0.5) * inY))});
          }
        }
      }
      samples_.push_back(samples);
    }
  }

  std::size_t count() const { return samples_.size(); }
  std::size_t facing(std::size_t side) const { return (side + count() / 2) % count(); }

  // What a tile shows along a side, drawn on the cell 0, 0 with that turn.
  SideColours of(const TilePixels& tile, Turn turn, const Stance& stance, std::size_t side) const {
    PixelSize size{tile.part.w, tile.part.h};
    if (turn.steps % 2 == 1) std::swap(size.w, size.h);
    const PixelRect place = standing(grid_, {0, 0}, size, stance);
    SideColours colours{};
    for (std::size_t k = 0; k < kSideSamples; ++k) {
      std::array<unsigned, 4> sums{};
      for (const PixelPos sample : samples_[side][k])
        add(sums, pixelOf(tile, turn, size, {sample.x - place.x, sample.y - place.y}));
      const auto count = static_cast<unsigned>(samples_[side][k].size());
      for (unsigned c = 0; c < 4; ++c) colours[k] |= (sums[c] / count) << (8 * c);
    }
    return colours;
  }

 private:
  static void add(std::array<unsigned, 4>& sums, std::uint32_t pixel) {
    for (unsigned c = 0; c < 4; ++c) sums[c] += pixel >> (8 * c) & 0xff;
  }

  // The pixel that a turned tile of that size shows; see-through beside it.
  static std::uint32_t pixelOf(const TilePixels& tile, Turn turn, PixelSize size, PixelPos at) {
    if (at.x < 0 || at.y < 0 || at.x >= size.w || at.y >= size.h) return 0;
    // Back from the turned picture to the straight one: a quarter turn to the right took (x, y) to (h - 1 - y, x).
    for (int step = turn.steps % 4; step > 0; --step) {
      at = {at.y, size.w - 1 - at.x};
      std::swap(size.w, size.h);
    }
    if (turn.mirror) at.x = size.w - 1 - at.x;
    return tile.picture.at(tile.part.x + at.x, tile.part.y + at.y);
  }

  const Grid& grid_;
  std::vector<std::array<std::vector<PixelPos>, kSideSamples>> samples_;
};

int differenceOf(const SideColours& one, const SideColours& other) {
  int sum = 0;
  for (std::size_t k = 0; k < kSideSamples; ++k) {
    const std::uint32_t a = one[k];
    const std::uint32_t b = other[kSideSamples - 1 - k];
    for (int shift = 0; shift < 32; shift += 8) {
      sum += std::abs(static_cast<int>(a >> shift & 0xff) - static_cast<int>(b >> shift & 0xff));
    }
  }
  return sum;
}

bool isClear(const SideColours& colours) {
  return std::all_of(colours.begin(), colours.end(), [](std::uint32_t c) { return alphaOf(c) < 8; });
}

}  // namespace

std::vector<SheetHit> tilesThatFit(const Quilt& quilt, const std::vector<Id>& sheets, const Map& map,
                                   const TilesLayer& layer, CellPos at, const PixelsOf& pixels, std::size_t most) {
  const auto grid = makeGrid(map.grid);
  const Sides sides(*grid);
  std::vector<std::pair<std::size_t, SideColours>> wanted;
  bool anySolid = false;
  for (std::size_t side = 0; side < sides.count(); ++side) {
    const CellPos beside = grid->across(at, static_cast<int>(side));
    const Cell cell = map.bounds.contains(beside) ? layer.cells.at(beside) : Cell();
    if (cell.empty()) continue;
    const std::optional<TilePixels> tile = pixels(cell.tile());
    const Sheet* sheet = quilt.sheetAt(cell.tile().slot);
    if (!tile || !sheet) continue;
    Turn turn = grid->pictureTurn(cell.turn());
    const Stance stance = turnedStance(*grid, sheet->stanceOf(cell.tile().number), turn);
    if (sheet->shows(cell.tile().number).mirrored) turn.mirror = !turn.mirror;
    wanted.emplace_back(side, sides.of(*tile, turn, stance, sides.facing(side)));
    anySolid = anySolid || !isClear(wanted.back().second);
  }
  // Neighbours that show nothing at their sides join whatever shows nothing there, which helps nobody.
  if (!anySolid) return {};
  std::vector<std::pair<int, SheetHit>> found;
  for (const Id id : sheets) {
    const Sheet* sheet = quilt.sheet(id);
    const auto slot = quilt.slots().find(id);
    if (!sheet || !slot) continue;
    const auto count = static_cast<std::uint32_t>(sheet->tileCount());
    for (std::uint32_t cell = 0; cell < count; ++cell) {
      const std::uint32_t number = sheet->numberAt(cell);
      if (!sheet->offers(number)) continue;
      const std::optional<TilePixels> tile = pixels({*slot, number});
      if (!tile) continue;
      int difference = 0;
      const int limit = kMostDifference * kSideSamples * static_cast<int>(wanted.size());
      for (const auto& [side, colours] : wanted) {
        difference += differenceOf(sides.of(*tile, {}, sheet->stanceOf(number), side), colours);
        if (difference > limit) break;
      }
      if (difference <= limit) found.push_back({difference, {id, number}});
    }
  }
  std::stable_sort(found.begin(), found.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  std::vector<SheetHit> hits;
  for (const auto& [difference, hit] : found) {
    if (hits.size() < most) hits.push_back(hit);
  }
  return hits;
}

}  // namespace uq
