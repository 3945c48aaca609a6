// A quilt written for a game: a map of 4096 × 4096 cells with 8 layers as exchange JSON. Limits: docs/architecture.md.
#include "bench/BigQuilt.h"
#include "bench/Measured.h"
#include "core/store/ExchangeText.h"

namespace uq::bench {

namespace {

void json(benchmark::State& state) {
  const Quilt quilt = bigQuilt(4096, 8);
  const Map& map = *quilt.map(layerOfBig(quilt, 0).map);
  ExchangeMapParts parts;
  std::int64_t bytes = 0;
  for (auto _ : state) {
    const std::string text = exchangeMapText(quilt, map, parts);
    bytes += static_cast<std::int64_t>(text.size());
    benchmark::DoNotOptimize(text.data());
  }
  state.SetBytesProcessed(bytes);
}

const bool kRegistered = [] {
  measured("Export/json", json);
  return true;
}();

}  // namespace

}  // namespace uq::bench
