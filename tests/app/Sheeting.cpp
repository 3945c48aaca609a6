// Sheets come in, are found, mended and tidied: from the drop of a file to the saved quilt.
#include <QCheckBox>
#include <QDir>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QImage>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QScrollArea>
#include <QTest>
#include <QToolButton>

#include "app/Story.h"
#include "app/look/NumberField.h"
#include "app/table/HeldStrip.h"
#include "app/workroom/SheetWork.h"
#include "core/store/Documents.h"
#include "raster/PictureFile.h"

namespace uq::test {

namespace {

// Tiles of different colours with a texture, so that their joints can be seen.
QImage drawnSheet(int columns, int rows, int side, unsigned seed = 1) {
  QImage picture(columns * side, rows * side, QImage::Format_ARGB32);
  for (int y = 0; y < picture.height(); ++y) {
    for (int x = 0; x < picture.width(); ++x) {
      const unsigned tile = static_cast<unsigned>(y / side * columns + x / side) + seed;
      const unsigned colour = tile * 2654435761u;
      const bool dark = (x % side + y % side) % 4 == 0;
      picture.setPixel(x, y, 0xff000000u | (dark ? colour >> 9 & 0x7f7f7fu : colour >> 8 & 0xffffffu));
    }
  }
  return picture;
}

}  // namespace

class Sheeting : public Story {
 protected:
  void SetUp() override { openDemo(); }

  QString file(const QString& name) const { return files_.filePath(name); }
  QString save(const QString& name, const QImage& picture) {
    EXPECT_TRUE(picture.save(file(name)));
    return file(name);
  }
  // Drops files on the Table and waits for them to lie there.
  void dropOnTable(const QStringList& paths) {
    hand.drop(room->table(), QPointF(100, 200), paths);
    awaitWork();
    settle();
  }
  void saveAndReopen() {
    hand.key(Qt::Key_S, Qt::ControlModifier);
    awaitWork();
    close();
    openDemo();
  }

  QTemporaryDir files_;
};

TEST_F(Sheeting, ADroppedPictureLiesOnTheTableCutRight) {
  const QString path = save(QStringLiteral("Fish Market.png"), drawnSheet(8, 5, 24));
  const std::size_t before = session().quilt().sheets().size();
  const int from = hand.actions();
  dropOnTable({path});
  EXPECT_EQ(hand.actions() - from, 1);
  report("A sheet cut right by dropping");
  ASSERT_EQ(session().quilt().sheets().size(), before + 1);
  const Sheet* sheet = named("Fish Market");
  ASSERT_TRUE(sheet);
  EXPECT_EQ(sheet->cut, (SheetCut{{24, 24}, 0, 0, {}}));
  EXPECT_TRUE(room->sheetCard()->isVisible()) << "its card says why";
  EXPECT_TRUE(part<QLabel>("cut-reason")->text().contains(QStringLiteral("Joints every 24 px")))
      << part<QLabel>("cut-reason")->text().toStdString();
  EXPECT_TRUE(part<QLabel>("cut-agreement")->text().contains(QStringLiteral("32 px")))
      << "it disagrees with the map, and says so";
  picture("sheet-dropped");
  // It can be painted with at once, and is there again after saving.
  hand.key(Qt::Key_Escape);
  hand.click(room->table(), onTable("Fish Market", 3));
  hand.click(room->canvas(), onMap({4, 4}));
  saveAndReopen();
  ASSERT_TRUE(named("Fish Market"));
  EXPECT_EQ(QFileInfo(QString::fromStdString(folder()) + QStringLiteral("/sheets/fish-market.png")).size(),
            QFileInfo(path).size());
  EXPECT_FALSE(session().painter().pictures().picture(*named("Fish Market")).isNull());
  EXPECT_EQ(named("Fish Market")->marks->tiles.size(), 40u);
}

TEST_F(Sheeting, UndoTakesADroppedPictureBackAndRedoBringsItAgain) {
  const Quilt before = session().quilt();
  dropOnTable({save(QStringLiteral("pier.png"), drawnSheet(4, 4, 32))});
  hand.key(Qt::Key_Escape);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt(), before);
  hand.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  ASSERT_TRUE(named("pier"));
  EXPECT_FALSE(session().painter().pictures().picture(*named("pier")).isNull());
}

