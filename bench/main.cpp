#include <benchmark/benchmark.h>

#include <QGuiApplication>

namespace uq::bench {
void registerCellsBenchmarks();
void registerFrameBenchmarks();
}  // namespace uq::bench

int main(int argc, char** argv) {
  if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  const QGuiApplication application(argc, argv);
  uq::bench::registerCellsBenchmarks();
  uq::bench::registerFrameBenchmarks();
  benchmark::Initialize(&argc, argv);
  if (benchmark::ReportUnrecognizedArguments(argc, argv)) return 2;
  benchmark::RunSpecifiedBenchmarks();
  return 0;
}
