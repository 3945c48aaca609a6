// Many maps: the Board with 300 of them, strokes and fills that go over seams. Limits: docs/architecture.md.
#include <QApplication>
#include <QEventLoop>
#include <QTemporaryDir>
#include <QTimer>
#include <QWheelEvent>
#include <cmath>

#include "app/look/Theme.h"
#include "app/workroom/Workroom.h"
#include "bench/BigQuilt.h"
#include "bench/Measured.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Region.h"
#include "core/edit/Seams.h"
#include "core/edit/Stroke.h"

namespace uq::bench {

namespace {

// Side × side maps of as many cells each way, dense or without a painted cell, sewn to all their neighbours.
struct Sewn {
  Quilt quilt;
  LayerAt first;
};
Sewn sewnMaps(int side, int cells, bool dense) {
  Quilt quilt = denseQuilt(cells, 1);
  const Id big = quilt.mapNamed("Big")->id;
  for (const auto& map : std::vector(quilt.maps())) {
    if (map->id != big) quilt = quilt.without<Map>(map->id);
  }
  for (const auto& seam : std::vector(quilt.seams())) quilt = quilt.without<Seam>(seam->id);
  const LayerAt first{big, quilt.map(big)->layers.front()->id};
  if (!dense) quilt = quilt.with(first, LayerCells());
  IdSource ids(17);
  std::vector<Id> maps{big};
  while (static_cast<int>(maps.size()) < side * side) {
    MapAdded one = duplicateMap(quilt, big, ids);
    quilt = std::move(one.quilt);
    maps.push_back(one.map);
  }
  const auto at = [&](int x, int y) { return maps[static_cast<std::size_t>(y * side + x)]; };
  for (int y = 0; y < side; ++y) {
    for (int x = 0; x < side; ++x) {
      if (x > 0) quilt = sewn(quilt, at(x - 1, y), at(x, y), {cells, 0}, ids).quilt;
      if (y > 0) quilt = sewn(quilt, at(x, y - 1), at(x, y), {0, cells}, ids).quilt;
    }
  }
  return {quilt, first};
}

// A stroke of 200 moves round the place where four maps of 1024 × 1024 meet; the same in the middle of one.
void strokeOver(benchmark::State& state, const Sewn& on, CellPos round) {
  Quilt after;
  for (auto _ : state) {
    Stroke stroke(on.quilt, layingOn(on.first, Block::of(Cell({1, 23}, {}))));
    for (int i = 0; i < 200; ++i) {
      const double turn = i * 2 * 3.14159265358979 / 200;
      stroke.moveTo({round.x + static_cast<int>(32 * std::cos(turn)), round.y + static_cast<int>(32 * std::sin(turn))});
      after = stroke.quilt();
    }
    state.counters["maps"] = static_cast<double>(stroke.mapsLaidOn().size());
  }
  benchmark::DoNotOptimize(after);
}
void strokeAcross(benchmark::State& state) { strokeOver(state, sewnMaps(2, 1024, true), {1024, 1024}); }
void strokeOnOne(benchmark::State& state) { strokeOver(state, sewnMaps(1, 1024, true), {512, 512}); }

// 4 × 4 maps of 1024 × 1024, one empty area.
void fillSewn(benchmark::State& state) {
  const Sewn on = sewnMaps(4, 1024, false);
  RegionAsk ask;
  ask.layer = on.first;
  ask.acrossSeams = true;
  std::int64_t filled = 0;
  for (auto _ : state) {
    const CellSet region = regionOf(on.quilt, ask, {1500, 1700});
    benchmark::DoNotOptimize(region);
    state.PauseTiming();
    filled = region.count();
    state.ResumeTiming();
  }
  state.counters["cells"] = static_cast<double>(filled);
}

void turnLoop(int milliseconds) {
  QEventLoop loop;
  QTimer::singleShot(milliseconds, &loop, &QEventLoop::quit);
  loop.exec();
}

double now() { return static_cast<double>(std::chrono::steady_clock::now().time_since_epoch().count()) / 1e6; }

// 300 maps of 256 × 256 in a window, the Board shown.
class BoardOf300 {
 public:
  BoardOf300() {
    applyTheme(*qApp);
    Quilt quilt = denseQuilt(256, 2);
    const Id big = quilt.mapNamed("Big")->id;
    IdSource ids(19);
    while (quilt.maps().size() < 300) quilt = duplicateMap(quilt, big, ids).quilt;
    quilt = withTidyBoard(quilt);
    const std::string folder = scratch_.filePath(QStringLiteral("quilt")).toStdString();
    if (!QuiltStore::create(realDisk(), folder, quilt)) return;
    room.resize(1280, 800);
    room.show();
    room.openQuilt(QString::fromStdString(folder));
    while (room.work().isRunning()) turnLoop(20);
    turnLoop(300);
    const double begin = now();
    double last = begin;
    room.session()->verbs().maps.showBoard(true);
    turned = now() - begin;
    last = now();
    // Each turn of the loop until every picture is there: what an event has to wait.
    do {
      QCoreApplication::processEvents();
      const double at = now();
      longestTurn = std::max(longestTurn, at - last);
      last = at;
    } while (room.board()->isComing());
    firstPictures = now() - begin;
  }
  Workroom room;
  double firstPictures = 0;  // milliseconds
  double longestTurn = 0;
  double turned = 0;  // what going there took by itself

