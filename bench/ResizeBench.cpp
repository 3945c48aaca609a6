// Moving the edges of a map of 4096 × 4096 × 8: no cell is touched. Limits: 20 µs, undo 5 µs; the count that is shown while
// an edge is dragged, a frame. A column in the middle of it: 100 ms.
#include <benchmark/benchmark.h>

#include <chrono>

#include "bench/BigQuilt.h"
#include "core/edit/ResizeMap.h"
#include "core/edit/RowsAndColumns.h"
#include "core/history/UndoLine.h"

namespace uq::bench {

namespace {

// How many layers have other cells afterwards, by revision: each would be a copy.
std::int64_t layersTouched(const Map& before, const Map& after) {
  std::int64_t touched = 0;
  for (std::size_t i = 0; i < before.layers.size(); ++i) touched += before.layers[i]->revision.is(after.layers[i]->revision) ? 0 : 1;
  return touched;
}

void resize(benchmark::State& state, EdgeMoves by) {
  const Quilt quilt = denseQuilt(4096, 8);
  const Map& map = *quilt.mapNamed("Big");
  const CellRect to = moved(map.bounds, by);
  Quilt after;
  for (auto _ : state) {
    after = withBounds(quilt, map.id, to);
    benchmark::DoNotOptimize(after);
  }
  state.counters["layers_touched"] = static_cast<double>(layersTouched(map, *after.mapNamed("Big")));
}

void undoResize(benchmark::State& state) {
  const Quilt quilt = denseQuilt(4096, 8);
  const Id id = quilt.mapNamed("Big")->id;
  const Quilt after = withBounds(quilt, id, moved(quilt.map(id)->bounds, {-400, 0, 0, 0}));
  for (auto _ : state) {
    state.PauseTiming();
    UndoLine line;
    line.begin("Resize Big", id, quilt, {});
    if (!line.commit(after, {})) return state.SkipWithError("nothing was resized");
    state.ResumeTiming();
    const auto plan = line.planBack(id, after);
    benchmark::DoNotOptimize(line.takeBack(*plan, id, after));
  }
}

// An edge dragged inwards, cell by cell: what it would cut is counted anew at each.
void count(benchmark::State& state) {
  const Quilt quilt = denseQuilt(4096, 8);
  const Map& map = *quilt.mapNamed("Big");
  double worst = 0;
  for (auto _ : state) {
    PaintedCount count(map);
    for (int cut = 1; cut <= 200; ++cut) {
      const auto begun = std::chrono::steady_clock::now();
      benchmark::DoNotOptimize(count.cutBy(moved(map.bounds, {-cut, 0, 0, 0})));
      const std::chrono::duration<double, std::milli> took = std::chrono::steady_clock::now() - begun;
      worst = std::max(worst, took.count());
    }
  }
  state.counters["worst_ms"] = worst;
}

// One column more before that one, on all layers.
void insertColumn(benchmark::State& state, int before) {
  const Quilt quilt = denseQuilt(4096, 8);
  const Map& map = *quilt.mapNamed("Big");
  const CellLines one{CellLines::Which::columns, map.bounds.x0 + before, 1};
  Quilt after;
  for (auto _ : state) {
    after = withLines(quilt, map.id, one);
    benchmark::DoNotOptimize(after);
    state.PauseTiming();
    after = Quilt();
    state.ResumeTiming();
  }
}

}  // namespace

void registerResizeBenchmarks() {
  benchmark::RegisterBenchmark("Resize/insert_column", insertColumn, 2048)->Unit(benchmark::kMillisecond)->UseRealTime();
  benchmark::RegisterBenchmark("Resize/insert_column/first", insertColumn, 0)->Unit(benchmark::kMillisecond)->UseRealTime();
  benchmark::RegisterBenchmark("Resize/grow_left", resize, EdgeMoves{40, 0, 0, 0})->Unit(benchmark::kMicrosecond);
  benchmark::RegisterBenchmark("Resize/crop", resize, EdgeMoves{-400, -300, -200, -100})->Unit(benchmark::kMicrosecond);
  benchmark::RegisterBenchmark("Resize/undo", undoResize)->Unit(benchmark::kMicrosecond);
  benchmark::RegisterBenchmark("Resize/count", count)->Iterations(3)->Unit(benchmark::kMillisecond);
}

}  // namespace uq::bench
