// Opening, saving and cancelling a quilt of 4096 × 4096 × 8 in the workroom: how long the work takes, and the longest
// that an event of the window waits meanwhile, measured by a timer in the window. Limit: 50 ms.
#include <benchmark/benchmark.h>

#include <QElapsedTimer>
#include <QEventLoop>
#include <QMouseEvent>
#include <QTemporaryDir>
#include <QTimer>
#include <QWheelEvent>
#include <algorithm>
#include <chrono>
#include <ctime>
#include <filesystem>
#include <fstream>
#include <iterator>
#include <thread>
#include <vector>

#include "app/look/Theme.h"
#include "app/workroom/Workroom.h"
#include "bench/BigQuilt.h"
#include "bench/Measured.h"
#include "bench/Watch.h"
#include "core/base/InShares.h"
#include "core/store/CellsText.h"
#include "raster/PictureFile.h"

namespace uq::bench {

QImage largeSheet();  // SheetBench.cpp

namespace {

void awaitWork(Workroom& room) {
  QEventLoop loop;
  QObject::connect(&room.work(), &LongWork::ended, &loop, &QEventLoop::quit);
  if (room.work().isRunning()) loop.exec();
}

// Runs the loop for a while, as the window goes on painting what it was given.
void goOn(int milliseconds) {
  QEventLoop loop;
  QTimer::singleShot(milliseconds, &loop, &QEventLoop::quit);
  loop.exec();
}

// The folder of a copy of the demo.
std::string copyOfDemo(const QTemporaryDir& scratch) {
  const std::string folder = scratch.filePath(QStringLiteral("demo")).toStdString();
  std::filesystem::copy(UQ_SOURCE_DIR "/demo/copperline", folder, std::filesystem::copy_options::recursive);
  return folder;
}

// Opens a quilt in a window of the usual size, and waits until it is painted.
void showQuilt(Workroom& room, const std::string& folder) {
  room.resize(1280, 800);
  room.show();
  room.openQuilt(QString::fromStdString(folder));
  awaitWork(room);
  goOn(500);
}

double megabytes(const std::string& folder) {
  double bytes = 0;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(folder)) {
    if (entry.is_regular_file()) bytes += static_cast<double>(entry.file_size());
  }
  return bytes / (1 << 20);
}

// One cell of every layer of the map: enough for all of it to be written anew.
void paintAll(Session& session) {
  const Id big = session.quilt().mapNamed("Big")->id;
  Desk desk = session.desk();
  desk.map = big;
  desk.tool = Tool::erase;
  for (const Shared<Layer>& layer : session.quilt().map(big)->layers) {
    desk.activeLayer[big] = layer->id;
    session.setDesk(desk);
    CellPos at{};
    layer->cells.forEachPainted({0, 0, 64, 64}, [&](CellPos one, Cell) { at = one; });
    session.verbs().strokes.begin({.takesAway = true, .path = {at}});
    (void)session.work().finish();
  }
}

void openAndSave(benchmark::State& state) {
  applyTheme(*qApp);
  const QTemporaryDir scratch;
  const std::string folder = scratch.filePath(QStringLiteral("big")).toStdString();
  {
    const auto made = QuiltStore::create(realDisk(), folder, denseQuilt(4096, 8));
    if (!made) return state.SkipWithError(made.error().text().c_str());
  }
  const std::string demo = copyOfDemo(scratch);
  for (auto _ : state) {
    const auto measure = [&](const char* name, auto&& work) {
      Watch watch;
      QElapsedTimer took;
      took.start();
      work();
      state.counters[std::string(name) + "_ms"] = static_cast<double>(took.elapsed());
      state.counters[std::string(name) + "_worst_ms"] = watch.worst();
      state.counters[std::string(name) + "_computed_ms"] = watch.worstComputed();
    };
    Workroom room;
    room.resize(1280, 800);
    room.show();
    goOn(100);
    // What the machine does to a window that does nothing, while another thread fills 512 MB.
    measure("control", [&] {
      std::thread other([] {
        std::vector<char> bytes(std::size_t{512} << 20);
        for (int round = 0; round < 10; ++round) std::fill(bytes.begin(), bytes.end(), static_cast<char>(round));
        benchmark::DoNotOptimize(bytes.data());
      });
      goOn(1500);
      other.join();
    });
    measure("cancel_open", [&] {
      room.openQuilt(QString::fromStdString(folder));
      goOn(300);
      room.work().cancel();
      awaitWork(room);
    });
    measure("open", [&] {
      room.openQuilt(QString::fromStdString(folder));
      awaitWork(room);
    });
    measure("show", [&] {
      Desk desk = room.session()->desk();
      desk.map = room.session()->quilt().mapNamed("Big")->id;
      room.session()->setDesk(desk);
      goOn(2000);
    });
    measure("paint", [&] {
      paintAll(*room.session());
      goOn(200);
    });
    measure("cancel_save", [&] {
      room.actions()->action(ActionId::saveQuilt)->trigger();
      goOn(300);
      room.work().cancel();
      awaitWork(room);
    });
    measure("save", [&] {
      room.actions()->action(ActionId::saveQuilt)->trigger();
      awaitWork(room);
      goOn(200);
    });
    if (!room.session()->isSaved()) state.SkipWithError("the quilt was not saved");
    measure("leave", [&] {
      room.openQuilt(QString::fromStdString(demo));
      awaitWork(room);
      goOn(500);
    });
  }
  state.counters["megabytes"] = megabytes(folder);
}

// Opening a quilt of 4096 × 4096 × 8 dense cells, beside the reading of its layers alone by as many threads as there are
// cores: the store's part, and until the window shows the map.
void openLarge(benchmark::State& state) {
  applyTheme(*qApp);
  const QTemporaryDir scratch;
  const std::string folder = scratch.filePath(QStringLiteral("big")).toStdString();
  const Quilt quilt = denseQuilt(4096, 8);
  if (const auto made = QuiltStore::create(realDisk(), folder, quilt); !made) {
    return state.SkipWithError(made.error().text().c_str());
  }
  const auto since = [](std::chrono::steady_clock::time_point begin) {
    return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
  };
  for (auto _ : state) {
    std::vector<std::string> texts;
    for (const auto& entry : std::filesystem::recursive_directory_iterator(folder + "/maps/big")) {
      if (entry.path().extension() != ".cells") continue;
      std::ifstream file(entry.path(), std::ios::binary);
      texts.emplace_back(std::istreambuf_iterator<char>(file), std::istreambuf_iterator<char>());
    }
    auto begin = std::chrono::steady_clock::now();
    {
      const auto parsed = inShares(texts.size(), 1, [&](std::size_t from, std::size_t to) {
        std::vector<CellsRead> read;
        for (std::size_t i = from; i < to; ++i) {
          Quilt own = quilt;
          read.push_back(readCells(texts[i], own, 4, "bench"));
        }
        return read;
      });
      state.counters["layers_ms"] = since(begin);
    }
    texts.clear();
    begin = std::chrono::steady_clock::now();
    {
      const auto opened = QuiltStore::open(realDisk(), folder, QuiltStore::Access::read);
      state.counters["store_ms"] = since(begin);
      if (!opened) state.SkipWithError("it was not opened");
    }
    Workroom room;
    room.resize(1280, 800);
    room.show();
    goOn(200);
    begin = std::chrono::steady_clock::now();
    room.openQuilt(QString::fromStdString(folder));
    awaitWork(room);
    state.counters["window_ms"] = since(begin);
  }
  state.counters["store_ratio"] = state.counters["store_ms"] / state.counters["layers_ms"];
  state.counters["window_ratio"] = state.counters["window_ms"] / state.counters["layers_ms"];
  state.counters["megabytes"] = megabytes(folder);
}

// A picture of 8192 × 8192 comes in while somebody looks at the window, and the Table is panned over it.
void bringIn(benchmark::State& state) {
  applyTheme(*qApp);
  const QTemporaryDir scratch;
  const std::string demo = copyOfDemo(scratch);
  const QString file = scratch.filePath(QStringLiteral("large.png"));
  (void)writePng(*realDisk(), largeSheet(), file.toStdString());
  for (auto _ : state) {
    Workroom room;
    showQuilt(room, demo);
    Watch watch;
    QElapsedTimer took;
    took.start();
    room.bringIn({file});
    awaitWork(room);
    state.counters["taken_in_ms"] = static_cast<double>(took.elapsed());
    goOn(1500);
    state.counters["worst_ms"] = watch.worst();
    state.counters["worst_computed_ms"] = watch.worstComputed();
    // Panning: every frame another part, at several zooms.
    TableView* table = room.table();
    QImage target(table->size(), QImage::Format_ARGB32_Premultiplied);
    double worst = 0;
    for (int notches = -6; notches <= 4; notches += 2) {
      for (int i = 0; i < 12; ++i) {
        QWheelEvent wheel(QPointF(100, 200), table->mapToGlobal(QPointF(100, 200)), {}, QPoint(0, -90), Qt::NoButton,
                          Qt::NoModifier, Qt::NoScrollPhase, false);
        QApplication::sendEvent(table, &wheel);
        goOn(20);
        QElapsedTimer frame;
        frame.start();
        table->render(&target);
        worst = std::max(worst, static_cast<double>(frame.nsecsElapsed()) / 1e6);
      }
      QWheelEvent zoom(QPointF(100, 200), table->mapToGlobal(QPointF(100, 200)), {}, QPoint(0, 120), Qt::NoButton,
                       Qt::ControlModifier, Qt::NoScrollPhase, false);
      for (int k = 0; k < 2; ++k) QApplication::sendEvent(table, &zoom);
      goOn(600);
    }
    state.counters["table_frame_worst_ms"] = worst;
  }
}

void sendMouse(QWidget& to, QEvent::Type type, QPointF at, Qt::MouseButton button, Qt::MouseButtons buttons) {
  QMouseEvent event(type, at, to.mapToGlobal(at), button, buttons, Qt::NoModifier);
  QApplication::sendEvent(&to, &event);
}

// One move of a brush on the demo, through the window: what it lays, all that hears of it, and the layouts that come of
// that; the frame is another benchmark's.
void strokeMove(benchmark::State& state) {
  applyTheme(*qApp);
  const QTemporaryDir scratch;
  const std::string demo = copyOfDemo(scratch);
  Workroom room;
  showQuilt(room, demo);
  Desk desk = room.session()->desk();
  desk.hold(InHand(Block::of(room.session()->map()->layers.front()->cells.at({20, 20})), GridKind::orthogonal));
  desk.tool = Tool::brush;
  room.session()->setDesk(desk);
  MapCanvas& canvas = *room.canvas();
  const auto at = [&](int step) { return canvas.cellRect({8 + step % 30, 12 + step / 30 % 8}).center(); };
  sendMouse(canvas, QEvent::MouseMove, at(0), Qt::NoButton, {});
  sendMouse(canvas, QEvent::MouseButtonPress, at(0), Qt::LeftButton, Qt::LeftButton);
  int step = 0;
  for (auto _ : state) {
    sendMouse(canvas, QEvent::MouseMove, at(++step), Qt::NoButton, Qt::LeftButton);
    QCoreApplication::sendPostedEvents(nullptr, QEvent::LayoutRequest);
  }
  sendMouse(canvas, QEvent::MouseButtonRelease, at(step), Qt::LeftButton, {});
  if (room.session()->isSaved()) state.SkipWithError("nothing was painted");
}

// A map of 2048 × 2048 cells, one in six of them of one tile, as 699,051 cells that lie everywhere.
Quilt scatteredQuilt() {
  Quilt quilt = denseQuilt(2048, 1);
  const LayerAt at = layerOfBig(quilt, 0);
  LayerCells cells;
  for (int y = 0; y < 2048; ++y) {
    for (int x = 0; x < 2048; ++x) {
      const int number = (x + 2048 * y) % 6;
      cells.lay(CellPos{x, y}, Cell({1, static_cast<std::uint32_t>(number == 0 ? 3 : 10 + number)}, {}), 0);
    }
  }
  return quilt.with(at, std::move(cells));
}

// What a move of the hand costs, through the window, until its frame is painted.
template <class Ready>
void handMoves(benchmark::State& state, const Quilt& quilt, Qt::KeyboardModifiers keys, Ready ready) {
  applyTheme(*qApp);
  const QTemporaryDir scratch;
  const std::string folder = scratch.filePath(QStringLiteral("quilt")).toStdString();
  if (const auto made = QuiltStore::create(realDisk(), folder, quilt); !made) {
    return state.SkipWithError(made.error().text().c_str());
  }
  Workroom room;
  showQuilt(room, folder);
  Desk desk = room.session()->desk();
  desk.map = quilt.mapNamed("Big")->id;
  ready(desk);
  room.session()->setDesk(desk);
  goOn(500);
  MapCanvas& canvas = *room.canvas();
  canvas.setZoom(1, canvas.rect().center());
  goOn(500);
  const CellPos first = canvas.cellAt(canvas.rect().center());
  int step = 0;
  for (auto _ : state) {
    ++step;
    const QPointF at = canvas.cellRect({first.x + step % 8, first.y}).center();
    QMouseEvent event(QEvent::MouseMove, at, canvas.mapToGlobal(at), Qt::NoButton, Qt::NoButton, keys);
    QApplication::sendEvent(&canvas, &event);
    QCoreApplication::sendPostedEvents();
  }
  if (canvas.tagText().isEmpty()) state.SkipWithError("nothing was foretold");
}

void fillEverywhere(benchmark::State& state) {
  handMoves(state, scatteredQuilt(), Qt::ShiftModifier, [](Desk& desk) {
    desk.tool = Tool::fill;
    desk.options.asSeen = false;
    desk.hold(InHand(Block::of(Cell({1, 23}, {})), GridKind::orthogonal));
  });
}

// 500 × 500 cells in hand: a change of the desk, heard of by all.
void largeInHand(benchmark::State& state) {
  std::vector<Block::Part> parts;
  for (int y = 0; y < 500; ++y) {
    for (int x = 0; x < 500; ++x) parts.push_back({{x, y}, Cell({1, static_cast<std::uint32_t>((x * 7 + y) % 64)}, {}), 0});
  }
  applyTheme(*qApp);
  const QTemporaryDir scratch;
  Workroom room;
  showQuilt(room, copyOfDemo(scratch));
  Desk desk = room.session()->desk();
  desk.hold(InHand(Block(std::move(parts)), GridKind::orthogonal));
  room.session()->setDesk(desk);
  goOn(500);
  for (auto _ : state) {
    desk.gridLines = !desk.gridLines;
    room.session()->setDesk(desk);
  }
}

}  // namespace

void registerWorkroomBenchmarks() {
  measured("Hand/fill_everywhere", fillEverywhere);
  measured("Hand/500_by_500", largeInHand);
  measured("Stroke/move", strokeMove)->Unit(benchmark::kMicrosecond);
  benchmark::RegisterBenchmark("Open/large", openLarge)->Iterations(1)->UseRealTime()->Unit(benchmark::kMillisecond);
  benchmark::RegisterBenchmark("Workroom/bring_in", bringIn)->Iterations(1)->UseRealTime()->Unit(benchmark::kMillisecond);

  benchmark::RegisterBenchmark("Workroom/open_and_save", openAndSave)
      ->Iterations(1)
      ->UseRealTime()
      ->Unit(benchmark::kMillisecond);
}

}  // namespace uq::bench
