#include "core/edit/Meant.h"

#include <algorithm>
#include <map>
#include <set>

namespace uq {

namespace {

constexpr int kBits = 6;
constexpr int kMask = (1 << kBits) - 1;

int code(MaterialIndex material) { return material + 2; }  // 1: nothing
MaterialIndex materialOf(int code) { return code - 2; }

// Beyond what two materials need: all places spelt out, with one digit each, where so few materials leave room for that.
constexpr int kSpelt = 36 << (2 * kBits);
constexpr int kMost = (1 << (3 * kBits)) - 1;

// The places of a shape that are spelt out, the middle first where corners do not decide alone.
std::vector<MaterialIndex> placesSpelt(const Edging& edging, const EdgingShape& shape) {
  std::vector<MaterialIndex> all;
  if (edging.decides != Decides::corners) all.push_back(shape.middle);
  all.insert(all.end(), shape.sides.begin(), shape.sides.end());
  all.insert(all.end(), shape.corners.begin(), shape.corners.end());
  return all;
}

// 0 where something may be anything, or that is more than a number holds.
int spelt(const Edging& edging, const EdgingShape& shape) {
  const int base = static_cast<int>(edging.materials.size()) + 1;
  std::int64_t number = 0;
  std::int64_t room = 1;
  for (const MaterialIndex one : placesSpelt(edging, shape)) {
    if (one == kAnything) return 0;
    number += room * (one + 1);
    room *= base;
    if (room > kMost - kSpelt) return 0;
  }
  return kSpelt + static_cast<int>(number);
}

std::optional<EdgingMember> memberSpelt(const Edging& edging, int meant) {
  const int base = static_cast<int>(edging.materials.size()) + 1;
  int number = meant - kSpelt;
  const auto next = [&] {
    const MaterialIndex one = number % base - 1;
    number /= base;
    return one;
  };
  const int places = placesOf(edging.grid);
  EdgingMember member;
  if (edging.decides != Decides::corners) member.middle = next();
  for (int i = 0; i < places && sidesDecide(edging.decides); ++i) member.sides.push_back(next());
  for (int i = 0; i < places && cornersDecide(edging.decides); ++i) member.corners.push_back(next());
  if (edging.decides == Decides::corners) member.middle = member.corners.front();
  return number == 0 ? std::optional(member) : std::nullopt;
}

// By sides and corners a corner may show the other material though no side beside it does: an inner corner. On four-sided cells these
// sets of sides and inner corners are numbered after the 16 sets of sides without one; there are 31.
struct Inner {
  int sides;
  int corners;
  friend bool operator==(const Inner&, const Inner&) = default;
};
const std::vector<Inner>& inners() {
  static const std::vector<Inner> kAll = [] {
    std::vector<Inner> all;
    for (int sides = 0; sides < 16; ++sides) {
      for (int corners = 1; corners < 16; ++corners) {
        const int beside = sides | (sides << 1 & 15) | sides >> 3;
        if ((corners & beside) == 0) all.push_back({sides, corners});
      }
    }
    return all;
  }();
  return kAll;
}

}  // namespace

int meantOf(const Edging& edging, const EdgingShape& wanted) {
  const std::vector<MaterialIndex> all = placesSpelt(edging, wanted);
  if (std::set<MaterialIndex>(all.begin(), all.end()).size() > 2) {
    if (const int number = spelt(edging, wanted); number != 0) return number;
  }
  const std::vector<MaterialIndex>& places = edging.decides == Decides::corners ? wanted.corners : wanted.sides;
  std::map<MaterialIndex, int> counts;
  for (const MaterialIndex one : places) {
    if (one != kAnything) ++counts[one];
  }
  MaterialIndex first = wanted.middle;
  if (edging.decides == Decides::corners || first == kAnything) {
    if (counts.empty()) return 0;
    first = std::max_element(counts.begin(), counts.end(), [](const auto& a, const auto& b) { return a.second < b.second; })->first;
  }
  counts.erase(first);
  if (counts.empty() && edging.decides == Decides::both) {
    for (const MaterialIndex one : wanted.corners) {
      if (one != kAnything && one != first) ++counts[one];
    }
  }
  MaterialIndex second = first;
  if (!counts.empty()) second = std::max_element(counts.begin(), counts.end(), [](const auto& a, const auto& b) { return a.second < b.second; })->first;
  // Where a path does not run on nothing need be said of what lies there.
  if (edging.decides == Decides::path && second == first) second = kNothingSeen;
  int mask = 0;
  for (std::size_t i = 0; i < places.size(); ++i) {
    const bool isOther = places[i] != first && (places[i] != kAnything || edging.decides == Decides::path);
    if (isOther) mask |= 1 << i;
  }
  if (edging.decides == Decides::both && places.size() == 4) {
    int corners = 0;
    for (std::size_t i = 0; i < wanted.corners.size(); ++i) {
      const bool isInner = places[i] == first && places[(i + 3) % 4] == first && wanted.corners[i] == second && second != first;
      if (isInner) corners |= 1 << i;
    }
    const auto inner = std::find(inners().begin(), inners().end(), Inner{mask, corners});
    if (inner != inners().end()) mask = 16 + static_cast<int>(inner - inners().begin());
  }
  return code(first) << (2 * kBits) | code(second) << kBits | mask;
}

std::optional<EdgingMember> memberMeant(const Edging& edging, int meant) {
  if (meant >= kSpelt) return memberSpelt(edging, meant);
  const int count = placesOf(edging.grid);
  const MaterialIndex first = materialOf(meant >> (2 * kBits) & kMask);
  const MaterialIndex second = materialOf(meant >> kBits & kMask);
  int mask = meant & kMask;
  int inner = 0;
  if (edging.decides == Decides::both && count == 4 && mask >= 16) {
    const auto at = static_cast<std::size_t>(mask - 16);
    if (at >= inners().size()) return std::nullopt;
    mask = inners()[at].sides;
    inner = inners()[at].corners;
  }
  const auto isKnown = [&](MaterialIndex one) { return one >= kNothingSeen && one < static_cast<int>(edging.materials.size()); };
  if (meant <= 0 || !isKnown(first) || !isKnown(second) || mask >= 1 << count) return std::nullopt;
  EdgingMember member;
  member.middle = first;
  std::vector<MaterialIndex> places;
  for (int i = 0; i < count; ++i) places.push_back(mask >> i & 1 ? second : first);
  if (sidesDecide(edging.decides)) member.sides = places;
  if (edging.decides == Decides::corners) member.corners = places;
  if (edging.decides == Decides::both) {
    // A corner beside a side that shows the other shows it, too.
    for (std::size_t i = 0; i < places.size(); ++i) {
      const MaterialIndex side = places[(i + places.size() - 1) % places.size()];
      member.corners.push_back(side != first ? side : inner >> i & 1 ? second : places[i]);
    }
  }
  return member;
}

}  // namespace uq
