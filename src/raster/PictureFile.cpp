#include "raster/PictureFile.h"

#include <QBuffer>
#include <QImageReader>
#include <QImageWriter>
#include <algorithm>
#include <array>

#include "raster/SafeSvg.h"

namespace uq {

namespace {

// More can be read where further plugins are installed; nobody looked at what those do with bytes from anywhere.
bool isReadForm(const QByteArray& form) {
  static const std::array kForms{"png", "jpeg", "jpg", "webp", "gif", "bmp", "svg"};
  return std::any_of(kForms.begin(), kForms.end(), [&](const char* one) { return form == one; });
}

}  // namespace

bool isLineDrawing(std::string_view bytes) {
  if (!mayBeSvg(bytes)) return false;
  auto safe = safeSvg(bytes, {});
  if (!safe) return false;
  QBuffer buffer(&*safe);
  buffer.open(QIODevice::ReadOnly);
  return QImageReader(&buffer).format() == "svg";
}

Result<QImage> decodePicture(std::string_view bytes, const std::string& file, int enlarge) {
  QByteArray data = QByteArray::fromRawData(bytes.data(), static_cast<qsizetype>(bytes.size()));
  if (mayBeSvg(bytes)) {
    auto safe = safeSvg(bytes, file);
    if (!safe) return fail(safe.error());
    data = std::move(*safe);
  }
  QBuffer buffer(&data);
  buffer.open(QIODevice::ReadOnly);
  if (bytes.empty()) return fail(Error::Cause::broken, "the picture is empty", file);
  const QByteArray form = QImageReader::imageFormat(&buffer);
  if (!isReadForm(form)) {
    const std::string why =
        form.isEmpty() ? "it is none" : "of the form " + form.toStdString() + ", not PNG, JPEG, WebP, GIF, BMP or SVG";
    return fail(Error::Cause::broken, "the picture cannot be read (" + why + ")", file);
  }
  QImageReader::setAllocationLimit(kMostPictureMegabytes);
  QImageReader reader(&buffer, form);
  QSize size = reader.size();
  if (enlarge > 1 && reader.format() == "svg") {
    size *= enlarge;
    reader.setScaledSize(size);
  }
  if (size.width() > kLargestPictureSide || size.height() > kLargestPictureSide ||
      std::int64_t{size.width()} * size.height() * 4 > std::int64_t{kMostPictureMegabytes} << 20) {
    return fail(Error::Cause::tooLarge,
                "the picture has " + std::to_string(size.width()) + " × " + std::to_string(size.height()) +
                    " pixels, and at most 512 MB of them are read",
                file);
  }
  QImage picture;
  if (!reader.read(&picture) || picture.isNull()) {
    return fail(Error::Cause::broken, "the picture cannot be read (" + reader.errorString().toStdString() + ")", file);
  }
  return std::move(picture).convertToFormat(QImage::Format_ARGB32_Premultiplied);
}

std::string pngOf(QImage picture) {
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  // In place where nobody else holds it: it may be as large as memory allows.
  QImageWriter(&buffer, "png").write(std::move(picture).convertToFormat(QImage::Format_ARGB32));
  return buffer.data().toStdString();
}

Result<void> writePng(Disk& disk, QImage picture, const std::string& path) {
  const std::string bytes = pngOf(std::move(picture));
  const Result<void> done = bytes.empty() ? Result<void>(fail(Error::Cause::tooLarge, "it does not fit the memory"))
                                          : writeWhole(disk, path, bytes);
  if (done) return done;
  return fail(Error{Error::Cause::notPermitted, "the picture could not be written (" + done.error().reason + ")", path, 0,
                    "Nothing was overwritten", "Choose another place for it"});
}

}  // namespace uq
