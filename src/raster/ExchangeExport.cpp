#include "raster/ExchangeExport.h"

#include <QPainter>
#include <algorithm>

#include "core/document/Chalk.h"
#include "raster/BackdropArt.h"
#include "raster/BlankPicture.h"
#include "raster/PictureFile.h"

namespace uq {

namespace {

constexpr std::int64_t kMostHeldCells = 8 << 20;  // of a map whose text is put together before it is written
constexpr std::int64_t kLargestLookedAt = std::int64_t{1} << 31;  // bytes of a file that is there already

class ExchangeFiles {
 public:
  ExchangeFiles(MapPainter& painter, const Quilt& quilt, const FilePuts& puts, std::vector<std::string>& lacks)
      : painter_(painter), quilt_(quilt), puts_(puts), lacks_(lacks) {}

  Result<void> putQuilt() {
    for (const Shared<Sheet>& sheet : quilt_.sheets()) {
      const QImage picture = painter_.pictures().picture(sheet.read());
      if (picture.isNull()) {
        lacks_.push_back("The picture of the sheet “" + sheet->name + "” is missing");
      } else if (auto put = puts_.whole(exchangePicture(sheet.read()), pngOf(picture)); !put) {
        return put;
      }
    }
    return puts_.whole("quilt.json", exchangeQuiltText(quilt_));
  }

  Result<void> putMap(const Map& map, CellsAs cells) {
    ExchangeMapParts parts;
    const std::vector<Run> runs = runsOf(map, inGame(map));
    parts.drawing = exchangeDrawing(map);
    parts.picture = painter_.extentOf(quilt_, map, runs);
    parts.cells = cells;
    for (std::size_t i = 0; i < map.layers.size(); ++i) {
      const Layer& layer = map.layers[i].read();
      if (layer.kind != LayerKind::backdrop) continue;
      auto hung = putBackdrop(map, layer);
      if (!hung) return fail(hung.error());
      parts.backdrops[i] = *hung;
    }
    if (hasChalk(map)) {
      auto chalk = putChalk(map.grid);
      if (!chalk) return fail(chalk.error());
      parts.chalk = *chalk;
    }
    const std::int64_t layers = static_cast<std::int64_t>(map.layers.size());
    if (map.bounds.count() * layers <= kMostHeldCells) return puts_.whole(exchangeFile(map), exchangeMapText(quilt_, map, parts));
    return puts_.made(exchangeFile(map), [&](const auto& add) { return giveExchangeMap(quilt_, map, parts, add); });
  }

 private:
  // One copy, as large as it hangs.
  Result<ExchangeBackdrop> putBackdrop(const Map& map, const Layer& layer) {
    Backdrop once = layer.backdrop;
    once.repeatsAcross = once.repeatsDown = false;
    const auto place = hungAt(quilt_, map, once);
    if (!place || place->empty()) return ExchangeBackdrop{};
    QImage picture = blankPicture(QSize(place->w, place->h));
    BackdropArt art;
    if (!art.draw(picture, quilt_, map, once, painter_.pictures(), ViewScale{1}, QRect(place->x, place->y, place->w, place->h))) {
      lacks_.push_back("The picture of “" + layer.name + "” on " + map.name + " is missing");
      return ExchangeBackdrop{};
    }
    const std::string size = std::to_string(place->w) + "x" + std::to_string(place->h);
    ExchangeBackdrop hung{"backdrops/" + quilt_.sheet(layer.backdrop.sheet)->file + "-" + size + ".png", {place->w, place->h}};
    if (auto put = puts_.whole(hung.picture, pngOf(picture)); !put) return fail(put.error());
    return hung;
  }

  static bool hasChalk(const Map& map) {
    return std::any_of(map.layers.begin(), map.layers.end(), [&](const Shared<Layer>& layer) {
      const auto tally = layer->cells.tally(map.bounds);
      return std::any_of(tally.begin(), tally.end(), [](const auto& one) { return one.first.slot == kChalkSlot; });
    });
  }

