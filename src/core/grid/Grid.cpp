#include "core/grid/Grid.h"

#include "core/grid/OrthogonalGrid.h"

namespace uq {

std::unique_ptr<const Grid> makeGrid(const GridShape& shape) {
  switch (shape.kind) {
    case GridKind::orthogonal: break;
  }
  return std::make_unique<OrthogonalGrid>(shape);
}

std::string_view gridName(GridKind kind) {
  switch (kind) {
    case GridKind::orthogonal: break;
  }
  return "orthogonal";
}

Result<GridKind> gridKindFromName(std::string_view name) {
  if (name == gridName(GridKind::orthogonal)) return GridKind::orthogonal;
  return fail(Error::Cause::newer, "the grid \"" + std::string(name) + "\" is not known to this version");
}

}  // namespace uq
