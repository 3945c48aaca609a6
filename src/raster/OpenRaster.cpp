#include "raster/OpenRaster.h"

#include <zip.h>

#include <QXmlStreamWriter>
#include <list>
#include <memory>

#include "raster/Blend.h"
#include "raster/PictureFile.h"

namespace uq {

namespace {

constexpr QSize kThumbnail(256, 256);

// Puts files into an archive in memory.
class Archive {
 public:
  Archive() : source_(zip_source_buffer_create(nullptr, 0, 0, nullptr)) {
    if (!source_) return;
    zip_source_keep(source_);
    archive_ = zip_open_from_source(source_, ZIP_TRUNCATE, nullptr);
  }
  ~Archive() {
    if (archive_) zip_discard(archive_);
    if (source_) zip_source_free(source_);
  }
  Archive(const Archive&) = delete;
  Archive& operator=(const Archive&) = delete;

  bool add(const std::string& name, std::string bytes, bool packed) {
    if (!archive_) return false;
    kept_.push_back(std::move(bytes));
    zip_source_t* file = zip_source_buffer(archive_, kept_.back().data(), kept_.back().size(), 0);
    const zip_int64_t index = file ? zip_file_add(archive_, name.c_str(), file, ZIP_FL_ENC_UTF_8) : -1;
    if (index < 0) {
      if (file) zip_source_free(file);
      return false;
    }
    const auto at = static_cast<zip_uint64_t>(index);
    // The same picture gives the same file whenever it is written.
    zip_file_set_mtime(archive_, at, 315532800, 0);
    return zip_set_file_compression(archive_, at, packed ? ZIP_CM_DEFLATE : ZIP_CM_STORE, 0) == 0;
  }
  std::optional<std::string> close() {
    if (!archive_ || zip_close(archive_) != 0) return std::nullopt;
    archive_ = nullptr;
    zip_stat_t told;
    zip_stat_init(&told);
    if (zip_source_stat(source_, &told) != 0 || zip_source_open(source_) != 0) return std::nullopt;
    std::string bytes(told.size, '\0');
    const zip_int64_t read = zip_source_read(source_, bytes.data(), bytes.size());
    zip_source_close(source_);
    if (read != static_cast<zip_int64_t>(bytes.size())) return std::nullopt;
    return bytes;
  }

