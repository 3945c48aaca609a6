#include "raster/SheetPictures.h"

#include <QPainter>
#include <QTransform>

#include "core/store/Documents.h"
#include "raster/PictureFile.h"

namespace uq {

namespace {

QImage chalkPicture() {
  static const QImage picture = [] {
    const Sheet& sheet = chalk();
    QImage made(sheet.pictureSize.w, sheet.pictureSize.h, QImage::Format_ARGB32_Premultiplied);
    QPainter painter(&made);
    for (std::uint32_t i = 0; i < kChalkColours; ++i) {
      const PixelRect place = *sheet.place(i);
      painter.fillRect(place.x, place.y, place.w, place.h, QColor::fromRgb(chalkColour(i) | 0xff000000));
    }
    return made;
  }();
  return picture;
}

}  // namespace

SheetPictures SheetPictures::load(const Quilt& quilt, Disk& disk, const std::string& folder, Errors& problems) {
  SheetPictures pictures;
  for (const auto& sheet : quilt.sheets()) {
    const std::string file = pictureFile(sheet.read());
    const auto bytes = disk.read(joined(folder, file), std::int64_t{kMostPictureMegabytes} << 20);
    auto picture = bytes ? decodePicture(*bytes, file) : Result<QImage>(fail(bytes.error()));
    if (!picture) {
      Error error = picture.error();
      error.file = file;
      error.kept = "The tiles of \"" + sheet->name + "\" stay where they are painted, shown as labelled placeholders";
      error.todo = "Put the picture back and open the quilt again";
      problems.push_back(std::move(error));
      continue;
    }
    if (picture->width() != sheet->pictureSize.w || picture->height() != sheet->pictureSize.h) {
      problems.push_back(Error{Error::Cause::broken,
                               "the picture has " + std::to_string(picture->width()) + " × " +
                                   std::to_string(picture->height()) + " pixels, but the sheet was cut for " +
                                   std::to_string(sheet->pictureSize.w) + " × " + std::to_string(sheet->pictureSize.h),
                               file, 0, "Tiles outside the picture are shown as labelled placeholders",
                               "Put the right picture back"});
    }
    pictures.set(sheet->id, std::move(*picture));
  }
  return pictures;
}

QImage SheetPictures::picture(Id sheet) const {
  if (sheet == chalk().id) return chalkPicture();
  const auto found = pictures_.find(sheet);
  return found == pictures_.end() ? QImage() : found->second;
}

std::optional<QImage> SheetPictures::tile(const Quilt& quilt, TileRef tile) const {
  if (tile.slot == kChalkSlot) return std::nullopt;
  const Sheet* sheet = quilt.sheetAt(tile.slot);
  const auto place = sheet ? sheet->place(tile.number) : std::nullopt;
  if (!place) return std::nullopt;
  const QImage whole = picture(sheet->id);
  const QRect part(place->x, place->y, place->w, place->h);
  if (!whole.rect().contains(part)) return std::nullopt;
  return whole.copy(part);
}

std::optional<QImage> SheetPictures::turned(const Quilt& quilt, Cell cell) const {
  auto straight = tile(quilt, cell.tile());
  if (!straight) return std::nullopt;
  return turnedPicture(*straight, cell.turn());
}

QImage turnedPicture(const QImage& picture, Turn turn) {
  QImage result = turn.mirror ? picture.mirrored(true, false) : picture;
  if (turn.steps != 0) result = result.transformed(QTransform().rotate(90.0 * turn.steps));
  return result;
}

}  // namespace uq
