#include "cli/BoardCommand.h"

#include <iostream>

#include "core/store/QuiltStore.h"
#include "raster/BoardPicture.h"
#include "raster/MapExport.h"
#include "raster/PictureFile.h"

namespace uq::cli {

namespace {

int complain(ExitCode code, const std::string& text) {
  std::cerr << text << "\n";
  return code;
}

bool isZoom(double zoom) { return zoom >= kSmallestZoom && zoom <= kLargestZoom; }
int noZoom() { return complain(kUsage, "--zoom takes a number from 0.002 to 32 (1 is 100 %)"); }

int tooLarge() {
  return complain(kNotWritten, "The picture would be larger than 32,768 pixels or 512 MB. Choose a smaller --zoom.");
}

int written(const RenderOrder& order, const Result<void>& done, const std::string& what, QSize size, const Errors& problems) {
  for (const Error& problem : problems) std::cerr << problem.text() << "\n";
  if (!done) return complain(kNotWritten, done.error().text());
  std::cout << order.output << ": " << what << ", " << size.width() << " × " << size.height() << " px\n";
  return problems.empty() ? kFine : kProblems;
}

}  // namespace

int renderBoard(const RenderOrder& order) {
  if (!isZoom(order.zoom)) return noZoom();
  auto opened = QuiltStore::open(realDisk(), quiltFolder(order.quilt), QuiltStore::Access::read);
  if (!opened) return complain(kNotOpened, opened.error().text());
  const Quilt& quilt = opened->quilt;
  if (quilt.maps().empty() && quilt.chalkPieces().empty()) return complain(kNotOpened, "Nothing lies on the Board of this quilt");
  MapPainter painter(SheetPictures::load(quilt, opened->problems));
  const ViewScale scale{order.zoom};
  const QRect all = boardExtent(painter, quilt, scale);
  if (isTooLargeToRender(all.width(), all.height())) return tooLarge();
  const std::string what = std::to_string(quilt.maps().size()) + (quilt.maps().size() == 1 ? " piece" : " pieces");
  if (order.output.ends_with(".svg")) {
    return written(order, writeWhole(*realDisk(), order.output, boardDrawing(painter, quilt, scale)), what, all.size(), opened->problems);
  }
  return written(order, writePng(*realDisk(), boardPicture(painter, quilt, scale), order.output), what, all.size(), opened->problems);
}

int renderWithNeighbours(const RenderOrder& order) {
  if (!isZoom(order.zoom)) return noZoom();
  auto opened = QuiltStore::open(realDisk(), quiltFolder(order.quilt), QuiltStore::Access::read);
  if (!opened) return complain(kNotOpened, opened.error().text());
  const Quilt& quilt = opened->quilt;
  const Map* map = quilt.mapNamed(order.map);
  if (!map) return complain(kNotOpened, "\"" + order.map + "\" is no map of this quilt. 'uquilt info' lists them.");
  MapPainter painter(SheetPictures::load(quilt, opened->problems));
  const ViewScale scale{order.zoom};
  const std::vector<PlacedMap> maps = placedAround(quilt, map->id, order.neighbours);
  const QRect all = deviceExtent(painter, quilt, maps, scale, false);
  if (isTooLargeToRender(all.width(), all.height())) return tooLarge();
  const std::string what = map->name + (maps.size() == 1 ? " alone: nothing is sewn to it" : " and " + std::to_string(maps.size() - 1) + " beside it");
  return written(order, writePng(*realDisk(), drawTogether(painter, quilt, maps, scale, all), order.output), what, all.size(), opened->problems);
}

}  // namespace uq::cli
