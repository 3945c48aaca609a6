#include "raster/SheetPictures.h"

#include <QPainter>
#include <QTransform>
#include <map>
#include <mutex>
#include <vector>

#include "core/store/Documents.h"
#include "raster/PictureFile.h"

namespace uq {

namespace {

constexpr std::size_t kMostVersions = 3;  // of one sheet's picture

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

bool isMissing(const Sheet& sheet) {
  for (const CollectedPicture& one : sheet.collection) {
    if (!one.source.isBlank()) return false;
  }
  return sheet.source.isBlank();
}

void makeSeeThrough(QImage& picture, std::uint32_t rgb) {
  const QRgb colour = rgb | 0xff000000u;
  for (int y = 0; y < picture.height(); ++y) {
    auto* row = reinterpret_cast<QRgb*>(picture.scanLine(y));
    for (int x = 0; x < picture.width(); ++x) {
      if (row[x] == colour) row[x] = 0;
    }
  }
}

void closeRims(QImage& picture) {
  for (int y = 0; y < picture.height(); ++y) {
    auto* row = reinterpret_cast<QRgb*>(picture.scanLine(y));
    for (int x = 0; x < picture.width(); ++x) {
      if (qAlpha(row[x]) == 255 || row[x] == 0) continue;
      row[x] = qAlpha(row[x]) < 128 ? 0 : qUnpremultiply(row[x]) | 0xff000000u;
    }
  }
}

// Area averages of whole blocks.
QImage shrunk(const QImage& picture, int factor) {
  QImage small(picture.width() / factor, picture.height() / factor, QImage::Format_ARGB32_Premultiplied);
  const unsigned count = static_cast<unsigned>(factor * factor);
  for (int y = 0; y < small.height(); ++y) {
    auto* out = reinterpret_cast<QRgb*>(small.scanLine(y));
    for (int x = 0; x < small.width(); ++x) {
      unsigned sums[4] = {};
      for (int dy = 0; dy < factor; ++dy) {
        const auto* row = reinterpret_cast<const QRgb*>(picture.constScanLine(y * factor + dy)) + x * factor;
        for (int dx = 0; dx < factor; ++dx) {
          for (int c = 0; c < 4; ++c) sums[c] += row[dx] >> (8 * c) & 0xff;
        }
      }
      out[x] = 0;
      for (int c = 0; c < 4; ++c) out[x] |= (sums[c] + count / 2) / count << (8 * c);
    }
  }
  return small;
}

}  // namespace

struct SheetPictures::Library {
  // What of a sheet its pixels depend on.
  struct Version {
    PictureBytes source;
    PixelCare care;
    std::vector<CollectedPicture> collection;
    QImage picture;

    bool isOf(const Sheet& sheet) const {
      return care == sheet.care && source == sheet.source && collection == sheet.collection;
    }
  };

