#include <rapidcheck/gtest.h>

#include <map>
#include <set>
#include <thread>

#include "core/cells/CellGrid.h"

namespace uq {

namespace {

Cell tile(std::uint32_t number) { return number == 0 ? Cell{} : Cell({1, number}, {}); }

// A grid and the plain map that it must equal, after the same random edits.
struct Twins {
  CellGrid grid;
  std::map<CellPos, Cell> plain;
};

Twins randomTwins() {
  Twins twins;
  const int edits = *rc::gen::inRange(0, 25);
  for (int i = 0; i < edits; ++i) {
    const CellPos at{*rc::gen::inRange(-140, 140), *rc::gen::inRange(-140, 140)};
    const Cell cell = tile(*rc::gen::inRange(0u, 3u));
    const bool area = *rc::gen::arbitrary<bool>();
    const CellRect rect{at.x, at.y, at.x + (area ? *rc::gen::inRange(1, 140) : 1),
                        at.y + (area ? *rc::gen::inRange(1, 140) : 1)};
    if (area) {
      twins.grid.fill(rect, cell);
    } else {
      twins.grid.set(at, cell);
    }
    for (int y = rect.y0; y < rect.y1; ++y) {
      for (int x = rect.x0; x < rect.x1; ++x) {
        if (cell.empty()) {
          twins.plain.erase({x, y});
        } else {
          twins.plain[{x, y}] = cell;
        }
      }
    }
  }
  return twins;
}

std::map<CellPos, Cell> contents(const CellGrid& grid) {
  std::map<CellPos, Cell> cells;
  grid.forEachPainted({-1000, -1000, 1000, 1000}, [&](CellPos at, Cell cell) { cells[at] = cell; });
  return cells;
}

}  // namespace

RC_GTEST_PROP(CellGrid, HoldsWhatAPlainMapHolds, ()) {
  const Twins twins = randomTwins();
  RC_ASSERT(contents(twins.grid) == twins.plain);
  CellRect used;
  for (const auto& [at, cell] : twins.plain) {
    RC_ASSERT(twins.grid.at(at) == cell);
    used = used.united({at.x, at.y, at.x + 1, at.y + 1});
  }
  RC_ASSERT(twins.grid.usedBounds() == used);
  RC_ASSERT(twins.grid.empty() == twins.plain.empty());
}

RC_GTEST_PROP(CellGrid, EqualContentsAreEqualHoweverTheyWerePainted, ()) {
  const Twins twins = randomTwins();
  CellGrid again;
  for (const auto& [at, cell] : twins.plain) again.set(at, cell);
  RC_ASSERT(again == twins.grid);
}

RC_GTEST_PROP(CellGrid, DifferencesAreTheSmallestRectanglesOfEachChunk, ()) {
  const Twins a = randomTwins();
  CellGrid b = a.grid;
  const int edits = *rc::gen::inRange(0, 6);
  for (int i = 0; i < edits; ++i) {
    b.set({*rc::gen::inRange(-200, 200), *rc::gen::inRange(-200, 200)}, tile(*rc::gen::inRange(0u, 3u)));
  }
  std::map<std::pair<int, int>, CellRect> expected;  // by chunk
  for (int y = -200; y < 200; ++y) {
    for (int x = -200; x < 200; ++x) {
      if (a.grid.at({x, y}) == b.at({x, y})) continue;
      const ChunkPos chunk = ChunkPos::of({x, y});
      CellRect& rect = expected[{chunk.cx, chunk.cy}];
      rect = rect.united({x, y, x + 1, y + 1});
    }
  }
  std::map<std::pair<int, int>, CellRect> found;
  for (const CellRect& rect : CellGrid::differences(a.grid, b)) {
    const ChunkPos chunk = ChunkPos::of({rect.x0, rect.y0});
    RC_ASSERT(found.emplace(std::pair(chunk.cx, chunk.cy), rect).second);
  }
  RC_ASSERT(found == expected);
  RC_ASSERT(CellGrid::differences(a.grid, b) == CellGrid::differences(b, a.grid));
}

TEST(CellGrid, AKeptCopySharesAllButTheEditedChunk) {
  CellGrid now;
  for (int y = -300; y < 300; ++y) {
    for (int x = -300; x < 300; ++x) now.set({x, y}, tile(1 + static_cast<std::uint32_t>((x + 300) % 7)));
  }
  const CellGrid kept = now;
  now.set({5, 5}, tile(9));
  EXPECT_EQ(kept.at({5, 5}), tile(1 + 305 % 7));
  int same = 0;
  int different = 0;
  now.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    ++(chunk.dense() == kept.chunk(chunk.at).dense() ? same : different);
    EXPECT_EQ(chunk.key() == kept.chunk(chunk.at).key(), chunk.dense() == kept.chunk(chunk.at).dense());
  });
  EXPECT_EQ(different, 1);
  EXPECT_GT(same, 80);
}

