#include "core/document/TilePlaces.h"

#include <algorithm>

namespace uq {

void TilePlaces::setNumbers(std::vector<std::uint32_t> numbers) {
  numbers_ = std::move(numbers);
  cells_.clear();
  std::uint32_t cell = 0;
  while (cell < numbers_.size() && numbers_[cell] == cell) ++cell;
  if (cell == numbers_.size()) {
    numbers_.clear();
    return;
  }
  cells_.assign(*std::max_element(numbers_.begin(), numbers_.end()) + std::size_t{1}, kNone);
  for (cell = 0; cell < numbers_.size(); ++cell) cells_[numbers_[cell]] = cell;
}

}  // namespace uq
