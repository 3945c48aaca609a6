// Drawing a 4096 × 4096 map into a window of 1280 × 800 device pixels. Limits: docs/architecture.md.
#include <benchmark/benchmark.h>

#include <QProcess>
#include <QTemporaryDir>
#include <filesystem>

#include "bench/BigQuilt.h"
#include "core/edit/LayCells.h"
#include "raster/MapPainter.h"

namespace uq::bench {

namespace {

constexpr int kSide = 4096;

// The window over the middle of the map.
QRect windowAt(ViewScale scale) {
  const QRect middle = scale.toDevice({kSide * 16, kSide * 16, 1, 1});
  return {middle.x() - 640, middle.y() - 400, 1280, 800};
}

struct Scene {
  Quilt quilt = bigQuilt(kSide, 4);
  MapPainter painter;

  Scene() : painter(pictures(quilt)) {}
  const Map& big() const { return *quilt.mapNamed("Big"); }

  static SheetPictures pictures(const Quilt& quilt) {
    Errors problems;
    return SheetPictures::load(quilt, *realDisk(), UQ_SOURCE_DIR "/demo/copperline", problems);
  }
};

Scene& scene() {
  static Scene scene;
  return scene;
}

// One tile edited in the middle of the window: finding what differs and drawing it anew.
void afterEdit(benchmark::State& state) {
  Scene& s = scene();
  const ViewScale scale{1};
  const QRect window = windowAt(scale);
  const CellPos at = makeGrid(s.big().grid)->cellAt(scale.toMap(window.center()));
  const LayerAt layer = layerOfBig(s.quilt, 0);
  (void)s.painter.draw(s.quilt, s.big(), scale, window, {});
  std::uint32_t number = 0;
  for (auto _ : state) {
    const CellChange change{at, Cell({s.quilt.layer(layer)->cells.at(at).tile().slot, number++ % 20}, {})};
    const Quilt after = layCells(s.quilt, layer, {&change, 1});
    const PixelRect dirty = s.painter.changes(s.quilt, after, layer).front();
    const QRect part = scale.toDevice(dirty);
    benchmark::DoNotOptimize(s.painter.draw(after, *after.mapNamed("Big"), scale, part, {}));
  }
}

// The whole window drawn anew, as scrolling does until swatches are there.
void wholeWindow(benchmark::State& state) {
  Scene& s = scene();
  const ViewScale scale{static_cast<double>(state.range(0)) / 100};
  for (auto _ : state) benchmark::DoNotOptimize(s.painter.draw(s.quilt, s.big(), scale, windowAt(scale), {}));
}

// From starting the process to the first painted frame of the demo, and out again.
void startDemo(benchmark::State& state) {
  const QTemporaryDir scratch;
  const QString copy = scratch.filePath(QStringLiteral("copperline"));
  std::filesystem::copy(UQ_SOURCE_DIR "/demo/copperline", copy.toStdString(), std::filesystem::copy_options::recursive);
  for (auto _ : state) {
    QProcess program;
    program.start(QStringLiteral(UQ_URBAN_QUILT), {QStringLiteral("--first-frame"), copy});
    if (!program.waitForFinished() || program.exitCode() != 0) state.SkipWithError("the program did not run");
  }
}

benchmark::internal::Benchmark* measured(benchmark::internal::Benchmark* one) {
  return one->Repetitions(5)
      ->ReportAggregatesOnly()
      ->Unit(benchmark::kMillisecond)
      ->ComputeStatistics("best", [](const std::vector<double>& v) { return *std::min_element(v.begin(), v.end()); });
}

}  // namespace

void registerFrameBenchmarks() {
  measured(benchmark::RegisterBenchmark("Frame/after_edit", afterEdit));
  measured(benchmark::RegisterBenchmark("Start/demo", startDemo))->UseRealTime();
  measured(benchmark::RegisterBenchmark("Frame/whole_window", wholeWindow))->Arg(25)->Arg(50)->Arg(100)->Arg(400);
}

}  // namespace uq::bench
