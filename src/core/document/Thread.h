// Thread: colour and stitch pattern by which a layer is recognised on its card, its ghost and its tag.
//
// Eight colours that people without full colour vision tell apart (Okabe and Ito) times four patterns: 32 threads. What
// the colours look like is the theme's business.
#pragma once

#include <optional>
#include <string_view>

namespace uq {

struct Thread {
  enum class Pattern { running, doubled, cross, dotted };

  static constexpr int kColours = 8;
  static constexpr int kPatterns = 4;

  int colour = 0;  // 0 .. kColours - 1
  Pattern pattern = Pattern::running;
  friend bool operator==(const Thread&, const Thread&) = default;
};

// Names in files, and back.
std::string_view threadColourName(int colour);
std::string_view threadPatternName(Thread::Pattern pattern);
std::optional<Thread> threadFromNames(std::string_view colour, std::string_view pattern);

}  // namespace uq
