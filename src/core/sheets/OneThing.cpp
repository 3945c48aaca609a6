#include "core/sheets/OneThing.h"

#include <algorithm>
#include <vector>

namespace uq {

namespace {

constexpr unsigned kSeen = 8;          // of 255: what is fainter is nothing
constexpr double kMostlyOne = 0.85;    // share of what is seen that hangs together
constexpr double kLeastClear = 0.04;   // share of the picture that is see-through
constexpr double kBorderClear = 0.25;  // share of its outermost pixels

// The largest number of seen pixels that hang together.
std::int64_t largestPart(const PixelView& picture) {
  const auto index = [&](int x, int y) { return static_cast<std::size_t>(y) * static_cast<std::size_t>(picture.w) + static_cast<std::size_t>(x); };
  std::vector<bool> visited(index(0, picture.h), false);
  const auto fresh = [&](int x, int y) { return alphaOf(picture.at(x, y)) >= kSeen && !visited[index(x, y)]; };
  std::vector<PixelPos> open;
  std::int64_t largest = 0;
  for (int y = 0; y < picture.h; ++y) {
    for (int x = 0; x < picture.w; ++x) {
      if (!fresh(x, y)) continue;
      visited[index(x, y)] = true;
      open.assign(1, {x, y});
      std::int64_t count = 0;
      while (!open.empty()) {
        const PixelPos at = open.back();
        open.pop_back();
        ++count;
        for (int v = std::max(0, at.y - 1 - kLeap); v <= std::min(picture.h - 1, at.y + 1 + kLeap); ++v) {
          for (int u = std::max(0, at.x - 1 - kLeap); u <= std::min(picture.w - 1, at.x + 1 + kLeap); ++u) {
            if (!fresh(u, v)) continue;
            visited[index(u, v)] = true;
            open.push_back({u, v});
          }
        }
      }
      largest = std::max(largest, count);
    }
  }
  return largest;
}

}  // namespace

bool isOneThing(const PixelView& picture, PixelSize usual) {
  const PixelSize cell = usual.w > 0 && usual.h > 0 ? usual : PixelSize{kUsualCell, kUsualCell};
  if (picture.w < 1 || picture.h < 1) return false;
  if (picture.w > kThingCells * std::max(cell.w, kUsualCell) || picture.h > kThingCells * std::max(cell.h, kUsualCell)) return false;
  std::int64_t seen = 0;
  std::int64_t borderClear = 0;
  for (int y = 0; y < picture.h; ++y) {
    for (int x = 0; x < picture.w; ++x) {
      const bool is = alphaOf(picture.at(x, y)) >= kSeen;
      const bool border = x == 0 || y == 0 || x == picture.w - 1 || y == picture.h - 1;
      seen += is;
      borderClear += border && !is;
    }
  }
  const auto all = static_cast<double>(picture.w) * picture.h;
  const double around = 2.0 * (picture.w + picture.h) - 4;
  if (seen == 0 || (all - static_cast<double>(seen)) < kLeastClear * all) return false;
  if (static_cast<double>(borderClear) < kBorderClear * around) return false;
  return static_cast<double>(largestPart(picture)) >= kMostlyOne * static_cast<double>(seen);
}

}  // namespace uq
