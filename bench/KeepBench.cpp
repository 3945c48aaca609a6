// Keeping work between saves: what a stroke costs the window, what keeping takes on 4096 × 4096 × 8, and how much longer a
// quilt takes to open of which unsaved work comes back. Limits: 0.2 ms, 5 % of the time, 1.2 × opening.
#include <benchmark/benchmark.h>

#include <QElapsedTimer>
#include <QEventLoop>
#include <QTemporaryDir>
#include <QTimer>

#include "app/look/Theme.h"
#include "app/workroom/Session.h"
#include "app/workroom/WorkKeeper.h"
#include "app/workroom/Workroom.h"
#include "bench/BigQuilt.h"
#include "core/edit/LayCells.h"

namespace uq::bench {

namespace {

double milliseconds(const QElapsedTimer& since) { return static_cast<double>(since.nsecsElapsed()) / 1e6; }

// One cell of a layer of "Big" changes.
Quilt painted(const Quilt& quilt, int layer, CellPos at) {
  const std::vector<CellChange> change = {{at, Cell({1, 7}, {})}};
  return layCells(quilt, layerOfBig(quilt, layer), change);
}

Quilt made(const std::string& folder) {
  auto created = QuiltStore::create(realDisk(), folder, denseQuilt(4096, 8));
  if (!created) std::abort();
  return std::move(created->quilt);
}

void large(benchmark::State& state) {
  const QTemporaryDir scratch;
  const std::string folder = scratch.filePath(QStringLiteral("big")).toStdString();
  const Quilt saved = made(folder);
  KeptWork work(realDisk(), scratch.filePath(QStringLiteral("kept")).toStdString());
  Quilt now = saved;
  int step = 0;
  double worst = 0;
  for (auto _ : state) {
    now = painted(now, step % 8, {100 + 37 * step, 200 + 11 * step});
    ++step;
    QElapsedTimer took;
    took.start();
    if (!work.keep(saved, now, {folder, "Big", step, step})) return state.SkipWithError("nothing was kept");
    worst = std::max(worst, milliseconds(took));
  }
  state.counters["worst_ms"] = worst;
  // Never sooner than 1.5 s after a step, nor than twenty times as long as the last one took.
  state.counters["worst_share"] = worst / (worst + std::max(1500.0, 20 * worst));
}

void stroke(benchmark::State& state) {
  applyTheme(*qApp);
  const QTemporaryDir scratch;
  const std::string folder = scratch.filePath(QStringLiteral("big")).toStdString();
  (void)made(folder);
  Workroom room;
  room.resize(1280, 800);
  room.show();
  room.openQuilt(QString::fromStdString(folder));
  QEventLoop loop;
  QObject::connect(&room.work(), &LongWork::ended, &loop, &QEventLoop::quit);
  loop.exec();
  Session& session = *room.session();
  WorkKeeper& keeper = *session.beside().keeper;
  int step = 0;
  for (auto _ : state) {
    session.quiltStep(QStringLiteral("Brush"), painted(session.quilt(), step % 8, {100 + 37 * step, 200}));
    ++step;
    QElapsedTimer took;
    took.start();
    keeper.keepSoon();
    state.SetIterationTime(milliseconds(took) / 1000);
    QEventLoop waits;
    QObject::connect(&keeper, &WorkKeeper::kept, &waits, &QEventLoop::quit);
    waits.exec();
  }
  session.save(room.work(), [](const Result<QuiltStore::Saved>&) {});
  QObject::connect(&room.work(), &LongWork::ended, &loop, &QEventLoop::quit);
  loop.exec();
}

void recovered(benchmark::State& state) {
  const QTemporaryDir scratch;
  const std::string folder = scratch.filePath(QStringLiteral("big")).toStdString();
  const auto load = [&](bool comesBack) {
    Progress progress;
    QElapsedTimer took;
    took.start();
    const auto loaded = Session::load(folder, progress, realDisk());
    const double all = milliseconds(took);
    if (!loaded || loaded->cameBack.has_value() != comesBack) std::abort();
    return all;
  };
  const Quilt saved = made(folder);
  KeptWork work(realDisk(), WorkKeeper::placeFor(folder));
  double plain = 1e9;
  double back = 1e9;
  for (auto _ : state) {
    // In turn, so that both meet the same machine.
    for (int i = 0; i < 5; ++i) {
      if (!work.drop()) std::abort();
      plain = std::min(plain, load(false));
      KeptWork again(realDisk(), WorkKeeper::placeFor(folder));
      if (!again.keep(saved, painted(saved, 3, {100, 100}), {folder, "Big", 1, 1})) std::abort();
      back = std::min(back, load(true));
    }
  }
  state.counters["plain_ms"] = plain;
  state.counters["recovered_ms"] = back;
  state.counters["times"] = back / plain;
}

}  // namespace

void registerKeepBenchmarks() {
  benchmark::RegisterBenchmark("Keep/stroke", stroke)->Iterations(20)->UseManualTime()->Unit(benchmark::kMillisecond);
  benchmark::RegisterBenchmark("Keep/large", large)->Iterations(40)->UseRealTime()->Unit(benchmark::kMillisecond);
  benchmark::RegisterBenchmark("Open/recovered", recovered)->Iterations(1)->UseRealTime()->Unit(benchmark::kMillisecond);
}

}  // namespace uq::bench
