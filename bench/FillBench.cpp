// Filling 4096 × 4096 cells: an empty map, one of scattered walls, one of rooms and doors, and the same two as plain
// bytes with OpenCV's floodFill. On one thread. Limits: docs/architecture.md.
#include <opencv2/imgproc.hpp>

#include "bench/Measured.h"
#include "core/cells/FloodFill.h"

namespace uq::bench {

namespace {

constexpr int kSide = 4096;
constexpr CellRect kMap{0, 0, kSide, kSide};
constexpr CellPos kMiddle{kSide / 2 + 3, kSide / 2 + 5};  // inside a room
const Cell kFloor({1, 5}, {});
const Cell kWall({1, 9}, {});

template <class IsWall>
CellGrid drawn(IsWall&& isWall) {
  CellGrid cells;
  for (int cy = 0; cy < kSide / kChunkSide; ++cy) {
    for (int cx = 0; cx < kSide / kChunkSide; ++cx) {
      ChunkCells chunk;
      for (int y = 0; y < kChunkSide; ++y) {
        for (int x = 0; x < kChunkSide; ++x) {
          const bool wall = isWall(cx * kChunkSide + x, cy * kChunkSide + y);
          chunk[static_cast<std::size_t>(y * kChunkSide + x)] = wall ? kWall : kFloor;
        }
      }
      cells.setChunk({cx, cy}, chunk);
    }
  }
  return cells;
}

// 30 % of the cells, scattered; never the middle, where the fill begins.
const CellGrid& walls() {
  static const CellGrid cells = drawn([](int x, int y) {
    std::uint64_t mixed = (static_cast<std::uint64_t>(x) << 32 | static_cast<std::uint64_t>(y)) * 0x9e3779b97f4a7c15u;
    mixed = (mixed ^ mixed >> 29) * 0xbf58476d1ce4e5b9u;
    const bool middle = std::abs(x - kMiddle.x) < 2 && std::abs(y - kMiddle.y) < 2;
    return !middle && (mixed >> 40) % 100 < 30;
  });
  return cells;
}

// Rooms of 24 × 16 cells, a door in each wall; two cells high, so that it leads through where rows are staggered, too.
const CellGrid& rooms() {
  static const CellGrid cells = drawn([](int x, int y) {
    const int u = x % 24;
    const int v = y % 16;
    const int door = 7 + x / 24 % 3;
    return (u == 0 && v != door && v != door + 1) || (v == 0 && u != 11 + y / 16 % 5);
  });
  return cells;
}

const CellGrid& empty() {
  static const CellGrid cells;
  return cells;
}

using Cells = const CellGrid& (*)();

void fill(benchmark::State& state, Cells cells, GridKind kind) {
  const auto grid = makeGrid(nearestShape(kind, {32, 32}));
  const TileRef tile = cells().at(kMiddle).tile();
  std::int64_t filled = 0;
  for (auto _ : state) {
    const CellSet region = floodFill(*grid, kMap, kMiddle, holdsOneOf(cells(), {tile}));
    benchmark::DoNotOptimize(region);
    state.PauseTiming();
    filled = region.count();
    state.ResumeTiming();
  }
  state.counters["cells"] = static_cast<double>(filled);
}

// OpenCV fills in place; the copy of the bytes before each fill is not measured.
void fillOpenCv(benchmark::State& state, Cells cells) {
  cv::setNumThreads(1);
  cv::Mat1b bytes(kSide, kSide);
  for (int y = 0; y < kSide; ++y) {
    for (int x = 0; x < kSide; ++x) bytes(y, x) = cells().at({x, y}) == kFloor ? 255 : 0;
  }
  int filled = 0;
  for (auto _ : state) {
    state.PauseTiming();
    cv::Mat1b copy = bytes.clone();
    state.ResumeTiming();
    filled = cv::floodFill(copy, cv::Point(kMiddle.x, kMiddle.y), 128, nullptr, {}, {}, 4);
  }
  state.counters["cells"] = filled;
}

}  // namespace

void registerFillBenchmarks() {
  const struct {
    const char* name;
    Cells cells;
  } maps[] = {{"FloodFill/empty", empty}, {"FloodFill/walls", walls}, {"FloodFill/rooms", rooms}};
  for (const auto& [name, cells] : maps) {
    const auto on = [cells = cells](GridKind kind) {
      return [cells, kind](benchmark::State& state) { fill(state, cells, kind); };
    };
    measured(benchmark::RegisterBenchmark(name, on(GridKind::orthogonal)));
    if (cells != empty) {
      const auto pair = [cells = cells](benchmark::State& state) { fillOpenCv(state, cells); };
      measured(benchmark::RegisterBenchmark((std::string(name) + "_opencv").c_str(), pair));
    }
    for (const GridKind kind : kGridKinds) {
      if (kind == GridKind::orthogonal) continue;
      const std::string other = std::string(name) + "/" + std::string(gridName(kind));
      measured(benchmark::RegisterBenchmark(other.c_str(), on(kind)));
    }
  }
}

}  // namespace uq::bench
