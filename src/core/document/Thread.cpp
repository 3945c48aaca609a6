#include "core/document/Thread.h"

#include <array>

namespace uq {

namespace {
constexpr std::array<std::string_view, Thread::kColours> kColourNames = {"orange", "sky",       "green", "yellow",
                                                                         "blue",   "vermilion", "pink",  "grey"};
constexpr std::array<std::string_view, Thread::kPatterns> kPatternNames = {"running", "double", "cross", "dotted"};
}  // namespace

std::string_view threadColourName(int colour) { return kColourNames[static_cast<std::size_t>(colour)]; }

std::string_view threadPatternName(Thread::Pattern pattern) { return kPatternNames[static_cast<std::size_t>(pattern)]; }

std::optional<Thread> threadFromNames(std::string_view colour, std::string_view pattern) {
  for (int c = 0; c < Thread::kColours; ++c) {
    if (threadColourName(c) != colour) continue;
    for (int p = 0; p < Thread::kPatterns; ++p) {
      const auto found = static_cast<Thread::Pattern>(p);
      if (threadPatternName(found) == pattern) return Thread{c, found};
    }
  }
  return std::nullopt;
}

}  // namespace uq
