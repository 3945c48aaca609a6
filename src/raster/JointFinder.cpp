#include "raster/JointFinder.h"

namespace uq {

JointBook& JointFinder::bookFor(const Quilt& quilt, const GridShape& shape) {
  const bool suits =
      book_ && book_->sides().grid().shape() == shape && book_->sides().quilt().sheets() == quilt.sheets();
  if (!suits) book_.emplace(TileSides(quilt, shape, pixelsOf(quilt, pictures_)));
  return *book_;
}

}  // namespace uq
