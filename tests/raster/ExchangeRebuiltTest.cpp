// Whatever a quilt holds: a reader that is not ours draws from what was exported what we draw.
#include <QImage>
#include <QProcess>
#include <QTemporaryDir>

#include <gmock/gmock.h>

#include "Scene.h"
#include "core/edit/LayerFacts.h"
#include "raster/ExchangeExport.h"
#include "raster/MapExport.h"

namespace uq {

namespace {

// The files that an export names are made from these.
void nameFiles(Scene& scene) {
  for (const Shared<Sheet>& shared : std::vector(scene.quilt.sheets())) {
    Sheet sheet = shared.read();
    const QImage picture = scene.pictures.picture(sheet);
    sheet.file = sheet.name;
    scene.quilt = scene.quilt.with(sheet);
    scene.pictures.set(*scene.quilt.sheet(sheet.id), picture);
  }
  Map map = scene.yard();
  map.folder = "yard";
  scene.quilt = scene.quilt.with(map);
}

// Opacity, colour, blend, shift and movement of a layer, as they may come.
void dressAtRandom(Scene& scene, const char* layer) {
  Map map = scene.yard();
  map.layers[*map.layerIndex(scene.at(layer).layer)].edit([](Layer& one) {
    one.opacity = *rc::gen::element(100, 100, 60, 33);
    one.tint = *rc::gen::element(kNoTint, kNoTint, Colour{0x80c0ff});
    one.blend = *rc::gen::element(Blend::normal, Blend::normal, Blend::multiply, Blend::screen, Blend::add);
    one.offset = *rc::gen::element(PixelPos{}, PixelPos{5, -3});
    one.parallax = *rc::gen::element(Parallax{}, Parallax{50, 130});
    one.inGame = *rc::gen::inRange(0, 6) != 0;
  });
  map.cloth = *rc::gen::element(std::optional<Colour>(), std::optional<Colour>(0x203040));
  scene.quilt = scene.quilt.with(map);
}

int differences(const QImage& a, const QImage& b) {
  if (a.size() != b.size()) return -1;
  int count = 0;
  for (int y = 0; y < a.height(); ++y) {
    for (int x = 0; x < a.width(); ++x) {
      count += reinterpret_cast<const QRgb*>(a.constScanLine(y))[x] != reinterpret_cast<const QRgb*>(b.constScanLine(y))[x] ? 1 : 0;
    }
  }
  return count;
}

}  // namespace

TEST(ExchangeRebuilt, AnotherReaderDrawsWhateverThereIs) {
  EXPECT_TRUE(rc::check([] {
    GridShape grid = anySmallGrid();
    grid.plan = false;
    Scene scene({-2, -1, 6, 5}, grid);
    nameFiles(scene);
    scene.arrangeAtRandom();
    scene.layAtRandom(24);
    for (const char* layer : {"Ground", "Things"}) dressAtRandom(scene, layer);
    QTemporaryDir folder;
    MapPainter painter(scene.pictures);
    const CellsAs as = *rc::gen::element(CellsAs::plain, CellsAs::runs);
    RC_ASSERT(exportExchange(*realDisk(), painter, scene.quilt, {folder.path().toStdString(), {}, as}).has_value());
    const auto runs = runsOf(scene.yard(), inGame(scene.yard()));
    const QString theirs = folder.filePath(QStringLiteral("theirs.png"));
    QStringList words{folder.path(), QStringLiteral("Yard"), theirs};
    QRect seen = ViewScale{1}.toDevice(painter.extentOf(scene.quilt, scene.yard(), runs));
    auto shown = runs;
    if (*rc::gen::arbitrary<bool>()) {
      seen = QRect(*rc::gen::inRange(-40, 60), *rc::gen::inRange(-40, 60), 90, 70);
      for (const int number : {seen.x(), seen.y(), seen.width(), seen.height()}) words << QString::number(number);
      shown = runsOf(scene.yard(), inGame(scene.yard(), PixelPos{seen.x(), seen.y()}));
    }
    const QImage ours = overCloth(painter, scene.quilt, scene.yard(), shown, ViewScale{1}, seen);
    QProcess process;
    process.start(QStringLiteral(UQ_READER), words);
    RC_ASSERT(process.waitForFinished(30'000));
    RC_LOG() << process.readAllStandardError().toStdString() << cellsCalled(grid.kind) << "\n";
    RC_ASSERT(process.exitCode() == 0);
    RC_ASSERT(differences(ours, QImage(theirs).convertToFormat(QImage::Format_ARGB32_Premultiplied)) == 0);
  }));
}

TEST(ExchangeRebuilt, WhatIsThereAlreadyIsNotWrittenAgain) {
  Scene scene;
  nameFiles(scene);
  scene.lay("Ground", {1, 1}, Cell({scene.small, 0}, {}));
  QTemporaryDir folder;
  MapPainter painter(scene.pictures);
  const ExchangeAsk ask{folder.path().toStdString(), {}, CellsAs::plain};
  const auto first = exportExchange(*realDisk(), painter, scene.quilt, ask);
  ASSERT_TRUE(first.has_value());
  EXPECT_EQ(first->written.size(), 5u) << "three sheets, a map, the quilt";
  scene.lay("Ground", {2, 1}, Cell({scene.small, 0}, {}));
  const auto second = exportExchange(*realDisk(), painter, scene.quilt, ask);
  ASSERT_TRUE(second.has_value());
  EXPECT_THAT(second->written, testing::ElementsAre("maps/yard.json"));
}

TEST(ExchangeRebuilt, CanBeCancelled) {
  Scene scene;
  nameFiles(scene);
  QTemporaryDir folder;
  MapPainter painter(scene.pictures);
  Progress progress;
  progress.cancel();
  const auto done = exportExchange(*realDisk(), painter, scene.quilt, {folder.path().toStdString(), {}, CellsAs::plain}, &progress);
  ASSERT_FALSE(done.has_value());
  EXPECT_EQ(done.error().cause, Error::Cause::cancelled);
}

}  // namespace uq
