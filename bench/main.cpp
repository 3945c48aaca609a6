#include <benchmark/benchmark.h>

#include <QApplication>
#include <QTemporaryDir>

namespace uq::bench {
void registerCellsBenchmarks();
void registerFillBenchmarks();
void registerFrameBenchmarks();
void registerSheetBenchmarks();
void registerHandBenchmarks();
void registerWorkroomBenchmarks();
void registerKeepBenchmarks();
void registerResizeBenchmarks();
void registerCheckBenchmarks();
void registerSewnBenchmarks();
}  // namespace uq::bench

int main(int argc, char** argv) {
  if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  const QTemporaryDir state;
  qputenv("XDG_STATE_HOME", state.path().toUtf8());
  const QApplication application(argc, argv);
  uq::bench::registerCellsBenchmarks();
  uq::bench::registerFillBenchmarks();
  uq::bench::registerFrameBenchmarks();
  uq::bench::registerSheetBenchmarks();
  uq::bench::registerHandBenchmarks();
  uq::bench::registerWorkroomBenchmarks();
  uq::bench::registerKeepBenchmarks();
  uq::bench::registerResizeBenchmarks();
  uq::bench::registerCheckBenchmarks();
  uq::bench::registerSewnBenchmarks();
  benchmark::Initialize(&argc, argv);
  if (benchmark::ReportUnrecognizedArguments(argc, argv)) return 2;
  benchmark::RunSpecifiedBenchmarks();
  return 0;
}
