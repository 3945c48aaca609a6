// A region as a word of the command line: "2,0,4,4".
#pragma once

#include <charconv>
#include <optional>
#include <string>

#include "core/grid/CellPos.h"

namespace uq::cli {

// Columns and rows from `least` on, 1 or more wide and high, none of the numbers beyond 1,048,576; nothing where it is spelt otherwise.
inline std::optional<CellRect> regionFrom(const std::string& text, int least) {
  int numbers[4] = {};
  const char* at = text.data();
  const char* end = at + text.size();
  for (int i = 0; i < 4; ++i) {
    const auto [next, error] = std::from_chars(at, end, numbers[i]);
    if (error != std::errc() || (i < 3 && (next == end || *next != ',')) || (i == 3 && next != end)) return std::nullopt;
    if (numbers[i] > kFarthestCell || numbers[i] < (i < 2 ? least : 1)) return std::nullopt;
    at = next + 1;
  }
  return CellRect{numbers[0], numbers[1], numbers[0] + numbers[2], numbers[1] + numbers[3]};
}

}  // namespace uq::cli
