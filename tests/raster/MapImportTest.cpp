// Maps made of pictures and tables: what was drawn is recognised again, turned and on all grids; and the film of the work.
#include <gmock/gmock.h>

#include <QImageReader>
#include <QTemporaryDir>
#include <filesystem>
#include <random>

#include "Scene.h"
#include "core/edit/Pattern.h"
#include "core/edit/RowsAndColumns.h"
#include "core/store/CsvReading.h"
#include "core/store/CsvText.h"
#include "raster/FilmWriter.h"
#include "raster/MapExport.h"
#include "raster/MapImport.h"
#include "raster/PackedSheet.h"
#include "raster/PictureFile.h"
#include "raster/PictureImport.h"
#include "raster/PngStream.h"
#include "raster/TargetExport.h"

namespace uq {

namespace {

// A sheet of tiles each of whose pixels is thrown, all of them well inside their cell, and a map of them. What is thrown comes of a seed
// alone, so that a smaller example has no plainer tiles.
struct Noise {
  Quilt quilt;
  SheetPictures pictures;
  Id map;
  SheetSlot slot = 0;
  static constexpr int kTiles = 9;
  int inked = 0;  // pixels of each tile

  explicit Noise(const GridShape& shape, std::uint64_t seed = 1) {
    IdSource ids(2);
    std::mt19937_64 thrown(seed);
    const auto grid = makeGrid(shape);
    const PixelRect box = grid->cellBox({0, 0});
    QImage all(box.w * kTiles, box.h, QImage::Format_ARGB32_Premultiplied);
    all.fill(0);
    for (int i = 0; i < kTiles; ++i) {
      for (int y = 0; y < box.h; ++y) {
        for (int x = 0; x < box.w; ++x) {
          bool inside = true;
          for (const PixelPos by : {PixelPos{-2, 0}, PixelPos{2, 0}, PixelPos{0, -2}, PixelPos{0, 2}}) inside = inside && grid->cellAt({box.x + x + by.x, box.y + y + by.y}) == CellPos{0, 0};
          inked += inside && i == 0 ? 1 : 0;
          if (inside) all.setPixel(x + i * box.w, y, 0xff000000u | static_cast<QRgb>(thrown() & 0xffffffu));
        }
      }
    }
    Sheet sheet;
    sheet.id = ids.next();
    sheet.name = sheet.file = "noise";
    sheet.code = "A";
    sheet.cut.cell = {box.w, box.h};
    sheet.pictureSize = {all.width(), all.height()};
    quilt = quilt.with(sheet);
    pictures.set(sheet, all);
    slot = *quilt.slots().find(sheet.id);
    Map yard;
    yard.id = ids.next();
    yard.name = "Yard";
    yard.folder = "yard";
    yard.grid = shape;
    yard.bounds = {0, 0, 9, 7};
    Layer layer;
    layer.id = ids.next();
    layer.name = "Ground";
    layer.file = "ground";
    for (int y = 0; y < 7; ++y) {
      for (int x = 0; x < 9; ++x) {
        if (thrown() % 4 == 0) continue;
        const auto turns = turnsOf(quilt, *grid, Cell({slot, static_cast<std::uint32_t>(thrown() % kTiles)}, {}));
        layer.cells.set({x, y}, turns[thrown() % turns.size()]);
      }
    }
    layer.cells.set({4, 3}, Cell({slot, 1}, {}));
    yard.layers.emplace_back(std::move(layer));
    map = yard.id;
    quilt = quilt.with(yard);
  }
  const Map& yard() const { return *quilt.map(map); }
  const CellGrid& cells() const { return yard().layers.front()->cells; }
  // The map as a picture, with some clear pixels around on the left and above.
  QImage drawn(int left, int top) const {
    MapPainter painter(pictures);
    const PixelRect part = makeGrid(yard().grid)->pixelBounds(yard().bounds);
    return painter.draw(quilt, yard(), runsOf(yard()), ViewScale{1}, QRect(part.x - left, part.y - top, part.w + left, part.h + top));
  }
};

std::map<CellPos, Cell> settled(const CellGrid& cells, CellPos by) {
  std::map<CellPos, Cell> all;
  cells.forEachPainted(cells.usedBounds(), [&](CellPos at, Cell cell) { all[{at.x - by.x, at.y - by.y}] = cell; });
  return all;
}

}  // namespace

TEST(MapImport, WhatWasDrawnIsRecognisedOnAllGrids) {
  EXPECT_TRUE(rc::check([] {
    GridShape shape = anySmallGrid();
    shape.plan = false;
    shape.firstShift = false;
    const Noise noise(shape, *rc::gen::arbitrary<std::uint32_t>());
    RC_LOG() << noise.inked << " pixels a tile\n";
    const bool isSquare = shape.kind == GridKind::orthogonal;
    const QImage picture = noise.drawn(isSquare ? 0 : *rc::gen::inRange(0, 9), isSquare ? 0 : *rc::gen::inRange(0, 9));
    const auto read = cellsOfPicture(picture, noise.quilt, noise.pictures, shape);
    RC_ASSERT(read.has_value());
    RC_LOG() << cellsCalled(shape.kind) << " " << read->known << " known, " << read->unknown.size() << " kinds unknown\n";
    RC_ASSERT(read->unknown.empty());
    const CellRect was = noise.cells().usedBounds();
    const CellRect is = read->cells.usedBounds();
    // The same picture, in no more cells: on some grids it is that of two maps.
    RC_ASSERT(is.count() <= was.count());
    Map again = noise.yard();
    again.bounds = {0, 0, read->columns, read->rows};
    again.layers[0].edit([&](Layer& layer) { layer.cells = read->cells; });
    MapPainter painter(noise.pictures);
    const Quilt with = noise.quilt.with(again);
    RC_ASSERT(painter.draw(with, *with.map(again.id), runsOf(*with.map(again.id)), ViewScale{1}, QRect(-read->origin.x, -read->origin.y, picture.width(), picture.height())) == picture);
    if (shape.kind == GridKind::diamond || isSquare) RC_ASSERT(settled(read->cells, {is.x0, is.y0}) == settled(noise.cells(), {was.x0, was.y0}));
    if (isSquare) RC_ASSERT(read->columns == 9 && read->rows == 7 && is == was);
  }));
}

TEST(MapImport, WhatIsInNoSheetIsCountedAndMayBecomeOne) {
  EXPECT_TRUE(rc::check([] {
    const Noise noise({GridKind::orthogonal, {16, 16}}, *rc::gen::arbitrary<std::uint32_t>());
    QImage picture = noise.drawn(0, 0);
    // Two cells get a pixel that no tile has, in the same way, one another.
    for (const QPoint at : {QPoint(4 * 16, 3 * 16), QPoint(16, 16)}) {
      for (int y = 0; y < 16; ++y) {
        for (int x = 0; x < 16; ++x) picture.setPixel(at.x() + x, at.y() + y, 0xff00ff00u + static_cast<QRgb>(x));
      }
    }
    picture.setPixel(5 * 16 + 3, 5 * 16 + 3, 0xff123456);
    const auto read = cellsOfPicture(picture, noise.quilt, noise.pictures, noise.yard().grid);
    RC_ASSERT(read.has_value());
    RC_ASSERT(read->unknown.size() == 2u);
    RC_ASSERT((read->unknown[0].cells == std::vector<CellPos>{{1, 1}, {4, 3}}));
    const QTemporaryDir folder;
    const std::string file = folder.filePath(QStringLiteral("Old yard.png")).toStdString();
    RC_ASSERT(writePng(*realDisk(), picture, file).has_value());
    SheetPictures pictures = noise.pictures;
    IdSource ids(9);
    const auto map = importMap(*realDisk(), noise.quilt, pictures, {{file}, {}, noise.yard().grid, true}, ids);
    RC_ASSERT(map.has_value());
    const Map& made = *map->quilt.map(map->map);
    RC_ASSERT(made.name == "Old yard");
    RC_ASSERT(!map->sheet.empty());
    // All of the picture is there now.
    MapPainter painter(pictures);
    const QImage again = painter.draw(map->quilt, made, runsOf(made), ViewScale{1}, QRect(0, 0, picture.width(), picture.height()));
    RC_ASSERT(again == picture.convertToFormat(again.format()));
  }));
}

TEST(MapImport, TablesComeBackAsTheyWentOut) {
  EXPECT_TRUE(rc::check([] {
    const Noise noise(anySmallGrid(), *rc::gen::arbitrary<std::uint32_t>());
    const bool byName = *rc::gen::arbitrary<bool>();
    const auto read = readCsv(noise.quilt, csvText(noise.quilt, noise.yard(), noise.yard().layers.front().read(), byName ? CsvAs::names : CsvAs::numbers), "t.csv");
    RC_ASSERT(read.has_value());
    RC_ASSERT(read->columns == 9 && read->rows == 7 && read->unknown == 0);
    noise.cells().forEachPainted(noise.cells().usedBounds(), [&](CellPos at, Cell cell) {
      RC_ASSERT(read->cells.at(at).tile() == cell.tile());
      if (!byName) RC_ASSERT(read->cells.at(at) == cell);
    });
  }));
}

TEST(MapImport, TablesFromElsewhereAreReadAndWhatIsWrongIsSaid) {
  const Scene scene;
  const auto read = [&](const char* text) { return readCsv(scene.quilt, text, "t.csv"); };
  const auto mixed = read("-1,0,\"small 1\"\n,small 0,what\n7,\"a \"\"b\"\"\"");
  ASSERT_TRUE(mixed.has_value()) << mixed.error().text();
  EXPECT_EQ(mixed->columns, 3);
  EXPECT_EQ(mixed->rows, 3);
  EXPECT_EQ(mixed->laid, 2);
  EXPECT_EQ(mixed->cells.at({2, 0}), Cell({scene.small, 1}, {}));
  EXPECT_THAT(mixed->unknownNames, testing::ElementsAre("what", "7", "a \"b\""));
  const auto broken = read("1,2\n3,\"4\n");
  ASSERT_FALSE(broken.has_value());
  EXPECT_FALSE(read("").has_value());
  std::string wide(70'000, ',');
  EXPECT_EQ(readCsv(scene.quilt, wide, "t").error().cause, Error::Cause::tooLarge);
}

TEST(Film, ShowsWhatEachStepLeft) {
  Scene scene;
  UndoLine line;
  Quilt now = scene.quilt;
  const auto step = [&](const char* name, CellPos at, Cell cell) {
    line.begin(name, scene.map, now, DeskMark(scene.at("Ground")));
    const std::vector<CellChange> one = {{at, cell, 0}};
    now = layCells(now, scene.at("Ground"), one);
    EXPECT_TRUE(line.commit(now, DeskMark(scene.at("Ground"))));
  };
  std::vector<Quilt> then{now};
  for (int i = 0; i < 80; ++i) {
    step(("Step " + std::to_string(i)).c_str(), {i % 8 - 2, i / 8 % 6 - 1}, i < 40 ? Cell({scene.small, 0}, {}) : Cell({kChalkSlot, static_cast<std::uint32_t>(i % 8)}, {}));
    then.push_back(now);
    while (auto packing = line.toPack(4)) line.putPacked(UndoLine::pack(std::move(*packing), nullptr));
  }
  const auto states = filmOf(line, now, 1000);
  ASSERT_EQ(states.size(), then.size());
  for (std::size_t i = 0; i < then.size(); ++i) EXPECT_EQ(states[i].quilt, then[i]) << i;
  EXPECT_EQ(states[3].step, "Step 2");
  EXPECT_EQ(states[3].map, scene.map);
  EXPECT_EQ(filmOf(line, now, 5).size(), 6u);
  EXPECT_EQ(filmOf(line, now, 5).back().quilt, now);
  EXPECT_EQ(line.steps().size(), 80u) << "the line itself is as it was";
  EXPECT_EQ(stateAt(81, 0), 0u);
  EXPECT_EQ(stateAt(81, 1), 80u);
  EXPECT_EQ(stateAt(81, 0.9), 80u);
}

TEST(Film, IsWrittenAsWebpAndAsFrames) {
  Scene scene;
  UndoLine line;
  Quilt now = scene.quilt;
  for (int i = 0; i < 10; ++i) {
    line.begin("Lay", scene.map, now, DeskMark(scene.at("Ground")));
    const std::vector<CellChange> one = {{{i % 8 - 2, 0}, Cell({i < 8 ? scene.small : kChalkSlot, 1}, {}), 0}};
    now = layCells(now, scene.at("Ground"), one);
    ASSERT_TRUE(line.commit(now, DeskMark(scene.at("Ground"))));
  }
  const auto states = filmOf(line, now, 1000);
  const QTemporaryDir folder;
  MapPainter painter(scene.pictures);
  const std::string file = folder.filePath(QStringLiteral("yard.webp")).toStdString();
  const auto written = writeFilm(*realDisk(), painter, states, {scene.map, 256, 2, false}, file);
  ASSERT_TRUE(written.has_value()) << written.error().text();
  EXPECT_EQ(*written, 11);
  QImageReader reader(QString::fromStdString(file));
  EXPECT_EQ(reader.imageCount(), 11) << reader.errorString().toStdString();
  QImage last;
  int length = 0;
  for (QImage frame = reader.read(); !frame.isNull(); frame = reader.read()) {
    last = frame;
    length += reader.nextImageDelay();
    if (reader.currentImageNumber() + 1 >= reader.imageCount()) break;
  }
  const PixelRect part = filmPart(painter, states, scene.map);
  const QImage now_ = filmFrame(painter, states.back(), scene.map, part, last.size());
  EXPECT_EQ(last.width(), 256);
  EXPECT_EQ(last.convertToFormat(QImage::Format_ARGB32), now_.convertToFormat(QImage::Format_ARGB32)) << "packed without loss";
  const std::string frames = folder.filePath(QStringLiteral("frames")).toStdString();
  ASSERT_TRUE(writeFilm(*realDisk(), painter, states, {scene.map, 64, 1, true}, frames).has_value());
  EXPECT_TRUE(std::filesystem::exists(frames + "/frame-0025.png"));
  EXPECT_FALSE(std::filesystem::exists(frames + "/frame-0026.png"));
  Progress progress;
  progress.cancel();
  EXPECT_FALSE(writeFilm(*realDisk(), painter, states, {scene.map, 64, 1, false}, file + "2", &progress).has_value());
  EXPECT_FALSE(std::filesystem::exists(file + "2"));
}

// What a target writes: the same bytes again, only what changed, and nothing of what is gone.
TEST(TargetExport, WritesEachFormTheSameAndOnlyWhatChanged) {
  for (const TargetForm form : kTargetForms) {
    IdSource names(12);
    Noise noise({GridKind::orthogonal, {16, 16}});
    Target target;
    target.id = names.next();
    target.name = "Out";
    target.form = form;
    target.text = "{{name}} {{columns}}\n{{#layers}}{{#cells}}{{text}}\n{{/cells}}{{/layers}}";
    target.powersOfTwo = true;
    const QTemporaryDir folder;
    MapPainter painter(noise.pictures);
    const TargetAsk ask{folder.path().toStdString(), true};
    const auto write = [&] { return exportTarget(*realDisk(), painter, noise.quilt, target, ask); };
    const auto first = write();
    ASSERT_TRUE(first.has_value()) << targetFormName(form) << first.error().text();
    EXPECT_FALSE(first->written.empty()) << targetFormName(form);
    const auto again = write();
    EXPECT_TRUE(again->written.empty() && again->same.empty()) << targetFormName(form) << ": nothing is made that has not changed";
    TargetAsk anyway = ask;
    anyway.onlyChanged = false;
    EXPECT_EQ(exportTarget(*realDisk(), painter, noise.quilt, target, anyway)->written.size(), 0u) << targetFormName(form) << ": the same bytes";
    if (form == TargetForm::links || form == TargetForm::sheet) continue;
    Map other = noise.yard();
    other.layers[0].edit([&](Layer& layer) { layer.cells.set({0, 0}, Cell({noise.slot, 8}, {})), layer.cells.set({1, 0}, Cell()); });
    noise.quilt = noise.quilt.with(other);
    EXPECT_FALSE(write()->written.empty()) << targetFormName(form);
    noise.quilt = noise.quilt.without<Map>(noise.map);
    const auto gone = goneFrom(*realDisk(), noise.quilt, target, folder.path().toStdString());
    ASSERT_EQ(gone.size(), 1u) << targetFormName(form);
    EXPECT_EQ(gone[0].name, "Yard");
    const auto last = write();
    ASSERT_TRUE(last.has_value());
    for (const std::string& file : gone[0].files) EXPECT_THAT(last->removed, testing::Contains(file)) << targetFormName(form);
  }
}

// Other maps, other tiles: that counts as a change.
TEST(TargetExport, APackedSheetFollowsWhichMapsGoOut) {
  Noise noise({GridKind::orthogonal, {16, 16}});
  IdSource ids(12);
  Map empty = noise.yard();
  empty.id = ids.next();
  empty.name = empty.folder = "empty";
  empty.layers.clear();
  noise.quilt = noise.quilt.with(empty);
  Target target;
  target.id = ids.next();
  target.name = "Out";
  target.form = TargetForm::sheet;
  const QTemporaryDir folder;
  MapPainter painter(noise.pictures);
  const auto write = [&] { return exportTarget(*realDisk(), painter, noise.quilt, target, {folder.path().toStdString(), true}); };
  ASSERT_EQ(write()->written.size(), 2u);
  target.maps = {empty.id};
  EXPECT_EQ(write()->removed.size(), 2u) << "no tile lies there";
}

// Band by band, a picture is that which is drawn at once; one too large is refused before anything is written.
TEST(PngStream, DrawsWhatIsDrawnAtOnce) {
  EXPECT_TRUE(rc::check([] {
    const Noise noise({GridKind::orthogonal, {16, 16}}, *rc::gen::arbitrary<std::uint32_t>());
    MapPainter painter(noise.pictures);
    const auto runs = runsOf(noise.yard());
    const ViewScale scale{static_cast<double>(*rc::gen::inRange(1, 4))};
    const QRect device(-5, 3, *rc::gen::inRange(1, 300), *rc::gen::inRange(1, 200));
    const bool onCloth = *rc::gen::arbitrary<bool>();
    std::string bytes;
    RC_ASSERT(streamPng(painter, {noise.quilt, noise.yard(), runs, scale, device, onCloth}, [&](std::string_view piece) -> Result<void> {
                bytes += piece;
                return {};
              }).has_value());
    const QImage streamed = QImage::fromData(QByteArray::fromStdString(bytes), "PNG").convertToFormat(QImage::Format_ARGB32_Premultiplied);
    const QImage whole = onCloth ? overCloth(painter, noise.quilt, noise.yard(), runs, scale, device) : painter.draw(noise.quilt, noise.yard(), runs, scale, device);
    RC_ASSERT(streamed == whole.convertToFormat(streamed.format()));
  }));
  Noise noise({GridKind::orthogonal, {16, 16}});
  MapPainter painter(noise.pictures);
  const auto runs = runsOf(noise.yard());
  bool isCalled = false;
  const auto refused = streamPng(painter, {noise.quilt, noise.yard(), runs, ViewScale{1}, QRect(0, 0, 100'000, 10)}, [&](std::string_view) -> Result<void> {
    isCalled = true;
    return {};
  });
  ASSERT_FALSE(refused.has_value());
  EXPECT_EQ(refused.error().cause, Error::Cause::tooLarge);
  EXPECT_FALSE(isCalled);
  // Where there is no room any more, that is what is said.
  const auto full = streamPng(painter, {noise.quilt, noise.yard(), runs, ViewScale{1}, QRect(0, 0, 100, 100)}, [](std::string_view) -> Result<void> { return fail(Error::Cause::diskFull, "the disk is full"); });
  ASSERT_FALSE(full.has_value());
  EXPECT_EQ(full.error().cause, Error::Cause::diskFull);
}

// A sample is the beginning of what is written.
TEST(TargetExport, SamplesAreTheBeginningOfWhatIsWritten) {
  Noise noise({GridKind::orthogonal, {16, 16}});
  MapPainter painter(noise.pictures);
  for (const TargetForm form : kTargetForms) {
    Target target;
    target.id = noise.map;
    target.name = "Out";
    target.form = form;
    target.text = "{{name}}";
    const TargetSample sample = sampleOf(painter, noise.quilt, target, noise.map, QSize(100, 80));
    EXPECT_EQ(sample.wrong, "") << targetFormName(form);
    const QTemporaryDir folder;
    ASSERT_TRUE(exportTarget(*realDisk(), painter, noise.quilt, target, {folder.path().toStdString()}).has_value());
    const auto bytes = realDisk()->read(folder.path().toStdString() + "/" + sample.file, 1 << 20);
    ASSERT_TRUE(bytes.has_value()) << targetFormName(form) << " " << sample.file;
    if (sample.picture.isNull()) EXPECT_TRUE(bytes->starts_with(sample.text)) << targetFormName(form);
    else EXPECT_LE(sample.picture.width(), 100) << targetFormName(form);
  }
  Target own;
  own.id = noise.map;
  own.name = "Out";
  own.form = TargetForm::own;
  own.text = "a\n{{#b}}";
  EXPECT_EQ(sampleOf(painter, noise.quilt, own, noise.map, {}).line, 2);
}

TEST(TargetExport, PackedTilesStandApartAndTheirRimsAreDrawnOn) {
  EXPECT_TRUE(rc::check([] {
    const Noise noise({GridKind::orthogonal, {16, 16}}, *rc::gen::arbitrary<std::uint32_t>());
    const Sheet& sheet = noise.quilt.sheets().front().read();
    Target how;
    how.bleed = *rc::gen::inRange(0, 4);
    how.columns = *rc::gen::inRange(0, 5);
    how.powersOfTwo = *rc::gen::arbitrary<bool>();
    const QImage picture = noise.pictures.picture(sheet);
    const auto used = usedTiles(sheet, usesIn(noise.quilt), noise.slot);
    how.order = *rc::gen::element<std::string>("", "name", "use");
    const auto packed = packedSheet(sheet, picture, inOrder(sheet, used, usesIn(noise.quilt), noise.slot, how), how);
    RC_ASSERT(packed.has_value());
    RC_ASSERT(packed->places.size() == used.size());
    const auto isPower = [](int side) { return (side & (side - 1)) == 0; };
    RC_ASSERT(!how.powersOfTwo || (isPower(packed->picture.width()) && isPower(packed->picture.height())));
    for (const PackedSheet::Place& one : packed->places) {
      const QRect at(one.at.x, one.at.y, one.at.w, one.at.h);
      const PixelRect from = *sheet.place(one.tile);
      RC_ASSERT(packed->picture.copy(at) == picture.copy(from.x, from.y, from.w, from.h));
      const QRect with = at.adjusted(-how.bleed, -how.bleed, how.bleed, how.bleed);
      RC_ASSERT(packed->picture.rect().contains(with));
      if (how.bleed > 0) RC_ASSERT(packed->picture.pixel(with.topLeft()) == packed->picture.pixel(at.topLeft()));
      for (const PackedSheet::Place& other : packed->places) {
        if (other.tile != one.tile) RC_ASSERT(!with.intersects(QRect(other.at.x, other.at.y, other.at.w, other.at.h)));
      }
    }
  }));
}

}  // namespace uq
