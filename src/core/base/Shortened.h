// Shortened: a name as far as it is read at a glance, for sentences and messages. At most 60 bytes, cut between two
// characters of UTF-8. Cost: a copy.
#pragma once

#include <string>

namespace uq {

inline std::string shortened(const std::string& name) {
  constexpr std::size_t kMost = 60;  // bytes
  if (name.size() <= kMost) return name;
  std::size_t end = kMost;
  while (end > 0 && (static_cast<unsigned char>(name[end]) & 0xc0) == 0x80) --end;
  return name.substr(0, end) + "…";
}

}  // namespace uq