 private:
  zip_source_t* source_;
  zip_t* archive_ = nullptr;
  std::list<std::string> kept_;  // until the archive is closed
};

const char* operatorOf(Blend blend) {
  switch (blend) {
    case Blend::multiply: return "svg:multiply";
    case Blend::screen: return "svg:screen";
    case Blend::add: return "svg:plus";
    case Blend::normal: break;
  }
  return "svg:src-over";
}

// The part of a picture on which anything is.
QRect inkOf(const QImage& picture) {
  QRect ink;
  for (int y = 0; y < picture.height(); ++y) {
    const QRgb* row = reinterpret_cast<const QRgb*>(picture.constScanLine(y));
    int first = 0;
    while (first < picture.width() && row[first] == 0) ++first;
    if (first == picture.width()) continue;
    int last = picture.width() - 1;
    while (row[last] == 0) --last;
    ink = ink.united(QRect(first, y, last - first + 1, 1));
  }
  return ink;
}

}  // namespace

Result<std::string> openRaster(MapPainter& painter, const Quilt& quilt, const Map& map) {
  const std::vector<Run> all = runsOf(map);
  const ViewScale scale{1};
  const QRect device = scale.toDevice(painter.extentOf(quilt, map, all));
  Archive archive;
  bool good = archive.add("mimetype", "image/openraster", false);

  QByteArray xml;
  QXmlStreamWriter stack(&xml);
  stack.setAutoFormatting(true);
  stack.writeStartDocument();
  stack.writeStartElement(QStringLiteral("image"));
  stack.writeAttribute(QStringLiteral("version"), QStringLiteral("0.0.6"));
  stack.writeAttribute(QStringLiteral("w"), QString::number(device.width()));
  stack.writeAttribute(QStringLiteral("h"), QString::number(device.height()));
  stack.writeStartElement(QStringLiteral("stack"));
  int files = 0;
  const auto put = [&](const QString& name, const QImage& picture, QPoint at, double opacity, Blend blend, bool seen) {
    const std::string file = "data/layer" + std::to_string(files++) + ".png";
    good = good && archive.add(file, pngOf(picture), false);
    stack.writeEmptyElement(QStringLiteral("layer"));
    stack.writeAttribute(QStringLiteral("name"), name);
    stack.writeAttribute(QStringLiteral("src"), QString::fromStdString(file));
    stack.writeAttribute(QStringLiteral("x"), QString::number(at.x()));
    stack.writeAttribute(QStringLiteral("y"), QString::number(at.y()));
    stack.writeAttribute(QStringLiteral("opacity"), QString::number(opacity, 'f', 2));
    stack.writeAttribute(QStringLiteral("composite-op"), QLatin1String(operatorOf(blend)));
    stack.writeAttribute(QStringLiteral("visibility"), seen ? QStringLiteral("visible") : QStringLiteral("hidden"));
  };
  // Layers in folders, which lie on one another nearest first as their layers do.
  std::vector<Id> open;
  const auto goInto = [&](const std::vector<Id>& folders) {
    const auto parts = std::mismatch(open.begin(), open.end(), folders.begin(), folders.end());
    for (auto gone = parts.first; gone != open.end(); ++gone) stack.writeEndElement();
    open.erase(parts.first, open.end());
    for (auto fresh = parts.second; fresh != folders.end(); ++fresh) {
      stack.writeStartElement(QStringLiteral("stack"));
      stack.writeAttribute(QStringLiteral("name"), QString::fromStdString(map.layerFolder(*fresh)->name));
      stack.writeAttribute(QStringLiteral("isolation"), QStringLiteral("auto"));
      open.push_back(*fresh);
    }
  };
  // A run of several layers lies in the folders that all of them lie in.
  const auto foldersOf = [&](const Run& run) {
    std::vector<Id> common = map.foldersAround(map.layer(run.layers.front())->folder);
    for (const Id id : run.layers) {
      const std::vector<Id> around = map.foldersAround(map.layer(id)->folder);
      common.erase(std::mismatch(common.begin(), common.end(), around.begin(), around.end()).first, common.end());
    }
    return common;
  };
  for (auto run = all.rbegin(); run != all.rend(); ++run) {
    if (!run->layers.empty()) goInto(foldersOf(*run));
    Run plain = *run;
    plain.opacity = 100;
    plain.blend = Blend::normal;
    const QImage whole = painter.draw(quilt, map, {plain}, scale, device);
    const QRect ink = inkOf(whole);
    QStringList names;
    bool seen = false;
    for (const Id id : run->layers) {
      names << QString::fromStdString(map.layer(id)->name);
      seen = seen || map.layer(id)->inGame;
    }
    const QRect part = ink.isEmpty() ? QRect(0, 0, 1, 1) : ink;
    put(names.join(QStringLiteral(", ")), whole.copy(part), part.topLeft(), run->opacity / 100.0, run->blend, seen);
  }
  goInto({});
  QImage merged(device.size(), QImage::Format_ARGB32_Premultiplied);
  merged.fill(map.cloth ? QColor::fromRgb(*map.cloth | 0xff000000u) : QColor(Qt::transparent));
  if (map.cloth) put(QStringLiteral("Cloth"), merged, {}, 1, Blend::normal, true);
  stack.writeEndDocument();
  std::vector<Run> shown;
  for (const Run& run : all) {
    bool seen = false;
    for (const Id id : run.layers) seen = seen || map.layer(id)->inGame;
    if (seen) shown.push_back(run);
  }
  painter.drawOver(merged, quilt, map, shown, scale, device);
  good = good && archive.add("stack.xml", xml.toStdString(), true);
  good = good && archive.add("mergedimage.png", pngOf(merged), false);
  good = good &&
         archive.add("Thumbnails/thumbnail.png",
                     pngOf(merged.scaled(merged.size().boundedTo(merged.size().scaled(kThumbnail, Qt::KeepAspectRatio)),
                                         Qt::IgnoreAspectRatio, Qt::SmoothTransformation)),
                     false);
  auto bytes = good ? archive.close() : std::nullopt;
  if (!bytes) return fail(Error::Cause::diskFull, "the layered picture could not be put together", map.name);
  return std::move(*bytes);
}

}  // namespace uq
