#include "raster/MapExport.h"

#include "raster/OpenRaster.h"
#include "raster/PictureFile.h"

namespace uq {

bool isTooLargeToRender(double width, double height) {
  return width > kLargestRender || height > kLargestRender || width * height * 4 > double(kMostPictureMegabytes) * (1 << 20);
}

QImage overCloth(MapPainter& painter, const Quilt& quilt, const Map& map, const std::vector<Run>& runs, ViewScale scale,
                 const QRect& device) {
  QImage picture(device.size(), QImage::Format_ARGB32_Premultiplied);
  picture.fill(map.cloth ? QColor::fromRgb(*map.cloth | 0xff000000u) : QColor(Qt::transparent));
  painter.drawOver(picture, quilt, map, runs, scale, device);
  return picture;
}

Result<void> exportMap(Disk& disk, MapPainter& painter, const Quilt& quilt, const Map& map, const std::string& path,
                       Progress* progress) {
  const std::vector<Run> runs = runsOf(map, inGame(map));
  const ViewScale scale{1};
  const QRect device = scale.toDevice(painter.extentOf(quilt, map, runs));
  if (isTooLargeToRender(device.width(), device.height())) {
    return fail(Error{Error::Cause::tooLarge, "the picture would be larger than 32,768 pixels or 512 MB", path, 0,
                      "Nothing was written", "Export a smaller map, or render it smaller with uquilt"});
  }
  const auto cancelled = [&] { return progress && progress->isCancelled(); };
  if (path.ends_with(".ora")) {
    const auto bytes = openRaster(painter, quilt, map);
    if (!bytes) return fail(bytes.error());
    if (cancelled()) return fail(Error::Cause::cancelled, "exporting was cancelled", path);
    return writeWhole(disk, path, *bytes);
  }
  QImage picture = overCloth(painter, quilt, map, runs, scale, device);
  if (cancelled()) return fail(Error::Cause::cancelled, "exporting was cancelled", path);
  return writePng(disk, std::move(picture), path);
}

}  // namespace uq
