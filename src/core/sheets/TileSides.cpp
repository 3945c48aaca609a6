#include "core/sheets/TileSides.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>

namespace uq {

namespace {

constexpr int kDeep = 3;  // pixels from a side that are looked at
constexpr unsigned kSolid = 128;
constexpr unsigned kClear = 8;

// The pixel that a turned tile of that size shows; see-through beside it.
std::uint32_t pixelOf(const TilePixels& tile, Turn turn, PixelSize size, PixelPos at) {
  if (at.x < 0 || at.y < 0 || at.x >= size.w || at.y >= size.h) return 0;
  // Back from the turned picture to the straight one: a quarter turn to the right took (x, y) to (h - 1 - y, x).
  for (int step = turn.steps % 4; step > 0; --step) {
    at = {at.y, size.w - 1 - at.x};
    std::swap(size.w, size.h);
  }
  if (turn.mirror) at.x = size.w - 1 - at.x;
  return tile.picture.at(tile.part.x + at.x, tile.part.y + at.y);
}

std::uint32_t averaged(const TilePixels& tile, Turn turn, PixelRect place, const std::vector<PixelPos>& patch) {
  std::array<unsigned, 4> sums{};
  for (const PixelPos at : patch) {
    const std::uint32_t pixel = pixelOf(tile, turn, {place.w, place.h}, {at.x - place.x, at.y - place.y});
    for (unsigned c = 0; c < 4; ++c) sums[c] += pixel >> (8 * c) & 0xff;
  }
  std::uint32_t average = 0;
  for (unsigned c = 0; c < 4; ++c) average |= (sums[c] / static_cast<unsigned>(patch.size())) << (8 * c);
  return average;
}

}  // namespace

bool TileSide::isClear() const {
  return std::all_of(patches.begin(), patches.end(), [](std::uint32_t c) { return alphaOf(c) < kClear; });
}

int differenceOf(const TileSide& one, const TileSide& facing) {
  int sum = 0;
  for (std::size_t k = 0; k < kSideSamples; ++k) {
    const std::uint32_t a = one.patches[k];
    const std::uint32_t b = facing.patches[kSideSamples - 1 - k];
    for (int shift = 0; shift < 32; shift += 8) {
      sum += std::abs(static_cast<int>(a >> shift & 0xff) - static_cast<int>(b >> shift & 0xff));
    }
  }
  return sum;
}

TileSides::TileSides(Quilt quilt, const GridShape& shape, PixelsOf pixels)
    : quilt_(std::move(quilt)), grid_(makeGrid(shape)), pixels_(std::move(pixels)) {
  const PixelRect box = grid_->cellBox({0, 0});
  const std::vector<PixelPos> corners = grid_->outline({0, 0});
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
    Places places;
    for (int k = 0; k < kSideSamples; ++k) {
      for (int along = 0; along < deep; ++along) {
        const double t = (k + (along + 0.5) / deep) / kSideSamples;
        const auto at = [&](double in) {
          return PixelPos{static_cast<int>(std::floor(a.x + (b.x - a.x) * t + in * inX)),
                          static_cast<int>(std::floor(a.y + (b.y - a.y) * t + in * inY))};
        };
        for (int in = 0; in < deep; ++in) {
          places.inside[static_cast<std::size_t>(k)].push_back(at(in + 0.5));
          places.outside[static_cast<std::size_t>(k)].push_back(at(-in - 0.5));
        }
      }
    }
    places_.push_back(std::move(places));
  }
  nothing_.resize(places_.size());
}

std::vector<TileSide> TileSides::lookedAt(Cell cell) const {
  const std::optional<TilePixels> tile = pixels_(cell.tile());
  const Sheet* sheet = quilt_.sheetAt(cell.tile().slot);
  if (!tile || !sheet) return {};
  Turn turn = grid_->drawnTurn(cell.turn());
  const Stance stance = turnedStance(*grid_, sheet->stanceOf(cell.tile().number), turn);
  if (sheet->shows(cell.tile().number).mirrored) turn.mirror = !turn.mirror;
  PixelSize size{tile->part.w, tile->part.h};
  if (turn.steps % 2 == 1) std::swap(size.w, size.h);
  const PixelRect place = standing(*grid_, {0, 0}, size, stance);
  std::vector<TileSide> sides(places_.size());
  for (std::size_t i = 0; i < places_.size(); ++i) {
    for (std::size_t k = 0; k < kSideSamples; ++k) {
      const std::uint32_t patch = averaged(*tile, turn, place, places_[i].inside[k]);
      sides[i].patches[k] = patch;
      if (alphaOf(patch) >= kSolid) ++sides[i].solid;
      if (alphaOf(averaged(*tile, turn, place, places_[i].outside[k])) >= kSolid) sides[i].goesOn = true;
    }
  }
  return sides;
}

const TileSide* TileSides::of(Cell cell, int side) {
  const auto index = static_cast<std::size_t>(side);
  if (cell.empty()) return &nothing_[index];
  auto known = known_.find(cell.bits());
  if (known == known_.end()) known = known_.emplace(cell.bits(), lookedAt(cell)).first;
  return known->second.empty() ? nullptr : &known->second[index];
}

}  // namespace uq
