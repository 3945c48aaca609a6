#include "raster/ExchangeExport.h"

#include <QPainter>
#include <algorithm>

#include "core/document/Chalk.h"
#include "raster/BackdropArt.h"
#include "raster/BlankPicture.h"
#include "raster/PictureFile.h"

namespace uq {

namespace {

constexpr std::int64_t kMostCompared = std::int64_t{1} << 31;  // bytes of a file that is there already

class Exporting {
 public:
  Exporting(Disk& disk, MapPainter& painter, const Quilt& quilt, const ExchangeAsk& ask, Progress* progress)
      : disk_(disk), painter_(painter), quilt_(quilt), ask_(ask), progress_(progress) {}

  Result<ExchangeDone> run() {
    std::vector<const Map*> maps;
    for (const Shared<Map>& map : quilt_.maps()) {
      if (ask_.maps.empty() || std::find(ask_.maps.begin(), ask_.maps.end(), map->id) != ask_.maps.end()) maps.push_back(&map.read());
    }
    if (const auto there = disk_.read(ask_.folder + "/quilt.json", kMostCompared); there && there->find("\"document\": \"exchange-quilt\"") == std::string::npos) {
      return fail(Error{Error::Cause::notPermitted, "a quilt is kept in this folder, and the export would overwrite it", ask_.folder, 0, "Nothing was written", "Choose another folder"});
    }
    if (progress_) progress_->expect(static_cast<std::int64_t>(maps.size() + quilt_.sheets().size() + 1));
    for (const char* folder : {"", "/maps", "/sheets", "/backdrops"}) {
      if (auto made = disk_.makeFolder(ask_.folder + folder); !made) return fail(made.error());
    }
    for (const Shared<Sheet>& sheet : quilt_.sheets()) {
      const QImage picture = painter_.pictures().picture(sheet.read());
      if (picture.isNull()) {
        done_.lacks.push_back("The picture of the sheet “" + sheet->name + "” is missing");
      } else if (auto put = write(exchangePicture(sheet.read()), pngOf(picture)); !put) {
        return fail(put.error());
      }
    }
    for (const Map* map : maps) {
      if (auto put = writeMap(*map); !put) return fail(put.error());
    }
    if (auto put = write("quilt.json", exchangeQuiltText(quilt_)); !put) return fail(put.error());
    return std::move(done_);
  }

 private:
  Result<void> write(const std::string& path, const std::string& bytes) {
    if (progress_ && progress_->isCancelled()) return fail(Error::Cause::cancelled, "exporting was cancelled", path);
    const std::string whole = ask_.folder + "/" + path;
    if (progress_) progress_->step(1);
    const auto there = disk_.read(whole, kMostCompared);
    if (there && *there == bytes) {
      done_.same.push_back(path);
      return {};
    }
    if (auto put = writeWhole(disk_, whole, bytes); !put) return put;
    done_.written.push_back(path);
    return {};
  }

  Result<void> writeMap(const Map& map) {
    ExchangeMapParts parts;
    const std::vector<Run> runs = runsOf(map, inGame(map));
    parts.drawing = exchangeDrawing(map);
    parts.picture = painter_.extentOf(quilt_, map, runs);
    parts.cells = ask_.cells;
    for (std::size_t i = 0; i < map.layers.size(); ++i) {
      const Layer& layer = map.layers[i].read();
      if (layer.kind != LayerKind::backdrop) continue;
      auto hung = writeBackdrop(map, layer);
      if (!hung) return fail(hung.error());
      parts.backdrops[i] = *hung;
    }
    if (hasChalk(map)) {
      auto chalk = writeChalk(map.grid);
      if (!chalk) return fail(chalk.error());
      parts.chalk = *chalk;
    }
    return write(exchangeFile(map), exchangeMapText(quilt_, map, parts));
  }

  // One copy, as large as it hangs.
  Result<ExchangeBackdrop> writeBackdrop(const Map& map, const Layer& layer) {
    Backdrop once = layer.backdrop;
    once.repeatsAcross = once.repeatsDown = false;
    const auto place = hungAt(quilt_, map, once);
    if (!place || place->empty()) return ExchangeBackdrop{};
    QImage picture = blankPicture(QSize(place->w, place->h));
    BackdropArt art;
    if (!art.draw(picture, quilt_, map, once, painter_.pictures(), ViewScale{1}, QRect(place->x, place->y, place->w, place->h))) {
      done_.lacks.push_back("The picture of “" + layer.name + "” on " + map.name + " is missing");
      return ExchangeBackdrop{};
    }
    const std::string size = std::to_string(place->w) + "x" + std::to_string(place->h);
    ExchangeBackdrop hung{"backdrops/" + quilt_.sheet(layer.backdrop.sheet)->file + "-" + size + ".png", {place->w, place->h}};
    if (auto put = write(hung.picture, pngOf(picture)); !put) return fail(put.error());
    return hung;
  }

  static bool hasChalk(const Map& map) {
    return std::any_of(map.layers.begin(), map.layers.end(), [&](const Shared<Layer>& layer) {
      const auto tally = layer->cells.tally(map.bounds);
      return std::any_of(tally.begin(), tally.end(), [](const auto& one) { return one.first.slot == kChalkSlot; });
    });
  }

  // All colours of the chalk as they lie on cells of that shape, from the left.
  Result<std::string> writeChalk(const GridShape& shape) {
    const std::string path = "sheets/chalk-" + std::string(gridName(shape.kind)) + "-" + std::to_string(shape.cell.w) + "x" + std::to_string(shape.cell.h) + ".png";
    TileArt art(painter_.pictures());
    (void)art.follow(quilt_);
    (void)art.setShape(shape);
    QImage all = blankPicture(QSize(shape.cell.w * static_cast<int>(kChalkColours), shape.cell.h));
    for (std::uint32_t colour = 0; colour < kChalkColours; ++colour) {
      TileArt::Tile& tile = art.tile(Cell({kChalkSlot, colour}, {}));
      blend(all, {shape.cell.w * static_cast<int>(colour), 0}, art.sized(tile, shape.cell.w, shape.cell.h));
    }
    if (auto put = write(path, pngOf(all)); !put) return fail(put.error());
    return path;
  }

  Disk& disk_;
  MapPainter& painter_;
  const Quilt& quilt_;
  const ExchangeAsk& ask_;
  Progress* progress_;
  ExchangeDone done_;
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

Result<ExchangeDone> exportExchange(Disk& disk, MapPainter& painter, const Quilt& quilt, const ExchangeAsk& ask, Progress* progress) {
  return Exporting(disk, painter, quilt, ask, progress).run();
}

}  // namespace uq
