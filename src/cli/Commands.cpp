#include "cli/Commands.h"

#include <filesystem>
#include <iostream>
#include <sstream>
#include <set>

#include "core/store/Documents.h"
#include "core/store/JsonText.h"
#include "core/store/QuiltStore.h"
#include "core/edit/MapFacts.h"
#include "core/edit/Seams.h"
#include "raster/MapPainter.h"
#include "raster/MapExport.h"
#include "raster/PictureFile.h"

namespace uq::cli {

namespace {


void report(const Error& error) { std::cerr << error.text() << "\n"; }

int refuse(ExitCode code, const std::string& text) {
  std::cerr << text << "\n";
  return code;
}

struct LayerFigures {
  const Layer* layer;
  std::int64_t painted = 0;
  std::set<TileRef> tiles;
};

struct MapFigures {
  std::vector<LayerFigures> layers;  // farthest first
  std::set<TileRef> tiles;
};

MapFigures figuresOf(const Map& map) {
  MapFigures figures;
  for (const Shared<Layer>& layer : map.layers) {
    LayerFigures one{&layer.read(), 0, {}};
    for (const auto& [ref, count] : layer->cells.tally(map.bounds)) {
      one.painted += count;
      one.tiles.insert(ref);
    }
    figures.tiles.insert(one.tiles.begin(), one.tiles.end());
    figures.layers.push_back(std::move(one));
  }
  return figures;
}

int count(std::size_t size) { return static_cast<int>(size); }

Json infoDocument(const Quilt& quilt) {
  Json::Array maps;
  for (const auto& map : quilt.maps()) {
    const MapFigures figures = figuresOf(map.read());
    Json::Array layers;
    for (const LayerFigures& one : figures.layers) {
      const LayerFolder* level = map->layerFolder(one.layer->folder);
      Json::Array folders;
      for (const Id folder : map->foldersAround(one.layer->folder)) {
        folders.emplace_back(map->layerFolder(folder)->name);
      }
      layers.push_back(Json::Object{{"name", one.layer->name},
                                    {"folders", std::move(folders)},
                                    {"role", one.layer->role},
                                    {"level", level ? Json(level->name) : Json()},
                                    {"rise", map->riseOf(*one.layer)},
                                    {"painted", one.painted},
                                    {"tiles", count(one.tiles.size())}});
    }
    const PixelRect pixels = makeGrid(map->grid)->pixelBounds(map->bounds);
    maps.push_back(Json::Object{{"name", map->name},
                                {"folder", map->folder},
                                {"grid", gridName(map->grid.kind)},
                                {"seen", seenName(map->seen)},
                                {"cell", Json::Array{map->grid.cell.w, map->grid.cell.h}},
                                {"bounds", Json::Array{map->bounds.x0, map->bounds.y0, map->bounds.x1, map->bounds.y1}},
                                {"size", Json::Array{map->bounds.width(), map->bounds.height()}},
                                {"pixels", Json::Array{pixels.w, pixels.h}},
                                {"order", map->drawOrder() == DrawOrder::byDepth ? "by-depth" : "by-layers"},
                                {"tiles", count(figures.tiles.size())},
                                {"layers", std::move(layers)}});
  }
  Json::Array sheets;
  for (const auto& sheet : quilt.sheets()) {
    sheets.push_back(Json::Object{{"name", sheet->name},
                                  {"picture", sheet->picture},
                                  {"cell", Json::Array{sheet->cut.cell.w, sheet->cut.cell.h}},
                                  {"tiles", sheet->tileCount()}});
  }
  Json::Array seams;
  const SewnMaps sewn(quilt);
  for (const Shared<Seam>& seam : quilt.seams()) {
    const auto nameOf = [&](Id id) { return quilt.map(id) ? Json(quilt.map(id)->name) : Json(); };
    seams.push_back(Json::Object{{"id", seam->id.text()},
                                 {"map", nameOf(seam->map)},
                                 {"other", nameOf(seam->other)},
                                 {"at", Json::Array{seam->by.x, seam->by.y}},
                                 {"cells", cellsSewn(quilt, seam.read())},
                                 {"wrong", sewn.whyWrong(seam->id)}});
  }
  return Json::Object{{"name", quilt.facts().name}, {"maps", std::move(maps)}, {"sheets", std::move(sheets)}, {"seams", std::move(seams)}};
}

void printInfo(const Quilt& quilt) {
  std::cout << quilt.facts().name << ": " << quilt.maps().size() << (quilt.maps().size() == 1 ? " map, " : " maps, ")
            << quilt.sheets().size() << (quilt.sheets().size() == 1 ? " sheet\n" : " sheets\n");
  for (const auto& map : quilt.maps()) {
    const MapFigures figures = figuresOf(map.read());
    const PixelRect pixels = makeGrid(map->grid)->pixelBounds(map->bounds);
    std::cout << "\nmap " << map->name << " (" << map->folder << ")\n  " << gridName(map->grid.kind) << " "
              << map->grid.cell.w << " × " << map->grid.cell.h << " px, " << map->bounds.width() << " × "
              << map->bounds.height() << " cells = " << pixels.w << " × " << pixels.h << " px, cells from "
              << map->bounds.x0 << ", " << map->bounds.y0 << ", drawn "
              << (map->drawOrder() == DrawOrder::byDepth ? "by depth" : "by layers")
              << (map->seen == Seen::sideOn ? ", seen side on" : "") << "\n  " << figures.tiles.size()
              << " different tiles\n  layers, nearest first:\n";
    for (auto one = figures.layers.rbegin(); one != figures.layers.rend(); ++one) {
      const Layer& layer = *one->layer;
      std::cout << "    " << layer.name << " (" << layer.role;
      for (const Id folder : map->foldersAround(layer.folder)) std::cout << ", " << map->layerFolder(folder)->name;
      if (const int rise = map->riseOf(layer); rise != 0) std::cout << ", up " << rise << " px";
      std::cout << "): ";
      const Sheet* hung = layer.kind == LayerKind::backdrop ? quilt.sheet(layer.backdrop.sheet) : nullptr;
      if (layer.kind == LayerKind::backdrop) {
        std::cout << "the picture of " << (hung ? hung->name : "a missing sheet") << "\n";
      } else if (layer.kind == LayerKind::pins) {
        std::cout << "pins\n";
      } else {
        std::cout << one->painted << " cells painted, " << one->tiles.size() << " different tiles\n";
      }
    }
  }
  const SewnMaps sewn(quilt);
  for (const Shared<Seam>& seam : quilt.seams()) {
    const std::string& why = sewn.whyWrong(seam->id);
    std::cout << "\nseam " << seamText(quilt, seam.read()) << ": " << cellsSewn(quilt, seam.read()) << " cells"
              << (why.empty() ? "" : ", wrong: " + why) << "\n";
  }
  for (const auto& sheet : quilt.sheets()) {
    std::cout << "\nsheet " << sheet->name << ": " << sheet->tileCount() << " tiles of " << sheet->cut.cell.w << " × "
              << sheet->cut.cell.h << " px in " << sheet->picture << "\n";
  }
}

}  // namespace

std::string quiltFolder(const std::string& start) {
  std::error_code error;
  std::filesystem::path path = std::filesystem::absolute(start.empty() ? "." : start, error);
  for (auto folder = path; !error && !folder.empty(); folder = folder.parent_path()) {
    if (std::filesystem::exists(folder / kQuiltFile, error)) return folder.string();
    if (folder == folder.root_path()) break;
  }
  return path.string();
}

int info(const std::string& folder, bool json) {
  const auto opened = QuiltStore::open(realDisk(), quiltFolder(folder), QuiltStore::Access::read);
  if (!opened) {
    report(opened.error());
    return kNotOpened;
  }
  if (json) {
    std::cout << writeJson(infoDocument(opened->quilt));
  } else {
    printInfo(opened->quilt);
  }
  for (const Error& problem : opened->problems) report(problem);
  return opened->problems.empty() ? kFine : kProblems;
}

int render(const RenderOrder& order) {
  if (!(order.zoom >= kSmallestZoom && order.zoom <= kLargestZoom)) {
    return refuse(kUsage, "--zoom takes a number from 0.002 to 32 (1 is 100 %)");
  }
  // A MAP that is a path says itself which quilt it is in.
  std::error_code error;
  const bool isPath = std::filesystem::exists(std::filesystem::path(order.map) / "map.json", error);
  const std::string folder = quiltFolder(order.quilt.empty() && isPath ? order.map : order.quilt);
  auto opened = QuiltStore::open(realDisk(), folder, QuiltStore::Access::read);
  if (!opened) {
    report(opened.error());
    return kNotOpened;
  }
  const Quilt& quilt = opened->quilt;
  const Map* map = quilt.mapNamed(order.map);
  if (!map) map = quilt.mapNamed(std::filesystem::path(order.map).lexically_normal().filename().string());
  if (!map) return refuse(kNotOpened, "\"" + order.map + "\" is no map of this quilt. 'uquilt info' lists them.");

  std::set<Id> hidden;
  for (const Shared<Layer>& layer : map->layers) {
    if (!order.only.empty()) hidden.insert(layer->id);
  }
  const auto named = [&](const std::string& name) {
    const Layer* layer = map->layerNamed(name);
    if (!layer) std::cerr << "\"" << name << "\" is not the name of exactly one layer of " << map->name << "\n";
    return layer;
  };
  for (const std::string& name : order.only) {
    const Layer* layer = named(name);
    if (!layer) return kNotOpened;
    hidden.erase(layer->id);
  }
  for (const std::string& name : order.without) {
    const Layer* layer = named(name);
    if (!layer) return kNotOpened;
    hidden.insert(layer->id);
  }

  MapPainter painter(SheetPictures::load(quilt, opened->problems));
  Seeing seeing{hidden, {}};
  if (!order.camera.empty()) seeing.camera = PixelPos{order.camera[0], order.camera[1]};
  const std::vector<Run> runs = runsOf(*map, seeing);
  const ViewScale scale{order.zoom};
  const PixelRect cells = makeGrid(map->grid)->pixelBounds(map->bounds);
  PixelRect pixels = order.exact ? cells : painter.extentOf(quilt, *map, runs);
  if (seeing.camera) {
    PixelSize frame = screenOf(quilt, *map);
    char times = 0;
    std::istringstream text(order.frame);
    const bool given = !order.frame.empty();
    if (given && (!(text >> frame.w >> times >> frame.h) || times != 'x' || frame.w < 1 || frame.h < 1)) {
      return refuse(kUsage, "--frame is a size like 320x180.");
    }
    pixels = {seeing.camera->x, seeing.camera->y, frame.w, frame.h};
  } else if (!order.frame.empty()) {
    return refuse(kUsage, "--frame needs --camera, which says where it is.");
  }
  if (isTooLargeToRender(pixels.w * order.zoom, pixels.h * order.zoom)) {
    return refuse(kNotWritten, "The picture would be larger than 32,768 pixels or 512 MB. Choose a smaller --zoom.");
  }
  QImage picture = overCloth(painter, quilt, *map, runs, scale, scale.toDevice(pixels));
  const QSize size = picture.size();
  for (const Error& problem : opened->problems) report(problem);
  if (auto written = writePng(*realDisk(), std::move(picture), order.output); !written) {
    report(written.error());
    return kNotWritten;
  }
  std::cout << order.output << ": " << map->name << ", " << size.width() << " × " << size.height() << " px";
  if (!(pixels == cells) && !seeing.camera) {
    const QPoint off = scale.toDevice(cells).topLeft() - scale.toDevice(pixels).topLeft();
    std::cout << ", the map's cells from " << off.x() << ", " << off.y();
  }
  std::cout << "\n";
  return opened->problems.empty() ? kFine : kProblems;
}

}  // namespace uq::cli
