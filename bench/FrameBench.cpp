// Drawing a 4096 × 4096 map into a window of 1280 × 800 device pixels. Limits: docs/architecture.md.
#include <benchmark/benchmark.h>

#include <QProcess>
#include <QTemporaryDir>
#include <cmath>
#include <filesystem>
#include <semaphore>
#include <thread>

#include "bench/BigQuilt.h"
#include "bench/Measured.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/LayCells.h"
#include "raster/SwatchBook.h"
#include "raster/SwatchWorkers.h"

namespace uq::bench {

namespace {

constexpr int kSide = 4096;

// The window over the middle of the map.
QRect windowAt(ViewScale scale) {
  const QRect middle = scale.toDevice({kSide * 16, kSide * 16, 1, 1});
  return {middle.x() - 640, middle.y() - 400, 1280, 800};
}

struct Scene {
  Quilt quilt = bigQuilt(kSide, 8);
  MapPainter painter;

  Scene() : painter(pictures(quilt)) {}
  const Map& big() const { return *quilt.mapNamed("Big"); }

  static SheetPictures pictures(const Quilt& quilt) {
    Errors problems;
    return SheetPictures::load(quilt, problems);
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
  (void)s.painter.draw(s.quilt, s.big(), runsOf(s.big()), scale, window);
  std::uint32_t number = 0;
  for (auto _ : state) {
    const CellChange change{at, Cell({s.quilt.layer(layer)->cells.at(at).tile().slot, number++ % 20}, {})};
    const Quilt after = layCells(s.quilt, layer, {&change, 1});
    for (const PixelRect& dirty : s.painter.changes(s.quilt, after, layer)) {
      benchmark::DoNotOptimize(
          s.painter.draw(after, *after.mapNamed("Big"), runsOf(s.big()), scale, scale.toDevice(dirty)));
    }
  }
}

// A window on the map, as the application has it.
struct Window {
  Scene& s = scene();
  std::counting_semaphore<> arrivals{0};
  SwatchBook book;
  QImage picture{1280, 800, QImage::Format_RGB32};

  // The layers split into `runs` runs that move on their own.
  explicit Window(int runs, SwatchBook::Options options = {})
      : book(
            s.painter.pictures(), [this] { arrivals.release(); }, options) {
    std::vector<Run> split(static_cast<std::size_t>(runs));
    const std::vector<Shared<Layer>>& layers = s.big().layers;
    for (std::size_t i = 0; i < layers.size(); ++i) {
      split[i * static_cast<std::size_t>(runs) / layers.size()].layers.push_back(layers[i]->id);
    }
    book.show(s.quilt, s.big().id, std::move(split));
  }

