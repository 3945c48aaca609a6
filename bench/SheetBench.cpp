// Sheets of the largest size: a picture of 8192 × 8192 pixels, 262,144 tiles of 16.
#include <QImage>
#include <QPainter>
#include <QTemporaryDir>
#include <fstream>
#include <sstream>

#include "app/table/TableView.h"
#include "bench/Measured.h"
#include "core/edit/ArrangeSheets.h"
#include "core/sheets/SheetSearch.h"
#include "core/sheets/SheetTidy.h"
#include "raster/Blend.h"
#include "raster/PictureFile.h"
#include "raster/SheetIntake.h"

namespace uq::bench {

QImage largeSheet() {
  constexpr int kSide = 8192;
  constexpr int kCell = 16;
  QImage picture(kSide, kSide, QImage::Format_ARGB32);
  for (int y = 0; y < kSide; ++y) {
    auto* row = reinterpret_cast<QRgb*>(picture.scanLine(y));
    for (int x = 0; x < kSide; ++x) {
      const unsigned tile = static_cast<unsigned>(y / kCell * (kSide / kCell) + x / kCell);
      const unsigned colour = tile * 2654435761u >> 8;
      const bool dark = (x % kCell + y % kCell * 3) % 4 == 0;
      row[x] = tile % 11 == 0 ? 0 : 0xff000000u | (dark ? colour >> 1 & 0x7f7f7fu : colour & 0xffffffu);
    }
  }
  return picture;
}

namespace {

// Megabytes that the process held at most since resetPeak().
double peakMegabytes() {
  std::ifstream status("/proc/self/status");
  for (std::string line; std::getline(status, line);) {
    if (line.rfind("VmHWM:", 0) == 0) return std::stod(line.substr(6)) / 1024;
  }
  return 0;
}
void resetPeak() { std::ofstream("/proc/self/clear_refs") << "5"; }

struct Large {
  QTemporaryDir folder;
  std::string file = folder.filePath(QStringLiteral("large.png")).toStdString();
  Large() { (void)writePng(*realDisk(), largeSheet(), file); }
};
const Large& large() {
  static const Large made;
  return made;
}

Result<Intake> broughtIn() {
  Progress progress;
  return takeIn({large().file}, {16, 16}, *realDisk(), progress);
}

struct Opened {
  Quilt quilt;
  Id sheet;
  SheetSlot slot = 0;
  QImage picture;
  TileColours colours;
  Opened() {
    auto intake = broughtIn();
    IdSource ids(4);
    picture = std::move(intake->drafts.front().picture);
    const SheetAdded added = addSheet(quilt, std::move(intake->drafts.front().sheet), "large.png", ids);
    quilt = added.quilt;
    sheet = added.sheet;
    slot = *quilt.slots().find(sheet);
    colours = coloursOf(*quilt.sheet(sheet), viewOf(picture));
  }
  const Sheet& now() const { return *quilt.sheet(sheet); }
};
const Opened& opened() {
  static const Opened one;
  return one;
}

void intake(benchmark::State& state) {
  large();
  const double before = [] {
    resetPeak();
    return peakMegabytes();
  }();
  for (auto _ : state) {
    const auto result = broughtIn();
    if (!result || result->drafts.front().sheet.cut.cell != PixelSize{16, 16}) state.SkipWithError("it was cut wrong");
    benchmark::DoNotOptimize(result);
  }
  state.counters["peak_mb"] = peakMegabytes() - before;
}

void decoding(benchmark::State& state) {
  const auto bytes = realDisk()->read(large().file, std::int64_t{1} << 30);
  for (auto _ : state) benchmark::DoNotOptimize(decodePicture(*bytes, "large.png"));
}

void search(benchmark::State& state, const char* words) {
  const Opened& one = opened();
  const SearchHelp help{[&](const Sheet&) { return &one.colours; }, nullptr};
  std::size_t found = 0;
  for (auto _ : state) {
    const auto hits = searchSheets(one.quilt, {one.sheet}, words, help, 300'000);
    found = hits.size();
    benchmark::DoNotOptimize(hits);
  }
  state.counters["found"] = static_cast<double>(found);
}

void tidy(benchmark::State& state) {
  const Opened& one = opened();
  for (auto _ : state) benchmark::DoNotOptimize(findToTidy(one.now(), viewOf(one.picture), {}, one.slot));
}

}  // namespace

void registerSheetBenchmarks() {
  measured("Sheet/intake_8192", intake)->Iterations(1)->UseRealTime();
  measured("Sheet/decode_8192", decoding)->Iterations(1)->UseRealTime();
  measured("Sheet/tidy", tidy)->Iterations(1)->UseRealTime();
  measured(benchmark::RegisterBenchmark("Sheet/search_colour", search, "green"));
  measured(benchmark::RegisterBenchmark("Sheet/search_number", search, "large 77777"));
  measured(benchmark::RegisterBenchmark("Sheet/search_nothing", search, "lava"));
}

}  // namespace uq::bench
