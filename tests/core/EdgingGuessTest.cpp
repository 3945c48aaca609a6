// Guessing an edging from the pixels of a sheet, held to the made sheets (MadeEdgings).
#include "core/sheets/EdgingGuess.h"

#include <gtest/gtest.h>

#include <cstdlib>
#include <iostream>
#include <map>

#include "core/MadeEdgings.h"

namespace uq::test {

namespace {

Edging guessed(const MadeEdging& made) {
  std::vector<TileToGuess> tiles;
  for (std::uint32_t i = 0; i < static_cast<std::uint32_t>(made.columns * made.rows); ++i) tiles.push_back({{{}, i}, {made.view(), made.place(i)}});
  return guessedEdging(made.shape, tiles);
}

// The share of members whose places are as they were made, materials matched by what they show most often.
double rightShare(const MadeEdging& made, const Edging& guess) {
  // On hexagons a corner lies between two sides that both touch it, so what both say follows from the sides: the same pixels.
  const bool sidesSayAll = placesOf(made.shape.kind) == 6 && guess.decides == Decides::sides && made.truth.decides == Decides::both;
  if (guess.decides != made.truth.decides && !sidesSayAll) return 0;
  std::map<std::uint32_t, const EdgingMember*> found;
  for (const EdgingMember& one : guess.members) found[one.tile.tile] = &one;
  std::map<MaterialIndex, std::map<MaterialIndex, int>> votes;
  for (const EdgingMember& one : made.truth.members) {
    const auto other = found.find(one.tile.tile);
    if (other == found.end()) continue;
    for (std::size_t i = 0; i < one.sides.size(); ++i) ++votes[other->second->sides[i]][one.sides[i]];
    for (std::size_t i = 0; !sidesSayAll && i < one.corners.size(); ++i) ++votes[other->second->corners[i]][one.corners[i]];
  }
  const auto matched = [&](MaterialIndex material) {
    if (material == kNothingSeen) return kNothingSeen;
    MaterialIndex best = kNothingSeen;
    int most = 0;
    for (const auto& [truth, count] : votes[material]) {
      if (count > most) most = count, best = truth;
    }
    return best;
  };
  int right = 0;
  for (const EdgingMember& one : made.truth.members) {
    const auto other = found.find(one.tile.tile);
    if (other == found.end()) continue;
    bool same = true;
    for (std::size_t i = 0; i < one.sides.size(); ++i) same = same && matched(other->second->sides[i]) == one.sides[i];
    for (std::size_t i = 0; !sidesSayAll && i < one.corners.size(); ++i) same = same && matched(other->second->corners[i]) == one.corners[i];
    if (made.truth.decides != Decides::corners) same = same && matched(other->second->middle) == one.middle;
    right += same ? 1 : 0;
  }
  return static_cast<double>(right) / static_cast<double>(made.truth.members.size());
}

}  // namespace

// On seeds that were never looked at while guessing was written.
TEST(EdgingGuess, HoldsOnSheetsThatWereNeverSeen) {
  const char* from = std::getenv("UQ_GUESS_FROM");
  const std::uint64_t first = from ? std::strtoull(from, nullptr, 10) : 1'000'000;
  double arranged = 0;
  int arrangedSheets = 0;
  double all = 0;
  constexpr int kSheets = 160;
  std::map<std::string, std::pair<double, int>> byKind;
  for (int i = 0; i < kSheets; ++i) {
    const MadeEdging made = madeEdging(first + static_cast<std::uint64_t>(i));
    const Edging guess = guessed(made);
    const double share = rightShare(made, guess);
    all += share;
    if (made.arranged && made.set == MadeSet::full) arranged += share, ++arrangedSheets;
    auto& kind = byKind[made.called.substr(0, made.called.find(','))];
    kind.first += share;
    ++kind.second;
    if (from && share < 0.75) std::cout << first + static_cast<std::uint64_t>(i) << " " << made.called << ": " << decidesName(guess.decides) << ", " << guess.materials.size() << " materials, " << share << "\n";
  }
  for (const auto& [kind, sum] : byKind) RecordProperty(kind, std::to_string(sum.first / sum.second));
  if (from) {
    for (const auto& [kind, sum] : byKind) std::cout << kind << ": " << sum.first / sum.second << " of " << sum.second << "\n";
    std::cout << "arranged " << arranged / arrangedSheets << ", all " << all / kSheets << "\n";
  }
  EXPECT_GE(arranged / arrangedSheets, 0.90) << "of members in arranged full sets";
  EXPECT_GE(all / kSheets, 0.75) << "over all";
}

}  // namespace uq::test