  SwatchBook::Frame frame(ViewScale scale, QRect window) { return frame(scale, window, window); }
  SwatchBook::Frame frame(ViewScale scale, QRect window, QRect part) {
    QPainter painter(&picture);
    const QRect here = part.translated(-window.topLeft());
    painter.setClipRect(here);
    painter.fillRect(here, QColor(90, 90, 100));
    return book.paint(painter, scale, window, part);
  }
  // As the canvas does it: all of it once, then where something arrived.
  void wholeFrame(ViewScale scale, QRect window) {
    SwatchBook::Frame shown = frame(scale, window);
    while (!shown.whole()) {
      if (shown.late > 0) {
        shown = frame(scale, window);
        continue;
      }
      arrivals.acquire();
      const QRect part = book.arrivals(scale, window).boundingRect();
      if (!part.isEmpty()) shown = frame(scale, window, part);
    }
  }
};

// A warm frame, at the zoom at which it takes longest.
void frames(benchmark::State& state, int runs) {
  Window window(runs);
  const ViewScale scale{static_cast<double>(state.range(0)) / 100};
  const QRect at = windowAt(scale);
  window.wholeFrame(scale, at);
  for (auto _ : state) (void)window.frame(scale, at);
}

// The big map with eight layers of different parallax, two of them blended.
Quilt deepQuilt() {
  Map deep = scene().big();
  for (std::size_t i = 0; i < deep.layers.size(); ++i) {
    deep.layers[i].edit([&](Layer& layer) {
      const int share = 30 + static_cast<int>(i) * 15;
      layer.parallax = {share, share};
      if (i == 4) layer.blend = Blend::multiply;
      if (i == 6) layer.blend = Blend::add;
    });
  }
  return scene().quilt.with(deep);
}

// What the Stack does to eight such layers, in turn: hides one, shows it, fades the others, moves one nearer. Each is the
// change and the frame that shows it. Counts the swatches that were made for it.
void restackFrames(benchmark::State& state) {
  Window window(8);
  const Quilt quilt = deepQuilt();
  const Id id = window.s.big().id;
  const LayerAt third = layerOfBig(quilt, 3);
  const Quilt moved = moveLayer(quilt, third, std::size_t{6});
  const ViewScale scale{static_cast<double>(state.range(0)) / 100};
  const QRect at = windowAt(scale);
  const auto shown = [&](const Quilt& as, const Seeing& seeing) {
    window.book.show(as, id, runsOf(*as.map(id), seeing));
    return window.frame(scale, at);
  };
  while (!shown(quilt, {}).whole()) window.arrivals.acquire();
  // What lies around the window is drawn ahead, of the moved layer's surroundings too.
  while (window.arrivals.try_acquire_for(std::chrono::milliseconds(500))) (void)shown(quilt, {});
  const std::uint64_t made = window.book.made();
  int step = 0;
  bool whole = true;
  for (auto _ : state) {
    const int now = step++ % 4;
    const Seeing seeing = now == 0 ? Seeing{{third.layer}, {}} : now == 2 ? Seeing{{}, third.layer} : Seeing{};
    whole = shown(now == 3 ? moved : quilt, seeing).whole() && whole;
  }
  state.counters["swatches_made"] = static_cast<double>(window.book.made() - made);
  state.counters["whole"] = whole ? 1 : 0;
}

// A frame of the camera preview: the camera has gone on, and all layers are laid where they are now. Counts the swatches
// that were made for it meanwhile.
void cameraFrames(benchmark::State& state) {
  Window window(8);
  const Quilt quilt = deepQuilt();
  const Map& map = *quilt.map(window.s.big().id);
  const ViewScale scale{1};
  const QRect at = windowAt(scale);
  PixelPos camera{at.x(), at.y()};
  const auto shown = [&] {
    window.book.show(quilt, map.id, runsOf(map, {{}, {}, camera}));
    return window.frame(scale, at);
  };
  // Once over the way, as a camera that was moved before.
  for (int x = 0; x <= 100; x += 20) {
    camera.x = at.x() + x;
    while (!shown().whole()) window.arrivals.acquire();
  }
  const std::uint64_t made = window.book.made();
  for (auto _ : state) {
    camera.x += camera.x < at.x() + 100 ? 2 : -100;
    (void)shown();
  }
  state.counters["swatches_made"] = static_cast<double>(window.book.made() - made);
}

// One swatch of one layer at a zoom at which cells are colours.
void coloursSwatch(benchmark::State& state) {
  Scene& s = scene();
  const ViewScale scale{static_cast<double>(state.range(0)) / 100};
  const Run run = runsOf(s.big()).front();
  const QRect part(kSwatchSide / 2, kSwatchSide / 2, kSwatchSide, kSwatchSide);
  for (auto _ : state) benchmark::DoNotOptimize(s.painter.drawRun(s.quilt, s.big(), run, scale, part));
  const double side = kSwatchSide / (scale.zoom * s.big().grid.cell.w);
  state.counters["cells"] = side * side;
}

// From a zoom step to the frame that shows nothing but swatches of that zoom, as repainted when something arrives.
void zoomStep(benchmark::State& state) {
  const ViewScale scale{static_cast<double>(state.range(0)) / 100};
  const ViewScale before{scale.zoom * 1.5};
  for (auto _ : state) {
    state.PauseTiming();
    auto window = std::make_unique<Window>(8);
    window->wholeFrame(before, windowAt(before));
    state.ResumeTiming();
    window->wholeFrame(scale, windowAt(scale));
    state.PauseTiming();
    window.reset();
    state.ResumeTiming();
  }
}

// The whole map in the window, with nothing kept: until the first picture, and until it is refined. How far the refined
// picture is from the true one is measured against every tile drawn at a quarter of its size and averaged, on a part.
void wholeMap(benchmark::State& state) {
  const ViewScale scale{800.0 / (kSide * 32)};
  const QRect all = scale.toDevice({0, 0, kSide * 32, kSide * 32});
  double first = 0;
  double refined = 0;
  QImage shown;
  for (auto _ : state) {
    const auto begin = std::chrono::steady_clock::now();
    const auto since = [&] { return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count(); };
    Window window(8);
    (void)window.frame(scale, all);
    first = since();
    window.wholeFrame(scale, all);
    refined = since();
    shown = window.picture;
  }
  Scene& s = scene();
  const QRect part(300, 300, 24, 24);
  const ViewScale fine{0.25};
  double wrong = 0;
  for (int y = part.top(); y <= part.bottom(); ++y) {
    for (int x = part.left(); x <= part.right(); ++x) {
      const auto at = [&](int i) { return static_cast<int>(std::lround(i / scale.zoom * fine.zoom)); };
      const QRect device(at(x), at(y), at(x + 1) - at(x), at(y + 1) - at(y));
      QImage cloth(device.size(), QImage::Format_RGB32);
      cloth.fill(QColor(90, 90, 100));
      QPainter(&cloth).drawImage(0, 0, s.painter.draw(s.quilt, s.big(), runsOf(s.big()), fine, device));
      double sums[3] = {};
      for (int v = 0; v < cloth.height(); ++v) {
        for (int u = 0; u < cloth.width(); ++u) {
          const QRgb pixel = cloth.pixel(u, v);
          sums[0] += qRed(pixel);
          sums[1] += qGreen(pixel);
          sums[2] += qBlue(pixel);
        }
      }
      const QRgb pixel = shown.pixel(x, y);
      const double n = double{1} * cloth.width() * cloth.height();
      wrong += std::abs(sums[0] / n - qRed(pixel)) + std::abs(sums[1] / n - qGreen(pixel)) +
               std::abs(sums[2] / n - qBlue(pixel));
    }
  }
  state.counters["first_ms"] = first * 1000;
  state.counters["refined_ms"] = refined * 1000;
  state.counters["error_of_255"] = wrong / 3 / part.width() / part.height();
}

// 600 frames at 60 a second over the map: 40 pixels a frame, from zoom 0.05 to 8 and back, with the book at its budget.
void journey(benchmark::State& state) {
  constexpr int kFrames = 600;
  std::vector<double> took;
  int substituted = 0;
  for (auto _ : state) {
    Window window(static_cast<int>(state.range(0)));
    for (double zoom = 4; window.book.bytes() < (std::size_t{200} << 20); zoom *= 0.97) {
      window.wholeFrame({zoom}, windowAt({zoom}));
    }
    took.clear();
    substituted = 0;
    double x = kSide * 8;
    double y = kSide * 8;
    auto next = std::chrono::steady_clock::now();
    for (int i = 0; i < kFrames; ++i) {
      const double way = i < kFrames / 2 ? i : kFrames - 1 - i;
      const int step = static_cast<int>(way / (kFrames / 2) * 20);
      const ViewScale scale{0.05 * std::pow(8 / 0.05, step / 19.0)};
      x += 40 / scale.zoom * (i % 200 < 100 ? 1 : -1);
      y += 10 / scale.zoom * (i % 300 < 150 ? 1 : -1);
      const QRect at(static_cast<int>(x * scale.zoom), static_cast<int>(y * scale.zoom), 1280, 800);
      const auto begin = std::chrono::steady_clock::now();
      const SwatchBook::Frame shown = window.frame(scale, at);
      took.push_back(std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count());
      if (!shown.whole()) ++substituted;
      next += std::chrono::microseconds(16'667);
      std::this_thread::sleep_until(next);
    }
  }
  std::sort(took.begin(), took.end());
  state.counters["median_ms"] = took[kFrames / 2];
  state.counters["p99_ms"] = took[kFrames * 99 / 100];
  state.counters["worst_ms"] = took.back();
  state.counters["substituted_share"] = double(substituted) / kFrames;
}

// A warm frame of three runs of a depth-ordered isometric map, to be compared with Frame/runs_3.
void isometricFrames(benchmark::State& state) {
  static const Quilt quilt = isometricQuilt(1024);
  const Map& map = *quilt.mapNamed("Isometric");
  std::counting_semaphore<> arrivals{0};
  SwatchBook book(Scene::pictures(quilt), [&] { arrivals.release(); });
  std::vector<Run> runs = runsOf(map);
  // Split as parallax would, each run by depth.
  std::vector<Run> split;
  for (std::size_t i = 0; i < runs.front().layers.size(); ++i) {
    const std::size_t of = std::min<std::size_t>(i, 2);
    if (of == split.size()) split.push_back({{}, {}, 100, false, {}});
    split[of].layers.push_back(runs.front().layers[i]);
    split[of].shifts.push_back(runs.front().shiftOf(i));
    split[of].byDepth = split[of].layers.size() > 1;
  }
  book.show(quilt, map.id, split);
  const ViewScale scale{static_cast<double>(state.range(0)) / 100};
  const PixelRect middle = makeGrid(map.grid)->cellBox({512, 512});
  const QRect place = scale.toDevice(middle);
  const QRect window(place.x() - 640, place.y() - 400, 1280, 800);
  QImage picture(1280, 800, QImage::Format_RGB32);
  const auto frame = [&] {
    picture.fill(QColor(90, 90, 100));
    QPainter painter(&picture);
    return book.paint(painter, scale, window, window);
  };
  while (!frame().whole()) arrivals.acquire();
  for (auto _ : state) (void)frame();
}

// Panning over the same map once what is around was drawn: 300 frames of 8 px each way.
void isometricPan(benchmark::State& state) {
  static const Quilt quilt = isometricQuilt(1024);
  const Map& map = *quilt.mapNamed("Isometric");
  std::vector<double> took;
  for (auto _ : state) {
    std::counting_semaphore<> arrivals{0};
    SwatchBook book(Scene::pictures(quilt), [&] { arrivals.release(); });
    book.show(quilt, map.id, runsOf(map));
    const PixelRect middle = makeGrid(map.grid)->cellBox({512, 512});
    QImage picture(1280, 800, QImage::Format_RGB32);
    const auto frame = [&](int step) {
      picture.fill(QColor(90, 90, 100));
      QPainter painter(&picture);
      const QRect window(middle.x - 640 + 8 * step, middle.y - 400 + 4 * step, 1280, 800);
      return book.paint(painter, {1}, window, window);
    };
    while (!frame(0).whole()) arrivals.acquire();
    took.clear();
    auto next = std::chrono::steady_clock::now();
    for (int i = 0; i < 300; ++i) {
      const auto begin = std::chrono::steady_clock::now();
      (void)frame(i);
      took.push_back(std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count());
      next += std::chrono::microseconds(16'667);
      std::this_thread::sleep_until(next);
    }
  }
  std::sort(took.begin(), took.end());
  state.counters["median_ms"] = took[150];
  state.counters["p99_ms"] = took[297];
  state.counters["worst_ms"] = took.back();
}

// Which cell is pointed at, and which picture, on a map of eight dense layers.
void hitGround(benchmark::State& state) {
  std::unique_ptr<const Grid> grids[5];
  for (std::size_t i = 0; i < 5; ++i) grids[i] = makeGrid(nearestShape(kGridKinds[i], {64, 32}));
  unsigned at = 1;
  std::size_t grid = 0;
  for (auto _ : state) {
    at = at * 1664525u + 1013904223u;
    grid = grid == 4 ? 0 : grid + 1;
    benchmark::DoNotOptimize(grids[grid]->cellAt({static_cast<int>(at >> 12) - 500'000, static_cast<int>(at >> 14)}));
  }
}
void hitPicture(benchmark::State& state, const Quilt& quilt, const char* name) {
  const Map& map = *quilt.mapNamed(name);
  MapPainter painter(Scene::pictures(quilt));
  const PixelRect cell = makeGrid(map.grid)->cellBox({map.bounds.x1 / 2, map.bounds.y1 / 2});
  int i = 0;
  for (auto _ : state) {
    const PixelPos at{cell.x + i * 37 % 2000, cell.y + i * 53 % 1000};
    benchmark::DoNotOptimize(painter.tilesAt(quilt, map, {}, at));
    ++i;
  }
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

}  // namespace

void registerFrameBenchmarks() {
  measured(benchmark::RegisterBenchmark("Frame/after_edit", afterEdit));
  measured(benchmark::RegisterBenchmark("Frame/camera_8", cameraFrames));
  measured(benchmark::RegisterBenchmark("Frame/restack_8", restackFrames))->Arg(5)->Arg(100);
  measured(benchmark::RegisterBenchmark("Start/demo", startDemo))->UseRealTime();
  measured(benchmark::RegisterBenchmark("Frame/isometric", isometricFrames))->Arg(13)->Arg(50)->Arg(100)->Arg(300);
  measured(benchmark::RegisterBenchmark("Frame/isometric_pan", isometricPan))->UseRealTime()->Iterations(1);
  measured(benchmark::RegisterBenchmark("Hit/ground", hitGround))->Unit(benchmark::kNanosecond);
  measured(benchmark::RegisterBenchmark("Hit/picture", [](benchmark::State& state) {
    hitPicture(state, scene().quilt, "Big");
  }))->Unit(benchmark::kMicrosecond);
  measured(benchmark::RegisterBenchmark("Hit/picture_isometric", [](benchmark::State& state) {
    static const Quilt quilt = isometricQuilt(1024);
    hitPicture(state, quilt, "Isometric");
  }))->Unit(benchmark::kMicrosecond);
  for (const int runs : {3, 8}) {
    const std::string name = "Frame/runs_" + std::to_string(runs);
    const auto warm = [runs](benchmark::State& state) { frames(state, runs); };
    measured(benchmark::RegisterBenchmark(name.c_str(), warm))->Arg(5)->Arg(13)->Arg(50)->Arg(100)->Arg(300)->Arg(800);
  }
  measured(benchmark::RegisterBenchmark("Frame/colours_swatch", coloursSwatch))->Arg(1)->Arg(2)->Arg(5);
  measured(benchmark::RegisterBenchmark("Frame/zoom_step", zoomStep))
      ->UseRealTime()
      ->Iterations(3)
      ->Arg(2)
      ->Arg(5)
      ->Arg(9)
      ->Arg(13)
      ->Arg(50)
      ->Arg(100)
      ->Arg(400);
  measured(benchmark::RegisterBenchmark("Frame/whole_map", wholeMap))->UseRealTime()->Iterations(1);
  measured(benchmark::RegisterBenchmark("Frame/journey", journey))->UseRealTime()->Iterations(1)->Arg(1)->Arg(3)->Arg(8);
}

}  // namespace uq::bench
