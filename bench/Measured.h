// How every benchmark is measured: best of five, with the noise.
#pragma once

#include <benchmark/benchmark.h>

#include <algorithm>
#include <vector>

namespace uq::bench {

inline benchmark::internal::Benchmark* measured(benchmark::internal::Benchmark* one) {
  return one->Repetitions(5)
      ->ReportAggregatesOnly()
      ->Unit(benchmark::kMillisecond)
      ->ComputeStatistics("best", [](const std::vector<double>& v) { return *std::min_element(v.begin(), v.end()); });
}

inline benchmark::internal::Benchmark* measured(const char* name, benchmark::internal::Function* function) {
  return measured(benchmark::RegisterBenchmark(name, function));
}

}  // namespace uq::bench
