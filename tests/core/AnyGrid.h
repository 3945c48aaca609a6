// Generators of grids and cells, for properties that hold on all of them.
#pragma once

#include <rapidcheck/gtest.h>

#include <vector>

#include "core/grid/Grid.h"

namespace uq::test {

// A shape of that kind, any size that it may have.
inline GridShape anyShapeOf(GridKind kind) {
  const auto size = [] { return *rc::gen::inRange(kSmallestCell, *rc::gen::element(9, 70, kLargestCell + 1)); };
  GridShape shape = nearestShape(kind, {size(), size()});
  shape.firstShift = *rc::gen::arbitrary<bool>();
  const bool slanted = kind == GridKind::diamond || kind == GridKind::staggered;
  shape.plan = slanted && *rc::gen::inRange(0, 3) == 0;
  if (shape.side > 0) {
    const int down = kind == GridKind::hexagonalFlat ? shape.cell.w : shape.cell.h;
    shape.side = down - 2 * *rc::gen::inRange(1, (down - 1) / 2 + 1);
  }
  return shape;
}

inline GridShape anyGrid() {
  return anyShapeOf(*rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds))));
}

inline CellPos anyCell(int farthest = 500) {
  return {*rc::gen::inRange(-farthest, farthest), *rc::gen::inRange(-farthest, farthest)};
}

}  // namespace uq::test
