// A layered picture read back: its zip, its XML, and the picture that its layers give.
#include <gtest/gtest.h>
#include <zip.h>

#include <QXmlStreamReader>

#include "core/edit/ArrangeLayers.h"
#include "core/edit/MapFacts.h"
#include "raster/OpenRaster.h"
#include "core/edit/Folders.h"
#include "raster/Scene.h"

namespace uq {
namespace {

std::map<std::string, QByteArray> filesOf(const std::string& bytes) {
  std::map<std::string, QByteArray> files;
  zip_source_t* source = zip_source_buffer_create(bytes.data(), bytes.size(), 0, nullptr);
  zip_t* archive = zip_open_from_source(source, ZIP_RDONLY, nullptr);
  if (!archive) return files;
  for (zip_int64_t i = 0; i < zip_get_num_entries(archive, 0); ++i) {
    zip_stat_t told;
    zip_stat_index(archive, static_cast<zip_uint64_t>(i), 0, &told);
    QByteArray content(static_cast<qsizetype>(told.size), Qt::Uninitialized);
    zip_file_t* file = zip_fopen_index(archive, static_cast<zip_uint64_t>(i), 0);
    zip_fread(file, content.data(), told.size);
    zip_fclose(file);
    files[told.name] = content;
  }
  zip_discard(archive);
  return files;
}

TEST(OpenRaster, ItsLayersGiveTheMergedPicture) {
  Scene scene;
  IdSource ids(6);
  for (int y = -1; y < 5; ++y) {
    for (int x = -2; x < 6; ++x) scene.lay("Ground", {x, y}, Cell({scene.small, 0}, {}));
  }
  scene.lay("Things", {1, 1}, Cell({scene.tall, 0}, {}));
  scene.lay("Things", {3, 2}, Cell({scene.tall, 0}, {}));
  scene.quilt = withOffset(scene.quilt, scene.at("Things"), {5, -3});
  scene.quilt = withOpacity(scene.quilt, scene.at("Things"), 60);
  scene.quilt = withBlend(scene.quilt, scene.at("Things"), Blend::multiply);
  scene.quilt = withTint(scene.quilt, scene.at("Ground"), 0x90a0b0);
  scene.quilt = withCloth(scene.quilt, scene.map, 0x203040);
  scene.quilt = addPinsLayer(scene.quilt, scene.map, 2, ids).quilt;
  MapPainter painter(scene.pictures);
  const auto bytes = openRaster(painter, scene.quilt, scene.yard());
  ASSERT_TRUE(bytes);
  EXPECT_EQ(*openRaster(painter, scene.quilt, scene.yard()), *bytes) << "the same bytes each time";
  auto files = filesOf(*bytes);
  EXPECT_EQ(files["mimetype"], "image/openraster");
  const QImage merged = QImage::fromData(files["mergedimage.png"]);
  EXPECT_FALSE(QImage::fromData(files["Thumbnails/thumbnail.png"]).isNull());

  QXmlStreamReader xml(files["stack.xml"]);
  QImage laid;
  struct One {
    QString name;
    QImage picture;
    QPoint at;
    double opacity;
    QString blend;
  };
  std::vector<One> layers;
  while (!xml.atEnd()) {
    if (xml.readNext() != QXmlStreamReader::StartElement) continue;
    const auto of = [&](const char* name) { return xml.attributes().value(QLatin1String(name)).toString(); };
    if (xml.name() == QLatin1String("image")) {
      laid = QImage(of("w").toInt(), of("h").toInt(), QImage::Format_ARGB32_Premultiplied);
      laid.fill(Qt::transparent);
    }
    if (xml.name() != QLatin1String("layer")) continue;
    layers.push_back({of("name"),
                      QImage::fromData(files[of("src").toStdString()]),
                      {of("x").toInt(), of("y").toInt()},
                      of("opacity").toDouble(),
                      of("composite-op")});
  }
  EXPECT_FALSE(xml.hasError()) << xml.errorString().toStdString();
  ASSERT_EQ(layers.size(), 3u);
  EXPECT_EQ(layers[0].name, QStringLiteral("Things")) << "nearest first";
  EXPECT_EQ(layers[0].blend, QStringLiteral("svg:multiply"));
  EXPECT_EQ(layers[0].opacity, 0.6);
  EXPECT_EQ(layers[1].name, QStringLiteral("Ground"));
  EXPECT_EQ(layers[2].name, QStringLiteral("Cloth"));
  ASSERT_EQ(laid.size(), merged.size());
  for (auto one = layers.rbegin(); one != layers.rend(); ++one) {
    QImage whole(laid.size(), QImage::Format_ARGB32_Premultiplied);
    whole.fill(Qt::transparent);
    QPainter(&whole).drawImage(one->at, one->picture);
    layOver(laid, whole, one->opacity, one->blend == QStringLiteral("svg:multiply") ? Blend::multiply : Blend::normal);
  }
  const QImage wanted = merged.convertToFormat(QImage::Format_ARGB32_Premultiplied);
  for (int y = 0; y < laid.height(); ++y) {
    for (int x = 0; x < 4 * laid.width(); ++x)
      ASSERT_NEAR(laid.constScanLine(y)[x], wanted.constScanLine(y)[x], 1) << x / 4 << ", " << y;
  }
}

// Folders are stacks in the stack, named alike, one in the other.
TEST(OpenRaster, LayersLieInTheirFolders) {
  Scene scene;
  IdSource ids(6);
  scene.lay("Ground", {1, 1}, Cell({scene.small, 0}, {}));
  scene.lay("Things", {1, 1}, Cell({scene.small, 1}, {}));
  const FolderAdded outer =
      foldLayers(scene.quilt, scene.map, {scene.at("Things").layer, scene.at("Ground").layer}, ids);
  const FolderAdded inner = foldLayers(outer.quilt, scene.map, {scene.at("Things").layer}, ids);
  scene.quilt = renameFolder(renameFolder(inner.quilt, scene.map, outer.folder, "Street"), scene.map, inner.folder, "Trees");
  MapPainter painter(scene.pictures);
  const auto bytes = openRaster(painter, scene.quilt, scene.yard());
  ASSERT_TRUE(bytes);
  QXmlStreamReader xml(filesOf(*bytes)["stack.xml"]);
  QStringList way;
  QStringList layers;
  while (!xml.atEnd()) {
    const auto token = xml.readNext();
    const QString name = xml.attributes().value(QLatin1String("name")).toString();
    if (token == QXmlStreamReader::StartElement && xml.name() == QLatin1String("stack")) way << name;
    if (token == QXmlStreamReader::EndElement && xml.name() == QLatin1String("stack")) way.removeLast();
    if (token == QXmlStreamReader::StartElement && xml.name() == QLatin1String("layer")) {
      layers << (way + QStringList{name}).join(QLatin1Char('/'));
    }
  }
  EXPECT_FALSE(xml.hasError());
  EXPECT_EQ(layers, (QStringList{QStringLiteral("/Street/Trees/Things"), QStringLiteral("/Street/Ground")}));
}

}  // namespace
}  // namespace uq