  std::mutex mutex;
  std::map<Id, std::vector<Version>> versions;  // the newest last
};

SheetPictures::SheetPictures() : library_(std::make_shared<Library>()) {}

QImage caredFor(QImage picture, const PixelCare& care) {
  if (picture.isNull()) return picture;
  if (care.seeThrough) makeSeeThrough(picture, *care.seeThrough);
  if (care.shrink > 1) picture = shrunk(picture, care.shrink);
  if (care.closesRims) closeRims(picture);
  return picture;
}

Result<std::vector<PixelSize>> sizesAsTheyAre(const Sheet& sheet) {
  std::vector<PixelSize> sizes;
  for (const CollectedPicture& one : sheet.collection) {
    if (one.source.isBlank()) {
      sizes.push_back({});
      continue;
    }
    auto picture = decodePicture(one.source.read(), pictureFile(sheet, one), sheet.care.enlarge);
    if (!picture) return fail(picture.error());
    const QImage cared = caredFor(std::move(*picture), sheet.care);
    sizes.push_back({std::max(1, cared.width()), std::max(1, cared.height())});
  }
  return sizes;
}

QImage fittedTo(const QImage& picture, PixelSize size, OddSizes odd) {
  if (odd == OddSizes::asTheyAre || (picture.width() == size.w && picture.height() == size.h)) return picture;
  if (odd == OddSizes::scaled) {
    if (picture.width() > size.w) return shrunk(picture, picture.width() / std::max(1, size.w));
    return picture.scaled(size.w, size.h, Qt::IgnoreAspectRatio, Qt::FastTransformation);
  }
  QImage fitted(size.w, size.h, QImage::Format_ARGB32_Premultiplied);
  fitted.fill(Qt::transparent);
  QPainter painter(&fitted);
  painter.setCompositionMode(QPainter::CompositionMode_Source);
  const int left = size.w - picture.width();
  // Rounded the same way for what is padded and what is cut.
  painter.drawImage((left - (left < 0 ? 1 : 0)) / 2, size.h - picture.height(), picture);
  return fitted;
}

Result<QImage> decodeSheet(const Sheet& sheet) {
  if (!sheet.isCollection()) {
    auto picture = decodePicture(sheet.source.read(), pictureFile(sheet), sheet.care.enlarge);
    if (picture) *picture = caredFor(std::move(*picture), sheet.care);
    return picture;
  }
  QImage all(sheet.pictureSize.w, sheet.pictureSize.h, QImage::Format_ARGB32_Premultiplied);
  if (all.isNull())
    return fail(Error::Cause::tooLarge, "the pictures of the collection do not fit the memory", sheetFile(sheet));
  all.fill(Qt::transparent);
  QPainter painter(&all);
  painter.setCompositionMode(QPainter::CompositionMode_Source);
  for (const CollectedPicture& one : sheet.collection) {
    if (one.source.isBlank()) continue;
    auto picture = decodePicture(one.source.read(), pictureFile(sheet, one), sheet.care.enlarge);
    if (!picture) return picture;
    const QImage cared = fittedTo(caredFor(std::move(*picture), sheet.care), one.size, sheet.care.odd);
    painter.drawImage(one.at.x, one.at.y, cared, 0, 0, one.size.w, one.size.h);
  }
  return all;
}

SheetPictures SheetPictures::load(const Quilt& quilt, Errors& problems) {
  SheetPictures pictures;
  for (const auto& sheet : quilt.sheets()) {
    if (isMissing(sheet.read())) continue;
    auto picture = decodeSheet(sheet.read());
    if (!picture) {
      Error error = picture.error();
      error.kept = "The tiles of \"" + sheet->name + "\" stay where they are painted, shown as labelled placeholders";
      error.todo = "Put a good picture in its place";
      problems.push_back(std::move(error));
      continue;
    }
    if (picture->width() != sheet->pictureSize.w || picture->height() != sheet->pictureSize.h) {
      problems.push_back(Error{Error::Cause::broken,
                               "the picture has " + std::to_string(picture->width()) + " × " +
                                   std::to_string(picture->height()) + " pixels, but the sheet was cut for " +
                                   std::to_string(sheet->pictureSize.w) + " × " + std::to_string(sheet->pictureSize.h),
                               pictureFile(sheet.read()), 0,
                               "Tiles outside the picture are shown as labelled placeholders",
                               "Put the right picture back, or cut the sheet anew"});
    }
    pictures.set(sheet.read(), std::move(*picture));
  }
  return pictures;
}

void SheetPictures::set(const Sheet& sheet, QImage picture) {
  const std::lock_guard lock(library_->mutex);
  auto& versions = library_->versions[sheet.id];
  std::erase_if(versions, [&](const Library::Version& version) { return version.isOf(sheet); });
  versions.push_back({sheet.source, sheet.care, sheet.collection, std::move(picture)});
  if (versions.size() > kMostVersions) versions.erase(versions.begin());
}

QImage SheetPictures::picture(const Sheet& sheet) const {
  if (sheet.id == chalk().id) return chalkPicture();
  {
    const std::lock_guard lock(library_->mutex);
    const auto found = library_->versions.find(sheet.id);
    if (found != library_->versions.end()) {
      for (const Library::Version& version : found->second) {
        if (version.isOf(sheet)) return version.picture;
      }
    }
  }
  if (isMissing(sheet)) return {};
  const QImage decoded = decodeSheet(sheet).value_or(QImage());
  SheetPictures(*this).set(sheet, decoded);
  return decoded;
}

std::optional<QImage> SheetPictures::tile(const Quilt& quilt, TileRef tile) const {
  if (tile.slot == kChalkSlot) return std::nullopt;
  const Sheet* sheet = quilt.sheetAt(tile.slot);
  const auto place = sheet ? sheet->place(tile.number) : std::nullopt;
  if (!place) return std::nullopt;
  const QImage whole = picture(*sheet);
  const QRect part(place->x, place->y, place->w, place->h);
  if (!whole.rect().contains(part)) return std::nullopt;
  const QImage straight = whole.copy(part);
  return sheet->shows(tile.number).mirrored ? straight.mirrored(true, false) : straight;
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

PixelsOf pixelsOf(Quilt quilt, SheetPictures pictures) {
  struct View {
    QImage picture;  // keeps the pixels
    PixelView view;
  };
  return [quilt = std::move(quilt), pictures = std::move(pictures),
          views = std::map<SheetSlot, View>()](TileRef tile) mutable -> std::optional<TilePixels> {
    const Sheet* sheet = tile.slot == kChalkSlot ? nullptr : quilt.sheetAt(tile.slot);
    const auto place = sheet ? sheet->place(tile.number) : std::nullopt;
    if (!place) return std::nullopt;
    auto known = views.find(tile.slot);
    if (known == views.end()) {
      const QImage picture = pictures.picture(*sheet);
      const PixelView view{reinterpret_cast<const std::uint32_t*>(picture.constBits()), picture.bytesPerLine() / 4,
                           picture.width(), picture.height(), false};
      known = views.emplace(tile.slot, View{picture, view}).first;
    }
    const PixelView& view = known->second.view;
    if (!view.pixels || place->right() > view.w || place->bottom() > view.h) return std::nullopt;
    return TilePixels{view, *place};
  };
}

}  // namespace uq
