#include "core/sheets/CellPatches.h"

#include <algorithm>
#include <cmath>

namespace uq {

namespace {

constexpr double kTowardsCorner = 0.80;  // of the way from the middle: where a corner's patch lies
constexpr double kTowardsBlunt = 0.89;   // the same of hexagons, whose corners are blunt
constexpr double kHalfway = 0.49;        // where a band along the sides does not reach, and a path that runs elsewhere neither
constexpr double kTowardsSide = 0.86;    // and a side's
constexpr unsigned kClear = 100;         // alpha below which nothing is seen

bool isEmpty(const TilePixels& tile) {
  for (int y = tile.part.y; y < tile.part.bottom(); ++y) {
    for (int x = tile.part.x; x < tile.part.right(); ++x) {
      if (alphaOf(tile.picture.at(x, y)) >= kClear) return false;
    }
  }
  return true;
}

}  // namespace

CellPatches::CellPatches(const GridShape& shape) : grid_(makeGrid(shape)), cell_(shape.cell) {
  const PixelRect box = grid_->cellBox({0, 0});
  middle_ = {box.w / 2.0, box.h / 2.0};
  std::vector<Point> outline;
  for (const PixelPos at : grid_->outline({0, 0})) outline.push_back({double(at.x - box.x), double(at.y - box.y)});
  const auto towards = [&](Point to, double share) { return Point{middle_.x + (to.x - middle_.x) * share, middle_.y + (to.y - middle_.y) * share}; };
  const bool isBlunt = outline.size() == 6;
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Point next = outline[(i + 1) % outline.size()];
    corners_.push_back(towards(outline[i], isBlunt ? kTowardsBlunt : kTowardsCorner));
    halfway_.push_back(towards(outline[i], kHalfway));
    sides_.push_back(towards({(outline[i].x + next.x) / 2, (outline[i].y + next.y) / 2}, kTowardsSide));
  }
  radius_ = std::max(1.0, std::min(box.w, box.h) / (isBlunt ? 18.0 : 11.0));
}

CellPatches::Seen CellPatches::at(const TilePixels& tile) const {
  Seen seen;
  seen.middle = patch(tile, middle_, 1.4);
  for (const Point spot : corners_) seen.corners.push_back(patch(tile, spot, 1));
  for (const Point spot : halfway_) seen.halfway.push_back(patch(tile, spot, 0.7));
  for (const Point spot : sides_) seen.sides.push_back(patch(tile, spot, 1));
  seen.empty = isEmpty(tile);
  return seen;
}

// The cell's box on the picture: pictures stand on the bottom of their cell, slanted ones in the middle of it.
PixelPos CellPatches::corner(const PixelRect& part) const {
  const bool slanted = grid_->shape().kind != GridKind::orthogonal;
  return {part.x + (slanted ? (part.w - cell_.w) / 2 : 0), part.y + part.h - cell_.h};
}

CellPatch CellPatches::patch(const TilePixels& tile, Point spot, double wider) const {
  const PixelRect box = grid_->cellBox({0, 0});
  const PixelPos from = corner(tile.part);
  const double radius = radius_ * wider;
  std::array<std::vector<int>, 3> channels;
  int clear = 0;
  for (int y = static_cast<int>(std::floor(spot.y - radius)); y <= static_cast<int>(std::ceil(spot.y + radius)); ++y) {
    for (int x = static_cast<int>(std::floor(spot.x - radius)); x <= static_cast<int>(std::ceil(spot.x + radius)); ++x) {
      const PixelPos on{from.x + x, from.y + y};
      const bool isIn = x >= 0 && y >= 0 && x < cell_.w && y < cell_.h && on.x >= tile.part.x && on.y >= tile.part.y && on.x < tile.part.right() &&
                        on.y < tile.part.bottom() && grid_->cellAt({box.x + x, box.y + y}) == CellPos{0, 0};
      if (!isIn) continue;
      const std::uint32_t pixel = tile.picture.at(on.x, on.y);
      const unsigned alpha = alphaOf(pixel);
      if (alpha < kClear) {
        ++clear;
        continue;
      }
      for (std::size_t i = 0; i < 3; ++i) channels[i].push_back(static_cast<int>((pixel >> (16 - 8 * i) & 255) * 255 / alpha));
    }
  }
  CellPatch shown;
  const auto drawn = static_cast<int>(channels[0].size());
  shown.clear = drawn == 0 || clear > drawn;
  if (shown.clear) return shown;
  for (std::size_t i = 0; i < 3; ++i) {
    auto middle = channels[i].begin() + static_cast<std::ptrdiff_t>(channels[i].size() / 2);
    std::nth_element(channels[i].begin(), middle, channels[i].end());
    shown.rgb[i] = *middle;
  }
  return shown;
}

}  // namespace uq
