#include "cli/ImportCommand.h"

#include <charconv>
#include <iostream>

#include "cli/Commands.h"
#include "core/edit/ArrangeMaps.h"
#include "core/store/JsonText.h"
#include "core/store/QuiltStore.h"
#include "raster/MapImport.h"

namespace uq::cli {

namespace {

int refuse(ExitCode code, const std::string& text) {
  std::cerr << text << "\n";
  return code;
}

std::optional<PixelSize> sizeFrom(const std::string& text) {
  PixelSize size;
  const char* end = text.data() + text.size();
  const auto first = std::from_chars(text.data(), end, size.w);
  if (first.ec != std::errc() || first.ptr == end || *first.ptr != 'x') return std::nullopt;
  const auto second = std::from_chars(first.ptr + 1, end, size.h);
  const bool isRead = second.ec == std::errc() && second.ptr == end && size.w > 0 && size.h > 0;
  return isRead ? std::optional(size) : std::nullopt;
}

}  // namespace

int importFiles(const ImportOrder& order) {
  auto opened = QuiltStore::open(realDisk(), quiltFolder(order.quilt), QuiltStore::Access::write);
  if (!opened) return refuse(kNotOpened, opened.error().text());
  const Quilt& quilt = opened->quilt;
  const Map* like = order.like.empty() ? nullptr : quilt.mapNamed(order.like);
  if (!order.like.empty() && !like) return refuse(kNotOpened, "\"" + order.like + "\" is no map of this quilt. 'uquilt info' lists them.");
  MapImportAsk ask{order.files, order.name, proposedMap(quilt, like, nullptr).grid, order.makesSheet};
  if (!like && !quilt.maps().empty()) ask.grid = quilt.maps().front()->grid;
  if (!order.grid.empty() || !order.cell.empty()) {
    const auto kind = order.grid.empty() ? Result<GridKind>(ask.grid.kind) : gridKindFromName(order.grid);
    const auto size = order.cell.empty() ? std::optional(ask.grid.cell) : sizeFrom(order.cell);
    if (!kind) return refuse(kUsage, kind.error().reason + ".");
    if (!size) return refuse(kUsage, "--cell is a size in pixels, as 32x32.");
    ask.grid = nearestShape(*kind, *size);
  }
  const std::shared_ptr<Disk> disk = realDisk();
  SheetPictures pictures = SheetPictures::load(quilt, opened->problems);
  IdSource ids = IdSource::fromSystem();
  const auto read = importMap(*disk, quilt, pictures, ask, ids);
  if (!read) return refuse(read.error().cause == Error::Cause::missing ? kNotOpened : kProblems, read.error().text());
  if (const auto saved = opened->store.save(read->quilt); !saved) return refuse(kNotWritten, saved.error().text());
  const Map& map = *read->quilt.map(read->map);
  const Sheet* sheet = read->quilt.sheet(read->sheet);
  if (order.json) {
    Json::Array names;
    for (const std::string& name : read->unknownNames) names.emplace_back(name);
    std::cout << writeJsonLine(Json::Object{{"map", map.name}, {"columns", map.bounds.width()}, {"rows", map.bounds.height()}, {"known", read->known}, {"unknown", read->unknown},
                                            {"unknownKinds", static_cast<std::int64_t>(read->unknownKinds)}, {"unknownNames", std::move(names)}, {"sheet", sheet ? Json(sheet->name) : Json()}})
              << "\n";
  } else {
    std::cout << map.name << ": " << map.bounds.width() << " x " << map.bounds.height() << " cells, " << read->known << " recognised";
    if (read->unknownKinds > 0) std::cout << ", " << read->unknown << " with " << read->unknownKinds << " pictures that are in no sheet";
    else if (read->unknown > 0) std::cout << ", " << read->unknown << " not known";
    if (sheet) std::cout << ": they are the sheet " << sheet->name;
    std::cout << "\n";
    for (const std::string& name : read->unknownNames) std::cout << "not known: " << name << "\n";
  }
  for (const Error& problem : opened->problems) std::cerr << problem.text() << "\n";
  return opened->problems.empty() && (read->unknown == 0 || sheet) ? kFine : kProblems;
}

}  // namespace uq::cli
