#include "core/edit/Meant.h"

#include <algorithm>
#include <map>

namespace uq {

namespace {

constexpr int kBits = 6;
constexpr int kMask = (1 << kBits) - 1;

int code(MaterialIndex material) { return material + 2; }  // 1: nothing
MaterialIndex materialOf(int code) { return code - 2; }

}  // namespace

int meantOf(const Edging& edging, const EdgingShape& wanted) {
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
  MaterialIndex second = first;
  if (!counts.empty()) second = std::max_element(counts.begin(), counts.end(), [](const auto& a, const auto& b) { return a.second < b.second; })->first;
  // Where a path does not run on nothing need be said of what lies there.
  if (edging.decides == Decides::path && second == first) second = kNothingSeen;
  int mask = 0;
  for (std::size_t i = 0; i < places.size(); ++i) {
    const bool isOther = places[i] != first && (places[i] != kAnything || edging.decides == Decides::path);
    if (isOther) mask |= 1 << i;
  }
  return code(first) << (2 * kBits) | code(second) << kBits | mask;
}

std::optional<EdgingMember> memberMeant(const Edging& edging, int meant) {
  const int count = placesOf(edging.grid);
  const MaterialIndex first = materialOf(meant >> (2 * kBits) & kMask);
  const MaterialIndex second = materialOf(meant >> kBits & kMask);
  const int mask = meant & kMask;
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
      member.corners.push_back(side != first ? side : places[i]);
    }
  }
  return member;
}

}  // namespace uq
