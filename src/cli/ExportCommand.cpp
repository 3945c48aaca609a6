#include "cli/ExportCommand.h"

#include <algorithm>
#include <iostream>

#include "cli/Commands.h"
#include "core/edit/FormLosses.h"
#include "core/store/CsvText.h"
#include "core/store/QuiltStore.h"
#include "raster/ExchangeExport.h"
#include "raster/MapExport.h"

namespace uq::cli {

namespace {

int refuse(ExitCode code, const std::string& text) {
  std::cerr << text << "\n";
  return code;
}

int notWritten(const Error& error) { return refuse(kNotWritten, error.text()); }

// Where each of several maps, or one, goes.
std::string fileFor(const MapsExportOrder& order, const Map& map, Form form) {
  const std::string ending = "." + std::string(formName(form));
  return order.output.ends_with(ending) ? order.output : order.output + "/" + map.folder + ending;
}

Result<int> writeCsv(Disk& disk, const Quilt& quilt, const Map& map, const MapsExportOrder& order, CsvAs as) {
  int written = 0;
  const std::string folder = order.output + "/" + map.folder;
  if (auto made = disk.makeFolder(folder); !made) return fail(made.error());
  for (const Shared<Layer>& layer : map.layers) {
    if (!layer->holdsTiles()) continue;
    if (auto put = writeWhole(disk, folder + "/" + layer->file + ".csv", csvText(quilt, map, layer.read(), as)); !put) return fail(put.error());
    ++written;
  }
  return written;
}

}  // namespace

int exportMaps(const MapsExportOrder& order) {
  std::optional<Form> form = formFromName(order.form);
  if (order.form.empty()) {
    for (const Form one : {Form::png, Form::ora}) {
      if (order.output.ends_with("." + std::string(formName(one)))) form = one;
    }
  }
  if (!form) return refuse(kUsage, "--form is json, csv, png or ora; without it -o ends in .png or .ora.");
  const auto jsonCells = cellsAsFromName(order.cells);
  const auto csvCells = csvAsFromName(order.cells == "plain" ? "numbers" : order.cells);
  if (form == Form::json && !jsonCells) return refuse(kUsage, "--cells of json is plain or runs.");
  if (form == Form::csv && !csvCells) return refuse(kUsage, "--cells of csv is numbers or names.");
  auto opened = QuiltStore::open(realDisk(), quiltFolder(order.quilt), QuiltStore::Access::read);
  if (!opened) return refuse(kNotOpened, opened.error().text());
  const Quilt& quilt = opened->quilt;
  std::vector<const Map*> maps;
  for (const std::string& name : order.maps) {
    const Map* map = quilt.mapNamed(name);
    if (!map) return refuse(kNotOpened, "\"" + name + "\" is no map of this quilt. 'uquilt info' lists them.");
    maps.push_back(map);
  }
  if (maps.empty()) {
    for (const Shared<Map>& map : quilt.maps()) maps.push_back(&map.read());
  }
  const bool isFile = form != Form::json && order.output.ends_with("." + std::string(formName(*form)));
  if (isFile && maps.size() != 1) return refuse(kUsage, "One file holds one map: say which, or a folder after -o.");
  MapPainter painter(SheetPictures::load(quilt, opened->problems));
  for (const Error& problem : opened->problems) std::cerr << problem.text() << "\n";
  for (const Map* map : maps) {
    if (const std::string lost = lossesInWords(quilt, *map, *form); !lost.empty()) std::cerr << lost << ".\n";
  }
  const std::shared_ptr<Disk> real = realDisk();
  Disk& disk = *real;
  if (form == Form::json) {
    ExchangeAsk ask{order.output, {}, *jsonCells};
    for (const Map* map : maps) ask.maps.push_back(map->id);
    const auto done = exportExchange(disk, painter, quilt, ask);
    if (!done) return notWritten(done.error());
    for (const std::string& lacks : done->lacks) std::cerr << lacks << ".\n";
    for (const std::string& file : done->written) std::cout << order.output << "/" << file << "\n";
    std::cout << done->written.size() << " files written, " << done->same.size() << " were as they are\n";
    return opened->problems.empty() && done->lacks.empty() ? kFine : kProblems;
  }
  for (const Map* map : maps) {
    if (form == Form::csv) {
      const auto count = writeCsv(disk, quilt, *map, order, *csvCells);
      if (!count) return notWritten(count.error());
      std::cout << order.output << "/" << map->folder << ": " << map->name << ", " << *count << " layers\n";
      continue;
    }
    if (!isFile) {
      if (auto made = disk.makeFolder(order.output); !made) return notWritten(made.error());
    }
    const std::string file = fileFor(order, *map, *form);
    if (const auto written = exportMap(disk, painter, quilt, *map, file); !written) return notWritten(written.error());
    std::cout << file << ": " << map->name << ", " << map->layers.size() << " layers\n";
  }
  return opened->problems.empty() ? kFine : kProblems;
}

}  // namespace uq::cli
