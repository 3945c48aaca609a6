// A new user's first quarter of an hour: take a tile, paint, mend, save, come back, and render the map.
#include <QImage>
#include <QProcess>

#include "app/Story.h"

namespace uq::test {

class FirstSlice : public Story {};

TEST_F(FirstSlice, TakesPaintsSavesAndRendersTheSamePixels) {
  openDemo();
  picture("1-opened");
  MapCanvas* canvas = room->canvas();
  constexpr std::uint32_t kLid = 24;  // "setts, iron lid"
  const Cell lid(tile("street", kLid), {});
  const Cell mirrored(tile("street", kLid), {true, 0});
  const auto before = yard();

  hand.click(room->table(), onTable("street", kLid));
  EXPECT_EQ(session().desk().inHand.block, Block::of(lid));
  hand.moveTo(canvas, onMap({26, 14}));
  EXPECT_EQ(canvas->tagText().toStdString(), "Brush on Paving");
  picture("2-ghost");

  hand.drag(canvas, {onMap({26, 14}), onMap({28, 14}), onMap({33, 15})});
  EXPECT_EQ(cellOn("Paving", {26, 14}), lid);
  EXPECT_EQ(cellOn("Paving", {27, 14}), lid);
  EXPECT_EQ(cellOn("Paving", {33, 15}), lid);
  picture("3-stroke");

  hand.key(Qt::Key_A);
  hand.click(canvas, onMap({27, 20}));
  EXPECT_EQ(cellOn("Paving", {27, 20}), mirrored);

  hand.drag(canvas, {onMap({26, 14}), onMap({28, 14})}, Qt::LeftButton, Qt::ControlModifier);
  EXPECT_TRUE(cellOn("Paving", {26, 14}).empty());
  EXPECT_TRUE(cellOn("Paving", {28, 14}).empty());
  picture("4-taken-away");

  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(cellOn("Paving", {26, 14}), lid);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(cellOn("Paving", {27, 20}), before.layerNamed("Paving")->cells.at({27, 20}));
  hand.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(cellOn("Paving", {27, 20}), mirrored);

  EXPECT_FALSE(session().isSaved());
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(session().isSaved());
  const CellGrid painted = yard().layerNamed("Paving")->cells;
  close();
  report("take, paint, mirror, take away, undo, redo, save");

  openDemo();
  EXPECT_EQ(yard().layerNamed("Paving")->cells, painted);
  for (const char* layer : {"Rails", "Sheds & trams", "Awnings"}) {
    EXPECT_EQ(yard().layerNamed(layer)->cells, before.layerNamed(layer)->cells) << layer;
  }

  canvas = room->canvas();
  hand.key(Qt::Key_0);
  hand.key(Qt::Key_G);
  hand.moveTo(room->table(), QPointF(3, 3));
  picture("5-full-size");
  const QImage shown = this->shown().convertToFormat(QImage::Format_ARGB32);
  const std::string file = folder() + "/depot-yard.png";
  QProcess uquilt;
  uquilt.start(QStringLiteral(UQ_UQUILT),
               {QStringLiteral("render"), QStringLiteral("Depot Yard"), QStringLiteral("--quilt"),
                QString::fromStdString(folder()), QStringLiteral("-o"), QString::fromStdString(file)});
  ASSERT_TRUE(uquilt.waitForFinished());
  ASSERT_EQ(uquilt.exitCode(), 0) << uquilt.readAllStandardError().toStdString();
  const QImage rendered = QImage(QString::fromStdString(file)).convertToFormat(QImage::Format_ARGB32);
  ASSERT_EQ(rendered.size(), QSize(48 * 32, 32 * 32));

  const QPoint corner = canvas->cellRect({0, 0}).topLeft().toPoint();
  const QRect seen = QRect(corner, rendered.size()).intersected(shown.rect());
  ASSERT_GT(seen.width() * seen.height(), 400 * 400);
  EXPECT_EQ(shown.copy(seen), rendered.copy(seen.translated(-corner)));
}

}  // namespace uq::test
