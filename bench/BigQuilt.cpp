#include "bench/BigQuilt.h"

#include <cstdlib>
#include <random>

#include "core/store/QuiltStore.h"

namespace uq::bench {

namespace {

constexpr int kPatch = 16;  // cells, each way

CellGrid patched(const CellGrid& from, CellRect bounds, int side) {
  std::mt19937 random(7);
  CellGrid cells;
  const auto offset = [&](int room) { return static_cast<int>(random() % static_cast<unsigned>(room)); };
  for (int cy = 0; cy < side; cy += kChunkSide) {
    for (int cx = 0; cx < side; cx += kChunkSide) {
      ChunkCells chunk{};
      for (int py = 0; py < kChunkSide; py += kPatch) {
        for (int px = 0; px < kChunkSide; px += kPatch) {
          const CellPos at{bounds.x0 + offset(bounds.width() - kPatch), bounds.y0 + offset(bounds.height() - kPatch)};
          for (int y = 0; y < kPatch; ++y) {
            for (int x = 0; x < kPatch; ++x) {
              chunk[static_cast<std::size_t>((py + y) * kChunkSide + px + x)] = from.at({at.x + x, at.y + y});
            }
          }
        }
      }
      cells.setChunk(ChunkPos::of({cx, cy}), chunk);
    }
  }
  return cells;
}

Quilt withBig(int side, int layers, bool dense) {
  const Quilt demo = demoQuilt();
  const Map& yard = *demo.mapNamed("Depot Yard");
  IdSource ids(1);
  Map big = yard;
  big.id = ids.next();
  big.name = "Big";
  big.folder = "big";
  big.bounds = {0, 0, side, side};
  big.layers.clear();
  for (int i = 0; i < layers; ++i) {
    const auto from = dense ? 0 : static_cast<std::size_t>(i) % yard.layers.size();
    Layer layer = yard.layers[from].read();
    layer.id = ids.next();
    layer.file = "layer-" + std::to_string(i);
    layer.cells = patched(layer.cells, yard.bounds, side);
    big.layers.emplace_back(std::move(layer));
  }
  return demo.with(std::move(big));
}

}  // namespace

Quilt isometricQuilt(int side) {
  const Quilt demo = demoQuilt();
  IdSource ids(2);
  Map big = *demo.mapNamed("Quayside");
  const CellRect bounds = big.bounds;
  big.id = ids.next();
  big.name = "Isometric";
  big.folder = "isometric";
  big.bounds = {0, 0, side, side};
  for (Shared<Layer>& layer : big.layers) {
    layer.edit([&](Layer& one) {
      one.id = ids.next();
      one.cells = patched(one.cells, bounds, side);
      one.lifts = {};
    });
  }
  return demo.with(std::move(big));
}

Quilt demoQuilt() {
  auto opened = QuiltStore::open(realDisk(), UQ_SOURCE_DIR "/demo/copperline", QuiltStore::Access::read);
  if (!opened) std::abort();
  return std::move(opened->quilt);
}

Quilt bigQuilt(int side, int layers) { return withBig(side, layers, false); }
Quilt denseQuilt(int side, int layers) { return withBig(side, layers, true); }

LayerAt layerOfBig(const Quilt& quilt, int index) {
  const Map* big = quilt.mapNamed("Big");
  return {big->id, big->layers[static_cast<std::size_t>(index)]->id};
}

}  // namespace uq::bench