TEST_F(Sheeting, ASheetThatIsTakenAwaySaysWhereItWasUsedAndComesBack) {
  hand.click(room->table(), onTable("rails", 2));
  Story::choose(ActionId::sheetCard);
  settle();
  auto* remove = part<QToolButton>("remove-sheet");
  part<QScrollArea>("sheet-card-scroll")->ensureWidgetVisible(remove);
  settle();
  hand.moveTo(remove, remove->rect().center());
  EXPECT_TRUE(remove->toolTip().contains(QStringLiteral("178 cells on 1 map"))) << remove->toolTip().toStdString();
  const Quilt before = session().quilt();
  const QImage was = shown();
  remove->click();
  settle();
  EXPECT_FALSE(named("rails"));
  EXPECT_NE(shown(), was) << "placeholders stand where it was";
  room->canvas()->setFocus();
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt(), before);
}

TEST_F(Sheeting, EscClosesTheCardWhereverTheKeysAre) {
  dropOnTable({save(QStringLiteral("pier.png"), drawnSheet(4, 4, 32))});
  room->canvas()->setFocus();
  ASSERT_TRUE(room->sheetCard()->isVisible());
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(room->sheetCard()->isVisible());
}

TEST_F(Sheeting, WhatASheetForbidsIsRefusedInWords) {
  hand.click(room->table(), onTable("rails", 2));
  session().sheets().change(QStringLiteral("Facts of %1"), named("rails")->id, [](Sheet& s) { s.turns.turn = false; });
  hand.moveTo(room->canvas(), onMap({10, 10}));
  const InHand before = session().desk().inHand;
  hand.key(Qt::Key_E);
  EXPECT_EQ(session().desk().inHand, before);
  EXPECT_EQ(room->canvas()->refusal(), QStringLiteral("rails may not be turned"));
  hand.key(Qt::Key_A);
  EXPECT_FALSE(session().desk().inHand == before) << "mirroring is another matter";
}

TEST_F(Sheeting, FourSinglePicturesBecomeSolidTiles) {
  QStringList paths;
  for (const char* name : {"crate.png", "barrel.png", "bollard.png", "net.png"}) {
    paths << save(QLatin1String(name), drawnSheet(1, 1, name[0] == 'b' ? 32 : 40, static_cast<unsigned>(name[0])));
  }
  const int from = hand.actions();
  dropOnTable(paths);
  hand.click(part<QToolButton>("footing-solid"));
  EXPECT_EQ(hand.actions() - from, 2);
  report("Four single pictures as solid tiles");
  const Sheet& sheet = session().quilt().sheets().back().read().isCollection()
                           ? session().quilt().sheets().back().read()
                           : *session().quilt().sheet(*room->sheetCard()->sheet());
  ASSERT_TRUE(sheet.isCollection());
  EXPECT_EQ(sheet.collection.size(), 4u);
  for (std::uint32_t i = 0; i < 4; ++i) EXPECT_EQ(sheet.footingOf(i), Footing::solid);
  EXPECT_EQ(sheet.collection[0].size, (PixelSize{40, 40})) << "different sizes may lie together";
  EXPECT_EQ(sheet.collection[1].size, (PixelSize{32, 32}));
  picture("collection-dropped");
  const std::string name = sheet.name;
  hand.key(Qt::Key_Escape);
  hand.click(room->table(), onTable(name.c_str(), 2));
  hand.click(room->canvas(), onMap({5, 5}));
  saveAndReopen();
  ASSERT_TRUE(named(name.c_str()));
  EXPECT_EQ(named(name.c_str())->collection.size(), 4u);
  EXPECT_TRUE(session().painter().pictures().tile(session().quilt(), tile(name.c_str(), 2)));
}

