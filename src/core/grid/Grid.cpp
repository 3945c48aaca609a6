#include "core/grid/Grid.h"

#include <algorithm>
#include <cmath>

#include "core/grid/DiamondGrid.h"
#include "core/grid/OrthogonalGrid.h"
#include "core/grid/PlanGrid.h"
#include "core/grid/ShiftedGrid.h"

namespace uq {

namespace {

bool isEven(int n) { return n % 2 == 0; }

}  // namespace

std::unique_ptr<const Grid> makeGrid(const GridShape& shape) {
  if (shape.plan) return std::make_unique<PlanGrid>(shape);
  switch (shape.kind) {
    case GridKind::orthogonal: break;
    case GridKind::diamond: return std::make_unique<DiamondGrid>(shape);
    case GridKind::staggered:
    case GridKind::hexagonalPointy:
    case GridKind::hexagonalFlat: return std::make_unique<ShiftedGrid>(shape);
  }
  return std::make_unique<OrthogonalGrid>(shape);
}

std::vector<CellPos> Grid::aroundCorner(CellPos cell, int corner) const {
  const int sides = turnOrder();
  const CellPos before = across(cell, (corner + sides - 1) % sides);
  const CellPos after = across(cell, corner);
  if (const auto opposite = acrossCorner(cell, corner)) return {cell, before, *opposite, after};
  return {cell, before, after};
}

std::optional<CellPos> Grid::acrossCorner(CellPos cell, int corner) const {
  const int sides = turnOrder();
  if (sides == 6) return std::nullopt;
  return across(across(cell, (corner + sides - 1) % sides), corner);
}

std::vector<CellPos> Grid::sideLine(CellPos from, CellPos to) const {
  if (turnOrder() == 6) return line(from, to);
  const SidePos start = toSide(from);
  std::vector<CellPos> cells;
  for (const SidePos step : squareSideLine(toSide(to) - start)) cells.push_back(fromSide(start + step));
  return cells;
}

bool areOfOneFamily(GridKind a, GridKind b) {
  const auto family = [](GridKind kind) { return kind == GridKind::staggered ? GridKind::diamond : kind; };
  return family(a) == family(b);
}

std::string_view cellsCalled(GridKind kind) {
  switch (kind) {
    case GridKind::orthogonal: break;
    case GridKind::diamond:
    case GridKind::staggered: return "diamonds";
    case GridKind::hexagonalPointy: return "pointy hexagons";
    case GridKind::hexagonalFlat: return "flat hexagons";
  }
  return "squares";
}

std::string whyNoGrid(const GridShape& shape) {
  const auto within = [](int size) { return size >= kSmallestCell && size <= kLargestCell; };
  if (!within(shape.cell.w) || !within(shape.cell.h)) return "A cell is 2 to 512 pixels wide and high";
  switch (shape.kind) {
    case GridKind::orthogonal: return {};
    case GridKind::diamond:
    case GridKind::staggered:
      return isEven(shape.cell.w) && isEven(shape.cell.h) ? "" : "A diamond is an even number of pixels wide and high";
    case GridKind::hexagonalPointy:
    case GridKind::hexagonalFlat: break;
  }
  const bool flat = shape.kind == GridKind::hexagonalFlat;
  const int along = flat ? shape.cell.h : shape.cell.w;
  const int down = flat ? shape.cell.w : shape.cell.h;
  if (!isEven(along)) {
    return flat ? "A flat hexagon is an even number of pixels high"
                : "A pointy hexagon is an even number of pixels wide";
  }
  if (shape.side < 1 || shape.side >= down) return "A hexagon's side is shorter than the hexagon";
  if (!isEven(down - shape.side)) return "A hexagon's side and height are both even or both odd";
  return {};
}

GridShape nearestShape(GridKind kind, PixelSize cell) {
  const auto even = [](int n) { return std::clamp(n + n % 2, 2, 512); };
  GridShape shape{kind, cell};
  switch (kind) {
    case GridKind::orthogonal: break;
    case GridKind::diamond:
    case GridKind::staggered: shape.cell = {even(cell.w), even(cell.h)}; break;
    case GridKind::hexagonalPointy:
    case GridKind::hexagonalFlat: {
      const bool flat = kind == GridKind::hexagonalFlat;
      int& along = flat ? shape.cell.h : shape.cell.w;
      int& down = flat ? shape.cell.w : shape.cell.h;
      along = even(along);
      down = std::max(down, 4);
      // A regular hexagon's side is half of what it measures from corner to corner.
      shape.side = down / 2;
      if (!isEven(down - shape.side)) ++shape.side;
      break;
    }
  }
  return shape;
}

std::vector<ShapeOffer> offeredShapes(GridKind kind, PixelSize tile) {
  std::vector<ShapeOffer> offers;
  const auto offer = [&](GridShape shape, std::string reason) {
    const bool known = std::any_of(offers.begin(), offers.end(), [&](const ShapeOffer& one) { return one.shape == shape; });
    if (!known && whyNoGrid(shape).empty()) offers.push_back({shape, std::move(reason)});
  };
  const GridShape nearest = nearestShape(kind, tile);
  const bool own = nearest.cell == tile;
  switch (kind) {
    case GridKind::orthogonal: break;
    case GridKind::diamond:
    case GridKind::staggered:
      if (2 * tile.h > tile.w) {
        offer(nearestShape(kind, {tile.w, std::max(2, nearestShape(kind, tile).cell.w / 2)}),
              "half as high as wide, for tiles that stand up from their cells");
      }
      break;
    case GridKind::hexagonalPointy:
    case GridKind::hexagonalFlat: {
      // From corner to corner a regular hexagon measures 2 / √3 of what it does from side to side.
      const bool flat = kind == GridKind::hexagonalFlat;
      const int across = flat ? nearest.cell.h : nearest.cell.w;
      const int corners = static_cast<int>(std::lround(across * 2 / std::sqrt(3.0)));
      offer(nearestShape(kind, flat ? PixelSize{corners, across} : PixelSize{across, corners}),
            "six sides of nearly one length");
      break;
    }
  }
  const std::string size = std::to_string(tile.w) + " × " + std::to_string(tile.h);
  offer(nearest, own ? "as large as the tiles" : "nearest to " + size + " that fits together");
  return offers;
}

std::string_view gridName(GridKind kind) {
  switch (kind) {
    case GridKind::orthogonal: break;
    case GridKind::diamond: return "diamond";
    case GridKind::staggered: return "staggered";
    case GridKind::hexagonalPointy: return "hexagonal-pointy";
    case GridKind::hexagonalFlat: return "hexagonal-flat";
  }
  return "orthogonal";
}

Result<GridKind> gridKindFromName(std::string_view name) {
  for (const GridKind kind : kGridKinds) {
    if (name == gridName(kind)) return kind;
  }
  return fail(Error::Cause::newer, "the grid \"" + std::string(name) + "\" is not known to this version");
}

}  // namespace uq