TEST(CellGrid, AChunkIsKeptInTheLeastFormThatHoldsItsCells) {
  const auto blocks = ChunkPool::figures().blocks;
  CellGrid grid;
  grid.fill({0, 0, 128, 64}, tile(3));
  EXPECT_TRUE(grid.chunk({0, 0}).isUniform());
  grid.set({10, 10}, tile(4));
  EXPECT_FALSE(grid.chunk({0, 0}).isUniform());
  EXPECT_EQ(ChunkPool::figures().blocks, blocks) << "two cells take one bit each";
  grid.set({11, 10}, tile(5));
  EXPECT_EQ(ChunkPool::figures().blocks, blocks + 1);
  grid.fill({0, 0, 64, 64}, tile(3));
  EXPECT_TRUE(grid.chunk({0, 0}).isUniform());
  EXPECT_EQ(ChunkPool::figures().blocks, blocks);
}

TEST(CellGrid, OneTilePaintedOnAnEmptyLayerTakesNoDenseChunk) {
  const auto blocks = ChunkPool::figures().blocks;
  CellGrid grid;
  for (int i = 0; i < 500; ++i) grid.set({i, i * i % 311}, tile(7));
  for (int i = 0; i < 500; i += 3) grid.set({i, i * i % 311}, {});
  EXPECT_EQ(ChunkPool::figures().blocks, blocks);
}

RC_GTEST_PROP(CellGrid, ASetIsFilledAsItsCellsOneByOne, ()) {
  Twins twins = randomTwins();
  CellSet cells;
  const int rects = *rc::gen::inRange(0, 5);
  for (int i = 0; i < rects; ++i) {
    const CellPos at{*rc::gen::inRange(-700, 700), *rc::gen::inRange(-140, 140)};
    cells = cells.united(CellSet({at.x, at.y, at.x + *rc::gen::inRange(1, 700), at.y + *rc::gen::inRange(1, 140)}));
  }
  const Cell cell = tile(*rc::gen::inRange(0u, 4u));
  CellGrid plain = twins.grid;
  cells.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) plain.set({first.x + i, first.y}, cell);
  });
  twins.grid.fill(cells, cell);
  RC_ASSERT(twins.grid == plain);
}

RC_GTEST_PROP(CellGrid, AChunkTellsTheSameInEveryWay, ()) {
  const Twins twins = randomTwins();
  const auto isTwo = [](Cell cell) { return cell == tile(2); };
  for (int cy = -3; cy < 3; ++cy) {
    for (int cx = -3; cx < 3; ++cx) {
      const CellGrid::ChunkView chunk = twins.grid.chunk({cx, cy});
      const ChunkCells cells = chunk.cells();
      const ChunkRows rows = chunk.rowsWhere(isTwo);
      std::set<Cell> there;
      for (int y = 0; y < kChunkSide; ++y) {
        const auto row = chunk.row(y);
        for (int x = 0; x < kChunkSide; ++x) {
          const Cell cell = chunk.cell(x, y);
          there.insert(cell);
          RC_ASSERT(cells[static_cast<std::size_t>(y * kChunkSide + x)] == cell);
          RC_ASSERT(row[static_cast<std::size_t>(x)] == cell);
          RC_ASSERT((rows[static_cast<std::size_t>(y)] >> x & 1) == isTwo(cell));
        }
      }
      std::set<Cell> occurring;
      chunk.forEachOccurring([&](Cell cell) { occurring.insert(cell); });
      RC_ASSERT(occurring == there);
      RC_ASSERT(chunk.any(isTwo) == there.contains(tile(2)));
      RC_ASSERT(chunk.isUniform() == (there.size() == 1));
      RC_ASSERT(chunk.blank() == (there == std::set<Cell>{Cell()}));
      CellGrid again;
      again.setChunk({cx, cy}, cells);
      RC_ASSERT(again.chunk({cx, cy}).cells() == cells);
      RC_ASSERT((again.chunk({cx, cy}).dense() != nullptr) == (there.size() > 2));
    }
  }
}

