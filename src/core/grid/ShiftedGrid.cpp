#include "core/grid/ShiftedGrid.h"

#include <algorithm>
#include <cmath>

#include "core/grid/DiamondGrid.h"
#include "core/grid/OrthogonalGrid.h"

namespace uq {

ShiftedGrid::ShiftedGrid(const GridShape& shape)
    : Grid(shape),
      hexagons_(shape.kind != GridKind::staggered),
      flat_(shape.kind == GridKind::hexagonalFlat),
      w_(flat_ ? shape.cell.h : shape.cell.w),
      h_(flat_ ? shape.cell.w : shape.cell.h),
      side_(hexagons_ ? shape.side : 0),
      cap_((h_ - side_) / 2),
      pitch_(side_ + cap_) {}

CellPos ShiftedGrid::cellAt(PixelPos at) const {
  const int along = flat_ ? at.y : at.x;
  const int down = flat_ ? at.x : at.y;
  const int r = floorDiv(down, pitch_);
  const auto inRow = [&](int row) { return Place{floorDiv(along - shift(row), w_), row}; };
  const Place place = inRow(r);
  const std::int64_t y = 2 * (down - r * pitch_) + 1;
  if (y < 2 * cap_) {
    // In the caps: beyond one of the slanted edges lies the row above.
    const std::int64_t x = 2 * (along - shift(r) - place.c * w_) + 1;
    const std::int64_t edge = 2 * std::int64_t{cap_} * w_;
    const bool left = y * w_ + 2 * std::int64_t{cap_} * x < edge;
    const bool right = y * w_ + 2 * std::int64_t{cap_} * (2 * w_ - x) < edge;
    if (left || right) return fromRows(inRow(r - 1));
  }
  return fromRows(place);
}

PixelRect ShiftedGrid::cellBox(CellPos cell) const {
  const Place at = inRows(cell);
  return rect(at.c * w_ + shift(at.r), at.r * pitch_, w_, h_);
}

std::vector<PixelPos> ShiftedGrid::outline(CellPos cell) const {
  const Place at = inRows(cell);
  const int x = at.c * w_ + shift(at.r);
  const int y = at.r * pitch_;
  const PixelPos top = pixel(x + w_ / 2, y);
  const PixelPos rightUp = pixel(x + w_, y + cap_);
  const PixelPos rightDown = pixel(x + w_, y + cap_ + side_);
  const PixelPos bottom = pixel(x + w_ / 2, y + h_);
  const PixelPos leftDown = pixel(x, y + cap_ + side_);
  const PixelPos leftUp = pixel(x, y + cap_);
  if (!hexagons_) return {top, rightUp, bottom, leftUp};
  // Exchanging the axes turns clockwise round.
  if (flat_) return {leftUp, leftDown, bottom, rightDown, rightUp, top};
  return {leftUp, top, rightUp, rightDown, bottom, leftDown};
}

CellPos ShiftedGrid::across(CellPos cell, int side) const {
  const Place at = inRows(cell);
  // The columns, in the rows above and below, of the cells to the left and right.
  const int right = at.c + (isShifted(at.r) ? 1 : 0);
  const Place upperLeft{right - 1, at.r - 1};
  const Place upperRight{right, at.r - 1};
  const Place lowerLeft{right - 1, at.r + 1};
  const Place lowerRight{right, at.r + 1};
  const Place before{at.c - 1, at.r};
  const Place after{at.c + 1, at.r};
  if (!hexagons_) {
    const Place around[] = {upperRight, lowerRight, lowerLeft, upperLeft};
    return fromRows(around[side]);
  }
  const Place pointy[] = {upperLeft, upperRight, after, lowerRight, lowerLeft, before};
  const Place flat[] = {before, lowerLeft, lowerRight, after, upperRight, upperLeft};
  return fromRows((flat_ ? flat : pointy)[side]);
}

std::vector<PixelPos> ShiftedGrid::perimeter(CellRect cells) const {
  if (cells.empty()) return {};
  const Place first = inRows({cells.x0, cells.y0});
  const Place end = inRows({cells.x1, cells.y1});
  std::vector<PixelPos> points;
  const auto add = [&](int c, int r, int x, int y) {
    const PixelPos at = pixel(c * w_ + shift(r) + x, r * pitch_ + y);
    if (points.empty() || !(points.back() == at)) points.push_back(at);
  };
  const int low = cap_ + side_;
  for (int c = first.c; c < end.c; ++c) {
    add(c, first.r, 0, cap_);
    add(c, first.r, w_ / 2, 0);
  }
  for (int r = first.r; r < end.r; ++r) {
    add(end.c - 1, r, w_, cap_);
    add(end.c - 1, r, w_, low);
  }
  for (int c = end.c - 1; c >= first.c; --c) {
    add(c, end.r - 1, w_, low);
    add(c, end.r - 1, w_ / 2, h_);
  }
  for (int r = end.r - 1; r >= first.r; --r) {
    add(first.c, r, 0, low);
    add(first.c, r, 0, cap_);
  }
  if (points.size() > 1 && points.back() == points.front()) points.pop_back();
  if (flat_) std::reverse(points.begin(), points.end());
  return points;
}

Grid::Lattice ShiftedGrid::lattice() const {
  const double quarter = w_ / 4.0;
  if (flat_) return {0, quarter, double(pitch_), 0, 0, double(w_)};
  return {quarter, 0, double(w_), 0, 0, double(pitch_)};
}

PixelRect ShiftedGrid::pixelBounds(CellRect cells) const {
  if (cells.empty()) return {};
  const Place first = inRows({cells.x0, cells.y0});
  const Place end = inRows({cells.x1, cells.y1});
  const bool oneRow = end.r - first.r == 1;
  const int left = oneRow ? shift(first.r) : 0;
  const int right = oneRow ? shift(first.r) : w_ / 2;
  const int along = first.c * w_ + left;
  return rect(along, first.r * pitch_, end.c * w_ + right - along, (end.r - 1 - first.r) * pitch_ + h_);
}

CellRect ShiftedGrid::cellsMeeting(PixelRect pixels) const {
  if (pixels.empty()) return {};
  const int left = flat_ ? pixels.y : pixels.x;
  const int right = flat_ ? pixels.bottom() : pixels.right();
  const int top = flat_ ? pixels.x : pixels.y;
  const int bottom = flat_ ? pixels.right() : pixels.bottom();
  const CellPos first = fromRows({floorDiv(left - w_ / 2, w_), floorDiv(top - h_, pitch_) + 1});
  const CellPos end = fromRows({ceilDiv(right, w_), ceilDiv(bottom, pitch_)});
  return {first.x, first.y, end.x, end.y};
}

PixelRect ShiftedGrid::seat(CellPos cell, PixelSize size) const {
  const PixelRect box = cellBox(cell);
  return {box.x + floorDiv(box.w - size.w, 2), box.bottom() - size.h, size.w, size.h};
}

void ShiftedGrid::inDrawOrder(CellRect cells, const std::function<void(const DrawRow&)>& draw) const {
  for (int y = cells.y0; y < cells.y1; ++y) {
    if (!flat_) {
      draw({{cells.x0, y}, 1, 0, cells.width()});
      continue;
    }
    // In one row of flat hexagons the shifted columns lie lower.
    for (const bool shifted : {false, true}) {
      const int first = cells.x0 + (isShifted(cells.x0) == shifted ? 0 : 1);
      if (first < cells.x1) draw({{first, y}, 2, 0, (cells.x1 - first + 1) / 2});
    }
  }
}

SidePos ShiftedGrid::toSide(CellPos cell) const {
  const Place at = inRows(cell);
  const int odd = at.r & 1;
  const int half = shape().firstShift ? -odd : odd;
  if (hexagons_) return {at.c - (at.r - half) / 2, at.r};
  return {at.c + (at.r + half) / 2, (at.r - half) / 2 - at.c};
}

CellPos ShiftedGrid::fromSide(SidePos side) const {
  const int r = hexagons_ ? side.v : side.u + side.v;
  const int odd = r & 1;
  const int half = shape().firstShift ? -odd : odd;
  return fromRows({hexagons_ ? side.u + (r - half) / 2 : side.u - (r + half) / 2, r});
}

SidePos ShiftedGrid::turned(SidePos offset, Turn turn) const {
  if (!hexagons_) return turnedDiamond(offset, turn);
  if (turn.mirror) {
    offset = flat_ ? SidePos{offset.u + offset.v, -offset.v} : SidePos{-offset.u - offset.v, offset.v};
  }
  for (int step = 0; step < turn.steps; ++step) {
    offset = flat_ ? SidePos{offset.u + offset.v, -offset.u} : SidePos{-offset.v, offset.u + offset.v};
  }
  return offset;
}

Turn ShiftedGrid::pictureTurn(Turn turn) const {
  const bool half = hexagons_ && turn.steps >= 2 && turn.steps <= 4;
  return {turn.mirror, static_cast<std::uint8_t>(half ? 3 : 0)};
}

std::vector<CellPos> ShiftedGrid::line(CellPos from, CellPos to) const {
  const SidePos start = toSide(from);
  const SidePos way = toSide(to) - start;
  std::vector<CellPos> cells;
  if (!hexagons_) {
    for (const SidePos step : squareLine(way)) cells.push_back(fromSide(start + step));
    return cells;
  }
  const int n = std::max({std::abs(way.u), std::abs(way.v), std::abs(way.u + way.v)});
  for (int i = 0; i <= n; ++i) {
    const double t = n == 0 ? 0 : static_cast<double>(i) / n;
    const double q = way.u * t + 1e-6;
    const double r = way.v * t + 2e-6;
    const double s = -q - r;
    double rq = std::round(q);
    double rr = std::round(r);
    const double rs = std::round(s);
    const double offQ = std::abs(rq - q);
    const double offR = std::abs(rr - r);
    const double offS = std::abs(rs - s);
    if (offQ > offR && offQ > offS) {
      rq = -rr - rs;
    } else if (offR > offS) {
      rr = -rq - rs;
    }
    cells.push_back(fromSide(start + SidePos{static_cast<int>(rq), static_cast<int>(rr)}));
  }
  return cells;
}

}  // namespace uq
