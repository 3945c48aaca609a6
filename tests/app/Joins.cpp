// Materials by hand: a sheet's tiles joined, a material painted and taken away, kept with the quilt.
#include <QToolButton>

#include "app/Story.h"
#include "app/table/TablePanel.h"
#include "core/edit/Joiner.h"

namespace uq::test {

class Joins : public Story {
 protected:
  void SetUp() override { openDemo(); }
  Id sheetNamed(const char* name) {
    for (const Shared<Sheet>& one : session().quilt().sheets()) {
      if (one->name == name) return one->id;
    }
    return {};
  }
};

TEST_F(Joins, ASheetIsJoinedAndAMaterialPainted) {
  Q_EMIT room->table()->sheetChosen(sheetNamed("street"));
  auto* join = part<QToolButton>("join-sheet");
  ASSERT_TRUE(join && join->isVisible());
  const int actions = hand.actions();
  hand.click(join);
  ASSERT_EQ(session().quilt().edgings().size(), 1u);
  const Edging edging = session().quilt().edgings().front().read();
  EXPECT_GT(edging.members.size(), 16u);
  hand.key(Qt::Key_Escape);
  auto* swatch = part<QToolButton>("material-street-0");
  ASSERT_TRUE(swatch && swatch->isVisible());
  picture("materials");
  hand.click(swatch);
  EXPECT_TRUE(session().desk().inHand.joins());
  EXPECT_TRUE(swatch->isChecked());
  // What lies there then is told by the tiles; cells that do not touch it are as they were.
  const Quilt before = session().quilt();
  hand.drag(room->canvas(), {onMap({6, 20}), onMap({12, 20})});
  EXPECT_LE(hand.actions() - actions, 5);
  report("from a sheet to a material that is painted");
  EXPECT_NE(session().quilt(), before);
  const LayerAt at = session().desk().activeAt();
  const auto grid = makeGrid(yard().grid);
  const Joiner joiner(session().quilt(), edging, *grid);
  for (int x = 6; x <= 12; ++x) EXPECT_EQ(joiner.materialOf(session().quilt().layer(at)->cells.at({x, 20})), 0) << x;
  const CellGrid& was = before.layer(at)->cells;
  session().quilt().layer(at)->cells.forEachPainted(yard().bounds, [&](CellPos cell, Cell now) {
    const bool touches = cell.y >= 19 && cell.y <= 21 && cell.x >= 5 && cell.x <= 13;
    EXPECT_TRUE(touches || now == was.at(cell)) << cell.x << ", " << cell.y;
  });
  picture("material-painted");
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt(), before);
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  close();
  openDemo();
  ASSERT_EQ(session().quilt().edgings().size(), 1u);
  EXPECT_EQ(session().quilt().edgings().front().read(), edging);
}

}  // namespace uq::test
