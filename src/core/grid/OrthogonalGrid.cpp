#include "core/grid/OrthogonalGrid.h"

#include <cstdlib>

namespace uq {

CellPos OrthogonalGrid::cellAt(PixelPos at) const { return {floorDiv(at.x, w_), floorDiv(at.y, h_)}; }

PixelRect OrthogonalGrid::cellBox(CellPos cell) const { return {cell.x * w_, cell.y * h_, w_, h_}; }

std::vector<PixelPos> OrthogonalGrid::outline(CellPos cell) const {
  const PixelRect box = cellBox(cell);
  return {{box.x, box.y}, {box.right(), box.y}, {box.right(), box.bottom()}, {box.x, box.bottom()}};
}

PixelRect OrthogonalGrid::pixelBounds(CellRect cells) const {
  return {cells.x0 * w_, cells.y0 * h_, cells.width() * w_, cells.height() * h_};
}

CellRect OrthogonalGrid::cellsMeeting(PixelRect pixels) const {
  if (pixels.empty()) return {};
  return {floorDiv(pixels.x, w_), floorDiv(pixels.y, h_), ceilDiv(pixels.right(), w_), ceilDiv(pixels.bottom(), h_)};
}

PixelRect OrthogonalGrid::seat(CellPos cell, PixelSize size) const {
  const PixelRect box = cellBox(cell);
  return {box.x, box.bottom() - size.h, size.w, size.h};
}

void OrthogonalGrid::inDrawOrder(CellRect cells, const std::function<void(const DrawRow&)>& draw) const {
  for (int y = cells.y0; y < cells.y1; ++y) draw({{cells.x0, y}, 1, 0, cells.width()});
}

SidePos OrthogonalGrid::turned(SidePos offset, Turn turn) const {
  if (turn.mirror) offset.u = -offset.u;
  for (int step = 0; step < turn.steps; ++step) offset = {-offset.v, offset.u};
  return offset;
}

std::vector<SidePos> squareLine(SidePos to) {
  const int n = std::max(std::abs(to.u), std::abs(to.v));
  const auto along = [n](int d, int i) {
    const std::int64_t twice = 2 * std::int64_t{d} * i + n;
    return static_cast<int>(twice >= 0 ? twice / (2 * n) : -((2 * n - 1 - twice) / (2 * n)));
  };
  std::vector<SidePos> steps{{0, 0}};
  steps.reserve(static_cast<std::size_t>(n) + 1);
  for (int i = 1; i <= n; ++i) steps.push_back({along(to.u, i), along(to.v, i)});
  return steps;
}

std::vector<SidePos> squareSideLine(SidePos to) {
  const int across = std::abs(to.u);
  const int down = std::abs(to.v);
  std::vector<SidePos> steps{{0, 0}};
  steps.reserve(static_cast<std::size_t>(across) + static_cast<std::size_t>(down) + 1);
  for (int u = 0, v = 0; u < across || v < down;) {
    // Over the side whose middle lies nearer to the straight line.
    const bool goesAcross = (2 * std::int64_t{u} + 1) * down < (2 * std::int64_t{v} + 1) * across;
    (goesAcross ? u : v) += 1;
    steps.push_back({to.u < 0 ? -u : u, to.v < 0 ? -v : v});
  }
  return steps;
}

std::vector<CellPos> OrthogonalGrid::line(CellPos from, CellPos to) const {
  std::vector<CellPos> cells;
  for (const SidePos step : squareLine({to.x - from.x, to.y - from.y})) {
    cells.push_back({from.x + step.u, from.y + step.v});
  }
  return cells;
}

CellPos OrthogonalGrid::across(CellPos cell, int side) const {
  switch (side) {
    case 0: return {cell.x, cell.y - 1};
    case 1: return {cell.x + 1, cell.y};
    case 2: return {cell.x, cell.y + 1};
    default: return {cell.x - 1, cell.y};
  }
}

std::vector<PixelPos> OrthogonalGrid::perimeter(CellRect cells) const {
  const PixelRect all = pixelBounds(cells);
  return {{all.x, all.y}, {all.right(), all.y}, {all.right(), all.bottom()}, {all.x, all.bottom()}};
}

}  // namespace uq
