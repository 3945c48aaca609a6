// The test patch, what an edging covers, and how many corrections a guess needs until its patch is right.
#include "core/edit/TestPatch.h"

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include <cstdlib>
#include <iostream>

#include "core/MadeInQuilt.h"
#include "core/edit/EdgingCoverage.h"
#include "core/edit/Edgings.h"

namespace uq::test {

using testing::IsEmpty;
using testing::Not;

namespace {

// Which material of the truth each guessed one is, by what the tiles show most often.
std::map<MaterialIndex, MaterialIndex> matched(const Edging& guess, const Edging& truth) {
  std::map<TileId, const EdgingMember*> found;
  for (const EdgingMember& one : guess.members) found[one.tile] = &one;
  std::map<MaterialIndex, std::map<MaterialIndex, int>> votes;
  for (const EdgingMember& one : truth.members) {
    const auto other = found.find(one.tile);
    if (other == found.end()) continue;
    for (std::size_t i = 0; i < one.sides.size() && i < other->second->sides.size(); ++i) ++votes[other->second->sides[i]][one.sides[i]];
    for (std::size_t i = 0; i < one.corners.size() && i < other->second->corners.size(); ++i) ++votes[other->second->corners[i]][one.corners[i]];
    if (truth.decides != Decides::corners) ++votes[other->second->middle][one.middle];
  }
  std::map<MaterialIndex, MaterialIndex> to{{kNothingSeen, kNothingSeen}, {kAnything, kAnything}};
  for (const auto& [material, counts] : votes) {
    if (material == kNothingSeen) continue;
    int most = 0;
    for (const auto& [truthful, count] : counts) {
      if (count > most) most = count, to[material] = truthful;
    }
  }
  return to;
}

std::vector<MaterialIndex> through(const std::map<MaterialIndex, MaterialIndex>& to, std::vector<MaterialIndex> places) {
  for (MaterialIndex& one : places) one = to.contains(one) ? to.at(one) : kNothingSeen;
  return places;
}

EdgingShape through(const std::map<MaterialIndex, MaterialIndex>& to, const EdgingShape& shape) {
  return {through(to, std::vector<MaterialIndex>{shape.middle}).front(), through(to, shape.sides), through(to, shape.corners)};
}

// Corrects a guess as somebody would who knows what the tiles show, one press after the other; how many it took, or `most` + 1.
int correctionsUntilRight(const MadeInQuilt& in, int most) {
  const auto tiles = in.tiles();
  const GridShape& shape = in.made.shape;
  Edging guess = guessedEdging(shape, tiles);
  const bool sameOnHexagons = placesOf(shape.kind) == 6 && guess.decides == Decides::sides && in.truth.decides == Decides::both;
  Edging truth = in.truth;
  if (sameOnHexagons) {
    truth.decides = Decides::sides;
    for (EdgingMember& one : truth.members) one.corners.clear();
  }
  for (int corrections = 0;; ++corrections) {
    const auto to = matched(guess, truth);
    std::map<MaterialIndex, MaterialIndex> back;
    for (const auto& [from, material] : to) back.try_emplace(material, from);
    const auto wrong = [&]() -> std::optional<Edging> {
      if (guess.decides != truth.decides) {
        Edging told = guess;
        told.decides = truth.decides;
        return guessedAnew(told, shape, tiles);
      }
      for (const auto& [from, material] : to) {
        if (from >= 0 && material == kNothingSeen) continue;
        if (from >= 0 && back.at(material) != from) return mergedMaterials(guess, back.at(material), from);
      }
      for (MaterialIndex i = 0; i < static_cast<MaterialIndex>(truth.materials.size()); ++i) {
        if (back.contains(i)) continue;
        // Two are taken for one: whichever it is that splits.
        for (MaterialIndex j = 0; j < static_cast<MaterialIndex>(guess.materials.size()); ++j) {
          const Edging split = splitMaterial(guess, shape, tiles, j);
          if (split.materials.size() > guess.materials.size() && matched(split, truth).size() > to.size()) return split;
        }
      }
      const TestPatch patch(in.quilt, guess, shape);
      const CellRect bounds = patch.map().bounds;
      for (int y = bounds.y0; y < bounds.y1; ++y) {
        for (int x = bounds.x0; x < bounds.x1; ++x) {
          const auto spot = patch.spotAt({x, y});
          if (!spot) continue;
          const EdgingShape wanted = through(to, spot->wanted);
          const EdgingMember* right = nullptr;
          bool isRight = false;
          for (const EdgingMember& one : truth.members) {
            const bool suits = costOf(truth, one, wanted) == 0;
            isRight = isRight || (suits && spot->member && one.tile == spot->member->tile);
            if (suits && !right) right = &one;
          }
          if (isRight || !right) continue;
          return guessedAnew(toldMember(guess, right->tile, {}, through(back, shapeOf(*right))), shape, tiles);
        }
      }
      return std::nullopt;
    }();
    if (!wrong) return corrections;
    if (corrections >= most || *wrong == guess) return most + 1;
    guess = *wrong;
  }
}

}  // namespace

TEST(TestPatch, IsRightAtOnceWithAFullSet) {
  EXPECT_TRUE(rc::check("on every grid", [] {
    const MadeInQuilt in(madeEdging(*rc::gen::inRange<std::uint64_t>(0, 5'000), false));
    const TestPatch patch(in.quilt, in.truth, in.made.shape);
    const CellRect bounds = patch.map().bounds;
    RC_ASSERT(!bounds.empty());
    int laid = 0;
    for (int y = bounds.y0; y < bounds.y1; ++y) {
      for (int x = bounds.x0; x < bounds.x1; ++x) {
        const auto spot = patch.spotAt({x, y});
        if (!spot) continue;
        ++laid;
        if (in.made.set == MadeSet::full) RC_ASSERT(spot->cost == 0);
        RC_ASSERT(!patch.candidates({x, y}, 8).empty());
      }
    }
    RC_ASSERT(laid > 12);
    RC_ASSERT(!patch.spotAt({bounds.x1, 0}));
  }));
}

TEST(TestPatch, ShowsWhereAShapeIsMissing) {
  std::uint64_t seed = 0;
  while (madeEdging(seed, false).set != MadeSet::small || madeEdging(seed, false).truth.decides != Decides::both) ++seed;
  const MadeInQuilt in(madeEdging(seed, false));
  TestPatch patch(in.quilt, in.truth, in.made.shape);
  EXPECT_EQ(patch.spotAt({2, 2})->cost, 0) << "an inner corner";
  EXPECT_GT(patch.spotAt({8, 4})->cost, 0) << "a cell alone";
  // What somebody paints shows the same.
  patch.paint({{{7, 3}, {8, 3}, {9, 3}, {7, 4}, {8, 4}, {9, 4}, {7, 5}, {8, 5}, {9, 5}}, 0, false});
  EXPECT_EQ(patch.spotAt({8, 4})->cost, 0);
  EXPECT_EQ(shapeInWords(in.truth, patch.spotAt({8, 4})->wanted), "material 1");
}

// On seeds that were never looked at while guessing was written.
TEST(TestPatch, OfAGuessIsRightAfterFewCorrections) {
  const char* from = std::getenv("UQ_GUESS_FROM");
  const std::uint64_t first = from ? std::strtoull(from, nullptr, 10) : 2'000'000;
  constexpr int kSheets = 100;
  std::map<int, int> counts;
  for (int i = 0; i < kSheets; ++i) {
    const MadeInQuilt in(madeEdging(first + static_cast<std::uint64_t>(i)));
    const int corrections = correctionsUntilRight(in, 3);
    ++counts[corrections];
    if (from && corrections > 3) std::cout << first + static_cast<std::uint64_t>(i) << " " << in.made.called << "\n";
  }
  for (const auto& [corrections, sheets] : counts) {
    RecordProperty("after_" + std::to_string(corrections), sheets);
    if (from) std::cout << corrections << " corrections: " << sheets << " sheets\n";
  }
  EXPECT_GE(kSheets - counts[4], 80) << "sheets that are right after three at most";
}

TEST(EdgingCoverage, CountsWhatIsNeededAndWhatIsMissing) {
  for (std::uint64_t seed = 0; seed < 200; ++seed) {
    const MadeInQuilt in(madeEdging(seed, false));
    const auto grid = makeGrid(in.made.shape);
    const EdgingCoverage coverage = coverageOf(in.quilt, in.truth, *grid);
    EXPECT_GT(coverage.needed, 0) << in.made.called;
    if (in.made.set == MadeSet::full) EXPECT_THAT(coverage.missing, IsEmpty()) << seed << in.made.called;
    else EXPECT_THAT(coverage.missing, Not(IsEmpty())) << in.made.called;
    if (in.made.set == MadeSet::full || in.truth.decides != Decides::both) continue;
    EXPECT_EQ(coverage.needed, 47 + (in.made.truth.materials.size() > 1 ? 1 : 0)) << in.made.called;
  }
}

TEST(EdgingCoverage, CountsTurnsOnceAndLaysThemWhereTheSheetMayBeTurned) {
  std::uint64_t seed = 0;
  while (madeEdging(seed, false).set != MadeSet::full || madeEdging(seed, false).truth.decides != Decides::both || madeEdging(seed, false).shape.kind != GridKind::orthogonal) ++seed;
  MadeInQuilt in(madeEdging(seed, false), TurnsAllowed{true, true, true});
  const auto grid = makeGrid(in.made.shape);
  // One tile of each kind that turns and mirrors give: the others come by turning.
  std::set<EdgingShape> kept;
  std::erase_if(in.truth.members, [&](const EdgingMember& one) {
    for (std::uint32_t code = 0; code < Turn::kCodes; ++code) {
      if (Turn::isCode(code, 4) && kept.contains(turnedShape(*grid, shapeOf(one), Turn::fromCode(code)))) return true;
    }
    kept.insert(shapeOf(one));
    return false;
  });
  EXPECT_LE(in.truth.members.size(), 16u);
  const EdgingCoverage coverage = coverageOf(in.quilt, in.truth, *grid);
  EXPECT_EQ(coverage.byTurning(), static_cast<int>(coverage.missing.size()));
  EXPECT_EQ(coverage.pictures, 0);
  const Edging turned = withTurned(in.truth, coverage);
  EXPECT_EQ(whyNoEdging(turned), "");
  EXPECT_THAT(coverageOf(in.quilt, turned, *grid).missing, IsEmpty());
  // Forbidden, they have to be drawn, each case that is no turn of another one.
  MadeInQuilt straight(madeEdging(seed, false), TurnsAllowed{false, false, false});
  for (EdgingMember& one : in.truth.members) one.tile.sheet = straight.sheet;
  const EdgingCoverage drawn = coverageOf(straight.quilt, in.truth, *grid);
  EXPECT_EQ(drawn.byTurning(), 0);
  EXPECT_EQ(drawn.pictures, static_cast<int>(drawn.missing.size()));
}

// A picture that is turned shows what the turned shape says: told by guessing from turned pixels.
TEST(EdgingShape, TurnsAsItsPictureDoes) {
  int seen = 0;
  for (std::uint64_t seed = 0; seed < 400 && seen < 24; ++seed) {
    if (madeEdging(seed, false).shape.kind != GridKind::orthogonal || madeEdging(seed, false).set != MadeSet::full || madeEdging(seed, false).outlined) continue;
    const MadeInQuilt in(madeEdging(seed));
    const auto grid = makeGrid(in.made.shape);
    const int size = in.made.shape.cell.w;
    const Edging straight = guessedEdging(in.made.shape, in.tiles());
    for (const bool mirror : {false, true}) {
      // A quarter to the right: what was at the left is at the top.
      std::vector<std::uint32_t> pixels(in.made.pixels.size());
      const auto stride = static_cast<std::size_t>(in.made.columns * size);
      for (const TileToGuess& one : in.tiles()) {
        for (int y = 0; y < size; ++y) {
          for (int x = 0; x < size; ++x) {
            const int column = mirror ? size - 1 - x : x;
            const PixelPos to{one.pixels.part.x + size - 1 - y, one.pixels.part.y + column};
            pixels[static_cast<std::size_t>(to.y) * stride + static_cast<std::size_t>(to.x)] = one.pixels.picture.at(one.pixels.part.x + x, one.pixels.part.y + y);
          }
        }
      }
      std::vector<TileToGuess> tiles = in.tiles();
      for (TileToGuess& one : tiles) one.pixels.picture.pixels = pixels.data();
      const Edging turned = guessedAnew(straight, in.made.shape, tiles);
      int differ = 0;
      for (std::size_t i = 0; i < straight.members.size(); ++i) {
        const EdgingShape shape = turnedShape(*grid, shapeOf(straight.members[i]), Turn{mirror, 1});
        differ += shape.sides != turned.members[i].sides || shape.corners != turned.members[i].corners;
      }
      EXPECT_LE(differ * 20, static_cast<int>(straight.members.size())) << in.made.called;
    }
    ++seen;
  }
  EXPECT_EQ(seen, 24);
}

TEST(EdgingShape, IsSaidInWords) {
  Edging edging;
  edging.grid = GridKind::orthogonal;
  edging.materials = {{"lawn", 0}, {"canal", 0}};
  edging.decides = Decides::corners;
  EXPECT_EQ(shapeInWords(edging, {0, {}, {0, 1, 0, 0}}), "lawn, but its upper right is canal");
  EXPECT_EQ(shapeInWords(edging, {0, {}, {0, 0, 0, 0}}), "lawn");
  EXPECT_EQ(shapeInWords(edging, {kNothingSeen, {}, {-1, -1, -1, -1}}), "nothing");
  edging.decides = Decides::path;
  EXPECT_EQ(shapeInWords(edging, {0, {0, kAnything, 0, kAnything}, {}}), "lawn, running on top and bottom");
  EXPECT_EQ(shapeInWords(edging, {0, {1, 1, 1, 1}, {}}), "lawn that runs on nowhere");
  edging.decides = Decides::both;
  EXPECT_EQ(shapeInWords(edging, {0, {1, 0, 0, 0}, {1, 1, 0, 1}}), "lawn, but its top and lower left are canal");
}

TEST(Edgings, TwoMaterialsBecomeOneAndAreKnownByBothColours) {
  const MadeInQuilt in(madeEdging(7, false));
  Edging edging = in.truth;
  edging.materials = {{"lawn", 0x00ff00}, {"grass", 0x11ee11}, {"canal", 0x0000ff}};
  edging.decides = Decides::corners;
  edging.grid = GridKind::orthogonal;
  edging.members = {{{in.sheet, 0}, {}, 1, {}, {0, 1, 2, 1}}, {{in.sheet, 1}, {}, 2, {}, {2, 2, 2, -1}}};
  const Edging merged = mergedMaterials(edging, 0, 1);
  EXPECT_EQ(whyNoEdging(merged), "");
  ASSERT_EQ(merged.materials.size(), 2u);
  EXPECT_EQ(merged.materials[0].also, std::vector<std::uint32_t>{0x11ee11});
  EXPECT_EQ(merged.materials[1].name, "canal");
  EXPECT_EQ(merged.members[0].corners, (std::vector<MaterialIndex>{0, 0, 1, 0}));
  EXPECT_EQ(merged.members[1].corners, (std::vector<MaterialIndex>{1, 1, 1, -1}));
  EXPECT_EQ(mergedMaterials(edging, 1, 1), edging);
  EXPECT_EQ(mergedMaterials(edging, 1, 7), edging);
}

}  // namespace uq::test
