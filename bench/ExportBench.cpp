// A quilt written for a game and read back: a map of 4096 × 4096 cells with 8 layers as exchange JSON, one changed map of 300, a picture of
// 65,536 pixels a side, and a picture cut back into cells. Limits: docs/architecture.md.
#include <QTemporaryDir>
#include <fstream>

#include "bench/BigQuilt.h"
#include "bench/Measured.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/ArrangeSheets.h"
#include "core/edit/LayCells.h"
#include "core/store/ExchangeText.h"
#include "raster/PictureFile.h"
#include "raster/PictureImport.h"
#include "raster/PngStream.h"
#include "raster/TargetExport.h"

namespace uq::bench {

namespace {

void json(benchmark::State& state) {
  const Quilt quilt = bigQuilt(4096, 8);
  const Map& map = *quilt.map(layerOfBig(quilt, 0).map);
  ExchangeMapParts parts;
  std::int64_t bytes = 0;
  for (auto _ : state) {
    const auto given = giveExchangeMap(quilt, map, parts, [&](std::string_view piece) -> Result<void> {
      bytes += static_cast<std::int64_t>(piece.size());
      benchmark::DoNotOptimize(piece.data());
      return {};
    });
    if (!given) state.SkipWithError("it was not given");
  }
  state.SetBytesProcessed(bytes);
}

// One map of 300 painted on, all others as they were; each has 96 × 64 cells.
void changed(benchmark::State& state) {
  Quilt quilt = demoQuilt();
  IdSource ids(8);
  const Id yard = quilt.mapNamed("Depot Yard")->id;
  while (quilt.maps().size() < 300) quilt = duplicateMap(quilt, yard, ids).quilt;
  Target target;
  target.id = ids.next();
  target.name = "Levels";
  const QTemporaryDir folder;
  Errors problems;
  MapPainter painter(SheetPictures::load(quilt, problems));
  const std::shared_ptr<Disk> disk = realDisk();
  const TargetAsk ask{folder.path().toStdString(), true};
  if (!exportTarget(*disk, painter, quilt, target, ask)) state.SkipWithError("it was not written");
  const LayerAt at{yard, quilt.map(yard)->layers.front()->id};
  int turn = 0;
  for (auto _ : state) {
    const std::vector<CellChange> one = {{{3, 3}, Cell({kChalkSlot, static_cast<std::uint32_t>(++turn % 8)}, {}), 0}};
    quilt = layCells(quilt, at, one);
    const auto done = exportTarget(*disk, painter, quilt, target, ask);
    if (!done || done->maps.size() != 1) state.SkipWithError("another count of maps was written");
  }
}

double peakMegabytesNow() {
  std::ifstream status("/proc/self/status");
  for (std::string line; std::getline(status, line);) {
    if (line.starts_with("VmHWM:")) return std::stod(line.substr(6)) / 1024;
  }
  return 0;
}

// The first layers of the big map at 16 pixels a cell: 65,536 pixels each way.
void png(benchmark::State& state) {
  const Quilt quilt = bigQuilt(4096, 2);
  const Map& map = *quilt.map(layerOfBig(quilt, 0).map);
  Errors problems;
  MapPainter painter(SheetPictures::load(quilt, problems));
  const auto runs = runsOf(map, inGame(map));
  const ViewScale scale{16.0 / map.grid.cell.w};
  const QRect device(0, 0, kLargestStreamed, kLargestStreamed);
  std::int64_t bytes = 0;
  std::ofstream("/proc/self/clear_refs") << 5;
  const double before = peakMegabytesNow();
  for (auto _ : state) {
    const auto written = streamPng(painter, {quilt, map, runs, scale, device}, [&](std::string_view piece) -> Result<void> {
      bytes += static_cast<std::int64_t>(piece.size());
      return {};
    });
    if (!written) state.SkipWithError("it was not written");
  }
  state.counters["megabytes"] = peakMegabytesNow() - before;
  state.counters["written"] = static_cast<double>(bytes);
}

// 8192 × 8192 pixels of 10,000 tiles of 16.
void picture(benchmark::State& state) {
  constexpr int kTiles = 100;  // each way
  QImage tiles(16 * kTiles, 16 * kTiles, QImage::Format_ARGB32_Premultiplied);
  for (int y = 0; y < tiles.height(); ++y) {
    for (int x = 0; x < tiles.width(); ++x) tiles.setPixel(x, y, 0xff000000u | static_cast<QRgb>((x * 2654435761u ^ y * 40503u) >> 4 & 0xffffffu));
  }
  Sheet sheet;
  sheet.name = "many";
  sheet.cut.cell = {16, 16};
  sheet.pictureSize = {tiles.width(), tiles.height()};
  IdSource ids(3);
  Quilt quilt;
  const SheetAdded added = addSheet(quilt, sheet, "many.png", ids);
  quilt = added.quilt;
  SheetPictures pictures;
  pictures.set(*quilt.sheet(added.sheet), tiles);
  QImage whole(8192, 8192, QImage::Format_ARGB32_Premultiplied);
  for (int y = 0; y < 512; ++y) {
    for (int x = 0; x < 512; ++x) {
      const int tile = (x * 31 + y * 57) % (kTiles * kTiles);
      for (int row = 0; row < 16; ++row) std::copy_n(reinterpret_cast<const QRgb*>(tiles.constScanLine(tile / kTiles * 16 + row)) + tile % kTiles * 16, 16, reinterpret_cast<QRgb*>(whole.scanLine(y * 16 + row)) + x * 16);
    }
  }
  for (auto _ : state) {
    const auto read = cellsOfPicture(whole, quilt, pictures, {GridKind::orthogonal, {16, 16}});
    if (!read || read->known != 512 * 512) state.SkipWithError("not all was recognised");
  }
}

const bool kRegistered = [] {
  measured("Export/json", json);
  measured("Export/changed", changed);
  measured("Export/png", png)->Repetitions(1)->Iterations(1);
  measured("Import/picture", picture);
  return true;
}();

}  // namespace

}  // namespace uq::bench
