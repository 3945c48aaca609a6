// Another look for a part of a stretch, and the edges of what is in hand.
#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <set>

#include "core/Support.h"
#include "core/edit/ArrangeStamps.h"
#include "core/edit/FindStretch.h"
#include "core/edit/LookAlikes.h"
#include "core/edit/Stroke.h"

namespace uq::test {
namespace {

class LookAlikes : public testing::Test {
 protected:
  Cell tile(std::uint32_t number) const { return tileOf(quilt_, "street", number); }
  // Columns of those tiles, one or two rows high.
  InHand stretch(const std::vector<std::uint32_t>& row, int rows = 1) const {
    std::vector<Block::Part> parts;
    for (int v = 0; v < rows; ++v) {
      for (std::size_t u = 0; u < row.size(); ++u)
        parts.push_back({{static_cast<int>(u), v}, tile(row[u] + static_cast<std::uint32_t>(v))});
    }
    return InHand(Block(std::move(parts))).inManner(Manner::stretch);
  }
  static std::vector<std::uint32_t> numbers(const Block& block) {
    std::vector<std::uint32_t> all;
    for (const Block::Part& part : block.parts()) all.push_back(part.cell.tile().number);
    return all;
  }
  void keepMix(const std::vector<Block>& members) {
    InHand mix = InHand(members.front()).gathering(members[1]);
    for (std::size_t i = 2; i < members.size(); ++i) mix = mix.gathering(members[i]);
    quilt_ = keepStamp(quilt_, mix, "Look-alikes", ids_).quilt;
  }