 private:
  QTemporaryDir scratch_;
};

void turnWheel(QWidget& on, QPoint by, Qt::KeyboardModifiers keys) {
  const QPointF at(on.width() / 2.0, on.height() / 2.0);
  QWheelEvent event(at, on.mapToGlobal(at), {}, by, Qt::NoButton, keys, Qt::NoScrollPhase, false);
  QApplication::sendEvent(&on, &event);
}

void boardMoves(benchmark::State& state, bool zooms) {
  BoardOf300 all;
  BoardView& board = *all.room.board();
  double worst = 0;
  int step = 0;
  // Warm: all zooms that come were there once.
  for (int i = 0; zooms && i < 12; ++i) turnWheel(board, {0, i % 12 < 6 ? 120 : -120}, Qt::ControlModifier);
  while (board.isComing()) turnLoop(10);
  for (auto _ : state) {
    const double begin = now();
    if (zooms) {
      turnWheel(board, {0, step % 12 < 6 ? 120 : -120}, Qt::ControlModifier);
    } else {
      turnWheel(board, {step % 40 < 20 ? 60 : -60, step % 40 < 20 ? 30 : -30}, {});
    }
    ++step;
    board.repaint();
    worst = std::max(worst, now() - begin);
  }
  state.counters["worst_frame_ms"] = worst;
  state.counters["first_pictures_ms"] = all.firstPictures;
  state.counters["longest_turn_ms"] = all.longestTurn;
  state.counters["going_there_ms"] = all.turned;
}
void boardPan(benchmark::State& state) { boardMoves(state, false); }
void boardZoom(benchmark::State& state) { boardMoves(state, true); }

// From the Board into a map, until its first frame is painted, and back unmeasured.
void boardOpen(benchmark::State& state) {
  BoardOf300 all;
  std::size_t next = 0;
  for (auto _ : state) {
    all.room.session()->verbs().maps.goTo(all.room.session()->quilt().maps()[++next * 7 % 300]->id);
    all.room.canvas()->repaint();
    state.PauseTiming();
    all.room.session()->verbs().maps.showBoard(true);
    turnLoop(5);
    state.ResumeTiming();
  }
}

}  // namespace

void registerSewnBenchmarks() {
  measured("Board/pan", boardPan)->Iterations(80);
  measured("Board/zoom", boardZoom)->Iterations(48);
  measured("Board/open_map", boardOpen)->Iterations(10);
  measured("Stroke/across", strokeAcross);
  measured("Stroke/on_one_map", strokeOnOne);
  measured("FloodFill/sewn", fillSewn);
}

}  // namespace uq::bench
