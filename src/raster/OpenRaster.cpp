#include "raster/OpenRaster.h"

#include <QXmlStreamWriter>

#include "core/store/Archive.h"
#include "raster/Blend.h"
#include "raster/PictureFile.h"

namespace uq {

namespace {

constexpr QSize kThumbnail(256, 256);

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
  bool good = archive.add("mimetype", "image/openraster", Archive::How::stored);

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
    good = good && archive.add(file, pngOf(picture), Archive::How::stored);
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
  good = good && archive.add("stack.xml", xml.toStdString(), Archive::How::packed);
  good = good && archive.add("mergedimage.png", pngOf(merged), Archive::How::stored);
  good = good &&
         archive.add("Thumbnails/thumbnail.png",
                     pngOf(merged.scaled(merged.size().boundedTo(merged.size().scaled(kThumbnail, Qt::KeepAspectRatio)),
                                         Qt::IgnoreAspectRatio, Qt::SmoothTransformation)),
                     Archive::How::stored);
  auto bytes = good ? archive.close() : std::nullopt;
  if (!bytes) return fail(Error::Cause::diskFull, "the layered picture could not be put together", map.name);
  return std::move(*bytes);
}

}  // namespace uq
