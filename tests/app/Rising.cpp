// Levels, lifts and what one sees of them: a second storey built on an isometric map, looked at from above, saved.
#include <QComboBox>
#include <QToolButton>

#include "app/Story.h"
#include "app/look/NumberField.h"
#include "app/stack/StackPanel.h"
#include "app/table/OtherSides.h"
#include "core/edit/Facings.h"

namespace uq::test {

class Rising : public Story {
 protected:
  void SetUp() override { openDemo(); }
  const Map& map() { return *session().map(); }
  template <class Widget>
  Widget* in(const QString& name) {
    return room->findChild<Widget*>(name);
  }
  StackPanel* stack() { return in<StackPanel>(QStringLiteral("stack")); }
  // A new map of diamonds, 12 × 12, with the chalk of that number in hand.
  void makeDiamonds(std::uint32_t chalk) {
    hand.key(Qt::Key_M, Qt::ControlModifier);
    hand.click(in<QToolButton>(QStringLiteral("grid-diamond")));
    for (const char* field : {"map-width", "map-height"}) {
      hand.doubleClick(in<NumberField>(QLatin1String(field)));
      hand.type(QStringLiteral("12"));
    }
    hand.key(Qt::Key_Return);
    ASSERT_EQ(map().grid.kind, GridKind::diamond);
    hand.click(room->table(), onTable("Chalk", chalk));
  }
};

TEST_F(Rising, ASecondStoreyIsAddedPaintedSeenFromAboveAndSaved) {
  makeDiamonds(10);
  MapCanvas* canvas = room->canvas();
  hand.drag(canvas, {onMap({3, 3}), onMap({8, 3})});
  const int cellHeight = map().grid.cell.h;

  hand.key(Qt::Key_L, Qt::ControlModifier);
  ASSERT_EQ(map().folders.size(), 1u);
  const LayerFolder level = map().folders.front();
  EXPECT_EQ(level.rise, cellHeight);
  EXPECT_EQ(session().quilt().layer(session().desk().activeAt())->folder, level.id);
  ASSERT_NE(stack()->folderCard(level.id), nullptr);

  // The pointer hits the cells of the level where that lies: a rise above those of the ground.
  hand.click(room->table(), onTable("Chalk", 6));
  hand.moveTo(canvas, onMap({5, 5}));
  EXPECT_EQ(canvas->hoveredCell(), (CellPos{5, 5}));
  EXPECT_EQ(canvas->tagText(), QStringLiteral("Brush on Ground up 1 · 5, 5, up 1"));
  picture("level-ghost");
  hand.click(canvas, onMap({5, 5}));
  EXPECT_FALSE(session().quilt().layer(session().desk().activeAt())->cells.at({5, 5}).empty());
  picture("level-laid");

  // The next one from its head, named and risen; then its name and rise are changed in place.
  hand.click(stack()->folderCard(level.id)->findChild<QToolButton*>(QStringLiteral("next-level")));
  ASSERT_EQ(map().folders.size(), 2u);
  EXPECT_EQ(map().folders[1].name, "Level 2");
  EXPECT_EQ(map().folders[1].rise, 2 * cellHeight);
  auto* rise = in<NumberField>(QStringLiteral("level-rise"));
  ASSERT_TRUE(rise->isVisible());
  hand.doubleClick(rise);
  hand.type(QStringLiteral("3*16"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(map().folders[1].rise, 48);
  hand.doubleClick(stack()->folderCard(map().folders[1].id));
  hand.type(QStringLiteral("Roof"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(map().folders[1].name, "Roof");

  canvas->setFocus();
  hand.key(Qt::Key_0);
  const CellPos middle = canvas->cellAt(QRectF(canvas->rect()).center());
  // From above, everything lies on squares, and the same cell is under the pointer.
  canvas->setFocus();
  hand.key(Qt::Key_P);
  EXPECT_TRUE(session().desk().planView);
  EXPECT_EQ(canvas->cellAt(QRectF(canvas->rect()).center()), middle) << "one looks at the same place";
  const QRectF square = canvas->cellRect({5, 5});
  EXPECT_NEAR(square.width(), square.height(), 1);
  hand.moveTo(canvas, onMap({6, 2}));
  EXPECT_EQ(canvas->hoveredCell(), (CellPos{6, 2}));
  hand.click(canvas, onMap({6, 2}));
  EXPECT_FALSE(session().quilt().layer(session().desk().activeAt())->cells.at({6, 2}).empty());
  hand.click(canvas, onMap({5, 5}), Qt::RightButton);
  EXPECT_EQ(session().quilt().layer(session().desk().activeAt())->folder, level.id) << "taken from its level";
  picture("plan-view");
  hand.key(Qt::Key_P);
  EXPECT_FALSE(session().desk().planView);

  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  const Map painted = map();
  report("two levels, painted and seen from above");
  close();
  openDemo();
  session().verbs().maps.goTo(painted.id);
  EXPECT_EQ(map(), painted);
}

TEST_F(Rising, ALevelGoesWithItsLayersAndComesBack) {
  makeDiamonds(10);
  const Map before = map();
  hand.key(Qt::Key_L, Qt::ControlModifier);
  const Map with = map();
  Story::choose(ActionId::deleteLevel);
  EXPECT_EQ(map(), before);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(map(), with);
}

TEST_F(Rising, OneStrokeIsLiftedAndTheNextLayerIsNot) {
  makeDiamonds(3);
  MapCanvas* canvas = room->canvas();
  canvas->setFocus();
  hand.key(Qt::Key_PageUp);
  hand.key(Qt::Key_PageUp);
  const int lift = session().desk().lift;
  EXPECT_EQ(lift, 2 * (map().grid.cell.h / 4));
  hand.moveTo(canvas, onMap({6, 6}));
  EXPECT_EQ(canvas->tagText(), QStringLiteral("Brush on Ground · 6, 6, lifted %1 px").arg(lift));
  picture("lifted-ghost");
  hand.drag(canvas, {onMap({6, 6}), onMap({8, 6})});
  EXPECT_EQ(map().layers[0]->lifts.at({7, 6}), lift);
  // Taken up again, it is gone on with at its height.
  hand.key(Qt::Key_PageDown);
  hand.key(Qt::Key_PageDown);
  EXPECT_EQ(session().desk().lift, 0);
  hand.click(canvas, onMap({7, 6}) - QPointF(0, lift * canvas->zoom()), Qt::RightButton);
  EXPECT_EQ(session().desk().lift, lift);
  // Another layer starts on its plane.
  Story::choose(ActionId::addLayer);
  EXPECT_EQ(session().desk().lift, 0);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(map().layers[0]->lifts.empty());
}

TEST_F(Rising, BoxesFollowTheGridOrWhatIsSeen) {
  makeDiamonds(3);
  hand.key(Qt::Key_5);
  MapCanvas* canvas = room->canvas();
  hand.drag(canvas, {onMap({2, 2}), onMap({5, 4})});
  EXPECT_EQ(session().desk().selection(), CellSet(CellRect{2, 2, 6, 5}));
  hand.click(in<QToolButton>(QStringLiteral("box-along-grid-button")));
  hand.key(Qt::Key_Escape);
  hand.drag(canvas, {onMap({2, 6}), onMap({6, 2})});
  const CellSet seen = session().desk().selection();
  for (int i = 0; i <= 4; ++i) EXPECT_TRUE(seen.contains({2 + i, 6 - i})) << "cells on one height";
  EXPECT_EQ(seen.count(), 5);
  picture("box-as-seen");
}

// Tiles that cannot be turned change to what shows their other side, once that was said.
TEST_F(Rising, OtherSidesAreSaidByDroppingTilesAndUsedByTurning) {
  makeDiamonds(3);
  MapCanvas* canvas = room->canvas();
  hand.click(room->table(), onTable("street", 24));
  auto* sides = in<OtherSides>(QStringLiteral("other-sides"));
  ASSERT_TRUE(sides->isVisible());
  canvas->setFocus();
  hand.key(Qt::Key_E);
  hand.moveTo(canvas, onMap({4, 4}));
  EXPECT_EQ(canvas->tagText(), QStringLiteral("Brush on Things · 1 tile has no other side"));
  hand.key(Qt::Key_Q);

  // By dragging a tile onto its place, and by pressing the place and clicking the tile.
  QToolButton* right = sides->place(1);
  const QPointF at = room->table()->mapFrom(room.get(), right->mapTo(room.get(), right->rect().center()));
  hand.drag(room->table(), {onTable("street", 25), at});
  const Cell held(tile("street", 24), {});
  EXPECT_EQ(session().desk().inHand.block, Block::of(held)) << "a drop does not take";
  EXPECT_EQ(partnerOf(session().quilt(), held.tile(), 4, 1), tile("street", 25));
  hand.click(sides->place(2));
  hand.click(room->table(), onTable("street", 26));
  EXPECT_EQ(partnerOf(session().quilt(), held.tile(), 4, 2), tile("street", 26));
  EXPECT_EQ(session().desk().inHand.block, Block::of(held));
  picture("other-sides");

  canvas->setFocus();
  hand.key(Qt::Key_E);
  EXPECT_EQ(session().desk().inHand.block, Block::of(Cell(tile("street", 25), {})));
  hand.moveTo(canvas, onMap({4, 4}));
  EXPECT_EQ(canvas->tagText(), QStringLiteral("Brush on Things"));
  for (int i = 0; i < 3; ++i) hand.key(Qt::Key_E);
  EXPECT_EQ(session().desk().inHand.block, Block::of(held)) << "four quarters are nothing, with one side missing";

  // Esc gives up waiting; a right click takes a side away; each was one step.
  hand.click(sides->place(3));
  canvas->setFocus();
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(session().verbs().hand.awaitedPartner());
  hand.click(sides->place(2), QPointF(10, 10), Qt::RightButton);
  EXPECT_FALSE(partnerOf(session().quilt(), held.tile(), 4, 2));
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(partnerOf(session().quilt(), held.tile(), 4, 2));
  report("two other sides said, and turned");
}

}  // namespace uq::test
