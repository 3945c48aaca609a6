// What can be in hand: blocks, their ends, mixes; and chance, which gives the same place the same throw.
#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include <map>

#include "core/Support.h"
#include "core/edit/Chance.h"
#include "core/grid/Turn.h"

namespace uq::test {
namespace {

Cell numbered(std::uint32_t number) { return Cell({1, number}, {}); }

Block blockOf(int width, int height) {
  std::vector<Block::Part> parts;
  for (int v = 0; v < height; ++v) {
    for (int u = 0; u < width; ++u) parts.push_back({{u, v}, numbered(static_cast<std::uint32_t>(1 + u + v * width))});
  }
  return Block(std::move(parts));
}

TEST(InHand, EndsAreOneEachWhereABlockHasThreeColumnsOrMore) {
  EXPECT_EQ(usualEnds(blockOf(3, 1)), (StretchEnds{1, 1, 0, 0}));
  EXPECT_EQ(usualEnds(blockOf(2, 1)), (StretchEnds{1, 0, 0, 0}));
  EXPECT_EQ(usualEnds(blockOf(1, 4)), (StretchEnds{0, 0, 1, 1}));
  EXPECT_EQ(usualEnds(blockOf(5, 5)), (StretchEnds{1, 1, 1, 1}));
}

TEST(InHand, EndsNeverTakeMoreThanThereIs) {
  const StretchEnds ends = fittingEnds({3, 9, 0, 2}, {0, 0, 4, 1});
  EXPECT_LE(ends.left + ends.right, 4);
  EXPECT_LE(ends.top + ends.bottom, 1);
}

TEST(InHand, WhatIsGatheredIsAMixAndWeighsMoreEachTime) {
  const InHand grass(Block::of(numbered(1)));
  const InHand mix = grass.gathering(Block::of(numbered(2))).gathering(Block::of(numbered(2)));
  EXPECT_EQ(mix.manner, Manner::mix);
  ASSERT_EQ(mix.members.size(), 2u);
  EXPECT_EQ(mix.members[0].weight, 1);
  EXPECT_EQ(mix.members[1].weight, 2);
  EXPECT_TRUE(mix.byChance());
  EXPECT_FALSE(mix.isOneTile());
  std::vector<std::uint32_t> numbers;
  mix.forEachCell([&](Cell cell) { numbers.push_back(cell.tile().number); });
  EXPECT_THAT(numbers, testing::IsSupersetOf({1u, 2u}));
}

TEST(InHand, InAnotherMannerAndBackItIsTheSame) {
  const InHand block(blockOf(3, 2));
  const InHand stretch = block.inManner(Manner::stretch);
  EXPECT_EQ(stretch.ends, usualEnds(block.block));
  EXPECT_EQ(stretch.inManner(Manner::asItIs).block, block.block);
  EXPECT_FALSE(block.byChance());
}

RC_GTEST_PROP(InHand, ChangingEachBlockReachesAllOfThem, ()) {
  InHand hand(blockOf(*rc::gen::inRange(1, 4), *rc::gen::inRange(1, 4)));
  hand.others.push_back({"in front", 1, Block::of(numbered(90))});
  const InHand moved = hand.changed([](const Block& block) {
    std::vector<Block::Part> parts = block.parts();
    for (Block::Part& part : parts) part.at = part.at + SidePos{2, -1};
    return Block(std::move(parts));
  });
  const CellRect before = hand.wholeExtent();
  RC_ASSERT(moved.wholeExtent() == (CellRect{before.x0 + 2, before.y0 - 1, before.x1 + 2, before.y1 - 1}));
}

rc::Gen<Turn> turnOn(int order) {
  return rc::gen::exec([order] {
    return Turn{*rc::gen::arbitrary<bool>(), static_cast<std::uint8_t>(*rc::gen::inRange(0, order))};
  });
}

RC_GTEST_PROP(Turn, IsAGroupWithOneSpellingForEachPlacement, ()) {
  const int order = *rc::gen::element(4, 6);
  const Turn a = *turnOn(order);
  const Turn b = *turnOn(order);
  const Turn c = *turnOn(order);
  RC_ASSERT(combined(combined(a, b, order), c, order) == combined(a, combined(b, c, order), order));
  RC_ASSERT(combined(a, Turn{}, order) == a);
  RC_ASSERT(combined(Turn{}, a, order) == a);
  RC_ASSERT(Turn::isCode(a.code(), order));
  RC_ASSERT(Turn::fromCode(a.code()) == a);
  // Some turn takes it back.
  bool back = false;
  for (std::uint32_t code = 0; code < Turn::kCodes; ++code) {
    if (Turn::isCode(code, order)) back = back || combined(a, Turn::fromCode(code), order) == Turn{};
  }
  RC_ASSERT(back);
}

RC_GTEST_PROP(Turn, AWholeRoundAndTwoMirrorsAreNothing, ()) {
  const int order = *rc::gen::element(4, 6);
  Turn turned = *turnOn(order);
  const Turn before = turned;
  for (int i = 0; i < order; ++i) turned = combined(turned, turnOf(Turning::right, order), order);
  RC_ASSERT(turned == before);
  for (const Turning mirror : {Turning::mirrorAcross, Turning::mirrorDown}) {
    RC_ASSERT(combined(combined(before, turnOf(mirror, order), order), turnOf(mirror, order), order) == before);
  }
  RC_ASSERT(combined(turnOf(Turning::left, order), turnOf(Turning::right, order), order) == Turn{});
}

RC_GTEST_PROP(Chance, GivesAPlaceTheSameThrowAndAnotherKindAnother, ()) {
  const auto seed = *rc::gen::arbitrary<std::uint64_t>();
  const SidePos at{*rc::gen::inRange(-5000, 5000), *rc::gen::inRange(-5000, 5000)};
  RC_ASSERT(thrown(seed, at, 1) == thrown(seed, at, 1));
  RC_ASSERT(thrown(seed, at, 1) != thrown(seed, at, 2));
  RC_ASSERT(thrown(seed, at, 1) != thrown(seed + 1, at, 1));
  const std::size_t count = *rc::gen::inRange<std::size_t>(1, 300);
  RC_ASSERT(pick(thrown(seed, at), count) < count);
}

TEST(Chance, FavoursNobody) {
  std::map<std::size_t, int> often;
  constexpr int kSide = 120;
  for (int v = 0; v < kSide; ++v) {
    for (int u = 0; u < kSide; ++u) ++often[pick(thrown(77, {u, v}), 6)];
  }
  ASSERT_EQ(often.size(), 6u);
  for (const auto& [number, count] : often) EXPECT_NEAR(count, kSide * kSide / 6, kSide * kSide / 60) << number;
  // Neighbours are strangers: as many pairs are alike as chance would have it.
  int alike = 0;
  for (int v = 0; v < kSide; ++v) {
    for (int u = 1; u < kSide; ++u) alike += pick(thrown(77, {u, v}), 6) == pick(thrown(77, {u - 1, v}), 6) ? 1 : 0;
  }
  EXPECT_NEAR(alike, kSide * kSide / 6, kSide * kSide / 40);
}

}  // namespace
}  // namespace uq::test
