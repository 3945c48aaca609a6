// Loose threads of a large world, and pins in sight.
#include <QImage>
#include <QApplication>
#include <QEventLoop>
#include <QPainter>
#include <QTemporaryDir>

#include "app/canvas/PinPainter.h"
#include "app/look/Theme.h"
#include "app/workroom/ThreadRound.h"
#include "app/workroom/Workroom.h"
#include "bench/BigQuilt.h"
#include "bench/Measured.h"
#include "bench/Watch.h"
#include "core/check/Checks.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Doorways.h"
#include "core/edit/Pins.h"

namespace uq::bench {

namespace {

// 300 maps of 256 × 256 cells, 2,000 doorways between them.
Quilt worldOf300() {
  Quilt quilt = denseQuilt(256, 2);
  const Id big = quilt.mapNamed("Big")->id;
  IdSource ids(19);
  while (quilt.maps().size() < 300) quilt = duplicateMap(quilt, big, ids).quilt;
  std::vector<PinAt> pins;
  for (std::size_t i = 0; i < 300; ++i) {
    const Id map = quilt.maps()[i]->id;
    for (int n = 0; n < 14; ++n) {
      Pin pin;
      pin.cell = {n * 17 % 250, n * 31 % 250};
      PinAdded added = addPin(quilt, {map, {}}, pin, ids);
      quilt = std::move(added.quilt);
      pins.push_back(added.pin);
    }
  }
  for (std::size_t i = 0; i < 2'000; ++i) {
    const PinAt to = pins[(i * 7 + 1'999) % pins.size()];
    quilt = addDoorway(quilt, pins[i], {to.map, to.pin, {}, i % 3 != 0, Heading::north}, ids).quilt;
  }
  return quilt;
}

void wholeQuilt(benchmark::State& state) {
  const Quilt quilt = worldOf300();
  std::size_t threads = 0;
  for (auto _ : state) {
    Checks checks;
    threads = checks.of(quilt).threads.size();
  }
  state.counters["threads"] = static_cast<double>(threads);
}

void afterEdit(benchmark::State& state) {
  Quilt quilt = worldOf300();
  Checks checks;
  (void)checks.of(quilt);
  const Map& map = quilt.maps()[5].read();
  const LayerAt at{map.id, map.layers.front()->id};
  int x = 0;
  for (auto _ : state) {
    state.PauseTiming();
    LayerCells cells = *quilt.layer(at);
    cells.cells.set({x++ % 256, 3}, Cell({kChalkSlot, 3}, {}));
    quilt = quilt.with(at, std::move(cells));
    state.ResumeTiming();
    benchmark::DoNotOptimize(checks.of(quilt));
  }
}

void turnFor(int milliseconds) {
  QEventLoop loop;
  QTimer::singleShot(milliseconds, &loop, &QEventLoop::quit);
  loop.exec();
}

// The same world in a window, the Board with its sentences shown: what an event waits while what hangs loose is looked for
// after an edit, and told.
void inTheWindow(benchmark::State& state) {
  applyTheme(*qApp);
  QTemporaryDir scratch;
  const std::string folder = scratch.filePath(QStringLiteral("quilt")).toStdString();
  if (!QuiltStore::create(realDisk(), folder, withTidyBoard(worldOf300()))) return state.SkipWithError("not written");
  Workroom room;
  room.resize(1280, 800);
  room.show();
  room.openQuilt(QString::fromStdString(folder));
  while (room.work().isRunning()) turnFor(20);
  auto* round = room.findChild<ThreadRound*>();
  room.session()->verbs().maps.showBoard(true);
  while (round->isDue() || !round->hasLooked() || room.board()->isComing()) turnFor(20);
  double worst = 0;
  for (auto _ : state) {
    const Doorway first = room.session()->quilt().doorways().front().read();
    Doorway changed = first;
    changed.needs += "a key";
    room.session()->verbs().pins.change(changed);
    turnFor(150);  // until the edit itself is shown
    Watch watch;
    while (round->isDue()) turnFor(5);
    turnFor(50);
    worst = std::max(worst, watch.worstComputed());
  }
  state.counters["longest_wait_ms"] = worst;
  state.counters["threads"] = static_cast<double>(round->checked().threads.size());
}

void pinsInSight(benchmark::State& state, int count) {
  Quilt quilt = denseQuilt(256, 2);
  const Id big = quilt.mapNamed("Big")->id;
  IdSource ids(19);
  Pin first;
  PinAdded added = addPin(quilt, {big, {}}, first, ids);
  Map map = *added.quilt.map(big);
  for (Shared<Layer>& layer : map.layers) {
    if (!layer->holdsPins()) continue;
    layer.edit([&](Layer& one) {
      one.pins.edit([&](Pins& pins) {
        for (int i = 0; i < count; ++i) {
          Pin pin;
          pin.id = ids.next();
          pin.number = i + 2;
          pin.cell = {i % 71, i / 71 % 71};
          pins.push_back(pin);
        }
        std::sort(pins.begin(), pins.end(), [](const Pin& a, const Pin& b) { return a.id < b.id; });
      });
    });
  }
  quilt = added.quilt.with(map);
  QImage picture(1280, 800, QImage::Format_ARGB32_Premultiplied);
  picture.fill(Qt::gray);
  MapView view;
  view.size = picture.size();
  view.ratio = 1;
  view.zoom = 16.0 / map.grid.cell.w;
  for (auto _ : state) {
    QPainter painter(&picture);
    paintPins(painter, quilt, *quilt.map(big), view, {});
  }
}

}  // namespace

void registerCheckBenchmarks() {
  measured("Check/whole_quilt", wholeQuilt)->Iterations(3);
  measured("Check/after_edit", afterEdit)->Iterations(20);
  measured("Check/in_the_window", inTheWindow)->Iterations(10);
  measured(benchmark::RegisterBenchmark("Pins/in_sight_5000", pinsInSight, 5'000))->Iterations(20);
  measured(benchmark::RegisterBenchmark("Pins/in_sight_100000", pinsInSight, 100'000))->Iterations(5);
}

}  // namespace uq::bench
