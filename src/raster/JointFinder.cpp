#include "raster/JointFinder.h"

namespace uq {

namespace {

constexpr std::size_t kMostBooks = 8;

}  // namespace

JointBook& JointFinder::bookFor(const Quilt& quilt, const GridShape& shape) {
  const bool areGood = !books_.empty() && books_.front()->sides().quilt().sheets() == quilt.sheets();
  if (!areGood || books_.size() == kMostBooks) books_.clear();
  for (const auto& book : books_) {
    if (book->sides().grid().shape() == shape) return *book;
  }
  books_.push_back(std::make_unique<JointBook>(TileSides(quilt, shape, pixelsOf(quilt, pictures_))));
  return *books_.back();
}

}  // namespace uq
