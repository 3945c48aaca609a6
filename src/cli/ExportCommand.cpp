#include "cli/ExportCommand.h"

#include <algorithm>
#include <filesystem>
#include <iostream>

#include "cli/Commands.h"
#include "core/edit/FormLosses.h"
#include "core/store/CsvText.h"
#include "core/store/QuiltStore.h"
#include "core/store/TemplateText.h"
#include "raster/ExchangeExport.h"
#include "raster/MapExport.h"

namespace uq::cli {

namespace {

int refuse(ExitCode code, const std::string& text) {
  std::cerr << text << "\n";
  return code;
}

int notWritten(const Error& error) { return refuse(kNotWritten, error.text()); }

// What is the quilt's own is never written over: its documents and the folders of its parts.
bool isOwnOf(const std::string& quilt, const std::string& path) {
  std::error_code error;
  const auto whole = std::filesystem::weakly_canonical(std::filesystem::absolute(path, error), error);
  const auto inside = whole.lexically_relative(std::filesystem::weakly_canonical(quilt, error));
  if (error || inside.empty() || *inside.begin() == "..") return false;
  constexpr const char* kOwn[] = {"quilt.json", "links.json", "plan.json", "maps", "sheets", "stamps", "edgings", ".urban-quilt"};
  const auto first = inside.begin()->string();
  return std::any_of(std::begin(kOwn), std::end(kOwn), [&](const char* own) { return first == own; });
}

int refuseOwn(const std::string& path) { return refuse(kNotWritten, path + ": what the quilt keeps there is not written over. Nothing was written. Choose another place"); }

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

// "level.h.mustache" writes files that end in ".h".
std::string endingOf(const std::string& file) {
  std::string name = std::filesystem::path(file).filename().string();
  if (name.ends_with(".mustache")) name.resize(name.size() - std::string_view(".mustache").size());
  const std::size_t dot = name.rfind('.');
  return dot == std::string::npos ? ".txt" : name.substr(dot);
}

Escaping escapingFor(const std::string& ending) {
  for (const char* one : {".xml", ".html", ".svg"}) {
    if (ending == one) return Escaping::xml;
  }
  for (const char* one : {".h", ".c", ".cpp", ".hpp", ".lua", ".json", ".js", ".py"}) {
    if (ending == one) return Escaping::c;
  }
  return Escaping::none;
}

int exportByTemplate(Disk& disk, const Quilt& quilt, const std::vector<const Map*>& maps, const MapsExportOrder& order) {
  const auto escaping = order.escape.empty() ? std::optional(escapingFor(endingOf(order.templateFile))) : escapingFromName(order.escape);
  if (!escaping) return refuse(kUsage, "--escape is none, xml or c.");
  if (order.templateFile.empty()) return refuse(kUsage, "--form template needs --template FILE; examples/templates has some to begin with.");
  const auto text = disk.read(order.templateFile, static_cast<std::int64_t>(kLongestTemplate));
  if (!text) return notWritten(text.error());
  // All is filled before anything is written.
  std::vector<std::pair<std::string, std::string>> files;
  for (const Map* map : maps) {
    ExchangeMapParts parts;
    parts.drawing = exchangeDrawing(*map);
    parts.wholeMap = true;
    const Result<Json> data = templateData(quilt, *map, parts);
    if (!data) return notWritten(data.error());
    const std::string asked = order.name.empty() ? map->folder + endingOf(order.templateFile) : order.name;
    const auto filledName = filledTemplate(asked, *data, Escaping::none, "--name");
    const auto name = filledName ? nameInside(*filledName) : filledName;
    if (!name) return notWritten(name.error());
    const auto filled = filledTemplate(*text, *data, *escaping, order.templateFile);
    if (!filled) return notWritten(filled.error());
    const auto same = [&](const auto& one) { return one.first == *name; };
    if (std::any_of(files.begin(), files.end(), same)) return refuse(kUsage, "Two maps would be written to " + *name + ": --name has to tell them apart.");
    files.emplace_back(*name, *filled);
  }
  for (const auto& [name, filled] : files) {
    if (isOwnOf(quiltFolder(order.quilt), order.output + "/" + name)) return refuseOwn(order.output + "/" + name);
  }
  for (const auto& [name, filled] : files) {
    const std::string file = order.output + "/" + name;
    if (auto made = disk.makeFolder(std::filesystem::path(file).parent_path().string()); !made) return notWritten(made.error());
    if (auto put = writeWhole(disk, file, filled); !put) return notWritten(put.error());
    std::cout << file << "\n";
  }
  return kFine;
}

}  // namespace

int exportMaps(const MapsExportOrder& order) {
  std::optional<Form> form = formFromName(order.form);
  if (order.form.empty()) {
    for (const Form one : {Form::png, Form::ora}) {
      if (order.output.ends_with("." + std::string(formName(one)))) form = one;
    }
  }
  const bool isOwn = order.form == "template";
  if (!form && !isOwn) return refuse(kUsage, "--form is json, csv, png, ora or template; without it -o ends in .png or .ora.");
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
  const std::shared_ptr<Disk> real = realDisk();
  Disk& disk = *real;
  const std::string own = quiltFolder(order.quilt);
  for (const Map* map : maps) {
    if (!isOwn && (isOwnOf(own, order.output) || (form != Form::json && isOwnOf(own, fileFor(order, *map, *form))))) return refuseOwn(order.output);
  }
  if (isOwn) return exportByTemplate(disk, quilt, maps, order);
  const bool isFile = form != Form::json && order.output.ends_with("." + std::string(formName(*form)));
  if (isFile && maps.size() != 1) return refuse(kUsage, "One file holds one map: say which, or a folder after -o.");
  MapPainter painter(SheetPictures::load(quilt, opened->problems));
  for (const Error& problem : opened->problems) std::cerr << problem.text() << "\n";
  for (const Map* map : maps) {
    if (const std::string lost = lossesInWords(quilt, *map, *form); !lost.empty()) std::cerr << lost << ".\n";
  }
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
