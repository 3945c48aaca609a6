// Editing, undoing, memory and text of a 4096 × 4096 map. Limits: docs/architecture.md.
#include <benchmark/benchmark.h>
#include <malloc.h>
#include <zstd.h>

#include "bench/BigQuilt.h"
#include "bench/Measured.h"
#include "core/edit/LayCells.h"
#include "core/edit/Stroke.h"
#include "core/history/UndoLine.h"
#include "core/store/CellsText.h"

namespace uq::bench {

namespace {

constexpr int kSide = 4096;
constexpr int kEdits = 200;  // per measured round, at places all over the map

const Quilt& dense() {
  static const Quilt quilt = denseQuilt(kSide, 8);
  return quilt;
}

// What is in use: the heap, and the slabs of the chunks. Slabs count whole, or by the chunks taken from them.
std::size_t usedBytes(bool wholeSlabs) {
  const auto info = mallinfo2();
  const auto chunks = ChunkPool::figures();
  return info.uordblks + info.hblkhd +
         (wholeSlabs ? chunks.slabs * (std::size_t{8} << 20) : chunks.blocks * ChunkPool::kLargestBlock);
}

CellChange changeNumber(int i) { return {{(i * 613) % kSide, (i * 389) % kSide}, Cell({1, 23}, Turn{true, 2})}; }

// One round: kEdits steps of one cell, each keeping the quilt before it.
Quilt editRound(Quilt quilt, UndoLine& line) {
  const LayerAt at = layerOfBig(quilt, 3);
  for (int i = 0; i < kEdits; ++i) {
    const CellChange change = changeNumber(i);
    line.begin("Brush", at.map, quilt, at);
    quilt = layCells(quilt, at, {&change, 1});
    line.commit(quilt, at);
  }
  return quilt;
}

void editOneCell(benchmark::State& state) {
  const Quilt& quilt = dense();
  std::size_t bytes = 0;
  for (auto _ : state) {
    state.PauseTiming();
    auto line = std::make_unique<UndoLine>();
    const std::size_t before = usedBytes(false);
    state.ResumeTiming();
    Quilt after = editRound(quilt, *line);
    state.PauseTiming();
    bytes = (usedBytes(false) - before) / kEdits;
    line.reset();
    after = Quilt();
    state.ResumeTiming();
  }
  state.counters["each"] =
      benchmark::Counter(kEdits, benchmark::Counter::kIsIterationInvariantRate | benchmark::Counter::kInvert);
  state.counters["bytes_each"] = static_cast<double>(bytes);
}

void undoOneCell(benchmark::State& state) {
  const Quilt& quilt = dense();
  for (auto _ : state) {
    state.PauseTiming();
    UndoLine line;
    Quilt now = editRound(quilt, line);
    const Id tab = layerOfBig(now, 3).map;
    state.ResumeTiming();
    for (int i = 0; i < kEdits; ++i) now = line.takeBack(*line.planBack(tab, now), tab, now)->quilt;
    benchmark::DoNotOptimize(now);
  }
  state.counters["each"] =
      benchmark::Counter(kEdits, benchmark::Counter::kIsIterationInvariantRate | benchmark::Counter::kInvert);
}

void stroke200(benchmark::State& state) {
  const Quilt& quilt = dense();
  const LayerAt at = layerOfBig(quilt, 3);
  Quilt after;
  for (auto _ : state) {
    Stroke stroke(quilt, layingOn(at, Block::of(Cell({1, 23}, {}))));
    for (int i = 0; i < 200; ++i) {
      stroke.moveTo({1000 + i, 1000 + i / 3});
      after = stroke.quilt();
    }
  }
  UndoLine line;
  line.begin("Brush", at.map, quilt, at);
  line.commit(after, at);
  line.putPacked(UndoLine::pack(*line.toPack(0), nullptr));
  state.counters["packed_bytes"] = static_cast<double>(line.steps().front().packedBytes());
}

void memoryDense(benchmark::State& state) {
  double bytes = 0;
  for (auto _ : state) {
    const std::size_t before = usedBytes(true);
    const Quilt quilt = denseQuilt(kSide, 1);
    bytes = static_cast<double>(usedBytes(true) - before) / (double{kSide} * kSide);
  }
  state.counters["bytes_a_cell"] = bytes;
}

// The layer of the store benchmarks, and its cells as plain rows of 32 bits for the pair.
const Quilt& storeQuilt() {
  static const Quilt quilt = denseQuilt(kSide, 1);
  return quilt;
}
const CellGrid& storeCells() { return storeQuilt().layer(layerOfBig(storeQuilt(), 0))->cells; }
const std::vector<std::uint32_t>& plainCells() {
  static const std::vector<std::uint32_t> plain = [] {
    std::vector<std::uint32_t> rows;
    rows.reserve(std::size_t{kSide} * kSide);
    for (int y = 0; y < kSide; ++y) {
      for (int x = 0; x < kSide; ++x) rows.push_back(storeCells().at({x, y}).bits());
    }
    return rows;
  }();
  return plain;
}
std::vector<char> compressed() {
  const auto& plain = plainCells();
  std::vector<char> out(ZSTD_compressBound(plain.size() * 4));
  out.resize(ZSTD_compress(out.data(), out.size(), plain.data(), plain.size() * 4, 1));
  return out;
}

void storeWrite(benchmark::State& state) {
  const CellGrid& cells = storeCells();
  std::size_t size = 0;
  for (auto _ : state) size = writeCells(cells, storeQuilt()).size();
  state.counters["megabytes"] = static_cast<double>(size) / (1 << 20);
}

void storeWriteZstd(benchmark::State& state) {
  const auto& plain = plainCells();
  std::vector<char> out(ZSTD_compressBound(plain.size() * 4));
  std::size_t size = 0;
  for (auto _ : state) size = ZSTD_compress(out.data(), out.size(), plain.data(), plain.size() * 4, 1);
  state.counters["megabytes"] = static_cast<double>(size) / (1 << 20);
}

void storeRead(benchmark::State& state) {
  const std::string text = writeCells(storeCells(), storeQuilt());
  for (auto _ : state) {
    Quilt quilt = storeQuilt();
    const CellsRead read = readCells(text, quilt, 4, "big.cells");
    if (read.error) state.SkipWithError(read.error->reason.c_str());
  }
}

void storeReadZstd(benchmark::State& state) {
  const auto packed = compressed();
  std::vector<std::uint32_t> out(plainCells().size());
  for (auto _ : state) {
    benchmark::DoNotOptimize(ZSTD_decompress(out.data(), out.size() * 4, packed.data(), packed.size()));
  }
}

}  // namespace

void registerCellsBenchmarks() {
  measured("Edit/one_cell", editOneCell);
  measured("Undo/one_cell", undoOneCell);
  measured("Edit/stroke_200", stroke200);
  measured("Memory/dense", memoryDense)->Iterations(1);
  measured("Store/write", storeWrite);
  measured("Store/write_zstd", storeWriteZstd);
  measured("Store/read", storeRead);
  measured("Store/read_zstd", storeReadZstd);
}

}  // namespace uq::bench