TEST_F(Sheeting, AFolderComesInAsOne) {
  QDir(files_.path()).mkpath(QStringLiteral("Lanterns/small"));
  save(QStringLiteral("Lanterns/one.png"), drawnSheet(1, 1, 16));
  save(QStringLiteral("Lanterns/small/two.png"), drawnSheet(1, 1, 20, 5));
  QFile note(file(QStringLiteral("Lanterns/readme.txt")));
  ASSERT_TRUE(note.open(QIODevice::WriteOnly));
  note.close();
  hand.drop(room->canvas(), QPointF(200, 200), {file(QStringLiteral("Lanterns"))});
  awaitWork();
  ASSERT_TRUE(named("Lanterns"));
  EXPECT_EQ(named("Lanterns")->collection.size(), 2u);
  EXPECT_FALSE(room->notices()->isVisible()) << "other files in a folder are nobody's business";
}

TEST_F(Sheeting, ATileIsFoundAndTakenByWords) {
  // The field takes the keys as soon as the pointer is on it.
  auto* field = part<QLineEdit>("table-search");
  const int from = hand.actions();
  hand.moveTo(field, field->rect().center());
  hand.type(QStringLiteral("grating"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(hand.actions() - from, 2);
  report("Finding and taking a tile by search");
  ASSERT_EQ(session().desk().inHand.parts().size(), 1u);
  const TileRef found = session().desk().inHand.parts().front().cell.tile();
  EXPECT_NE(session().quilt().sheetAt(found.slot)->tileName(found.number).find("grating"), std::string::npos);
  EXPECT_TRUE(room->canvas()->hasFocus()) << "one can paint at once";
  // Without the mouse it is one key more; a click takes any other that was found.
  hand.key(Qt::Key_F, Qt::ControlModifier);
  hand.type(QStringLiteral("red"));
  FoundTiles* list = room->tablePanel()->found();
  ASSERT_GT(list->found().size(), 3u);
  hand.click(list, list->rectOf(2).center());
  EXPECT_EQ(session().desk().inHand.block, Block::of(Cell(list->found()[2].tile, {})));
  picture("search");
}

TEST_F(Sheeting, UsedHereCountsLightsAndTravels) {
  hand.click(part<QToolButton>("show-used-button"));
  FoundTiles* list = room->tablePanel()->found();
  ASSERT_TRUE(list->isVisible());
  const auto& uses = session().sheets().usesHere();
  ASSERT_EQ(list->found().size(), uses.size());
  EXPECT_EQ(list->found().front().note.toLongLong(), uses.at(list->found().front().tile)) << "the most used first";
  hand.moveTo(list, list->rectOf(5).center());
  const TileRef pointed = list->found()[5].tile;
  EXPECT_EQ(room->canvas()->lit().count(), uses.at(pointed)) << "the whole map is in sight, so all its cells are lit";
  picture("used-here");
  hand.click(list, list->rectOf(5).center());
  EXPECT_EQ(session().desk().inHand.block, Block::of(Cell(pointed, {})));
  room->canvas()->setZoom(4, QPointF(200, 200));
  const QPointF before = room->canvas()->seenPixels().center();
  hand.click(list, list->rectOf(5).center(), Qt::RightButton);
  EXPECT_NE(room->canvas()->seenPixels().center(), before) << "the view travels to its next place";
  hand.click(part<QToolButton>("show-used-button"));
  EXPECT_TRUE(room->table()->isVisible());
}

TEST_F(Sheeting, FitsHereShowsWhatJoinsTheNeighbours) {
  hand.click(part<QToolButton>("show-fitting-button"));
  FoundTiles* list = room->tablePanel()->found();
  hand.moveTo(room->canvas(), onMap({12, 20}));
  ASSERT_TRUE(waitFor([&] { return !list->found().empty(); }));
  hand.click(list, list->rectOf(0).center());
  EXPECT_EQ(session().desk().inHand.block, Block::of(Cell(list->found().front().tile, {})));
}

TEST_F(Sheeting, AWrongCutIsCorrectedWithoutHarmToWhatIsPainted) {
  dropOnTable({save(QStringLiteral("pier.png"), drawnSheet(6, 4, 32))});
  hand.click(part<QToolButton>("cut-chip-2"));
  const SheetCut wrong = named("pier")->cut;
  ASSERT_NE(wrong.cell, (PixelSize{32, 32}));
  hand.click(room->table(), onTable("pier", 1));
  hand.click(room->canvas(), onMap({40, 25}));
  const Cell painted = session().quilt().layer(session().desk().activeAt())->cells.at({40, 25});
  ASSERT_EQ(painted.tile(), tile("pier", 1));
  const PixelRect shows = *named("pier")->place(1);
  const int from = hand.actions();
  hand.click(room->table(), room->table()->headingRect(named("pier")->id).center());
  hand.click(part<QToolButton>("cut-chip-0"));
  EXPECT_EQ(hand.actions() - from, 2);
  report("Correcting a wrong cut");
  EXPECT_EQ(named("pier")->cut.cell, (PixelSize{32, 32}));
  EXPECT_EQ(named("pier")->place(painted.tile().number), shows) << "what is painted keeps its pixels";
  picture("cut-corrected");
  saveAndReopen();
  EXPECT_EQ(named("pier")->place(painted.tile().number), shows) << "after saving, too";
}

TEST_F(Sheeting, NumbersOfTheCutTakeArithmetic) {
  dropOnTable({save(QStringLiteral("pier.png"), drawnSheet(6, 4, 32))});
  auto* width = part<NumberField>("cut-cell-w");
  hand.click(width);
  width->selectAll();
  hand.type(QStringLiteral("96/2"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(named("pier")->cut.cell, (PixelSize{48, 32}));
  EXPECT_TRUE(part<QLabel>("cut-reason")->text().contains(QStringLiteral("4 × 4 tiles")));
  width->selectAll();
  hand.type(QStringLiteral("500"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(named("pier")->cut.cell, (PixelSize{48, 32})) << "a cut that leaves no tile is refused";
  EXPECT_TRUE(part<QLabel>("cut-reason")->text().contains(QStringLiteral("no tile")));
}

TEST_F(Sheeting, APictureReplacedOnTheDiskShowsAtOnceAndTilesKeepTheirNames) {
  const QString path = QString::fromStdString(folder()) + QStringLiteral("/sheets/street.png");
  QImage picture(path);
  ASSERT_FALSE(picture.isNull());
  const Sheet before = *named("street");
  const Quilt quiltBefore = session().quilt();
  const std::vector<Shared<Map>> maps = session().quilt().maps();
  // A row of new tiles at the top; everything else moves down; one tile is drawn anew.
  const PixelSize cell = before.cut.cell;
  QImage rearranged(picture.width(), picture.height() + cell.h, QImage::Format_ARGB32);
  rearranged.fill(Qt::transparent);
  QPainter painter(&rearranged);
  painter.drawImage(0, cell.h, picture.convertToFormat(QImage::Format_ARGB32));
  painter.fillRect(0, 0, cell.w, cell.h, QColor(200, 60, 60));
  const PixelRect changed = *before.place(0);
  painter.fillRect(changed.x + 4, changed.y + cell.h + 4, 8, 8, QColor(20, 200, 220));
  painter.end();
  ASSERT_TRUE(waitFor([&] { return !session().sheets().loosePictures().contains(QStringLiteral("street.png")); }));
  const int from = hand.actions();
  ASSERT_TRUE(rearranged.save(path));
  ASSERT_TRUE(waitFor([&] { return named("street")->pictureSize.h == rearranged.height(); }));
  EXPECT_EQ(hand.actions() - from, 0);
  report("A picture replaced on the disk");
  EXPECT_EQ(session().quilt().maps(), maps) << "no map was touched";
  for (const std::uint32_t number : {1u, 7u, 24u, 40u}) {
    const PixelRect was = *before.place(number);
    EXPECT_EQ(named("street")->place(number), (PixelRect{was.x, was.y + cell.h, was.w, was.h})) << number;
  }
  EXPECT_EQ(named("street")->place(0), (PixelRect{changed.x, changed.y + cell.h, cell.w, cell.h}));
  EXPECT_TRUE(part<QLabel>("foot-hands")->text().contains(QStringLiteral("1 tile changed on 1 map,")))
      << part<QLabel>("foot-hands")->text().toStdString();
  // It is one step, and the file may be saved over without a question.
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(named("street")->source, before.source);
  hand.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_FALSE(room->notices()->isVisible());
  EXPECT_TRUE(session().isSaved());
}

TEST_F(Sheeting, APictureDeletedWhileOpenIsKeptAndSavedAgain) {
  const QString path = QString::fromStdString(folder()) + QStringLiteral("/sheets/rails.png");
  ASSERT_TRUE(waitFor([&] { return session().isSaved(); }));
  settle();
  // What was there at first must be known before it goes.
  ASSERT_TRUE(waitFor([&] { return session().sheets().hasLooked(); }));
  ASSERT_TRUE(QFile::remove(path));
  session().sheets().lookAround();
  ASSERT_TRUE(waitFor([&] { return !session().isSaved(); })) << "there is something to save";
  EXPECT_FALSE(session().painter().pictures().picture(*named("rails")).isNull());
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(QFileInfo::exists(path));
}

TEST_F(Sheeting, APicturePutIntoTheFolderWaitsOnTheTableToBeCut) {
  const QString path = QString::fromStdString(folder()) + QStringLiteral("/sheets/Old Pier.png");
  ASSERT_TRUE(drawnSheet(5, 3, 16).save(path));
  ASSERT_TRUE(waitFor([&] { return session().sheets().loosePictures().contains(QStringLiteral("Old Pier.png")); }));
  room->table()->revealSheet(session().quilt().sheets().back()->id);
  QTest::qWait(0);
  for (int i = 0; i < 40 && room->table()->looseRect(QStringLiteral("Old Pier.png")).bottom() > room->table()->height();
       ++i) {
    hand.wheel(room->table(), QPointF(100, 100), -8);
  }
  hand.click(room->table(), room->table()->looseRect(QStringLiteral("Old Pier.png")).center());
  awaitWork();
  ASSERT_TRUE(named("Old Pier"));
  EXPECT_EQ(named("Old Pier")->picture, "Old Pier.png") << "it stays the file it is";
  hand.key(Qt::Key_Escape);
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_FALSE(room->notices()->isVisible());
  ASSERT_TRUE(waitFor([&] { return session().sheets().loosePictures().isEmpty(); }));
}

TEST_F(Sheeting, AMissingPictureIsFoundAgainByPointingToIt) {
  close();
  const QString path = QString::fromStdString(folder()) + QStringLiteral("/sheets/yard.png");
  ASSERT_TRUE(QFile::rename(path, file(QStringLiteral("moved.png"))));
  openDemo();
  EXPECT_TRUE(room->notices()->isVisible());
  ASSERT_TRUE(session().painter().pictures().picture(*named("yard")).isNull());
  hand.inDialog(QStringLiteral("picture-dialog"), [&](QWidget& dialog) {
    auto& files = static_cast<QFileDialog&>(dialog);
    files.setDirectory(files_.path());
    files.findChild<QLineEdit*>()->setText(file(QStringLiteral("moved.png")));
    QMetaObject::invokeMethod(&files, "accept");
  });
  hand.click(room->table(), onTable("yard", 0));
  awaitWork();
  EXPECT_FALSE(session().painter().pictures().picture(*named("yard")).isNull());
  EXPECT_TRUE(named("yard")->places->empty());
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(QFileInfo::exists(path));
}

TEST_F(Sheeting, ASheetFollowsItsOriginal) {
  const QString path = save(QStringLiteral("boats.png"), drawnSheet(4, 4, 32));
  dropOnTable({path});
  auto* follow = part<QCheckBox>("sheet-follows");
  ASSERT_TRUE(follow->isVisibleTo(room->sheetCard()));
  follow->click();
  ASSERT_EQ(named("boats")->follows, path.toStdString());
  settle();
  QImage other = drawnSheet(4, 4, 32);
  other.fill(Qt::darkGreen);
  const PictureBytes before = named("boats")->source;
  ASSERT_TRUE(other.save(path));
  ASSERT_TRUE(waitFor([&] { return !(named("boats")->source == before); }));
}

TEST_F(Sheeting, TidyListsEachKindBeforeAnythingGoesAndMapsStayTheSame) {
  QImage sheet = drawnSheet(6, 5, 32);
  QPainter painter(&sheet);
  painter.setCompositionMode(QPainter::CompositionMode_Source);
  painter.fillRect(64, 0, 32, 32, Qt::transparent);                           // blank
  painter.drawImage(96, 0, sheet.copy(0, 0, 32, 32));                         // double
  painter.drawImage(0, 32, sheet.copy(32, 0, 32, 32).mirrored(true, false));  // mirrored double
  painter.fillRect(32, 32, 32, 32, Qt::transparent);
  painter.fillRect(40, 40, 2, 1, Qt::red);  // a stray mark
  painter.end();
  dropOnTable({save(QStringLiteral("stalls.png"), sheet)});
  ASSERT_EQ(named("stalls")->cut.cell, (PixelSize{32, 32}));
  hand.key(Qt::Key_Escape);
  hand.click(room->table(), onTable("stalls", 6));
  hand.click(room->canvas(), onMap({20, 25}));
  hand.moveTo(room->table(), QPointF(3, 3));
  const QImage before = shown();
  const Quilt quiltBefore = session().quilt();
  hand.click(room->table(), room->table()->headingRect(named("stalls")->id).center());
  part<QToolButton>("tidy-sheet")->click();
  awaitWork();
  ASSERT_TRUE(room->tidyCard()->isVisible());
  EXPECT_TRUE(part<QCheckBox>("tidy-blank")->text().startsWith(QStringLiteral("1 ")));
  EXPECT_TRUE(part<QCheckBox>("tidy-stray")->text().startsWith(QStringLiteral("1 ")));
  EXPECT_TRUE(part<QCheckBox>("tidy-double")->text().startsWith(QStringLiteral("2 ")));
  EXPECT_EQ(session().quilt(), quiltBefore) << "nothing happens before it is asked for";
  picture("tidy");
  hand.click(part<QToolButton>("tidy-now"));
  EXPECT_FALSE(named("stalls")->offers(2));
  EXPECT_TRUE(named("stalls")->shows(6).mirrored);
  hand.moveTo(room->table(), QPointF(3, 3));
  EXPECT_EQ(shown(), before) << "the map looks the same";
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt(), quiltBefore) << "one step brings everything back";
}

TEST_F(Sheeting, ASheetIsExportedInAnotherOrder) {
  hand.click(room->table(), onTable("rails", 2));
  Story::choose(ActionId::exportSheet);
  settle();
  ASSERT_TRUE(room->exportCard()->isVisible());
  auto* columns = part<NumberField>("export-columns");
  columns->setFocus();
  columns->selectAll();
  hand.type(QStringLiteral("4"));
  hand.key(Qt::Key_Return);
  ASSERT_TRUE(room->exportCard()->result());
  EXPECT_EQ(room->exportCard()->result()->width(), 4 * 32);
  picture("export");
  const QString path = file(QStringLiteral("out.png"));
  hand.inDialog(QStringLiteral("export-dialog"), [&](QWidget& dialog) {
    auto& files = static_cast<QFileDialog&>(dialog);
    files.findChild<QLineEdit*>()->setText(path);
    QMetaObject::invokeMethod(&files, "accept");
  });
  hand.click(part<QToolButton>("export-write"));
  EXPECT_EQ(QImage(path).width(), 128);
}

TEST_F(Sheeting, ChosenTilesAreNamedTaggedAndAnimated) {
  dropOnTable({save(QStringLiteral("fire.png"), drawnSheet(4, 2, 32))});
  const QPointF first = onTable("fire", 0);
  hand.drag(room->table(), {first, onTable("fire", 2)});
  ASSERT_EQ(room->table()->chosenOn(named("fire")->id).size(), 3u);
  part<QToolButton>("animate-chosen")->click();
  settle();
  ASSERT_TRUE(named("fire")->framesOf(0));
  EXPECT_EQ(named("fire")->framesOf(0)->size(), 3u);
  auto* tags = part<QLineEdit>("tile-tags");
  tags->setFocus();
  hand.type(QStringLiteral("warm, light"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(named("fire")->factsOf(1).tags, (std::vector<std::string>{"warm", "light"}));
  hand.key(Qt::Key_Escape);
  // On the map it moves while it is played, and only then.
  hand.click(room->table(), onTable("fire", 0));
  hand.click(room->canvas(), onMap({30, 25}));
  hand.moveTo(room->table(), QPointF(3, 3));
  const QImage still = shown();
  Story::choose(ActionId::playFrames);
  EXPECT_TRUE(waitFor([&] { return room->canvas()->grab().toImage() != still; }));
  Story::choose(ActionId::playFrames);
  settle();
  EXPECT_EQ(shown(), still);
}

TEST_F(Sheeting, PilesFoldAndSheetsMoveBetweenThem) {
  const Id street = named("street")->id;
  const Id rails = named("rails")->id;
  TableView* table = room->table();
  table->revealSheet(street);
  settle();
  // Carried by its heading to before the street's.
  const QPointF heading = table->headingRect(rails).center();
  const QPointF target = table->headingRect(street).center();
  ASSERT_TRUE(QRectF(table->rect()).contains(heading) && QRectF(table->rect()).contains(target));
  hand.drag(table, {heading, heading + QPointF(0, -10), target});
  EXPECT_LT(table->headingRect(rails).top(), table->headingRect(street).top());
  // Into another pile by its card.
  table->revealSheet(rails);
  settle();
  hand.click(table, table->headingRect(rails).center());
  auto* pile = part<QLineEdit>("sheet-pile");
  hand.click(pile);
  pile->selectAll();
  hand.type(QStringLiteral("tracks"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(named("rails")->origin.pile, "tracks");
  hand.key(Qt::Key_Escape);
  table->revealSheet(rails);
  settle();
  ASSERT_FALSE(table->pileRect("tracks").isEmpty());
  const QPointF fold = table->pileRect("tracks").center();
  ASSERT_TRUE(QRectF(table->rect()).contains(fold));
  hand.click(table, fold);
  EXPECT_TRUE(table->tileRect("rails", 3).isEmpty()) << "folded";
  hand.click(table, table->pileRect("tracks").center());
  EXPECT_FALSE(table->tileRect("rails", 3).isEmpty());
  const std::vector<Id> order = session().quilt().facts().table;
  saveAndReopen();
  EXPECT_EQ(session().quilt().facts().table, order) << "the Table is laid as it was";
}

TEST_F(Sheeting, TSpreadsTheTableOverTheMapHeldOrTapped) {
  room->canvas()->setFocus();
  hand.moveTo(room->canvas(), onMap({10, 10}));
  hand.key(Qt::Key_T);
  ASSERT_TRUE(room->spread()->isVisible()) << "tapped, it stays";
  picture("spread");
  const QRectF tile = room->spread()->tileRect("street", 5);
  ASSERT_FALSE(tile.isEmpty());
  hand.click(room->spread(), tile.center());
  EXPECT_FALSE(room->spread()->isVisible()) << "what was taken can be painted with";
  EXPECT_TRUE(room->canvas()->hasFocus());
  hand.hold(Qt::Key_T);
  ASSERT_TRUE(room->spread()->isVisible());
  hand.click(room->spread(), room->spread()->tileRect("street", 6).center());
  EXPECT_TRUE(room->spread()->isVisible()) << "held, it waits for the key";
  hand.letGo(Qt::Key_T);
  EXPECT_FALSE(room->spread()->isVisible());
}

TEST_F(Sheeting, TheLastThingsHeldAreOneClickAway) {
  hand.click(room->table(), onTable("street", 3));
  hand.click(room->table(), onTable("street", 9));
  auto* strip = part<HeldStrip>("held-strip");
  hand.click(strip, strip->rectOf(1).center());
  EXPECT_EQ(session().desk().inHand.parts().front().cell.tile(), tile("street", 3));
  room->canvas()->setFocus();
  hand.key(Qt::Key_X);
  EXPECT_EQ(session().desk().inHand.parts().front().cell.tile(), tile("street", 9));
}

TEST_F(Sheeting, WhatIsNoPictureIsSaidAndNothingIsLost) {
  QFile broken(file(QStringLiteral("broken.png")));
  ASSERT_TRUE(broken.open(QIODevice::WriteOnly));
  broken.write("no picture at all");
  broken.close();
  const Quilt before = session().quilt();
  dropOnTable({broken.fileName()});
  EXPECT_EQ(session().quilt(), before);
  EXPECT_TRUE(room->notices()->isVisible());
  // A cut-off picture among good ones: the good ones come in.
  const QString good = save(QStringLiteral("good.png"), drawnSheet(1, 1, 24));
  const QString cutOff = save(QStringLiteral("cut-off.png"), drawnSheet(6, 6, 24));
  ASSERT_TRUE(QFile::resize(cutOff, QFileInfo(cutOff).size() / 2));
  dropOnTable({good, cutOff, broken.fileName()});
  EXPECT_EQ(session().quilt().sheets().size(), before.sheets().size() + 1);
  EXPECT_TRUE(room->notices()->isVisible());
}

TEST_F(Sheeting, TwoPicturesOfOneNameAndTwoOfOneSize) {
  const QString one = save(QStringLiteral("pier.png"), drawnSheet(4, 4, 16));
  dropOnTable({one});
  QDir(files_.path()).mkpath(QStringLiteral("large"));
  save(QStringLiteral("large/pier.png"), drawnSheet(4, 4, 16).scaled(128, 128));
  dropOnTable({file(QStringLiteral("large/pier.png"))});
  EXPECT_TRUE(part<QLabel>("sheet-twice")->isVisibleTo(room->sheetCard())) << "it is the same at twice the size";
  hand.click(part<QToolButton>("offer-shrink"));
  const Sheet& second = *session().quilt().sheet(*room->sheetCard()->sheet());
  EXPECT_EQ(second.care.shrink, 2);
  EXPECT_EQ(second.pictureSize, (PixelSize{64, 64}));
  EXPECT_EQ(second.cut.cell, (PixelSize{16, 16}));
  EXPECT_NE(second.file, "pier") << "each has a file of its own";
}

TEST_F(Sheeting, ASeeThroughColourIsChosenByAClick) {
  QImage sheet(96, 64, QImage::Format_RGB32);
  sheet.fill(QColor(255, 0, 255));
  QPainter painter(&sheet);
  for (int i = 0; i < 6; ++i) painter.fillRect(i % 3 * 32 + 8, i / 3 * 32 + 8, 16, 16, QColor(40 * i, 90, 60));
  painter.end();
  dropOnTable({save(QStringLiteral("signs.png"), sheet)});
  auto* pick = part<QToolButton>("pick-see-through");
  ASSERT_TRUE(pick->isVisibleTo(room->sheetCard()));
  pick->click();
  settle();
  hand.click(room->table(), room->table()->headingRect(named("signs")->id).bottomLeft() + QPointF(3, 3));
  EXPECT_EQ(named("signs")->care.seeThrough, 0xff00ffu);
  const QImage now = session().painter().pictures().picture(*named("signs"));
  EXPECT_EQ(now.pixel(0, 0), 0u);
  EXPECT_NE(now.pixel(10, 10), 0u);
}

}  // namespace uq::test
