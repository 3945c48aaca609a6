// Whole jobs, in as many actions as they may take.
#include <QToolButton>

#include "app/Story.h"
#include "app/workroom/Clipboard.h"
#include "core/edit/Selected.h"

namespace uq::test {

class Jobs : public Story {
 protected:
  void SetUp() override { openDemo(); }
  int actionsOf(const std::function<void()>& job) {
    const int before = hand.actions();
    job();
    return hand.actions() - before;
  }
  std::string active() { return session().quilt().layer(session().desk().activeAt())->name; }
};

TEST_F(Jobs, FourLoosePicturesAreSolidTiles) {
  QTemporaryDir art;
  QStringList paths;
  for (int i = 0; i < 4; ++i) {
    QImage wall(64, 64, QImage::Format_RGB32);
    wall.fill(QColor(60 + 40 * i, 90, 120 - 20 * i));
    for (int y = 0; y < 64; y += 8) {
      for (int x = 0; x < 64; ++x) wall.setPixelColor(x, y, QColor(30, 30, 40));
    }
    paths << art.filePath(QStringLiteral("wall %1.png").arg(i));
    ASSERT_TRUE(wall.save(paths.back()));
  }
  const std::size_t before = session().quilt().sheets().size();
  const int job = actionsOf([&] {
    hand.drop(room.get(), QPointF(60, 400), paths);
    awaitWork();
    settle();
    hand.click(room->sheetCard()->findChild<QToolButton*>(QStringLiteral("footing-solid")));
  });
  EXPECT_LE(job, 2);
  ASSERT_EQ(session().quilt().sheets().size(), before + 1);
  ASSERT_TRUE(room->sheetCard()->sheet());
  const Sheet& walls = *session().quilt().sheet(*room->sheetCard()->sheet());
  EXPECT_EQ(walls.collection.size(), 4u);
  for (std::uint32_t tile = 0; tile < 4; ++tile) EXPECT_EQ(walls.footingOf(tile), Footing::solid);
  report("four loose pictures as solid tiles");
}

TEST_F(Jobs, CopiedAndPastedElsewhere) {
  hand.key(Qt::Key_5);
  hand.click(room->stack()->card(yard().layerNamed("Sheds & trams")->id));
  room->canvas()->setFocus();
  hand.key(Qt::Key_0);
  hand.drag(room->canvas(), {onMap({16, 8}), onMap({21, 11})});
  const CellSet from = session().desk().selection();
  const auto copy = copyOf(session().quilt(), session().desk().activeAt(), from);
  ASSERT_TRUE(copy && !copy->empty());
  const CellPos to{20, 18};
  const int job = actionsOf([&] {
    hand.key(Qt::Key_C, Qt::ControlModifier);
    hand.key(Qt::Key_V, Qt::ControlModifier);
    hand.click(room->canvas(), onMap(to));
  });
  EXPECT_EQ(job, 3);
  EXPECT_FALSE(session().isSaved()) << "it was not held back by the selection it came from";
  EXPECT_TRUE(session().desk().selection().empty());
  report("copying and pasting elsewhere");
}

TEST_F(Jobs, ALayerOfOnesOwnIsPaintedWithFiveTakes) {
  hand.click(room->findChild<QWidget*>(QStringLiteral("needle-2")));
  const LayerAt own = session().desk().activeAt();
  const std::size_t layers = yard().layers.size();
  // Things of different kinds, none of which covers its cell.
  const std::uint32_t things[] = {3, 4, 5, 9, 10};
  int laid = 0;
  for (const std::uint32_t thing : things) {
    hand.click(room->table(), onTable("rails", thing));
    EXPECT_EQ(session().desk().activeAt(), own) << thing;
    hand.click(room->canvas(), onMap({20 + 2 * laid, 20}));
    ++laid;
  }
  EXPECT_EQ(session().quilt().layer(own)->cells.tally(yard().bounds).size(), 5u);
  EXPECT_EQ(yard().layers.size(), layers);
  report("a layer of one's own, painted with five takes");
}

TEST_F(Jobs, GroundGoesWhereItBelongsAndTheTagSaysSo) {
  hand.click(room->stack()->card(yard().layerNamed("Rails")->id));
  hand.click(room->table(), onTable("street", 24));
  hand.moveTo(room->canvas(), onMap({20, 20}));
  EXPECT_EQ(active(), "Paving");
  EXPECT_TRUE(room->canvas()->tagText().contains(QStringLiteral("ground goes to Paving; W leads back to Rails")))
      << room->canvas()->tagText().toStdString();
  hand.key(Qt::Key_W);
  EXPECT_EQ(active(), "Rails");
  EXPECT_FALSE(room->canvas()->tagText().contains(QStringLiteral("leads back")));
}

}  // namespace uq::test