  Quilt quilt_ = smallQuilt();
  IdSource ids_{3};
};

TEST_F(LookAlikes, AnEndGoesRoundTheMembersOfTheMixThatHasIt) {
  keepMix({Block::of(tile(3)), Block::of(tile(7)), Block::of(tile(9))});
  const InHand fence = stretch({1, 2, 3});
  EXPECT_EQ(numbers(withLookAlike(quilt_, fence, {1, 0}, 1).block), (std::vector<std::uint32_t>{1, 2, 7}));
  EXPECT_EQ(numbers(withLookAlike(quilt_, fence, {1, 0}, 2).block), (std::vector<std::uint32_t>{1, 2, 9}));
  EXPECT_EQ(numbers(withLookAlike(quilt_, fence, {1, 0}, -1).block), (std::vector<std::uint32_t>{1, 2, 9}));
  EXPECT_EQ(withLookAlike(quilt_, withLookAlike(quilt_, fence, {1, 0}, 2), {1, 0}, 1), fence) << "all the way round";
  EXPECT_EQ(withLookAlike(quilt_, fence, {-1, 0}, 1), fence) << "no mix has the other end";
  EXPECT_EQ(withLookAlike(smallQuilt(), fence, {1, 0}, 1), fence) << "nor is there any";
}

TEST_F(LookAlikes, AnEndOfSeveralTilesIsChangedAsAWhole) {
  const Block shut({{{0, 0}, tile(3)}, {{0, 1}, tile(4)}});
  const Block open({{{5, 5}, tile(8)}, {{5, 6}, tile(6)}});
  keepMix({shut, Block::of(tile(1)), open});
  const InHand shed = stretch({1, 2, 3}, 2);
  const InHand other = withLookAlike(quilt_, shed, {1, 0}, 1);
  EXPECT_EQ(numbers(other.block), (std::vector<std::uint32_t>{1, 2, 2, 3, 8, 6}));
  EXPECT_EQ(other.block.extent(), shed.block.extent());
  EXPECT_EQ(withLookAlike(quilt_, shed, {1, 1}, 1), other) << "its corner has no look-alikes of its own";
}

TEST_F(LookAlikes, TheMiddleThrowsThemByTheirWeights) {
  keepMix({Block::of(tile(2)), Block::of(tile(7)), Block::of(tile(9))});
  InHand fence = stretch({1, 2, 3});
  fence.grid = GridKind::orthogonal;
  fence.ends = {1, 1, 0, 0};
  fence.ends.shuffles = true;
  const LayerAt paving = layerOf(quilt_, "Yard", "Paving");
  quilt_ = quilt_.with(paving, LayerCells());
  const auto laid = [&](const InHand& hand, std::uint64_t seed) {
    StrokePlan plan = layingOn(paving, hand);
    plan.tool = Tool::box;
    plan.seed = seed;
    return stroked(quilt_, plan, {{-4, 0}, {7, 0}});
  };
  const auto row = [&](const Quilt& quilt) {
    std::vector<std::uint32_t> all;
    for (int x = -4; x <= 7; ++x) all.push_back(quilt.layer(paving)->cells.at({x, 0}).tile().number);
    return all;
  };
  std::set<std::uint32_t> seen;
  std::set<std::vector<std::uint32_t>> rows;
  for (std::uint64_t seed = 1; seed < 9; ++seed) {
    const Quilt quilt = laid(fence, seed);
    const auto one = row(quilt);
    EXPECT_EQ(one.front(), 1u) << "ends are fixed";
    EXPECT_EQ(one.back(), 3u);
    EXPECT_EQ(one, row(laid(fence, seed))) << "the seed and the place decide";
    seen.insert(one.begin() + 1, one.end() - 1);
    rows.insert(one);
    const auto found = findStretch(quilt, paving, {0, 0}, std::span(&fence, 1));
    ASSERT_TRUE(found) << "what lies there is the stretch, whatever was thrown";
    EXPECT_EQ(found->box, (CellRect{-4, 0, 8, 1}));
  }
  EXPECT_EQ(seen, (std::set<std::uint32_t>{2, 7, 9}));
  EXPECT_GT(rows.size(), 4u);
  fence.ends.shuffles = false;
  EXPECT_EQ(row(laid(fence, 1)), (std::vector<std::uint32_t>{1, 2, 2, 2, 2, 2, 2, 2, 2, 2, 2, 3}));
}

TEST_F(LookAlikes, PartsAreTheEndsAndAllOfItWhereThereIsNone) {
  InHand pond = stretch({1, 2, 3, 4}, 3);
  pond.ends = {1, 2, 1, 0};
  EXPECT_EQ(placesOf(pond, {-1, -1}), (CellRect{0, 0, 1, 1}));
  EXPECT_EQ(placesOf(pond, {1, 0}), (CellRect{2, 0, 4, 3}));
  EXPECT_EQ(placesOf(pond, {0, 1}), (CellRect{0, 0, 4, 3})) << "it has no lower end";
}

TEST_F(LookAlikes, TheEdgesOfWhatIsInHandMove) {
  InHand hand = stretch({1, 2, 3});
  const CellRect all = hand.wholeExtent();
  EXPECT_EQ(numbers(hand.fittedTo({all.x0 - 2, all.y0, all.x1, all.y1}).block),
            (std::vector<std::uint32_t>{1, 1, 1, 2, 3}));
  const InHand cut = hand.fittedTo({all.x0 + 1, all.y0, all.x1, all.y1});
  EXPECT_EQ(numbers(cut.block), (std::vector<std::uint32_t>{2, 3}));
  EXPECT_EQ(cut.ends.left + cut.ends.right, 2);
  EXPECT_EQ(hand.fittedTo({}), hand) << "something stays in hand";
  EXPECT_EQ(hand.gathering(Block::of(tile(5))).fittedTo({0, 0, 9, 9}), hand.gathering(Block::of(tile(5))));
}

RC_GTEST_FIXTURE_PROP(LookAlikes, WhatWasAddedAtAnEdgeIsDroppedAgain, ()) {
  const auto row = *rc::gen::nonEmpty(rc::gen::container<std::vector<std::uint32_t>>(rc::gen::inRange(1u, 20u)));
  const InHand hand = InHand(stretch(row, *rc::gen::inRange(1, 4)).block);
  const CellRect all = hand.wholeExtent();
  const CellRect more{all.x0 - *rc::gen::inRange(0, 4), all.y0 - *rc::gen::inRange(0, 4),
                      all.x1 + *rc::gen::inRange(0, 4), all.y1 + *rc::gen::inRange(0, 4)};
  const InHand grown = hand.fittedTo(more);
  RC_ASSERT(grown.wholeExtent() == more);
  RC_ASSERT(grown.fittedTo(all).block == hand.block);
}

}  // namespace
}  // namespace uq::test
