#include "core/grid/Heading.h"

#include <algorithm>
#include <cstdlib>

namespace uq {

namespace {

constexpr std::string_view kNames[kHeadings] = {"north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"};

}  // namespace

std::string_view headingName(Heading heading) { return kNames[static_cast<int>(heading)]; }

std::optional<Heading> headingFromName(std::string_view name) {
  const auto* found = std::find(std::begin(kNames), std::end(kNames), name);
  if (found == std::end(kNames)) return std::nullopt;
  return static_cast<Heading>(found - std::begin(kNames));
}

const std::vector<Heading>& headingsOf(GridKind kind) {
  using enum Heading;
  static const std::vector<Heading> kSquares{north, east, south, west};
  static const std::vector<Heading> kDiamonds{northEast, southEast, southWest, northWest};
  static const std::vector<Heading> kPointy{northWest, northEast, east, southEast, southWest, west};
  static const std::vector<Heading> kFlat{north, northEast, southEast, south, southWest, northWest};
  switch (kind) {
    case GridKind::orthogonal: return kSquares;
    case GridKind::diamond:
    case GridKind::staggered: return kDiamonds;
    case GridKind::hexagonalPointy: return kPointy;
    case GridKind::hexagonalFlat: return kFlat;
  }
  return kSquares;
}

std::optional<int> sideOf(GridKind kind, Heading heading) {
  const std::vector<Heading>& all = headingsOf(kind);
  const auto found = std::find(all.begin(), all.end(), heading);
  if (found == all.end()) return std::nullopt;
  return static_cast<int>(found - all.begin());
}

Heading nearestHeading(GridKind kind, Heading heading) {
  const std::vector<Heading>& all = headingsOf(kind);
  const auto turnTo = [&](Heading one) { return (static_cast<int>(one) - static_cast<int>(heading) + kHeadings) % kHeadings; };
  return *std::min_element(all.begin(), all.end(), [&](Heading a, Heading b) {
    const auto cost = [&](Heading one) {
      const int clockwise = turnTo(one);
      return clockwise <= kHeadings / 2 ? 2 * clockwise : 2 * (kHeadings - clockwise) + 1;
    };
    return cost(a) < cost(b);
  });
}

Heading turnedHeading(GridKind kind, Heading heading, int by) {
  const std::vector<Heading>& all = headingsOf(kind);
  const int count = static_cast<int>(all.size());
  const int at = sideOf(kind, nearestHeading(kind, heading)).value_or(0);
  return all[static_cast<std::size_t>(((at + by) % count + count) % count)];
}

}  // namespace uq
