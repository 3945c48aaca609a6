#include "core/grid/PlanGrid.h"

#include <cmath>

namespace uq {

namespace {

GridShape slanted(GridShape shape) {
  shape.plan = false;
  return shape;
}

}  // namespace

int planSide(PixelSize cell) {
  return std::max(2, 2 * static_cast<int>(std::lround(std::sqrt(cell.w * cell.h / 2.0) / 2)));
}

PlanGrid::PlanGrid(const GridShape& shape)
    : Grid(shape), slanted_(makeGrid(slanted(shape))), side_(planSide(shape.cell)) {}

CellPos PlanGrid::cellAt(PixelPos at) const { return fromSide({floorDiv(at.x, side_), floorDiv(at.y, side_)}); }

PixelRect PlanGrid::cellBox(CellPos cell) const {
  const SidePos at = toSide(cell);
  return {at.u * side_, at.v * side_, side_, side_};
}

std::vector<PixelPos> PlanGrid::outline(CellPos cell) const {
  const PixelRect box = cellBox(cell);
  return {{box.x, box.y}, {box.right(), box.y}, {box.right(), box.bottom()}, {box.x, box.bottom()}};
}

CellPos PlanGrid::stepped(CellPos cell, int dx, int dy) const { return fromSide(toSide(cell) + SidePos{dx, dy}); }

std::vector<PixelPos> PlanGrid::perimeter(CellRect cells) const {
  if (cells.empty()) return {};
  // Along the outermost cells as the slanted grid has them, by their left, upper, right and lower corners.
  std::vector<PixelPos> points;
  const auto add = [&](int x, int y, int corner) {
    const PixelPos at = outline({x, y})[static_cast<std::size_t>(corner)];
    if (points.empty() || !(points.back() == at)) points.push_back(at);
  };
  const int right = cells.x1 - 1;
  const int last = cells.y1 - 1;
  if (shape().kind == GridKind::diamond) {
    add(cells.x0, cells.y0, 0);
    add(right, cells.y0, 1);
    add(right, last, 2);
    add(cells.x0, last, 3);
    return points;
  }
  for (int x = cells.x0; x <= right; ++x) {
    add(x, cells.y0, 3);
    add(x, cells.y0, 0);
  }
  for (int y = cells.y0; y <= last; ++y) add(right, y, 1);
  for (int x = right; x >= cells.x0; --x) {
    add(x, last, 1);
    add(x, last, 2);
  }
  for (int y = last; y >= cells.y0; --y) add(cells.x0, y, 3);
  if (points.size() > 1 && points.back() == points.front()) points.pop_back();
  return points;
}

Grid::Lattice PlanGrid::lattice() const {
  // What one column and two rows of the slanted grid are in side coordinates.
  const SidePos origin = toSide({0, 0});
  const SidePos column = toSide({1, 0}) - origin;
  const SidePos rows = toSide({0, 2}) - origin;
  const double s = side_;
  return {origin.u * s, origin.v * s, column.u * s, column.v * s, rows.u * s / 2, rows.v * s / 2};
}

PixelRect PlanGrid::pixelBounds(CellRect cells) const {
  if (cells.empty()) return {};
  PixelRect bounds;
  // Both ways run along columns and rows, so the farthest cells lie in the corners; of shifted rows, in two rows each.
  for (const int y : {cells.y0, std::min(cells.y0 + 1, cells.y1 - 1), std::max(cells.y1 - 2, cells.y0), cells.y1 - 1}) {
    for (const int x : {cells.x0, cells.x1 - 1}) bounds = bounds.united(cellBox({x, y}));
  }
  return bounds;
}

CellRect PlanGrid::cellsMeeting(PixelRect pixels) const {
  if (pixels.empty()) return {};
  const int u0 = floorDiv(pixels.x, side_);
  const int v0 = floorDiv(pixels.y, side_);
  const int u1 = ceilDiv(pixels.right(), side_) - 1;
  const int v1 = ceilDiv(pixels.bottom(), side_) - 1;
  CellRect cells;
  for (const int u : {u0, u1}) {
    for (const int v : {v0, v1}) {
      const CellPos corner = fromSide({u, v});
      cells = cells.united({corner.x, corner.y, corner.x + 1, corner.y + 1});
    }
  }
  // A shifted row may reach half a cell farther than the corners.
  return shape().kind == GridKind::staggered ? CellRect{cells.x0 - 1, cells.y0, cells.x1 + 1, cells.y1} : cells;
}

PixelRect PlanGrid::seat(CellPos cell, PixelSize size) const {
  const PixelRect box = cellBox(cell);
  return {box.x, box.bottom() - size.h, size.w, size.h};
}

void PlanGrid::inDrawOrder(CellRect cells, const std::function<void(const DrawRow&)>& draw) const {
  for (int y = cells.y0; y < cells.y1; ++y) draw({{cells.x0, y}, 1, 0, cells.width()});
}

}  // namespace uq
