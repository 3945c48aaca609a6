// The painting hand on 4096 × 4096 cells: boxes and ovals drawn over all of it, a broad stroke, a fill through the
// tool, and 100,000 cells thrown again. Limits: docs/architecture.md.
#include <benchmark/benchmark.h>

#include "bench/BigQuilt.h"
#include "bench/Measured.h"
#include "core/edit/Stroke.h"
#include "core/sheets/LooseJoints.h"

namespace uq::bench {

namespace {

constexpr int kSide = 4096;
constexpr int kThrown = 316;  // cells each way: 99,856 cells

// One layer that is empty, over dense ones.
const Quilt& ground() {
  static const Quilt quilt = [] {
    Quilt dense = denseQuilt(kSide, 8);
    return dense.with(layerOfBig(dense, 7), LayerCells());
  }();
  return quilt;
}

StrokePlan planFor(Tool tool) {
  StrokePlan plan = layingOn(layerOfBig(ground(), 7), Block::of(Cell({1, 23}, {})));
  plan.tool = tool;
  return plan;
}

// A move from one corner of the map to the other, as it is made each time the pointer moves.
void shape(benchmark::State& state, Tool tool, GridKind kind) {
  Map map = *ground().map(layerOfBig(ground(), 7).map);
  map.grid = nearestShape(kind, {32, 32});
  Stroke stroke(ground().with(std::move(map)), planFor(tool));
  stroke.moveTo({0, 0});
  int to = kSide - 1;
  for (auto _ : state) {
    stroke.moveTo({to, to});
    benchmark::DoNotOptimize(stroke.quilt());
    to = to == kSide - 1 ? kSide - 2 : kSide - 1;
  }
  int chunks = 0;
  stroke.cells().forEachChunk([&](ChunkPos, const ChunkRows*) { ++chunks; });
  state.counters["chunks"] = chunks;
}

void registerShapes() {
  const struct {
    const char* name;
    Tool tool;
  } shapes[] = {{"Draw/box", Tool::box}, {"Draw/oval", Tool::oval}};
  for (const auto& [name, tool] : shapes) {
    for (const GridKind kind : kGridKinds) {
      const bool plain = kind == GridKind::orthogonal;
      const std::string named = plain ? name : std::string(name) + "/" + std::string(gridName(kind));
      measured(benchmark::RegisterBenchmark(
          named.c_str(), [tool = tool, kind](benchmark::State& state) { shape(state, tool, kind); }));
    }
  }
}

// One move of a fast hand with a brush of nine cells, over dense cells.
void strokeWide9(benchmark::State& state) {
  StrokePlan plan = planFor(Tool::brush);
  plan.layer = layerOfBig(ground(), 3);
  plan.options.width = 9;
  for (auto _ : state) {
    state.PauseTiming();
    Stroke stroke(ground(), plan);
    stroke.moveTo({1000, 1000});
    state.ResumeTiming();
    stroke.moveTo({1060, 1020});
    benchmark::DoNotOptimize(stroke.quilt());
  }
}

void fillByTool(benchmark::State& state) {
  StrokePlan plan = planFor(Tool::fill);
  plan.options.asSeen = false;
  for (auto _ : state) {
    Stroke stroke(ground(), plan);
    stroke.moveTo({2051, 2053});
    benchmark::DoNotOptimize(stroke.quilt());
  }
}

void throwAgain(benchmark::State& state) {
  StrokePlan plan = planFor(Tool::box);
  plan.hand = plan.hand.gathering(Block::of(Cell({1, 24}, {}))).gathering(Block::of(Cell({1, 25}, {})));
  for (auto _ : state) {
    ++plan.seed;
    Stroke stroke(ground(), plan);
    stroke.moveTo({1000, 1000});
    stroke.moveTo({1000 + kThrown - 1, 1000 + kThrown - 1});
    benchmark::DoNotOptimize(stroke.quilt());
  }
}

// A look for loose joints over a whole dense layer of 4096 × 4096 cells, whose sheet shows noise.
void looseJointsOfALayer(benchmark::State& state) {
  static const std::vector<std::uint32_t> pixels = [] {
    std::vector<std::uint32_t> noise(512 * 512);
    for (std::size_t i = 0; i < noise.size(); ++i) noise[i] = 0xff000000u | static_cast<std::uint32_t>(i * 2654435761u >> 8);
    return noise;
  }();
  const PixelView view{pixels.data(), 512, 512, 512, true};
  const Quilt& quilt = ground();
  const Map& map = *quilt.map(layerOfBig(quilt, 0).map);
  for (auto _ : state) {
    JointBook book(TileSides(quilt, map.grid, [&](TileRef tile) -> std::optional<TilePixels> {
      const int place = static_cast<int>(tile.number % 256);
      return TilePixels{view, {place % 16 * 32, place / 16 * 32, 32, 32}};
    }));
    benchmark::DoNotOptimize(looseJoints(book, map, 0, map.bounds, 100));
  }
}

}  // namespace

void registerHandBenchmarks() {
  registerShapes();
  measured("Stroke/wide_9", strokeWide9);
  measured("Fill/by_tool", fillByTool);
  measured("Mix/throw_again", throwAgain);
  measured("Joints/layer", looseJointsOfALayer);
}

}  // namespace uq::bench
