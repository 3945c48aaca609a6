// JointFinder: keeps a JointBook for each grid of a quilt, and opens new ones when its sheets change.
//
// Cost: comparing the list of sheets; what the book knew is lost when a sheet changes.
#pragma once

#include <memory>
#include <vector>

#include "core/sheets/LooseJoints.h"
#include "raster/SheetPictures.h"

namespace uq {

class JointFinder {
 public:
  explicit JointFinder(SheetPictures pictures) : pictures_(std::move(pictures)) {}

  // Good until the sheets change.
  JointBook& bookFor(const Quilt& quilt, const GridShape& shape);

 private:
  SheetPictures pictures_;
  std::vector<std::unique_ptr<JointBook>> books_;  // of the same sheets, each of another grid
};

}  // namespace uq