  // All colours of the chalk as they lie on cells of that shape, from the left.
  Result<std::string> putChalk(const GridShape& shape) {
    const std::string path = "sheets/chalk-" + std::string(gridName(shape.kind)) + "-" + std::to_string(shape.cell.w) + "x" + std::to_string(shape.cell.h) + ".png";
    TileArt art(painter_.pictures());
    (void)art.follow(quilt_);
    (void)art.setShape(shape);
    QImage all = blankPicture(QSize(shape.cell.w * static_cast<int>(kChalkColours), shape.cell.h));
    for (std::uint32_t colour = 0; colour < kChalkColours; ++colour) {
      TileArt::Tile& tile = art.tile(Cell({kChalkSlot, colour}, {}));
      blend(all, {shape.cell.w * static_cast<int>(colour), 0}, art.sized(tile, shape.cell.w, shape.cell.h));
    }
    if (auto put = puts_.whole(path, pngOf(all)); !put) return fail(put.error());
    return path;
  }

  MapPainter& painter_;
  const Quilt& quilt_;
  const FilePuts& puts_;
  std::vector<std::string>& lacks_;
};

}  // namespace

std::vector<ExchangeStep> exchangeDrawing(const Map& map) {
  std::vector<ExchangeStep> steps;
  for (const Run& run : runsOf(map, inGame(map))) {
    ExchangeStep step;
    for (const Id id : run.layers) step.layers.push_back(*map.layerIndex(id));
    step.byDepth = run.byDepth;
    step.offset = run.offset;
    step.shifts = run.shifts;
    step.opacity = run.opacity;
    step.blend = run.blend;
    step.tint = run.tint;
    steps.push_back(std::move(step));
  }
  return steps;
}

Result<void> putExchangeQuilt(MapPainter& painter, const Quilt& quilt, const FilePuts& puts, std::vector<std::string>& lacks) {
  return ExchangeFiles(painter, quilt, puts, lacks).putQuilt();
}

Result<void> putExchangeMap(MapPainter& painter, const Quilt& quilt, const Map& map, CellsAs cells, const FilePuts& puts, std::vector<std::string>& lacks) {
  return ExchangeFiles(painter, quilt, puts, lacks).putMap(map, cells);
}

std::optional<Error> whyNotInto(Disk& disk, const std::string& folder) {
  const auto there = disk.read(joined(folder, "quilt.json"), kLargestLookedAt);
  if (!there || there->find("\"document\": \"exchange-quilt\"") != std::string::npos) return std::nullopt;
  return Error{Error::Cause::notPermitted, "a quilt is kept in this folder, and the export would overwrite it", folder, 0, "Nothing was written", "Choose another folder"};
}

Result<ExchangeDone> exportExchange(Disk& disk, MapPainter& painter, const Quilt& quilt, const ExchangeAsk& ask, Progress* progress) {
  if (auto why = whyNotInto(disk, ask.folder)) return fail(std::move(*why));
  ExchangeDone done;
  ExportFolder folder(disk, ask.folder, {}, progress);
  const FilePuts puts = folder.puts();
  if (progress) progress->expect(static_cast<std::int64_t>(quilt.maps().size() + quilt.sheets().size() + 1));
  for (const Shared<Map>& map : quilt.maps()) {
    const bool isAsked = ask.maps.empty() || std::find(ask.maps.begin(), ask.maps.end(), map->id) != ask.maps.end();
    if (!isAsked) continue;
    if (progress) progress->step(1);
    if (auto written = putExchangeMap(painter, quilt, map.read(), ask.cells, puts, done.lacks); !written) return fail(written.error());
  }
  if (auto written = putExchangeQuilt(painter, quilt, puts, done.lacks); !written) return fail(written.error());
  done.written = folder.written();
  done.same = folder.same();
  return done;
}

}  // namespace uq
