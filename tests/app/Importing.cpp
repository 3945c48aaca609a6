// Maps of pictures and tables, by hand; and the film of how a map was made.
#include <QAbstractButton>
#include <QFileInfo>
#include <QImage>
#include <QLineEdit>
#include <QTemporaryDir>
#include <QTest>
#include <QToolButton>

#include "app/Story.h"
#include "app/table/HangCard.h"
#include "core/store/CsvText.h"

namespace uq::test {

class Importing : public Story {
 public:
  Importing() : Story(Demo::whole) {}

 protected:
  void SetUp() override { openDemo(); }
  // One layer of Depot Yard as a picture.
  QString pictureOf(const char* layer) {
    const Map& map = yard();
    Seeing seeing = inGame(map);
    for (const Shared<Layer>& one : map.layers) {
      if (one->name != layer) seeing.hidden.insert(one->id);
    }
    const PixelRect part = makeGrid(map.grid)->pixelBounds(map.bounds);
    const QString file = scratch.filePath(QStringLiteral("Old yard.png"));
    EXPECT_TRUE(session().painter().draw(session().quilt(), map, runsOf(map, seeing), ViewScale{1}, QRect(part.x, part.y, part.w, part.h)).save(file));
    return file;
  }
  const Map* made(const char* name) { return session().quilt().mapNamed(name); }
  QTemporaryDir scratch;
};

TEST_F(Importing, AMapFromAPictureIsTwoActions) {
  const QString file = pictureOf("Paving");
  const Quilt before = session().quilt();
  const int began = hand.actions();
  hand.drop(room->canvas(), onMap({10, 10}), {file});
  picture("map-of-picture");
  hand.click(part<QToolButton>("map-of-picture"));
  awaitWork();
  settle();
  EXPECT_LE(hand.actions() - began, 2);
  report("a map from a PNG: two actions");
  ASSERT_TRUE(made("Old yard"));
  EXPECT_EQ(session().map()->name, "Old yard") << "it lies before one";
  const CellGrid& cells = made("Old yard")->layers.front()->cells;
  const CellGrid& paving = yard().layerNamed("Paving")->cells;
  int same = 0;
  paving.forEachPainted(yard().bounds, [&](CellPos at, Cell cell) { same += cells.at({at.x - yard().bounds.x0, at.y - yard().bounds.y0}) == cell ? 1 : 0; });
  EXPECT_EQ(same, 48 * 32);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt(), before);
}

TEST_F(Importing, WhatIsInNoSheetBecomesOneWhereThatIsWanted) {
  const QString file = pictureOf("Paving");
  QImage changed(file);
  for (int x = 0; x < 20; ++x) changed.setPixel(40 + x, 50, 0xffff00ffu - static_cast<QRgb>(x));
  ASSERT_TRUE(changed.save(file));
  const std::size_t sheets = session().quilt().sheets().size();
  const auto bringIn = [&](const char* answer) {
    hand.drop(room->canvas(), onMap({10, 10}), {file});
    hand.inDialog(QStringLiteral("pieces-question"), [&](QWidget& question) {
      picture("pieces-question", &question);
      question.findChild<QAbstractButton*>(QLatin1String(answer))->click();
    });
    hand.click(part<QToolButton>("map-of-picture"));
    awaitWork();
    settle();
    awaitWork();
    settle();
  };
  bringIn("pieces-leave");
  ASSERT_TRUE(made("Old yard"));
  EXPECT_EQ(session().quilt().sheets().size(), sheets);
  EXPECT_TRUE(made("Old yard")->layers.front()->cells.at({1, 1}).empty());
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  ASSERT_FALSE(made("Old yard"));
  session().verbs().maps.goTo(yard().id);
  settle();
  bringIn("pieces-make");
  ASSERT_TRUE(made("Old yard"));
  EXPECT_EQ(session().quilt().sheets().size(), sheets + 1);
  EXPECT_TRUE(named("Old yard, pieces"));
  EXPECT_FALSE(made("Old yard")->layers.front()->cells.at({1, 1}).empty());
}

TEST_F(Importing, TablesBecomeLayers) {
  QStringList files;
  for (const char* layer : {"Paving", "Rails"}) {
    files << scratch.filePath(QString::fromUtf8(layer) + QStringLiteral(".csv"));
    QFile table(files.last());
    ASSERT_TRUE(table.open(QIODevice::WriteOnly));
    table.write(QByteArray::fromStdString(csvText(session().quilt(), yard(), *yard().layerNamed(layer), CsvAs::numbers)));
  }
  hand.inDialog(QStringLiteral("import-dialog"), [&](QWidget& dialog) {
    dialog.findChild<QLineEdit*>()->setText(QLatin1Char('"') + files.join(QStringLiteral("\" \"")) + QLatin1Char('"'));
    QMetaObject::invokeMethod(&dialog, "accept");
  });
  choose(ActionId::importMap);
  awaitWork();
  settle();
  ASSERT_TRUE(made("Paving"));
  EXPECT_EQ(made("Paving")->layers.size(), 2u);
  EXPECT_EQ(made("Paving")->layerNamed("Rails")->cells, yard().layerNamed("Rails")->cells);
}

TEST_F(Importing, TheWorkIsPlayedBackAndWrittenAsAFilm) {
  hand.click(room->table(), onTable("street", 24));
  for (int i = 0; i < 6; ++i) hand.click(room->canvas(), onMap({20 + i, 20}));
  const Quilt now = session().quilt();
  choose(ActionId::film);
  awaitWork();
  ASSERT_TRUE(room->film()->isVisible());
  EXPECT_EQ(room->film()->states(), 7u);
  EXPECT_TRUE(room->film()->plays());
  EXPECT_TRUE(QTest::qWaitFor([&] { return room->film()->shown() >= 2; }));
  picture("film");
  hand.key(Qt::Key_Space);
  EXPECT_FALSE(room->film()->plays());
  hand.key(Qt::Key_Home);
  EXPECT_EQ(room->film()->shown(), 0);
  hand.key(Qt::Key_Right);
  EXPECT_EQ(room->film()->shown(), 1);
  EXPECT_EQ(session().quilt(), now) << "the work is where it was";
  const QString file = scratch.filePath(QStringLiteral("yard.webp"));
  hand.inDialog(QStringLiteral("film-dialog"), [&](QWidget& dialog) {
    dialog.findChild<QLineEdit*>()->setText(file);
    QMetaObject::invokeMethod(&dialog, "accept");
  });
  part<QLineEdit>("film-width")->setText(QStringLiteral("320"));
  hand.click(part<QToolButton>("film-webp"));
  awaitWork();
  EXPECT_GT(QFileInfo(file).size(), 1000);
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(room->film()->isVisible());
  EXPECT_TRUE(room->canvas()->hasFocus());
}

}  // namespace uq::test
