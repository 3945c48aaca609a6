// JointFinder: keeps the JointBook that suits a quilt's sheets and a grid, and opens a new one when they change.
//
// Cost: comparing the list of sheets; what the book knew is lost when a sheet changes.
#pragma once

#include <optional>

#include "core/sheets/LooseJoints.h"
#include "raster/SheetPictures.h"

namespace uq {

class JointFinder {
 public:
  explicit JointFinder(SheetPictures pictures) : pictures_(std::move(pictures)) {}

  // Good until the next call.
  JointBook& bookFor(const Quilt& quilt, const GridShape& shape);

 private:
  SheetPictures pictures_;
  std::optional<JointBook> book_;
};

}  // namespace uq
