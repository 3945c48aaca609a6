#include "art/Hexes.h"

#include <algorithm>
#include <cmath>

namespace uq::art {

Hex::Hex(Pixels& pixels, const GridShape& shape)
    : pixels_(pixels), grid_(makeGrid(shape)), top_(pixels.height() - shape.cell.h) {
  const PixelRect cell = grid_->cellBox({0, 0});
  for (const PixelPos at : grid_->outline({0, 0})) {
    corners_.push_back({static_cast<double>(at.x - cell.x), static_cast<double>(at.y - cell.y + top_)});
  }
}

bool Hex::owns(int x, int y) const {
  const PixelRect cell = grid_->cellBox({0, 0});
  return grid_->cellAt({cell.x + x, cell.y + y - top_}) == CellPos{0, 0};
}

double Hex::from(int side, int x, int y) const {
  const Spot& a = corners_[static_cast<std::size_t>(side)];
  const Spot& b = corners_[static_cast<std::size_t>((side + 1) % 6)];
  const double dx = b.x - a.x;
  const double dy = b.y - a.y;
  return (dx * (y + 0.5 - a.y) - dy * (x + 0.5 - a.x)) / std::hypot(dx, dy);
}

double Hex::fromSides(unsigned mask, int x, int y) const {
  double nearest = 1000;
  for (int side = 0; side < 6; ++side) {
    if (mask >> side & 1) nearest = std::min(nearest, from(side, x, y));
  }
  return nearest;
}

Hex::Spot Hex::middle() const {
  const PixelSize size = grid_->shape().cell;
  return {size.w / 2.0, top_ + size.h / 2.0};
}

Hex::Spot Hex::middleOf(int side) const {
  if (side < 0) return middle();
  const Spot& a = corners_[static_cast<std::size_t>(side)];
  const Spot& b = corners_[static_cast<std::size_t>((side + 1) % 6)];
  return {(a.x + b.x) / 2, (a.y + b.y) / 2};
}

void Hex::fill(const std::function<Ink(int, int)>& colour) const {
  for (int y = 0; y < pixels_.height(); ++y) {
    for (int x = 0; x < pixels_.width(); ++x) {
      if (!owns(x, y)) continue;
      const Ink ink = colour(x, y);
      if (ink != Ink::none) pixels_.dot(x, y, ink);
    }
  }
}

void Hex::way(int first, int last, double width, const std::function<Ink(int, int, double)>& colour) const {
  // A curve that leaves each side at right angles: a quadratic one about the middle.
  const Spot a = middleOf(first);
  const Spot b = middleOf(last);
  const Spot m = middle();
  std::vector<Spot> curve;
  for (int i = 0; i <= 48; ++i) {
    const double t = i / 48.0;
    const double s = 1 - t;
    if (first < 0 || last < 0) {
      curve.push_back({a.x * s + b.x * t, a.y * s + b.y * t});
    } else {
      curve.push_back({s * s * a.x + 2 * s * t * m.x + t * t * b.x, s * s * a.y + 2 * s * t * m.y + t * t * b.y});
    }
  }
  fill([&](int x, int y) {
    double best = width;
    double across = 0;
    for (std::size_t i = 0; i + 1 < curve.size(); ++i) {
      const double dx = curve[i + 1].x - curve[i].x;
      const double dy = curve[i + 1].y - curve[i].y;
      const double length = std::hypot(dx, dy);
      if (length < 1e-9) continue;
      const double px = x + 0.5 - curve[i].x;
      const double py = y + 0.5 - curve[i].y;
      const double along = std::clamp((px * dx + py * dy) / (length * length), 0.0, 1.0);
      const double distance = std::hypot(px - along * dx, py - along * dy);
      if (distance >= best) continue;
      best = distance;
      across = (dx * py - dy * px) < 0 ? -distance : distance;
    }
    return best < width / 2 ? colour(x, y, across) : Ink::none;
  });
}

unsigned openSides(CellPos at, CellRect bounds, const std::set<CellPos>& cells,
                   const std::function<CellPos(CellPos, int)>& beyond) {
  unsigned sides = 0;
  for (int side = 0; side < 6; ++side) {
    const CellPos next = beyond(at, side);
    if (bounds.contains(next) && !cells.contains(next)) sides |= 1u << side;
  }
  return sides;
}

int sideTowards(const Grid& grid, CellPos from, CellPos to) {
  for (int side = 0; side < grid.turnOrder(); ++side) {
    if (grid.across(from, side) == to) return side;
  }
  return -1;
}

}  // namespace uq::art
