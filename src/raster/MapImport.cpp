#include "raster/MapImport.h"

#include <algorithm>
#include <cctype>

#include "core/edit/ArrangeLayers.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/ArrangeSheets.h"
#include "core/sheets/TileMarks.h"
#include "core/store/CsvReading.h"
#include "core/store/StoreLimits.h"
#include "raster/PictureFile.h"
#include "raster/PictureImport.h"

namespace uq {

namespace {

struct BroughtLayer {
  std::string name;  // empty: the new map's own
  CellGrid cells;
};

std::string stemOf(const std::string& path) {
  const std::string name = nameOf(path);
  const std::size_t dot = name.rfind('.');
  return dot == std::string::npos || dot == 0 ? name : name.substr(0, dot);
}

std::string freeName(const Quilt& quilt, const std::string& wanted) {
  std::string name = wanted.empty() ? "Map" : wanted;
  for (int n = 2; quilt.mapNamed(name); ++n) name = wanted + " " + std::to_string(n);
  return name;
}

// A map with these layers, the farthest first.
Result<MapAdded> withMap(const Quilt& quilt, const MapPlan& plan, const std::vector<BroughtLayer>& layers, IdSource& ids) {
  if (const std::string why = whyNoMap(plan); !why.empty()) return fail(Error{Error::Cause::tooLarge, why, plan.name, 0, "Nothing was changed", "Bring in a part of it"});
  MapAdded added = addMap(quilt, plan, ids);
  for (std::size_t i = 0; i < layers.size(); ++i) {
    if (i >= added.quilt.map(added.map)->layers.size()) added.quilt = addLayer(added.quilt, added.map, i, ids).quilt;
    Map map = *added.quilt.map(added.map);
    map.layers[i].edit([&](Layer& layer) {
      layer.cells = layers[i].cells;
      if (!layers[i].name.empty()) layer.name = layers[i].name;
    });
    added.quilt = added.quilt.with(std::move(map));
  }
  return added;
}

Result<MapImport> importTables(Disk& disk, const Quilt& quilt, const MapImportAsk& ask, IdSource& ids, Progress* progress) {
  MapImport result;
  std::vector<BroughtLayer> layers;
  MapPlan plan{freeName(quilt, ask.name.empty() ? stemOf(ask.files.front()) : ask.name), ask.grid, 0, 0};
  if (progress) progress->expect(static_cast<std::int64_t>(ask.files.size()));
  for (const std::string& file : ask.files) {
    if (progress && progress->isCancelled()) return fail(Error::Cause::cancelled, "it was cancelled", file);
    const auto text = disk.read(file, kLargestCells);
    if (!text) return fail(text.error());
    auto read = readCsv(quilt, *text, file);
    if (!read) return fail(read.error());
    plan.width = std::max(plan.width, read->columns);
    plan.height = std::max(plan.height, read->rows);
    result.known += read->laid;
    result.unknown += read->unknown;
    result.unknownNames.insert(result.unknownNames.end(), read->unknownNames.begin(), read->unknownNames.end());
    layers.push_back({ask.files.size() > 1 ? stemOf(file) : std::string(), std::move(read->cells)});
    if (progress) progress->step(1);
  }
  auto added = withMap(quilt, plan, layers, ids);
  if (!added) return fail(added.error());
  result.quilt = std::move(added->quilt);
  result.map = added->map;
  return result;
}

// A sheet of the pieces that were not recognised, which then lie where they were.
Result<SheetAdded> withPieces(const Quilt& quilt, const QImage& picture, PictureCells& read, const MapImportAsk& ask, const std::string& name, SheetPictures& pictures, IdSource& ids) {
  QImage pieces = unknownPictures(picture, read, ask.grid);
  Sheet sheet;
  sheet.name = name + ", pieces";
  const PixelRect box = makeGrid(ask.grid)->cellBox({0, 0});
  sheet.cut.cell = {box.w, box.h};
  sheet.pictureSize = {pieces.width(), pieces.height()};
  sheet.origin.from = nameOf(ask.files.front());
  sheet.source = PictureBytes(pngOf(pieces));
  sheet.marks = Shared(marksOf(sheet, viewOf(pieces)));
  SheetAdded added = addSheet(quilt, std::move(sheet), name + "-pieces.png", ids);
  if (added.sheet.empty()) return fail(Error{Error::Cause::tooLarge, "a quilt holds at most 1,022 sheets", name, 0, "Nothing was changed", "Take sheets away that are not used"});
  pictures.set(*added.quilt.sheet(added.sheet), std::move(pieces));
  const SheetSlot slot = *added.quilt.slots().find(added.sheet);
  for (std::size_t i = 0; i < std::min(read.unknown.size(), kMostUnknown); ++i) {
    const Cell cell({slot, static_cast<std::uint32_t>(i)}, {});
    for (const CellPos at : read.unknown[i].cells) read.cells.set(at, cell);
  }
  return added;
}

Result<MapImport> importPicture(Disk& disk, const Quilt& quilt, SheetPictures& pictures, const MapImportAsk& ask, IdSource& ids, Progress* progress) {
  const std::string& file = ask.files.front();
  const auto bytes = disk.read(file, kLargestPictureFile);
  if (!bytes) return fail(bytes.error());
  const auto picture = decodePicture(*bytes, file);
  if (!picture) return fail(picture.error());
  auto read = cellsOfPicture(*picture, quilt, pictures, ask.grid, progress);
  if (!read) {
    Error error = read.error();
    error.file = file;
    return fail(std::move(error));
  }
  MapImport result;
  const MapPlan plan{freeName(quilt, ask.name.empty() ? stemOf(file) : ask.name), ask.grid, read->columns, read->rows};
  result.known = read->known;
  result.unknown = read->unknownCells();
  result.unknownKinds = read->unknown.size();
  Quilt with = quilt;
  if (ask.makesSheet && !read->unknown.empty()) {
    auto added = withPieces(quilt, *picture, *read, ask, plan.name, pictures, ids);
    if (!added) return fail(added.error());
    with = std::move(added->quilt);
    result.sheet = added->sheet;
  }
  auto added = withMap(with, plan, {{{}, std::move(read->cells)}}, ids);
  if (!added) return fail(added.error());
  result.quilt = std::move(added->quilt);
  result.map = added->map;
  return result;
}

}  // namespace

bool isTableName(const std::string& path) {
  std::string end = path.size() < 4 ? path : path.substr(path.size() - 4);
  std::transform(end.begin(), end.end(), end.begin(), [](unsigned char one) { return static_cast<char>(std::tolower(one)); });
  return end == ".csv";
}

Result<MapImport> importMap(Disk& disk, const Quilt& quilt, SheetPictures& pictures, const MapImportAsk& ask, IdSource& ids, Progress* progress) {
  if (ask.files.empty()) return fail(Error::Cause::notFound, "no file was chosen");
  const bool areTables = std::all_of(ask.files.begin(), ask.files.end(), isTableName);
  if (areTables) return importTables(disk, quilt, ask, ids, progress);
  if (ask.files.size() > 1) return fail(Error{Error::Cause::broken, "a map is made of one picture, or of tables", ask.files[1], 0, "Nothing was changed", "Choose one picture, or tables (.csv) only"});
  return importPicture(disk, quilt, pictures, ask, ids, progress);
}

}  // namespace uq