TEST(CellGrid, LayingWhatIsThereKeepsTheRevision) {
  CellGrid grid;
  grid.set({1, 1}, tile(3));
  grid.set({2, 1}, tile(4));
  const auto key = grid.chunk({0, 0}).key();
  EXPECT_FALSE(grid.set({1, 1}, tile(3)));
  grid.fill({1, 1, 2, 2}, tile(3));
  EXPECT_EQ(grid.chunk({0, 0}).key(), key);
  grid.set({1, 1}, tile(5));
  EXPECT_NE(grid.chunk({0, 0}).key(), key);
}

TEST(CellGrid, ChunksAreVisitedRowByRow) {
  CellGrid grid;
  for (CellPos at : {CellPos{900, -900}, CellPos{-900, -900}, CellPos{0, 0}, CellPos{70, 0}, CellPos{-1, 500}}) {
    grid.set(at, tile(1));
  }
  std::vector<std::pair<int, int>> order;
  grid.forEachChunk([&](const CellGrid::ChunkView& chunk) { order.emplace_back(chunk.at.cy, chunk.at.cx); });
  EXPECT_EQ(order.size(), 5u);
  EXPECT_TRUE(std::is_sorted(order.begin(), order.end()));
}

TEST(CellGrid, TalliesTilesInsideTheBoundsWithoutTheirTurns) {
  CellGrid grid;
  grid.set({0, 0}, Cell({1, 5}, {}));
  grid.set({1, 0}, Cell({1, 5}, {true, 2}));
  grid.set({9, 0}, Cell({1, 5}, {}));
  EXPECT_EQ(grid.tally({0, 0, 4, 4}), (std::map<TileRef, std::int64_t>{{{1, 5}, 2}}));
}

TEST(ChunkPool, TakesBackWhatIsDroppedAndUsesItAgain) {
  const auto before = ChunkPool::figures();
  {
    CellGrid grid;
    // Three kinds of cells make a chunk dense: 1,600 chunks, more than three slabs hold.
    for (int y = 0; y < 40; ++y) {
      for (int x = 0; x < 40; ++x) {
        grid.set({x * kChunkSide, y * kChunkSide}, tile(1));
        grid.set({x * kChunkSide, y * kChunkSide + 1}, tile(2));
      }
    }
    EXPECT_EQ(ChunkPool::figures().blocks, before.blocks + 1600);
    EXPECT_GE(ChunkPool::figures().slabs, before.slabs + 3);
    const CellGrid copy = grid;
    EXPECT_EQ(ChunkPool::figures().blocks, before.blocks + 1600);
    grid.set({1, 1}, tile(2));
    EXPECT_EQ(ChunkPool::figures().blocks, before.blocks + 1601);
  }
  EXPECT_EQ(ChunkPool::figures().blocks, before.blocks);
  EXPECT_LE(ChunkPool::figures().slabs, before.slabs + 1);
}

TEST(ChunkPool, ServesSeveralThreads) {
  const auto before = ChunkPool::figures().blocks;
  CellGrid shared;
  for (int x = 0; x < 200; ++x) {
    shared.set({x * kChunkSide, 0}, tile(1));
    shared.set({x * kChunkSide, 1}, tile(4));
  }
  const auto work = [&shared](std::uint32_t number) {
    for (int round = 0; round < 30; ++round) {
      CellGrid own = shared;
      for (int x = 0; x < 200; ++x) own.set({x * kChunkSide + 1, 0}, tile(number));
      for (int x = 0; x < 200; ++x) EXPECT_EQ(own.at({x * kChunkSide, 0}), tile(1));
    }
  };
  std::thread one(work, 2u);
  std::thread other(work, 3u);
  one.join();
  other.join();
  EXPECT_EQ(shared.at({1, 0}), Cell{});
  shared = {};
  EXPECT_EQ(ChunkPool::figures().blocks, before);
}

TEST(Cell, PacksSlotNumberAndTurn) {
  const Cell cell({kLastSlot, kLastTileNumber}, {true, 3});
  EXPECT_EQ(cell.tile(), (TileRef{kLastSlot, kLastTileNumber}));
  EXPECT_EQ(cell.turn(), (Turn{true, 3}));
  EXPECT_TRUE(Cell{}.empty());
  EXPECT_FALSE(Cell({1, 0}, {}).empty());
}

}  // namespace uq
