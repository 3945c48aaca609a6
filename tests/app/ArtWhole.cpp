// Art that came in not quite right is put right: a cut that was typed wrong, pictures of odd sizes, names given twice.
#include <QImage>
#include <QLabel>
#include <QLineEdit>
#include <QToolButton>

#include "app/Story.h"
#include "app/look/NumberField.h"
#include "app/workroom/SheetWork.h"

namespace uq::test {

class ArtWhole : public Story {
 protected:
  void SetUp() override { openDemo(); }
  QString save(const QString& name, QSize size, const QColor& colour) {
    QImage picture(size, QImage::Format_ARGB32);
    for (int y = 0; y < size.height(); ++y) {
      for (int x = 0; x < size.width(); ++x) {
        const int tile = x / 32 + 7 * (y / 32);
        picture.setPixelColor(x, y, colour.darker(100 + 17 * tile + (x + y) % 4 * 20));
      }
    }
    EXPECT_TRUE(picture.save(files_.filePath(name)));
    return files_.filePath(name);
  }
  void drop(const QStringList& paths) {
    hand.drop(room->table(), QPointF(100, 200), paths);
    awaitWork();
    settle();
  }
  void typeInto(const char* field, const char* text) {
    auto* number = part<NumberField>(field);
    hand.click(number);
    number->selectAll();
    hand.type(QLatin1String(text));
    hand.key(Qt::Key_Return);
  }
  QTemporaryDir files_;
};

TEST_F(ArtWhole, ACutThatWasTypedWrongIsPutRightOnTheMapToo) {
  drop({save(QStringLiteral("pier.png"), {192, 128}, Qt::cyan)});
  typeInto("cut-cell-w", "33");
  EXPECT_FALSE(part<QWidget>("old-pieces")->isVisible());
  hand.key(Qt::Key_Escape);
  session().verbs().layers.choose(yard().layerNamed("Paving")->id);
  hand.click(room->table(), onTable("pier", 1));
  hand.drag(room->canvas(), {onMap({20, 25}), onMap({23, 25})});
  const Id pier = named("pier")->id;
  hand.click(room->table(), onTable("pier", 1));
  Story::choose(ActionId::sheetCard);
  typeInto("cut-cell-w", "32");
  auto* meant = part<QToolButton>("lay-meant-tiles");
  ASSERT_TRUE(meant->isVisible());
  EXPECT_EQ(meant->text(), QStringLiteral("4 cells of the old cut become the new tiles"));
  picture("old-pieces");
  hand.moveTo(meant, QRectF(meant->rect()).center());
  EXPECT_EQ(room->canvas()->lit().count(), 4) << "shown before";
  hand.click(meant);
  EXPECT_FALSE(part<QWidget>("old-pieces")->isVisible());
  const Sheet& sheet = *session().quilt().sheet(pier);
  EXPECT_EQ(sheet.place(cellOn("Paving", {21, 25}).tile().number), (PixelRect{32, 0, 32, 32}));
  // One step back, and the old pieces are there again.
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(part<QWidget>("old-pieces")->isVisible());
  EXPECT_EQ(session().quilt().sheet(pier)->place(cellOn("Paving", {21, 25}).tile().number)->w, 33);
}

TEST_F(ArtWhole, PiecesThatNobodyCanTellAreCountedAndShown) {
  drop({save(QStringLiteral("pier.png"), {192, 128}, Qt::cyan)});
  typeInto("cut-cell-w", "16");
  typeInto("cut-cell-h", "16");
  hand.key(Qt::Key_Escape);
  session().verbs().layers.choose(yard().layerNamed("Paving")->id);
  hand.click(room->table(), onTable("pier", 1));
  hand.click(room->canvas(), onMap({20, 25}));
  hand.click(room->table(), onTable("pier", 0));
  hand.click(room->canvas(), onMap({21, 25}));
  Story::choose(ActionId::sheetCard);
  typeInto("cut-cell-w", "32");
  typeInto("cut-cell-h", "32");
  EXPECT_FALSE(part<QToolButton>("lay-meant-tiles")->isVisible());
  EXPECT_THAT(part<QLabel>("unsure-pieces")->text().toStdString(), testing::HasSubstr("2 cells still show pieces"));
  hand.click(part<QToolButton>("show-unsure-pieces"));
  EXPECT_EQ(room->canvas()->lit().count(), 1);
}

TEST_F(ArtWhole, PicturesOfOddSizesAreNamedWithWhatCanBecomeOfThem) {
  drop({save(QStringLiteral("a.png"), {64, 64}, Qt::red), save(QStringLiteral("b.png"), {64, 64}, Qt::green),
        save(QStringLiteral("c.png"), {70, 70}, Qt::blue), save(QStringLiteral("d.png"), {64, 64}, Qt::yellow)});
  ASSERT_TRUE(room->sheetCard()->sheet());
  const Id id = *room->sheetCard()->sheet();
  ASSERT_EQ(session().quilt().sheet(id)->collection.size(), 4u);
  EXPECT_THAT(part<QLabel>("odd-sizes-text")->text().toStdString(),
              testing::HasSubstr("1 of 4 pictures differ from the others, which have 64 px; the first of them has 70 px."));
  EXPECT_EQ(part<QToolButton>("odd-scaled"), nullptr) << "70 is no whole part of 64";
  picture("odd-sizes");
  hand.click(part<QToolButton>("odd-cropped"));
  for (const CollectedPicture& one : session().quilt().sheet(id)->collection) EXPECT_EQ(one.size, (PixelSize{64, 64}));
  hand.click(part<QToolButton>("odd-padded"));
  for (const CollectedPicture& one : session().quilt().sheet(id)->collection) EXPECT_EQ(one.size, (PixelSize{70, 70}));
  hand.click(part<QToolButton>("odd-as-they-are"));
  EXPECT_EQ(session().quilt().sheet(id)->collection[0].size, (PixelSize{64, 64}));
  EXPECT_EQ(session().quilt().sheet(id)->collection[2].size, (PixelSize{70, 70}));
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  close();
  openDemo();
  EXPECT_EQ(session().quilt().sheet(id)->care.odd, OddSizes::padded);
  EXPECT_TRUE(session().problems().empty());
}

TEST_F(ArtWhole, NamesGivenTwiceAreToldApartAndTurnsHaveADefault) {
  drop({save(QStringLiteral("pier.png"), {192, 128}, Qt::cyan)});
  const Id pier = *room->sheetCard()->sheet();
  for (const std::uint32_t tile : {2u, 3u}) {
    hand.click(room->table(), onTable("pier", tile));
    auto* name = part<QLineEdit>("tile-name");
    hand.click(name);
    name->selectAll();
    hand.type(QStringLiteral("plank"));
    hand.key(Qt::Key_Return);
  }
  EXPECT_EQ(session().quilt().sheet(pier)->tileName(2), "plank");
  EXPECT_EQ(session().quilt().sheet(pier)->tileName(3), "plank 2");
  session().sheets().change(QStringLiteral("%1"), pier, [](Sheet& sheet) { sheet.turns.turn = false; });
  auto* usual = part<QToolButton>("usual-turns");
  EXPECT_FALSE(usual->isChecked());
  usual->click();
  drop({save(QStringLiteral("mole.png"), {192, 128}, Qt::magenta)});
  EXPECT_FALSE(named("mole")->turns.turn) << "as is usual now";
}

}  // namespace uq::test
