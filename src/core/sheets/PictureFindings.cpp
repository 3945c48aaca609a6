#include "core/sheets/PictureFindings.h"

#include <algorithm>
#include <array>
#include <cstdlib>
#include <map>
#include <numeric>

namespace uq {

namespace {

constexpr int kFewestRimStrengths = 3;
constexpr int kTrace = 12;  // of a channel, that no eye tells apart

// The greatest common divisor of all lengths of equal pixels along rows and columns: what art was enlarged by.
int enlargement(const PixelView& picture) {
  int divisor = std::gcd(picture.w, picture.h);
  const auto look = [&](int length, int lines, auto&& at) {
    for (int line = 0; line < lines && divisor > 1; ++line) {
      for (int i = 1; i < length; ++i) {
        if (at(i, line) != at(i - 1, line)) divisor = std::gcd(divisor, i);
      }
    }
  };
  look(picture.w, picture.h, [&](int i, int line) { return picture.at(i, line); });
  look(picture.h, picture.w, [&](int i, int line) { return picture.at(line, i); });
  return divisor;
}

// Whether at least a third of solid neighbours differ, but hardly.
bool isPainted(const PixelView& picture) {
  std::int64_t pairs = 0;
  std::int64_t traces = 0;
  for (int y = 0; y < picture.h; ++y) {
    const std::uint32_t* row = picture.row(y);
    for (int x = 1; x < picture.w; ++x) {
      if (alphaOf(row[x]) != 255 || alphaOf(row[x - 1]) != 255) continue;
      ++pairs;
      int most = 0;
      for (int shift = 0; shift < 24; shift += 8) {
        most = std::max(most, std::abs(static_cast<int>(row[x] >> shift & 0xff) - static_cast<int>(row[x - 1] >> shift & 0xff)));
      }
      traces += most > 0 && most <= kTrace ? 1 : 0;
    }
  }
  return traces > 0 && traces * 3 >= pairs;
}

std::optional<std::uint32_t> edgeColour(const PixelView& picture) {
  std::map<std::uint32_t, int> counts;
  int all = 0;
  const auto count = [&](int x, int y) {
    ++counts[picture.at(x, y)];
    ++all;
  };
  for (int x = 0; x < picture.w; ++x) {
    count(x, 0);
    count(x, picture.h - 1);
  }
  for (int y = 0; y < picture.h; ++y) {
    count(0, y);
    count(picture.w - 1, y);
  }
  for (const auto& [colour, times] : counts) {
    if (times * 10 >= all * 6) return colour & 0xffffffu;
  }
  return std::nullopt;
}

}  // namespace

PictureFindings findingsOf(const PixelView& picture) {
  PictureFindings findings;
  std::array<bool, 256> alphas{};
  for (int y = 0; y < picture.h; ++y) {
    const std::uint32_t* row = picture.row(y);
    for (int x = 0; x < picture.w; ++x) {
      const unsigned alpha = alphaOf(row[x]);
      if (alpha == 0) findings.hasClear = true;
      if (alpha == 0 || alpha == 255) continue;
      ++findings.rims;
      alphas[alpha] = true;
    }
  }
  // Shadows and glass are drawn with one or two strengths on purpose; rims come in many.
  if (std::count(alphas.begin(), alphas.end(), true) < kFewestRimStrengths) findings.rims = 0;
  // A picture of one colour says nothing about its scale.
  const int enlarged = enlargement(picture);
  if (enlarged <= kMostShrink && enlarged < std::min(picture.w, picture.h)) findings.enlarged = std::max(1, enlarged);
  findings.isSmooth = isPainted(picture);
  const bool solid = !findings.hasClear && std::count(alphas.begin(), alphas.end(), true) == 0;
  if (solid && picture.w > 0 && picture.h > 0) findings.background = edgeColour(picture);
  return findings;
}

bool isTwice(const PixelView& large, const PixelView& small) {
  if (small.w < 1 || small.h < 1 || large.w != 2 * small.w || large.h != 2 * small.h) return false;
  std::int64_t difference = 0;
  for (int y = 0; y < small.h; ++y) {
    for (int x = 0; x < small.w; ++x) {
      for (int shift = 0; shift < 32; shift += 8) {
        int sum = 0;
        for (int k = 0; k < 4; ++k) sum += static_cast<int>(large.at(2 * x + k % 2, 2 * y + k / 2) >> shift & 0xff);
        difference += std::abs(sum / 4 - static_cast<int>(small.at(x, y) >> shift & 0xff));
      }
    }
  }
  return difference <= std::int64_t{kMostTwiceDifference} * 4 * small.w * small.h;
}

}  // namespace uq
