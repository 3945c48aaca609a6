// Counted: a number with its word, in English.
#pragma once

#include <cstdint>
#include <string>
#include <string_view>

namespace uq {

// "1 cell", "2 cells".
inline std::string counted(std::int64_t count, std::string_view one) {
  return std::to_string(count) + " " + std::string(one) + (count == 1 ? "" : "s");
}

}  // namespace uq
