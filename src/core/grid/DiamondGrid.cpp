#include "core/grid/DiamondGrid.h"

#include <utility>

#include "core/grid/OrthogonalGrid.h"

namespace uq {

namespace {

int floorDiv64(std::int64_t a, std::int64_t b) { return static_cast<int>(a / b - (a % b < 0 ? 1 : 0)); }

}  // namespace

SidePos turnedDiamond(SidePos offset, Turn turn) {
  if (turn.mirror) std::swap(offset.u, offset.v);
  for (int step = 0; step < turn.steps; ++step) offset = {-offset.v, offset.u};
  return offset;
}

CellPos DiamondGrid::cellAt(PixelPos at) const {
  const std::int64_t across = (2 * std::int64_t{at.x} + 1) * h_;
  const std::int64_t down = (2 * std::int64_t{at.y} + 1) * w_;
  const std::int64_t both = 2 * std::int64_t{w_} * h_;
  return {floorDiv64(across + down, both), floorDiv64(down - across, both)};
}

PixelRect DiamondGrid::cellBox(CellPos cell) const {
  return {(cell.x - cell.y - 1) * (w_ / 2), (cell.x + cell.y) * (h_ / 2), w_, h_};
}

std::vector<PixelPos> DiamondGrid::outline(CellPos cell) const {
  return perimeter({cell.x, cell.y, cell.x + 1, cell.y + 1});
}

CellPos DiamondGrid::across(CellPos cell, int side) const {
  switch (side) {
    case 0: return {cell.x, cell.y - 1};
    case 1: return {cell.x + 1, cell.y};
    case 2: return {cell.x, cell.y + 1};
    default: return {cell.x - 1, cell.y};
  }
}

std::vector<PixelPos> DiamondGrid::perimeter(CellRect cells) const {
  const auto corner = [this](int x, int y) { return PixelPos{(x - y) * (w_ / 2), (x + y) * (h_ / 2)}; };
  return {corner(cells.x0, cells.y0), corner(cells.x1, cells.y0), corner(cells.x1, cells.y1),
          corner(cells.x0, cells.y1)};
}

PixelRect DiamondGrid::pixelBounds(CellRect cells) const {
  if (cells.empty()) return {};
  return {(cells.x0 - cells.y1) * (w_ / 2), (cells.x0 + cells.y0) * (h_ / 2), (cells.width() + cells.height()) * (w_ / 2),
          (cells.width() + cells.height()) * (h_ / 2)};
}

CellRect DiamondGrid::cellsMeeting(PixelRect pixels) const {
  if (pixels.empty()) return {};
  // d = x − y and s = x + y of the cells whose boxes meet the rectangle.
  const int d0 = floorDiv(pixels.x, w_ / 2);
  const int d1 = ceilDiv(pixels.right(), w_ / 2);
  const int s0 = floorDiv(pixels.y, h_ / 2) - 1;
  const int s1 = ceilDiv(pixels.bottom(), h_ / 2) - 1;
  return {ceilDiv(d0 + s0, 2), ceilDiv(s0 - d1, 2), floorDiv(d1 + s1, 2) + 1, floorDiv(s1 - d0, 2) + 1};
}

PixelRect DiamondGrid::seat(CellPos cell, PixelSize size) const {
  const PixelRect box = cellBox(cell);
  return {box.x + floorDiv(box.w - size.w, 2), box.bottom() - size.h, size.w, size.h};
}

void DiamondGrid::inDrawOrder(CellRect cells, const std::function<void(const DrawRow&)>& draw) const {
  // Along each line of equal height, from the left: x rises and y falls.
  for (int sum = cells.x0 + cells.y0; sum <= cells.x1 + cells.y1 - 2; ++sum) {
    const int first = std::max(cells.x0, sum - (cells.y1 - 1));
    const int last = std::min(cells.x1 - 1, sum - cells.y0);
    if (first <= last) draw({{first, sum - first}, 1, -1, last - first + 1});
  }
}

SidePos DiamondGrid::turned(SidePos offset, Turn turn) const { return turnedDiamond(offset, turn); }

std::vector<CellPos> DiamondGrid::line(CellPos from, CellPos to) const {
  std::vector<CellPos> cells;
  for (const SidePos step : squareLine({to.x - from.x, to.y - from.y})) {
    cells.push_back({from.x + step.u, from.y + step.v});
  }
  return cells;
}

}  // namespace uq
